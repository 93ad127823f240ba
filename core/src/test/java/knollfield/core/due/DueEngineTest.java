package knollfield.core.due;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.due.Policy.UnknownRule;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.TensionerKind;
import knollfield.core.explain.Fact;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class DueEngineTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final UsageClass TWENTY = new UsageClass("T", "test", 20_000, 6_000);
    private static final EngineFamily FAMILY = Families.belt(TensionerKind.SPRING_PIN, true);
    private static final Policy BOOK = new Policy(new Policy.Timing.Book(), 0.1, 0.5, 120, UnknownRule.DUE_NOW);

    /** Half-yearly readings over two years at 20,000 km a year, up to 138,000 km today; the renewal is no reading. */
    private static VehicleFacts example(Set<Condition> conditions) {
        LocalDate renewed = TODAY.minusMonths(54);
        List<Reading> readings = new ArrayList<>();
        for (int i = 0; i <= 4; i++) {
            LocalDate day = TODAY.minusMonths(6L * (4 - i));
            double years = ChronoUnit.DAYS.between(day, TODAY) / 365.25;
            readings.add(new Reading(i + 1, day, (int) Math.round(138_000 - 20_000 * years), ReadingSource.WORKSHOP));
        }
        ClockStart start = new ClockStart(renewed, 40_000, ClockStart.Grade.DOCUMENTED);
        return new VehicleFacts(
                TODAY.minusYears(8),
                true,
                readings,
                Map.of("belt", start, "tensioner", start, "pump", start),
                conditions,
                List.of(),
                TWENTY,
                List.of());
    }

    private static VehicleForecast forecast(VehicleFacts facts, Policy policy) {
        return DueEngine.forecast(facts, Optional.of(FAMILY), policy, TODAY);
    }

    private static VehicleFacts unknown(LocalDate registered, int km) {
        return new VehicleFacts(
                registered,
                true,
                List.of(new Reading(1, TODAY, km, ReadingSource.WORKSHOP)),
                Map.of(),
                Set.of(),
                List.of(),
                TWENTY,
                List.of());
    }

    private static VehicleFacts with(
            VehicleFacts v, Set<Condition> conditions, List<Evidence> evidence, List<KnownTrip> trips) {
        return new VehicleFacts(
                v.firstRegistered(),
                v.cameWithReading(),
                v.readings(),
                v.starts(),
                conditions,
                evidence,
                v.usage(),
                trips);
    }

    @Test
    void distanceDecidesWithTwentyTwoThousandLeft() {
        VehicleForecast f = forecast(example(Set.of()), BOOK);
        ItemForecast belt = f.item("belt").orElseThrow();

        assertThat(belt.binding()).isEqualTo(Binding.DISTANCE);
        assertThat(belt.age())
                .hasValueSatisfying(a -> assertThat(a.leftMonths()).isEqualTo(18));
        assertThat(belt.distance()).hasValueSatisfying(d -> {
            assertThat(d.leftKm()).isCloseTo(22_000, within(1.0));
            double months = ChronoUnit.DAYS.between(TODAY, d.median().orElseThrow()) / (365.25 / 12);
            assertThat(months).isCloseTo(13.2, within(0.05));
            assertThat(d.early().orElseThrow()).isBefore(d.median().orElseThrow());
            assertThat(d.late().orElseThrow()).isAfter(d.median().orElseThrow());
        });
        assertThat(f.status()).isEqualTo(Status.CLEAR);
        assertThat(figures(f, Reason.Topic.DISTANCE)).containsExactly(98_000.0, 120_000.0, 22_000.0);
    }

    @Test
    void dustMakesItOverdueByTwentyEightThousand() {
        VehicleForecast f = forecast(example(Set.of(Condition.DUST)), BOOK);

        assertThat(f.status()).isEqualTo(Status.OVERDUE);
        assertThat(f.item("belt").orElseThrow().distance())
                .hasValueSatisfying(d -> assertThat(d.leftKm()).isCloseTo(-28_000, within(1.0)));
        assertThat(figures(f, Reason.Topic.DISTANCE)).containsExactly(98_000.0, 70_000.0, 28_000.0);
        assertThat(f.reasons()).anySatisfy(r -> {
            assertThat(r.topic()).isEqualTo(Reason.Topic.SCHEDULE);
            assertThat(r.statement().facts()).contains(new Fact.Words("dust"));
        });
    }

    private static List<Double> figures(VehicleForecast f, Reason.Topic topic) {
        return f.reasons().stream()
                .filter(r -> r.topic() == topic)
                .flatMap(r -> r.statement().facts().stream())
                .map(x -> (double) Math.round(((Fact.Km) x).km()))
                .toList();
    }

    @Test
    void theLimitPassedLongAgoWasReachedWhenTheReadingsSay() {
        ItemForecast belt =
                forecast(example(Set.of(Condition.DUST)), BOOK).item("belt").orElseThrow();

        // 40,000 + 70,000 = 110,000 km lies 28,000 km, 1.4 years at 20,000 a year, back
        assertThat(belt.distance().orElseThrow().median().orElseThrow())
                .isCloseTo(TODAY.minusDays(511), within(3, ChronoUnit.DAYS));
    }

    @Test
    void aLimitPassedBeforeTheFirstReadingIsOverdueAlthoughNobodyKnowsSinceWhen() {
        ClockStart start = new ClockStart(TODAY.minusYears(4), 40_000, ClockStart.Grade.DOCUMENTED);
        VehicleFacts facts = new VehicleFacts(
                TODAY.minusYears(8),
                true,
                List.of(new Reading(1, TODAY, 161_000, ReadingSource.WORKSHOP)),
                Map.of("belt", start),
                Set.of(),
                List.of(),
                TWENTY,
                List.of());

        assertThat(forecast(facts, BOOK).status()).isEqualTo(Status.OVERDUE);
    }

    @Test
    void actByIsTheEarliestOfRiskShareAndAge() {
        VehicleFacts facts = example(Set.of());
        ItemForecast risky = forecast(facts, BOOK).item("belt").orElseThrow();
        assertThat(risky.actBy()).isEqualTo(risky.distance().orElseThrow().early());

        Policy calm = new Policy(new Policy.Timing.Book(), 0.5, 0.5, 120, UnknownRule.DUE_NOW);
        ItemForecast even = forecast(facts, calm).item("belt").orElseThrow();
        assertThat(even.actBy()).isEqualTo(even.distance().orElseThrow().median());

        Policy early = new Policy(new Policy.Timing.Early(0.9), 0.5, 0.5, 120, UnknownRule.DUE_NOW);
        ItemForecast ninety = forecast(facts, early).item("belt").orElseThrow();
        // 108,000 of 120,000: 10,000 km on, half a year
        assertThat(ninety.actBy().orElseThrow()).isCloseTo(TODAY.plusDays(183), within(2, ChronoUnit.DAYS));
    }

    @Test
    void aFixedLimitOfTheWorkshopCountsWhereItIsSmaller() {
        Policy fixed = new Policy(new Policy.Timing.Fixed(Limit.of(100_000, 90)), 0.1, 0.5, 120, UnknownRule.DUE_NOW);
        ItemForecast belt = forecast(example(Set.of()), fixed).item("belt").orElseThrow();

        assertThat(belt.limit()).contains(Limit.of(100_000, 72));
    }

    @Test
    void ageIsCountedInCalendarMonths() {
        ClockStart start = new ClockStart(LocalDate.of(2020, 8, 31), 1_000, ClockStart.Grade.DOCUMENTED);
        VehicleFacts facts = new VehicleFacts(
                LocalDate.of(2015, 1, 1),
                true,
                List.of(new Reading(1, TODAY, 5_000, ReadingSource.WORKSHOP)),
                Map.of("belt", start),
                Set.of(),
                List.of(),
                new UsageClass("S", "slow", 500, 50),
                List.of());
        ItemForecast belt = forecast(facts, BOOK).item("belt").orElseThrow();

        assertThat(belt.binding()).isEqualTo(Binding.AGE);
        // Source: java.time.LocalDate.plusMonths: 72 months after 31 August 2020
        assertThat(belt.age().orElseThrow().date()).isEqualTo(LocalDate.of(2026, 8, 31));
        assertThat(belt.status()).isEqualTo(Status.OVERDUE);
    }

    @Test
    void anUnknownHistoryIsNeverClear() {
        VehicleForecast f = forecast(unknown(TODAY.minusYears(9), 90_000), BOOK);

        assertThat(f.status()).isEqualTo(Status.UNKNOWN_HISTORY);
        assertThat(f.actBy()).contains(TODAY);
        assertThat(f.reasons()).extracting(Reason::topic).contains(Reason.Topic.HISTORY);
    }

    @Test
    void insideBothLimitsSinceRegistrationTheHistoryDoesNotMatter() {
        VehicleForecast f = forecast(unknown(TODAY.minusYears(2), 30_000), BOOK);

        assertThat(f.status()).isEqualTo(Status.CLEAR);
        assertThat(f.item("belt").orElseThrow().start())
                .hasValueSatisfying(s -> assertThat(s.grade()).isEqualTo(ClockStart.Grade.FIRST_REGISTRATION));
    }

    @Test
    void theWorkshopMayCountUnknownsFromRegistration() {
        Policy policy = new Policy(new Policy.Timing.Book(), 0.1, 0.5, 120, UnknownRule.FROM_FIRST_REGISTRATION);

        assertThat(forecast(unknown(TODAY.minusYears(9), 90_000), policy).status())
                .isEqualTo(Status.OVERDUE);
    }

    @Test
    void withoutABookNothingLooksClear() {
        VehicleForecast f = DueEngine.forecast(example(Set.of()), Optional.empty(), BOOK, TODAY);

        assertThat(f.status()).isEqualTo(Status.NO_BOOK);
        assertThat(f.actBy()).isEmpty();
    }

    @ParameterizedTest
    @EnumSource(names = {"BELT_FAILED", "GUIDE_BROKEN"})
    void someFindingsStopTheEngine(EvidenceKind kind) {
        VehicleFacts facts = with(example(Set.of()), Set.of(), List.of(new Evidence(kind, TODAY)), List.of());

        assertThat(forecast(facts, BOOK).status()).isEqualTo(Status.STOP);
    }

    @Test
    void aCorrelationCodeMovesAChainAndABeltWhoseEngineWouldBeHurt() {
        Evidence code = new Evidence(EvidenceKind.CORRELATION_CODE, TODAY.minusDays(1));
        VehicleFacts facts = with(example(Set.of()), Set.of(), List.of(code), List.of());

        assertThat(DueEngine.forecast(facts, Optional.of(Families.chain()), BOOK, TODAY)
                        .status())
                .isEqualTo(Status.ACT_NOW);
        for (Interference interference : Interference.values()) {
            EngineFamily belt = Families.belt(TensionerKind.SPRING_PIN, true, CrankFit.KEYED, interference);
            assertThat(DueEngine.forecast(facts, Optional.of(belt), BOOK, TODAY).status())
                    .as("%s", interference)
                    .isEqualTo(interference == Interference.NO ? Status.CLEAR : Status.ACT_NOW);
        }
    }

    @Test
    void aGoodInspectionStartsTheInspectionClockOfAChainAndOnlyThereSaysSo() {
        Evidence good = new Evidence(EvidenceKind.INSPECTED_GOOD, TODAY.minusDays(1));
        VehicleFacts facts = with(example(Set.of()), Set.of(), List.of(good), List.of());
        VehicleForecast chain = DueEngine.forecast(facts, Optional.of(Families.chain()), BOOK, TODAY);

        assertThat(chain.findings()).extracting(FindingEffect::call).containsExactly(FindingEffect.Call.INSPECTED);
        assertThat(chain.item("chain").flatMap(ItemForecast::start).map(ClockStart::date))
                .contains(good.found());
        assertThat(forecast(facts, BOOK).findings())
                .extracting(FindingEffect::call)
                .containsExactly(FindingEffect.Call.NOTED);
    }

    @Test
    void aRattlingChainHasThirtyDaysAtMost() {
        Evidence rattle = new Evidence(EvidenceKind.CHAIN_RATTLE, TODAY);
        VehicleFacts facts = with(unknown(TODAY.minusYears(2), 30_000), Set.of(), List.of(rattle), List.of());
        VehicleForecast f = DueEngine.forecast(facts, Optional.of(Families.chain()), BOOK, TODAY);

        // 1,000 km at 20,000 km a year: 18.3 days, sooner than thirty
        assertThat(f.actBy()).contains(TODAY.plusDays(19));
        assertThat(f.status()).isEqualTo(Status.COMING);
    }

    @Test
    void aLongTripIsDoneBefore() {
        LocalDate from = TODAY.plusDays(60);
        VehicleFacts facts =
                with(example(Set.of()), Set.of(), List.of(), List.of(new KnownTrip(from, from.plusDays(20), 20_000)));

        assertThat(forecast(facts, BOOK).actBy()).contains(from.minusDays(1));
    }

    @Test
    void anEngineThatDoesNotInterfereWaitsForEvenOdds() {
        EngineFamily harmless = Families.belt(TensionerKind.SPRING_PIN, true, CrankFit.KEYED, Interference.NO);
        ItemForecast belt = DueEngine.forecast(example(Set.of()), Optional.of(harmless), BOOK, TODAY)
                .item("belt")
                .orElseThrow();

        assertThat(belt.actBy()).isEqualTo(belt.distance().orElseThrow().median());
    }

    @Test
    void severeIsNeverLaterThanNormalAndEarlyNeverLaterThanBook() {
        Random random = new Random(3);
        Policy early = new Policy(new Policy.Timing.Early(0.95), 0.1, 0.5, 120, UnknownRule.DUE_NOW);
        for (int i = 0; i < 500; i++) {
            int km = 60_000 + random.nextInt(120_000);
            int startKm = random.nextInt(km);
            LocalDate renewed = TODAY.minusDays(1 + random.nextInt(2_500));
            VehicleFacts facts = new VehicleFacts(
                    renewed.minusYears(1),
                    true,
                    List.of(
                            new Reading(1, renewed, startKm, ReadingSource.WORKSHOP),
                            new Reading(2, TODAY.minusDays(random.nextInt(90) - 0L), km, ReadingSource.WORKSHOP)),
                    Map.of("belt", new ClockStart(renewed, startKm, ClockStart.Grade.DOCUMENTED)),
                    Set.of(),
                    List.of(),
                    TWENTY,
                    List.of());
            LocalDate normal = actBy(facts, BOOK);
            assertThat(actBy(with(facts, Set.of(Condition.TOWING), List.of(), List.of()), BOOK))
                    .isBeforeOrEqualTo(normal);
            assertThat(actBy(facts, early)).isBeforeOrEqualTo(normal);
        }
    }

    private static LocalDate actBy(VehicleFacts facts, Policy policy) {
        return forecast(facts, policy).item("belt").orElseThrow().actBy().orElseThrow();
    }

    @Test
    void aVehicleWithoutAnyReadingIsProjectedFromItsClass() {
        VehicleFacts facts = new VehicleFacts(
                TODAY.minusYears(2), false, List.of(), Map.of(), Set.of(), List.of(), TWENTY, List.of());
        VehicleForecast f = forecast(facts, BOOK);

        assertThat(f.item("belt").orElseThrow().distance())
                .hasValueSatisfying(d -> assertThat(d.usedKm()).isCloseTo(40_000, within(150.0)));
        assertThat(f.reasons())
                .anySatisfy(r -> assertThat(r.statement().template()).contains("from its class alone"));
    }

    @Test
    void aLimitWithoutDistanceOrAgeIsNone() {
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> new Limit(OptionalInt.empty(), OptionalInt.empty()))
                .isInstanceOf(IllegalArgumentException.class);
    }
}
