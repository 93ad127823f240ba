package knollfield.app.problem;

/** There is no such thing, or it is not this person's to see. */
public class NotFound extends RuntimeException {

    private static final long serialVersionUID = 1L;

    public NotFound(String detail) {
        super(detail);
    }
}
