package knollfield.core.units;

/** A unit in which an odometer counts. One international mile is exactly 1.609344 km (NIST SP 811, appendix B). */
public enum DistanceUnit {
    KM(1.0),
    MILES(1.609344);

    /** Kilometres in one unit; exact. */
    private final double kilometres;

    DistanceUnit(double kilometres) {
        this.kilometres = kilometres;
    }

    /** Kilometres for {@code value} of this unit; not rounded. */
    public double toKm(double value) {
        return value * kilometres;
    }

    /** The value in this unit for {@code km}; not rounded. */
    public double fromKm(double km) {
        return km / kilometres;
    }
}
