package knollfield.core.kinds;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.UnaryOperator;
import knollfield.core.engine.Drive;
import knollfield.core.engine.Ratio;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Caution;
import knollfield.core.engine.build.DryStart;
import knollfield.core.engine.build.Fluid;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Joint.Moment;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Opening;
import knollfield.core.engine.build.OwnOrder;
import knollfield.core.engine.build.Position;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Shaft;
import knollfield.core.engine.build.Turner;
import knollfield.core.engine.build.Wheel;
import knollfield.core.units.Torque;

/** Writes a build down in few words. Parts first, then what lies before what, then their joints. */
public final class Draft {

    private final List<Shaft> shafts = new ArrayList<>();
    private final List<Wheel> wheels = new ArrayList<>();
    private final List<Loop> loops = new ArrayList<>();
    private final List<Position> positions = new ArrayList<>();
    private final List<Hardware> hardware = new ArrayList<>();
    private final List<Reference> references = new ArrayList<>();
    private final Map<String, Assembly> assemblies = new LinkedHashMap<>();
    private final Map<String, Joint> joints = new LinkedHashMap<>();
    private final Map<String, List<Loop.Count>> counts = new LinkedHashMap<>();
    private final Map<String, Set<String>> before = new LinkedHashMap<>();
    private final List<Opening> openings = new ArrayList<>();
    private final List<Fluid> fluids = new ArrayList<>();
    private final List<Look> looks = new ArrayList<>();
    private final List<Turner> turners = new ArrayList<>();
    private final List<Build.Renews> renews = new ArrayList<>();
    private final List<OwnOrder> orders = new ArrayList<>();
    private final List<Caution> cautions = new ArrayList<>();
    private final Set<String> jointless = new HashSet<>();
    private int turnedBackDegrees;
    private Optional<DryStart> dryStart = Optional.empty();

    Draft() {
        shafts.add(new Shaft(
                "crank", "Crank", Shaft.Role.CRANK, Ratio.ONE, "", Shaft.WhenFree.STAYS, false, List.of(), 0));
    }

    Draft shaft(String code, String name, Shaft.Role role, Shaft.WhenFree whenFree) {
        return shaft(code, name, role, whenFree, s -> s);
    }

    Draft shaft(String code, String name, Shaft.Role role, Shaft.WhenFree whenFree, UnaryOperator<Shaft> with) {
        shafts.add(with.apply(new Shaft(code, name, role, new Ratio(1, 2), "", whenFree, false, List.of(), 0)));
        return this;
    }

    Draft cam(String code, String name) {
        return shaft(code, name, Shaft.Role.CAM, Shaft.WhenFree.STAYS);
    }

    /** A cam that springs off its lobe when nothing holds it. */
    Draft springs(String code, String name) {
        return shaft(code, name, Shaft.Role.CAM, Shaft.WhenFree.SPRINGS);
    }

    Draft wheel(String code, String name, String shaft, Wheel.Fit fit, String joint) {
        wheels.add(new Wheel(
                code,
                name,
                shaft,
                fit,
                fit == Wheel.Fit.FLOATING ? 8 : 0,
                joint.isEmpty() ? Optional.empty() : Optional.of(joint)));
        return this;
    }

    /** Wheels written down so far. */
    List<Wheel> wheels() {
        return List.copyOf(wheels);
    }

    Draft position(String code, String name, int degrees) {
        positions.add(new Position(code, name, degrees, ""));
        return this;
    }

    Draft part(String code, String name, Assembly.Kind kind) {
        return part(code, name, kind, false);
    }

    /** A part that is reached from under the vehicle. */
    Draft under(String code, String name, Assembly.Kind kind) {
        return part(code, name, kind, true);
    }

    private Draft part(String code, String name, Assembly.Kind kind, boolean under) {
        assemblies.put(
                code,
                new Assembly(
                        code,
                        name,
                        kind,
                        List.of(),
                        Optional.empty(),
                        kind == Assembly.Kind.MOUNT,
                        under,
                        List.of(),
                        false,
                        Optional.empty(),
                        List.of(),
                        Optional.empty()));
        return this;
    }

    private Draft change(String code, UnaryOperator<Assembly> with) {
        assemblies.compute(code, (c, a) -> with.apply(java.util.Objects.requireNonNull(a)));
        return this;
    }

    Draft letsOut(String part, String fluid) {
        return change(
                part,
                a -> new Assembly(
                        a.code(),
                        a.name(),
                        a.kind(),
                        a.before(),
                        a.equipment(),
                        a.carriesEngine(),
                        a.under(),
                        List.of(fluid),
                        a.onBeforeTurns(),
                        a.lookBeforeOff(),
                        a.moveOver(),
                        a.face()));
    }

    Draft onBeforeTurns(String part) {
        return change(
                part,
                a -> new Assembly(
                        a.code(),
                        a.name(),
                        a.kind(),
                        a.before(),
                        a.equipment(),
                        a.carriesEngine(),
                        a.under(),
                        a.letsOut(),
                        true,
                        a.lookBeforeOff(),
                        a.moveOver(),
                        a.face()));
    }

    Draft lookBeforeOff(String part, String words) {
        return change(
                part,
                a -> new Assembly(
                        a.code(),
                        a.name(),
                        a.kind(),
                        a.before(),
                        a.equipment(),
                        a.carriesEngine(),
                        a.under(),
                        a.letsOut(),
                        a.onBeforeTurns(),
                        Optional.of(words),
                        a.moveOver(),
                        a.face()));
    }

    Draft moveOver(String part, Assembly.SmallPart... small) {
        return change(
                part,
                a -> new Assembly(
                        a.code(),
                        a.name(),
                        a.kind(),
                        a.before(),
                        a.equipment(),
                        a.carriesEngine(),
                        a.under(),
                        a.letsOut(),
                        a.onBeforeTurns(),
                        a.lookBeforeOff(),
                        List.of(small),
                        a.face()));
    }

    Draft face(String part, String words) {
        return change(
                part,
                a -> new Assembly(
                        a.code(),
                        a.name(),
                        a.kind(),
                        a.before(),
                        a.equipment(),
                        a.carriesEngine(),
                        a.under(),
                        a.letsOut(),
                        a.onBeforeTurns(),
                        a.lookBeforeOff(),
                        a.moveOver(),
                        Optional.of(words)));
    }

    /**
     * What lies before what: {@code x > y} where x lies before y, {@code a+b} for each of several, clauses parted by
     * semicolons; ° marks a part without a joint of its own. Every other part gets a plain joint of its name.
     */
    Draft before(String clauses) {
        for (String clause : clauses.split(";")) {
            List<List<String>> chain = Arrays.stream(clause.split(">"))
                    .map(term -> Arrays.stream(term.split("\\+"))
                            .map(String::strip)
                            .map(this::jointed)
                            .toList())
                    .toList();
            for (int i = 1; i < chain.size(); i++) {
                for (String behind : chain.get(i)) {
                    before.computeIfAbsent(behind, b -> new LinkedHashSet<>()).addAll(chain.get(i - 1));
                }
            }
        }
        return this;
    }

    private String jointed(String term) {
        if (term.endsWith("°")) {
            String code = term.substring(0, term.length() - 1);
            jointless.add(code);
            return code;
        }
        Assembly part = assemblies.get(term);
        if (part != null && !joints.containsKey(term) && !jointless.contains(term)) {
            joint(term, part.name(), torque(8.5), j -> j);
        }
        return term;
    }

    /** A stage that may be done at any time between fitting and being hidden. */
    static Joint.Stage torque(double newtonMetres) {
        return stage(Optional.of(new Torque(newtonMetres)), OptionalInt.empty(), Moment.FITTED, Moment.RAN);
    }

    static Joint.Stage torque(double newtonMetres, Moment from, Moment until) {
        return stage(Optional.of(new Torque(newtonMetres)), OptionalInt.empty(), from, until);
    }

    static Joint.Stage angle(int degrees, Moment from, Moment until, String... tightFirst) {
        return new Joint.Stage(Optional.empty(), OptionalInt.of(degrees), 1, from, until, Arrays.asList(tightFirst));
    }

    static Joint.Stage nipped(Moment from, Moment until) {
        return stage(Optional.empty(), OptionalInt.empty(), from, until);
    }

    private static Joint.Stage stage(Optional<Torque> torque, OptionalInt angle, Moment from, Moment until) {
        return new Joint.Stage(torque, angle, 1, from, until, List.of());
    }

    Draft joint(String code, String name, Joint.Stage stage, UnaryOperator<JointDraft> with) {
        return joint(code, name, List.of(stage), with);
    }

    Draft joint(String code, String name, List<Joint.Stage> stages, UnaryOperator<JointDraft> with) {
        joints.put(code, with.apply(new JointDraft(code, name, stages)).joint());
        return this;
    }

    /** One joint being written down. */
    static final class JointDraft {
        private final String code;
        private final String name;
        private final List<Joint.Stage> stages;
        private List<String> holds;
        private int bolts = 1;
        private boolean critical;
        private Optional<String> fasteners = Optional.empty();
        private Joint.HeldBy heldBy = Joint.HeldBy.NOTHING;
        private List<String> holders = List.of();
        private List<String> pinned = List.of();
        private List<String> reachedPast = List.of();
        private List<String> hiddenBy = List.of();
        private Optional<String> loop = Optional.empty();
        private boolean leftHand;
        private Optional<String> hidden = Optional.empty();

        JointDraft(String code, String name, List<Joint.Stage> stages) {
            this.code = code;
            this.name = name;
            this.stages = stages;
            this.holds = List.of(code);
        }

        JointDraft holds(String... codes) {
            holds = List.of(codes);
            return this;
        }

        JointDraft bolts(int count) {
            bolts = count;
            return this;
        }

        JointDraft critical() {
            critical = true;
            return this;
        }

        JointDraft fasteners(String fastenersCode) {
            fasteners = Optional.of(fastenersCode);
            return this;
        }

        JointDraft heldBy(Joint.HeldBy by, String... hardware) {
            heldBy = by;
            holders = List.of(hardware);
            return this;
        }

        JointDraft pinned(String... hardware) {
            pinned = List.of(hardware);
            return this;
        }

        JointDraft reachedPast(String... parts) {
            reachedPast = List.of(parts);
            return this;
        }

        JointDraft hiddenBy(String... parts) {
            hiddenBy = List.of(parts);
            return this;
        }

        JointDraft loop(String loopCode) {
            loop = Optional.of(loopCode);
            return this;
        }

        JointDraft leftHand() {
            leftHand = true;
            return this;
        }

        JointDraft hidden(String where) {
            hidden = Optional.of(where);
            return this;
        }

        private Joint joint() {
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
                    pinned,
                    reachedPast,
                    hiddenBy,
                    loop,
                    new Joint.Undoing(leftHand, Optional.empty(), hidden, Optional.empty()));
        }
    }

    /** Teeth or links that lie between two wheels of a loop once it is laid. */
    Draft countBetween(String loop, String from, String to, int count) {
        counts.computeIfAbsent(loop, l -> new ArrayList<>()).add(new Loop.Count(from, to, count));
        return this;
    }

    Draft loop(Loop loop) {
        loops.add(loop);
        return this;
    }

    /** A loop with its tensioner, over {@code wheels} in laying order. */
    static Loop loop(
            String code,
            String name,
            Drive kind,
            int teeth,
            String position,
            List<String> shafts,
            List<String> wheels,
            Loop.Tensioner tensioner,
            Loop.LetOff letOff,
            List<String> slackenFirst,
            List<String> windows) {
        return new Loop(
                code,
                name,
                kind,
                teeth,
                List.of(),
                position,
                shafts,
                wheels,
                Loop.LastWheel.SLID_OVER,
                Optional.of(tensioner),
                letOff,
                slackenFirst,
                List.of(),
                windows,
                Optional.empty());
    }

    static Loop.Tensioner pinned(String part, TensionerKind kind, String pin) {
        return new Loop.Tensioner(part, kind, Loop.LetGo.PIN_PULLED, Optional.of(pin), false, false);
    }

    static Loop.Tensioner set(String part, TensionerKind kind, boolean again) {
        return new Loop.Tensioner(part, kind, Loop.LetGo.SET, Optional.empty(), false, again);
    }

    static Loop.Tensioner pressed(String part) {
        return new Loop.Tensioner(
                part, TensionerKind.CHAIN_RATCHET, Loop.LetGo.PRESSED, Optional.empty(), false, false);
    }

    /** A pin or bar that slides in only when the timing is true; it is its own reference. */
    Draft pin(
            String code,
            String name,
            Hardware.Kind kind,
            String loop,
            List<String> holds,
            String position,
            boolean expectedBack,
            int playDegrees,
            String... off) {
        hardware.add(new Hardware(
                code,
                name,
                kind,
                List.of(loop),
                holds,
                Optional.of(position),
                false,
                List.of(off),
                Hardware.InBefore.LOOP_OFF,
                expectedBack,
                true,
                playDegrees));
        references.add(new Reference(
                code,
                name,
                List.of(loop),
                "the hole it slides into",
                position,
                List.of(off),
                List.of(),
                false,
                expectedBack ? Reference.Trust.BEFORE_AND_AFTER : Reference.Trust.BEFORE,
                0,
                Optional.of(code)));
        return this;
    }

    /** What holds cams before the tension goes. */
    Draft clamp(String code, String name, Hardware.Kind kind, String loop, List<String> holds, String... off) {
        hardware.add(new Hardware(
                code,
                name,
                kind,
                List.of(loop),
                holds,
                Optional.empty(),
                false,
                List.of(off),
                Hardware.InBefore.TENSION_OFF,
                false,
                false,
                0));
        return this;
    }

    /** What holds against a joint's torque. */
    Draft holder(String code, String name, Hardware.Kind kind, List<String> holds, String... off) {
        hardware.add(new Hardware(
                code,
                name,
                kind,
                List.of(),
                holds,
                Optional.empty(),
                true,
                List.of(off),
                Hardware.InBefore.JOINT,
                false,
                false,
                0));
        return this;
    }

    Draft tensionerPin(String code, String name, String loop, String tensioner) {
        hardware.add(new Hardware(
                code,
                name,
                Hardware.Kind.TENSIONER_PIN,
                List.of(loop),
                List.of(tensioner),
                Optional.empty(),
                false,
                List.of(),
                Hardware.InBefore.LOOP_OFF,
                false,
                false,
                0));
        return this;
    }

    Draft tie(String code, String name, String loop, String... off) {
        hardware.add(new Hardware(
                code,
                name,
                Hardware.Kind.TIE,
                List.of(loop),
                List.of(loop),
                Optional.empty(),
                false,
                List.of(off),
                Hardware.InBefore.TENSION_OFF,
                false,
                false,
                0));
        return this;
    }

    Draft support(String code, String name) {
        hardware.add(new Hardware(
                code,
                name,
                Hardware.Kind.SUPPORT,
                List.of(),
                List.of(),
                Optional.empty(),
                false,
                List.of(),
                Hardware.InBefore.JOINT,
                false,
                false,
                0));
        return this;
    }

    Draft mark(String code, String name, List<String> ofLoops, String position, String... off) {
        return reference(code, name, ofLoops, position, Reference.Trust.BEFORE_AND_AFTER, false, off);
    }

    Draft reference(
            String code,
            String name,
            List<String> ofLoops,
            String position,
            Reference.Trust trust,
            boolean own,
            String... off) {
        references.add(new Reference(
                code, name, ofLoops, "", position, List.of(off), List.of(), own, trust, 0, Optional.empty()));
        return this;
    }

    /** A mark that is read against parts that must be on, if only for now. */
    Draft markAgainst(String code, String name, String loop, String position, String... on) {
        references.add(new Reference(
                code,
                name,
                List.of(loop),
                "",
                position,
                List.of(),
                List.of(on),
                false,
                Reference.Trust.BEFORE_AND_AFTER,
                0,
                Optional.empty()));
        return this;
    }

    Draft opening(String code, String name, String openedBy) {
        openings.add(new Opening(code, name, openedBy));
        return this;
    }

    Draft fluid(String code, String name, double litres, String poison, boolean forSeconds) {
        fluids.add(new Fluid(code, name, litres, poison, forSeconds, true));
        return this;
    }

    Draft window(String code, String name, String loop, double low, double high, String unit, String... off) {
        looks.add(new Look(
                code,
                name,
                Look.Kind.WINDOW,
                Optional.of(loop),
                List.of(off),
                List.of(),
                Optional.of(low),
                Optional.of(high),
                unit));
        return this;
    }

    Draft look(Look look) {
        looks.add(look);
        return this;
    }

    Draft turner(String code, String name, Turner.Kind kind, String thing) {
        turners.add(new Turner(code, name, kind, thing.isEmpty() ? Optional.empty() : Optional.of(thing)));
        return this;
    }

    /** The pulley turns the crank while it is on, its old bolt while it is off. */
    Draft turnedByPulley() {
        turner("pulley", "the pulley", Turner.Kind.ASSEMBLY, "pulley");
        return turner("pbolt", "the old pulley bolt", Turner.Kind.OLD_BOLT, "pulley");
    }

    Draft renews(String item, String... things) {
        renews.add(new Build.Renews(item, List.of(things)));
        return this;
    }

    Draft order(String first, String then, String because) {
        orders.add(new OwnOrder(first, then, because));
        return this;
    }

    Draft caution(String thing, String words) {
        cautions.add(new Caution(thing, words));
        return this;
    }

    Draft turnedBack(int degrees) {
        turnedBackDegrees = degrees;
        return this;
    }

    Draft dryStart(String... needsOn) {
        dryStart = Optional.of(new DryStart(List.of(needsOn)));
        return this;
    }

    Build build() {
        return new Build(
                shafts,
                wheels,
                loops.stream()
                        .map(l -> new Loop(
                                l.code(),
                                l.name(),
                                l.kind(),
                                l.teeth(),
                                List.copyOf(before.getOrDefault(l.code(), Set.of())),
                                l.position(),
                                l.shafts(),
                                l.wheels(),
                                l.lastWheel(),
                                l.tensioner(),
                                l.letOff(),
                                l.slackenFirst(),
                                counts.getOrDefault(l.code(), List.of()),
                                l.windows(),
                                l.drawing()))
                        .toList(),
                positions,
                hardware,
                references,
                assemblies.values().stream()
                        .map(a -> new Assembly(
                                a.code(),
                                a.name(),
                                a.kind(),
                                List.copyOf(before.getOrDefault(a.code(), Set.of())),
                                a.equipment(),
                                a.carriesEngine(),
                                a.under(),
                                a.letsOut(),
                                a.onBeforeTurns(),
                                a.lookBeforeOff(),
                                a.moveOver(),
                                a.face()))
                        .toList(),
                List.copyOf(joints.values()),
                openings,
                fluids,
                looks,
                turners,
                renews,
                orders,
                cautions,
                turnedBackDegrees,
                true,
                "as seated in the vehicle",
                dryStart);
    }
}
