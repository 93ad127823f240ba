package knollfield.core.route;

import java.util.LinkedHashSet;
import java.util.Optional;
import java.util.Set;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Wheel;
import knollfield.core.engine.work.EngineState;
import knollfield.core.engine.work.Goal;

/** All that a job takes with it: what comes off, what is undone, which loops are opened, held or only touched. */
final class Scope {

    final Anatomy book;
    final Goal goal;

    /** Assemblies that come off, or are off. */
    final Set<String> off = new LinkedHashSet<>();
    /** Joints that are undone. */
    final Set<String> undone = new LinkedHashSet<>();
    /** Loops that come off and go on. */
    final Set<String> opened = new LinkedHashSet<>();
    /** Loops of these that were found out of time. */
    final Set<String> lost = new LinkedHashSet<>();
    /** Loops that stay on while their tensioner comes off. */
    final Set<String> held = new LinkedHashSet<>();
    /** Loops whose timing a wheel could lose while they stay on. */
    final Set<String> touched = new LinkedHashSet<>();

    final Set<String> fluids = new LinkedHashSet<>();
    /** What turns the crank and is in for now. */
    final Set<String> forNow = new LinkedHashSet<>();
    /** Joints a stub of which is in. */
    final Set<String> sheared = new LinkedHashSet<>();
    /** Parts that came off with a piece missing. */
    final Set<String> missing = new LinkedHashSet<>();

    /** @param open what stands open already, and is closed with the rest */
    Scope(Anatomy book, Goal goal, EngineState open) {
        this.book = book;
        this.goal = goal;
        // a tensioner that is off lets go of no loop that is held on its wheels
        open.loops().forEach((code, l) -> {
            if (l.held() && !l.lost()) {
                hold(code);
            }
        });
        open.joints()
                .forEach((joint, stage) ->
                        book.joint(joint).filter(j -> stage < j.stages().size()).ifPresent(this::undo));
        open.off().forEach(this::takeOff);
        open.loops().forEach((code, l) -> {
            if (l.lost()) {
                lost.add(code);
                open(code);
            } else if (!l.held() && (l.cameOff() || l.stand() != EngineState.Stand.TENSIONED)) {
                open(code);
            } else if (!l.held() && l.touched() && !l.proven()) {
                touch(code);
            }
        });
        fluids.addAll(open.drained());
        open.forNow().stream().filter(t -> book.turner(t).isPresent()).forEach(forNow::add);
        open.sheared().stream().flatMap(j -> book.joint(j).stream()).forEach(j -> {
            sheared.add(j.code());
            undo(j);
            j.holds().forEach(this::takeOff);
        });
        if (!open.missing().isEmpty()) {
            missing.addAll(open.missing());
            open.missing().forEach(this::takeOff);
            book.catchesPieces().forEach(a -> takeOff(a.code()));
        }
        for (String thing : goal.things()) {
            boolean fasteners = false;
            for (Joint j : book.joints()) {
                if (j.fasteners().filter(thing::equals).isPresent()) {
                    undo(j);
                    fasteners = true;
                }
            }
            if (book.loop(thing).isPresent()) {
                open(thing);
            } else if (book.fluid(thing).isPresent()) {
                fluids.add(thing);
            } else if (book.assembly(thing).isPresent()) {
                takeOff(thing);
            } else if (!fasteners) {
                book.joint(thing).ifPresent(this::undo);
            }
        }
    }

    private void takeOff(String code) {
        Optional<Assembly> there = book.assembly(code);
        if (there.isEmpty() || !off.add(code)) {
            return;
        }
        Assembly a = there.get();
        for (String before : book.before(code)) {
            if (book.loop(before).isPresent()) {
                open(before);
            } else {
                takeOff(before);
            }
        }
        book.jointsOf(code).forEach(this::undo);
        fluids.addAll(a.letsOut());
        for (Loop loop : book.loops()) {
            boolean tensioner =
                    loop.tensioner().filter(t -> t.part().equals(code)).isPresent();
            boolean tied = book.hardware().stream()
                    .anyMatch(h -> h.kind() == Hardware.Kind.TIE && h.loops().contains(loop.code()));
            if (tensioner && tied && !opened.contains(loop.code())) {
                hold(loop.code());
            } else if (tensioner || loop.wheels().contains(code)) {
                open(loop.code());
            }
        }
    }

    private void undo(Joint joint) {
        if (!undone.add(joint.code())) {
            return;
        }
        book.hiders(joint.code()).forEach(h -> {
            if (book.loop(h).isPresent()) {
                open(h);
            } else {
                takeOff(h);
            }
        });
        if (joint.fasteners().isPresent()) {
            joint.holds().stream().filter(h -> book.assembly(h).isPresent()).forEach(this::takeOff);
        }
        joint.holders().stream().limit(1).forEach(this::reach);
        joint.pinned().forEach(this::reach);
        for (Wheel w : book.madeFastBy(joint.code())) {
            for (Loop loop : book.loops()) {
                if (loop.shafts().contains(w.shaft())) {
                    touch(loop.code());
                }
            }
        }
        for (Loop loop : book.loops()) {
            // a tensioner whose nut is undone has let go
            if (loop.tensioner().filter(t -> joint.holds().contains(t.part())).isPresent()
                    && !held.contains(loop.code())
                    && !off.contains(loop.tensioner().get().part())) {
                open(loop.code());
            }
        }
    }

    private void reach(String hardware) {
        book.hardware(hardware).ifPresent(h -> h.off().forEach(this::takeOff));
    }

    private void open(String code) {
        if (!opened.add(code)) {
            return;
        }
        held.remove(code);
        Loop loop = book.loop(code).orElseThrow();
        for (String before : book.before(code)) {
            if (book.loop(before).isPresent()) {
                open(before);
            } else {
                takeOff(before);
            }
        }
        loop.slackenFirst().stream().flatMap(j -> book.joint(j).stream()).forEach(this::undo);
        if (loop.letOff() == Loop.LetOff.TENSIONER_OFF) {
            loop.tensioner().ifPresent(t -> takeOff(t.part()));
        }
        loop.tensioner()
                .ifPresent(t -> book.jointsOf(t.part())
                        .forEach(j -> book.hiders(j.code()).stream()
                                .filter(h -> book.assembly(h)
                                        .filter(a -> a.kind() == Assembly.Kind.COVER
                                                || a.kind() == Assembly.Kind.FRONT_COVER
                                                || a.kind() == Assembly.Kind.ROCKER_COVER)
                                        .isPresent())
                                .forEach(this::takeOff)));
        hardwareOf(code).forEach(h -> reach(h.code()));
        seen(code);
    }

    private void hold(String code) {
        if (opened.contains(code) || !held.add(code)) {
            return;
        }
        hardwareOf(code).forEach(h -> reach(h.code()));
        seen(code);
    }

    private void touch(String code) {
        if (!touched.add(code)) {
            return;
        }
        hardwareOf(code).stream().filter(Hardware::slidesIn).forEach(h -> reach(h.code()));
        seen(code);
    }

    /** What must be off to read references and windows of a loop. */
    private void seen(String loop) {
        book.references().stream()
                .filter(r -> r.loops().contains(loop))
                .filter(r -> r.trust() != Reference.Trust.NEVER && r.trust() != Reference.Trust.LAYING_ONLY)
                .forEach(r -> r.off().forEach(this::takeOff));
        book.looks().stream()
                .filter(l -> l.kind() == Look.Kind.WINDOW
                        && l.loop().filter(loop::equals).isPresent())
                .forEach(l -> l.off().forEach(this::takeOff));
    }

    /** Hardware that serves a loop, ties only where it is held, its tensioner's pin left out. */
    java.util.List<Hardware> hardwareOf(String loop) {
        return book.hardware().stream()
                .filter(h -> h.loops().contains(loop))
                .filter(h -> h.kind() != Hardware.Kind.TENSIONER_PIN)
                .filter(h -> (h.kind() == Hardware.Kind.TIE) == held.contains(loop))
                .toList();
    }

    /** Loops whose timing must be proven anew. */
    Set<String> toProve() {
        Set<String> all = new LinkedHashSet<>(opened);
        all.addAll(held);
        all.addAll(touched);
        return all;
    }

    boolean newPart(String thing) {
        return goal.renews(thing);
    }
}
