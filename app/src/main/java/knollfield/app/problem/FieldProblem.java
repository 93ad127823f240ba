package knollfield.app.problem;

/**
 * What is wrong with one field.
 *
 * @param pointer JSON pointer into the request, such as {@code /value}
 * @param detail one sentence with the value and a way forward
 */
public record FieldProblem(String pointer, String detail) {}
