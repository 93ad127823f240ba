package knollfield.app.outbox;

/** A message was certainly not taken over; it can be tried again. */
class NotTaken extends Exception {
    private static final long serialVersionUID = 1L;

    private final boolean everything;

    /** @param everything the way itself is closed, so that others need not be tried now */
    NotTaken(String words, boolean everything) {
        super(words);
        this.everything = everything;
    }

    boolean isEverything() {
        return everything;
    }
}
