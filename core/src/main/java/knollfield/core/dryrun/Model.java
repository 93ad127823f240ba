package knollfield.core.dryrun;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Shaft;
import knollfield.core.engine.build.Turner;
import knollfield.core.engine.build.Wheel;
import knollfield.core.engine.work.Breach;
import knollfield.core.engine.work.EngineState;
import knollfield.core.engine.work.Goal;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;

/** The engine while a card is run dry: what is on, off, undone, in, true; and what was broken. */
final class Model {

    final Anatomy book;
    final Goal goal;
    final List<Operation> card;
    final List<Breach> breaches = new ArrayList<>();

    /** Counts operations, from 1 on; what happened when. */
    int now;

    boolean batteryOff;
    boolean raised;
    boolean started;
    boolean checked;
    boolean labelled;
    Optional<String> position = Optional.empty();
    /** The crank stands at its position, the cams half a cycle from theirs. */
    boolean opposite;

    /** Stage reached of every joint that was undone, 0 for none. */
    final Map<String, Integer> joints = new HashMap<>();

    /** Moment each joint was undone last. */
    final Map<String, Integer> undoneAt = new HashMap<>();

    final Set<String> everUndone = new HashSet<>();
    final Set<String> off = new LinkedHashSet<>();
    final Set<String> forNow = new LinkedHashSet<>();
    final Set<String> everOff = new HashSet<>();
    final Set<String> compared = new HashSet<>();
    final Set<String> fresh = new HashSet<>();
    final Set<String> movedOver = new HashSet<>();
    final Set<String> in = new LinkedHashSet<>();
    final Set<String> drained = new HashSet<>();
    final Set<String> filled = new HashSet<>();
    final Set<String> found = new HashSet<>();
    final Set<String> marked = new HashSet<>();
    final Set<String> lookedAt = new HashSet<>();
    /** Joints with a stub in. */
    final Set<String> sheared = new LinkedHashSet<>();
    /** Parts that came off with a piece missing. */
    final Set<String> missing = new LinkedHashSet<>();
    /** Where pieces were looked for since. */
    final Set<String> searched = new HashSet<>();
    /** Open ways into the engine: true once covered. */
    final Map<String, Boolean> openings = new LinkedHashMap<>();

    final Map<String, Integer> proven = new HashMap<>();
    final Map<String, Integer> measured = new HashMap<>();
    final Map<String, LoopModel> loops = new LinkedHashMap<>();
    private Optional<Operation> at = Optional.empty();

    Model(Anatomy book, Goal goal, List<Operation> card) {
        this.book = book;
        this.goal = goal;
        this.card = card;
        book.loops().forEach(l -> loops.put(l.code(), new LoopModel(l)));
    }

    void begin(Operation operation) {
        now++;
        at = Optional.of(operation);
    }

    void end() {
        now++;
        at = Optional.empty();
    }

    void breach(String thing, String words, Law... laws) {
        breaches.add(new Breach(Arrays.asList(laws), at, thing, words));
    }

    /** True where an operation of the card that is still to come is {@code verb} on {@code thing}. */
    boolean comes(Verb verb, String thing) {
        return card.subList(Math.min(now, card.size()), card.size()).stream().anyMatch(o -> o.is(verb, thing));
    }

    LoopModel loop(String code) {
        LoopModel model = loops.get(code);
        if (model == null) {
            throw new IllegalArgumentException("there is no loop " + code);
        }
        return model;
    }

    /** True for what goes on new now; what has been renewed on this card already goes back as it came off. */
    boolean goesOnNew(String thing) {
        return goal.renews(thing) && !fresh.contains(thing);
    }

    boolean isOff(String thing) {
        LoopModel loop = loops.get(thing);
        return loop != null ? !loop.on() : off.contains(thing);
    }

    /** On and where it belongs, not only for now. */
    boolean isOn(String thing) {
        return !isOff(thing) && !forNow.contains(thing);
    }

    boolean isUndone(String joint) {
        return joints.containsKey(joint);
    }

    /** Undone and not through all its stages again. */
    boolean isOpen(Joint joint) {
        Integer stage = joints.get(joint.code());
        return stage != null && stage < joint.stages().size();
    }

    /** Every joint that holds {@code thing} is through all its stages. */
    boolean isTight(String thing) {
        return book.jointsOf(thing).stream().noneMatch(this::isOpen);
    }

    /** The first thing of {@code things} that is not off. */
    Optional<String> firstOn(Iterable<String> things) {
        for (String thing : things) {
            if (!isOff(thing)) {
                return Optional.of(thing);
            }
        }
        return Optional.empty();
    }

    /** What lies before {@code thing} and is still there, for now or for good. */
    Optional<String> inTheWayOf(String thing) {
        return firstOn(book.before(thing));
    }

    /** What hides the bolts of {@code joint}: on, and not only for now. */
    Optional<String> hides(Joint joint) {
        return book.hiders(joint.code()).stream().filter(this::isOn).findFirst();
    }

    boolean supportIsIn() {
        return book.hardware().stream().anyMatch(h -> h.kind() == Hardware.Kind.SUPPORT && in.contains(h.code()));
    }

    /** Whether something lets the crank be turned. */
    boolean canBeTurned() {
        return book.turners().stream().anyMatch(this::turns);
    }

    private boolean turns(Turner turner) {
        String thing = turner.thing().orElse("");
        return switch (turner.kind()) {
            case STAYS -> true;
            case ASSEMBLY -> !isOff(thing);
            case JOINT -> !isUndone(thing) || joints.getOrDefault(thing, 0) > 0 || forNow.contains(turner.code());
            case OLD_BOLT -> forNow.contains(turner.code());
        };
    }

    /** What stands in the way of turning, hardware only. */
    List<Hardware> stopping() {
        return book.hardware().stream()
                .filter(h -> h.stopsTurning() && in.contains(h.code()))
                .toList();
    }

    /** A shaft of a loop that moves by itself and is held by nothing. */
    Optional<Shaft> unheld(Loop loop) {
        for (String code : loop.shafts()) {
            Shaft shaft = book.shaft(code).orElseThrow();
            boolean still = shaft.whenFree() == Shaft.WhenFree.STAYS
                    || position.filter(shaft.freeAt()::contains).isPresent()
                    || shaft.freeAnywhere()
                    || book.hardware().stream()
                            .anyMatch(h -> in.contains(h.code()) && h.holds().contains(code));
            if (!still) {
                return Optional.of(shaft);
            }
        }
        return Optional.empty();
    }

    /** Shafts of {@code loop} that stand where it left them, the crank apart. */
    List<Shaft> driven(Loop loop) {
        return loop.shafts().stream()
                .flatMap(s -> book.shaft(s).stream())
                .filter(s -> s.role() != Shaft.Role.CRANK)
                .toList();
    }

    /** A shaft of a loop found out of time that has not been set to its mark since. */
    Optional<Shaft> notSet(LoopModel loop) {
        return driven(loop.loop).stream()
                .filter(s -> !loop.set.contains(s.code()))
                .findFirst();
    }

    /** References by which a loop found out of time is set: on file, and to be read with the loop off. */
    List<Reference> setBy(LoopModel loop) {
        return book.references().stream()
                .filter(r -> r.loops().contains(loop.loop.code()) && r.trustedBefore() && !r.own())
                .filter(r -> r.on().stream().noneMatch(off::contains))
                .toList();
    }

    /** Own marks that can be made once a loop found out of time is set, where the book has nothing else. */
    List<Reference> ownMarks(LoopModel loop) {
        return book.references().stream()
                .filter(r -> r.loops().contains(loop.loop.code()) && r.own() && r.trustedAfter())
                .toList();
    }

    /** A wheel of {@code loop} that could slip if the engine were turned. */
    Optional<Wheel> loose(Loop loop) {
        return book.wheels().stream()
                .filter(w -> loop.shafts().contains(w.shaft()))
                .filter(w -> w.fit() == Wheel.Fit.KEYED
                        ? off.contains(w.code())
                        : off.contains(w.code())
                                || w.joint()
                                        .flatMap(book::joint)
                                        .filter(j -> isOpen(j) && stillBeforeTurns(j))
                                        .isPresent())
                .findFirst();
    }

    /** A stage that is due before the turns is not done. */
    private boolean stillBeforeTurns(Joint joint) {
        int reached = joints.getOrDefault(joint.code(), 0);
        return reached < joint.stages().size()
                && (reached == 0 || joint.stages().get(reached).until().compareTo(Joint.Moment.TURNED) <= 0);
    }

    /** The tensioner of a loop is set, but not made tight as it must be before a turn. */
    boolean tensionerIsLoose(Loop loop) {
        return loop.tensioner()
                .filter(t -> book.jointsOf(t.part()).stream().anyMatch(j -> isOpen(j) && stillBeforeTurns(j)))
                .isPresent();
    }

    /** The tensioner of a loop holds nothing. */
    boolean tensionerIsUndone(Loop loop) {
        return loop.tensioner().stream()
                .flatMap(t -> book.jointsOf(t.part()).stream())
                .anyMatch(j -> joints.getOrDefault(j.code(), 1) == 0);
    }

    boolean tensionerIsOff(Loop loop) {
        return loop.tensioner().filter(t -> off.contains(t.part())).isPresent();
    }

    /** Its own pin is in. */
    boolean pinIsIn(Loop loop) {
        return loop.tensioner()
                .flatMap(Loop.Tensioner::pin)
                .filter(in::contains)
                .isPresent();
    }

    /** What must be off or on to read a reference and is not; empty when it can be read. */
    Optional<String> cannotBeRead(Reference reference) {
        for (String thing : reference.off()) {
            if (book.assembly(thing).isPresent() && !off.contains(thing)) {
                return Optional.of("%s is in the way".formatted(name(thing)));
            }
        }
        for (String thing : reference.on()) {
            if (off.contains(thing)) {
                return Optional.of("%s is off, it is read against it".formatted(name(thing)));
            }
        }
        return Optional.empty();
    }

    /** Every reference that proves {@code loop} was read true after the last thing that asks for it. */
    Optional<Reference> unproven(LoopModel loop) {
        int since = Math.max(loop.disturbed, loop.lookAgain);
        return book.references().stream()
                .filter(r -> r.loops().contains(loop.loop.code()))
                .filter(r -> loop.held ? r.trust() == Reference.Trust.WHILE_HELD : r.trustedAfter())
                .filter(r -> !(loop.wasLost && r.own() && !marked.contains(r.code())))
                .filter(r -> r.hardware()
                        .flatMap(book::hardware)
                        .map(Hardware::expectedBack)
                        .orElse(true))
                .filter(r -> proven.getOrDefault(r.code(), 0) <= (loop.held ? loop.tensioned : since))
                .findFirst();
    }

    boolean isProven(LoopModel loop) {
        return !loop.touched
                || (loop.stand == LoopModel.Stand.TENSIONED
                        && loop.turns >= 2
                        && !loop.lost
                        && unproven(loop).isEmpty());
    }

    /** The engine is as it was found, or closed again: no part off, none for now, no joint open. */
    Optional<String> notClosed() {
        Optional<String> away = off.stream().filter(a -> !fitsLater(a)).findFirst();
        if (away.isPresent()) {
            return away.map(a -> "%s is off".formatted(name(a)));
        }
        if (!forNow.isEmpty()) {
            return Optional.of(
                    "%s is on for now only".formatted(name(forNow.iterator().next())));
        }
        if (!sheared.isEmpty()) {
            return Optional.of("the stub of %s is still in"
                    .formatted(name(sheared.iterator().next())));
        }
        return book.joints().stream()
                .filter(this::isOpen)
                .filter(j -> j.stages().get(joints.getOrDefault(j.code(), 0)).from() != Joint.Moment.RAN)
                .findFirst()
                .map(j -> "%s is not done up".formatted(name(j.code())));
    }

    private boolean fitsLater(String assembly) {
        return book.assembly(assembly).isEmpty();
    }

    String name(String thing) {
        return book.assembly(thing)
                .map(Assembly::name)
                .or(() -> book.loop(thing).map(Loop::name))
                .or(() -> book.joint(thing).map(Joint::name))
                .or(() -> book.hardware(thing).map(Hardware::name))
                .or(() -> book.reference(thing).map(Reference::name))
                .or(() -> book.look(thing).map(l -> l.name()))
                .or(() -> book.fluid(thing).map(f -> f.name()))
                .or(() -> book.turner(thing).map(Turner::name))
                .or(() -> book.shaft(thing).map(Shaft::name))
                .or(() -> book.position(thing).map(p -> p.name()))
                .or(() -> book.opening(thing).map(o -> o.name()))
                .orElse(thing);
    }

    EngineState state() {
        Map<String, EngineState.LoopState> states = new LinkedHashMap<>();
        loops.forEach((code, l) -> states.put(
                code,
                new EngineState.LoopState(
                        switch (l.stand) {
                            case TENSIONED -> EngineState.Stand.TENSIONED;
                            case SLACK -> EngineState.Stand.SLACK;
                            case OFF -> EngineState.Stand.OFF;
                            case LAID -> EngineState.Stand.LAID;
                        },
                        l.touched,
                        l.cameOff,
                        l.held,
                        isProven(l),
                        l.wasLost)));
        Set<String> open = new HashSet<>(drained);
        open.removeAll(filled);
        return new EngineState(joints, off, open, fresh, in, states, sheared, missing, forNow);
    }
}
