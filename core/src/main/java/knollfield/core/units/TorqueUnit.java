package knollfield.core.units;

/**
 * A unit of torque. One pound-force foot is exactly 1.3558179483314004 N·m (0.3048 m × 0.45359237 kg × 9.80665 m/s²;
 * NIST SP 811, appendix B); a pound-force inch is a twelfth of that.
 */
public enum TorqueUnit {
    NEWTON_METRE("N·m", 1.0),
    POUND_FOOT("lb·ft", 1.3558179483314004),
    POUND_INCH("lb·in", 1.3558179483314004 / 12);

    private final String symbol;
    private final double newtonMetres;

    TorqueUnit(String symbol, double newtonMetres) {
        this.symbol = symbol;
        this.newtonMetres = newtonMetres;
    }

    /** The symbol as printed on the bench screen, such as {@code lb·ft}. */
    public String symbol() {
        return symbol;
    }

    double newtonMetresPerUnit() {
        return newtonMetres;
    }
}
