package knollfield.app.problem;

/** Somebody else changed the same thing first. Nothing has changed. */
public class Conflict extends RuntimeException {

    private static final long serialVersionUID = 1L;

    public Conflict(String detail) {
        super(detail);
    }
}
