package knollfield.core.engine.build;

import java.util.List;
import java.util.Optional;

/**
 * Something set in to hold, and counted out again.
 *
 * @param loops codes of the loops whose timing it serves; empty for what serves a joint or the engine's weight alone
 * @param holds codes of the shafts, wheels or parts it holds
 * @param position code of the crank position it goes in at; empty where any will do
 * @param takesTorque it may take the torque of a bolt
 * @param off codes of the parts that must be off to reach it
 * @param inBefore by when it is in
 * @param expectedBack it goes in again after the turns and proves by that
 * @param slidesIn it goes in only when the timing is true, so that setting it in finds its reference
 * @param playDegrees how far what it holds can still turn, zero or more
 */
public record Hardware(
        String code,
        String name,
        Kind kind,
        List<String> loops,
        List<String> holds,
        Optional<String> position,
        boolean takesTorque,
        List<String> off,
        InBefore inBefore,
        boolean expectedBack,
        boolean slidesIn,
        int playDegrees) {

    /** Kinds of what holds. */
    public enum Kind {
        PIN,
        BAR,
        LOCK,
        CLAMP,
        TIE,
        HOLDER,
        RING_GEAR_LOCK,
        /** Holds a tensioner back; a new one comes with it. */
        TENSIONER_PIN,
        /** Carries the engine while a mount is off. */
        SUPPORT
    }

    /** By when a piece of hardware is in. */
    public enum InBefore {
        LOOP_OFF,
        /** Before any slack is let in. */
        TENSION_OFF,
        /** Before the joints it is for. */
        JOINT
    }

    public Hardware {
        loops = List.copyOf(loops);
        holds = List.copyOf(holds);
        off = List.copyOf(off);
        if (playDegrees < 0 || playDegrees > 45) {
            throw new IllegalArgumentException(
                    "%s leaves 0 to 45 degrees of play, not %d".formatted(code, playDegrees));
        }
    }

    /** True for what goes in only once its loop is in time: it holds shafts as they belong to each other. */
    public boolean waitsForMarks() {
        boolean timing = !loops.isEmpty() && inBefore != InBefore.JOINT;
        return kind != Kind.TENSIONER_PIN && kind != Kind.TIE && (slidesIn || position.isPresent() || timing);
    }

    /** True for what stands in the way of turning the engine; a support does not. */
    public boolean stopsTurning() {
        return kind != Kind.SUPPORT && kind != Kind.TENSIONER_PIN;
    }

    /** The same where nothing is known of its play. */
    Hardware unmeasured() {
        return new Hardware(
                code, name, kind, loops, holds, position, takesTorque, off, inBefore, expectedBack, slidesIn, 0);
    }
}
