package knollfield.app.outbox;

/** Nobody answered whether a message was taken over; it must not be tried again unasked. */
class MayHaveGone extends Exception {
    private static final long serialVersionUID = 1L;

    MayHaveGone(String words) {
        super(words);
    }
}
