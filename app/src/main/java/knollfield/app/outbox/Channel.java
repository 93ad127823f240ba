package knollfield.app.outbox;

/** By what way something reaches an owner in writing. */
public enum Channel {
    EMAIL("by e-mail"),
    TEXT("by text message"),
    LETTER("by letter");

    private final String words;

    Channel(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
