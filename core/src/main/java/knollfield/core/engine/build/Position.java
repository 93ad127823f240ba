package knollfield.core.engine.build;

/**
 * A position of the crank within one cycle.
 *
 * @param degrees 0 to 719, in the running way
 * @param atTop what stands at the top there, in the book's words
 */
public record Position(String code, String name, int degrees, String atTop) {

    /** Degrees of a whole cycle of a four-stroke engine. */
    public static final int CYCLE = 720;

    public Position {
        if (degrees < 0 || degrees >= CYCLE) {
            throw new IllegalArgumentException("position %s lies at 0 to 719 degrees, not %d".formatted(code, degrees));
        }
    }

    /** Degrees from here on to {@code other} in the running way, 0 to 719. */
    public int onTo(Position other) {
        return Math.floorMod(other.degrees - degrees, CYCLE);
    }

    /** This position at another angle of the crank. */
    public Position at(int otherDegrees) {
        return new Position(code, name, otherDegrees, atTop);
    }
}
