package knollfield.core.due;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.due.Policy.Timing;
import knollfield.core.due.Policy.UnknownRule;
import knollfield.core.due.SetAside.Why;
import knollfield.core.due.SetAside.Wish;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.TensionerKind;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Where a vehicle stands in the window all share, and who waits outside today's list. */
class AheadTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final UsageClass TWENTY = new UsageClass("T", "test", 20_000, 6_000);
    private static final EngineFamily BELT = Families.belt(TensionerKind.SPRING_PIN, true);
    private static final Policy BOOK = new Policy(new Timing.Book(), 0.1, 0.5, 120, UnknownRule.DUE_NOW);

    private static VehicleForecast at(int kmPerYear, Evidence... evidence) {
        ClockStart start = new ClockStart(TODAY.minusMonths(36), 10_000, ClockStart.Grade.DOCUMENTED);
        VehicleFacts facts = new VehicleFacts(
                TODAY.minusYears(5),
                true,
                List.of(new Reading(1, TODAY, 70_000, ReadingSource.WORKSHOP)),
                Map.of("belt", start, "tensioner", start, "pump", start),
                Set.of(),
                List.of(evidence),
                TWENTY,
                List.of());
        return DueEngine.atStatedUsage(
                facts, Optional.of(BELT), BOOK, OdometerAssumptions.defaults(), TODAY, kmPerYear);
    }

    @Test
    void todayAndLaterAreSharesOfTheLimits() {
        VehicleForecast f = at(24_000);
        Ahead now = Ahead.of(f, TODAY).orElseThrow();
        Ahead then = Ahead.of(f, TODAY.plusYears(1)).orElseThrow();

        // 60,000 of 120,000 km, 36 of 72 months; a year later 84,000 and 48
        assertThat(now.distance()).isCloseTo(0.5, within(1e-6));
        assertThat(now.age()).isCloseTo(0.5, within(0.001));
        assertThat(then.distance()).isCloseTo(0.7, within(0.001));
        assertThat(then.age()).isCloseTo(4.0 / 6, within(0.001));
    }

    @Test
    void theWallIsTheLimitReachedFirst() {
        Ahead fast = Ahead.of(at(40_000), TODAY).orElseThrow();
        Ahead slow = Ahead.of(at(5_000), TODAY).orElseThrow();

        assertThat(fast.wall()).isEqualTo(Binding.DISTANCE);
        assertThat(fast.crosses()).contains(TODAY.plusDays((long) Math.ceil(1.5 * 365.25)));
        assertThat(slow.wall()).isEqualTo(Binding.AGE);
        assertThat(slow.crosses()).contains(TODAY.plusMonths(36));
        assertThat(slow.crossedBy(TODAY.plusMonths(36).minusDays(1))).isFalse();
        assertThat(slow.crossedBy(TODAY.plusMonths(36))).isTrue();
    }

    @Test
    void aVehicleWithoutLimitsOrStartIsNotInTheWindow() {
        VehicleFacts facts = new VehicleFacts(
                TODAY.minusYears(12), true, List.of(), Map.of(), Set.of(), List.of(), TWENTY, List.of());
        assertThat(Ahead.of(DueEngine.forecast(facts, Optional.of(BELT), BOOK, TODAY), TODAY))
                .isEmpty();
        assertThat(Ahead.of(DueEngine.forecast(facts, Optional.empty(), BOOK, TODAY), TODAY))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"5000, false, false", "40000, false, false", "24000, true, false", "24000, false, true"})
    void aTrackSaysOnEveryDayWhatIsWorkedOutAnew(int kmPerYear, boolean trip, boolean laidUp) {
        ClockStart start = new ClockStart(TODAY.minusMonths(36), 10_000, ClockStart.Grade.DOCUMENTED);
        VehicleFacts facts = new VehicleFacts(
                TODAY.minusYears(5),
                true,
                List.of(
                        new Reading(1, TODAY.minusYears(2), 140_000 - 2 * kmPerYear, ReadingSource.WORKSHOP),
                        new Reading(2, TODAY.minusDays(40), 140_000, ReadingSource.WORKSHOP)),
                Map.of("belt", start, "tensioner", start, "pump", start),
                Set.of(),
                List.of(),
                TWENTY,
                trip ? List.of(new KnownTrip(TODAY.plusDays(30), TODAY.plusDays(50), 9_000)) : List.of(),
                new VehicleFacts.Special(
                        laidUp
                                ? new UseState(UseState.Kind.LAID_UP, Optional.of(TODAY.minusDays(10)))
                                : UseState.inUse(),
                        300,
                        Optional.empty(),
                        Optional.empty(),
                        Set.of()));
        VehicleForecast f = DueEngine.forecast(facts, Optional.of(BELT), BOOK, TODAY);
        Ahead.Track track = Ahead.Track.of(f).orElseThrow();
        for (int days = 0; days < 2_000; days += 13) {
            LocalDate day = TODAY.plusDays(days);
            Ahead exact = Ahead.of(f, day).orElseThrow();
            Ahead quick = track.on(day);
            assertThat(quick.distance()).isCloseTo(exact.distance(), within(1e-9));
            assertThat(quick.age()).isCloseTo(exact.age(), within(1e-9));
            assertThat(quick.crosses()).isEqualTo(exact.crosses());
            assertThat(quick.wall()).isEqualTo(exact.wall());
        }
    }

    @Test
    void aWishHoldsUntilItsDayAndAFindingEndsIt() {
        Wish declined = new Wish(Why.DECLINED, TODAY.minusDays(10), TODAY.plusDays(60));
        Wish later = new Wish(Why.ASK_AGAIN, TODAY.minusDays(2), TODAY.plusDays(7));
        Evidence before = new Evidence(EvidenceKind.OIL_TOP, TODAY.minusDays(20));
        Evidence after = new Evidence(EvidenceKind.OIL_TOP, TODAY.minusDays(1));
        Evidence good = new Evidence(EvidenceKind.INSPECTED_GOOD, TODAY);

        assertThat(SetAside.of(List.of(later, declined), List.of(before, good), TODAY))
                .contains(new SetAside(Why.DECLINED, TODAY.plusDays(60)));
        assertThat(SetAside.of(List.of(later), List.of(), TODAY))
                .contains(new SetAside(Why.ASK_AGAIN, TODAY.plusDays(7)));
        assertThat(SetAside.of(List.of(declined), List.of(after), TODAY)).isEmpty();
        assertThat(SetAside.of(List.of(declined), List.of(), TODAY.plusDays(60)))
                .isEmpty();
    }

    @Test
    void aPromisedCallIsDueOnItsDay() {
        Wish call = new Wish(Why.ASK_AGAIN, TODAY.minusDays(9), TODAY);
        Wish newer = new Wish(Why.ASK_AGAIN, TODAY.minusDays(1), TODAY.plusDays(30));

        assertThat(SetAside.callBack(List.of(call), TODAY)).isTrue();
        assertThat(SetAside.callBack(List.of(call), TODAY.minusDays(1))).isFalse();
        assertThat(SetAside.callBack(List.of(call, newer), TODAY)).isFalse();
        assertThat(SetAside.callBack(List.of(), TODAY)).isFalse();
    }
}
