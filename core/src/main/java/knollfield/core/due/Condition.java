package knollfield.core.due;

/** Hard use; one that applies selects the severe schedule (rules.md section 2). */
public enum Condition {
    DUST("dust"),
    TOWING("towing"),
    EXTREME_TEMPERATURE("extreme cold or heat"),
    SHORT_TRIPS("mostly short trips"),
    LONG_IDLING("long idling");

    private final String words;

    Condition(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
