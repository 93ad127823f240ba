package knollfield.core.engine.build;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.units.Torque;

/**
 * What holds something, and how it is undone and done up.
 *
 * @param holds codes of the assemblies and wheels it holds
 * @param bolts one or more
 * @param stages how it is done up, in order, one or more
 * @param critical measured with a wrench, never felt
 * @param fasteners code of its one-time fasteners, new whenever it has been undone; empty where they go back
 * @param heldBy what holds against the wrench
 * @param holders codes of the hardware that holds against it, where hardware does
 * @param pinned codes of the hardware that is in while it is undone and done up, beside what holds
 * @param reachedPast codes of what lies before it and does not hide it
 * @param hiddenBy codes of what hides it though its kind usually does not
 * @param loop code of the loop by whose state its moments are told; empty: of every loop
 */
public record Joint(
        String code,
        String name,
        List<String> holds,
        int bolts,
        List<Stage> stages,
        boolean critical,
        Optional<String> fasteners,
        HeldBy heldBy,
        List<String> holders,
        List<String> pinned,
        List<String> reachedPast,
        List<String> hiddenBy,
        Optional<String> loop,
        Undoing undoing) {

    /** What holds a part against the wrench. */
    public enum HeldBy {
        NOTHING,
        COUNTER_HOLDER,
        HEXAGON,
        BAR_IN_PULLEY,
        HARDWARE
    }

    /**
     * How it comes undone.
     *
     * @param leftHand it turns out to the right
     * @param socket what an ordinary set does not hold; empty for nothing special
     * @param hidden where a hidden bolt is; empty for none
     * @param order in which several bolts are done up, and undone the other way round; empty where the book does not say
     */
    public record Undoing(
            boolean leftHand, Optional<String> socket, Optional<String> hidden, Optional<BoltOrder> order) {
        public static Undoing plain() {
            return new Undoing(false, Optional.empty(), Optional.empty(), Optional.empty());
        }
    }

    /**
     * The order in which the bolts of a joint are gone over.
     *
     * @param start the bolt that comes first, numbered from 1 on clockwise around the part
     * @param clockwise which way it goes on; across the part it says which neighbour comes before the other
     */
    public record BoltOrder(Way way, int start, boolean clockwise) {

        /** How it goes on from the first bolt. */
        public enum Way {
            /** Each next one as far as can be from those before it. */
            CROSSWISE,
            /** One after the other. */
            ROUND,
            /** The first one's neighbours, then theirs. */
            OUTWARDS
        }

        public BoltOrder {
            if (start < 1) {
                throw new IllegalArgumentException("the bolt that comes first is number 1 or more, not " + start);
            }
        }
    }

    /**
     * How far a joint is done up.
     *
     * @param torque empty: by hand, nipped, or not on file
     * @param angleDegrees turned on by this; empty for none
     * @param passes over the pattern, one or more
     * @param from not before this
     * @param until not after this
     * @param tightFirst codes of joints that are tight before it
     */
    public record Stage(
            Optional<Torque> torque,
            OptionalInt angleDegrees,
            int passes,
            Moment from,
            Moment until,
            List<String> tightFirst) {
        public Stage {
            tightFirst = List.copyOf(tightFirst);
            if (passes < 1 || passes > 9) {
                throw new IllegalArgumentException("a stage has 1 to 9 passes, not %d".formatted(passes));
            }
            if (angleDegrees.orElse(1) < 1 || angleDegrees.orElse(1) > 720) {
                throw new IllegalArgumentException(
                        "a tightening angle is 1 to 720 degrees, not %d".formatted(angleDegrees.orElse(0)));
            }
        }

        private Stage to(Optional<Torque> otherTorque, OptionalInt otherAngle) {
            return new Stage(otherTorque, otherAngle, passes, from, until, tightFirst);
        }
    }

    /** A milestone of the work that a stage lies before or after, in working order. */
    public enum Moment {
        /** The part sits. */
        FITTED,
        /** The loop is laid. */
        LAID,
        /** The loop has its tension. */
        TENSIONED,
        /** Two turns by hand are done. */
        TURNED,
        /** The tension has been set once more after the turns. */
        SET_AGAIN,
        /** The engine is closed. */
        CLOSED,
        /** The engine has run. */
        RAN
    }

    public Joint {
        holds = List.copyOf(holds);
        stages = List.copyOf(stages);
        holders = List.copyOf(holders);
        pinned = List.copyOf(pinned);
        reachedPast = List.copyOf(reachedPast);
        hiddenBy = List.copyOf(hiddenBy);
        if (bolts < 1) {
            throw new IllegalArgumentException("joint %s needs at least one bolt".formatted(code));
        }
        int first = undoing.order().map(BoltOrder::start).orElse(1);
        if (first > bolts) {
            throw new IllegalArgumentException(
                    "joint %s has %d bolts; number %d cannot come first".formatted(code, bolts, first));
        }
        if (stages.isEmpty()) {
            throw new IllegalArgumentException("joint %s is done up in at least one stage".formatted(code));
        }
    }

    /** This joint with another tightening figure: its torque in the first stage that has one, its angle in the first that has one. */
    Joint with(TorqueSpec spec) {
        List<Stage> changed = new ArrayList<>(stages);
        boolean torqueSet = false;
        boolean angleSet = false;
        for (int i = 0; i < changed.size(); i++) {
            Stage s = changed.get(i);
            if (!torqueSet && (s.torque().isPresent() || stages.size() == 1)) {
                s = new Stage(
                        Optional.of(spec.torque()), s.angleDegrees(), s.passes(), s.from(), s.until(), s.tightFirst());
                torqueSet = true;
            }
            if (!angleSet && s.angleDegrees().isPresent() && spec.angleDegrees().isPresent()) {
                s = new Stage(s.torque(), spec.angleDegrees(), s.passes(), s.from(), s.until(), s.tightFirst());
                angleSet = true;
            }
            changed.set(i, s);
        }
        return new Joint(
                code,
                name,
                holds,
                bolts,
                changed,
                critical,
                fasteners,
                heldBy,
                holders,
                pinned,
                reachedPast,
                hiddenBy,
                loop,
                undoing);
    }

    /**
     * This joint with other figures. What the order of its stages says stays; where it is done up in several torques the
     * last is the one that is given, and the first is nipped.
     *
     * @param figure empty: not on file
     */
    public Joint figured(int otherBolts, boolean isCritical, Optional<TorqueSpec> figure) {
        List<Stage> torques =
                stages.stream().filter(s -> s.angleDegrees().isEmpty()).toList();
        List<Stage> angles =
                stages.stream().filter(s -> s.angleDegrees().isPresent()).toList();
        List<Stage> changed = new ArrayList<>();
        Stage last = torques.isEmpty() ? stages.get(0) : torques.get(torques.size() - 1);
        if (torques.size() > 1) {
            changed.add(torques.get(0).to(Optional.empty(), OptionalInt.empty()));
        }
        changed.add(last.to(figure.map(TorqueSpec::torque), OptionalInt.empty()));
        Stage turned = angles.isEmpty() ? last : angles.get(0);
        figure.ifPresentOrElse(
                f -> f.angleDegrees().ifPresent(a -> changed.add(turned.to(Optional.empty(), OptionalInt.of(a)))),
                // its place in the work is known though its figure is not
                () -> {
                    if (!angles.isEmpty()) {
                        changed.add(turned.to(Optional.empty(), OptionalInt.empty()));
                    }
                });
        return new Joint(
                code,
                name,
                holds,
                otherBolts,
                changed,
                isCritical,
                fasteners,
                heldBy,
                holders,
                pinned,
                reachedPast,
                hiddenBy,
                loop,
                undoing);
    }

    /** This joint where some of the hardware that is in while it is done up is not at hand. */
    public Joint withoutPins(Set<String> missing) {
        return new Joint(
                code,
                name,
                holds,
                bolts,
                stages,
                critical,
                fasteners,
                heldBy,
                holders,
                pinned.stream().filter(p -> !missing.contains(p)).toList(),
                reachedPast,
                hiddenBy,
                loop,
                undoing);
    }
}
