package knollfield.core.odometer;

/** Why a reading does not fit the others (rules.md section 1). */
public enum RejectReason {
    RUNS_BACKWARDS("runs backwards"),
    IMPOSSIBLE_RATE("impossible rate"),
    MILES_AS_KM("looks like miles written as kilometres"),
    KM_AS_MILES("looks like kilometres written as miles");

    private final String words;

    RejectReason(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
