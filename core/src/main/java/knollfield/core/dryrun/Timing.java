package knollfield.core.dryrun;

import java.util.List;
import java.util.Optional;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Wheel;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Verb;

/** References, what holds, loops off and on, tension, proof. */
final class Timing {

    private final Model model;

    Timing(Model model) {
        this.model = model;
    }

    void setIn(String thing) {
        Optional<Hardware> there = model.book.hardware(thing);
        if (there.isEmpty()) {
            model.breach(thing, "there is nothing called %s to set in".formatted(thing), Law.IN_IS_OUT);
            return;
        }
        Hardware h = there.get();
        if (model.in.contains(thing)) {
            model.breach(thing, "%s is in already".formatted(h.name()), Law.IN_IS_OUT);
        }
        reachable(h);
        h.holds().stream()
                .filter(held -> h.kind() != Hardware.Kind.TENSIONER_PIN && model.off.contains(held))
                .findFirst()
                .ifPresent(a -> model.breach(
                        a, "%s is not on: %s has nothing to hold".formatted(model.name(a), h.name()), Law.REACH));
        h.position().ifPresent(p -> {
            if (!model.position.equals(Optional.of(p)) || model.opposite) {
                model.breach(thing, "%s goes in at %s only".formatted(h.name(), model.name(p)), Law.FOUND_AND_HELD);
            }
        });
        if (h.slidesIn()) {
            h.loops().stream()
                    .map(model::loop)
                    .filter(l -> !isSet(l))
                    .filter(l -> l.lost || !l.on() || (!l.laid && (slackened(l) || l.stand == LoopModel.Stand.SLACK)))
                    .findFirst()
                    .ifPresent(l -> model.breach(
                            thing,
                            "%s does not slide in: %s is not in time".formatted(h.name(), l.loop.name()),
                            Law.FOUND_AND_HELD));
            if (h.kind() != Hardware.Kind.TENSIONER_PIN) {
                model.found.add(thing);
            }
        }
        if (h.kind() == Hardware.Kind.TENSIONER_PIN) {
            h.loops().stream()
                    .map(model::loop)
                    .filter(l -> l.stand == LoopModel.Stand.TENSIONED)
                    .findFirst()
                    .ifPresent(l -> model.breach(
                            thing, "the tension of %s is not let off".formatted(l.loop.name()), Law.TENSIONER));
        }
        if (h.kind() == Hardware.Kind.TIE) {
            h.loops().stream()
                    .map(model::loop)
                    .filter(l -> l.stand != LoopModel.Stand.TENSIONED)
                    .findFirst()
                    .ifPresent(l -> model.breach(
                            thing,
                            "%s is slack already; the tie holds what has moved".formatted(l.loop.name()),
                            Law.HELD_LOOPS));
        }
        model.in.add(thing);
    }

    /** Found out of time, off, and every shaft stands at its mark again. */
    private boolean isSet(LoopModel l) {
        return l.scratch && !l.on() && model.notSet(l).isEmpty();
    }

    /** Found out of time: what was found of it says nothing any more. */
    void lost(String thing) {
        LoopModel loop = model.loops.get(thing);
        if (loop == null) {
            model.breach(thing, "there is no loop %s".formatted(thing), Law.FOUND_AND_HELD);
            return;
        }
        loop.lost = true;
        loop.scratch = true;
        loop.wasLost = true;
        loop.touched = true;
        loop.set.clear();
        model.book.references().stream().filter(r -> r.loops().contains(thing)).forEach(r -> {
            model.found.remove(r.code());
            model.marked.remove(r.code());
        });
        model.stopping().stream()
                .filter(h -> h.loops().contains(thing) && h.waitsForMarks())
                .findFirst()
                .ifPresent(h -> model.breach(
                        h.code(),
                        "%s is in: it comes out before anything is set from scratch".formatted(h.name()),
                        Law.MOVEMENTS,
                        Law.IN_IS_OUT));
    }

    private void reachable(Hardware h) {
        h.off().stream()
                .filter(a -> model.book.assembly(a).isPresent() && !model.off.contains(a))
                .findFirst()
                .ifPresent(
                        a -> model.breach(a, "%s is in the way of %s".formatted(model.name(a), h.name()), Law.REACH));
    }

    void out(String thing) {
        Optional<Hardware> there = model.book.hardware(thing);
        if (there.isEmpty()) {
            model.breach(thing, "there is nothing called %s".formatted(thing), Law.IN_IS_OUT);
            return;
        }
        Hardware h = there.get();
        if (h.kind() == Hardware.Kind.TENSIONER_PIN) {
            Optional<LoopModel> loop = h.loops().stream().map(model::loop).findFirst();
            if (!model.in.remove(thing)) {
                model.breach(thing, "%s is not in".formatted(h.name()), Law.TENSIONER, Law.IN_IS_OUT);
            }
            loop.ifPresent(l -> letGo(l, h.name()));
            return;
        }
        if (!model.in.contains(thing)) {
            model.breach(thing, "%s is not in".formatted(h.name()), Law.IN_IS_OUT);
            return;
        }
        reachable(h);
        if (h.kind() == Hardware.Kind.SUPPORT) {
            model.book.assemblies().stream()
                    .filter(Assembly::carriesEngine)
                    .filter(a -> !model.isOn(a.code()) || !model.isTight(a.code()))
                    .findFirst()
                    .ifPresent(a -> model.breach(a.code(), "%s does not carry yet".formatted(a.name()), Law.CARRIED));
            model.in.remove(thing);
            return;
        }
        model.in.remove(thing);
        if (h.kind() == Hardware.Kind.TIE) {
            h.loops().stream()
                    .map(model::loop)
                    .filter(l -> l.held && l.stand != LoopModel.Stand.TENSIONED)
                    .findFirst()
                    .ifPresent(l -> model.breach(
                            thing, "nothing else holds %s while it is slack".formatted(l.loop.name()), Law.HELD_LOOPS));
            return;
        }
        // a wheel that is not fast yet loses its shaft
        model.book.wheels().stream()
                .filter(w -> w.fit() != Wheel.Fit.KEYED && h.holds().contains(w.shaft()))
                // one that is timed anew has nothing to lose
                .filter(w -> model.loops.values().stream()
                        .noneMatch(l -> l.scratch && l.loop.shafts().contains(w.shaft())))
                .filter(w -> w.joint()
                        .flatMap(model.book::joint)
                        .filter(j -> model.isOpen(j) && dueBeforeTurns(j))
                        .isPresent())
                .findFirst()
                .ifPresent(w -> model.breach(
                        thing,
                        "%s is loose on its shaft and %s comes out".formatted(w.name(), h.name()),
                        Law.FOUND_AND_HELD,
                        Law.HELD_AGAINST));
        model.loops.values().stream()
                .filter(l -> l.stand != LoopModel.Stand.TENSIONED)
                .forEach(l -> model.unheld(l.loop)
                        .filter(s -> h.holds().contains(s.code()))
                        .ifPresent(s -> {
                            l.lost = true;
                            model.breach(
                                    thing,
                                    "%s moves by itself while %s has no tension".formatted(s.name(), l.loop.name()),
                                    Law.FOUND_AND_HELD);
                        }));
    }

    private boolean dueBeforeTurns(Joint joint) {
        int reached = model.joints.getOrDefault(joint.code(), 0);
        return joint.stages().get(reached).until().compareTo(Joint.Moment.TURNED) <= 0;
    }

    void find(String thing) {
        Optional<Reference> there = model.book.reference(thing);
        if (there.isEmpty()) {
            model.breach(thing, "there is no reference %s".formatted(thing), Law.FOUND_AND_HELD);
            return;
        }
        Reference r = there.get();
        if (!r.trustedBefore()) {
            model.breach(thing, "%s is not to be trusted".formatted(r.name()), Law.FOUND_AND_HELD, Law.PROVEN);
        }
        atItsPosition(r, Law.FOUND_AND_HELD);
        model.cannotBeRead(r).ifPresent(why -> model.breach(thing, why, Law.FOUND_AND_HELD, Law.REACH));
        onWithTension(r);
        model.found.add(thing);
    }

    private void atItsPosition(Reference r, Law law) {
        if (!model.position.equals(Optional.of(r.position()))) {
            model.breach(r.code(), "%s is read at %s".formatted(r.name(), model.name(r.position())), law);
        } else if (model.opposite) {
            model.breach(r.code(), "the crank is right and the cams stand opposite", law);
        }
    }

    private void onWithTension(Reference r) {
        r.loops().stream()
                .map(model::loop)
                .filter(l -> !isSet(l))
                .filter(l -> l.stand != LoopModel.Stand.TENSIONED || slackened(l))
                .findFirst()
                .ifPresent(l -> model.breach(
                        r.code(),
                        "%s is let off: %s shows nothing any more".formatted(l.loop.name(), r.name()),
                        Law.FOUND_AND_HELD));
    }

    /** Its tensioner, or a wheel that is not keyed, is undone: what is read now may have moved. */
    private boolean slackened(LoopModel l) {
        boolean tensioner = l.loop.tensioner().stream()
                .flatMap(t -> model.book.jointsOf(t.part()).stream())
                .anyMatch(j -> model.joints.getOrDefault(j.code(), 1) == 0);
        return tensioner
                || model.book.wheels().stream()
                        .filter(w ->
                                w.fit() != Wheel.Fit.KEYED && l.loop.shafts().contains(w.shaft()))
                        .flatMap(w -> w.joint().stream())
                        .anyMatch(j -> model.joints.getOrDefault(j, 1) == 0);
    }

    void mark(String thing, int round) {
        Optional<Reference> reference = model.book.reference(thing);
        if (reference.isPresent()) {
            Reference r = reference.get();
            if (r.trust() == Reference.Trust.WHILE_HELD) {
                r.loops().stream()
                        .map(model::loop)
                        .filter(l -> l.stand != LoopModel.Stand.TENSIONED)
                        .findFirst()
                        .ifPresent(l -> model.breach(
                                thing,
                                "%s is slack already".formatted(l.loop.name()),
                                Law.HELD_LOOPS,
                                Law.FOUND_AND_HELD));
            } else {
                atItsPosition(r, Law.FOUND_AND_HELD);
                onWithTension(r);
            }
            model.cannotBeRead(r).ifPresent(why -> model.breach(thing, why, Law.FOUND_AND_HELD, Law.REACH));
            model.marked.add(thing);
            return;
        }
        LoopModel loop = model.loops.get(thing);
        if (loop == null) {
            model.breach(thing, "there is no reference or loop %s".formatted(thing), Law.FOUND_AND_HELD);
        } else if (round == 1) {
            // one that was laid on this card lies as it was laid
            boolean moved = loop.stand != LoopModel.Stand.TENSIONED || model.tensionerIsUndone(loop.loop);
            if (moved && !(loop.laid && loop.on())) {
                model.breach(
                        thing,
                        "%s is let off: marks made now say nothing".formatted(loop.loop.name()),
                        Law.HELD_LOOPS,
                        Law.FOUND_AND_HELD);
            }
            model.book.before(thing).stream()
                    .filter(b -> model.book.assembly(b).filter(Timing::isCover).isPresent())
                    .filter(model::isOn)
                    .findFirst()
                    .ifPresent(
                            b -> model.breach(b, "%s hides %s".formatted(model.name(b), loop.loop.name()), Law.REACH));
            model.marked.add(thing);
        } else if (!model.marked.contains(thing)) {
            model.breach(thing, "the old one was not marked", Law.FOUND_AND_HELD);
        }
    }

    void release(String thing) {
        LoopModel loop = model.loops.get(thing);
        if (loop == null) {
            model.breach(thing, "there is no loop %s".formatted(thing), Law.TENSIONER);
            return;
        }
        if (loop.stand == LoopModel.Stand.SLACK || loop.stand == LoopModel.Stand.OFF) {
            model.breach(thing, "%s has no tension to let off".formatted(loop.loop.name()), Law.TENSIONER);
            return;
        }
        loop.loop.slackenFirst().stream()
                .filter(j -> model.book.joint(j).isPresent() && !model.isUndone(j))
                .findFirst()
                .ifPresent(j ->
                        model.breach(j, "%s is not slackened".formatted(model.name(j)), Law.TENSIONER, Law.CLOSED));
        loop.loop
                .tensioner()
                .ifPresent(t -> model.book.inFrontOf(t.part()).stream()
                        .filter(f -> model.book
                                .assembly(f)
                                .filter(a -> a.kind() == Assembly.Kind.COVER
                                        || a.kind() == Assembly.Kind.FRONT_COVER
                                        || a.kind() == Assembly.Kind.ROCKER_COVER)
                                .isPresent())
                        .filter(model::isOn)
                        .findFirst()
                        .ifPresent(f -> model.breach(f, "%s hides the tensioner".formatted(model.name(f)), Law.REACH)));
        letOff(loop);
    }

    private static boolean isCover(Assembly a) {
        return a.kind() == Assembly.Kind.COVER
                || a.kind() == Assembly.Kind.FRONT_COVER
                || a.kind() == Assembly.Kind.ROCKER_COVER;
    }

    /** The tension goes: what must hold by then holds. */
    void letOff(LoopModel loop) {
        Loop l = loop.loop;
        boolean comesOff = model.comes(Verb.LOOP_OFF, l.code());
        loop.touched = true;
        loop.stand = LoopModel.Stand.SLACK;
        if (!comesOff) {
            loop.held = true;
            List<Hardware> ties = model.book.hardware().stream()
                    .filter(h -> h.kind() == Hardware.Kind.TIE && h.loops().contains(l.code()))
                    .toList();
            if (ties.isEmpty() || !ties.stream().allMatch(h -> model.in.contains(h.code()))) {
                model.breach(
                        l.code(),
                        "%s is let off and nothing holds it on its wheels".formatted(l.name()),
                        Law.HELD_LOOPS);
            }
            model.book.references().stream()
                    .filter(r -> r.loops().contains(l.code())
                            && r.trust() == Reference.Trust.WHILE_HELD
                            && !model.marked.contains(r.code()))
                    .findFirst()
                    .ifPresent(r -> model.breach(
                            r.code(), "%s was not made before the tension went".formatted(r.name()), Law.HELD_LOOPS));
            return;
        }
        in(l, Hardware.InBefore.TENSION_OFF);
    }

    /** Hardware of a loop that belongs in by now. */
    private void in(Loop l, Hardware.InBefore... by) {
        model.book.hardware().stream()
                .filter(h -> h.loops().contains(l.code())
                        && h.kind() != Hardware.Kind.TIE
                        && h.kind() != Hardware.Kind.TENSIONER_PIN
                        && List.of(by).contains(h.inBefore())
                        && !(model.loop(l.code()).scratch
                                && model.loop(l.code()).on()
                                && h.waitsForMarks())
                        && !model.in.contains(h.code()))
                .findFirst()
                .ifPresent(h -> model.breach(h.code(), "%s is not in".formatted(h.name()), Law.FOUND_AND_HELD));
    }

    void loopOff(String thing) {
        LoopModel loop = model.loops.get(thing);
        if (loop == null || !loop.on()) {
            model.breach(thing, "%s is off already".formatted(model.name(thing)), Law.CLOSED);
            return;
        }
        Loop l = loop.loop;
        model.inTheWayOf(thing)
                .ifPresent(w -> model.breach(w, "%s lies before %s".formatted(model.name(w), l.name()), Law.REACH));
        boolean tensionerComesOff = l.tensioner()
                .filter(t -> model.off.contains(t.part()) || model.comes(Verb.TAKE_OFF, t.part()))
                .isPresent();
        if (loop.stand == LoopModel.Stand.TENSIONED) {
            model.breach(thing, "%s still has its tension".formatted(l.name()), Law.TENSIONER);
            in(l, Hardware.InBefore.TENSION_OFF);
        } else if (!tensionerComesOff
                && l.tensioner()
                        .flatMap(Loop.Tensioner::pin)
                        .filter(p -> !model.in.contains(p))
                        .isPresent()) {
            model.breach(thing, "the tensioner is not pinned back", Law.TENSIONER);
        }
        in(l, Hardware.InBefore.LOOP_OFF);
        if (!loop.scratch && (!model.position.equals(Optional.of(l.position())) || model.opposite)) {
            model.breach(thing, "%s comes off at %s".formatted(l.name(), model.name(l.position())), Law.FOUND_AND_HELD);
        }
        model.book.references().stream()
                .filter(r -> !loop.scratch && r.loops().contains(thing) && r.trustedBefore())
                .filter(r -> r.own() ? !model.marked.contains(r.code()) : !model.found.contains(r.code()))
                .findFirst()
                .ifPresent(r -> model.breach(
                        r.code(), "%s was not found before it comes off".formatted(r.name()), Law.FOUND_AND_HELD));
        model.unheld(l).filter(s -> !loop.scratch).ifPresent(s -> {
            loop.lost = true;
            model.breach(s.code(), "%s moves by itself and nothing holds it".formatted(s.name()), Law.FOUND_AND_HELD);
        });
        if (!model.goesOnNew(thing) && !model.marked.contains(thing)) {
            model.breach(
                    thing,
                    "%s goes back and is not marked for its direction".formatted(l.name()),
                    Law.HELD_LOOPS,
                    Law.CLOSED);
        }
        loop.stand = LoopModel.Stand.OFF;
        loop.laid = false;
        loop.touched = true;
        loop.cameOff = true;
        model.compared.remove(thing);
        model.lookedAt.remove(thing);
    }

    void look(String thing) {
        Optional<Reference> reference = model.book.reference(thing);
        if (reference.isPresent()) {
            Reference r = reference.get();
            model.cannotBeRead(r).ifPresent(why -> model.breach(thing, why, Law.FOUND_AND_HELD, Law.REACH));
            boolean laying = r.trust() == Reference.Trust.LAYING_ONLY;
            if (laying
                    && !r.loops().isEmpty()
                    && r.loops().stream().map(model::loop).allMatch(l -> l.stand == LoopModel.Stand.TENSIONED)) {
                model.breach(
                        thing, "%s is read before the tensioner is let go".formatted(r.name()), Law.FOUND_AND_HELD);
            }
            if (laying && r.loops().stream().map(model::loop).anyMatch(l -> !l.on())) {
                model.breach(thing, "there is nothing laid yet to read %s on".formatted(r.name()), Law.FOUND_AND_HELD);
            }
            if (laying) {
                model.lookedAt.add(thing);
            }
            return;
        }
        if (model.book.assembly(thing).isPresent() && model.off.contains(thing)) {
            return;
        }
        model.inTheWayOf(thing)
                .ifPresent(w -> model.breach(
                        w, "%s hides %s".formatted(model.name(w), model.name(thing)), Law.REACH, Law.BEFORE_IT_HIDES));
        model.lookedAt.add(thing);
    }

    void lay(String thing) {
        LoopModel loop = model.loops.get(thing);
        if (loop == null || loop.on()) {
            model.breach(thing, "%s is on already".formatted(model.name(thing)), Law.REACH, Law.CLOSED);
            return;
        }
        Loop l = loop.loop;
        for (Assembly a : model.book.assemblies()) {
            if (model.book.inFrontOf(a.code()).contains(thing) && model.off.contains(a.code())) {
                model.breach(a.code(), "%s goes on before %s behind it".formatted(l.name(), a.name()), Law.REACH);
                break;
            }
        }
        for (LoopModel other : model.loops.values()) {
            if (model.book.inFrontOf(other.loop.code()).contains(thing) && !other.on()) {
                model.breach(other.loop.code(), "%s cannot pass %s".formatted(other.loop.name(), l.name()), Law.REACH);
                break;
            }
        }
        model.book.hiddenBehind(thing).stream()
                .filter(model::isOpen)
                .findFirst()
                .ifPresent(j -> model.breach(
                        j.code(), "%s hides %s, which is not done up".formatted(l.name(), j.name()), Law.REACH));
        // what lies before the loop is off, or it could not be put on
        model.inTheWayOf(thing)
                .ifPresent(w -> model.breach(
                        w, "%s is in the way: %s cannot be got over it".formatted(model.name(w), l.name()), Law.REACH));
        if (!model.position.equals(Optional.of(l.position())) || model.opposite) {
            model.breach(
                    thing,
                    "%s goes on at %s".formatted(l.name(), model.name(l.position())),
                    Law.FOUND_AND_HELD,
                    Law.PROVEN);
        }
        in(l, Hardware.InBefore.LOOP_OFF, Hardware.InBefore.TENSION_OFF);
        setFromScratch(loop);
        model.unheld(l).ifPresent(s -> {
            loop.lost = true;
            model.breach(s.code(), "%s moves by itself and nothing holds it".formatted(s.name()), Law.FOUND_AND_HELD);
        });
        stagesDueBeforeLaying(l);
        boolean fresh = model.goesOnNew(thing);
        if (fresh && !model.compared.contains(thing)) {
            model.breach(thing, "the new %s was not held beside the old".formatted(l.name()), Law.DONE);
        }
        if (!fresh && !model.lookedAt.contains(thing)) {
            model.breach(thing, "%s goes back and nobody looked at it".formatted(l.name()), Law.HELD_LOOPS);
        }
        if (fresh) {
            counted(thing);
        }
        model.book.references().stream()
                .filter(r -> r.loops().contains(thing))
                .map(Reference::code)
                .forEach(model.lookedAt::remove);
        loop.stand = LoopModel.Stand.LAID;
        loop.laid = true;
        loop.renewed = fresh;
        loop.settings = 0;
        loop.turned = false;
        loop.disturb(model.now);
        if (fresh) {
            model.fresh.add(thing);
            loop.lost = loop.lost && model.unheld(l).isPresent();
        }
    }

    /** What is counted on the old and the new is counted before the new one is on. */
    private void counted(String loop) {
        model.book.looks().stream()
                .filter(l -> l.kind() == Look.Kind.COUNT
                        && l.loop().filter(loop::equals).isPresent())
                .filter(l -> !model.measured.containsKey(l.code()))
                .findFirst()
                .ifPresent(l -> model.breach(
                        l.code(),
                        "%s was not counted before it is laid".formatted(l.name()),
                        Law.FOUND_AND_HELD,
                        Law.BEFORE_IT_HIDES));
    }

    /** What serves laying only is read before the last of its loops has its tension. */
    private void readWhileLaid(LoopModel loop) {
        model.book.references().stream()
                .filter(r -> r.trust() == Reference.Trust.LAYING_ONLY
                        && loop.laid
                        && r.loops().contains(loop.loop.code()))
                .filter(r -> r.loops().stream().map(model::loop).allMatch(l -> l.stand == LoopModel.Stand.TENSIONED))
                .filter(r -> !model.lookedAt.contains(r.code()))
                .findFirst()
                .ifPresent(r -> model.breach(
                        r.code(),
                        "%s was not read before the tensioner is let go".formatted(r.name()),
                        Law.FOUND_AND_HELD));
    }

    /** Found out of time: every shaft is set to its mark, and what can be read is read true, before it is laid. */
    private void setFromScratch(LoopModel loop) {
        if (!loop.scratch) {
            return;
        }
        String name = loop.loop.name();
        model.notSet(loop)
                .ifPresent(s -> model.breach(
                        s.code(),
                        "%s was found out of time and %s is not at its mark".formatted(name, s.name()),
                        Law.FOUND_AND_HELD,
                        Law.PROVEN));
        List<Reference> by = model.setBy(loop);
        List<Reference> own = by.isEmpty() ? model.ownMarks(loop) : List.of();
        own.stream()
                .filter(r -> !model.marked.contains(r.code()))
                .findFirst()
                .ifPresent(r -> model.breach(
                        r.code(),
                        "%s was not made anew before %s is laid".formatted(r.name(), name),
                        Law.FOUND_AND_HELD,
                        Law.PROVEN));
        if (by.isEmpty() && own.isEmpty()) {
            model.breach(
                    loop.loop.code(),
                    "the book has no reference by which %s could be set once it is out of time".formatted(name),
                    Law.FOUND_AND_HELD,
                    Law.PROVEN);
        }
        by.stream()
                .filter(r -> !model.found.contains(r.code())
                        && r.hardware().filter(model.in::contains).isEmpty())
                .findFirst()
                .ifPresent(r -> model.breach(
                        r.code(),
                        "%s is not true again before %s is laid".formatted(r.name(), name),
                        Law.FOUND_AND_HELD));
        loop.scratch = false;
        loop.lost = false;
    }

    private void stagesDueBeforeLaying(Loop l) {
        model.book.joints().stream()
                .filter(model::isOpen)
                .filter(j -> j.loop().filter(l.code()::equals).isPresent())
                .filter(j ->
                        j.stages().get(model.joints.getOrDefault(j.code(), 0)).until() == Joint.Moment.LAID)
                .findFirst()
                .ifPresent(j -> model.breach(
                        j.code(),
                        "%s is done up before %s is laid".formatted(j.name(), l.name()),
                        Law.CLOSED,
                        Law.MOVEMENTS));
    }

    void tension(String thing) {
        LoopModel loop = model.loops.get(thing);
        if (loop == null) {
            model.breach(thing, "there is no loop %s".formatted(thing), Law.TENSIONER);
            return;
        }
        Optional<Loop.Tensioner> tensioner = loop.loop.tensioner();
        if (tensioner.filter(t -> t.letGo() == Loop.LetGo.SET).isEmpty()) {
            letGo(loop, model.name(thing));
            return;
        }
        if (!loop.on()) {
            model.breach(thing, "%s is not on".formatted(loop.loop.name()), Law.TENSIONER);
        }
        onEveryWheel(loop);
        if (model.tensionerIsOff(loop.loop)) {
            model.breach(thing, "the tensioner is not on", Law.TENSIONER);
        }
        boolean first = loop.stand != LoopModel.Stand.TENSIONED;
        if (first) {
            loop.disturb(model.now);
        }
        // slackening that belongs to setting the tension is not undoing
        tensioner.ifPresent(t -> model.book.jointsOf(t.part()).forEach(j -> {
            Integer reached = model.joints.get(j.code());
            if (reached == null) {
                model.joints.put(j.code(), 0);
            } else if (reached == j.stages().size()) {
                model.joints.put(j.code(), reached - 1);
            }
        }));
        loop.touched = true;
        loop.stand = LoopModel.Stand.TENSIONED;
        readWhileLaid(loop);
        loop.tensioned = model.now;
        if (first || loop.turned) {
            loop.settings++;
        }
        if (loop.turned) {
            loop.lookAgain = model.now;
        }
    }

    /** The new tensioner puts the tension in. */
    private void letGo(LoopModel loop, String by) {
        Loop l = loop.loop;
        String part = l.tensioner().map(Loop.Tensioner::part).orElse(l.code());
        if (!loop.on()) {
            model.breach(l.code(), "%s lets go before %s is laid".formatted(by, l.name()), Law.TENSIONER);
        }
        if (model.off.contains(part)) {
            model.breach(part, "%s is not on".formatted(model.name(part)), Law.TENSIONER);
        } else if (!model.isTight(part)) {
            model.breach(part, "%s is not tight before it is let go".formatted(model.name(part)), Law.TENSIONER);
        }
        model.book.joints().stream()
                .filter(model::isOpen)
                .filter(j -> j.loop().filter(l.code()::equals).isPresent())
                .filter(j ->
                        j.stages().get(model.joints.getOrDefault(j.code(), 0)).until() == Joint.Moment.TENSIONED)
                .findFirst()
                .ifPresent(j -> model.breach(
                        j.code(),
                        "%s is done up before the tensioner is let go".formatted(j.name()),
                        Law.CLOSED,
                        Law.TENSIONER));
        onEveryWheel(loop);
        if (loop.held && !tied(l)) {
            model.breach(l.code(), "let go while nothing holds %s".formatted(l.name()), Law.HELD_LOOPS);
        }
        loop.touched = true;
        if (loop.on()) {
            loop.stand = LoopModel.Stand.TENSIONED;
            readWhileLaid(loop);
        }
        loop.tensioned = model.now;
        loop.settings++;
        loop.disturb(model.now);
        loop.turned = false;
    }

    private boolean tied(Loop l) {
        List<Hardware> ties = model.book.hardware().stream()
                .filter(h -> h.kind() == Hardware.Kind.TIE && h.loops().contains(l.code()))
                .toList();
        return !ties.isEmpty() && ties.stream().allMatch(h -> model.in.contains(h.code()));
    }

    private void onEveryWheel(LoopModel loop) {
        loop.loop.wheels().stream()
                .filter(model.off::contains)
                .findFirst()
                .ifPresent(w -> model.breach(
                        w,
                        "%s is not on: the loop does not run over every wheel".formatted(model.name(w)),
                        Law.TENSIONER,
                        Law.REACH));
    }

    void prove(String thing) {
        Optional<Reference> there = model.book.reference(thing);
        if (there.isEmpty()) {
            model.breach(thing, "%s proves nothing".formatted(model.name(thing)), Law.PROVEN);
            return;
        }
        Reference r = there.get();
        int before = model.breaches.size();
        if (r.trust() == Reference.Trust.WHILE_HELD) {
            proveHeld(r);
        } else {
            proveTurned(r);
        }
        if (model.breaches.size() == before) {
            model.proven.put(thing, model.now);
        }
    }

    private void proveHeld(Reference r) {
        for (String code : r.loops()) {
            LoopModel l = model.loop(code);
            if (!model.marked.contains(r.code())) {
                model.breach(r.code(), "%s was never made".formatted(r.name()), Law.HELD_LOOPS, Law.FOUND_AND_HELD);
            }
            if (l.stand != LoopModel.Stand.TENSIONED) {
                model.breach(r.code(), "%s is not tensioned yet".formatted(l.loop.name()), Law.HELD_LOOPS);
            }
            if (!tied(l.loop) || l.turned || l.turns > 0) {
                model.breach(
                        r.code(),
                        "%s says nothing once the ties are out or the engine was turned".formatted(r.name()),
                        Law.HELD_LOOPS,
                        Law.PROVEN);
            }
        }
        model.cannotBeRead(r).ifPresent(why -> model.breach(r.code(), why, Law.HELD_LOOPS, Law.REACH));
    }

    private void proveTurned(Reference r) {
        if (!r.trustedAfter()) {
            model.breach(r.code(), "%s does not prove the timing".formatted(r.name()), Law.PROVEN);
        }
        r.hardware().flatMap(model.book::hardware).ifPresent(h -> {
            if (!h.expectedBack()) {
                model.breach(r.code(), "%s is not expected back".formatted(h.name()), Law.PROVEN);
            }
            if (!model.in.contains(h.code())) {
                model.breach(r.code(), "%s is not in again".formatted(h.name()), Law.PROVEN);
            }
        });
        if (r.own() && !model.marked.contains(r.code())) {
            model.breach(r.code(), "%s was never made".formatted(r.name()), Law.PROVEN, Law.FOUND_AND_HELD);
        }
        atItsPosition(r, Law.PROVEN);
        model.cannotBeRead(r).ifPresent(why -> model.breach(r.code(), why, Law.PROVEN, Law.REACH));
        for (String code : r.loops()) {
            LoopModel l = model.loop(code);
            if (!l.touched) {
                continue;
            }
            if (l.stand != LoopModel.Stand.TENSIONED) {
                model.breach(r.code(), "%s is not tensioned".formatted(l.loop.name()), Law.PROVEN);
            } else if (l.turns < 2) {
                model.breach(
                        r.code(),
                        "two whole turns have not followed the last thing that moves %s".formatted(l.loop.name()),
                        Law.PROVEN);
            } else if (l.lost) {
                model.breach(r.code(), "%s is out of time".formatted(l.loop.name()), Law.PROVEN);
            }
        }
    }

    void measure(String thing) {
        Optional<Look> there = model.book.look(thing);
        if (there.isEmpty()) {
            model.breach(thing, "there is nothing called %s to measure".formatted(thing), Law.BEFORE_IT_HIDES);
            return;
        }
        Look look = there.get();
        look.off().stream()
                .filter(a -> model.book.assembly(a).isPresent() && !model.off.contains(a))
                .findFirst()
                .ifPresent(a ->
                        model.breach(thing, "%s hides it".formatted(model.name(a)), Law.BEFORE_IT_HIDES, Law.REACH));
        look.on().stream()
                .filter(a -> !model.isOn(a) || (look.kind() == Look.Kind.GAP && !model.isTight(a)))
                .findFirst()
                .ifPresent(a -> model.breach(
                        thing,
                        "%s is not %s".formatted(model.name(a), model.isOn(a) ? "tight" : "on"),
                        Law.BEFORE_IT_HIDES));
        look.loop().map(model::loop).ifPresent(l -> {
            if (look.kind() == Look.Kind.WINDOW && (l.stand != LoopModel.Stand.TENSIONED || l.turns < 2)) {
                model.breach(thing, "%s is read after the turns".formatted(look.name()), Law.TENSIONER, Law.PROVEN);
            } else if (look.kind() == Look.Kind.COUNT && l.laid) {
                model.breach(
                        thing,
                        "%s: the new one is on already".formatted(look.name()),
                        Law.FOUND_AND_HELD,
                        Law.BEFORE_IT_HIDES);
            }
        });
        model.measured.put(thing, model.now);
    }
}
