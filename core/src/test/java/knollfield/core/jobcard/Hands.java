package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.dryrun.DryRun;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.work.Breach;
import knollfield.core.engine.work.Goal;
import knollfield.core.engine.work.Operation;
import knollfield.core.units.Torque;

/** Answers what a card asks next, and remembers what was done, in its order. */
final class Hands {

    CardState state;
    final List<Operation> did = new ArrayList<>();

    Hands(CardPlan plan) {
        state = CardState.fresh(plan);
        enter(new CardEvent.Started(138_000, "keys here"));
    }

    boolean goesOn() {
        return state.next().isPresent();
    }

    boolean mayGoOn() {
        return state.next().filter(s -> !state.awaitsOwner(s)).isPresent();
    }

    void toTheEnd() {
        while (goesOn()) {
            answer();
        }
        enter(new CardEvent.Completed(""));
    }

    void answer() {
        Step step = state.next().orElseThrow();
        if (step.task() instanceof Task.Tighten t && t.spec().isEmpty()) {
            enter(new CardEvent.TorqueFiled(
                    step.code(), new TorqueSpec(new Torque(100), OptionalInt.empty(), "the manufacturer")));
            return;
        }
        // a second step of one operation, such as the second turn, is the same thing done
        boolean counted = state.plan().steps().stream()
                .takeWhile(s -> !s.code().equals(step.code()))
                .anyMatch(s -> !step.operations().isEmpty() && s.operations().equals(step.operations()));
        if (!counted) {
            did.addAll(step.operations());
        }
        enter(BookAnswer.to(step));
    }

    /** Enters what is no step; what the card records by itself counts as done. */
    void tell(CardEvent event) {
        int before = state.did().size();
        enter(event);
        did.addAll(state.did()
                .subList(Math.min(before, state.did().size()), state.did().size()));
    }

    void enter(CardEvent event) {
        state = state.after(
                new CardEntry(state.seq() + 1, Bench.NOW.plusSeconds(60 * state.seq()), "Hedra Voss", false, event));
    }

    /** What was broken after the first {@code before} things done. */
    List<Breach> breaches(int before) {
        CardBasis basis = state.plan().basis();
        EngineFamily family = basis.family().settled(basis.scope().variants());
        Anatomy book = new Anatomy(family.build().orElseThrow(), basis.equipment());
        Goal goal = new Goal(RoutedCard.goal(
                family, family.build().orElseThrow(), Set.copyOf(state.scope().items())));
        return DryRun.goesOn(book, goal, did.subList(0, before), did.subList(before, did.size()))
                .breaches();
    }
}
