package knollfield.core.engine.build;

import java.util.List;
import java.util.Optional;

/**
 * What comes off and goes back: a cover, a mount, a pulley, a pump, a tensioner, a wheel.
 *
 * @param before codes of the assemblies and loops that lie before it: off before it comes off, on only after it is on
 * @param equipment it is there only on a vehicle with this equipment; empty: on every one
 * @param carriesEngine the engine hangs on it
 * @param under it is reached from under the vehicle
 * @param letsOut codes of the fluids that run out when it comes off
 * @param onBeforeTurns it stands where it belongs before the proving turns
 * @param lookBeforeOff what is looked at before it comes off, in the book's words; empty for nothing
 * @param moveOver small parts that go over to a new one
 * @param face which face is out, or which way round, in the book's words; empty where it cannot be wrong
 */
public record Assembly(
        String code,
        String name,
        Kind kind,
        List<String> before,
        Optional<String> equipment,
        boolean carriesEngine,
        boolean under,
        List<String> letsOut,
        boolean onBeforeTurns,
        Optional<String> lookBeforeOff,
        List<SmallPart> moveOver,
        Optional<String> face) {

    /** Kinds of assembly; the kind says where in the work it has its place and whether it hides what lies behind it. */
    public enum Kind {
        COVER(true),
        ROCKER_COVER(true),
        FRONT_COVER(true),
        SUMP(true),
        MOUNT(true),
        BRACKET(true),
        PULLEY(true),
        ACCESSORY_DRIVE(true),
        ACCESSORY(true),
        PLUG(true),
        GUIDE_RING(true),
        IDLER(true),
        PUMP(true),
        SEAL(true),
        FILTER(true),
        STRAINER(true),
        GUARD(true),
        OTHER(true),
        TENSIONER(false),
        ARM(false),
        GUIDE(false),
        WHEEL(false);

        private final boolean hides;

        Kind(boolean hides) {
            this.hides = hides;
        }

        /** True where it hides the bolts of all that lies behind it. */
        public boolean hides() {
            return hides;
        }
    }

    /**
     * A washer, spacer or ring that goes over from the old part to the new one.
     *
     * @param place where it sits, in the book's words
     * @param face which of its faces lies where, in the book's words; empty where it cannot be wrong
     * @param goesOnWith code of the assembly with which it goes on; empty: with the new part itself
     */
    public record SmallPart(
            String code, String name, String place, Optional<String> face, Optional<String> goesOnWith) {
        /** One that cannot be the wrong way round and goes on with the new part. */
        public SmallPart(String code, String name, String place) {
            this(code, name, place, Optional.empty(), Optional.empty());
        }
    }

    public Assembly {
        before = List.copyOf(before);
        letsOut = List.copyOf(letsOut);
        moveOver = List.copyOf(moveOver);
    }
}
