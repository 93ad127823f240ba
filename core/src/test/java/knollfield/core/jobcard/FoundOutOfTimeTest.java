package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.core.Families;
import knollfield.core.dryrun.DryRun;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.grow.GrownBuild;
import knollfield.core.engine.work.Breach;
import knollfield.core.engine.work.EngineState;
import knollfield.core.engine.work.Goal;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.Kinds;
import knollfield.core.route.Line;
import knollfield.core.route.Placed;
import knollfield.core.route.Router;
import knollfield.core.route.Stretch;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** An engine found out of time, at any moment before it is found true: what hands then do keeps every law. */
class FoundOutOfTimeTest {

    /** When it shows. */
    private enum Moment {
        /** At the first look: broken, or jumped. */
        AT_FIRST_LOOK,
        WHEN_THE_FIRST_REFERENCE_IS_READ,
        /** Everything but the last thing was found true. */
        WHEN_THE_LAST_IS_READ
    }

    private record Job(EngineFamily family, Set<String> items, Moment moment) {
        @Override
        public String toString() {
            return "%s %s %s".formatted(family.code(), items, moment);
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
                    .flatMap(i -> Stream.of(Moment.values()).map(m -> new Job(f, i, m)));
        });
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("jobs")
    void whatHandsDoKeepsEveryLaw(Job job) {
        CardPlan plan = CardGenerator.generate(job.family(), Set.of(), job.items());
        boolean opens =
                plan.steps().stream().flatMap(s -> s.operations().stream()).anyMatch(o -> o.verb() == Verb.LOOP_OFF);
        if (!opens) {
            return;
        }
        Hands hands = new Hands(plan);
        hands.until(job.moment());
        hands.foundOutOfTime(job.moment());
        List<String> order = hands.state.plan().steps().stream().map(Step::code).toList();
        assertThat(order).contains("safepos");
        while (hands.state.next().isPresent()) {
            hands.answer();
        }
        hands.enter(new CardEvent.Completed(""));

        assertThat(hands.state.signature()).isPresent();
        assertThat(DryRun.prove(hands.book(), hands.goal(), hands.did).breaches())
                .as("%s, done: %s", job, hands.did)
                .isEmpty();
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("knollfield.core.kinds.Kinds#all")
    void whatSetsItFromScratchIsMissedWhereItIsLeftOut(Kind kind) {
        Anatomy book = new Anatomy(kind.build(), Set.of());
        Set<String> loops = book.loops().stream().map(Loop::code).collect(Collectors.toSet());
        Goal goal = new Goal(loops);
        Line line = Router.lay(book, goal, EngineState.closed().lost(loops));
        List<Operation> all = line.operations();
        if (kind.code().equals("e11")) {
            // its chain stays on: the book has nothing by which it could be set
            assertThat(DryRun.prove(book, goal, all).breaches())
                    .extracting(Breach::toString)
                    .anyMatch(b -> b.contains("the book has no reference by which"));
            return;
        }
        assertThat(DryRun.prove(book, goal, all).breaches()).isEmpty();

        List<Operation> setting = line.placed().stream()
                .filter(p -> p.stretch() == Stretch.SCRATCH || p.operation().verb() == Verb.LOST)
                .map(Placed::operation)
                .toList();
        assertThat(setting).extracting(Operation::verb).contains(Verb.LOST, Verb.TURN);
        assertThat(setting).allSatisfy(left -> {
            List<Operation> without = all.stream().filter(o -> !o.equals(left)).toList();
            assertThat(DryRun.prove(book, goal, without).breaches())
                    .as("%s without %s", kind.code(), left)
                    .isNotEmpty();
        });
    }

    @Test
    void noShaftIsTurnedBeforeTheCrankStandsWhereItIsFree() {
        Kind kind = Kinds.kind("e09").orElseThrow();
        Anatomy book = new Anatomy(kind.build(), Set.of());
        Goal goal = new Goal(Set.of("a", "b"));
        List<Operation> right = Router.lay(book, goal, EngineState.closed().lost(Set.of("a", "b")))
                .operations();
        Operation parked =
                right.stream().filter(o -> o.verb() == Verb.BRING).findFirst().orElseThrow();
        Operation cam = Operation.of(Verb.TURN, "cbi");
        List<Operation> wrong = new ArrayList<>(right);
        wrong.remove(cam);
        wrong.add(wrong.indexOf(parked), cam);

        assertThat(DryRun.prove(book, goal, right).breaches()).isEmpty();
        assertThat(DryRun.prove(book, goal, wrong).breaches())
                .anySatisfy(b -> assertThat(b.laws()).contains(Law.MOVEMENTS));
    }

    /** Answers what the card asks next, and remembers what was done. */
    private static final class Hands {
        private CardState state;
        private final List<Operation> did = new ArrayList<>();

        Hands(CardPlan plan) {
            state = CardState.fresh(plan);
            enter(new CardEvent.Started(138_000, "keys here"));
        }

        void until(Moment moment) {
            boolean open = true;
            while (open) {
                Step next = state.next().orElseThrow();
                boolean look = next.code().equals("look");
                boolean finding =
                        next.gate().filter(g -> g == GateKind.REFERENCE_FOUND).isPresent();
                open = switch (moment) {
                    case AT_FIRST_LOOK -> !look && !finding;
                    case WHEN_THE_FIRST_REFERENCE_IS_READ -> !finding;
                    case WHEN_THE_LAST_IS_READ -> !finding || more(next);
                };
                if (open) {
                    answer();
                }
            }
        }

        /** Something else is found after this step. */
        private boolean more(Step step) {
            return state.plan().steps().stream()
                    .dropWhile(s -> !s.code().equals(step.code()))
                    .skip(1)
                    .anyMatch(s ->
                            s.gate().filter(g -> g == GateKind.REFERENCE_FOUND).isPresent());
        }

        void foundOutOfTime(Moment moment) {
            List<Operation> before = state.did();
            Step next = state.next().orElseThrow();
            boolean look = moment == Moment.AT_FIRST_LOOK && next.task() instanceof Task.Inspect;
            CardEvent found =
                    look ? new CardEvent.Inspected(next.code(), failed(next)) : new CardEvent.OutOfTime("a tooth out");
            enter(found);
            List<Operation> recorded = new ArrayList<>(state.did());
            before.forEach(recorded::remove);
            did.addAll(recorded);
        }

        private static String failed(Step look) {
            return ((Task.Inspect) look.task())
                    .says().entrySet().stream()
                            .filter(e -> e.getValue() == EvidenceKind.BELT_FAILED)
                            .map(java.util.Map.Entry::getKey)
                            .findFirst()
                            .orElseThrow();
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
            state = state.after(entry(event));
        }

        private CardEntry entry(CardEvent event) {
            return new CardEntry(state.seq() + 1, Bench.NOW.plusSeconds(60 * state.seq()), "Hedra Voss", false, event);
        }

        Anatomy book() {
            return new Anatomy(family().build().orElseThrow(), Set.of());
        }

        private EngineFamily family() {
            CardBasis basis = state.plan().basis();
            return basis.family().settled(basis.scope().variants());
        }

        Goal goal() {
            return new Goal(RoutedCard.goal(
                    family(),
                    family().build().orElseThrow(),
                    state.plan().basis().scope().items()));
        }
    }
}
