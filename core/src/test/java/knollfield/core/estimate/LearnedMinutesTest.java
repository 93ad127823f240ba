package knollfield.core.estimate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import knollfield.core.Families;
import knollfield.core.bundle.Labour;
import knollfield.core.clock.Limit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.RepairEstimate;
import knollfield.core.engine.Schedule;
import knollfield.core.engine.TensionerKind;
import knollfield.core.estimate.LearnedMinutes.OfStep;
import knollfield.core.estimate.LearnedMinutes.Past;
import knollfield.core.estimate.LearnedMinutes.Timed;
import knollfield.core.jobcard.CardGenerator;
import knollfield.core.jobcard.CardPlan;
import knollfield.core.jobcard.CardState;
import knollfield.core.jobcard.Step;
import knollfield.core.jobcard.WorkClock;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.KindFamily;
import knollfield.core.units.DistanceUnit;
import org.apache.commons.statistics.distribution.GammaDistribution;
import org.apache.commons.statistics.distribution.PoissonDistribution;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class LearnedMinutesTest {

    private static final EngineFamily FAMILY = Families.belt(TensionerKind.SPRING_PIN, true);
    private static final Set<String> ITEMS = Set.of("belt", "tensioner");

    private static OfStep learned(String step, List<Past> past) {
        return LearnedMinutes.of(FAMILY, past).stream()
                .filter(s -> s.step().code().equals(step))
                .findFirst()
                .orElseThrow();
    }

    @ParameterizedTest
    @CsvSource({"40, 0", "55, 1", "80, 3", "31, 8"})
    void theFactorIsTheMeanOfThePosteriorThatALibraryGives(int minutes, int jobs) {
        OfStep known = learned("belt", List.of());
        int book = known.step().minutes();
        List<Past> past = IntStream.range(0, jobs)
                .mapToObj(i -> new Past(Map.of("belt", new Timed(book, minutes))))
                .toList();

        // Source: Apache Commons Statistics, GammaDistribution and PoissonDistribution; prior times likelihood, summed
        // up
        double shape = LearnedMinutes.CREDIT_JOBS * (double) book;
        GammaDistribution prior = GammaDistribution.of(shape, 1 / shape);
        double weight = 0;
        double sum = 0;
        for (double theta = 0.05; theta < 4; theta += 0.0005) {
            double log = prior.logDensity(theta)
                    + jobs * PoissonDistribution.of(theta * book).logProbability(minutes);
            double w = Math.exp(log + 4.0 * jobs);
            weight += w;
            sum += w * theta;
        }
        assertThat(learned("belt", past).factor()).isCloseTo(sum / weight, within(1e-6));
    }

    @Test
    void oneSlowJobDoesNotDecideAndManyDo() {
        int book = learned("belt", List.of()).step().minutes();
        Past slow = new Past(Map.of("belt", new Timed(book, 2.0 * book)));
        assertThat(learned("belt", List.of(slow)).factor()).isEqualTo(1.25);
        assertThat(learned("belt", Collections.nCopies(27, slow)).factor()).isEqualTo(1.9);
        assertThat(learned("pump", List.of(slow)).factor()).isEqualTo(1);
        assertThat(learned("belt", List.of(slow)).expectedMinutes()).isEqualTo((int) Math.round(1.25 * book));
    }

    /** A clock that shows {@code minutes} at each step that handles something. */
    private static WorkClock clock(CardPlan plan, double minutes) {
        List<Step> handled =
                plan.steps().stream().filter(s -> !s.operations().isEmpty()).toList();
        Map<String, Double> byStep = handled.stream().collect(Collectors.toMap(Step::code, s -> minutes));
        return new WorkClock(
                Map.of("B1", (int) Math.round(minutes * handled.size())), byStep, Map.of(), Set.of(), List.of(), 0);
    }

    @Test
    void theCardsMinutesGoToTheStepsOfTheBookAndNoneIsCountedTwice() {
        CardPlan plan = CardGenerator.generate(FAMILY, Set.of(), ITEMS);
        WorkClock clock = clock(plan, 8);
        Past past = LearnedMinutes.of(CardState.fresh(plan), ITEMS, Set.of(), clock, Optional.empty());

        Labour labour = Labour.of(FAMILY, Set.of(), ITEMS);
        assertThat(past.timed().keySet())
                .isSubsetOf(labour.steps().stream().map(s -> s.step().code()).toList())
                .contains("belt", "tensioner");
        // a job that took exactly its book time teaches a factor of 1 on average, whatever its steps handle
        past = LearnedMinutes.of(CardState.fresh(plan), ITEMS, Set.of(), clock, Optional.of(labour.minutes()));
        assertThat(past.timed().values().stream()
                        .mapToDouble(Timed::actualMinutes)
                        .sum())
                .isCloseTo(
                        past.timed().values().stream()
                                .mapToInt(Timed::bookMinutes)
                                .sum(),
                        within(1e-9));
    }

    @Test
    void minutesAsToldStretchTheClockAndACardTickedAfterwardsTeachesNothing() {
        CardPlan plan = CardGenerator.generate(FAMILY, Set.of(), ITEMS);
        WorkClock clock = clock(plan, 8);
        double once = LearnedMinutes.of(CardState.fresh(plan), ITEMS, Set.of(), clock, Optional.empty())
                .timed()
                .get("belt")
                .actualMinutes();
        double told = LearnedMinutes.of(CardState.fresh(plan), ITEMS, Set.of(), clock, Optional.of(2 * clock.minutes()))
                .timed()
                .get("belt")
                .actualMinutes();
        assertThat(told).isCloseTo(2 * once, within(1e-9));

        int book = Labour.of(FAMILY, Set.of(), ITEMS).minutes();
        assertThat(LearnedMinutes.of(CardState.fresh(plan), ITEMS, Set.of(), clock, Optional.of(book / 2 - 1))
                        .timed())
                .isEmpty();
        assertThat(LearnedMinutes.of(CardState.fresh(plan), ITEMS, Set.of(), clock(plan, 0.01), Optional.empty())
                        .timed())
                .isEmpty();
    }

    @Test
    void halfTheBookTimeAndAMinuteOnTheClockTeach() {
        CardPlan plan = CardGenerator.generate(FAMILY, Set.of(), ITEMS);
        int half = Labour.of(FAMILY, Set.of(), ITEMS).minutes() / 2;
        int handled = (int)
                plan.steps().stream().filter(s -> !s.operations().isEmpty()).count();
        WorkClock minute = clock(plan, 1.0 / handled);
        assertThat(minute.minutes()).isEqualTo(1);

        assertThat(Labour.of(FAMILY, Set.of(), ITEMS).minutes() % 2).isZero();
        assertThat(LearnedMinutes.of(CardState.fresh(plan), ITEMS, Set.of(), minute, Optional.of(half))
                        .timed())
                .containsKeys("belt", "tensioner");
    }

    private static EngineFamily kind(Kind kind) {
        return KindFamily.of(
                kind,
                "T",
                "Tested",
                Interference.YES,
                Optional.of(new Schedule(Limit.of(120_000, 72), Optional.empty(), "the test's own", DistanceUnit.KM)),
                new RepairEstimate(100, 200, 300),
                6_000);
    }

    private static Set<String> all(EngineFamily family) {
        return family.items().stream()
                .filter(i -> i.halfOf().isEmpty()
                        && !family.build().orElseThrow().things(i.code()).isEmpty())
                .map(Item::code)
                .collect(Collectors.toSet());
    }

    /** Whatever the engine: the minutes of a step are of the access step by which the book opens or reaches what it handles. */
    @ParameterizedTest
    @MethodSource("knollfield.core.kinds.Kinds#all")
    void theMinutesOfAStepAreOfTheWorkThatOpensOrReachesWhatItHandles(Kind kind) {
        EngineFamily family = kind(kind);
        Set<String> items = all(family);
        CardPlan plan = CardGenerator.generate(family, Set.of(), items);
        Labour labour = Labour.of(family, Set.of(), items);
        Set<String> timed = labour.steps().stream()
                .filter(s -> s.step().minutes() > 0)
                .map(s -> s.step().code())
                .collect(Collectors.toSet());
        Map<String, String> opens = new HashMap<>();
        labour.steps()
                .forEach(
                        s -> s.step().opens().forEach(j -> opens.put(j, s.step().code())));
        family.build()
                .orElseThrow()
                .joints()
                .forEach(j -> j.fasteners().ifPresent(f -> opens.computeIfAbsent(f, x -> opens.get(j.code()))));

        int seen = 0;
        for (Step step : plan.steps()) {
            WorkClock only =
                    new WorkClock(Map.of("B1", 30), Map.of(step.code(), 30.0), Map.of(), Set.of(), List.of(), 0);
            Map<String, Timed> taught = LearnedMinutes.of(
                            CardState.fresh(plan), items, Set.of(), only, Optional.of(labour.minutes()))
                    .timed();
            Set<String> byTheBook = step.operations().stream()
                    .flatMap(o -> Stream.ofNullable(opens.get(o.thing())))
                    .filter(timed::contains)
                    .collect(Collectors.toSet());
            assertThat(taught.keySet()).as(step.title()).containsAll(byTheBook).isSubsetOf(timed);
            if (taught.size() > 1) {
                double each = taught.values().iterator().next().actualMinutes();
                assertThat(taught.values())
                        .as("shared evenly")
                        .allSatisfy(t -> assertThat(t.actualMinutes()).isCloseTo(each, within(1e-9)));
            }
            if (!taught.isEmpty()) {
                assertThat(taught.values().stream()
                                .mapToDouble(Timed::actualMinutes)
                                .sum())
                        .as("a job of its book time teaches a factor of 1")
                        .isCloseTo(
                                taught.values().stream()
                                        .mapToInt(Timed::bookMinutes)
                                        .sum(),
                                within(1e-9));
            }
            seen += byTheBook.isEmpty() ? 0 : 1;
        }
        assertThat(seen).as("steps that open or close what the book opens").isPositive();
    }
}
