package knollfield.app.outbox;

/** What something is written for. */
public enum MessageKind {
    REMINDER("reminder"),
    ESTIMATE("estimate"),
    PROMISE("changed time");

    private final String words;

    MessageKind(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
