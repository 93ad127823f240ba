package knollfield.app.problem;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * An RFC 9457 problem.
 *
 * @param type stable reference of the kind of problem
 * @param title short, the same for every problem of the kind
 * @param detail what happened here and what to do
 * @param errors fields at fault
 * @param suggestion a value that would be taken instead, such as a unit; {@value #INSIST} where the same input would be
 *     taken if the person insists
 * @param value the figure as it was understood, in the unit it is judged in, such as N·m; null where there is none
 */
public record Problem(
        String type,
        String title,
        int status,
        String detail,
        List<FieldProblem> errors,
        @Nullable String suggestion,
        @Nullable Double value) {

    /** Suggests sending the same again with {@code insist}. */
    public static final String INSIST = "insist";

    public Problem(
            String type,
            String title,
            int status,
            String detail,
            List<FieldProblem> errors,
            @Nullable String suggestion) {
        this(type, title, status, detail, errors, suggestion, null);
    }

    public static Problem of(String type, String title, int status, String detail) {
        return new Problem("/problems/" + type, title, status, detail, List.of(), null);
    }
}
