package knollfield.core.engine;

import java.math.BigDecimal;
import java.util.regex.Pattern;
import knollfield.core.units.Torque;
import knollfield.core.units.TorqueUnit;

/**
 * A torque as it stands in print; its decimals tell how far it was rounded.
 *
 * @param figure digits with at most one decimal point, such as {@code 158} or {@code 29.8}
 */
public record PrintedTorque(String figure, TorqueUnit unit) {

    private static final Pattern FIGURE = Pattern.compile("\\d{1,5}(\\.\\d{1,3})?");

    /** Difference that nobody would call an error of print. */
    private static final double NEGLIGIBLE = 0.02;

    public PrintedTorque {
        if (!FIGURE.matcher(figure).matches()) {
            throw new IllegalArgumentException("a printed torque is digits such as 158 or 29.8, not " + figure);
        }
    }

    public Torque torque() {
        return Torque.of(value().doubleValue(), unit);
    }

    /**
     * Whether both cannot mean the same torque: they differ by more than 2 % of the larger, and by more than half a unit
     * in the last printed place of each explains (rules.md section 8).
     */
    public boolean contradicts(PrintedTorque other) {
        double a = torque().newtonMetres();
        double b = other.torque().newtonMetres();
        double apart = Math.abs(a - b);
        return apart > NEGLIGIBLE * Math.max(a, b) && apart > rounding() + other.rounding();
    }

    /** Half a unit in the last printed place, N·m. */
    private double rounding() {
        return Torque.of(value().ulp().doubleValue() / 2, unit).newtonMetres();
    }

    private BigDecimal value() {
        return new BigDecimal(figure);
    }

    @Override
    public String toString() {
        return figure + " " + unit.symbol();
    }
}
