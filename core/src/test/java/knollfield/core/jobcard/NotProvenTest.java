package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.Families;
import knollfield.core.dryrun.DryRun;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.grow.GrownBuild;
import knollfield.core.engine.work.Breach;
import knollfield.core.engine.work.Goal;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.Kinds;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** The timing does not prove true after the turns, once or twice: what hands then do keeps every law. */
class NotProvenTest {

    /** What shows that it does not prove. */
    private enum By {
        REFERENCE,
        WINDOW,
        HARD_STOP
    }

    private record Job(EngineFamily family, Set<String> items, By by, int times) {
        @Override
        public String toString() {
            return "%s %s, %s %d times".formatted(family.code(), items, by, times);
        }
    }

    static Stream<Job> jobs() {
        List<EngineFamily> families = new ArrayList<>();
        Kinds.all().stream().map(Kind::code).map(RoutedCardTest::family).forEach(families::add);
        for (CrankFit fit : CrankFit.values()) {
            for (TensionerKind tensioner : TensionerKind.values()) {
                families.add(GrownBuild.grown(Families.belt(tensioner, true, fit, Interference.YES)));
            }
        }
        return families.stream().flatMap(f -> {
            List<String> items = f.items().stream()
                    .map(Item::code)
                    .filter(i -> !f.build().orElseThrow().things(i).isEmpty())
                    .toList();
            return Stream.concat(items.stream().map(Set::of), Stream.of(Set.copyOf(items)))
                    .flatMap(i -> Stream.of(By.values())
                            .flatMap(by -> Stream.of(1, 2).map(times -> new Job(f, i, by, times))));
        });
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("jobs")
    void whatHandsDoKeepsEveryLaw(Job job) {
        Hands hands = new Hands(CardGenerator.generate(job.family(), Set.of(), job.items()));
        for (int i = 0; i < job.times(); i++) {
            if (!hands.until(job.by())) {
                return;
            }
            hands.fails(job.by());
            assertThat(hands.state.attempt()).isEqualTo(i + 2);
        }
        boolean byList = hands.state.plan().correctsByList();
        while (hands.state.next().isPresent()) {
            hands.answer();
        }
        hands.enter(new CardEvent.Completed(""));
        assertThat(hands.state.signature()).isPresent();
        // a chain that is only held is not laid, and cannot be: its book says no more
        assertThat(byList).as("by list: %s", job).isEqualTo(job.family().code().equals("T-e11"));
        if (byList) {
            return;
        }
        assertThat(hands.breaches()).as("%s, done: %s", job, hands.did).isEmpty();
    }

    private static final class Hands {
        private CardState state;
        private final List<Operation> did = new ArrayList<>();

        Hands(CardPlan plan) {
            state = CardState.fresh(plan);
            enter(new CardEvent.Started(138_000, "keys here"));
        }

        boolean until(By by) {
            while (state.next().isPresent()) {
                Step next = state.next().get();
                boolean here = switch (by) {
                    case REFERENCE -> next.task() instanceof Task.TrueMarks && next.provesReferences();
                    case WINDOW ->
                        next.task() instanceof Task.Measure
                                && next.operations().stream().anyMatch(o -> o.verb() == Verb.MEASURE)
                                && next.provesTiming();
                    case HARD_STOP -> next.task() instanceof Task.Turn t && t.number() == 2;
                };
                if (here) {
                    return true;
                }
                answer();
            }
            return false;
        }

        void fails(By by) {
            Step at = state.next().orElseThrow();
            int before = state.did().size();
            enter(
                    switch (by) {
                        case REFERENCE ->
                            new CardEvent.MarksRead(
                                    at.code(),
                                    Set.of(((Task.TrueMarks) at.task())
                                            .references()
                                            .get(0)));
                        case WINDOW -> new CardEvent.Measured(at.code(), ((Task.Measure) at.task()).low() - 1);
                        case HARD_STOP -> new CardEvent.HardStop("at a quarter");
                    });
            did.addAll(state.did()
                    .subList(Math.min(before, state.did().size()), state.did().size()));
        }

        void answer() {
            Step step = state.next().orElseThrow();
            boolean counted = state.plan().steps().stream()
                    .takeWhile(s -> !s.code().equals(step.code()))
                    .anyMatch(
                            s -> !step.operations().isEmpty() && s.operations().equals(step.operations()));
            if (!counted) {
                did.addAll(step.operations());
            }
            boolean open = step.task() instanceof Task.Tighten t && t.spec().isEmpty();
            enter(
                    open
                            ? new CardEvent.TorqueEntered(
                                    step.code(),
                                    100,
                                    knollfield.core.units.TorqueUnit.NEWTON_METRE,
                                    java.util.OptionalInt.empty(),
                                    true)
                            : BookAnswer.to(step));
        }

        void enter(CardEvent event) {
            state = state.after(
                    new CardEntry(state.seq() + 1, Bench.NOW.plusSeconds(60 * state.seq()), "Hedra Voss", true, event));
        }

        List<Breach> breaches() {
            CardBasis basis = state.plan().basis();
            EngineFamily family = basis.family().settled(basis.scope().variants());
            Goal goal = new Goal(RoutedCard.goal(
                    family, family.build().orElseThrow(), basis.scope().items()));
            return DryRun.prove(new Anatomy(family.build().orElseThrow(), Set.of()), goal, did)
                    .breaches();
        }
    }
}
