package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
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
import knollfield.core.engine.grow.RandomBooks;
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

    /** Books nobody wrote for it; more of them with {@code -Dknollfield.books=3000}. */
    private static final int BOOKS = Integer.getInteger("knollfield.books", 200);

    static Stream<Job> jobs() {
        List<EngineFamily> families = new ArrayList<>();
        Kinds.all().stream().map(Kind::code).map(RoutedCardTest::family).forEach(families::add);
        for (CrankFit fit : CrankFit.values()) {
            for (TensionerKind tensioner : TensionerKind.values()) {
                families.add(GrownBuild.grown(Families.belt(tensioner, true, fit, Interference.YES)));
            }
        }
        Stream<Job> known = families.stream().flatMap(f -> {
            List<String> items = f.items().stream()
                    .map(Item::code)
                    .filter(i -> !f.build().orElseThrow().things(i).isEmpty())
                    .toList();
            return Stream.concat(items.stream().map(Set::of), Stream.of(Set.copyOf(items)))
                    .flatMap(i -> Stream.of(Moment.values()).map(m -> new Job(f, i, m)));
        });
        Stream<Job> random = IntStream.range(0, BOOKS).mapToObj(seed -> {
            Random dice = new Random(seed);
            EngineFamily book = GrownBuild.grown(RandomBooks.any(dice));
            Set<String> items = RandomBooks.someItems(book, dice);
            return new Job(book, items, Moment.values()[dice.nextInt(Moment.values().length)]);
        });
        return Stream.concat(known, random);
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
        until(hands, job.moment());
        hands.tell(found(hands.state.next().orElseThrow(), job.moment()));
        assertThat(hands.state.plan().steps()).extracting(Step::code).contains("safepos");
        hands.toTheEnd();

        assertThat(hands.state.signature()).isPresent();
        assertThat(hands.breaches(0)).as("%s, done: %s", job, hands.did).isEmpty();
    }

    private static boolean isFinding(Step step) {
        return step.gate().filter(g -> g == GateKind.REFERENCE_FOUND).isPresent();
    }

    private static void until(Hands hands, Moment moment) {
        boolean open = true;
        while (open) {
            Step next = hands.state.next().orElseThrow();
            open = switch (moment) {
                case AT_FIRST_LOOK -> !next.code().equals("look") && !isFinding(next);
                case WHEN_THE_FIRST_REFERENCE_IS_READ -> !isFinding(next);
                case WHEN_THE_LAST_IS_READ -> !isFinding(next) || more(hands.state.plan(), next);
            };
            if (open) {
                hands.answer();
            }
        }
    }

    /** Something else is found after this step. */
    private static boolean more(CardPlan plan, Step step) {
        return plan.steps().stream()
                .dropWhile(s -> !s.code().equals(step.code()))
                .skip(1)
                .anyMatch(FoundOutOfTimeTest::isFinding);
    }

    private static CardEvent found(Step next, Moment moment) {
        return moment == Moment.AT_FIRST_LOOK && next.task() instanceof Task.Inspect look
                ? new CardEvent.Inspected(
                        next.code(),
                        look.says().entrySet().stream()
                                .filter(e -> e.getValue() == EvidenceKind.BELT_FAILED)
                                .map(Map.Entry::getKey)
                                .findFirst()
                                .orElseThrow())
                : new CardEvent.OutOfTime("a tooth out");
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
    void theCrankIsNotBroughtToWhereAShaftThatIsNotSetCouldMeetIt() {
        Kind kind = Kinds.kind("e09").orElseThrow();
        Anatomy book = new Anatomy(kind.build(), Set.of());
        Goal goal = new Goal(Set.of("a", "b"));
        List<Operation> wrong =
                new ArrayList<>(Router.lay(book, goal, EngineState.closed().lost(Set.of("a", "b")))
                        .operations());
        Operation parked =
                wrong.stream().filter(o -> o.verb() == Verb.BRING).findFirst().orElseThrow();
        Operation elsewhere = Operation.of(Verb.BRING, "a", 9);
        wrong.add(wrong.indexOf(parked), elsewhere);

        assertThat(DryRun.prove(book, goal, wrong).breaches()).anySatisfy(b -> {
            assertThat(b.laws()).contains(Law.MOVEMENTS);
            assertThat(b.at()).contains(elsewhere);
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
}
