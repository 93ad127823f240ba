package knollfield.core.units;

/**
 * What figures of the trade usually are, in their unit. One outside is no fault: it is asked about before it is taken,
 * as a slip of the hand or of the unit. Common practice, no source.
 */
public enum Usual {
    /** Limit of a belt, chain or what goes with it, km. */
    LIMIT_KM(10_000, 400_000),
    /** The same by age, months. */
    LIMIT_MONTHS(12, 240),
    /** Teeth of a belt, links of a chain. */
    LOOP_TEETH(40, 400),
    /** Torque of a joint, N·m. */
    TORQUE_NM(3, 500),
    /** Book minutes of a piece of work. */
    STEP_MINUTES(1, 600),
    /** A filling, litres. */
    LITRES(0.5, 30),
    /** Hours a year that an engine runs standing still. */
    IDLE_HOURS(0, 3_000),
    /** A rate, as parts of the one in force. */
    RATE_SHARE(0.25, 4);

    private final double low;
    private final double high;

    Usual(double low, double high) {
        this.low = low;
        this.high = high;
    }

    public double low() {
        return low;
    }

    public double high() {
        return high;
    }
}
