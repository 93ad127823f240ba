package knollfield.app.data;

/** Why Knollfield does not start, or a backup is not made or taken in: one sentence that says what to do. */
public class CannotStart extends RuntimeException {

    private static final long serialVersionUID = 1L;

    public CannotStart(String sentence) {
        super(sentence);
    }

    public CannotStart(String sentence, Throwable cause) {
        super(sentence, cause);
    }

    public String sentence() {
        return String.valueOf(getMessage());
    }
}
