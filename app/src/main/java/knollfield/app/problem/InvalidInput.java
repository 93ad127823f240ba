package knollfield.app.problem;

import java.util.List;

/** Input that cannot be taken; every invalid field at once. Nothing has changed. */
public class InvalidInput extends RuntimeException {

    private static final long serialVersionUID = 1L;

    private final transient List<FieldProblem> problems;

    public InvalidInput(List<FieldProblem> problems) {
        super(problems.isEmpty() ? "invalid input" : problems.get(0).detail());
        this.problems = List.copyOf(problems);
    }

    public InvalidInput(String pointer, String detail) {
        this(List.of(new FieldProblem(pointer, detail)));
    }

    public List<FieldProblem> problems() {
        return problems;
    }
}
