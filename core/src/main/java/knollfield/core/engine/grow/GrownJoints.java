package knollfield.core.engine.grow;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Handling;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.engine.build.Assembly.Kind;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Joint.Moment;
import knollfield.core.units.Torque;

/** A first book's joints with what they hold, what holds against them, and their stages in their moments. */
final class GrownJoints {

    private record Span(Moment from, Moment until) {}

    private static final Span ANY_TIME = new Span(Moment.FITTED, Moment.RAN);
    private static final Span BEFORE_THE_LOOP = new Span(Moment.FITTED, Moment.LAID);
    private static final Span BEFORE_TENSION = new Span(Moment.FITTED, Moment.TENSIONED);
    private static final Span BEFORE_TURNS = new Span(Moment.TENSIONED, Moment.TURNED);
    private static final Span AFTER_TURNS = new Span(Moment.TURNED, Moment.RAN);

    private final EngineFamily family;
    private final GrownParts parts;
    private final GrownTiming timing;

    GrownJoints(EngineFamily family, GrownParts parts, GrownTiming timing) {
        this.family = family;
        this.parts = parts;
        this.timing = timing;
    }

    List<Joint> all() {
        List<Joint> joints = new ArrayList<>();
        family.joints().forEach(j -> joints.add(grown(j)));
        Set<String> there = new LinkedHashSet<>(joints.stream().map(Joint::code).toList());
        timing.frictionJoint()
                .filter(c -> !there.contains(c))
                .ifPresent(c -> joints.add(notOnFile(c, "Crank bolt", 1, crankHolds(c))));
        if (timing.hasFloatingWheels() && !there.contains(timing.floatJoint())) {
            String code = timing.floatJoint();
            joints.add(notOnFile(code, "Cam wheel bolts", timing.camWheels().size(), timing.camWheels()));
        }
        return joints;
    }

    /** A tensioner that is set a second time after the turns. */
    static boolean isSetAgain(TensionerKind kind) {
        return kind == TensionerKind.TORQUE_TOOL;
    }

    private Joint grown(knollfield.core.engine.Joint j) {
        boolean friction = timing.frictionJoint().filter(j.code()::equals).isPresent();
        boolean floating = timing.hasFloatingWheels() && j.code().equals(timing.floatJoint());
        boolean cam = timing.camJoint().filter(j.code()::equals).isPresent();
        List<String> holds = friction ? crankHolds(j.code()) : new ArrayList<>(parts.held(j.code()));
        if (floating || (cam && holds.isEmpty())) {
            holds.addAll(timing.camWheels());
        }
        Span span = span(j, friction, floating, cam);
        List<Joint.Stage> stages = stages(j, span);
        // what is done up after the turns is reached past what had to be on for them
        boolean late = stages.get(stages.size() - 1).from().compareTo(Moment.TURNED) >= 0;
        return new Joint(
                j.code(),
                j.name(),
                holds,
                j.bolts(),
                stages,
                j.critical() || friction || floating,
                j.oneTimeParts().isEmpty() ? Optional.empty() : Optional.of(j.code() + "-new"),
                heldBy(j, friction, floating, cam),
                friction ? List.of(timing.crankLock()) : List.of(),
                friction || floating ? timing.pins() : List.of(),
                late ? timing.backBeforeTurns() : List.of(),
                List.of(),
                span.equals(ANY_TIME) || timing.loopCodes().size() > 1
                        ? Optional.empty()
                        : Optional.of(timing.loopCodes().get(0)),
                new Joint.Undoing(
                        j.assembly().reversedThread(), j.assembly().socket(), Optional.empty(), Optional.empty()));
    }

    private List<String> crankHolds(String joint) {
        List<String> holds = new ArrayList<>(parts.held(joint));
        holds.add(timing.crankWheel());
        return holds;
    }

    private Joint notOnFile(String code, String name, int bolts, List<String> holds) {
        boolean friction = timing.frictionJoint().filter(code::equals).isPresent();
        return new Joint(
                code,
                name,
                holds,
                bolts,
                List.of(stage(Optional.empty(), OptionalInt.empty(), BEFORE_TURNS)),
                true,
                Optional.empty(),
                friction ? Joint.HeldBy.HARDWARE : Joint.HeldBy.COUNTER_HOLDER,
                friction ? List.of(timing.crankLock()) : List.of(),
                timing.pins(),
                List.of(),
                List.of(),
                Optional.of(timing.loopCodes().get(0)),
                Joint.Undoing.plain());
    }

    private static Joint.HeldBy heldBy(
            knollfield.core.engine.Joint j, boolean friction, boolean floating, boolean cam) {
        if (friction) {
            return Joint.HeldBy.HARDWARE;
        }
        boolean crank =
                j.critical() && Codes.words(j.name() + " " + j.code(), Set.of()).contains("crank");
        if (floating || crank) {
            return Joint.HeldBy.COUNTER_HOLDER;
        }
        return cam ? Joint.HeldBy.HEXAGON : Joint.HeldBy.NOTHING;
    }

    private Span span(knollfield.core.engine.Joint j, boolean friction, boolean floating, boolean cam) {
        if (friction || floating) {
            return BEFORE_TURNS;
        }
        Set<String> held = parts.held(j.code());
        if (held.stream().anyMatch(timing.tensionerParts()::contains)) {
            return GrownBuild.isSet(family.tensioner()) ? BEFORE_TURNS : BEFORE_TENSION;
        }
        boolean behind = held.stream().anyMatch(parts::isBehindLoop);
        if (held.stream().anyMatch(p -> parts.is(p, Kind.GUIDE))) {
            return family.handling().guideBolts() == Handling.BoltsFinal.AT_ONCE && behind
                    ? BEFORE_THE_LOOP
                    : BEFORE_TENSION;
        }
        return switch (j.stage()) {
            case PUMP_AND_SEALS -> behind ? BEFORE_THE_LOOP : ANY_TIME;
            case IDLERS_AND_TENSIONER -> behind ? BEFORE_TENSION : ANY_TIME;
            case CRANK_BEFORE_TURNS -> BEFORE_TURNS;
            case FINAL -> cam ? camSpan() : hiddenAgain(held) ? ANY_TIME : AFTER_TURNS;
            case CLOSE_UP -> ANY_TIME;
        };
    }

    private Span camSpan() {
        return switch (family.handling().sprocketBolts()) {
            case AT_ONCE, BEFORE_THE_BELT -> BEFORE_THE_LOOP;
            case WHEN_ALL_SITS -> BEFORE_TENSION;
            case AFTER_TENSIONING -> BEFORE_TURNS;
            case AFTER_THE_TURNS -> AFTER_TURNS;
        };
    }

    /** True for what a part that lies behind the loop hides before the engine is turned. */
    private boolean hiddenAgain(Set<String> held) {
        return held.stream()
                .flatMap(h -> parts.inFrontOf(h).stream())
                .anyMatch(f -> parts.isBehindLoop(f) && !parts.is(f, Kind.TENSIONER));
    }

    private List<Joint.Stage> stages(knollfield.core.engine.Joint j, Span span) {
        Optional<Torque> torque = j.torque().map(TorqueSpec::torque);
        OptionalInt angle = j.torque().map(TorqueSpec::angleDegrees).orElse(OptionalInt.empty());
        List<Joint.Stage> stages = new ArrayList<>();
        Span rest = span;
        boolean tensioner = parts.held(j.code()).stream().anyMatch(timing.tensionerParts()::contains);
        if (tensioner && isSetAgain(family.tensioner())) {
            stages.add(stage(Optional.empty(), OptionalInt.empty(), span));
            rest = new Span(Moment.SET_AGAIN, Moment.RAN);
        }
        stages.add(stage(torque, OptionalInt.empty(), rest));
        if (angle.isPresent()) {
            stages.add(stage(Optional.empty(), angle, rest));
        }
        return stages;
    }

    private static Joint.Stage stage(Optional<Torque> torque, OptionalInt angle, Span span) {
        return new Joint.Stage(torque, angle, 1, span.from(), span.until(), List.of());
    }
}
