package knollfield.core.engine;

/**
 * What it costs when the drive lets go, in minor units; planning assumption.
 *
 * @param low at least zero
 * @param likely at least {@code low}
 * @param high at least {@code likely}
 */
public record RepairEstimate(long low, long likely, long high) {

    public RepairEstimate {
        if (low < 0 || likely < low || high < likely) {
            throw new IllegalArgumentException(
                    "a repair estimate runs from low to high: %d, %d, %d".formatted(low, likely, high));
        }
    }
}
