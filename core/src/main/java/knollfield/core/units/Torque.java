package knollfield.core.units;

/**
 * A tightening torque.
 *
 * @param newtonMetres finite, zero or more, N·m
 */
public record Torque(double newtonMetres) {

    public Torque {
        if (!(newtonMetres >= 0) || Double.isInfinite(newtonMetres)) {
            throw new IllegalArgumentException("torque (%s N·m) must be zero or more".formatted(newtonMetres));
        }
    }

    /** The torque that {@code value} in {@code unit} stands for. */
    public static Torque of(double value, TorqueUnit unit) {
        return new Torque(value * unit.newtonMetresPerUnit());
    }

    /** This torque as a number in {@code unit}; not rounded. */
    public double in(TorqueUnit unit) {
        return newtonMetres / unit.newtonMetresPerUnit();
    }
}
