package knollfield.core.jobcard;

import java.util.Arrays;
import java.util.Optional;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.units.Torque;
import knollfield.core.units.TorqueUnit;

/**
 * A torque entry set against the book.
 *
 * @param lowNewtonMetres least good value
 * @param highNewtonMetres greatest good value
 * @param guard the unit that was probably meant, where the value is out of range and fits in it
 */
public record TorqueJudgement(
        Torque entered, double lowNewtonMetres, double highNewtonMetres, boolean inRange, Optional<TorqueUnit> guard) {

    /** Planning assumption: ±5 % of the book value. */
    public static final double TOLERANCE = 0.05;

    /** How near another unit's reading of the number must come to the book to be asked about. */
    private static final double GUARD_TOLERANCE = 0.15;

    /**
     * Judges {@code value} in {@code unit} (rules.md section 8). A value outside the range that would be right in
     * another unit, which is how a twelvefold slip shows, asks for that unit.
     */
    public static TorqueJudgement of(TorqueSpec spec, double value, TorqueUnit unit) {
        double book = spec.torque().newtonMetres();
        double low = book * (1 - TOLERANCE);
        double high = book * (1 + TOLERANCE);
        Torque entered = Torque.of(value, unit);
        // a billionth: the ends of the range belong to it whatever floating point makes of them
        boolean inRange = entered.newtonMetres() >= low * (1 - 1e-9) && entered.newtonMetres() <= high * (1 + 1e-9);
        Optional<TorqueUnit> guard = inRange
                ? Optional.empty()
                : Arrays.stream(TorqueUnit.values())
                        .filter(u -> u != unit)
                        .filter(u -> Math.abs(Torque.of(value, u).newtonMetres() / book - 1) <= GUARD_TOLERANCE)
                        .min((a, b) -> Double.compare(distance(value, a, book), distance(value, b, book)));
        return new TorqueJudgement(entered, low, high, inRange, guard);
    }

    private static double distance(double value, TorqueUnit unit, double book) {
        return Math.abs(Torque.of(value, unit).newtonMetres() - book);
    }
}
