package knollfield.core.due;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.Policy.UnknownRule;
import knollfield.core.due.VehicleFacts.Special;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.TensionerKind;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Each comparison of the due date at its edge: the day before, the day itself, the day after. */
class BoundariesTest {

    private static final EngineFamily BELT = Families.belt(TensionerKind.SPRING_PIN, true);
    /** 72 months on, the book's limit, is 10 Mar 2026. */
    private static final LocalDate RENEWED = LocalDate.of(2020, 3, 10);

    private static final LocalDate LIMIT = LocalDate.of(2026, 3, 10);

    private static Policy book(int horizonDays) {
        return new Policy(new Policy.Timing.Book(), 0.1, 0.5, horizonDays, UnknownRule.DUE_NOW);
    }

    /** Laid up since its renewal, so that age alone decides. */
    private static VehicleFacts standing(LocalDate renewed, Set<Condition> hardUse, Evidence... evidence) {
        ClockStart start = new ClockStart(renewed, 50_000, ClockStart.Grade.DOCUMENTED);
        return new VehicleFacts(
                        renewed.minusYears(5),
                        true,
                        List.of(new Reading(1, renewed, 50_000, ReadingSource.WORKSHOP)),
                        Map.of("belt", start, "tensioner", start, "pump", start),
                        hardUse,
                        List.of(evidence),
                        new UsageClass("T", "test", 20_000, 6_000),
                        List.of())
                .with(new Special(UseState.laidUp(renewed), 0, Optional.empty(), Optional.empty(), Set.of()));
    }

    private static VehicleFacts standing(Set<Condition> hardUse, Evidence... evidence) {
        return standing(RENEWED, hardUse, evidence);
    }

    private static VehicleForecast judge(VehicleFacts facts, LocalDate today) {
        return DueEngine.forecast(facts, Optional.of(BELT), book(120), today);
    }

    @ParameterizedTest
    @CsvSource({
        // the limit's own day is still within it: act now, overdue from the day after
        "-1, COMING",
        "0, ACT_NOW",
        "1, OVERDUE",
        // what lies 120 days ahead is coming, 121 is clear
        "-120, COMING",
        "-121, CLEAR",
    })
    void aStatusChangesOnItsDay(int daysFromTheLimit, Status status) {
        VehicleForecast f = judge(standing(Set.of()), LIMIT.plusDays(daysFromTheLimit));

        assertThat(f.actBy()).contains(LIMIT);
        assertThat(f.status()).isEqualTo(status);
    }

    @ParameterizedTest
    @CsvSource({
        // whole months since 10 Mar 2020 and until 10 Mar 2026
        "2024-03-09, 47, 24",
        "2024-03-10, 48, 24",
        "2024-03-11, 48, 23",
        "2026-03-10, 72, 0",
        "2026-04-10, 73, -1",
        "2026-04-09, 72, 0",
    })
    void agesAreWholeMonthsGoneAndLeft(LocalDate today, long used, long left) {
        ItemForecast.AgeClock age = judge(standing(Set.of()), today)
                .item("belt")
                .orElseThrow()
                .age()
                .orElseThrow();

        assertThat(age.usedMonths()).isEqualTo(used);
        assertThat(age.leftMonths()).isEqualTo(left);
        assertThat(age.limitMonths()).isEqualTo(72);
    }

    @Test
    void hardUseCountsToItsOwnLimit() {
        // 60 months in dust: 10 Mar 2025
        assertThat(judge(standing(Set.of(Condition.DUST)), LocalDate.of(2025, 3, 10))
                        .status())
                .isEqualTo(Status.ACT_NOW);
        assertThat(judge(standing(Set.of(Condition.DUST)), LocalDate.of(2025, 3, 11))
                        .status())
                .isEqualTo(Status.OVERDUE);
    }

    @ParameterizedTest
    @CsvSource({
        "-1, ACT_NOW", // heard before the job: it says nothing of the job
        "0, STOP",
        "30, STOP",
        "31, ACT_NOW",
    })
    void slapStopsTheEngineForSoManyDaysAfterItsJob(int daysAfter, Status status) {
        LocalDate heard = RENEWED.plusDays(daysAfter);
        assertThat(Policy.Found.defaults().slapStopDays()).isEqualTo(30);

        assertThat(judge(standing(Set.of(), new Evidence(EvidenceKind.SLAP, heard)), RENEWED.plusDays(40))
                        .status())
                .isEqualTo(status);
    }

    @ParameterizedTest
    @CsvSource({
        "2020-02-29, 2021-02-28", // a leap day's year ends on the last day of February
        "2020-08-31, 2021-08-31",
        "2020-12-01, 2021-12-01",
    })
    void aLimitInMonthsEndsOnTheSameDayOfItsMonth(LocalDate from, LocalDate until) {
        // Source: ISO 8601 / java.time.LocalDate.plusMonths: a day its month has not got is the month's last
        Policy year = new Policy(
                new Policy.Timing.Fixed(knollfield.core.clock.Limit.of(120_000, 12)),
                0.1,
                0.5,
                30,
                UnknownRule.DUE_NOW);
        assertThat(DueEngine.forecast(standing(from, Set.of()), Optional.of(BELT), year, from.plusDays(1))
                        .actBy())
                .contains(until);
    }
}
