package knollfield.core.dryrun;

import java.util.Optional;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Fluid;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Opening;
import knollfield.core.engine.build.Turner;
import knollfield.core.engine.build.Wheel;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Verb;

/** Undoing and doing up, off and on. */
final class HandsOn {

    private final Model model;

    HandsOn(Model model) {
        this.model = model;
    }

    void drain(String thing) {
        if (model.book.fluid(thing).isEmpty()) {
            model.breach(thing, "there is no fluid %s".formatted(thing), Law.FLUIDS);
            return;
        }
        model.drained.add(thing);
        model.filled.remove(thing);
    }

    void fill(String thing) {
        if (model.book.fluid(thing).isEmpty()) {
            model.breach(thing, "there is no fluid %s".formatted(thing), Law.FLUIDS);
            return;
        }
        model.book.assemblies().stream()
                .filter(a -> a.letsOut().contains(thing))
                .filter(a -> !model.isOn(a.code()) || !model.isTight(a.code()))
                .findFirst()
                .ifPresent(a -> model.breach(
                        thing,
                        "%s runs out again: %s is not closed".formatted(model.name(thing), a.name()),
                        Law.FLUIDS,
                        Law.CLOSED));
        if (model.goal.renews(thing) && !model.drained.contains(thing)) {
            model.breach(thing, "the old %s is still in".formatted(model.name(thing)), Law.DONE, Law.FLUIDS);
        }
        model.drained.remove(thing);
        model.filled.add(thing);
    }

    void undo(String thing) {
        Optional<Joint> there = model.book.joint(thing);
        if (there.isEmpty()) {
            model.breach(thing, "%s has no joint".formatted(model.name(thing)), Law.CLOSED);
            return;
        }
        Joint joint = there.get();
        if (model.isUndone(thing) && model.joints.getOrDefault(thing, 0) == 0) {
            model.breach(thing, "%s is undone already".formatted(joint.name()), Law.CLOSED);
        }
        model.hides(joint)
                .ifPresent(h -> model.breach(h, "%s hides %s".formatted(model.name(h), joint.name()), Law.REACH));
        heldAgainst(joint);
        for (String held : joint.holds()) {
            model.book.assembly(held).filter(Assembly::carriesEngine).ifPresent(a -> {
                if (!model.supportIsIn()) {
                    model.breach(
                            held, "the engine hangs on %s and nothing carries it".formatted(a.name()), Law.CARRIED);
                }
            });
        }
        joint.holds().forEach(this::underTension);
        joint.holds().stream()
                .flatMap(h -> model.book.assembly(h).stream())
                .flatMap(a -> a.letsOut().stream())
                .filter(f -> !model.drained.contains(f))
                .findFirst()
                .ifPresent(f -> model.breach(
                        f, "%s runs out once %s is undone".formatted(model.name(f), joint.name()), Law.FLUIDS));
        model.joints.put(thing, 0);
        model.everUndone.add(thing);
        model.undoneAt.put(thing, model.now);
        joint.fasteners().ifPresent(model.compared::remove);
        // a wheel that is not keyed is let go: what it carries can move
        model.book.madeFastBy(thing).forEach(w -> loopsOn(w.shaft(), l -> l.touched = true));
        model.book.loops().forEach(l -> {
            if (l.tensioner().filter(t -> joint.holds().contains(t.part())).isPresent()) {
                slacken(model.loop(l.code()), thing);
            }
        });
    }

    /** What a loop presses on is not undone while it presses. */
    private void underTension(String part) {
        boolean presses = model.book
                .assembly(part)
                .filter(a -> switch (a.kind()) {
                    case IDLER, PUMP, ARM, GUIDE -> true;
                    default -> false;
                })
                .isPresent();
        if (presses) {
            model.loops.values().stream()
                    .filter(l -> l.stand == LoopModel.Stand.TENSIONED
                            && l.loop.wheels().contains(part))
                    .findFirst()
                    .ifPresent(l -> model.breach(
                            part, "%s still presses on %s".formatted(l.loop.name(), model.name(part)), Law.TENSIONER));
        }
    }

    /** The tensioner of a loop is undone: what its kind lets go of. */
    private void slacken(LoopModel loop, String joint) {
        if (loop.stand != LoopModel.Stand.TENSIONED) {
            return;
        }
        Loop.LetOff letOff = loop.loop.letOff();
        if (letOff == Loop.LetOff.TENSIONER_OFF) {
            new Timing(model).letOff(loop);
        } else if (!loop.loop.slackenFirst().contains(joint)) {
            model.breach(joint, "%s still has its tension".formatted(loop.loop.name()), Law.TENSIONER);
        } else if (!model.comes(Verb.RELEASE, loop.loop.code())) {
            model.breach(loop.loop.code(), "the tensioner is undone and the tension was never let off", Law.TENSIONER);
            new Timing(model).letOff(loop);
        }
    }

    private void heldAgainst(Joint joint) {
        boolean fast = !model.book.madeFastBy(joint.code()).isEmpty();
        if (joint.heldBy() == Joint.HeldBy.HARDWARE) {
            boolean held = joint.holders().stream()
                    .anyMatch(h -> model.in.contains(h)
                            && model.book
                                    .hardware(h)
                                    .filter(Hardware::takesTorque)
                                    .isPresent());
            if (!held) {
                model.breach(
                        joint.code(),
                        "nothing that takes torque holds against %s".formatted(joint.name()),
                        Law.HELD_AGAINST);
            }
        }
        joint.pinned().stream()
                .filter(p -> !model.in.contains(p) && !isLost(p))
                .filter(p -> model.book
                        .hardware(p)
                        .filter(h -> h.expectedBack() || firstRound(joint))
                        .isPresent())
                .findFirst()
                .ifPresent(p -> model.breach(
                        p,
                        "%s: %s is not in, nothing says it is timed".formatted(joint.name(), model.name(p)),
                        fast ? Law.HELD_AGAINST : Law.FOUND_AND_HELD,
                        Law.FOUND_AND_HELD));
    }

    /** It cannot go in, because its loop was found out of time and is not set yet. */
    private boolean isLost(String pin) {
        return model.book
                .hardware(pin)
                .filter(h ->
                        h.waitsForMarks() && h.loops().stream().map(model::loop).anyMatch(l -> l.scratch))
                .isPresent();
    }

    /** Before any turn; a pin that is not expected back is asked for only until then. */
    private boolean firstRound(Joint joint) {
        return joint.loop().map(l -> !model.loop(l).turned).orElse(true);
    }

    void takeOff(String thing) {
        Optional<Turner> turner = model.book.turner(thing).filter(Turner::goesInForNow);
        if (turner.isPresent()) {
            if (!model.forNow.remove(thing)) {
                model.breach(thing, "%s is not in".formatted(model.name(thing)), Law.FOR_NOW);
            }
            return;
        }
        Optional<Assembly> there = model.book.assembly(thing);
        if (there.isEmpty()) {
            model.breach(thing, "there is nothing called %s to take off".formatted(thing), Law.FOR_NOW, Law.CLOSED);
            return;
        }
        Assembly a = there.get();
        if (model.off.contains(thing)) {
            model.breach(thing, "%s is off already".formatted(a.name()), Law.CLOSED);
            return;
        }
        model.inTheWayOf(thing)
                .ifPresent(w -> model.breach(w, "%s lies before %s".formatted(model.name(w), a.name()), Law.REACH));
        model.book.jointsOf(thing).stream()
                .filter(j -> !model.isUndone(j.code()) || model.joints.getOrDefault(j.code(), 0) > 0)
                .findFirst()
                .ifPresent(j -> model.breach(j.code(), "%s still holds it".formatted(j.name()), Law.REACH, Law.CLOSED));
        if (a.carriesEngine() && !model.supportIsIn()) {
            model.breach(thing, "the engine hangs on %s and nothing carries it".formatted(a.name()), Law.CARRIED);
        }
        a.letsOut().stream()
                .filter(f -> !model.drained.contains(f))
                .findFirst()
                .ifPresent(f -> model.breach(
                        f, "%s runs out when %s comes off".formatted(model.name(f), a.name()), Law.FLUIDS));
        a.letsOut().forEach(f -> {
            model.drained.add(f);
            model.filled.remove(f);
        });
        if (a.lookBeforeOff().isPresent() && !model.lookedAt.contains(thing)) {
            model.breach(thing, "%s was not looked at before it comes off".formatted(a.name()), Law.BEFORE_IT_HIDES);
        }
        model.book.hardware().stream()
                .filter(h -> model.in.contains(h.code()) && h.holds().contains(thing))
                .filter(h -> h.kind() != Hardware.Kind.TENSIONER_PIN)
                .findFirst()
                .ifPresent(h -> model.breach(
                        thing, "%s still holds %s".formatted(h.name(), a.name()), Law.REACH, Law.IN_IS_OUT));
        model.off.add(thing);
        model.forNow.remove(thing);
        model.everOff.add(thing);
        boolean fastenersToo = model.book.joints().stream()
                .anyMatch(j -> j.fasteners().filter(thing::equals).isPresent());
        if (!fastenersToo) {
            // what was used of fasteners that bear its name is old once they are undone, not before
            model.compared.remove(thing);
        }
        for (Opening o : model.book.openings()) {
            if (o.openedBy().equals(thing)) {
                model.openings.put(o.code(), false);
            }
        }
        // an old tensioner takes its pin with it
        model.book
                .loops()
                .forEach(l -> l.tensioner().filter(t -> t.part().equals(thing)).ifPresent(t -> {
                    t.pin().ifPresent(model.in::remove);
                    if (model.book.jointsOf(thing).isEmpty()) {
                        slacken(model.loop(l.code()), thing);
                    }
                }));
    }

    /** A stud or bolt of a joint broke off: what it holds comes off, or stays off, until the stub is out. */
    void sheared(String thing) {
        if (model.book.joint(thing).isEmpty()) {
            model.breach(thing, "%s has no joint".formatted(model.name(thing)), Law.CLOSED);
            return;
        }
        model.sheared.add(thing);
    }

    void repair(String thing) {
        Optional<Joint> there = model.book.joint(thing);
        if (there.isEmpty() || !model.sheared.contains(thing)) {
            model.breach(thing, "%s is whole".formatted(model.name(thing)), Law.CLOSED);
            return;
        }
        there.get().holds().stream()
                .filter(h -> model.book.assembly(h).isPresent() && !model.off.contains(h))
                .findFirst()
                .ifPresent(
                        h -> model.breach(h, "%s is on: nobody gets at the stub".formatted(model.name(h)), Law.REACH));
        model.hides(there.get())
                .ifPresent(h -> model.breach(h, "%s hides %s".formatted(model.name(h), model.name(thing)), Law.REACH));
        model.sheared.remove(thing);
    }

    /** Not all of a broken part was found. */
    void missing(String thing) {
        if (model.book.assembly(thing).isEmpty()) {
            model.breach(thing, "there is nothing called %s".formatted(thing), Law.BEFORE_IT_HIDES);
            return;
        }
        model.missing.add(thing);
        model.searched.clear();
    }

    /** Looked through where pieces fall; once that is done everywhere, what is missing has been looked for. */
    void search(String thing) {
        if (model.book.catchesPieces().stream().noneMatch(a -> a.code().equals(thing))) {
            model.breach(thing, "no piece falls into %s".formatted(model.name(thing)), Law.BEFORE_IT_HIDES);
            return;
        }
        if (!model.off.contains(thing)) {
            model.breach(thing, "%s is on: nobody sees into it".formatted(model.name(thing)), Law.REACH);
        }
        model.searched.add(thing);
        if (model.book.catchesPieces().stream().map(Assembly::code).allMatch(model.searched::contains)) {
            model.missing.clear();
        }
    }

    void cover(String thing) {
        if (!model.openings.containsKey(thing)) {
            model.breach(thing, "%s is not open".formatted(model.name(thing)), Law.OPENINGS);
            return;
        }
        model.openings.put(thing, true);
    }

    void compare(String thing) {
        boolean old = model.isOff(thing)
                || model.book.joints().stream()
                        .anyMatch(j -> j.fasteners().filter(thing::equals).isPresent() && model.isUndone(j.code()))
                || model.book.fluid(thing).isPresent();
        if (!old) {
            model.breach(
                    thing, "the old %s is not off yet to be held beside it".formatted(model.name(thing)), Law.DONE);
        }
        model.compared.add(thing);
    }

    void moveOver(String thing) {
        Optional<Assembly> owner = model.book.assemblies().stream()
                .filter(a -> a.moveOver().stream().anyMatch(p -> p.code().equals(thing)))
                .findFirst();
        if (owner.isEmpty()) {
            model.breach(thing, "there is no small part %s".formatted(thing), Law.CLOSED);
        } else if (!model.off.contains(owner.get().code())) {
            model.breach(
                    thing,
                    "%s is not off, %s cannot go over yet".formatted(owner.get().name(), thing),
                    Law.REACH,
                    Law.CLOSED);
        }
        model.movedOver.add(thing);
    }

    void fit(String thing) {
        Optional<Assembly> there = model.book.assembly(thing);
        if (there.isEmpty()) {
            model.breach(thing, "there is nothing called %s to fit".formatted(thing), Law.CLOSED);
            return;
        }
        Assembly a = there.get();
        if (model.isOn(thing)) {
            model.breach(thing, "%s is on already".formatted(a.name()), Law.CLOSED);
            return;
        }
        behind(a, true);
        boolean catches = model.book.catchesPieces().contains(a);
        model.missing.stream()
                .filter(m -> catches && !model.searched.contains(thing))
                .findFirst()
                .ifPresent(m -> model.breach(
                        thing,
                        "a piece of %s is missing and nobody looked into %s".formatted(model.name(m), a.name()),
                        Law.BEFORE_IT_HIDES));
        model.book.turners().stream()
                .filter(t -> t.kind() == Turner.Kind.OLD_BOLT
                        && t.thing().filter(thing::equals).isPresent()
                        && model.forNow.contains(t.code()))
                .findFirst()
                .ifPresent(t -> model.breach(t.code(), "%s is still in".formatted(t.name()), Law.FOR_NOW, Law.REACH));
        compared(thing);
        fastenersCompared(a);
        if (model.goesOnNew(thing)) {
            a.moveOver().stream()
                    .filter(p -> !model.movedOver.contains(p.code()))
                    .findFirst()
                    .ifPresent(p -> model.breach(
                            thing, "%s was not moved over to the new %s".formatted(p.name(), a.name()), Law.CLOSED));
            model.fresh.add(thing);
        }
        hidesWhatIsToBeSeen(a);
        model.off.remove(thing);
        model.forNow.remove(thing);
        for (Opening o : model.book.openings()) {
            if (o.openedBy().equals(thing)) {
                model.openings.remove(o.code());
            }
        }
        tensionerGoesOn(thing);
    }

    /** What lies behind {@code a} is in place, and tight where it cannot be reached afterwards. */
    private void behind(Assembly a, boolean tight) {
        for (Assembly b : model.book.assemblies()) {
            if (model.book.inFrontOf(b.code()).contains(a.code()) && model.off.contains(b.code())) {
                model.breach(b.code(), "%s goes on before %s behind it".formatted(a.name(), b.name()), Law.REACH);
                return;
            }
        }
        for (LoopModel l : model.loops.values()) {
            if (model.book.inFrontOf(l.loop.code()).contains(a.code()) && !l.on()) {
                model.breach(
                        l.loop.code(), "%s goes on before %s is laid".formatted(a.name(), l.loop.name()), Law.REACH);
                return;
            }
        }
        if (tight) {
            model.book.hiddenBehind(a.code()).stream()
                    .filter(model::isOpen)
                    .findFirst()
                    .ifPresent(j -> model.breach(
                            j.code(), "%s hides %s, which is not done up".formatted(a.name(), j.name()), Law.REACH));
        }
    }

    /** What a part hides is measured and looked at before it goes on. */
    private void hidesWhatIsToBeSeen(Assembly a) {
        model.book.looks().stream()
                .filter(l -> l.off().contains(a.code()))
                .filter(l -> switch (l.kind()) {
                    case CLEARANCE -> true;
                    case GAP -> l.on().stream().anyMatch(model.everOff::contains);
                    case WINDOW, COUNT -> false;
                })
                .filter(l -> !model.measured.containsKey(l.code()))
                .findFirst()
                .ifPresent(l -> model.breach(
                        l.code(),
                        "%s hides it and it was not measured: %s".formatted(a.name(), l.name()),
                        Law.BEFORE_IT_HIDES));
    }

    private void compared(String thing) {
        if (model.goesOnNew(thing) && !model.compared.contains(thing)) {
            model.breach(thing, "the new %s was not held beside the old".formatted(model.name(thing)), Law.DONE);
        }
    }

    private void fastenersCompared(Assembly a) {
        model.book.jointsOf(a.code()).stream()
                .filter(j -> model.isUndone(j.code()))
                .flatMap(j -> j.fasteners().stream())
                .filter(f -> !model.compared.contains(f))
                .findFirst()
                .ifPresent(f -> model.breach(
                        f,
                        "new fasteners of %s were not held beside the old".formatted(a.name()),
                        Law.DONE,
                        Law.CLOSED));
    }

    private void tensionerGoesOn(String thing) {
        model.book
                .loops()
                .forEach(l -> l.tensioner()
                        .filter(t -> t.part().equals(thing))
                        .ifPresent(t -> t.pin().ifPresent(pin -> {
                            if (model.goal.renews(thing)) {
                                model.in.add(pin);
                            } else if (!model.in.contains(pin)) {
                                model.breach(
                                        pin,
                                        "%s is not in: the old tensioner is not fully back".formatted(model.name(pin)),
                                        Law.TENSIONER);
                            }
                        })));
    }

    void forNow(String thing) {
        Optional<Turner> turner = model.book.turner(thing).filter(Turner::goesInForNow);
        if (turner.isPresent()) {
            turner.get()
                    .thing()
                    .filter(p -> turner.get().kind() == Turner.Kind.JOINT
                            ? model.joints.getOrDefault(p, 1) > 0
                            : model.isOn(p))
                    .ifPresent(p -> model.breach(
                            p,
                            "%s is on; there is no place for %s"
                                    .formatted(model.name(p), turner.get().name()),
                            Law.FOR_NOW));
            model.forNow.add(thing);
            return;
        }
        Optional<Assembly> there = model.book.assembly(thing);
        if (there.isEmpty()) {
            model.breach(
                    thing,
                    "%s is no old fastener of this engine: a new one works before its stages".formatted(thing),
                    Law.FOR_NOW);
            return;
        }
        if (!model.off.contains(thing)) {
            model.breach(thing, "%s is on already".formatted(there.get().name()), Law.FOR_NOW);
            return;
        }
        behind(there.get(), false);
        model.off.remove(thing);
        model.forNow.add(thing);
    }

    void tighten(String thing, int stage) {
        Optional<Joint> there = model.book.joint(thing);
        if (there.isEmpty()) {
            model.breach(thing, "%s has no joint".formatted(model.name(thing)), Law.FOR_NOW, Law.CLOSED);
            return;
        }
        Joint joint = there.get();
        model.book.turners().stream()
                .filter(t -> t.kind() == Turner.Kind.JOINT
                        && t.thing().filter(thing::equals).isPresent())
                .filter(t -> model.forNow.contains(t.code()))
                .findFirst()
                .ifPresent(t -> model.breach(
                        thing, "%s is in its place, put in for turning only".formatted(t.name()), Law.FOR_NOW));
        if (stage > joint.stages().size()) {
            model.breach(thing, "%s has no stage %d".formatted(joint.name(), stage), Law.CLOSED);
            return;
        }
        Integer reached = model.joints.get(thing);
        if (reached == null) {
            model.breach(thing, "%s was never undone".formatted(joint.name()), Law.CLOSED);
            return;
        }
        if (reached != stage - 1) {
            model.breach(
                    thing,
                    "%s is at stage %d; stage %d does not follow".formatted(joint.name(), reached, stage),
                    Law.CLOSED);
        }
        if (model.sheared.contains(thing)) {
            model.breach(thing, "the stub of %s is still in".formatted(joint.name()), Law.CLOSED);
        }
        joint.holds().stream()
                .filter(model.off::contains)
                .findFirst()
                .ifPresent(h -> model.breach(
                        h,
                        "%s is not on: %s holds nothing".formatted(model.name(h), joint.name()),
                        Law.CLOSED,
                        Law.REACH));
        model.hides(joint)
                .ifPresent(h -> model.breach(h, "%s hides %s".formatted(model.name(h), joint.name()), Law.REACH));
        Joint.Stage s = joint.stages().get(stage - 1);
        s.tightFirst().stream()
                .flatMap(c -> model.book.joint(c).stream())
                .filter(j -> model.isOpen(j) || j.holds().stream().anyMatch(model.off::contains))
                .findFirst()
                .ifPresent(j -> model.breach(
                        j.code(),
                        "%s comes before stage %d of %s".formatted(j.name(), stage, joint.name()),
                        Law.CLOSED));
        moment(joint, s, stage);
        heldAgainst(joint);
        joint.fasteners()
                .filter(f -> stage == 1 && !model.compared.contains(f))
                .ifPresent(f -> model.breach(f, "%s is not new".formatted(joint.name()), Law.CLOSED, Law.DONE));
        joint.fasteners().ifPresent(model.fresh::add);
        model.joints.put(thing, stage);
        joint.holds().forEach(model.forNow::remove);
        whatItMoves(joint, stage);
    }

    /** A stage belongs to a span of the work. */
    private void moment(Joint joint, Joint.Stage stage, int number) {
        for (LoopModel l : model.loops.values()) {
            boolean itsLoop = joint.loop().map(l.loop.code()::equals).orElse(l.touched);
            if (!itsLoop || !l.touched) {
                continue;
            }
            boolean early = switch (stage.from()) {
                case FITTED -> false;
                case LAID -> !l.on();
                case TENSIONED -> l.stand != LoopModel.Stand.TENSIONED;
                case TURNED -> !l.turned || l.turns < 2;
                case SET_AGAIN -> l.settings < 2;
                case CLOSED -> model.notClosed().isPresent();
                case RAN -> !model.started;
            };
            boolean late = switch (stage.until()) {
                case FITTED -> false;
                case LAID -> l.laid;
                case TENSIONED -> l.laid && l.stand == LoopModel.Stand.TENSIONED;
                case TURNED -> l.turned && !isSetAgain(joint, l) && !isTurnedAnew(joint, l);
                case SET_AGAIN, CLOSED, RAN -> model.started && stage.until() != Joint.Moment.RAN;
            };
            if (early || late) {
                model.breach(
                        joint.code(),
                        "stage %d of %s comes too %s".formatted(number, joint.name(), early ? "early" : "late"),
                        Law.CLOSED,
                        Law.MOVEMENTS);
                return;
            }
        }
    }

    /** The tension was set once more after the turns, so that its fastener is made tight once more. */
    private static boolean isSetAgain(Joint joint, LoopModel loop) {
        return loop.lookAgain == loop.tensioned
                && loop.loop
                        .tensioner()
                        .filter(t -> joint.holds().contains(t.part()))
                        .isPresent();
    }

    /** Undone since the last turn, and turned once more later: the turns before are none of its. */
    private boolean isTurnedAnew(Joint joint, LoopModel loop) {
        return model.undoneAt.getOrDefault(joint.code(), 0) > loop.turnedAt && model.comes(Verb.TURN, "engine");
    }

    private void whatItMoves(Joint joint, int stage) {
        for (Wheel w : model.book.madeFastBy(joint.code())) {
            loopsOn(w.shaft(), l -> l.disturb(model.now));
        }
        if (stage < joint.stages().size()) {
            return;
        }
        for (Wheel w : model.book.wheels()) {
            boolean fixed = w.fit() == Wheel.Fit.KEYED
                    && w.joint().filter(joint.code()::equals).isPresent()
                    && (joint.heldBy() == Joint.HeldBy.HEXAGON || joint.heldBy() == Joint.HeldBy.COUNTER_HOLDER);
            if (fixed) {
                loopsOn(w.shaft(), l -> {
                    if (l.turned) {
                        l.lookAgain = model.now;
                    }
                });
            }
        }
        for (LoopModel l : model.loops.values()) {
            boolean tensioner = l.loop.tensioner()
                    .filter(t -> joint.holds().contains(t.part()) && t.letGo() == Loop.LetGo.SET)
                    .isPresent();
            if (tensioner && l.turned) {
                l.lookAgain = model.now;
            }
        }
    }

    private void loopsOn(String shaft, java.util.function.Consumer<LoopModel> what) {
        model.loops.values().stream()
                .filter(l -> l.loop.shafts().contains(shaft))
                .forEach(what);
    }

    static boolean needsForStart(Fluid fluid, boolean seconds) {
        return seconds ? fluid.neededForSeconds() : fluid.neededForSeconds() || fluid.neededForRunning();
    }
}
