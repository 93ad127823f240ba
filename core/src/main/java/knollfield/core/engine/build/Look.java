package knollfield.core.engine.build;

import java.util.List;
import java.util.Optional;

/**
 * What the book asks to see or measure.
 *
 * @param loop code of the loop whose tension or teeth it judges; empty otherwise
 * @param off codes of the parts that must be off to do it
 * @param on codes of the parts that must be on to do it
 * @param low least good value in {@code unit}; empty where it is a look
 * @param high greatest good value
 * @param unit as printed after the figure
 */
public record Look(
        String code,
        String name,
        Kind kind,
        Optional<String> loop,
        List<String> off,
        List<String> on,
        Optional<Double> low,
        Optional<Double> high,
        String unit) {

    /** When it has its place. */
    public enum Kind {
        /** The tension's own window, after the turns. */
        WINDOW,
        /** A gap at a part, once it is on. */
        GAP,
        /** A valve clearance, while its cover is off. */
        CLEARANCE,
        /** Teeth or links, old against new, before the new loop is laid. */
        COUNT
    }

    public Look {
        off = List.copyOf(off);
        on = List.copyOf(on);
        if (low.isPresent() && high.isPresent() && !(low.get() <= high.get())) {
            throw new IllegalArgumentException(
                    "%s goes from a lower to a higher value, not from %s to %s".formatted(code, low.get(), high.get()));
        }
    }

    /** True where a figure judges it. */
    public boolean hasFigure() {
        return low.isPresent() || high.isPresent();
    }

    /** This look judged by other figures; both empty: it is only looked at. */
    public Look within(Optional<Double> otherLow, Optional<Double> otherHigh) {
        return new Look(code, name, kind, loop, off, on, otherLow, otherHigh, unit);
    }
}
