package knollfield.core.route;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Fluid;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Opening;
import knollfield.core.engine.build.OwnOrder;
import knollfield.core.engine.build.Turner;
import knollfield.core.engine.work.EngineState;
import knollfield.core.engine.work.Goal;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;

/**
 * Works out which operations a job needs on an engine and lays them in one line. What comes off and goes on is written
 * here; loops, references and the crank's ways in {@link TimingRoute}.
 */
public final class Router {

    static final Operation BATTERY = Operation.of(Verb.SAFE, "battery");
    static final Operation RAISE = Operation.of(Verb.RAISE, "car");
    static final Operation CLOSE = Operation.of(Verb.CLOSE, "car");
    static final Operation START = Operation.of(Verb.START, "engine");
    static final Operation CHECK = Operation.of(Verb.CHECK, "engine");
    static final Operation LABEL = Operation.of(Verb.LABEL, "car");

    private final Anatomy book;
    private final Scope scope;
    private final Web web = new Web();

    private Router(Anatomy book, Goal goal, EngineState open) {
        this.book = book;
        this.scope = new Scope(book, goal, open);
    }

    /**
     * The line of a whole job on a closed engine.
     *
     * @throws Unroutable where the book contradicts itself
     */
    public static Line lay(Anatomy book, Goal goal) {
        return lay(book, goal, EngineState.closed());
    }

    /**
     * The line of a whole job that closes what stands open too, whatever it was opened for. What is done of it stays done
     * ({@code jobcard} keeps the answers); so that an engine in the middle of one job goes on with another.
     *
     * @param open what stands open
     * @throws Unroutable where the book contradicts itself
     */
    public static Line lay(Anatomy book, Goal goal, EngineState open) {
        return new Router(book, goal, open).laid();
    }

    private Line laid() {
        TimingRoute timing = new TimingRoute(scope, web);
        comesOff();
        timing.operations();
        broken();
        goesOn();
        looks();
        ends();
        orderOfParts();
        orderOfJoints(timing);
        orderOfWhatBroke();
        timing.arrows();
        orderOfLooks(timing);
        orderOfTheEnd();
        ownOrders();
        return web.line();
    }

    // --- what there is to do

    private void comesOff() {
        web.add(BATTERY, Stretch.SAFE);
        boolean below = !scope.fluids.isEmpty()
                || scope.off.stream().flatMap(a -> book.assembly(a).stream()).anyMatch(Assembly::under);
        if (below) {
            web.add(RAISE, Stretch.SAFE);
        }
        scope.fluids.forEach(f -> web.add(Operation.of(Verb.DRAIN, f), Stretch.DRAIN));
        for (Assembly a : book.assemblies()) {
            if (!scope.off.contains(a.code())) {
                continue;
            }
            if (a.lookBeforeOff().isPresent()) {
                web.add(Operation.of(Verb.LOOK, a.code()), opening(a));
            }
            book.jointsOf(a.code()).forEach(j -> addUndo(j, tensions(a) ? Stretch.RELEASE : opening(a)));
            web.add(Operation.of(Verb.TAKE_OFF, a.code()), opening(a));
            book.openings().stream()
                    .filter(o -> o.openedBy().equals(a.code()))
                    .forEach(o -> web.add(Operation.of(Verb.COVER, o.code()), opening(a)));
            if (a.carriesEngine()) {
                support().ifPresent(h -> web.add(Operation.of(Verb.SET_IN, h.code()), Stretch.OPEN));
            }
        }
        scope.undone.forEach(j -> addUndo(book.joint(j).orElseThrow(), Stretch.RELEASE));
    }

    /** Stubs of what broke off, pieces that are missing, and what was put in to turn by and is not needed any more. */
    private void broken() {
        scope.forNow.forEach(t -> {
            web.add(Operation.of(Verb.FOR_NOW, t), Stretch.OPEN);
            web.add(Operation.of(Verb.TAKE_OFF, t), Stretch.PROVE);
        });
        scope.sheared.forEach(j -> {
            web.add(Operation.of(Verb.SHEARED, j), Stretch.STRIP);
            web.add(Operation.of(Verb.REPAIR, j), Stretch.COMPARE);
        });
        if (!scope.missing.isEmpty()) {
            scope.missing.forEach(m -> web.add(Operation.of(Verb.MISSING, m), Stretch.STRIP));
            book.catchesPieces().forEach(a -> web.add(Operation.of(Verb.SEARCH, a.code()), Stretch.STRIP));
        }
    }

    private void orderOfWhatBroke() {
        for (String code : scope.forNow) {
            Operation in = Operation.of(Verb.FOR_NOW, code);
            Operation out = Operation.of(Verb.TAKE_OFF, code);
            web.arrow(in, out, Law.FOR_NOW, code, "it is in for now only");
            book.turner(code).flatMap(Turner::thing).ifPresent(part -> {
                web.arrow(Operation.of(Verb.TAKE_OFF, part), in, Law.FOR_NOW, part, "it goes in its place");
                web.arrow(out, Operation.of(Verb.FIT, part), Law.FOR_NOW, code, "it is in its place");
            });
        }
        for (String code : scope.sheared) {
            Joint j = book.joint(code).orElseThrow();
            Operation sheared = Operation.of(Verb.SHEARED, code);
            Operation repair = Operation.of(Verb.REPAIR, code);
            web.arrow(Operation.of(Verb.UNDO, code), sheared, Law.CLOSED, code, "it broke off");
            web.arrow(sheared, repair, Law.CLOSED, code, "its stub is in");
            web.arrow(repair, Operation.tighten(code, 1), Law.CLOSED, code, "the stub is out first");
            for (String held : j.holds()) {
                web.arrow(Operation.of(Verb.TAKE_OFF, held), repair, Law.REACH, held, "nobody gets at the stub before");
                web.arrow(repair, Operation.of(Verb.FIT, held), Law.REACH, code, "the stub is out first");
            }
            for (String h : book.hiders(code)) {
                boolean loop = book.loop(h).isPresent();
                web.arrow(
                        Operation.of(loop ? Verb.LOOP_OFF : Verb.TAKE_OFF, h),
                        repair,
                        Law.REACH,
                        h,
                        "%s hides it".formatted(name(h)));
                web.arrow(
                        repair,
                        Operation.of(loop ? Verb.LAY : Verb.FIT, h),
                        Law.REACH,
                        h,
                        "%s hides %s".formatted(name(h), j.name()));
            }
        }
        List<Operation> searches = book.catchesPieces().stream()
                .map(a -> Operation.of(Verb.SEARCH, a.code()))
                .filter(web::has)
                .toList();
        for (Operation search : searches) {
            String sump = search.thing();
            web.arrow(Operation.of(Verb.TAKE_OFF, sump), search, Law.REACH, sump, "nobody sees into it before");
            web.arrow(
                    search,
                    Operation.of(Verb.FIT, sump),
                    Law.BEFORE_IT_HIDES,
                    sump,
                    "pieces are looked for before it closes");
            for (String part : scope.missing) {
                Operation missing = Operation.of(Verb.MISSING, part);
                web.arrow(Operation.of(Verb.TAKE_OFF, part), missing, Law.BEFORE_IT_HIDES, part, "it came off broken");
                web.arrow(missing, search, Law.BEFORE_IT_HIDES, part, "a piece of it is missing");
            }
            List.copyOf(web.all()).stream()
                    .filter(o -> o.is(Verb.TURN, "engine"))
                    .forEach(turn -> web.arrow(
                            search, turn, Law.MOVEMENTS, sump, "a piece that is missing may lie in the drive"));
        }
    }

    private void addUndo(Joint joint, Stretch stretch) {
        web.add(Operation.of(Verb.UNDO, joint.code()), stretch);
    }

    private void goesOn() {
        for (Assembly a : book.assemblies()) {
            if (!scope.off.contains(a.code())) {
                continue;
            }
            if (scope.newPart(a.code())) {
                web.add(Operation.of(Verb.COMPARE, a.code()), Stretch.COMPARE);
                a.moveOver().forEach(p -> web.add(Operation.of(Verb.MOVE_OVER, p.code()), Stretch.COMPARE));
            }
            web.add(Operation.of(Verb.FIT, a.code()), closing(a));
            book.jointsOf(a.code()).forEach(j -> addTighten(j, closing(a)));
        }
        for (String code : scope.undone) {
            Joint j = book.joint(code).orElseThrow();
            addTighten(j, Stretch.TENSION);
            j.fasteners().ifPresent(f -> web.add(Operation.of(Verb.COMPARE, f), Stretch.COMPARE));
        }
        if (scope.off.stream().flatMap(a -> book.assembly(a).stream()).anyMatch(Assembly::carriesEngine)) {
            support().ifPresent(h -> web.add(Operation.of(Verb.OUT, h.code()), Stretch.CLOSE));
        }
        scope.fluids.forEach(f -> web.add(Operation.of(Verb.FILL, f), Stretch.FILL));
    }

    private void addTighten(Joint joint, Stretch stretch) {
        for (int stage = 1; stage <= joint.stages().size(); stage++) {
            Stretch place = switch (joint.stages().get(stage - 1).from()) {
                case FITTED, LAID -> stretch;
                case TENSIONED -> Stretch.TENSION;
                case TURNED, SET_AGAIN -> Stretch.PROVE;
                case CLOSED, RAN -> Stretch.CLOSE;
            };
            web.add(Operation.tighten(joint.code(), stage), place);
        }
    }

    private Optional<Hardware> support() {
        return book.hardware().stream()
                .filter(h -> h.kind() == Hardware.Kind.SUPPORT)
                .findFirst();
    }

    private void looks() {
        for (Look look : book.looks()) {
            boolean due = switch (look.kind()) {
                case GAP -> look.on().stream().anyMatch(scope.off::contains);
                case CLEARANCE -> !look.off().isEmpty() && scope.off.containsAll(look.off());
                case WINDOW -> false;
                case COUNT ->
                    look.loop()
                            .filter(l -> scope.opened.contains(l) && scope.newPart(l))
                            .isPresent();
            };
            if (due) {
                web.add(
                        Operation.of(Verb.MEASURE, look.code()),
                        look.kind() == Look.Kind.COUNT
                                ? Stretch.COMPARE
                                : look.kind() == Look.Kind.GAP ? Stretch.TENSION : Stretch.PROVE);
            }
        }
    }

    private void ends() {
        web.add(CLOSE, Stretch.CLOSE);
        web.add(START, Stretch.START);
        web.add(CHECK, Stretch.START);
        web.add(LABEL, Stretch.RECORD);
    }

    /** Where in the work a part comes off. */
    private Stretch opening(Assembly a) {
        if (behindALoop(a)) {
            return Stretch.STRIP;
        }
        return switch (a.kind()) {
            case ACCESSORY_DRIVE, ACCESSORY, PLUG -> Stretch.CLEAR;
            case TENSIONER, IDLER, PUMP, ARM, GUIDE, WHEEL, GUARD, SEAL -> Stretch.RELEASE;
            case COVER, ROCKER_COVER, FRONT_COVER, SUMP, MOUNT, BRACKET, PULLEY, GUIDE_RING, STRAINER, FILTER, OTHER ->
                Stretch.OPEN;
        };
    }

    private Stretch closing(Assembly a) {
        if (behindALoop(a)) {
            return Stretch.FIT;
        }
        return switch (a.kind()) {
            case TENSIONER, ARM, GUIDE, WHEEL, IDLER, GUARD -> Stretch.LAY;
            default -> Stretch.CLOSE;
        };
    }

    private boolean tensions(Assembly a) {
        return book.loops().stream()
                .flatMap(l -> l.tensioner().stream())
                .anyMatch(t -> t.part().equals(a.code()));
    }

    private boolean behindALoop(Assembly a) {
        return book.inFrontOf(a.code()).stream().anyMatch(scope.opened::contains);
    }

    // --- what comes before what

    private void orderOfParts() {
        for (String code : scope.off) {
            Assembly a = book.assembly(code).orElseThrow();
            Operation off = Operation.of(Verb.TAKE_OFF, code);
            Operation fit = Operation.of(Verb.FIT, code);
            String name = a.name();
            for (String front : book.inFrontOf(code)) {
                Operation frontOff = book.loop(front).isPresent()
                        ? Operation.of(Verb.LOOP_OFF, front)
                        : Operation.of(Verb.TAKE_OFF, front);
                Operation frontOn =
                        book.loop(front).isPresent() ? Operation.of(Verb.LAY, front) : Operation.of(Verb.FIT, front);
                web.arrow(frontOff, off, Law.REACH, front, "%s lies before it".formatted(name(front)));
                web.arrow(fit, frontOn, Law.REACH, code, "%s lies behind it".formatted(name));
                web.arrow(fit, Operation.of(Verb.FOR_NOW, front), Law.REACH, code, "%s lies behind it".formatted(name));
            }
            for (Joint j : book.jointsOf(code)) {
                web.arrow(Operation.of(Verb.UNDO, j.code()), off, Law.REACH, j.code(), "its joint is undone first");
            }
            a.letsOut().forEach(f -> {
                web.arrow(Operation.of(Verb.DRAIN, f), off, Law.FLUIDS, f, "%s runs out there".formatted(name(f)));
                book.jointsOf(code)
                        .forEach(j -> web.arrow(
                                Operation.of(Verb.DRAIN, f),
                                Operation.of(Verb.UNDO, j.code()),
                                Law.FLUIDS,
                                f,
                                "%s runs out there".formatted(name(f))));
            });
            if (a.lookBeforeOff().isPresent()) {
                Operation look = Operation.of(Verb.LOOK, code);
                book.before(code)
                        .forEach(b -> web.arrow(
                                Operation.of(Verb.TAKE_OFF, b), look, Law.REACH, b, "%s hides it".formatted(name(b))));
                web.arrow(look, off, Law.BEFORE_IT_HIDES, code, "it is looked at where it sits");
                book.jointsOf(code).forEach(j -> web.rather(look, Operation.of(Verb.UNDO, j.code())));
            }
            for (Opening o : book.openings()) {
                if (o.openedBy().equals(code)) {
                    web.atOnce(
                            off,
                            Operation.of(Verb.COVER, o.code()),
                            Law.OPENINGS,
                            o.code(),
                            "a part can fall into %s".formatted(o.name()));
                }
            }
            Operation compare = Operation.of(Verb.COMPARE, code);
            web.arrow(off, compare, Law.DONE, code, "the old one is held beside it");
            web.arrow(compare, fit, Law.DONE, code, "the new one is compared before it goes on");
            web.arrow(off, fit, Law.CLOSED, code, "it goes back where it came off");
            a.moveOver().forEach(p -> {
                Operation over = Operation.of(Verb.MOVE_OVER, p.code());
                web.arrow(off, over, Law.CLOSED, code, "it comes from the old one");
                web.arrow(compare, over, Law.DONE, code, "the new one is the right one first");
                web.arrow(over, fit, Law.CLOSED, code, "%s goes over first".formatted(p.name()));
            });
            carried(a);
        }
        // all new parts are held beside the old ones in one go, then what is small goes over
        List<Operation> all = List.copyOf(web.all());
        all.stream()
                .filter(o -> o.verb() == Verb.MOVE_OVER)
                .forEach(over -> all.stream()
                        .filter(o -> o.verb() == Verb.COMPARE)
                        .forEach(compare -> web.rather(compare, over)));
    }

    private void carried(Assembly a) {
        if (!a.carriesEngine()) {
            return;
        }
        support().ifPresent(h -> {
            Operation in = Operation.of(Verb.SET_IN, h.code());
            Operation out = Operation.of(Verb.OUT, h.code());
            for (Joint j : book.jointsOf(a.code())) {
                web.arrow(in, Operation.of(Verb.UNDO, j.code()), Law.CARRIED, a.code(), "the engine hangs on it");
                web.arrow(last(j), out, Law.CARRIED, a.code(), "%s carries again".formatted(a.name()));
            }
            web.arrow(Operation.of(Verb.FIT, a.code()), out, Law.CARRIED, a.code(), "it carries again");
            web.arrow(in, Operation.of(Verb.TAKE_OFF, a.code()), Law.CARRIED, a.code(), "the engine hangs on it");
        });
    }

    private void orderOfJoints(TimingRoute timing) {
        for (String code : scope.undone) {
            Joint j = book.joint(code).orElseThrow();
            Operation undo = Operation.of(Verb.UNDO, code);
            for (String h : book.hiders(code)) {
                Operation away =
                        book.loop(h).isPresent() ? Operation.of(Verb.LOOP_OFF, h) : Operation.of(Verb.TAKE_OFF, h);
                web.arrow(away, undo, Law.REACH, h, "%s hides it".formatted(name(h)));
            }
            Operation before = undo;
            for (int stage = 1; stage <= j.stages().size(); stage++) {
                Operation tighten = Operation.tighten(code, stage);
                web.arrow(before, tighten, Law.CLOSED, code, "stage by stage");
                if (web.has(tighten)) {
                    before = tighten;
                }
                for (String held : j.holds()) {
                    web.arrow(Operation.of(Verb.FIT, held), tighten, Law.CLOSED, held, "it sits first");
                }
                for (String h : book.hiders(code)) {
                    Operation on = book.loop(h).isPresent() ? Operation.of(Verb.LAY, h) : Operation.of(Verb.FIT, h);
                    web.arrow(tighten, on, Law.REACH, h, "%s hides %s".formatted(name(h), j.name()));
                }
                for (String first : j.stages().get(stage - 1).tightFirst()) {
                    book.joint(first)
                            .ifPresent(f -> web.arrow(
                                    last(f), tighten, Law.CLOSED, code, "%s is tight first".formatted(f.name())));
                }
            }
            j.fasteners().ifPresent(f -> {
                Operation compare = Operation.of(Verb.COMPARE, f);
                web.arrow(undo, compare, Law.DONE, f, "the old ones are held beside it");
                web.arrow(compare, Operation.tighten(code, 1), Law.CLOSED, f, "one-time fasteners are new");
                j.holds()
                        .forEach(h -> web.arrow(
                                compare,
                                Operation.of(Verb.FIT, h),
                                Law.DONE,
                                f,
                                "its new fasteners are compared first"));
            });
            timing.moments(j);
        }
    }

    private void orderOfLooks(TimingRoute timing) {
        for (Look look : book.looks()) {
            Operation measure = Operation.of(Verb.MEASURE, look.code());
            if (!web.has(measure)) {
                continue;
            }
            look.off().forEach(a -> {
                web.arrow(Operation.of(Verb.TAKE_OFF, a), measure, Law.BEFORE_IT_HIDES, a, "it is open");
                web.arrow(
                        measure,
                        Operation.of(Verb.FIT, a),
                        Law.BEFORE_IT_HIDES,
                        look.code(),
                        "%s is measured before it hides".formatted(look.name()));
            });
            look.on().forEach(a -> {
                web.arrow(Operation.of(Verb.FIT, a), measure, Law.BEFORE_IT_HIDES, a, "it is measured once it sits");
                book.jointsOf(a)
                        .forEach(j ->
                                web.arrow(last(j), measure, Law.BEFORE_IT_HIDES, a, "it is measured once it is tight"));
            });
            if (look.kind() == Look.Kind.COUNT) {
                look.loop().ifPresent(l -> {
                    web.rather(Operation.of(Verb.LOOP_OFF, l), measure);
                    web.rather(Operation.of(Verb.COMPARE, l), measure);
                    web.arrow(measure, Operation.of(Verb.LAY, l), Law.FOUND_AND_HELD, l, "it serves laying");
                });
            } else if (look.kind() == Look.Kind.WINDOW) {
                timing.window(look, measure);
            }
        }
    }

    private void orderOfTheEnd() {
        for (Fluid f : book.fluids()) {
            Operation fill = Operation.of(Verb.FILL, f.code());
            web.arrow(Operation.of(Verb.DRAIN, f.code()), fill, Law.FLUIDS, f.code(), "what ran out runs in");
            for (Assembly a : book.assemblies()) {
                if (a.letsOut().contains(f.code())) {
                    web.arrow(Operation.of(Verb.FIT, a.code()), fill, Law.FLUIDS, a.code(), "it would run out again");
                    book.jointsOf(a.code())
                            .forEach(j -> web.arrow(last(j), fill, Law.FLUIDS, a.code(), "it would run out again"));
                }
            }
            web.arrow(fill, START, Law.START, f.code(), "it needs %s".formatted(f.name()));
        }
        Set<Verb> after = Set.of(Verb.CLOSE, Verb.START, Verb.CHECK, Verb.LABEL);
        List<Operation> all = List.copyOf(web.all());
        for (Operation o : all) {
            if (o.verb() == Verb.FILL) {
                web.rather(o, CLOSE);
            } else if (!after.contains(o.verb())) {
                web.arrow(o, CLOSE, Law.START, o.thing(), "all is closed before it comes down");
            }
            if (handsIn(o)) {
                web.arrow(BATTERY, o, Law.UNDER_IT, o.thing(), "the battery is off before hands are in");
            }
            boolean below = o.verb() == Verb.DRAIN
                    || (handsIn(o)
                            && book.assembly(o.thing()).filter(Assembly::under).isPresent());
            if (below) {
                web.arrow(RAISE, o, Law.UNDER_IT, o.thing(), "it stands before anyone is under it");
            }
        }
        web.rather(BATTERY, RAISE);
        web.arrow(CLOSE, START, Law.START, "car", "the battery is on");
        web.arrow(START, CHECK, Law.DONE, "engine", "checked once it has run");
        web.arrow(CHECK, LABEL, Law.DONE, "car", "nothing is signed before the check");
    }

    private static boolean handsIn(Operation o) {
        return switch (o.verb()) {
            case UNDO,
                    TAKE_OFF,
                    FIT,
                    TIGHTEN,
                    FOR_NOW,
                    RELEASE,
                    LOOP_OFF,
                    LAY,
                    TENSION,
                    SET_IN,
                    OUT,
                    TURN,
                    BRING,
                    BACK,
                    CREEP,
                    COVER,
                    REPAIR,
                    SEARCH,
                    MARK -> true;
            default -> false;
        };
    }

    private void ownOrders() {
        for (OwnOrder own : book.build().orders()) {
            matching(own.first())
                    .forEach(first -> matching(own.then())
                            .forEach(then ->
                                    web.arrow(first, then, Law.CLOSED, own.first(), "because " + own.because())));
        }
    }

    private Collection<Operation> matching(String sign) {
        return web.all().stream()
                .filter(o -> o.code().equals(sign) || (o.verb().sign() + ":" + o.thing()).equals(sign))
                .toList();
    }

    private static Operation last(Joint j) {
        return Operation.tighten(j.code(), j.stages().size());
    }

    private String name(String thing) {
        return book.assembly(thing)
                .map(Assembly::name)
                .or(() -> book.loop(thing).map(l -> l.name()))
                .or(() -> book.fluid(thing).map(Fluid::name))
                .orElse(thing);
    }
}
