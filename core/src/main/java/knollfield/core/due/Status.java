package knollfield.core.due;

/** How a vehicle or item stands, worst first (rules.md section 2). Unknown history and no book are never clear. */
public enum Status {
    STOP("Stop"),
    OVERDUE("Overdue"),
    UNKNOWN_HISTORY("History unknown"),
    ACT_NOW("Act now"),
    NO_BOOK("Not in book"),
    COMING("Coming"),
    CLEAR("Clear");

    private final String words;

    Status(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** Nothing calls for action yet: its day, if it has one, lies ahead. */
    public boolean isAhead() {
        return this == COMING || this == CLEAR;
    }

    /** The worse of both. */
    public Status worse(Status other) {
        return compareTo(other) <= 0 ? this : other;
    }
}
