package knollfield.app.problem;

import java.time.Duration;

/** Asked too often; the same may be asked again after a while. Nothing has changed. */
public class TooMany extends RuntimeException {

    private static final long serialVersionUID = 1L;

    private final Duration wait;

    /** @param detail what was too much, as a sentence; how long to wait is added */
    public TooMany(String detail, Duration wait) {
        super(detail + " Try again in " + words(wait) + ".");
        this.wait = wait;
    }

    /** Whole seconds until it may be asked again, at least one. */
    public long seconds() {
        return seconds(wait);
    }

    private static long seconds(Duration wait) {
        return Math.max(1, wait.plusMillis(999).toSeconds());
    }

    private static String words(Duration wait) {
        long seconds = seconds(wait);
        if (seconds == 1) {
            return "a second";
        }
        return seconds < 120 ? seconds + " seconds" : (seconds + 59) / 60 + " minutes";
    }
}
