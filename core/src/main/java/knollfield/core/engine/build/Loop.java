package knollfield.core.engine.build;

import java.util.List;
import java.util.Optional;
import knollfield.core.engine.BeltPath;
import knollfield.core.engine.Drive;
import knollfield.core.engine.TensionerKind;

/**
 * A belt or chain with what keeps it tight.
 *
 * @param teeth teeth of a belt or links of a chain, above zero
 * @param before codes of what lies before it: off before it comes off, on only after it is laid
 * @param position code of the crank position at which it comes off and goes on
 * @param shafts codes of the shafts whose timing it carries
 * @param wheels codes of the wheels and parts it runs over, in laying order, the last one last
 * @param lastWheel how the loop gets over the last wheel
 * @param slackenFirst codes of the joints that are slackened before the tension is let off: the tensioner's own nut,
 *     wheels that float
 * @param countBetween teeth or links between marked wheels, as read when it is laid
 * @param windows codes of the looks that judge its tension after the turns
 * @param drawing the loop as drawn to the teeth; empty where no drawing is on file: then no run or length is computed
 */
public record Loop(
        String code,
        String name,
        Drive kind,
        int teeth,
        List<String> before,
        String position,
        List<String> shafts,
        List<String> wheels,
        LastWheel lastWheel,
        Optional<Tensioner> tensioner,
        LetOff letOff,
        List<String> slackenFirst,
        List<Count> countBetween,
        List<String> windows,
        Optional<BeltPath> drawing) {

    /** How a loop gets over its last wheel. */
    public enum LastWheel {
        SLID_OVER,
        BOLTED_ON_AFTER
    }

    /** How the old tension is let off before the loop comes off. */
    public enum LetOff {
        /** The tensioner is pressed or swung back. */
        RELEASED,
        /** The tensioner comes off. */
        TENSIONER_OFF,
        /** The loop is cut. */
        CUT
    }

    /**
     * What keeps the loop tight.
     *
     * @param part code of the assembly
     * @param letGo what puts the tension in
     * @param pin code of its own pin; empty where it has none
     * @param pinMayStayForSeatingTurns the pin may be pulled after turns that only seat the loop
     * @param setAgain the tension is set once more after the turns
     */
    public record Tensioner(
            String part,
            TensionerKind kind,
            LetGo letGo,
            Optional<String> pin,
            boolean pinMayStayForSeatingTurns,
            boolean setAgain) {}

    /** What puts the tension in. */
    public enum LetGo {
        /** Its own pin is pulled. */
        PIN_PULLED,
        /** It is tight, and then let go by pressing or a tap. */
        PRESSED,
        /** It is set, and then made tight. */
        SET
    }

    /**
     * Teeth or links between two marked wheels.
     *
     * @param count above zero
     */
    public record Count(String from, String to, int count) {
        public Count {
            if (count < 1) {
                throw new IllegalArgumentException(
                        "between %s and %s lie 1 or more teeth, not %d".formatted(from, to, count));
            }
        }
    }

    /** This loop over other wheels. */
    public Loop over(List<String> other) {
        return with(teeth, other, drawing);
    }

    /** This loop with other teeth or links, and no drawing where they differ from those it was drawn with. */
    public Loop ofTeeth(int other) {
        return with(other, wheels, other == teeth ? drawing : Optional.empty());
    }

    /** This loop without a drawing, and nothing known of what lies between its wheels. */
    Loop unmeasured() {
        return new Loop(
                code,
                name,
                kind,
                teeth,
                before,
                position,
                shafts,
                wheels,
                lastWheel,
                tensioner,
                letOff,
                slackenFirst,
                List.of(),
                windows,
                Optional.empty());
    }

    /** This loop with its drawing. */
    public Loop drawn(BeltPath path) {
        return with(teeth, wheels, Optional.of(path));
    }

    private Loop with(int otherTeeth, List<String> otherWheels, Optional<BeltPath> otherDrawing) {
        return new Loop(
                code,
                name,
                kind,
                otherTeeth,
                before,
                position,
                shafts,
                otherWheels,
                lastWheel,
                tensioner,
                letOff,
                slackenFirst,
                countBetween,
                windows,
                otherDrawing);
    }

    public Loop {
        before = List.copyOf(before);
        shafts = List.copyOf(shafts);
        wheels = List.copyOf(wheels);
        slackenFirst = List.copyOf(slackenFirst);
        countBetween = List.copyOf(countBetween);
        windows = List.copyOf(windows);
        if (teeth < 1) {
            throw new IllegalArgumentException("loop %s needs teeth or links, not %d".formatted(code, teeth));
        }
    }
}
