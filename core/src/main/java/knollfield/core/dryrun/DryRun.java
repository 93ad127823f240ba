package knollfield.core.dryrun;

import java.util.ArrayList;
import java.util.List;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.work.EngineState;
import knollfield.core.engine.work.Goal;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;

/**
 * Runs a card dry. After a breach the run goes on as if the operation had been done, so that one fault does not hide the
 * next.
 */
public final class DryRun {

    private final Model model;
    private final HandsOn hands;
    private final Timing timing;
    private final Movement movement;
    private final Ending ending;

    private DryRun(Model model) {
        this.model = model;
        this.hands = new HandsOn(model);
        this.timing = new Timing(model);
        this.movement = new Movement(model);
        this.ending = new Ending(model);
    }

    /** A whole card on a closed engine: every law of the verbs and of the end. */
    public static Verdict prove(Anatomy book, Goal goal, List<Operation> card) {
        Model model = new Model(book, goal, card);
        DryRun run = new DryRun(model);
        card.forEach(run::take);
        model.end();
        run.ending.atTheEnd();
        return new Verdict(model.breaches);
    }

    /** What is broken by {@code rest} and by the end, after {@code done}; what was broken before is past. */
    public static Verdict goesOn(Anatomy book, Goal goal, List<Operation> done, List<Operation> rest) {
        List<Operation> all = new ArrayList<>(done);
        all.addAll(rest);
        Model model = new Model(book, goal, all);
        DryRun run = new DryRun(model);
        done.forEach(run::take);
        model.breaches.clear();
        model.fresh.removeIf(thing -> isOld(book, thing, done));
        rest.forEach(run::take);
        model.end();
        run.ending.atTheEnd();
        return new Verdict(model.breaches);
    }

    /** How {@code done} leaves an engine, whatever it was done for. */
    public static EngineState upTo(Anatomy book, Goal goal, List<Operation> done) {
        Model model = new Model(book, goal, done);
        DryRun run = new DryRun(model);
        done.forEach(run::take);
        model.fresh.removeIf(thing -> isOld(book, thing, done));
        return model.state();
    }

    /** A part or loop that nobody held beside an old one is the old one, whatever is wanted now. */
    private static boolean isOld(Anatomy book, String thing, List<Operation> done) {
        boolean compared = book.assembly(thing).isPresent() || book.loop(thing).isPresent();
        return compared && done.stream().noneMatch(o -> o.is(Verb.COMPARE, thing));
    }

    private void take(Operation o) {
        model.begin(o);
        under(o);
        openings(o);
        String thing = o.thing();
        switch (o.verb()) {
            case SAFE -> model.batteryOff = true;
            case RAISE -> model.raised = true;
            case DRAIN -> hands.drain(thing);
            case UNDO -> hands.undo(thing);
            case TAKE_OFF -> hands.takeOff(thing);
            case COVER -> hands.cover(thing);
            case COMPARE -> hands.compare(thing);
            case MOVE_OVER -> hands.moveOver(thing);
            case FIT -> hands.fit(thing);
            case FOR_NOW -> hands.forNow(thing);
            case TIGHTEN -> hands.tighten(thing, o.stage());
            case FILL -> hands.fill(thing);
            case SET_IN -> timing.setIn(thing);
            case OUT -> timing.out(thing);
            case FIND -> timing.find(thing);
            case LOST -> timing.lost(thing);
            case SHEARED -> hands.sheared(thing);
            case REPAIR -> hands.repair(thing);
            case MISSING -> hands.missing(thing);
            case SEARCH -> hands.search(thing);
            case MARK -> timing.mark(thing, o.round());
            case RELEASE -> timing.release(thing);
            case LOOP_OFF -> timing.loopOff(thing);
            case LOOK -> timing.look(thing);
            case LAY -> timing.lay(thing);
            case TENSION -> timing.tension(thing);
            case PROVE -> timing.prove(thing);
            case MEASURE -> timing.measure(thing);
            case TURN -> movement.turn(thing);
            case BRING -> movement.bring(thing, false);
            case BACK -> movement.bring(thing, true);
            case CREEP -> movement.creep(thing);
            case START -> ending.start(thing);
            case CHECK -> ending.check(thing);
            case LABEL -> ending.label(thing);
            case CLOSE -> ending.close(thing);
        }
    }

    /** Battery off before hands are in; stands before anyone is under it. */
    private void under(Operation o) {
        boolean handsIn = switch (o.verb()) {
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
        if (handsIn && !model.batteryOff) {
            model.breach(o.thing(), "hands are in while the battery is on", Law.UNDER_IT);
        }
        boolean below = o.verb() == Verb.DRAIN
                || (List.of(Verb.UNDO, Verb.TAKE_OFF, Verb.FIT, Verb.TIGHTEN, Verb.FOR_NOW)
                                .contains(o.verb())
                        && model.book.assembly(o.thing()).filter(a -> a.under()).isPresent());
        if (below && !model.raised) {
            model.breach(o.thing(), "somebody is under it before it stands", Law.UNDER_IT);
        }
    }

    /** A way in that stands open is covered next, unless one only looks. */
    private void openings(Operation o) {
        if (o.verb() == Verb.COVER
                || o.verb().isRecorded()
                || o.verb() == Verb.LOOK
                || o.verb() == Verb.FIND
                || o.verb() == Verb.MARK
                || o.verb() == Verb.MEASURE) {
            return;
        }
        model.openings.forEach((opening, covered) -> {
            if (!covered) {
                model.breach(
                        opening, "%s stands open and nobody works in it".formatted(model.name(opening)), Law.OPENINGS);
            }
        });
    }
}
