package knollfield.app.problem;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Gathers what is wrong with a request, so that all of it is said at once. */
public final class Checks {

    private final List<FieldProblem> problems = new ArrayList<>();

    /** Notes {@code detail} against {@code pointer} unless {@code good}. */
    public Checks that(boolean good, String pointer, String detail) {
        if (!good) {
            problems.add(new FieldProblem(pointer, detail));
        }
        return this;
    }

    /** Text that must be there and fit its column. */
    public Checks text(@Nullable String value, int max, String pointer, String what) {
        that(value != null && !value.isBlank(), pointer, what + " is missing.");
        return that(value == null || value.length() <= max, pointer, what + " is longer than " + max + " characters.");
    }

    public List<FieldProblem> problems() {
        return List.copyOf(problems);
    }

    /**
     * Goes on only where nothing is wrong.
     *
     * @throws InvalidInput with everything noted
     */
    public void orThrow() {
        if (!problems.isEmpty()) {
            throw new InvalidInput(problems);
        }
    }
}
