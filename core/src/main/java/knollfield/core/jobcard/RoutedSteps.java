package knollfield.core.jobcard;

import static knollfield.core.jobcard.CardSteps.confirm;
import static knollfield.core.jobcard.CardSteps.lower;
import static knollfield.core.jobcard.CardSteps.tick;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Fluid;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Position;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Shaft;
import knollfield.core.engine.build.Wheel;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;
import knollfield.core.route.Arrow;
import knollfield.core.route.Placed;

/** Operations as steps: which stand together, what each asks for, and the gate that rests on it. */
final class RoutedSteps {

    /** What the codes of a listed correction begin with. */
    static final String AGAIN = "again:";

    /** What the codes of a look for missing pieces begin with. */
    static final String PIECES = "pieces:";

    static final String PIECES_MISSING = "broken, pieces missing";
    private static final String LOOKED_INTO = "broken, sump and strainer looked at";
    private static final String STILL_MISSING = "still missing, not looked through yet";

    private static final String HITS = "A compressed tensioner can hit: keep fingers out of its way.";
    private static final String SNAPS = "A cam can snap over as the tension goes: fingers away from wheels and lobes.";
    private static final String ON_ITS_WHEELS = "Wheel fasteners to torque, on its wheels, battery on";
    private static final String LOOSE_WHEEL = "A loose wheel kills: torque wrench, crosswise.";
    private static final int PATTERN = 4;

    /** Starts the codes of the steps that note how joints were felt. */
    static final String FELT = "felt:";

    private static final List<Task.Choose.Option> HOW_IT_FELT = List.of(
            new Task.Choose.Option("alike", "felt: one like the other, with a short wrench", false),
            new Task.Choose.Option("neighbours", "felt: as tight as their neighbours", false),
            new Task.Choose.Option("words", "felt otherwise", true));

    /** Operations that are one step when they stand together. */
    private enum Group {
        OFF,
        ON,
        PLUGS,
        PLAIN,
        FIND,
        MARK,
        IN,
        OUT,
        PROVE,
        COMPARE,
        OVER,
        ALONE
    }

    private final CardScope scope;
    private final EngineFamily family;
    private final Anatomy book;
    private final RoutedWords words;
    private final SafetyWords safety;
    private final Set<String> goal;
    private final List<String> outAgain;
    private final Function<Operation, RoutedCard.Asked> standing;
    private final Function<Operation, Optional<String>> awaited;
    private final Set<String> scratchCodes = new HashSet<>();
    /** Something ran out and is filled in again. */
    private final boolean fills;

    /**
     * @param line all that the card does, in order
     * @param outAgain hardware that was in when the engine was found out of time
     * @param standing how far an operation is: no step is done by half
     * @param awaited code of the item an operation waits for, which the owner has not agreed to
     */
    RoutedSteps(
            EngineFamily family,
            Anatomy book,
            RoutedWords words,
            Set<String> goal,
            List<Operation> line,
            CardScope scope,
            List<String> outAgain,
            Function<Operation, RoutedCard.Asked> standing,
            Function<Operation, Optional<String>> awaited) {
        this.outAgain = outAgain;
        this.standing = standing;
        this.awaited = awaited;
        this.fills = line.stream().anyMatch(o -> o.verb() == Verb.FILL);
        this.scope = scope;
        this.family = family;
        this.book = book;
        this.words = words;
        this.safety = new SafetyWords(book);
        this.goal = goal;
    }

    /** The steps of a run of operations of one stretch. */
    List<Step> of(List<Placed> run) {
        List<Step> made = new ArrayList<>();
        int i = 0;
        while (i < run.size()) {
            Group group = group(run.get(i).operation());
            List<Placed> together = new ArrayList<>();
            together.add(run.get(i++));
            Optional<String> waitsFor = serves(operations(together));
            while (group != Group.ALONE
                    && i < run.size()
                    && group(run.get(i).operation()) == group
                    && standsAlike(run.get(i - 1), run.get(i))
                    && serves(operations(run.subList(i, i + 1))).equals(waitsFor)) {
                together.add(run.get(i++));
            }
            if (group == Group.ALONE) {
                i = withItsAngle(together, run, i);
                i = withTheEnd(together, run, i);
            }
            boolean first = true;
            for (Step s : step(group, together.stream().map(Placed::operation).toList())) {
                made.add(
                        first
                                ? finished(s, together)
                                : cautioned(s, operations(together)).doing(operations(together), Optional.empty()));
                first = false;
            }
            if (group == Group.OFF) {
                pieces(together).ifPresent(made::add);
            }
            if (group == Group.ON) {
                made.addAll(counted(together));
            }
            felt(together).ifPresent(made::add);
        }
        return made;
    }

    /** Guides and arms that have come off are looked at for what is missing. */
    private Optional<Step> pieces(List<Placed> together) {
        List<String> guides = together.stream()
                .map(Placed::operation)
                .filter(o -> o.verb() == Verb.TAKE_OFF)
                .map(Operation::thing)
                .filter(t -> book.assembly(t)
                        .filter(a -> a.kind() == Assembly.Kind.GUIDE || a.kind() == Assembly.Kind.ARM)
                        .isPresent())
                .toList();
        if (guides.isEmpty()) {
            return Optional.empty();
        }
        String found = "broken, all pieces found";
        // where the book has a sump the card takes it off; else a person says that they looked
        boolean sump = !book.catchesPieces().isEmpty();
        return Optional.of(Step.of(
                        PIECES + guides.get(0),
                        words.row(guides) + ": lift, look for cracks and missing pieces",
                        new Task.Inspect(
                                sump
                                        ? List.of("whole", "worn", found, PIECES_MISSING)
                                        : List.of("whole", "worn", found, LOOKED_INTO, PIECES_MISSING),
                                Map.of(
                                        found, EvidenceKind.GUIDE_BROKEN,
                                        LOOKED_INTO, EvidenceKind.GUIDE_BROKEN,
                                        PIECES_MISSING, EvidenceKind.GUIDE_BROKEN),
                                sump ? Set.of() : Set.of(PIECES_MISSING)))
                .notes(List.of("A guide that lifts out without its upper bolt is broken."))
                .gate(GateKind.PIECES_FOUND));
    }

    /** Joints that the book has no torque for and nobody measures are noted: how they were felt, in one touch. */
    private Optional<Step> felt(List<Placed> together) {
        List<Joint> joints = together.stream()
                .map(Placed::operation)
                .filter(o -> o.verb() == Verb.TIGHTEN)
                .flatMap(o -> book.joint(o.thing()).stream()
                        .filter(j -> !j.critical() && o.stage() == j.stages().size())
                        .filter(j -> {
                            Joint.Stage last = j.stages().get(o.stage() - 1);
                            return last.torque().isEmpty()
                                    && last.angleDegrees().isEmpty();
                        }))
                .toList();
        return joints.isEmpty()
                ? Optional.empty()
                : Optional.of(Step.of(
                                FELT + joints.get(0).code(),
                                "By feel, noted: "
                                        + joints.stream()
                                                .map(j -> lower(j.name()))
                                                .collect(Collectors.joining(", ")),
                                new Task.Choose(HOW_IT_FELT, Task.Choose.Changes.NOTHING))
                        .notes(List.of("No torque is on file. Threads dry, a short wrench, one like the other.")));
    }

    /** Bolts of several lengths go back as they came out, length by length. */
    private List<Step> counted(List<Placed> together) {
        return together.stream()
                .map(Placed::operation)
                .filter(o -> o.verb() == Verb.TIGHTEN && o.stage() == 1)
                .flatMap(o -> family.joint(o.thing()).stream())
                .filter(j -> j.assembly().lengths().size() > 1)
                .map(j -> Step.of(
                                "back:" + j.code(),
                                j.name() + ": as many back as came out",
                                new Task.Check(
                                        j.assembly().lengths().stream()
                                                .map(CardSteps::length)
                                                .toList(),
                                        "back",
                                        "not all back"))
                        .notes(CardSteps.faceAndThread(j.assembly())))
                .toList();
    }

    /** A torque and the angle that follows it at once are one step. */
    private int withItsAngle(List<Placed> together, List<Placed> run, int next) {
        Operation first = together.get(0).operation();
        if (first.verb() == Verb.TIGHTEN && next < run.size() && standsAlike(run.get(next - 1), run.get(next))) {
            Operation then = run.get(next).operation();
            Joint j = book.joint(first.thing()).orElseThrow();
            boolean angle = then.verb() == Verb.TIGHTEN
                    && then.thing().equals(first.thing())
                    && then.stage() == first.stage() + 1
                    && j.stages().get(first.stage() - 1).torque().isPresent()
                    && j.stages().get(first.stage() - 1).angleDegrees().isEmpty()
                    && j.stages().get(then.stage() - 1).torque().isEmpty()
                    && j.stages().get(then.stage() - 1).angleDegrees().isPresent();
            if (angle) {
                together.add(run.get(next));
                return next + 1;
            }
        }
        return next;
    }

    /** The support goes away as the wheels go on; where nothing was filled in, the look after the start is part of it. */
    private int withTheEnd(List<Placed> together, List<Placed> run, int next) {
        Operation first = together.get(0).operation();
        if (next >= run.size() || !standsAlike(run.get(next - 1), run.get(next))) {
            return next;
        }
        Operation then = run.get(next).operation();
        boolean support = first.verb() == Verb.OUT && isSupport(first.thing()) && then.verb() == Verb.CLOSE;
        boolean look = first.verb() == Verb.START && then.verb() == Verb.CHECK && !fills;
        if (support || look) {
            together.add(run.get(next));
            return next + 1;
        }
        return next;
    }

    private boolean isSupport(String hardware) {
        return book.hardware(hardware)
                .filter(h -> h.kind() == Hardware.Kind.SUPPORT)
                .isPresent();
    }

    private boolean standsAlike(Placed a, Placed b) {
        return standing.apply(a.operation()).equals(standing.apply(b.operation()));
    }

    private Group group(Operation o) {
        return switch (o.verb()) {
            case UNDO, TAKE_OFF -> Group.OFF;
            case FIT -> isPlug(o.thing()) ? Group.PLUGS : Group.ON;
            case FOR_NOW -> Group.ON;
            case TIGHTEN -> isOfPlugs(o) ? Group.PLUGS : isPlain(o) ? Group.ON : Group.ALONE;
            case FIND -> Group.FIND;
            case MARK -> book.reference(o.thing()).isPresent() ? Group.MARK : Group.PLAIN;
            case SET_IN -> {
                Optional<Hardware> h = book.hardware(o.thing());
                boolean proves = o.round() > 1 && h.filter(Hardware::slidesIn).isPresent();
                boolean support = isSupport(o.thing());
                boolean pin =
                        h.filter(x -> x.kind() == Hardware.Kind.TENSIONER_PIN).isPresent();
                yield support || pin ? Group.ALONE : proves ? Group.PROVE : Group.IN;
            }
            case OUT -> {
                boolean timing =
                        book.hardware(o.thing()).filter(Hardware::stopsTurning).isPresent();
                yield timing ? Group.OUT : Group.ALONE;
            }
            case PROVE -> Group.PROVE;
            case COMPARE -> Group.COMPARE;
            case MOVE_OVER -> Group.OVER;
            case RAISE, LOOP_OFF, LOOK, CREEP -> Group.PLAIN;
            default -> Group.ALONE;
        };
    }

    private boolean isPlug(String part) {
        return book.assembly(part).filter(a -> a.kind() == Assembly.Kind.PLUG).isPresent();
    }

    private boolean isOfPlugs(Operation o) {
        return isPlain(o)
                && book.joint(o.thing())
                        .filter(j -> !j.holds().isEmpty() && j.holds().stream().allMatch(this::isPlug))
                        .isPresent();
    }

    private boolean isPlain(Operation o) {
        Joint j = book.joint(o.thing()).orElseThrow();
        Joint.Stage s = j.stages().get(o.stage() - 1);
        boolean nipped =
                s.torque().isEmpty() && s.angleDegrees().isEmpty() && j.stages().size() > 1;
        return nipped
                || (!j.critical()
                        && !(j.bolts() >= PATTERN
                                && (s.passes() > 1 || j.stages().size() > 1)));
    }

    private Step finished(Step step, List<Placed> together) {
        List<Operation> operations = operations(together);
        Step with = cautioned(step, operations);
        if (snapsOver(operations)) {
            with = with.caution(with.caution().map(c -> c + " " + SNAPS).orElse(SNAPS));
        }
        for (String words : safety.of(operations)) {
            with = with.caution(with.caution().map(c -> c + " " + words).orElse(words));
        }
        List<String> notes = new ArrayList<>(with.notes());
        words.notes(operations).stream().filter(n -> !notes.contains(n)).forEach(notes::add);
        ownOrders(operations).forEach(notes::add);
        with = with.notes(notes);
        Optional<String> item = serves(operations);
        if (item.isPresent()) {
            with = with.serving(item.get());
        }
        // that the battery comes first goes without saying on every step
        return with.doing(
                operations,
                together.get(0).why().filter(a -> a.first().verb() != Verb.SAFE).map(this::because));
    }

    private Step cautioned(Step step, List<Operation> operations) {
        List<String> things = Stream.concat(
                        RoutedCard.things(operations).stream(),
                        operations.stream()
                                .flatMap(o -> book.joint(o.thing()).stream())
                                .flatMap(j -> j.holds().stream()))
                .toList();
        String own = RoutedCard.cautions(book.build(), things);
        return own.isEmpty()
                ? step
                : step.caution(step.caution().map(c -> c + " " + own).orElse(own));
    }

    /** Sprung shafts move as the tension goes, where nothing holds them or the hold slips. */
    private boolean snapsOver(List<Operation> operations) {
        return operations.stream()
                .filter(o -> o.verb() == Verb.RELEASE || o.verb() == Verb.LOOP_OFF)
                .flatMap(o -> book.loop(o.thing()).stream())
                .flatMap(l -> l.shafts().stream())
                .flatMap(s -> book.shaft(s).stream())
                .anyMatch(s -> s.whenFree() != Shaft.WhenFree.STAYS);
    }

    /** Orders of the engine's own that put something before what is done here. */
    private List<String> ownOrders(List<Operation> operations) {
        return book.build().orders().stream()
                .filter(own -> operations.stream().anyMatch(o -> signed(o).equals(own.then())))
                .map(own -> "%s comes after %s, because %s.".formatted(own.then(), own.first(), own.because()))
                .toList();
    }

    private static String signed(Operation o) {
        return o.verb().sign() + ":" + o.thing();
    }

    private static List<Operation> operations(List<Placed> together) {
        return together.stream().map(Placed::operation).toList();
    }

    private String because(Arrow a) {
        return "%s: after \"%s\". %s."
                .formatted(
                        upper(a.words()),
                        lower(words.plain(List.of(a.first()))),
                        a.law().words());
    }

    private static String upper(String text) {
        return text.isEmpty() ? text : text.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + text.substring(1);
    }

    /** The item that a step serves, where the owner has not agreed to it yet. */
    private Optional<String> serves(List<Operation> operations) {
        return operations.stream().flatMap(o -> awaited.apply(o).stream()).findFirst();
    }

    private List<Step> step(Group group, List<Operation> run) {
        String code = run.get(0).code();
        List<String> things = RoutedCard.things(run);
        return switch (group) {
            case OFF -> List.of(off(code, run));
            case ON, PLAIN -> List.of(tick(code, words.plain(run)));
            case PLUGS -> List.of(confirm(code, words.plain(run), GateKind.PLUGS_BACK));
            case FIND ->
                List.of(Step.of(
                                code,
                                "All true at once: " + lower(words.row(things)),
                                new Task.TrueMarks(names(things)))
                        .caution(CardSteps.NEVER_FORCE)
                        .notes(finding(things))
                        .gate(GateKind.REFERENCE_FOUND));
            case MARK ->
                List.of(confirm(code, "Own marks made: " + lower(words.row(things)), GateKind.REFERENCE_FOUND));
            case IN -> List.of(in(code, things));
            case OUT -> List.of(out(code, things, run.get(0).round()));
            case PROVE -> List.of(prove(code, run));
            case COMPARE ->
                isAnotherNewOne(run)
                        ? List.of(Step.of(
                                        code,
                                        "Undone once more: another new one",
                                        new Task.Check(
                                                things.stream()
                                                        .map(this::fasteners)
                                                        .toList(),
                                                "new",
                                                "old one goes back"))
                                .caution("Stretched bolts break later, under load.")
                                .gate(GateKind.ONE_TIME_AGAIN))
                        : List.of(Step.of(
                                        code,
                                        "New parts against the old",
                                        new Task.Check(
                                                things.stream()
                                                        .map(this::compared)
                                                        .toList(),
                                                "as the old",
                                                "differs"))
                                .caution("A part that does not fit shows when it is all on: compare first.")
                                .gate(GateKind.FIT_CHECK));
            case OVER ->
                List.of(Step.of(
                                code,
                                "Small parts moved over from the old",
                                new Task.Check(names(things), "moved over", "not there yet"))
                        .notes(words.places(things))
                        .caution("A missing washer or spacer shows up as a belt that runs off.")
                        .gate(GateKind.MOVED_OVER));
            case ALONE -> alone(run);
        };
    }

    /** One-time fasteners that were new on this job already, and are undone again. */
    private boolean isAnotherNewOne(List<Operation> run) {
        return run.stream()
                .allMatch(o -> standing.apply(o) == RoutedCard.Asked.AGAIN
                        && book.joints().stream()
                                .anyMatch(j ->
                                        j.fasteners().filter(o.thing()::equals).isPresent()));
    }

    private List<String> names(List<String> things) {
        return things.stream().map(words::name).map(CardSteps::lower).toList();
    }

    private Step off(String code, List<Operation> run) {
        boolean tensioner = book.loops().stream()
                .flatMap(l -> l.tensioner().stream())
                .anyMatch(t -> run.stream().anyMatch(o -> o.thing().equals(t.part())));
        Step step = tick(code, words.plain(run));
        return tensioner ? step.caution(HITS) : step;
    }

    private List<String> finding(List<String> things) {
        List<String> notes = new ArrayList<>();
        for (String t : things) {
            book.reference(t)
                    .filter(r -> !r.readAgainst().isBlank())
                    .ifPresent(r -> notes.add("%s: %s.".formatted(r.name(), r.readAgainst())));
        }
        book.references().stream()
                .filter(r -> r.trust() == Reference.Trust.NEVER)
                .forEach(r -> notes.add("Do not trust " + lower(r.name()) + "."));
        for (String t : things) {
            book.reference(t)
                    .filter(r -> r.goodWithinDegrees() > 0)
                    .ifPresent(r -> notes.add(
                            "%s: good within %s°.".formatted(r.name(), CardSteps.number(r.goodWithinDegrees()))));
        }
        if (!book.build().leftMeans().isBlank()) {
            notes.add("Left and right: %s.".formatted(book.build().leftMeans()));
        }
        int back = book.build().turnedBackDegrees();
        notes.add(back == 0 ? "Turning back: never." : "Turning back: up to %d°.".formatted(back));
        return notes;
    }

    private Step in(String code, List<String> things) {
        boolean slides = things.stream().flatMap(t -> book.hardware(t).stream()).anyMatch(Hardware::slidesIn);
        return Step.of(code, words.row(things) + " in, counted", new Task.Check(names(things), "in", "does not go in"))
                .caution("What holds the timing never takes the torque of a bolt.")
                .gate(slides ? GateKind.REFERENCE_FOUND : GateKind.CAMS_HELD);
    }

    private Step out(String code, List<String> things, int round) {
        Step step = Step.of(
                        code,
                        words.row(things) + " out, as many as went in",
                        new Task.Check(names(things), "out", "still in"))
                .caution("Turning or starting against a pin breaks it, or the engine.")
                .gate(GateKind.PINS_OUT);
        return round == 1 ? step.proving() : step;
    }

    private Step prove(String code, List<Operation> run) {
        List<String> things = RoutedCard.things(run);
        List<String> notes = new ArrayList<>();
        things.stream()
                .flatMap(t -> book.hardware(t).stream())
                .map(h -> h.name() + ": in again by hand, nothing forced.")
                .forEach(notes::add);
        RoutedCard.paintReturns(family)
                .ifPresent(
                        turns -> notes.add("Paint on belt or chain is back after %d turns, not now.".formatted(turns)));
        boolean held = things.stream()
                .flatMap(t -> book.reference(t).stream())
                .anyMatch(r -> r.trust() == Reference.Trust.WHILE_HELD);
        return Step.of(
                        code,
                        held ? "Own marks true, before the ties come off" : "References after two turns",
                        new Task.TrueMarks(names(things)))
                .notes(held ? List.of("They say nothing once belt or chain has moved on.") : notes)
                .gate(GateKind.REFERENCES_TRUE)
                .proving();
    }

    private String compared(String thing) {
        boolean fasteners = book.assembly(thing).isEmpty()
                && book.joints().stream()
                        .anyMatch(j -> j.fasteners().filter(thing::equals).isPresent());
        return fasteners ? fasteners(thing) + ": length, thread, new" : words.compared(thing);
    }

    /** One-time fasteners as they are ordered, or by the name of their joint where the book names no part. */
    String fasteners(String code) {
        return book.joints().stream()
                .filter(j -> j.fasteners().filter(code::equals).isPresent())
                .flatMap(j -> ordered(j).stream())
                .distinct()
                .reduce((a, b) -> a + " and " + b)
                .orElse(code);
    }

    private List<String> ordered(Joint j) {
        List<String> parts = family.joint(j.code()).stream()
                .flatMap(b -> b.oneTimeParts().stream())
                .map(p -> p.quantity() > 1 ? "%d × %s".formatted(p.quantity(), lower(p.name())) : lower(p.name()))
                .toList();
        return parts.isEmpty() ? List.of(lower(j.name())) : parts;
    }

    private List<Step> alone(List<Operation> run) {
        Operation o = run.get(0);
        String code = o.code();
        return switch (o.verb()) {
            case SAFE ->
                List.of(confirm(code, "Battery earth off", GateKind.BATTERY_OFF).caution(CardSteps.EYES));
            case DRAIN -> List.of(drain(o));
            case FILL -> List.of(fill(o));
            case COVER ->
                List.of(confirm(
                                code,
                                upper(words.name(o.thing())) + " covered with clean cloth, magnet ready",
                                GateKind.OPENING_COVERED)
                        .caution("A piece that falls in costs about a day."));
            case SET_IN ->
                List.of(
                        isSupport(o.thing())
                                ? confirm(
                                                code,
                                                "Engine carried on a load spreader under the sump",
                                                GateKind.ENGINE_CARRIED)
                                        .caution("Engine on a load spreader before any mount bolt is undone.")
                                : tick(code, "Tensioner pressed slowly back and pinned")
                                        .caution(HITS));
            case OUT ->
                List.of(
                        isSupport(o.thing())
                                ? supportAway(code, run.size() > 1)
                                : confirm(code, "Pull the tensioner's own pin", GateKind.TENSIONER_SET)
                                        .caution("The plunger comes out hard: fingers clear.")
                                        .notes(seatingTurns(o.thing()))
                                        .proving());
            case BRING, BACK -> List.of(bring(o));
            case RELEASE -> List.of(tick(code, release(o.thing())).caution(HITS));
            case LAY -> lay(o);
            case TENSION -> List.of(tension(o));
            case TIGHTEN -> List.of(tighten(run));
            case TURN -> turns();
            case MEASURE -> List.of(measure(o));
            case CLOSE ->
                List.of(confirm(code, ON_ITS_WHEELS, GateKind.WHEEL_AND_SUPPORT).caution(LOOSE_WHEEL));
            case START -> List.of(start(code));
            case CHECK -> List.of(check(code));
            case REPAIR ->
                List.of(Step.of(code, words.plain(run), new Task.Confirm())
                        .caution("Eyes covered: a stub and its drill splinter. No heat near fuel, oil or rubber.")
                        .notes(List.of("Chips are caught before they fall in; the thread takes the new one by hand.")));
            case SEARCH ->
                List.of(Step.of(
                                code,
                                words.plain(run) + ", strainer too",
                                new Task.Inspect(
                                        List.of(
                                                "found, the part is whole when laid together",
                                                "looked through, strainer clean: nothing there",
                                                STILL_MISSING),
                                        Map.of(),
                                        Set.of(STILL_MISSING)))
                        .caution("A piece left in jams the drive or starves the engine of oil.")
                        .gate(GateKind.PIECES_FOUND));
            case LABEL -> List.of(confirm(code, "Label written and protected; old parts shown", GateKind.LABEL));
            default -> List.of(tick(code, words.plain(run)));
        };
    }

    private static Step supportAway(String code, boolean andClosed) {
        String away = "Engine hangs on its mount again, support away";
        return andClosed
                ? confirm(code, away + "; " + lower(ON_ITS_WHEELS), GateKind.WHEEL_AND_SUPPORT)
                        .caution(LOOSE_WHEEL)
                : confirm(code, away, GateKind.WHEEL_AND_SUPPORT);
    }

    private List<String> seatingTurns(String pin) {
        boolean mayStay = book.loops().stream()
                .flatMap(l -> l.tensioner().stream())
                .anyMatch(t -> t.pinMayStayForSeatingTurns()
                        && t.pin().filter(pin::equals).isPresent());
        return mayStay
                ? List.of("It may stay in for turns that only seat the loop; two turns that prove come after it.")
                : List.of();
    }

    /** When the engine may run for seconds before all is closed, and what it needs for that. */
    private List<String> dryStart() {
        return book.build().dryStart().stream()
                .map(d -> {
                    String on = d.needsOn().stream()
                            .map(words::name)
                            .map(CardSteps::lower)
                            .collect(Collectors.joining(", "));
                    String needed = book.fluids().stream()
                            .filter(Fluid::neededForSeconds)
                            .map(Fluid::name)
                            .map(CardSteps::lower)
                            .collect(Collectors.joining(", "));
                    return "A dry start of seconds, once proven, is the book's choice"
                            + (on.isEmpty() ? "" : ", with " + on + " on")
                            + (needed.isEmpty() ? "." : ", never without " + needed + ".");
                })
                .toList();
    }

    private Step drain(Operation o) {
        Fluid f = book.fluid(o.thing()).orElseThrow();
        Step step = Step.of(
                o.code(),
                f.name() + " out, caught and measured",
                new Task.Measure("L", 0.1, 100, usual(f), Task.Measure.Kind.COOLANT_OUT));
        return f.poison().isBlank() ? step : step.caution(f.poison());
    }

    private Step fill(Operation o) {
        Fluid f = book.fluid(o.thing()).orElseThrow();
        return Step.of(
                        o.code(),
                        f.name() + " in" + (goal.contains(f.code()) ? ", new" : ", kept and filtered, or new"),
                        new Task.Measure("L", 0.1, 100, usual(f), Task.Measure.Kind.COOLANT_IN))
                .notes(List.of(
                        f.neededForSeconds()
                                ? "Before any start."
                                : f.neededForRunning() ? "Before it runs." : "May be topped up after it has run.",
                        "Bled, and the level looked at again once it has run."));
    }

    private static Optional<Double> usual(Fluid f) {
        return f.litres() > 0 ? Optional.of(f.litres()) : Optional.empty();
    }

    private String runningWay() {
        return book.build().clockwise() ? "Clockwise." : "Anticlockwise.";
    }

    private Step bring(Operation o) {
        Position p = book.position(o.thing()).orElseThrow();
        List<String> notes = new ArrayList<>();
        notes.add(runningWay());
        if (!p.atTop().isBlank()) {
            notes.add(p.atTop() + ".");
        }
        book.build().positions().stream()
                .filter(other -> !other.code().equals(p.code()))
                .forEach(other -> notes.add("%d° on from %s.".formatted(other.onTo(p), lower(other.name()))));
        int back = book.build().turnedBackDegrees();
        notes.add(back == 0 ? "Turning back: never." : "Overshot: back by at most %d°.".formatted(back));
        String title = "Turn the running way: " + lower(p.name());
        // between banks the crank's place is what the next chain rests on
        Step step = book.build().positions().size() > 1
                ? confirm(o.code(), title, GateKind.OTHER_BANK)
                : tick(o.code(), title);
        // to lay the next bank, or to prove it: after a correction once more
        Step there = step.caution("Stop at any resistance.").notes(notes);
        return o.round() > 1 ? there.proving() : there;
    }

    private String release(String loop) {
        Optional<Loop.Tensioner> t = book.loop(loop).flatMap(Loop::tensioner);
        if (t.isEmpty()) {
            return "Let the tension off";
        }
        return switch (t.get().kind()) {
            case SPRING_PIN -> "Swing the tensioner back against its spring";
            case HYDRAULIC_PIN -> "Compress the plunger slowly until it is fully back";
            case ECCENTRIC_POINTER -> "Swing the eccentric back";
            case TORQUE_TOOL, TEETH_ON, TWIST, FREQUENCY -> "Swing the tensioner back";
            case CHAIN_RATCHET -> "Press the ratchet back";
        };
    }

    private List<Step> lay(Operation o) {
        Loop loop = book.loop(o.thing()).orElseThrow();
        List<String> notes = new ArrayList<>();
        loop.countBetween()
                .forEach(c -> notes.add("%d %s from %s to %s."
                        .formatted(
                                c.count(),
                                loop.kind().counted(),
                                lower(words.wheel(c.from())),
                                lower(words.wheel(c.to())))));
        return List.of(
                tick(o.code(), loop.name() + " on, references true again")
                        .notes(notes)
                        .proving(),
                confirm(
                                o.code() + ".slack",
                                "Every tooth felt seated, all slack at the tensioner, none on the tight run",
                                GateKind.SLACK_AT_TENSIONER)
                        .caution("Half a tooth out at the crank is enough to bend valves.")
                        .proving());
    }

    private Step tension(Operation o) {
        Optional<Loop.Tensioner> t = book.loop(o.thing()).flatMap(Loop::tensioner);
        String title = t.isEmpty()
                ? "Set the tension"
                : switch (t.get().kind()) {
                    case SPRING_PIN, HYDRAULIC_PIN -> "Let the tensioner go";
                    case ECCENTRIC_POINTER -> "Eccentric turned until its pointer stands in the window";
                    case TORQUE_TOOL -> "Tensioner set with the torque tool in its square";
                    case TEETH_ON -> "Turned on by the book's teeth";
                    case TWIST -> "Tension set by the twist of the longest run";
                    case FREQUENCY -> "Tension set by the frequency of the free run";
                    case CHAIN_RATCHET -> "Press, or tap, until the tensioner lets go with a click";
                };
        return confirm(o.code(), o.round() > 1 ? title + ", once more" : title, GateKind.TENSIONER_SET)
                .caution("Fingers clear; never a click wrench on a tensioner.")
                .proving();
    }

    private Step tighten(List<Operation> run) {
        Operation o = run.get(0);
        Joint j = book.joint(o.thing()).orElseThrow();
        Joint.Stage first = j.stages().get(o.stage() - 1);
        boolean beforeTurns = first.until().compareTo(Joint.Moment.TURNED) <= 0;
        OptionalInt angle =
                run.size() > 1 ? j.stages().get(run.get(1).stage() - 1).angleDegrees() : first.angleDegrees();
        List<String> notes = new ArrayList<>();
        words.heldBy(j).ifPresent(notes::add);
        GateKind gate = beforeTurns && !book.madeFastBy(j.code()).isEmpty()
                ? GateKind.CRANK_TORQUED
                : GateKind.CRITICAL_TORQUES;
        Step step;
        if (!j.critical()) {
            step = Step.of(
                    o.code(),
                    "%s, %s".formatted(j.name(), BoltPattern.words(j.undoing().order())),
                    new Task.Passes(
                            j.name(),
                            j.bolts(),
                            first.passes(),
                            spec(j, first, angle),
                            j.undoing().order()));
        } else if (first.torque().isEmpty() && angle.isPresent()) {
            int degrees = angle.getAsInt();
            step = Step.of(
                            o.code(),
                            "%s: turned on".formatted(j.name()),
                            new Task.Measure(
                                    "°", degrees, degrees, Optional.of((double) degrees), Task.Measure.Kind.ANGLE))
                    .gate(gate);
        } else {
            step = Step.of(
                            o.code(),
                            j.name() + " to torque",
                            new Task.Tighten(j.name(), j.code(), j.bolts(), spec(j, first, angle)))
                    .gate(gate);
        }
        step = step.notes(notes);
        boolean again = beforeTurns
                && (first.from().compareTo(Joint.Moment.TENSIONED) >= 0
                        || !book.madeFastBy(j.code()).isEmpty());
        return again ? step.proving() : step;
    }

    private Optional<TorqueSpec> spec(Joint j, Joint.Stage stage, OptionalInt angle) {
        Optional<TorqueSpec> filed = Optional.ofNullable(scope.filed().get(j.code()));
        String origin = family.joint(j.code())
                .flatMap(knollfield.core.engine.Joint::torque)
                .map(TorqueSpec::origin)
                .orElse("the book");
        return filed.or(() -> stage.torque().map(t -> new TorqueSpec(t, angle, origin)));
    }

    private List<Step> turns() {
        List<Step> made = new ArrayList<>();
        if (scope.attempt() > CardState.ATTEMPTS_ALONE) {
            made.add(confirm("secondeyes", "Somebody else has looked at it", GateKind.SECOND_EYES)
                    .notes(List.of("Entered by whoever looked, not by who set it."))
                    .proving());
        }
        for (int number = 1; number <= 2; number++) {
            made.add(Step.of(
                            "turn:engine." + number,
                            "Crank turn %d by hand, running way".formatted(number),
                            new Task.Turn(number))
                    .caution(CardSteps.NEVER_FORCE)
                    .notes(number == 1 ? List.of(runningWay(), "With the plugs out it turns easier.") : List.of())
                    .gate(GateKind.TWO_TURNS)
                    .proving());
        }
        return made;
    }

    private Step measure(Operation o) {
        Look look = book.look(o.thing()).orElseThrow();
        Optional<Loop> counted = look.kind() == Look.Kind.COUNT ? look.loop().flatMap(book::loop) : Optional.empty();
        if (counted.isPresent()) {
            return fromMarkToMark(o.code(), counted.get());
        }
        if (!look.hasFigure()) {
            return tick(o.code(), look.name());
        }
        Task.Measure.Kind kind = switch (look.kind()) {
            case WINDOW ->
                look.unit().startsWith("mm")
                        ? Task.Measure.Kind.POINTER
                        : look.unit().startsWith("Hz")
                                ? Task.Measure.Kind.FREQUENCY
                                : look.unit().startsWith("N·m")
                                        ? Task.Measure.Kind.TOOL_TORQUE
                                        : Task.Measure.Kind.TWIST;
            case CLEARANCE -> Task.Measure.Kind.CLEARANCE;
            case GAP, COUNT -> Task.Measure.Kind.GAP;
        };
        Step step = Step.of(
                o.code(),
                look.name(),
                new Task.Measure(
                        look.unit(),
                        look.low().orElse(0.0),
                        look.high().orElse(Task.Measure.NO_LIMIT),
                        Optional.empty(),
                        kind));
        return look.kind() == Look.Kind.WINDOW
                ? step.gate(GateKind.TENSION_IN_WINDOW).proving()
                : step;
    }

    /** The new one is marked by what lies between the marks of the old one, and both are counted until they agree. */
    private Step fromMarkToMark(String code, Loop loop) {
        String counted = loop.kind().counted();
        return Step.of(code, "Marks moved over by count", new Task.MarkToMark(spans(loop), loop.teeth(), counted))
                .notes(List.of(
                        upper(counted)
                                + " from mark to mark: count on the old one, mark the new one by it, count both again.",
                        "Old counts prove something only if the old marks were true."));
    }

    /** From wheel to wheel, right round, in the order in which it is laid. */
    private List<String> spans(Loop loop) {
        List<String> marked = loop.wheels().stream()
                .flatMap(w -> book.wheel(w).stream())
                .map(Wheel::name)
                .toList();
        if (marked.size() < 2) {
            marked = loop.shafts().stream()
                    .flatMap(s -> book.shaft(s).stream())
                    .map(Shaft::name)
                    .toList();
        }
        if (marked.size() < 2) {
            return List.of("Right round, from the mark to itself");
        }
        List<String> spans = new ArrayList<>();
        for (int i = 0; i < marked.size(); i++) {
            spans.add("%s to %s".formatted(upper(marked.get(i)), lower(marked.get((i + 1) % marked.size()))));
        }
        return spans;
    }

    private Step start(String code) {
        return Step.of(
                        code,
                        fills
                                ? "First start and road test: noise, leaks, codes"
                                : "First start and road test, looked over after it: noise, leaks, codes",
                        new Task.Inspect(
                                List.of("quiet, dry, no codes", "whine", "flap", "leak", "a code is back"),
                                Map.of("whine", EvidenceKind.WHINE, "flap", EvidenceKind.SLAP),
                                Set.of("whine", "flap", "leak", "a code is back")))
                .caution("Hands and hair clear of belts.")
                .notes(Stream.concat(
                                Stream.of("Whine is too tight, flap too loose. Codes cleared must stay clear."),
                                dryStart().stream())
                        .toList())
                .gate(GateKind.FIRST_START);
    }

    private Step check(String code) {
        return fills
                ? confirm(code, "Levels read, cold where the book says so", GateKind.COOLANT_LEVEL)
                        .caution("Never open a hot system.")
                : tick(code, "Looked over once more: dry, nothing left behind");
    }

    // --- done again

    /** What is done anew once the timing did not prove true. */
    static boolean isRedone(Operation o) {
        return switch (o.verb()) {
            case LAY, TENSION, TURN -> true;
            case OUT -> o.round() == 1;
            default -> false;
        };
    }

    /** Back to where the loop is laid, held again, let off again: normal work, not shame. */
    List<Step> correction(List<Operation> card) {
        List<Step> made = new ArrayList<>();
        card.stream()
                .takeWhile(o -> o.verb() != Verb.LAY)
                .filter(o -> o.verb() == Verb.BRING)
                // where the loop that is laid first belongs
                .reduce((first, then) -> then)
                .flatMap(o -> book.position(o.thing()))
                .ifPresent(p -> made.add(tick(AGAIN + "bring", "Turn the running way again: " + lower(p.name()))
                        .caution("Stop at any resistance.")
                        .notes(List.of(runningWay()))
                        .proving()));
        List<String> held = card.stream()
                .filter(o -> o.verb() == Verb.OUT && o.round() == 1)
                .map(Operation::thing)
                .filter(t -> book.hardware(t).filter(Hardware::stopsTurning).isPresent())
                .distinct()
                .toList();
        if (!held.isEmpty()) {
            made.add(Step.of(
                            AGAIN + "in",
                            words.row(held) + " in again, counted",
                            new Task.Check(names(held), "in", "does not go in"))
                    .notes(List.of("One that does not go in shows which shaft is out."))
                    .caution("What holds the timing never takes the torque of a bolt.")
                    .gate(GateKind.CAMS_HELD)
                    .proving());
        }
        List<Joint> loosened = book.joints().stream()
                .filter(j -> !book.madeFastBy(j.code()).isEmpty())
                .filter(j -> card.contains(Operation.tighten(j.code(), 1)))
                .toList();
        if (!loosened.isEmpty()) {
            made.add(tick(
                            AGAIN + "undo",
                            words.row(loosened.stream().map(Joint::code).toList()) + " undone again")
                    .notes(loosened.stream()
                            .flatMap(j -> words.heldBy(j).stream())
                            .distinct()
                            .toList())
                    .caution("Never with the starter.")
                    .proving());
        }
        List<String> fresh = loosened.stream()
                .flatMap(j -> j.fasteners().stream())
                .distinct()
                .map(this::fasteners)
                .toList();
        if (!fresh.isEmpty()) {
            made.add(Step.of(
                            AGAIN + "new",
                            "Undone once more: another new one",
                            new Task.Check(fresh, "new", "old one goes back"))
                    .caution("Stretched bolts break later, under load.")
                    .gate(GateKind.ONE_TIME_AGAIN)
                    .proving());
        }
        card.stream()
                .filter(o -> o.verb() == Verb.LAY)
                .forEach(o -> made.add(tick(
                                AGAIN + o.thing(),
                                "%s let off, eased off what is out, references true".formatted(words.name(o.thing())))
                        .caution(HITS)
                        .proving()));
        return made;
    }

    // --- found out of time

    /**
     * The timing set from scratch, once the loops are off and before one is laid; nothing is cranked.
     *
     * @param run operations of this stretch, in order
     * @param line all operations of the card
     */
    List<Step> fromScratch(List<Placed> run, List<Operation> line) {
        List<Step> made = new ArrayList<>();
        Operation firstTurn =
                line.stream().filter(this::turnsAShaft).findFirst().orElseThrow();
        if (!outAgain.isEmpty() && scratchCodes.add("pinsback")) {
            made.add(Step.of(
                            "pinsback",
                            words.row(outAgain) + " out again, as many as went in",
                            new Task.Check(names(outAgain), "out", "still in"))
                    .caution("Moving a shaft against a pin breaks it, or the engine.")
                    .gate(GateKind.SAFE_POSITION));
        }
        int i = 0;
        while (i < run.size()) {
            Operation o = run.get(i).operation();
            List<Placed> together = new ArrayList<>();
            together.add(run.get(i++));
            boolean parks = parks(o, line, firstTurn);
            while (!parks && i < run.size() && isOne(run.get(i - 1), run.get(i))) {
                together.add(run.get(i++));
            }
            List<Operation> all = operations(together);
            if (parks) {
                made.add(finished(safePosition(book.position(o.thing()).map(Position::name)), together));
                continue;
            }
            if (o.equals(firstTurn) && line.stream().noneMatch(x -> parks(x, line, firstTurn))) {
                made.add(safePosition(Optional.empty()));
            }
            made.add(finished(scratchStep(all), together));
        }
        return made;
    }

    private static boolean parks(Operation o, List<Operation> line, Operation firstTurn) {
        Operation off = line.stream()
                .filter(x -> x.verb() == Verb.LOOP_OFF)
                .reduce((a, b) -> b)
                .orElse(firstTurn);
        return o.verb() == Verb.BRING
                && line.indexOf(o) > line.indexOf(off)
                && line.indexOf(o) < line.indexOf(firstTurn);
    }

    private boolean turnsAShaft(Operation o) {
        return o.verb() == Verb.TURN && book.shaft(o.thing()).isPresent();
    }

    /** Shafts and then the crank are one step, what is read true is one, what is set in is one. */
    private boolean isOne(Placed before, Placed next) {
        Operation a = before.operation();
        Operation b = next.operation();
        boolean moves = turnsAShaft(a) && (turnsAShaft(b) || b.verb() == Verb.BRING);
        boolean alike =
                a.verb() == b.verb() && (a.verb() == Verb.FIND || a.verb() == Verb.SET_IN || a.verb() == Verb.MARK);
        return (moves || alike) && standsAlike(before, next);
    }

    private Step safePosition(Optional<String> place) {
        String own = family.handling().safePosition();
        List<String> notes = new ArrayList<>();
        place.ifPresent(p -> notes.add("The shafts are free at %s.".formatted(lower(p))));
        if (!own.isBlank()) {
            notes.add(own);
        }
        if (notes.isEmpty()) {
            notes.add("The book names none: ask before anything turns.");
        }
        return confirm("safepos", "Crank to its safe position before any cam turns", GateKind.SAFE_POSITION)
                .notes(notes)
                .caution("Never cranked: creep by feel, and stop at any contact.");
    }

    private Step scratchStep(List<Operation> run) {
        Operation first = run.get(0);
        List<String> things = RoutedCard.things(run);
        return switch (first.verb()) {
            case FIND ->
                Step.of(
                                once("marksin", first),
                                "All true at once: " + lower(words.row(things)),
                                new Task.TrueMarks(names(things)))
                        .caution(CardSteps.NEVER_FORCE)
                        .notes(finding(things))
                        .gate(GateKind.REFERENCE_FOUND);
            case SET_IN ->
                Step.of(
                                once("scratchpins", first),
                                words.row(things) + " in, counted",
                                new Task.Check(names(things), "in", "does not go in"))
                        .caution("One that does not go in shows which shaft is out: never force it.")
                        .gate(GateKind.CAMS_HELD);
            case MARK ->
                confirm(
                                once("ownmarks", first),
                                "Own marks made anew: " + lower(words.row(things)),
                                GateKind.REFERENCE_FOUND)
                        .notes(List.of(
                                "The book has no reference of its own: set by the manufacturer's instructions first, then"
                                        + " mark. Marks made before say nothing."));
            case FOR_NOW, TAKE_OFF -> tick(first.code(), words.plain(run));
            default -> shaftsToTheirMarks(once("camsin", first), run);
        };
    }

    private Step shaftsToTheirMarks(String code, List<Operation> run) {
        List<String> shafts =
                run.stream().filter(this::turnsAShaft).map(Operation::thing).toList();
        Optional<String> place = run.stream()
                .filter(o -> o.verb() == Verb.BRING)
                .flatMap(o -> book.position(o.thing()).stream())
                .map(p -> lower(p.name()))
                .findFirst();
        String crank = place.map(p -> "the crank to %s by feel".formatted(p)).orElse("");
        String title = shafts.isEmpty()
                ? crank.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + crank.substring(1)
                : "%s to %s by feel, one after the other%s"
                        .formatted(
                                words.row(shafts),
                                shafts.size() == 1 ? "its mark" : "their marks",
                                crank.isEmpty() ? "" : ", then " + crank);
        Step step = tick(code, title).caution("Valves may stand open: stop at any contact.");
        return shafts.isEmpty() ? step.proving() : step;
    }

    /** The first of a kind has a name that is the same on every card; further ones say what they are of. */
    private String once(String code, Operation first) {
        return scratchCodes.add(code) ? code : code + ":" + first.thing();
    }
}
