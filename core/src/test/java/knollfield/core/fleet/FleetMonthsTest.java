package knollfield.core.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import knollfield.core.due.Status;
import knollfield.core.estimate.EstimateRates;
import knollfield.core.plan.WorkHours;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FleetMonthsTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 29);

    private static final EstimateRates RATES = new EstimateRates(4_800, 1, 0.9, 1.25, 0, 0, 0);

    private static Coming coming(long id, Status status, LocalDate actBy, LocalDate plannedOn, int minutes) {
        return new Coming(
                id,
                status,
                Optional.ofNullable(actBy),
                Optional.ofNullable(actBy).map(d -> d.plusDays(20)),
                Optional.ofNullable(actBy).map(d -> d.plusDays(60)),
                Optional.ofNullable(actBy).map(d -> d.plusDays(90)),
                minutes,
                Coming.Money.of(10_000 + 80L * minutes, minutes, RATES),
                minutes == 0 ? 0 : Coming.offRoadDays(minutes, 480),
                Optional.ofNullable(plannedOn));
    }

    private static FleetMonths of(List<Coming> all) {
        return FleetMonths.of(all, TODAY, 24, 2, d -> d.getDayOfWeek() != DayOfWeek.SUNDAY);
    }

    @ParameterizedTest(name = "{0}, act by {1}, planned {2}: {3}")
    @CsvSource({
        "OVERDUE, 2026-06-01, , 2026-11",
        "UNKNOWN_HISTORY, 2026-11-29, , 2026-11",
        "STOP, , , 2026-11",
        "STOP, 2028-01-01, , 2026-11",
        "COMING, 2026-12-01, , 2026-12",
        "CLEAR, 2028-10-31, , 2028-10",
        "CLEAR, 2028-11-01, , beyond",
        "NO_BOOK, , , without",
        "OVERDUE, 2026-06-01, 2027-01-04, 2027-01",
        "CLEAR, 2028-11-01, 2026-12-07, 2026-12",
        "OVERDUE, 2026-06-01, 2026-11-02, 2026-11"
    })
    void eachStandsOnceInItsMonth(Status status, LocalDate actBy, LocalDate plannedOn, String where) {
        FleetMonths months = of(List.of(coming(7, status, actBy, plannedOn, 300)));

        List<String> stands = new ArrayList<>();
        months.months().stream()
                .filter(m -> !m.comes().isEmpty())
                .forEach(m -> stands.add(m.month().toString()));
        months.beyond().forEach(c -> stands.add("beyond"));
        months.without().forEach(c -> stands.add("without"));
        assertThat(stands).containsExactly(where);
    }

    @Test
    void nothingIsLostOrCountedTwiceAndLimitsOnlyComeNearer() {
        Random random = new Random(5);
        for (int run = 0; run < 200; run++) {
            List<Coming> all = new ArrayList<>();
            for (int i = 0; i < random.nextInt(30); i++) {
                LocalDate actBy = random.nextInt(6) == 0 ? null : TODAY.plusDays(random.nextInt(1200) - 200);
                all.add(coming(
                        i,
                        Status.values()[random.nextInt(Status.values().length)],
                        actBy,
                        random.nextInt(5) == 0 ? TODAY.plusDays(random.nextInt(40) - 5) : null,
                        random.nextInt(3) * 350));
            }
            FleetMonths months = of(all);

            assertThat(Stream.of(
                                    months.months().stream().flatMap(m -> m.comes().stream()),
                                    months.beyond().stream(),
                                    months.without().stream())
                            .flatMap(s -> s))
                    .containsExactlyInAnyOrderElementsOf(all);
            FleetMonths.Sum year = months.first(12);
            assertThat(year.money().likely())
                    .isEqualTo(months.months().stream()
                            .limit(12)
                            .mapToLong(m -> m.sum().money().likely())
                            .sum());
            assertThat(year.money().low()).isLessThanOrEqualTo(year.money().likely());
            assertThat(year.money().high()).isGreaterThanOrEqualTo(year.money().likely());
            assertThat(months.months())
                    .extracting(FleetMonths.Month::reachedMedian)
                    .isSorted();
            assertThat(months.months())
                    .allSatisfy(m -> assertThat(m.reachedEarly())
                            .isGreaterThanOrEqualTo(m.reachedMedian())
                            .isGreaterThanOrEqualTo(m.reachedLate()));
        }
    }

    @Test
    void aMonthIsOverWhereMoreDaysFallIntoItThanTheFleetCanSpare() {
        // two days left of November, the last a Sunday and a Monday: one working day for two vehicles
        List<Coming> two =
                List.of(coming(1, Status.OVERDUE, TODAY, null, 480), coming(2, Status.OVERDUE, TODAY, null, 480));
        FleetMonths.Month november = of(two).months().get(0);
        assertThat(november.spare()).isEqualTo(2);
        assertThat(november.isOver()).isFalse();

        List<Coming> longer = List.of(two.get(0), coming(2, Status.OVERDUE, TODAY, null, 481));
        assertThat(of(longer).months().get(0).sum().offRoadDays()).isEqualTo(3);
        assertThat(of(longer).months().get(0).isOver()).isTrue();
        assertThat(of(longer).months().get(1).month()).isEqualTo(YearMonth.of(2026, 12));
        assertThat(of(longer).months().get(1).spare())
                .as("27 working days for two")
                .isEqualTo(54);
    }

    @Test
    void moneySpansItsLabourAlone() {
        assertThat(Coming.Money.of(64_000, 300, RATES)).isEqualTo(new Coming.Money(61_600, 64_000, 70_000));
    }

    @ParameterizedTest(name = "{0}: {1} minutes")
    @CsvSource({
        "MONDAY 08:00-12:00 13:00-17:00, 480",
        "MONDAY 08:00-12:00;SATURDAY 07:30-12:00 12:30-17:00, 540",
        "'', 0"
    })
    void theLongestDayCountsItsSpansAlone(String hours, int minutes) {
        assertThat(WorkHours.read(hours).longestDayMinutes()).isEqualTo(minutes);
    }
}
