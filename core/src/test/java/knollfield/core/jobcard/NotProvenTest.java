package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import knollfield.core.Families;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.grow.GrownBuild;
import knollfield.core.engine.grow.RandomBooks;
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
                    .flatMap(i -> Stream.of(By.values())
                            .flatMap(by -> Stream.of(1, 2).map(times -> new Job(f, i, by, times))));
        });
        Stream<Job> random = IntStream.range(0, BOOKS).mapToObj(seed -> {
            Random dice = new Random(seed);
            EngineFamily book = GrownBuild.grown(RandomBooks.any(dice));
            Set<String> items = RandomBooks.someItems(book, dice);
            return new Job(book, items, By.values()[dice.nextInt(By.values().length)], 1 + dice.nextInt(2));
        });
        return Stream.concat(known, random);
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("jobs")
    void whatHandsDoKeepsEveryLaw(Job job) {
        Hands hands = new Hands(CardGenerator.generate(job.family(), Set.of(), job.items()));
        for (int i = 0; i < job.times(); i++) {
            if (!until(hands, job.by())) {
                return;
            }
            hands.tell(fails(hands.state.next().orElseThrow(), job.by()));
            assertThat(hands.state.attempt()).isEqualTo(i + 2);
        }
        boolean byList = hands.state.plan().correctsByList();
        hands.toTheEnd();
        assertThat(hands.state.signature()).isPresent();
        // a chain that is only held is not laid, and cannot be: its book says no more
        assertThat(byList).as("by list: %s", job).isEqualTo(job.family().code().equals("T-e11"));
        if (byList) {
            return;
        }
        assertThat(hands.breaches(0)).as("%s, done: %s", job, hands.did).isEmpty();
    }

    private static boolean until(Hands hands, By by) {
        while (hands.goesOn()) {
            Step next = hands.state.next().orElseThrow();
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
            hands.answer();
        }
        return false;
    }

    private static CardEvent fails(Step at, By by) {
        return switch (by) {
            case REFERENCE ->
                new CardEvent.MarksRead(
                        at.code(),
                        Set.of(((Task.TrueMarks) at.task()).references().get(0)));
            case WINDOW -> new CardEvent.Measured(at.code(), ((Task.Measure) at.task()).low() - 1);
            case HARD_STOP -> new CardEvent.HardStop("at a quarter");
        };
    }
}
