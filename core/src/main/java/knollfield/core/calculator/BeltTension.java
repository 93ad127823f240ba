package knollfield.core.calculator;

import knollfield.core.engine.Handling.FreeRun;

/**
 * Tension of a free run from the frequency it swings at: T = 4 · m · L² · f², the fundamental of a string (e.g. H. D.
 * Young and R. A. Freedman, <i>University Physics</i>, "Standing waves on a string": f = (1/2L)·√(T/m)). A belt is
 * stiffer than a string, so that the book's frequency is compared, never the tension.
 */
public final class BeltTension {

    private BeltTension() {}

    /** Newtons of {@code run} at {@code hertz}, above zero. */
    public static double newtons(FreeRun run, double hertz) {
        above(hertz, "a frequency");
        return 4 * run.kilogramsPerMetre() * run.metres() * run.metres() * hertz * hertz;
    }

    /** The frequency at which {@code run} swings under {@code newtons}, Hz. */
    public static double hertz(FreeRun run, double newtons) {
        above(newtons, "a tension");
        return Math.sqrt(newtons / run.kilogramsPerMetre()) / (2 * run.metres());
    }

    private static void above(double value, String what) {
        if (!(value > 0) || Double.isInfinite(value)) {
            throw new IllegalArgumentException("%s is above zero, not %s".formatted(what, value));
        }
    }
}
