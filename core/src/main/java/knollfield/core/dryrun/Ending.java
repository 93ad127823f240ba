package knollfield.core.dryrun;

import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import knollfield.core.engine.build.Fluid;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.OwnOrder;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Operation;

/** Closing, the first start, and what must hold at the end of a card. */
final class Ending {

    private static final String CAR = "car";
    private static final String SECONDS = "seconds";

    private final Model model;

    Ending(Model model) {
        this.model = model;
    }

    void close(String thing) {
        if (thing.equals(CAR)) {
            model.book.hardware().stream()
                    .filter(h -> h.kind() == Hardware.Kind.SUPPORT && model.in.contains(h.code()))
                    .findFirst()
                    .ifPresent(h ->
                            model.breach(h.code(), "%s is still under the engine".formatted(h.name()), Law.CARRIED));
            model.raised = false;
        }
        model.batteryOff = false;
    }

    void start(String thing) {
        cranked(thing);
        model.started = true;
    }

    void check(String thing) {
        if (thing.equals("engine")) {
            if (!model.started) {
                model.breach(thing, "it has not run yet", Law.DONE, Law.START);
            }
            model.book.fluids().stream()
                    .filter(f -> model.drained.contains(f.code()))
                    .findFirst()
                    .ifPresent(f -> model.breach(f.code(), "%s is missing".formatted(f.name()), Law.FLUIDS));
            model.checked = true;
        } else {
            cranked(thing);
        }
    }

    /** The starter turns it. */
    private void cranked(String thing) {
        boolean seconds = thing.equals(SECONDS);
        if (model.batteryOff) {
            model.breach(thing, "the battery is off", Law.START, Law.UNDER_IT);
        }
        if (thing.equals("engine") && model.raised) {
            model.breach(thing, "the vehicle is not on its wheels", Law.UNDER_IT);
        }
        for (LoopModel l : model.loops.values()) {
            if (!model.isProven(l)) {
                String why =
                        !l.on() ? "is off" : l.stand != LoopModel.Stand.TENSIONED ? "has no tension" : "is not proven";
                model.breach(l.loop.code(), "%s %s".formatted(l.loop.name(), why), Law.START, Law.PROVEN);
            }
            if (model.pinIsIn(l.loop) && l.on()) {
                model.breach(l.loop.code(), "the pin of the tensioner is still in", Law.IN_IS_OUT, Law.START);
            }
        }
        model.stopping()
                .forEach(h -> model.breach(h.code(), "%s is still in".formatted(h.name()), Law.IN_IS_OUT, Law.START));
        for (Fluid f : model.book.fluids()) {
            if (model.drained.contains(f.code()) && HandsOn.needsForStart(f, !thing.equals("engine"))) {
                model.breach(f.code(), "%s is missing".formatted(f.name()), Law.START, Law.FLUIDS);
            }
        }
        boolean whole = !seconds || model.book.build().dryStart().isEmpty();
        if (whole) {
            model.notClosed().ifPresent(why -> model.breach(thing, why, Law.START, Law.CLOSED));
        } else {
            model.book.build().dryStart().orElseThrow().needsOn().stream()
                    .filter(a -> !model.isOn(a) || !model.isTight(a))
                    .findFirst()
                    .ifPresent(a -> model.breach(a, "%s is not on".formatted(model.name(a)), Law.START));
        }
    }

    void label(String thing) {
        if (!model.checked) {
            model.breach(thing, "nothing is labelled before the check after the start", Law.DONE);
        }
        if (!thing.equals(CAR)) {
            model.breach(thing, "%s is written up as renewed and was not".formatted(model.name(thing)), Law.DONE);
            return;
        }
        model.labelled = true;
    }

    void atTheEnd() {
        model.notClosed().ifPresent(why -> model.breach("", why, Law.CLOSED, Law.FOR_NOW));
        for (LoopModel l : model.loops.values()) {
            if (!l.on()) {
                model.breach(l.loop.code(), "%s is off".formatted(l.loop.name()), Law.CLOSED);
            } else if (!model.isProven(l)) {
                String what = model.unproven(l).map(Reference::name).orElse("two turns");
                if (l.held) {
                    model.breach(
                            l.loop.code(),
                            "%s is not proven: %s".formatted(l.loop.name(), what),
                            Law.HELD_LOOPS,
                            Law.PROVEN);
                } else {
                    model.breach(l.loop.code(), "%s is not proven: %s".formatted(l.loop.name(), what), Law.PROVEN);
                }
            }
            windows(l);
        }
        model.stopping().forEach(h -> model.breach(h.code(), "%s is still in".formatted(h.name()), Law.IN_IS_OUT));
        model.book.hardware().stream()
                .filter(h -> h.kind() == Hardware.Kind.SUPPORT && model.in.contains(h.code()))
                .findFirst()
                .ifPresent(
                        h -> model.breach(h.code(), "%s is still under the engine".formatted(h.name()), Law.CARRIED));
        model.book.fluids().stream()
                .filter(f -> model.drained.contains(f.code()))
                .findFirst()
                .ifPresent(f -> model.breach(f.code(), "%s is missing".formatted(f.name()), Law.FLUIDS));
        model.missing.stream()
                .findFirst()
                .ifPresent(m -> model.breach(
                        m, "a piece of %s was never looked for".formatted(model.name(m)), Law.BEFORE_IT_HIDES));
        gaps();
        ownOrders();
        done();
        if (model.raised || model.batteryOff) {
            model.breach(CAR, "the vehicle is not on its wheels with its battery on", Law.UNDER_IT, Law.DONE);
        }
        if (!model.started || !model.checked) {
            model.breach("engine", "nothing is signed before the check after the start", Law.DONE);
        }
        if (!model.labelled) {
            model.breach(CAR, "nothing is signed before its label", Law.DONE);
        }
    }

    /** Windows are read after the last setting and the turns that prove it. */
    private void windows(LoopModel l) {
        if (!l.touched || l.settings == 0) {
            return;
        }
        for (String code : l.loop.windows()) {
            Optional<Integer> read = Optional.ofNullable(model.measured.get(code));
            if (read.filter(r -> r > l.tensioned && r > l.disturbed).isEmpty()) {
                model.breach(
                        code,
                        "%s is not read after the turns"
                                .formatted(model.book.look(code).map(Look::name).orElse(code)),
                        Law.TENSIONER,
                        Law.BEFORE_IT_HIDES);
            }
        }
    }

    /** What the book puts before something for a reason of its own. */
    private void ownOrders() {
        for (OwnOrder own : model.book.build().orders()) {
            OptionalInt first = firstOf(own.first());
            OptionalInt then = firstOf(own.then());
            if (first.isPresent() && then.isPresent() && first.getAsInt() > then.getAsInt()) {
                model.breach(
                        model.card.get(then.getAsInt()).thing(),
                        "%s comes before %s, because %s".formatted(own.first(), own.then(), own.because()),
                        Law.CLOSED);
            }
        }
    }

    /** Where {@code sign} is done first on the card, as verb and thing or as a whole code. */
    private OptionalInt firstOf(String sign) {
        return IntStream.range(0, model.card.size())
                .filter(i -> {
                    Operation o = model.card.get(i);
                    return o.code().equals(sign) || (o.verb().sign() + ":" + o.thing()).equals(sign);
                })
                .findFirst();
    }

    /** What the book asks to see of parts that were off. */
    private void gaps() {
        model.book.looks().stream()
                .filter(l -> switch (l.kind()) {
                    case GAP -> l.on().stream().anyMatch(model.everOff::contains);
                    case CLEARANCE ->
                        l.off().stream().allMatch(model.everOff::contains)
                                && !l.off().isEmpty();
                    case WINDOW, COUNT -> false;
                })
                .filter(l -> !model.measured.containsKey(l.code()))
                .findFirst()
                .ifPresent(l ->
                        model.breach(l.code(), "it was not measured: %s".formatted(l.name()), Law.BEFORE_IT_HIDES));
    }

    private void done() {
        for (String thing : model.goal.things()) {
            boolean done =
                    model.book.fluid(thing).isPresent() ? model.filled.contains(thing) : model.fresh.contains(thing);
            if (!done) {
                model.breach(thing, "%s was agreed and not renewed".formatted(model.name(thing)), Law.DONE);
            }
        }
        model.loops.values().stream()
                .filter(l -> l.loop.tensioner().filter(Loop.Tensioner::setAgain).isPresent())
                .filter(l -> l.laid && l.settings < 2)
                .findFirst()
                .ifPresent(l -> model.breach(
                        l.loop.code(), "the tension was not set again after the turns", Law.TENSIONER, Law.CLOSED));
    }
}
