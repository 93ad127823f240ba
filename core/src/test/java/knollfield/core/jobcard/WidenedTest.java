package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
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
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.Kinds;
import org.junit.jupiter.api.Test;

/**
 * More is found in the middle of the work, and the owner agrees or does not. What hands then did, one thing after the
 * other, is run dry on the engine: no law may be broken by it.
 */
class WidenedTest {

    private static List<EngineFamily> families() {
        List<EngineFamily> all = new ArrayList<>();
        Kinds.all().stream().map(Kind::code).map(RoutedCardTest::family).forEach(all::add);
        for (CrankFit fit : CrankFit.values()) {
            all.add(GrownBuild.grown(Families.belt(TensionerKind.SPRING_PIN, true, fit, Interference.YES)));
            all.add(GrownBuild.grown(Families.belt(TensionerKind.ECCENTRIC_POINTER, true, fit, Interference.YES)));
        }
        return all;
    }

    /** More of them with {@code -Dknollfield.jobs=10000}; see bench/widened.sh. */
    private static final int JOBS = Integer.getInteger("knollfield.jobs", 400);

    /** @param meanwhile steps taken while the owner is asked, where the card lets one go on */
    private record Job(EngineFamily family, Set<String> begun, String found, int after, int meanwhile, boolean agreed) {
        @Override
        public String toString() {
            return "%s %s, %s found after %d steps, %s"
                    .formatted(family.code(), begun, found, after, agreed ? "agreed" : "left");
        }
    }

    private static Stream<Job> jobs() {
        List<EngineFamily> families = families();
        return IntStream.range(0, JOBS).mapToObj(seed -> {
            Random random = new Random(seed);
            EngineFamily family = families.get(random.nextInt(families.size()));
            List<String> items = family.items().stream()
                    .map(Item::code)
                    .filter(i -> !family.build().orElseThrow().things(i).isEmpty())
                    .toList();
            String found = items.get(random.nextInt(items.size()));
            Set<String> begun = new HashSet<>();
            items.stream().filter(i -> !i.equals(found) && random.nextBoolean()).forEach(begun::add);
            if (begun.isEmpty()) {
                items.stream().filter(i -> !i.equals(found)).findFirst().ifPresent(begun::add);
            }
            return begun.isEmpty()
                    ? new Job(family, Set.of(found), found, 0, 0, true)
                    : new Job(family, begun, found, random.nextInt(34), random.nextInt(6), random.nextBoolean());
        });
    }

    @Test
    void whatHandsDidKeepsEveryLaw() {
        List<String> refused = new ArrayList<>();
        assertThat(jobs()).allSatisfy(job -> {
            Hands hands = new Hands(CardGenerator.generate(job.family(), Set.of(), job.begun()));
            for (int i = 0; i < job.after() && hands.goesOn(); i++) {
                hands.answer();
            }
            int before = hands.did.size();
            try {
                hands.enter(new CardEvent.Widened(Set.of(job.found())));
                for (int i = 0; i < job.meanwhile() && hands.mayGoOn(); i++) {
                    hands.answer();
                }
                hands.enter(new CardEvent.OwnerAnswered(
                        job.agreed() ? Set.of(job.found()) : Set.of(), job.agreed() ? Set.of() : Set.of(job.found())));
            } catch (CardNotProven e) {
                assertThat(e.breaches()).isNotEmpty();
                refused.add(job.toString());
                return;
            }
            while (hands.goesOn()) {
                hands.answer();
            }
            hands.enter(new CardEvent.Completed(""));

            assertThat(hands.state.signature()).isPresent();
            assertThat(hands.breaches(before))
                    .as("%s, done: %s", job, hands.did)
                    .isEmpty();
        });
        // what cannot go on from where it stands is refused with its law, and that is rare
        System.out.printf("%d jobs, %d refused with their law%n", JOBS, refused.size());
        assertThat(refused).hasSizeLessThan(JOBS / 80);
    }

    @Test
    void aBeltThatIsOnComesOffOnceMoreForWhatLiesBehindItAndNotForWhatDoesNot() {
        EngineFamily family =
                GrownBuild.grown(Families.belt(TensionerKind.SPRING_PIN, true, CrankFit.KEYED, Interference.YES));
        Bench laid = new Bench(CardGenerator.generate(family, Set.of(), Set.of("belt", "tensioner")))
                .started()
                .until("turn:engine.1");

        CardState behind = laid.enter(new CardEvent.Widened(Set.of("camseal"))).state;

        assertThat(behind.plan().askedAgain()).contains("loop-off:belt", "lay:belt", "set-in:crank-pin");
        assertThat(behind.answers())
                .doesNotContainKeys("lay:belt", "out:crank-pin")
                .containsKey("safe:battery");
        assertThat(behind.next().map(Step::code))
                .hasValueSatisfying(
                        next -> assertThat(behind.plan().askedAgain()).contains(next));

        CardState beside = new Bench(CardGenerator.generate(family, Set.of(), Set.of("belt", "tensioner")))
                .started()
                .until("turn:engine.1")
                .enter(new CardEvent.Widened(Set.of("coolant")))
                .state;

        assertThat(beside.plan().askedAgain()).isEmpty();
        assertThat(beside.answers()).containsKeys("lay:belt", "out:crank-pin");
    }

    @Test
    void aStepThatGrewIsAskedForWhatIsNewAndNotForWhatIsDone() {
        EngineFamily family =
                GrownBuild.grown(Families.belt(TensionerKind.SPRING_PIN, true, CrankFit.KEYED, Interference.YES));
        Bench fitted = new Bench(CardGenerator.generate(family, Set.of(), Set.of("belt", "tensioner")))
                .started()
                .until("lay:belt")
                .enter(new CardEvent.Widened(Set.of("camseal")))
                .enter(new CardEvent.OwnerAnswered(Set.of("camseal"), Set.of()));

        Step seals = fitted.state.plan().steps().stream()
                .filter(s -> s.operations().contains(Operation.of(Verb.FIT, "camseal")))
                .findFirst()
                .orElseThrow();
        assertThat(fitted.state.answers()).doesNotContainKey(seals.code());
        assertThat(seals.operations()).doesNotContain(Operation.of(Verb.FIT, "tensioner"));
    }
}
