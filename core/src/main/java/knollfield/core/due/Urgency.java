package knollfield.core.due;

/** What a vehicle asks of whoever plans, most urgent first (rules.md section 2, order of the Desk). */
public enum Urgency {
    STOP("Must not run"),
    /** Overdue, to be acted on now, or of unknown history: one decision, made by what waiting may cost. */
    DECIDE_NOW("Decide now"),
    COMING("Coming"),
    /** The book has no interval, or the engine is not in it, and nothing was found. */
    NOTHING_TO_COUNT("Nothing to count by"),
    CLEAR("Clear");

    private final String words;

    Urgency(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** True where somebody has to decide today. */
    public boolean isToBeDecided() {
        return this == STOP || this == DECIDE_NOW;
    }

    /** Of a vehicle in such a status. */
    public static Urgency of(Status status) {
        return switch (status) {
            case STOP -> STOP;
            case OVERDUE, UNKNOWN_HISTORY, ACT_NOW -> DECIDE_NOW;
            case COMING -> COMING;
            case NO_BOOK -> NOTHING_TO_COUNT;
            case CLEAR -> CLEAR;
        };
    }
}
