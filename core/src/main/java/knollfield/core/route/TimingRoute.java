package knollfield.core.route;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Shaft;
import knollfield.core.engine.build.Turner;
import knollfield.core.engine.build.Wheel;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;

/** Loops off and on, what holds them, the crank's ways from position to position, and the proof. */
final class TimingRoute {

    private static final Operation TURN = Operation.of(Verb.TURN, "engine");

    private final Scope scope;
    private final Web web;
    private final Anatomy book;

    /** Loops of this job, the outer before the inner. */
    private final List<Loop> loops;

    private final List<String> positions;
    /** The crank brought to each position while things come off, in order. */
    private final List<Operation> opening = new ArrayList<>();
    /** And while they go on: at the same index as its position. */
    private final List<Operation> closing = new ArrayList<>();
    /** And for the proof. */
    private final List<Operation> proving = new ArrayList<>();

    private final Map<String, Integer> brought = new HashMap<>();
    private final FromScratch scratch;

    TimingRoute(Scope scope, Web web) {
        this.scope = scope;
        this.web = web;
        this.book = scope.book;
        this.loops = scope.toProve().stream()
                .map(l -> book.loop(l).orElseThrow())
                .sorted(Comparator.comparingInt(this::loopsInFront).thenComparing(l -> !clearsEverywhere(l)))
                .toList();
        this.positions = loops.stream()
                .filter(l -> !scope.held.contains(l.code()))
                .map(Loop::position)
                .distinct()
                .toList();
        this.scratch = new FromScratch(scope, web, loops);
    }

    private int loopsInFront(Loop loop) {
        return (int) book.inFrontOf(loop.code()).stream()
                .filter(c -> book.loop(c).isPresent())
                .count();
    }

    /** Off, its shafts let the crank go wherever it must. */
    private boolean clearsEverywhere(Loop loop) {
        return loop.shafts().stream()
                .flatMap(c -> book.shaft(c).stream())
                .allMatch(x -> x.role() == Shaft.Role.CRANK || x.freeAnywhere());
    }

    // --- what there is to do

    void operations() {
        if (loops.isEmpty()) {
            return;
        }
        positions.forEach(p -> opening.add(isLostAt(p) ? nowhere(p) : bring(p, Stretch.MARKS)));
        scratch.operations(this::bring);
        for (Loop loop : loops) {
            if (scope.held.contains(loop.code())) {
                heldLoop(loop);
            } else if (scratch.is(loop)) {
                openedLoop(loop);
            } else {
                found(loop);
                if (scope.opened.contains(loop.code())) {
                    openedLoop(loop);
                }
            }
        }
        holders();
        positions.forEach(p -> closing.add(Operation.of(Verb.BRING, "")));
        for (int i = positions.size() - 1; i >= 0; i--) {
            boolean last = i == positions.size() - 1;
            String p = positions.get(i);
            Optional<Operation> parked =
                    scratch.parking().filter(o -> last && o.thing().equals(p));
            boolean stays = !scratch.any() || (scratch.parking().isEmpty() && !isLostAt(p));
            if (last && stays) {
                closing.set(i, opening.get(i));
            } else if (parked.isPresent()) {
                closing.set(i, parked.get());
            } else {
                closing.set(i, bring(p, scratch.isAt(p) ? Stretch.SCRATCH : Stretch.LAY));
            }
        }
        web.add(TURN, Stretch.TURN);
        for (int i = 0; i < positions.size(); i++) {
            proving.add(i == 0 ? TURN : bring(positions.get(i), Stretch.PROVE));
        }
        for (Loop loop : loops) {
            provedLoop(loop);
        }
        turner();
    }

    /** Every loop of a position was found out of time: nothing can be found there before they come off. */
    private boolean isLostAt(String position) {
        return loops.stream()
                .filter(l -> l.position().equals(position) && !scope.held.contains(l.code()))
                .allMatch(scratch::is);
    }

    /** The crank is not brought there, or was, and it said nothing. */
    private Operation nowhere(String position) {
        brought.merge(position, 1, Integer::sum);
        return Operation.of(Verb.BRING, "");
    }

    private Operation bring(String position, Stretch stretch) {
        Operation o = Operation.of(Verb.BRING, position, brought.merge(position, 1, Integer::sum));
        web.add(o, stretch);
        return o;
    }

    private void found(Loop loop) {
        for (Reference r : references(loop)) {
            if (!r.trustedBefore()) {
                continue;
            }
            if (r.own()) {
                web.add(Operation.of(Verb.MARK, r.code()), Stretch.MARKS);
            } else if (r.hardware().isEmpty()) {
                web.add(Operation.of(Verb.FIND, r.code()), Stretch.MARKS);
            }
        }
        for (Hardware h : hardware(loop)) {
            web.add(Operation.of(Verb.SET_IN, h.code()), Stretch.MARKS);
            web.add(Operation.of(Verb.OUT, h.code()), Stretch.TENSION);
        }
    }

    /** Timing hardware of a loop on this card; a loop that stays on only needs what slides in. */
    private List<Hardware> hardware(Loop loop) {
        return scope.hardwareOf(loop.code()).stream()
                .filter(h -> h.inBefore() != Hardware.InBefore.JOINT)
                .filter(h -> scope.opened.contains(loop.code()) || h.slidesIn())
                .toList();
    }

    private List<Reference> references(Loop loop) {
        return book.references().stream()
                .filter(r -> r.loops().contains(loop.code()))
                .toList();
    }

    private void openedLoop(Loop loop) {
        String code = loop.code();
        if (!scope.newPart(code)) {
            web.add(Operation.of(Verb.MARK, code), Stretch.MARKS);
        }
        if (loop.letOff() != Loop.LetOff.TENSIONER_OFF) {
            web.add(Operation.of(Verb.RELEASE, code), Stretch.RELEASE);
        }
        if (tensionerStays(loop)) {
            pin(loop).ifPresent(p -> web.add(Operation.of(Verb.SET_IN, p), Stretch.RELEASE));
        }
        web.add(Operation.of(Verb.LOOP_OFF, code), Stretch.RELEASE);
        if (oldGoesBack(loop)) {
            pin(loop).ifPresent(p -> web.add(Operation.of(Verb.SET_IN, p), Stretch.COMPARE));
        }
        web.add(Operation.of(scope.newPart(code) ? Verb.COMPARE : Verb.LOOK, code), Stretch.COMPARE);
        web.add(Operation.of(Verb.LAY, code), Stretch.LAY);
        references(loop).stream()
                .filter(r -> r.trust() == Reference.Trust.LAYING_ONLY)
                .forEach(r -> web.add(Operation.of(Verb.LOOK, r.code()), Stretch.LAY));
        web.add(letGo(loop), Stretch.TENSION);
    }

    private boolean tensionerStays(Loop loop) {
        return loop.tensioner().filter(t -> !scope.off.contains(t.part())).isPresent();
    }

    /** The old tensioner comes off and goes on again, so that it is pressed back and pinned in between. */
    private boolean oldGoesBack(Loop loop) {
        return loop.tensioner()
                .filter(t -> scope.off.contains(t.part()) && !scope.newPart(t.part()))
                .isPresent();
    }

    private static Optional<String> pin(Loop loop) {
        return loop.tensioner().flatMap(Loop.Tensioner::pin);
    }

    /** What puts the tension in. */
    private static Operation letGo(Loop loop) {
        return loop.tensioner()
                .filter(t -> t.letGo() == Loop.LetGo.PIN_PULLED)
                .flatMap(Loop.Tensioner::pin)
                .map(p -> Operation.of(Verb.OUT, p))
                .orElse(Operation.of(Verb.TENSION, loop.code()));
    }

    private static boolean setAgain(Loop loop) {
        return loop.tensioner().filter(Loop.Tensioner::setAgain).isPresent();
    }

    private void heldLoop(Loop loop) {
        references(loop).stream()
                .filter(r -> r.trust() == Reference.Trust.WHILE_HELD)
                .forEach(r -> {
                    web.add(Operation.of(Verb.MARK, r.code()), Stretch.MARKS);
                    web.add(Operation.of(Verb.PROVE, r.code()), Stretch.TENSION);
                });
        for (Hardware h : scope.hardwareOf(loop.code())) {
            web.add(Operation.of(Verb.SET_IN, h.code()), Stretch.MARKS);
            web.add(Operation.of(Verb.OUT, h.code()), Stretch.TENSION);
        }
        web.add(letGo(loop), Stretch.TENSION);
    }

    /** What holds against a joint: in for undoing, out for what it would hold in place, in again for doing up. */
    private void holders() {
        for (Hardware h : book.hardware()) {
            if (users(h).isEmpty()) {
                continue;
            }
            web.add(Operation.of(Verb.SET_IN, h.code()), Stretch.RELEASE);
            web.add(Operation.of(Verb.OUT, h.code()), twice(h) ? Stretch.RELEASE : Stretch.TENSION);
            if (twice(h)) {
                web.add(Operation.of(Verb.SET_IN, h.code(), 2), Stretch.FIT);
                web.add(Operation.of(Verb.OUT, h.code(), 2), Stretch.TENSION);
            }
        }
    }

    /** Joints of this card that {@code h} holds against; the first holder of a joint is the one used. */
    private List<Joint> users(Hardware h) {
        return scope.undone.stream()
                .map(j -> book.joint(j).orElseThrow())
                .filter(j -> j.heldBy() == Joint.HeldBy.HARDWARE
                        && j.holders().stream()
                                .findFirst()
                                .filter(h.code()::equals)
                                .isPresent())
                .toList();
    }

    private boolean twice(Hardware h) {
        return h.holds().stream().anyMatch(scope.off::contains) || (scratch.any() && h.stopsTurning());
    }

    private void provedLoop(Loop loop) {
        if (scope.held.contains(loop.code())) {
            windows(loop);
            return;
        }
        if (setAgain(loop) && scope.opened.contains(loop.code())) {
            web.add(Operation.of(Verb.TENSION, loop.code(), 2), Stretch.TURN);
        }
        for (Reference r : provers(loop)) {
            r.hardware().ifPresent(h -> {
                web.add(Operation.of(Verb.SET_IN, h, 2), Stretch.PROVE);
                web.add(Operation.of(Verb.OUT, h, 2), Stretch.PROVE);
            });
            web.add(Operation.of(Verb.PROVE, r.code()), Stretch.PROVE);
        }
        if (scope.opened.contains(loop.code())) {
            windows(loop);
        }
        for (Reference r : provers(loop)) {
            for (String on : r.on()) {
                if (scope.off.contains(on) && mustComeOffAgain(on)) {
                    web.add(Operation.of(Verb.FOR_NOW, on), Stretch.LAY);
                }
            }
        }
    }

    private void windows(Loop loop) {
        loop.windows().forEach(w -> web.add(Operation.of(Verb.MEASURE, w), Stretch.PROVE));
    }

    /** References that prove a loop after the turns. */
    private List<Reference> provers(Loop loop) {
        return references(loop).stream()
                .filter(Reference::trustedAfter)
                .filter(r ->
                        !(scratch.is(loop) && r.own()) || scratch.ownMarks(loop).contains(r))
                .filter(r -> r.hardware()
                        .flatMap(book::hardware)
                        .map(Hardware::expectedBack)
                        .orElse(true))
                .toList();
    }

    /** A part that a reference is read against hides what is done after the turns. */
    private boolean mustComeOffAgain(String part) {
        return book.hiddenBehind(part).stream()
                .anyMatch(j -> scope.undone.contains(j.code())
                        && j.stages().stream().anyMatch(s -> s.from().compareTo(Joint.Moment.TURNED) >= 0));
    }

    private Optional<Turner> turner() {
        Comparator<Turner> best = Comparator.comparingInt(this::effort);
        Optional<Turner> chosen = book.turners().stream().min(best);
        chosen.filter(t -> t.kind() == Turner.Kind.OLD_BOLT
                        && t.thing().filter(scope.off::contains).isPresent())
                .ifPresent(t -> {
                    web.add(Operation.of(Verb.FOR_NOW, t.code()), Stretch.OPEN);
                    web.add(Operation.of(Verb.TAKE_OFF, t.code()), Stretch.CLOSE);
                });
        return chosen;
    }

    private int effort(Turner t) {
        String thing = t.thing().orElse("");
        return switch (t.kind()) {
            case STAYS -> 0;
            case ASSEMBLY -> scope.off.contains(thing) ? 5 : 1;
            case JOINT -> scope.undone.contains(thing) ? 4 : 2;
            case OLD_BOLT -> scope.off.contains(thing) ? 3 : 9;
        };
    }

    // --- what comes before what

    void arrows() {
        if (loops.isEmpty()) {
            return;
        }
        for (int i = 1; i < positions.size(); i++) {
            web.arrow(opening.get(i - 1), opening.get(i), Law.FOUND_AND_HELD, positions.get(i), "bank by bank");
            web.arrow(closing.get(i), closing.get(i - 1), Law.FOUND_AND_HELD, positions.get(i), "the inner one first");
            web.arrow(proving.get(i - 1), proving.get(i), Law.PROVEN, positions.get(i), "bank by bank");
        }
        if (!positions.isEmpty()) {
            web.arrow(closing.get(0), TURN, Law.PROVEN, positions.get(0), "turned from there");
        }
        scratch.arrows(opening, closing);
        for (Loop loop : loops) {
            if (scope.held.contains(loop.code())) {
                heldArrows(loop);
            } else {
                openingArrows(loop);
                closingArrows(loop);
            }
            provingArrows(loop);
        }
        holderArrows();
        turnerArrows();
        beforeTheTurns();
    }

    private int at(Loop loop) {
        return positions.indexOf(loop.position());
    }

    /** Bound to the crank's stay at the loop's position while things come off. */
    private void whileOpening(Loop loop, Operation o) {
        if (scratch.is(loop)) {
            web.arrow(FromScratch.found(loop), o, Law.FOUND_AND_HELD, loop.code(), "it is out of time");
            return;
        }
        int i = at(loop);
        web.arrow(opening.get(i), o, Law.FOUND_AND_HELD, loop.position(), "the crank stands at " + position(loop));
        if (i + 1 < opening.size()) {
            web.arrow(o, opening.get(i + 1), Law.MOVEMENTS, loop.code(), "done before the crank goes on");
        }
    }

    private void whileClosing(Loop loop, Operation o) {
        int i = at(loop);
        web.arrow(closing.get(i), o, Law.FOUND_AND_HELD, loop.position(), "the crank stands at " + position(loop));
        web.arrow(o, i > 0 ? closing.get(i - 1) : TURN, Law.MOVEMENTS, loop.code(), "done before the crank moves");
    }

    private String position(Loop loop) {
        return book.position(loop.position()).orElseThrow().name();
    }

    /** What lets the tension of a loop off: everything found and held comes before it. */
    private List<Operation> lettingOff(Loop loop) {
        List<Operation> all = new ArrayList<>();
        all.add(Operation.of(Verb.RELEASE, loop.code()));
        all.add(Operation.of(Verb.LOOP_OFF, loop.code()));
        loop.slackenFirst().forEach(j -> all.add(Operation.of(Verb.UNDO, j)));
        loop.tensioner()
                .ifPresent(t -> book.jointsOf(t.part()).forEach(j -> all.add(Operation.of(Verb.UNDO, j.code()))));
        loop.tensioner().ifPresent(t -> all.add(Operation.of(Verb.TAKE_OFF, t.part())));
        book.wheels().stream()
                .filter(w -> loop.shafts().contains(w.shaft()) && w.fit() != Wheel.Fit.KEYED)
                .flatMap(w -> w.joint().stream())
                .forEach(j -> all.add(Operation.of(Verb.UNDO, j)));
        // parts it runs over, however they come off
        loop.wheels().forEach(w -> {
            all.add(Operation.of(Verb.TAKE_OFF, w));
            if (book.assembly(w).filter(a -> a.kind() != Assembly.Kind.WHEEL).isPresent()) {
                book.jointsOf(w).forEach(j -> all.add(Operation.of(Verb.UNDO, j.code())));
            }
        });
        return all.stream().filter(web::has).distinct().toList();
    }

    /** What lets the tension itself go. */
    private List<Operation> slackening(Loop loop) {
        if (loop.letOff() != Loop.LetOff.TENSIONER_OFF) {
            return List.of(Operation.of(Verb.RELEASE, loop.code()));
        }
        return loop.tensioner().stream()
                .flatMap(t -> book.jointsOf(t.part()).isEmpty()
                        ? Stream.of(Operation.of(Verb.TAKE_OFF, t.part()))
                        : book.jointsOf(t.part()).stream().map(j -> Operation.of(Verb.UNDO, j.code())))
                .toList();
    }

    private void openingArrows(Loop loop) {
        String code = loop.code();
        List<Operation> lettingOff = lettingOff(loop);
        lettingOff.forEach(o -> {
            if (loop.wheels().contains(o.thing())) {
                web.arrow(
                        opening.get(at(loop)),
                        o,
                        Law.FOUND_AND_HELD,
                        loop.position(),
                        "the crank stands at " + position(loop));
            } else {
                whileOpening(loop, o);
            }
        });
        for (Reference r : references(loop)) {
            Operation found = Operation.of(r.own() ? Verb.MARK : Verb.FIND, r.code());
            if (!web.has(found)) {
                continue;
            }
            whileOpening(loop, found);
            readable(r, found);
            r.on().forEach(on -> {
                // whatever can be read while it is on is read with it: true at once
                references(loop).stream()
                        .filter(x -> x.off().stream()
                                .noneMatch(
                                        a -> a.equals(on) || book.inFrontOf(a).contains(on)))
                        .map(x -> Operation.of(x.own() ? Verb.MARK : Verb.FIND, x.code()))
                        .forEach(x -> {
                            web.rather(x, Operation.of(Verb.TAKE_OFF, on));
                            book.jointsOf(on).forEach(j -> web.rather(x, Operation.of(Verb.UNDO, j.code())));
                        });
                web.arrow(
                        found,
                        Operation.of(Verb.TAKE_OFF, on),
                        Law.FOUND_AND_HELD,
                        r.code(),
                        "%s is read against it".formatted(r.name()));
            });
            lettingOff.forEach(
                    o -> web.arrow(found, o, Law.FOUND_AND_HELD, r.code(), "%s is found first".formatted(r.name())));
        }
        Operation mark = Operation.of(Verb.MARK, code);
        if (web.has(mark)) {
            web.rather(opening.get(at(loop)), mark);
            book.before(code).stream()
                    .filter(this::isCover)
                    .filter(b -> !loop.wheels().contains(b))
                    .filter(b -> lettingOff.stream().noneMatch(o -> o.thing().equals(b)))
                    .forEach(b -> web.arrow(Operation.of(Verb.TAKE_OFF, b), mark, Law.REACH, b, "it lies open"));
            lettingOff.stream()
                    .filter(o ->
                            o.verb() != Verb.UNDO || book.madeFastBy(o.thing()).isEmpty())
                    .forEach(o -> web.arrow(mark, o, Law.HELD_LOOPS, code, "it goes back: marked for its direction"));
        }
        for (Hardware h : hardware(loop)) {
            Operation in = Operation.of(Verb.SET_IN, h.code());
            if (!web.has(in) || scratch.waits(h)) {
                continue;
            }
            whileOpening(loop, in);
            h.off()
                    .forEach(a -> web.arrow(
                            Operation.of(Verb.TAKE_OFF, a),
                            in,
                            Law.REACH,
                            a,
                            "%s is reached then".formatted(h.name())));
            // what holds goes in once all is found
            if (!h.slidesIn()) {
                references(loop).forEach(r -> web.rather(Operation.of(r.own() ? Verb.MARK : Verb.FIND, r.code()), in));
            }
            lettingOff.forEach(
                    o -> web.arrow(in, o, Law.FOUND_AND_HELD, h.code(), "%s is in first".formatted(h.name())));
        }
        Operation release = Operation.of(Verb.RELEASE, code);
        Operation off = Operation.of(Verb.LOOP_OFF, code);
        loop.slackenFirst()
                .forEach(
                        j -> web.arrow(Operation.of(Verb.UNDO, j), release, Law.TENSIONER, j, "it is slackened first"));
        loop.tensioner().ifPresent(t -> {
            Operation tensioner = Operation.of(Verb.TAKE_OFF, t.part());
            web.arrow(release, tensioner, Law.TENSIONER, code, "the tension is let off first");
            book.jointsOf(t.part()).forEach(j -> {
                if (!loop.slackenFirst().contains(j.code())) {
                    web.arrow(
                            release,
                            Operation.of(Verb.UNDO, j.code()),
                            Law.TENSIONER,
                            code,
                            "the tension is let off first");
                }
                book.hiders(j.code()).stream()
                        .filter(this::isCover)
                        .forEach(h -> web.arrow(
                                Operation.of(Verb.TAKE_OFF, h), release, Law.REACH, h, "it hides the tensioner"));
            });
            if (loop.letOff() == Loop.LetOff.TENSIONER_OFF) {
                web.arrow(tensioner, off, Law.TENSIONER, code, "it lets the loop off by coming off");
            }
        });
        web.arrow(release, off, Law.TENSIONER, code, "a loop comes off only once it is let off");
        if (oldGoesBack(loop)) {
            pin(loop)
                    .ifPresent(p -> loop.tensioner().ifPresent(t -> {
                        web.arrow(
                                Operation.of(Verb.TAKE_OFF, t.part()),
                                Operation.of(Verb.SET_IN, p),
                                Law.TENSIONER,
                                p,
                                "pressed back in the vice, then pinned");
                        web.arrow(
                                Operation.of(Verb.SET_IN, p),
                                Operation.of(Verb.FIT, t.part()),
                                Law.TENSIONER,
                                p,
                                "it goes on fully back");
                    }));
        }
        if (tensionerStays(loop)) {
            pin(loop).ifPresent(p -> {
                web.arrow(release, Operation.of(Verb.SET_IN, p), Law.TENSIONER, p, "pressed back, then pinned");
                web.arrow(Operation.of(Verb.SET_IN, p), off, Law.TENSIONER, p, "the tensioner is pinned back first");
            });
        }
        loop.wheels().stream()
                .filter(w -> book.assembly(w)
                        .filter(x -> x.kind() != Assembly.Kind.WHEEL && x.kind() != Assembly.Kind.TENSIONER)
                        .isPresent())
                .flatMap(w -> book.jointsOf(w).stream())
                .filter(j -> !loop.slackenFirst().contains(j.code()))
                .forEach(j -> slackening(loop)
                        .forEach(o -> web.arrow(
                                o,
                                Operation.of(Verb.UNDO, j.code()),
                                Law.TENSIONER,
                                code,
                                "the tension is let off first")));
        loop.wheels()
                .forEach(w -> web.arrow(
                        release, Operation.of(Verb.TAKE_OFF, w), Law.TENSIONER, code, "the tension is let off first"));
        for (String b : book.inFrontOf(code)) {
            Operation away = book.loop(b).isPresent() ? Operation.of(Verb.LOOP_OFF, b) : Operation.of(Verb.TAKE_OFF, b);
            web.arrow(away, off, Law.REACH, b, "it lies before the loop");
        }
        Operation beside = Operation.of(Verb.COMPARE, code);
        Operation look = Operation.of(Verb.LOOK, code);
        web.arrow(off, beside, Law.DONE, code, "the old one is held beside it");
        web.arrow(off, look, Law.HELD_LOOPS, code, "it is looked at in the hand");
        web.arrow(beside, Operation.of(Verb.LAY, code), Law.DONE, code, "the new one is compared first");
        web.arrow(look, Operation.of(Verb.LAY, code), Law.HELD_LOOPS, code, "it is looked at first");
        web.arrow(off, Operation.of(Verb.LAY, code), Law.CLOSED, code, "off, then on");
    }

    /** Only covers keep one from letting the tension off; wheels and idlers do not. */
    private boolean isCover(String hider) {
        return book.assembly(hider)
                .filter(a -> a.kind() == Assembly.Kind.COVER
                        || a.kind() == Assembly.Kind.FRONT_COVER
                        || a.kind() == Assembly.Kind.ROCKER_COVER)
                .isPresent();
    }

    private void readable(Reference r, Operation read) {
        r.off()
                .forEach(a -> web.arrow(
                        Operation.of(Verb.TAKE_OFF, a), read, Law.REACH, a, "%s is read then".formatted(r.name())));
    }

    private void closingArrows(Loop loop) {
        if (!scope.opened.contains(loop.code())) {
            for (Hardware h : hardware(loop)) {
                out(loop, h);
            }
            return;
        }
        String code = loop.code();
        Operation lay = Operation.of(Verb.LAY, code);
        Operation letGo = letGo(loop);
        whileClosing(loop, lay);
        whileClosing(loop, letGo);
        fastBeforeTheCrankMoves(loop);
        web.arrow(lay, letGo, Law.TENSIONER, code, "the loop is on first");
        for (Loop inner : book.loops()) {
            if (book.inFrontOf(inner.code()).contains(code)) {
                web.arrow(Operation.of(Verb.LAY, inner.code()), lay, Law.REACH, inner.code(), "the inner one first");
            }
        }
        for (String front : book.inFrontOf(code)) {
            web.arrow(lay, Operation.of(Verb.FIT, front), Law.REACH, code, "the loop lies behind it");
            web.arrow(lay, Operation.of(Verb.FOR_NOW, front), Law.REACH, code, "the loop lies behind it");
        }
        loop.wheels()
                .forEach(w -> web.arrow(
                        Operation.of(Verb.FIT, w), letGo, Law.TENSIONER, w, "the loop runs over every wheel first"));
        loop.tensioner().ifPresent(t -> {
            web.arrow(Operation.of(Verb.FIT, t.part()), letGo, Law.TENSIONER, t.part(), "the tensioner is on first");
            if (t.letGo() != Loop.LetGo.SET) {
                book.jointsOf(t.part())
                        .forEach(j ->
                                web.arrow(last(j), letGo, Law.TENSIONER, j.code(), "it is tight before it is let go"));
            }
        });
        for (Reference r : references(loop)) {
            if (r.trust() == Reference.Trust.LAYING_ONLY) {
                Operation look = Operation.of(Verb.LOOK, r.code());
                web.arrow(lay, look, Law.FOUND_AND_HELD, r.code(), "it meets when the loop is laid");
                web.arrow(look, letGo, Law.FOUND_AND_HELD, r.code(), "read before the tensioner is let go");
            }
        }
        Operation again = Operation.of(Verb.TENSION, code, 2);
        web.arrow(TURN, again, Law.TENSIONER, code, "the book sets it once more after the turns");
        for (Hardware h : hardware(loop)) {
            web.arrow(
                    Operation.of(Verb.SET_IN, h.code()),
                    lay,
                    Law.FOUND_AND_HELD,
                    h.code(),
                    "it is in while the loop is laid");
            out(loop, h);
        }
    }

    private void fastBeforeTheCrankMoves(Loop loop) {
        int i = at(loop);
        if (i == 0) {
            return;
        }
        Stream<Joint> wheels = book.wheels().stream()
                .filter(w -> w.fit() != Wheel.Fit.KEYED && loop.shafts().contains(w.shaft()))
                .flatMap(w -> w.joint().stream())
                .flatMap(j -> book.joint(j).stream());
        Stream<Joint> tensioner = loop.tensioner().stream().flatMap(t -> book.jointsOf(t.part()).stream());
        Stream.concat(wheels, tensioner)
                .forEach(j -> stagesBeforeTurns(j)
                        .forEach(s -> web.arrow(
                                s, closing.get(i - 1), Law.MOVEMENTS, j.code(), "fast before the crank moves")));
    }

    private void out(Loop loop, Hardware h) {
        Operation out = Operation.of(Verb.OUT, h.code());
        web.arrow(Operation.of(Verb.SET_IN, h.code()), out, Law.IN_IS_OUT, h.code(), "what is in comes out");
        web.arrow(
                Operation.of(Verb.LAY, loop.code()),
                out,
                Law.FOUND_AND_HELD,
                h.code(),
                "it holds while the loop is laid");
        boolean moves = h.holds().stream()
                .flatMap(c -> book.shaft(c).stream())
                .anyMatch(c -> c.whenFree() != Shaft.WhenFree.STAYS);
        if (moves) {
            web.arrow(letGo(loop), out, Law.FOUND_AND_HELD, h.code(), "it holds until the tension is in");
        } else {
            web.rather(letGo(loop), out);
        }
        loop.tensioner()
                .filter(t -> t.letGo() == Loop.LetGo.SET)
                .ifPresent(t -> book.jointsOf(t.part())
                        .forEach(j -> stagesBeforeTurns(j).forEach(s -> web.rather(s, out))));
        for (String code : scope.undone) {
            Joint j = book.joint(code).orElseThrow();
            boolean needs = j.pinned().contains(h.code())
                    || book.madeFastBy(code).stream().anyMatch(w -> h.holds().contains(w.shaft()));
            if (needs) {
                stagesBeforeTurns(j)
                        .forEach(s -> web.arrow(
                                s,
                                out,
                                Law.HELD_AGAINST,
                                j.code(),
                                "%s is made fast while it holds".formatted(j.name())));
                web.arrow(
                        Operation.of(Verb.SET_IN, h.code()),
                        scratch.waits(h) ? Operation.tighten(code, 1) : Operation.of(Verb.UNDO, code),
                        Law.HELD_AGAINST,
                        h.code(),
                        "%s is undone and made fast only while it is timed".formatted(j.name()));
            }
        }
        int i = at(loop);
        web.arrow(out, i > 0 ? closing.get(i - 1) : TURN, Law.IN_IS_OUT, h.code(), "everything is out before it turns");
        backOn(h, out);
    }

    /** What was off to reach hardware goes back once the hardware is out for good. */
    private void backOn(Hardware h, Operation out) {
        h.off()
                .forEach(a -> web.arrow(
                        out, Operation.of(Verb.FIT, a), Law.REACH, h.code(), "%s is out first".formatted(h.name())));
    }

    private Stream<Operation> stagesBeforeTurns(Joint j) {
        return Stream.iterate(1, s -> s + 1)
                .limit(j.stages().size())
                .filter(s -> j.stages().get(s - 1).until().compareTo(Joint.Moment.TURNED) <= 0)
                .map(s -> Operation.tighten(j.code(), s));
    }

    private void heldArrows(Loop loop) {
        List<Operation> lettingOff = lettingOff(loop);
        Operation letGo = letGo(loop);
        List<Hardware> ties = scope.hardwareOf(loop.code());
        for (Reference r : references(loop)) {
            Operation mark = Operation.of(Verb.MARK, r.code());
            Operation prove = Operation.of(Verb.PROVE, r.code());
            readable(r, mark);
            lettingOff.forEach(
                    o -> web.arrow(mark, o, Law.HELD_LOOPS, r.code(), "own marks before anything is let off"));
            web.arrow(letGo, prove, Law.HELD_LOOPS, r.code(), "read once the tension is in");
            ties.forEach(h -> web.arrow(
                    prove,
                    Operation.of(Verb.OUT, h.code()),
                    Law.HELD_LOOPS,
                    r.code(),
                    "read before the ties come off"));
            r.off()
                    .forEach(a -> web.arrow(
                            prove, Operation.of(Verb.FIT, a), Law.BEFORE_IT_HIDES, r.code(), "read before it hides"));
        }
        for (Hardware h : ties) {
            Operation in = Operation.of(Verb.SET_IN, h.code());
            Operation out = Operation.of(Verb.OUT, h.code());
            h.off().forEach(a -> web.arrow(Operation.of(Verb.TAKE_OFF, a), in, Law.REACH, a, "it is reached then"));
            lettingOff.forEach(o -> web.arrow(in, o, Law.HELD_LOOPS, h.code(), "the loop is held on its wheels first"));
            web.arrow(letGo, out, Law.HELD_LOOPS, h.code(), "it holds until the tension is in");
            web.arrow(out, TURN, Law.IN_IS_OUT, h.code(), "everything is out before it turns");
            backOn(h, out);
        }
        loop.tensioner().ifPresent(t -> {
            web.arrow(Operation.of(Verb.FIT, t.part()), letGo, Law.TENSIONER, t.part(), "the tensioner is on first");
            book.jointsOf(t.part())
                    .forEach(
                            j -> web.arrow(last(j), letGo, Law.TENSIONER, j.code(), "it is tight before it is let go"));
        });
        web.arrow(letGo, TURN, Law.MOVEMENTS, loop.code(), "it has its tension before it turns");
    }

    private void provingArrows(Loop loop) {
        Operation again = Operation.of(Verb.TENSION, loop.code(), 2);
        boolean held = scope.held.contains(loop.code());
        if (!held) {
            int i = at(loop);
            Operation there = proving.get(i);
            for (Reference r : provers(loop)) {
                Operation prove = Operation.of(Verb.PROVE, r.code());
                web.arrow(there, prove, Law.PROVEN, r.code(), "two turns come first");
                web.arrow(again, prove, Law.PROVEN, loop.code(), "read once more after the second setting");
                secondStages(loop).forEach(s -> web.arrow(s, prove, Law.PROVEN, loop.code(), "tight, then read"));
                if (i + 1 < proving.size()) {
                    web.arrow(prove, proving.get(i + 1), Law.PROVEN, r.code(), "read before the crank goes on");
                }
                r.off()
                        .forEach(a -> web.arrow(
                                prove,
                                Operation.of(Verb.FIT, a),
                                Law.BEFORE_IT_HIDES,
                                r.code(),
                                "%s is read before it hides".formatted(r.name())));
                r.on().forEach(on -> standing(on).forEach(o -> {
                    web.rather(o, TURN);
                    if (o.verb() != Verb.TIGHTEN) {
                        web.arrow(o, prove, Law.PROVEN, r.code(), "%s is read against it".formatted(r.name()));
                    }
                }));
                r.hardware().flatMap(book::hardware).ifPresent(h -> {
                    Operation in = Operation.of(Verb.SET_IN, h.code(), 2);
                    Operation out = Operation.of(Verb.OUT, h.code(), 2);
                    web.arrow(there, in, Law.PROVEN, h.code(), "it goes in again after the turns");
                    web.rather(again, in);
                    secondStages(loop).forEach(s -> web.rather(s, in));
                    web.arrow(
                            Operation.of(Verb.OUT, h.code()),
                            in,
                            Law.IN_IS_OUT,
                            h.code(),
                            "out before it goes in again");
                    loops.stream()
                            .filter(l -> l.position().equals(loop.position()))
                            .flatMap(l -> provers(l).stream())
                            .map(x -> Operation.of(Verb.PROVE, x.code()))
                            .forEach(x -> {
                                // true at once: all in, then all read, then all out
                                web.rather(in, x);
                                web.rather(x, out);
                            });
                    web.arrow(in, prove, Law.PROVEN, h.code(), "it proves by being in");
                    web.arrow(prove, out, Law.IN_IS_OUT, h.code(), "what is in comes out");
                    if (i + 1 < proving.size()) {
                        web.arrow(out, proving.get(i + 1), Law.IN_IS_OUT, h.code(), "out before the crank goes on");
                    }
                    backOn(h, out);
                });
            }
        }
    }

    /** Stages that belong to the second setting. */
    private Stream<Operation> secondStages(Loop loop) {
        return loop.tensioner().stream()
                .flatMap(t -> book.jointsOf(t.part()).stream())
                .flatMap(j -> Stream.iterate(1, s -> s + 1)
                        .limit(j.stages().size())
                        .filter(s -> j.stages().get(s - 1).from() == Joint.Moment.SET_AGAIN)
                        .map(s -> Operation.tighten(j.code(), s)));
    }

    /** What makes a part stand so that something is read against it: for now, or for good. */
    private List<Operation> standing(String part) {
        Operation forNow = Operation.of(Verb.FOR_NOW, part);
        if (web.has(forNow)) {
            return List.of(forNow);
        }
        List<Operation> all = new ArrayList<>();
        all.add(Operation.of(Verb.FIT, part));
        book.jointsOf(part).forEach(j -> all.add(last(j)));
        return all;
    }

    private void holderArrows() {
        for (Hardware h : book.hardware()) {
            List<Joint> users = users(h);
            if (users.isEmpty()) {
                continue;
            }
            Operation in = Operation.of(Verb.SET_IN, h.code());
            Operation out = Operation.of(Verb.OUT, h.code());
            opening.forEach(b -> web.arrow(b, in, Law.MOVEMENTS, h.code(), "nothing is in while the crank moves"));
            h.off().forEach(a -> web.arrow(Operation.of(Verb.TAKE_OFF, a), in, Law.REACH, a, "it is reached then"));
            Operation inForTightening = twice(h) ? Operation.of(Verb.SET_IN, h.code(), 2) : in;
            Operation lastOut = twice(h) ? Operation.of(Verb.OUT, h.code(), 2) : out;
            for (Joint j : users) {
                Operation undo = Operation.of(Verb.UNDO, j.code());
                web.arrow(in, undo, Law.HELD_AGAINST, h.code(), "%s holds against it".formatted(h.name()));
                web.arrow(undo, out, Law.HELD_AGAINST, h.code(), "it holds until the joint is undone");
                for (int s = 1; s <= j.stages().size(); s++) {
                    Operation tighten = Operation.tighten(j.code(), s);
                    web.arrow(
                            inForTightening,
                            tighten,
                            Law.HELD_AGAINST,
                            h.code(),
                            "%s holds against it".formatted(h.name()));
                    web.arrow(tighten, lastOut, Law.HELD_AGAINST, h.code(), "it holds until the joint is fast");
                }
            }
            if (twice(h)) {
                web.arrow(out, inForTightening, Law.IN_IS_OUT, h.code(), "out before it goes in again");
                scratch.moves(closing).forEach(m -> {
                    web.arrow(out, m, Law.MOVEMENTS, h.code(), "nothing is in while the crank moves");
                    web.arrow(m, inForTightening, Law.MOVEMENTS, h.code(), "nothing is in while the crank moves");
                });
                h.holds().forEach(w -> {
                    web.arrow(out, Operation.of(Verb.TAKE_OFF, w), Law.REACH, h.code(), "it holds the wheel in place");
                    web.arrow(Operation.of(Verb.FIT, w), inForTightening, Law.REACH, w, "the wheel is on first");
                });
            }
            web.arrow(lastOut, TURN, Law.IN_IS_OUT, h.code(), "everything is out before it turns");
            backOn(h, lastOut);
        }
    }

    private void turnerArrows() {
        Optional<Turner> chosen = book.turners().stream().min(Comparator.comparingInt(this::effort));
        if (chosen.isEmpty() || effort(chosen.get()) < 3) {
            return;
        }
        Turner t = chosen.get();
        String thing = t.thing().orElse("");
        List<Operation> moves = new ArrayList<>(opening);
        moves.addAll(closing);
        scratch.parking().ifPresent(moves::add);
        moves.addAll(proving);
        moves.add(TURN);
        switch (t.kind()) {
            case OLD_BOLT -> {
                Operation forNow = Operation.of(Verb.FOR_NOW, t.code());
                Operation away = Operation.of(Verb.TAKE_OFF, t.code());
                web.arrow(Operation.of(Verb.TAKE_OFF, thing), forNow, Law.FOR_NOW, t.code(), "its place is free then");
                moves.forEach(m -> {
                    web.arrow(forNow, m, Law.MOVEMENTS, t.code(), "the crank is turned by %s".formatted(t.name()));
                    web.arrow(m, away, Law.FOR_NOW, t.code(), "it stays in for turning");
                });
                web.arrow(away, Operation.of(Verb.FIT, thing), Law.FOR_NOW, t.code(), "its place is free then");
            }
            case JOINT -> {
                opening.forEach(m -> web.arrow(
                        m, Operation.of(Verb.UNDO, thing), Law.MOVEMENTS, t.code(), "the crank is turned by it"));
                web.arrow(Operation.tighten(thing, 1), TURN, Law.MOVEMENTS, t.code(), "the crank is turned by it");
                scratch.turnedBy(t, closing);
            }
            case ASSEMBLY -> {
                opening.forEach(m -> {
                    web.arrow(
                            m,
                            Operation.of(Verb.TAKE_OFF, thing),
                            Law.MOVEMENTS,
                            t.code(),
                            "the crank is turned by it");
                    book.jointsOf(thing)
                            .forEach(j -> web.arrow(
                                    m,
                                    Operation.of(Verb.UNDO, j.code()),
                                    Law.MOVEMENTS,
                                    t.code(),
                                    "the crank is turned by it"));
                });
                web.arrow(Operation.of(Verb.FIT, thing), TURN, Law.MOVEMENTS, t.code(), "the crank is turned by it");
            }
            case STAYS -> {
                // nothing to put in its place
            }
        }
    }

    /** What is on and fast before the engine is turned. */
    private void beforeTheTurns() {
        for (Assembly a : book.assemblies()) {
            if (a.onBeforeTurns()) {
                standing(a.code())
                        .forEach(o -> web.arrow(o, TURN, Law.MOVEMENTS, a.code(), "it is on before the turns"));
            }
            boolean wheel = a.kind() == Assembly.Kind.WHEEL;
            if (wheel) {
                web.arrow(Operation.of(Verb.FIT, a.code()), TURN, Law.MOVEMENTS, a.code(), "every wheel is on");
            }
        }
    }

    /** Spans of the work in which each stage of {@code j} has its place. */
    void moments(Joint j) {
        List<Loop> its = loops.stream()
                .filter(l -> j.loop().map(l.code()::equals).orElse(true))
                .toList();
        boolean fixedWheel = book.wheels().stream()
                .anyMatch(w -> w.fit() == Wheel.Fit.KEYED
                        && w.joint().filter(j.code()::equals).isPresent());
        for (int s = 1; s <= j.stages().size(); s++) {
            Joint.Stage stage = j.stages().get(s - 1);
            Operation tighten = Operation.tighten(j.code(), s);
            for (Loop loop : its) {
                Operation letGo = letGo(loop);
                switch (stage.from()) {
                    case LAID ->
                        web.arrow(
                                Operation.of(Verb.LAY, loop.code()),
                                tighten,
                                Law.CLOSED,
                                j.code(),
                                "once the loop is laid");
                    case TENSIONED -> web.arrow(letGo, tighten, Law.CLOSED, j.code(), "once the tension is in");
                    case TURNED -> {
                        web.arrow(TURN, tighten, Law.CLOSED, j.code(), "after the turns");
                        provers(loop).forEach(r -> {
                            Operation prove = Operation.of(Verb.PROVE, r.code());
                            if (fixedWheel) {
                                web.arrow(tighten, prove, Law.PROVEN, j.code(), "read after the wheel is tight");
                            } else {
                                web.arrow(prove, tighten, Law.CLOSED, j.code(), "after the turns");
                            }
                        });
                    }
                    case SET_AGAIN ->
                        web.arrow(
                                Operation.of(Verb.TENSION, loop.code(), 2),
                                tighten,
                                Law.CLOSED,
                                j.code(),
                                "once it is set again");
                    case FITTED, CLOSED -> {
                        // the part sits first
                    }
                    case RAN -> web.arrow(Router.START, tighten, Law.CLOSED, j.code(), "after the first run");
                }
                switch (stage.until()) {
                    case LAID ->
                        web.arrow(
                                tighten,
                                Operation.of(Verb.LAY, loop.code()),
                                Law.CLOSED,
                                j.code(),
                                "before the loop is laid");
                    case TENSIONED -> web.arrow(tighten, letGo, Law.CLOSED, j.code(), "before the tensioner is let go");
                    case TURNED ->
                        web.arrow(tighten, TURN, Law.MOVEMENTS, j.code(), "before the turns: %s".formatted(carries(j)));
                    case FITTED, SET_AGAIN, CLOSED, RAN -> {
                        if (fixedWheel && stage.from().compareTo(Joint.Moment.TURNED) < 0) {
                            // before the turns, so that they prove it and nothing is read twice
                            web.rather(tighten, TURN);
                            provers(loop)
                                    .forEach(r -> web.arrow(
                                            tighten,
                                            Operation.of(Verb.PROVE, r.code()),
                                            Law.PROVEN,
                                            j.code(),
                                            "read after the wheel is tight"));
                        }
                    }
                }
            }
            if (!book.madeFastBy(j.code()).isEmpty()) {
                web.arrow(tighten, TURN, Law.MOVEMENTS, j.code(), "every wheel is fast before it turns");
            }
        }
    }

    private String carries(Joint j) {
        return book.madeFastBy(j.code()).stream()
                .flatMap(w -> book.shaft(w.shaft()).stream())
                .findFirst()
                .map(Shaft::name)
                .map(n -> "this carries the " + n.toLowerCase(java.util.Locale.ROOT))
                .orElse("it is tight then");
    }

    /** A window is read after the last setting and the turns. */
    void window(Look look, Operation measure) {
        web.arrow(TURN, measure, Law.TENSIONER, look.code(), "after the turns");
        look.loop().ifPresent(l -> {
            web.arrow(
                    Operation.of(Verb.TENSION, l, 2), measure, Law.TENSIONER, look.code(), "after the second setting");
            book.loop(l)
                    .filter(x -> at(x) > 0)
                    .ifPresent(x -> web.arrow(proving.get(0), measure, Law.TENSIONER, look.code(), "after the turns"));
        });
    }

    private static Operation last(Joint j) {
        return Operation.tighten(j.code(), j.stages().size());
    }
}
