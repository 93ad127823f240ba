package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Opening;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Turner;
import knollfield.core.engine.work.EngineState;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;
import knollfield.core.route.Arrow;
import knollfield.core.route.Line;
import knollfield.core.route.Placed;
import knollfield.core.route.Stretch;

/**
 * What is done and must be done once more, because something new comes before it; with it what opens it: a belt that is on
 * comes off again before what lies behind it is renewed.
 */
final class Reopened {

    private final Anatomy book;
    private final Line line;
    private final Progress progress;
    private final EngineState now;
    private final Set<Operation> onLine;
    private final Set<Operation> again = new LinkedHashSet<>();

    private Reopened(Anatomy book, Line line, Progress progress, EngineState now) {
        this.now = now;
        this.book = book;
        this.line = line;
        this.progress = progress;
        this.onLine = new HashSet<>(line.operations());
    }

    /**
     * Operations of {@code line} that are done and are asked once more.
     *
     * @param now how the engine stands
     */
    static Set<Operation> of(Anatomy book, Line line, Progress progress, EngineState now) {
        return progress.done().isEmpty() || !progress.reopens()
                ? Set.of()
                : new Reopened(book, line, progress, now).all();
    }

    private Set<Operation> all() {
        if (progress.redo().filter(r -> !r.tension().isEmpty()).isPresent()) {
            return setAnew(progress.redo().get().tension());
        }
        Set<Operation> redone = redone();
        redone.stream().filter(progress.done()::contains).forEach(again::add);
        int before;
        do {
            before = again.size();
            Set<Operation> first = new HashSet<>(redone);
            again.stream().filter(o -> !opens(o)).forEach(first::add);
            Set<Operation> waits = waiting(first);
            line.operations().stream()
                    .filter(o -> waits.contains(o) && progress.done().contains(o) && !opens(o))
                    .forEach(again::add);
            List.copyOf(again).forEach(o -> openers(o).forEach(this::ask));
        } while (again.size() > before);
        line.operations().stream().filter(this::isUndoneMeanwhile).forEach(again::add);
        again.removeIf(o -> o.verb().isRecorded());
        again.removeIf(
                o -> o.verb() == Verb.SET_IN && o.round() == 1 && now.in().contains(o.thing()));
        return again;
    }

    /**
     * A window is missed: the tension is set anew with the loop on, then turned and read once more. Slackening for it is no
     * undoing, so that nothing is let off.
     */
    private Set<Operation> setAnew(Set<String> loops) {
        for (String code : loops) {
            line.operations().stream()
                    .filter(o -> o.is(Verb.TENSION, code))
                    .reduce((first, last) -> last)
                    .ifPresent(again::add);
            book.loop(code).flatMap(Loop::tensioner).stream()
                    .flatMap(t -> book.jointsOf(t.part()).stream())
                    .map(j -> Operation.tighten(j.code(), j.stages().size()))
                    .filter(onLine::contains)
                    .forEach(o -> {
                        again.add(o);
                        book.hiders(o.thing()).forEach(this::openAgain);
                    });
        }
        line.placed().stream()
                .filter(p -> p.stretch() == Stretch.TURN || p.stretch() == Stretch.PROVE)
                .map(Placed::operation)
                .filter(o -> progress.done().contains(o) && readsOrTurns(o))
                .forEach(again::add);
        turner().filter(onLine::contains).forEach(again::add);
        return again;
    }

    /** A part that is on again already and hides something, with all that lies before it. */
    private void openAgain(String part) {
        book.before(part).forEach(this::openAgain);
        ask(Operation.of(Verb.FIT, part));
        book.jointsOf(part).forEach(j -> stages(j.code()).forEach(this::ask));
    }

    private static boolean readsOrTurns(Operation o) {
        return switch (o.verb()) {
            case TURN, BRING, PROVE, MEASURE, SET_IN, OUT -> true;
            default -> false;
        };
    }

    /** What did not prove: the loop is set from scratch and laid. */
    private Set<Operation> redone() {
        Set<Operation> all = new LinkedHashSet<>();
        // what broke once more is put right once more
        line.operations().stream()
                .filter(o -> (o.verb() == Verb.REPAIR && now.sheared().contains(o.thing()))
                        || (o.verb() == Verb.SEARCH && !now.missing().isEmpty()))
                .forEach(all::add);
        progress.redo()
                .ifPresent(redo -> line.placed().forEach(p -> {
                    Operation o = p.operation();
                    boolean timing = !redo.timing().isEmpty() && p.stretch() == Stretch.SCRATCH;
                    boolean lays = o.verb() == Verb.LAY && redo.timing().contains(o.thing());
                    // a tensioner that let go is pressed back before its loop is laid
                    boolean back = o.verb() == Verb.SET_IN
                            && redo.timing().stream()
                                    .flatMap(l -> book.loop(l).stream())
                                    .flatMap(l -> l.tensioner().stream())
                                    .anyMatch(t ->
                                            t.pin().filter(o.thing()::equals).isPresent());
                    if (timing || lays || back) {
                        all.add(o);
                    }
                }));
        return all;
    }

    /** What opens is asked once more only where what closed it is. */
    private boolean opens(Operation o) {
        if (o.verb() == Verb.LOOK && book.reference(o.thing()).isPresent()) {
            // read on what has just been laid
            return false;
        }
        return switch (o.verb()) {
            case SAFE,
                    RAISE,
                    DRAIN,
                    UNDO,
                    TAKE_OFF,
                    COVER,
                    FOR_NOW,
                    RELEASE,
                    LOOP_OFF,
                    FIND,
                    MARK,
                    LOOK,
                    COMPARE,
                    MOVE_OVER -> true;
            case BRING, BACK, SET_IN -> o.round() == 1;
            default -> false;
        };
    }

    /** Done once, and not so any more: a pin that is out again, a look at a loop that goes back once more. */
    private boolean isUndoneMeanwhile(Operation o) {
        if (!progress.done().contains(o)) {
            return false;
        }
        return switch (o.verb()) {
            case SET_IN -> !now.in().contains(o.thing()) && isOpen(Operation.of(Verb.OUT, o.thing(), o.round()));
            case LOOK -> isOpen(Operation.of(Verb.LOOP_OFF, o.thing()));
            default -> false;
        };
    }

    private boolean isOpen(Operation o) {
        return onLine.contains(o) && (!progress.done().contains(o) || again.contains(o));
    }

    private void ask(Operation o) {
        if (onLine.contains(o) && progress.done().contains(o) && again.add(o)) {
            openers(o).forEach(this::ask);
        }
    }

    /** What is new, and all that comes after it. */
    private Set<Operation> waiting(Set<Operation> redone) {
        Map<Operation, Set<Operation>> then = new HashMap<>();
        for (Arrow a : line.arrows()) {
            then.computeIfAbsent(a.first(), o -> new LinkedHashSet<>()).add(a.then());
        }
        Set<Operation> waits = new HashSet<>();
        List<Operation> open = new ArrayList<>(line.operations().stream()
                .filter(o -> !progress.known().contains(o) || redone.contains(o))
                .toList());
        while (!open.isEmpty()) {
            Operation next = open.remove(open.size() - 1);
            if (waits.add(next)) {
                then.getOrDefault(next, Set.of()).stream()
                        .filter(o -> !staysOpened(o))
                        .forEach(open::add);
            }
        }
        return waits;
    }

    /** Where something is only done once more, what was opened for other things is not opened again for it. */
    private boolean staysOpened(Operation o) {
        return progress.redo().isPresent() && opens(o) && progress.done().contains(o);
    }

    /** What undoes {@code o}, so that it can be done once more. */
    private Stream<Operation> openers(Operation o) {
        String thing = o.thing();
        return switch (o.verb()) {
            case FIT -> Stream.of(Operation.of(Verb.TAKE_OFF, thing));
            case TIGHTEN ->
                Stream.concat(
                        Stream.concat(Stream.of(Operation.of(Verb.UNDO, thing)), stages(thing)),
                        book.joint(thing).flatMap(Joint::fasteners).map(f -> Operation.of(Verb.COMPARE, f)).stream());
            case TAKE_OFF ->
                Stream.concat(
                        Stream.concat(Stream.of(Operation.of(Verb.FOR_NOW, thing)), loopsOn(thing)),
                        book.openings().stream()
                                .filter(w -> w.openedBy().equals(thing))
                                .map(Opening::code)
                                .map(w -> Operation.of(Verb.COVER, w)));
            case LAY ->
                Stream.concat(
                        Stream.of(
                                Operation.of(Verb.LOOP_OFF, thing),
                                Operation.of(Verb.RELEASE, thing),
                                Operation.of(Verb.LOOK, thing)),
                        onLine.contains(Operation.of(Verb.LOST, thing)) ? Stream.empty() : found());
            case UNDO ->
                Stream.concat(
                        holder(thing),
                        book.joint(thing).stream()
                                .flatMap(j -> j.holds().stream())
                                .flatMap(this::loopsOn));
            case OUT -> Stream.of(Operation.of(Verb.SET_IN, thing, o.round()));
            case PROVE -> Stream.of(Operation.of(Verb.MARK, thing)).filter(m -> isHeldOnly(thing));
            case TURN -> turner();
            case FILL -> Stream.of(Operation.of(Verb.DRAIN, thing));
            case CLOSE -> Stream.of(Operation.of(Verb.SAFE, "battery"), Operation.of(Verb.RAISE, thing));
            default -> Stream.empty();
        };
    }

    /** Undone, a joint goes through all its stages again. */
    private Stream<Operation> stages(String joint) {
        return book.joint(joint).stream()
                .flatMap(j -> Stream.iterate(1, s -> s + 1).limit(j.stages().size()))
                .map(s -> Operation.tighten(joint, s));
    }

    /** A loop that runs over a part, or is tensioned by it, comes off before the part does. */
    private Stream<Operation> loopsOn(String part) {
        return book.loops().stream()
                .filter(l -> l.wheels().contains(part)
                        || l.tensioner().filter(t -> t.part().equals(part)).isPresent())
                .filter(l -> Optional.ofNullable(now.loops().get(l.code()))
                        .filter(s -> s.stand() != EngineState.Stand.OFF)
                        .isPresent())
                .map(l -> Operation.of(Verb.LAY, l.code()));
    }

    /** What holds against a joint goes in again for undoing it, and out. */
    private Stream<Operation> holder(String joint) {
        return book.joint(joint).stream()
                .filter(j -> j.heldBy() == Joint.HeldBy.HARDWARE)
                .flatMap(j -> j.holders().stream().limit(1))
                .flatMap(h -> Stream.of(Operation.of(Verb.SET_IN, h), Operation.of(Verb.OUT, h)));
    }

    private boolean isHeldOnly(String reference) {
        return book.reference(reference)
                .filter(r -> r.trust() == Reference.Trust.WHILE_HELD)
                .isPresent();
    }

    /** Once the engine has been turned, its position is found anew before a loop comes off. */
    private Stream<Operation> found() {
        boolean pinned =
                book.hardware().stream().anyMatch(h -> h.slidesIn() && now.in().contains(h.code()));
        boolean turned = !pinned && progress.done().stream().anyMatch(o -> o.verb() == Verb.TURN);
        return line.operations().stream()
                .filter(o -> turned && o.round() == 1)
                .filter(o -> o.verb() == Verb.BRING || o.verb() == Verb.FIND);
    }

    /** An old bolt the crank was turned by goes in and out again. */
    private Stream<Operation> turner() {
        return book.turners().stream()
                .filter(t -> t.kind() == Turner.Kind.OLD_BOLT)
                .filter(t -> progress.done().contains(Operation.of(Verb.TAKE_OFF, t.code())))
                .flatMap(t -> Stream.of(Operation.of(Verb.FOR_NOW, t.code()), Operation.of(Verb.TAKE_OFF, t.code())));
    }

    /**
     * Codes of what is new on the engine already and comes off once more, so that it goes back as it is; a tensioner that
     * let go comes off with its loop.
     */
    static Set<String> goesBack(Anatomy book, Line line, Progress progress, EngineState now) {
        Set<Operation> once = of(book, line, progress, now);
        Set<String> back = new HashSet<>();
        for (Operation o : line.operations()) {
            boolean off = (o.verb() == Verb.TAKE_OFF || o.verb() == Verb.LOOP_OFF)
                    && (!progress.done().contains(o) || once.contains(o));
            if (off && now.fresh().contains(o.thing())) {
                back.add(o.thing());
            }
            book.loop(o.thing())
                    .filter(l -> off)
                    .flatMap(Loop::tensioner)
                    .filter(t -> now.fresh().contains(t.part()))
                    .filter(t -> t.pin().filter(p -> !now.in().contains(p)).isPresent())
                    .ifPresent(t -> back.add(t.part()));
        }
        return back;
    }
}
