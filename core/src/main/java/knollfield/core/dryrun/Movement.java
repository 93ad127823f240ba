package knollfield.core.dryrun;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Position;
import knollfield.core.engine.build.Shaft;
import knollfield.core.engine.work.Law;

/** How the crank is moved, and what may not be moved by itself. */
final class Movement {

    private static final String ONCE = "once";
    private static final String ENGINE = "engine";

    private final Model model;

    Movement(Model model) {
        this.model = model;
    }

    void turn(String thing) {
        if (!thing.equals(ENGINE) && !thing.equals(ONCE)) {
            shaftAlone(thing);
            return;
        }
        turnable();
        stopping();
        model.missing.stream()
                .findFirst()
                .ifPresent(m -> model.breach(
                        m,
                        "a piece of %s is missing: it may lie in the drive".formatted(model.name(m)),
                        Law.MOVEMENTS,
                        Law.BEFORE_IT_HIDES));
        for (LoopModel l : model.loops.values()) {
            Optional<Loop.Tensioner> t = l.loop.tensioner();
            boolean seating = l.stand == LoopModel.Stand.LAID
                    && t.filter(Loop.Tensioner::pinMayStayForSeatingTurns).isPresent()
                    && model.pinIsIn(l.loop);
            if (l.stand != LoopModel.Stand.TENSIONED && !seating) {
                l.lost = true;
                model.breach(
                        l.loop.code(),
                        "%s is %s".formatted(l.loop.name(), l.on() ? "slack" : "off"),
                        Law.MOVEMENTS,
                        Law.TENSIONER);
            }
            if (model.pinIsIn(l.loop) && !seating && l.on()) {
                model.breach(
                        l.loop.code(),
                        "the pin of the tensioner is still in",
                        Law.IN_IS_OUT,
                        Law.TENSIONER,
                        Law.MOVEMENTS);
            }
            fast(l);
            if (l.touched && !seating && model.tensionerIsLoose(l.loop)) {
                model.breach(
                        l.loop.code(),
                        "the tensioner of %s is set and not tight".formatted(l.loop.name()),
                        Law.CLOSED,
                        Law.MOVEMENTS,
                        Law.TENSIONER);
            }
        }
        if (model.loops.values().stream().anyMatch(l -> l.touched)) {
            model.book.assemblies().stream()
                    .filter(Assembly::onBeforeTurns)
                    .filter(a -> !model.isOn(a.code()))
                    .findFirst()
                    .ifPresent(a -> model.breach(
                            a.code(), "%s is on before the turns".formatted(a.name()), Law.CLOSED, Law.MOVEMENTS));
        }
        int whole = thing.equals(ONCE) ? 1 : 2;
        if (whole == 1) {
            model.opposite = !model.opposite;
        }
        for (LoopModel l : model.loops.values()) {
            if (l.stand == LoopModel.Stand.TENSIONED) {
                l.turns += whole;
                l.turnedAt = model.now;
                l.turned = l.turned || (l.touched && l.turns >= 2);
            }
        }
    }

    private void turnable() {
        if (!model.canBeTurned()) {
            model.breach(
                    "crank",
                    "there is nothing to turn it by: it needs %s"
                            .formatted(model.book.turners().stream()
                                    .map(t -> t.name())
                                    .collect(Collectors.joining(" or "))),
                    Law.MOVEMENTS);
        }
    }

    private void stopping() {
        for (Hardware h : model.stopping()) {
            if (h.kind() == Hardware.Kind.TIE) {
                model.breach(
                        h.code(),
                        "%s is still round the wheels".formatted(h.name()),
                        Law.IN_IS_OUT,
                        Law.MOVEMENTS,
                        Law.HELD_LOOPS);
            } else {
                model.breach(h.code(), "%s is still in".formatted(h.name()), Law.IN_IS_OUT, Law.MOVEMENTS);
            }
        }
    }

    private void fast(LoopModel l) {
        model.loose(l.loop).ifPresent(w -> {
            l.lost = true;
            model.breach(w.code(), "%s is not fast on its shaft".formatted(w.name()), Law.MOVEMENTS);
        });
    }

    void bring(String thing, boolean back) {
        Optional<Position> there = model.book.position(thing);
        if (there.isEmpty()) {
            model.breach(thing, "there is no position %s".formatted(thing), Law.MOVEMENTS);
            return;
        }
        turnable();
        stopping();
        if (back) {
            int degrees = model.position
                    .flatMap(model.book::position)
                    .map(p -> there.get().onTo(p))
                    // back to where it stands is a whole cycle back
                    .filter(d -> d > 0)
                    .orElse(Position.CYCLE);
            if (degrees > model.book.build().turnedBackDegrees()) {
                model.breach(
                        thing,
                        "%d° back; this engine is turned back %s"
                                .formatted(
                                        degrees,
                                        model.book.build().turnedBackDegrees() == 0
                                                ? "never"
                                                : "by at most "
                                                        + model.book.build().turnedBackDegrees() + "°"),
                        Law.MOVEMENTS);
            }
        }
        for (LoopModel l : model.loops.values()) {
            if (l.scratch && l.on()) {
                model.breach(
                        l.loop.code(),
                        "%s is out of time and still on: nothing is turned".formatted(l.loop.name()),
                        Law.MOVEMENTS);
            } else if (l.scratch) {
                byFeel(l, there.get());
            } else if (l.stand == LoopModel.Stand.OFF) {
                l.loop.shafts().stream()
                        .flatMap(s -> model.book.shaft(s).stream())
                        .filter(s -> s.role() != Shaft.Role.CRANK && !s.freeAnywhere())
                        .findFirst()
                        .ifPresent(s -> {
                            l.lost = true;
                            model.breach(
                                    s.code(),
                                    "%s does not clear the pistons while %s is off".formatted(s.name(), l.loop.name()),
                                    Law.MOVEMENTS);
                        });
            } else if (l.stand != LoopModel.Stand.TENSIONED) {
                l.lost = true;
                model.breach(
                        l.loop.code(),
                        "%s is slack and jumps as the crank moves".formatted(l.loop.name()),
                        Law.MOVEMENTS);
            } else {
                fast(l);
                if (model.tensionerIsUndone(l.loop)) {
                    l.lost = true;
                    model.breach(
                            l.loop.code(),
                            "the tensioner of %s is undone".formatted(l.loop.name()),
                            Law.MOVEMENTS,
                            Law.TENSIONER);
                }
            }
        }
        model.position = Optional.of(thing);
        model.opposite = false;
    }

    /** A loop found out of time is off: to where its shafts are free, and once they are set to its own position. */
    private void byFeel(LoopModel l, Position to) {
        boolean set = model.notSet(l).isEmpty();
        model.driven(l.loop).stream()
                .filter(s -> !s.freeAnywhere() && !s.freeAt().contains(to.code()))
                .filter(s -> !(set && l.loop.position().equals(to.code())))
                .filter(s -> set || !s.freeAt().isEmpty() || l.loop.position().equals(to.code()))
                .findFirst()
                .ifPresent(s -> model.breach(
                        s.code(),
                        "%s is out of time and is not free at %s".formatted(s.name(), to.name()),
                        Law.MOVEMENTS));
    }

    /** A tooth, or the book's degrees: hardware may be in and a wheel slack. */
    void creep(String thing) {
        Optional<Shaft> shaft = model.book.shaft(thing);
        if (shaft.isEmpty()) {
            model.breach(thing, "there is no shaft %s".formatted(thing), Law.MOVEMENTS);
            return;
        }
        if (shaft.get().role() == Shaft.Role.CRANK) {
            turnable();
        } else if (shaft.get().rockDegrees() == 0) {
            shaftAlone(thing);
        }
    }

    private void shaftAlone(String thing) {
        Optional<Shaft> shaft = model.book.shaft(thing);
        List<LoopModel> lost = model.loops.values().stream()
                .filter(l -> l.scratch && l.loop.shafts().contains(thing))
                .toList();
        boolean off = !lost.isEmpty() && lost.stream().noneMatch(LoopModel::on);
        // where the book names no place, it is for whoever has the manufacturer's instructions to say
        boolean free = shaft.filter(s -> s.freeAnywhere()
                        || model.position.filter(s.freeAt()::contains).isPresent()
                        || (off && s.freeAt().isEmpty()))
                .isPresent();
        if (free && off) {
            lost.forEach(l -> l.set.add(thing));
        }
        if (!free) {
            shaft.ifPresent(s -> model.loops.values().stream()
                    .filter(l -> l.loop.shafts().contains(s.code()))
                    .forEach(l -> l.lost = true));
            model.breach(
                    thing, "%s is turned by itself where it is not free".formatted(model.name(thing)), Law.MOVEMENTS);
        }
    }
}
