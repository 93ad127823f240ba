package knollfield.core.due;

import knollfield.core.engine.Drive;

/** Hard use; one that applies selects the severe schedule (rules.md section 2). */
public enum Condition {
    DUST("dust"),
    TOWING("towing"),
    EXTREME_TEMPERATURE("extreme cold or heat"),
    SHORT_TRIPS("mostly short trips"),
    LONG_IDLING("long idling"),
    /** A belt in oil lives as long as its oil is the right one and fresh. */
    OIL_NEGLECTED("oil grade or interval not kept");

    private final String words;

    Condition(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** False for a condition that cannot hurt this kind of drive. */
    public boolean appliesTo(Drive drive) {
        return this != OIL_NEGLECTED || drive == Drive.BELT_IN_OIL;
    }
}
