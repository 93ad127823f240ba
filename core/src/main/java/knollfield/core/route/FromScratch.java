package knollfield.core.route;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.stream.Stream;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Shaft;
import knollfield.core.engine.build.Turner;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;

/**
 * Loops found out of time: off without being found first, then the crank by feel to where their shafts are free, each shaft
 * to its mark, the crank to its own, and what can be read is read true before anything is laid.
 */
final class FromScratch {

    /** A reference found once the loop is off; before, it said nothing. */
    private static final int ANEW = 2;

    private final Scope scope;
    private final Web web;
    private final Anatomy book;
    private final List<Loop> lost;
    private Optional<Operation> parking = Optional.empty();

    FromScratch(Scope scope, Web web, List<Loop> loops) {
        this.scope = scope;
        this.web = web;
        this.book = scope.book;
        this.lost = loops.stream().filter(l -> scope.lost.contains(l.code())).toList();
    }

    static Operation found(Loop loop) {
        return Operation.of(Verb.LOST, loop.code());
    }

    boolean any() {
        return !lost.isEmpty();
    }

    boolean is(Loop loop) {
        return lost.contains(loop);
    }

    boolean isAt(String position) {
        return lost.stream().anyMatch(l -> l.position().equals(position));
    }

    /** All that moves the crank before the loops are laid. */
    List<Operation> moves(List<Operation> closing) {
        List<Operation> all = new ArrayList<>();
        if (any()) {
            parking.ifPresent(all::add);
            all.addAll(closing);
        }
        return all;
    }

    /** The bolt that turns the crank is undone: the old one goes in while the crank is moved, and out again. */
    void turnedBy(Turner turner, List<Operation> closing) {
        if (!any()) {
            return;
        }
        String joint = turner.thing().orElseThrow();
        Operation forNow = Operation.of(Verb.FOR_NOW, turner.code());
        Operation away = Operation.of(Verb.TAKE_OFF, turner.code());
        web.add(forNow, Stretch.SCRATCH);
        web.add(away, Stretch.SCRATCH);
        web.arrow(Operation.of(Verb.UNDO, joint), forNow, Law.FOR_NOW, turner.code(), "its place is free then");
        book.joint(joint).stream().flatMap(j -> j.holds().stream()).forEach(h -> {
            web.arrow(Operation.of(Verb.TAKE_OFF, h), forNow, Law.FOR_NOW, turner.code(), "its place is free then");
            web.arrow(away, Operation.of(Verb.FIT, h), Law.FOR_NOW, turner.code(), "its place is free then");
        });
        for (Operation m : moves(closing)) {
            web.arrow(forNow, m, Law.MOVEMENTS, turner.code(), "the crank is turned by it");
            web.arrow(m, away, Law.FOR_NOW, turner.code(), "it stays in for turning");
        }
        web.arrow(away, Operation.tighten(joint, 1), Law.FOR_NOW, turner.code(), "its place is free then");
    }

    /** It goes in only once a loop found out of time is set. */
    boolean waits(Hardware h) {
        return h.waitsForMarks() && lost.stream().anyMatch(l -> h.loops().contains(l.code()));
    }

    /** The crank brought to where the shafts are free, where the book names such a place. */
    Optional<Operation> parking() {
        return parking;
    }

    /** @param bring adds the crank's way to a position */
    void operations(BiFunction<String, Stretch, Operation> bring) {
        if (!any()) {
            return;
        }
        lost.forEach(l -> web.add(found(l), Stretch.MARKS));
        parking = freePosition().map(p -> bring.apply(p, Stretch.SCRATCH));
        shafts().forEach(s -> web.add(turn(s), Stretch.SCRATCH));
        for (Loop loop : lost) {
            references(loop).forEach(r -> web.add(find(r), Stretch.SCRATCH));
            ownMarks(loop).forEach(r -> web.add(mark(r), Stretch.SCRATCH));
            for (Hardware h : hardware(loop)) {
                web.add(Operation.of(Verb.SET_IN, h.code()), waits(h) ? Stretch.SCRATCH : Stretch.MARKS);
                web.add(Operation.of(Verb.OUT, h.code()), Stretch.TENSION);
            }
        }
    }

    /** Where all shafts are free, or as many as can be. */
    private Optional<String> freePosition() {
        List<Shaft> bound = shafts().stream()
                .filter(s -> !s.freeAnywhere() && !s.freeAt().isEmpty())
                .toList();
        return bound.stream()
                .flatMap(s -> s.freeAt().stream())
                .filter(p -> bound.stream().allMatch(s -> s.freeAt().contains(p)))
                .findFirst()
                .or(() -> bound.stream().flatMap(s -> s.freeAt().stream()).findFirst());
    }

    private List<Shaft> shafts() {
        return lost.stream()
                .flatMap(l -> l.shafts().stream())
                .distinct()
                .flatMap(s -> book.shaft(s).stream())
                .filter(s -> s.role() != Shaft.Role.CRANK)
                .toList();
    }

    private List<Hardware> hardware(Loop loop) {
        return scope.hardwareOf(loop.code()).stream()
                .filter(h -> h.inBefore() != Hardware.InBefore.JOINT)
                .toList();
    }

    /**
     * Own marks of a loop whose book has no reference of its own: made anew once every shaft stands where the manufacturer
     * puts it, they prove it after the turns.
     */
    List<Reference> ownMarks(Loop loop) {
        return readable(loop).findAny().isPresent()
                ? List.of()
                : book.references().stream()
                        .filter(r -> r.loops().contains(loop.code()) && r.own() && r.trustedAfter())
                        .toList();
    }

    /** What can be read with the loop off; what is read against a part before it is read after the turns. */
    private List<Reference> references(Loop loop) {
        return readable(loop).filter(r -> r.hardware().isEmpty()).toList();
    }

    private Stream<Reference> readable(Loop loop) {
        return book.references().stream()
                .filter(r -> r.loops().contains(loop.code()) && r.trustedBefore() && !r.own())
                .filter(r -> r.on().stream()
                        .allMatch(on ->
                                !scope.off.contains(on) || book.inFrontOf(on).contains(loop.code())));
    }

    private static Operation turn(Shaft shaft) {
        return Operation.of(Verb.TURN, shaft.code());
    }

    private static Operation find(Reference reference) {
        return Operation.of(Verb.FIND, reference.code(), ANEW);
    }

    private static Operation mark(Reference reference) {
        return Operation.of(Verb.MARK, reference.code(), ANEW);
    }

    /**
     * @param opening the crank's ways while things come off
     * @param closing and while they go on, the last position first
     */
    void arrows(List<Operation> opening, List<Operation> closing) {
        if (!any()) {
            return;
        }
        List<Operation> moves = new ArrayList<>();
        parking.ifPresent(moves::add);
        shafts().forEach(s -> moves.add(turn(s)));
        Operation first = closing.get(closing.size() - 1);
        for (Loop loop : lost) {
            opening.forEach(b -> web.arrow(b, found(loop), Law.MOVEMENTS, loop.code(), "nothing is turned after that"));
        }
        for (String code : scope.opened) {
            moves.forEach(m -> web.arrow(
                    Operation.of(Verb.LOOP_OFF, code), m, Law.MOVEMENTS, code, "the loops are off, then it is moved"));
            if (!opening.contains(first)) {
                web.arrow(Operation.of(Verb.LOOP_OFF, code), first, Law.MOVEMENTS, code, "the loops are off");
            }
        }
        for (Shaft s : shafts()) {
            parking.ifPresent(p -> web.arrow(p, turn(s), Law.MOVEMENTS, s.code(), "the crank stands where it is free"));
            if (parking.filter(first::equals).isEmpty() && !opening.contains(first)) {
                web.arrow(turn(s), first, Law.MOVEMENTS, s.code(), "each shaft at its mark, then the crank");
            }
            book.wheels().stream()
                    .filter(w -> w.shaft().equals(s.code()) && scope.off.contains(w.code()))
                    .filter(w ->
                            lost.stream().allMatch(l -> book.inFrontOf(w.code()).contains(l.code())))
                    .forEach(w -> web.arrow(
                            Operation.of(Verb.FIT, w.code()), turn(s), Law.REACH, w.code(), "its wheel sits first"));
        }
        for (Loop loop : lost) {
            set(loop, closing);
        }
    }

    private void set(Loop loop, List<Operation> closing) {
        Operation lay = Operation.of(Verb.LAY, loop.code());
        Operation there = closing.stream()
                .filter(b -> b.thing().equals(loop.position()))
                .findFirst()
                .orElseThrow();
        List<Operation> turns = shafts().stream()
                .filter(s -> loop.shafts().contains(s.code()))
                .map(FromScratch::turn)
                .toList();
        if (parking.filter(there::equals).isEmpty()) {
            turns.forEach(t -> web.arrow(t, there, Law.MOVEMENTS, t.thing(), "each shaft at its mark, then the crank"));
        }
        turns.forEach(t -> web.arrow(t, lay, Law.FOUND_AND_HELD, t.thing(), "it stands at its mark first"));
        references(loop).forEach(r -> read(r, find(r), turns, there, lay));
        ownMarks(loop).forEach(r -> read(r, mark(r), turns, there, lay));
        for (Hardware h : hardware(loop)) {
            Operation in = Operation.of(Verb.SET_IN, h.code());
            if (!waits(h)) {
                continue;
            }
            web.arrow(there, in, Law.FOUND_AND_HELD, h.code(), "the crank stands at its mark");
            turns.forEach(t -> web.arrow(t, in, Law.FOUND_AND_HELD, t.thing(), "it stands at its mark first"));
            references(loop).forEach(r -> web.rather(find(r), in));
            h.off()
                    .forEach(a -> web.arrow(
                            Operation.of(Verb.TAKE_OFF, a),
                            in,
                            Law.REACH,
                            a,
                            "%s is reached then".formatted(h.name())));
            h.holds().stream()
                    .filter(scope.off::contains)
                    .forEach(a ->
                            web.arrow(Operation.of(Verb.FIT, a), in, Law.REACH, a, "%s holds it".formatted(h.name())));
        }
    }

    private void read(Reference r, Operation read, List<Operation> turns, Operation there, Operation lay) {
        turns.forEach(t -> web.arrow(t, read, Law.FOUND_AND_HELD, t.thing(), "it stands at its mark first"));
        web.arrow(there, read, Law.FOUND_AND_HELD, r.code(), "the crank stands at its mark");
        web.arrow(read, lay, Law.FOUND_AND_HELD, r.code(), "%s is true first".formatted(r.name()));
        r.off()
                .forEach(a -> web.arrow(
                        Operation.of(Verb.TAKE_OFF, a), read, Law.REACH, a, "%s is read then".formatted(r.name())));
        r.on().forEach(a ->
                web.arrow(Operation.of(Verb.FIT, a), read, Law.REACH, a, "%s is read against it".formatted(r.name())));
    }
}
