package knollfield.app.problem;

import java.util.List;

/** Input that cannot be taken; every invalid field at once. Nothing has changed. */
public class InvalidInput extends RuntimeException {

    private static final long serialVersionUID = 1L;

    private final transient List<FieldProblem> problems;
    private final boolean mayInsist;

    public InvalidInput(List<FieldProblem> problems) {
        this(problems, false);
    }

    public InvalidInput(String pointer, String detail) {
        this(List.of(new FieldProblem(pointer, detail)));
    }

    private InvalidInput(List<FieldProblem> problems, boolean mayInsist) {
        super(problems.isEmpty() ? "invalid input" : problems.get(0).detail());
        this.problems = List.copyOf(problems);
        this.mayInsist = mayInsist;
    }

    /** Input that contradicts what is on file, but may be recorded all the same. */
    public static InvalidInput unlessInsisted(List<FieldProblem> problems) {
        return new InvalidInput(problems, true);
    }

    public List<FieldProblem> problems() {
        return problems;
    }

    /** Whether the same input would be taken if the person insists. */
    public boolean mayInsist() {
        return mayInsist;
    }
}
