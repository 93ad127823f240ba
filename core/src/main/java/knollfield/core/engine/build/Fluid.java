package knollfield.core.engine.build;

/**
 * What runs out and in.
 *
 * @param litres filling, zero or more; zero: not on file
 * @param poison words of its danger; empty for none
 * @param neededForSeconds no start without it, not even of seconds
 * @param neededForRunning no running without it
 */
public record Fluid(
        String code, String name, double litres, String poison, boolean neededForSeconds, boolean neededForRunning) {
    public Fluid {
        if (!(litres >= 0 && litres <= 100)) {
            throw new IllegalArgumentException("fluid %s fills 0 to 100 litres, not %s".formatted(code, litres));
        }
    }

    /** This fluid with another filling; zero: not on file. */
    public Fluid of(double otherLitres) {
        return new Fluid(code, name, otherLitres, poison, neededForSeconds, neededForRunning);
    }
}
