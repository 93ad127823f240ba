package knollfield.core.engine;

import java.util.List;
import java.util.Optional;

/**
 * How a joint is put together, beside its torque.
 *
 * @param reversedThread it tightens to the left
 * @param socket what an ordinary set does not hold, such as {@code inverted star 12} or {@code thin wall only}
 * @param lengths bolts by length; empty where all are alike
 * @param threadlock the threads take threadlock
 * @param handToolsOnly no power tool on it
 */
public record Assembly(
        boolean reversedThread,
        Optional<String> socket,
        List<Bolts> lengths,
        Face face,
        boolean threadlock,
        boolean handToolsOnly) {

    /** What seals the joint. */
    public enum Face {
        DRY,
        GASKET,
        SEALANT,
        NO_SEAL
    }

    /**
     * Bolts of one length.
     *
     * @param count at least 1
     * @param lengthMm under the head, above zero, mm
     */
    public record Bolts(int count, double lengthMm) {
        public Bolts {
            if (count < 1 || !(lengthMm > 0)) {
                throw new IllegalArgumentException(
                        "bolts need a count of at least 1 and a length above zero, not %d of %s mm"
                                .formatted(count, lengthMm));
            }
        }
    }

    public Assembly {
        lengths = List.copyOf(lengths);
    }

    /** Nothing special. */
    public static Assembly plain() {
        return new Assembly(false, Optional.empty(), List.of(), Face.NO_SEAL, false, false);
    }

    /** The same with bolts of one length, for another count of them. */
    Assembly ofOneLength() {
        return new Assembly(reversedThread, socket, List.of(), face, threadlock, handToolsOnly);
    }
}
