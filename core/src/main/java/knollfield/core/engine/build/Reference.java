package knollfield.core.engine.build;

import java.util.List;
import java.util.Optional;

/**
 * What the timing is read by.
 *
 * @param loops codes of the loops whose timing it tells
 * @param readAgainst what is read against what, in the book's words
 * @param position code of the crank position it is read at
 * @param off codes of the parts that must be off to read it
 * @param on codes of the parts that must be on, or put on for the moment, to read it
 * @param own the workshop makes it itself, before anything is let off
 * @param trust when it can be believed
 * @param goodWithinDegrees how far it may be off and still be good, zero for exact
 * @param hardware code of the pin or bar that is the reference; empty where it is a mark
 */
public record Reference(
        String code,
        String name,
        List<String> loops,
        String readAgainst,
        String position,
        List<String> off,
        List<String> on,
        boolean own,
        Trust trust,
        double goodWithinDegrees,
        Optional<String> hardware) {

    /** When a reference can be believed. */
    public enum Trust {
        BEFORE_AND_AFTER,
        BEFORE,
        AFTER,
        /** Coloured links, printed marks and the like: they meet when the loop is laid, not after it has been turned. */
        LAYING_ONLY,
        /** Across a loop that is held on its wheels: good until its ties come off. */
        WHILE_HELD,
        NEVER
    }

    public Reference {
        loops = List.copyOf(loops);
        off = List.copyOf(off);
        on = List.copyOf(on);
        if (!(goodWithinDegrees >= 0 && goodWithinDegrees <= 45)) {
            throw new IllegalArgumentException(
                    "reference %s is good within 0 to 45 degrees, not %s".formatted(code, goodWithinDegrees));
        }
    }

    public boolean trustedBefore() {
        return trust == Trust.BEFORE_AND_AFTER || trust == Trust.BEFORE;
    }

    public boolean trustedAfter() {
        return trust == Trust.BEFORE_AND_AFTER || trust == Trust.AFTER;
    }
}
