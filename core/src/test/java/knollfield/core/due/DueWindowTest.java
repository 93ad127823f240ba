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
import knollfield.core.due.DueWindow.Band;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.TensionerKind;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.RejectReason;
import knollfield.core.odometer.UsageClass;
import org.junit.jupiter.api.Test;

class DueWindowTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final EngineFamily BELT = Families.belt(TensionerKind.SPRING_PIN, true);
    private static final Policy BOOK = new Policy(new Policy.Timing.Book(), 0.1, 0.5, 120, Policy.UnknownRule.DUE_NOW);

    private static DueWindow window(
            EngineFamily family, int yearly, int monthsAgo, Set<Condition> conditions, Reading... more) {
        LocalDate renewed = TODAY.minusMonths(monthsAgo);
        List<Reading> readings = new java.util.ArrayList<>(List.of(more));
        int used = yearly * monthsAgo / 12;
        readings.add(new Reading(1, renewed, 40_000, ReadingSource.WORKSHOP));
        readings.add(new Reading(2, TODAY.minusMonths(monthsAgo / 2), 40_000 + used / 2, ReadingSource.WORKSHOP));
        readings.add(new Reading(3, TODAY, 40_000 + used, ReadingSource.WORKSHOP));
        String item = family.driveItem().code();
        VehicleFacts facts = new VehicleFacts(
                renewed.minusYears(2),
                true,
                readings,
                Map.of(item, new ClockStart(renewed, 40_000, ClockStart.Grade.DOCUMENTED)),
                conditions,
                List.of(),
                new UsageClass("T", "test", yearly, yearly / 4.0),
                List.of());
        VehicleForecast forecast = DueEngine.forecast(facts, Optional.of(family), BOOK, TODAY);
        return DueWindow.of(forecast, forecast.item(item).orElseThrow(), facts.firstRegistered());
    }

    @Test
    void thePictureReachesAQuarterBeyondTheWidestLimit() {
        DueWindow normal = window(BELT, 20_000, 36, Set.of());
        DueWindow severe = window(BELT, 20_000, 36, Set.of(Condition.DUST));

        assertThat(normal.spanKm()).isEqualTo(150_000);
        assertThat(normal.spanMonths()).isEqualTo(90);
        // under dust the normal rectangle is the dashed one, and still in the picture
        assertThat(severe.spanKm()).isEqualTo(150_000);
        assertThat(severe.limit().orElseThrow().km()).hasValue(70_000);
        assertThat(severe.other().orElseThrow().km()).hasValue(120_000);
    }

    @Test
    void theTrackBeginsInTheCornerAndHoldsTheKeptReadings() {
        DueWindow w = window(BELT, 20_000, 36, Set.of());

        assertThat(w.known()).isTrue();
        assertThat(w.track()).hasSize(3);
        assertThat(w.track().get(0).km()).isZero();
        assertThat(w.track().get(0).months()).isZero();
        assertThat(w.track().get(2).km()).isEqualTo(60_000);
        assertThat(w.track().get(2).months()).isCloseTo(36, within(0.1));
        assertThat(w.today().odometerKm()).isCloseTo(100_000, within(1.0));
    }

    @Test
    void aRejectedReadingStandsInThePictureWithItsReason() {
        DueWindow w = window(
                BELT, 20_000, 36, Set.of(), new Reading(9, TODAY.minusMonths(5), 45_000, ReadingSource.CUSTOMER));

        assertThat(w.rejected()).singleElement().satisfies(r -> {
            assertThat(r.reason()).isEqualTo(RejectReason.RUNS_BACKWARDS);
            assertThat(r.point().km()).isEqualTo(5_000);
        });
    }

    @Test
    void theFanOpensFromTheLastReadingToTheRightEdge() {
        DueWindow w = window(BELT, 20_000, 36, Set.of());
        List<Band> fan = w.fan();

        assertThat(fan.get(0).date()).isEqualTo(TODAY);
        assertThat(fan.get(0).lowKm()).isCloseTo(fan.get(0).highKm(), within(1e-6));
        assertThat(fan.get(fan.size() - 1).months()).isCloseTo(90, within(0.1));
        for (int i = 1; i < fan.size(); i++) {
            Band b = fan.get(i);
            assertThat(b.medianKm()).isGreaterThan(fan.get(i - 1).medianKm());
            assertThat(b.lowKm()).isLessThan(b.medianKm());
            assertThat(b.highKm()).isGreaterThan(b.medianKm());
            assertThat(b.highKm() - b.lowKm())
                    .isGreaterThan(fan.get(i - 1).highKm() - fan.get(i - 1).lowKm());
        }
    }

    @Test
    void aFastVehicleLeavesThroughTheTopAndASlowOneThroughTheSide() {
        DueWindow fast = window(BELT, 40_000, 24, Set.of());
        DueWindow slow = window(BELT, 5_000, 24, Set.of());

        assertThat(fast.crossing()).hasValueSatisfying(c -> {
            assertThat(c.wall()).isEqualTo(Binding.DISTANCE);
            assertThat(c.corner()).isFalse();
            assertThat(c.from().orElseThrow()).isBefore(c.median());
            assertThat(c.to().orElseThrow()).isAfter(c.median());
        });
        assertThat(slow.crossing()).hasValueSatisfying(c -> {
            assertThat(c.wall()).isEqualTo(Binding.AGE);
            assertThat(c.median()).isEqualTo(TODAY.minusMonths(24).plusMonths(72));
            assertThat(c.corner()).isFalse();
        });
    }

    @Test
    void aVehicleNearBothLimitsWrapsTheCorner() {
        // 120,000 km in 72 months is 20,000 a year
        DueWindow w = window(BELT, 20_500, 24, Set.of());

        assertThat(w.crossing()).hasValueSatisfying(c -> {
            assertThat(c.corner()).isTrue();
            assertThat(c.to()).contains(TODAY.minusMonths(24).plusMonths(72));
        });
    }

    @Test
    void withoutAnAgeLimitThereIsNoRightWallAndStillAPicture() {
        DueWindow w = window(Families.chain(), 20_000, 36, Set.of());

        assertThat(w.limit().orElseThrow().months()).isEmpty();
        assertThat(w.spanMonths()).isGreaterThan(36 + 20);
        assertThat(w.crossing().orElseThrow().wall()).isEqualTo(Binding.DISTANCE);
    }

    @Test
    void anUnknownRenewalIsDrawnFromFirstRegistration() {
        LocalDate registered = TODAY.minusYears(9);
        VehicleFacts facts = new VehicleFacts(
                registered,
                false,
                List.of(new Reading(1, TODAY, 110_000, ReadingSource.WORKSHOP)),
                Map.of(),
                Set.of(),
                List.of(),
                new UsageClass("T", "test", 12_000, 3_000),
                List.of());
        VehicleForecast forecast = DueEngine.forecast(facts, Optional.of(BELT), BOOK, TODAY);
        DueWindow w = DueWindow.of(forecast, forecast.deciding().orElseThrow(), registered);

        assertThat(w.known()).isFalse();
        assertThat(w.start().date()).isEqualTo(registered);
        assertThat(w.crossing()).isEmpty();
        assertThat(w.today().km()).isCloseTo(110_000, within(1.0));
        assertThat(w.spanMonths()).as("today lies in the picture").isGreaterThan(9 * 12.0);
    }

    @Test
    void farBeyondTheLimitTodayStillLiesInThePicture() {
        DueWindow w = window(BELT, 60_000, 48, Set.of());

        assertThat(w.today().km()).isCloseTo(240_000, within(1.0)).isLessThan(w.spanKm());
    }
}
