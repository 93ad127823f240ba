package knollfield.core.engine;

/**
 * A wheel the belt or chain runs over, in the order it is passed in running direction.
 *
 * @param x right of the crank centre as seen on the bench drawing, mm
 * @param y above the crank centre, mm
 * @param teeth teeth of the sprocket; 0 for a smooth wheel
 * @param radiusMm pitch radius or, for a smooth wheel, outer radius
 * @param outside true where the back of the belt touches it
 * @param marked true where its mark must be true at the timing position
 */
public record Pulley(
        String code,
        String name,
        Role role,
        double x,
        double y,
        int teeth,
        double radiusMm,
        boolean outside,
        boolean marked) {

    /** What a wheel is there for. */
    public enum Role {
        CRANK,
        CAM,
        FUEL_PUMP,
        WATER_PUMP,
        IDLER,
        TENSIONER
    }

    public Pulley {
        if (teeth < 0 || !(radiusMm > 0)) {
            throw new IllegalArgumentException("wheel %s: teeth %d, radius %s mm".formatted(code, teeth, radiusMm));
        }
        if (marked && teeth == 0) {
            throw new IllegalArgumentException("wheel %s is smooth and cannot carry a timing mark".formatted(code));
        }
    }
}
