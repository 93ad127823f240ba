package knollfield.core.clock;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.OptionalDouble;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Every comparison of a clock with its limit, just before it, at it and just after it. */
class LimitClockTest {

    private static final LocalDate START = LocalDate.of(2020, 3, 1);
    private static final Limit BOTH = Limit.of(120_000, 72);

    private static LimitClock clock(Limit limit) {
        return new LimitClock(new ClockStart(START, 40_000, ClockStart.Grade.DOCUMENTED), limit);
    }

    private static Limit ofMonths(int months) {
        return new Limit(java.util.OptionalInt.empty(), java.util.OptionalInt.of(months));
    }

    @ParameterizedTest(name = "{0} km on {1}: inside {2}")
    @CsvSource({
        "119999.9, 2026-02-28, true",
        "120000, 2026-02-28, false",
        "120000.1, 2026-02-28, false",
        "119999.9, 2026-03-01, false",
        "0, 2026-03-01, false",
        "0, 2026-02-28, true",
        "0, 2026-03-02, false"
    })
    void atALimitIsNotInsideIt(double km, LocalDate day, boolean inside) {
        assertThat(clock(BOTH).isInside(km, day)).isEqualTo(inside);
    }

    @Test
    void aLimitThatIsNotThereIsNeverReached() {
        assertThat(clock(Limit.ofKm(120_000)).isInside(119_999, START.plusYears(90)))
                .isTrue();
        assertThat(clock(ofMonths(72)).isInside(4_000_000, LocalDate.of(2026, 2, 28)))
                .isTrue();
        assertThat(clock(ofMonths(72)).isInside(0, LocalDate.of(2026, 3, 1))).isFalse();
        assertThat(clock(Limit.ofKm(120_000)).ageUsed(START.plusYears(9))).isEmpty();
        assertThat(clock(Limit.ofKm(120_000)).ageEnd()).isEmpty();
        assertThat(clock(Limit.ofKm(120_000)).ageDay(0.5)).isEmpty();
        assertThat(clock(ofMonths(72)).distanceUsed(1)).isEmpty();
    }

    @ParameterizedTest(name = "{0} and {1} months end on {2}")
    @CsvSource({
        "2020-08-31, 6, 2021-02-28",
        "2019-08-31, 6, 2020-02-29",
        "2020-02-29, 12, 2021-02-28",
        "2020-02-29, 48, 2024-02-29",
        "2020-12-31, 1, 2021-01-31",
        "2020-01-31, 1, 2020-02-29"
    })
    void monthsAreThoseOfTheCalendar(LocalDate from, int months, LocalDate end) {
        // Source: ISO 8601 calendar as java.time.LocalDate.plusMonths has it: a day its month has not got is the
        // month's last
        assertThat(from.plusMonths(months)).isEqualTo(end);
        assertThat(new LimitClock(new ClockStart(from, 0, ClockStart.Grade.STATED), ofMonths(months)).ageEnd())
                .contains(end);
    }

    @ParameterizedTest(name = "{0} km on {1}: {2} of the distance, {3} of the age")
    @CsvSource({
        "0, 2020-03-01, 0, 0",
        "60000, 2023-03-01, 0.5, 0.49977",
        "120000, 2026-03-01, 1, 1",
        "150000, 2027-03-01, 1.25, 1.16659",
        "-5, 2020-02-01, 0, 0"
    })
    void sharesOfTheLimitsGrowFromZero(double km, LocalDate day, double distance, double age) {
        LimitClock clock = clock(BOTH);
        assertThat(clock.distanceUsed(km).orElseThrow()).isEqualTo(distance, within(1e-12));
        // Source: Gregorian calendar: 2,191 days from 1 March 2020 to 1 March 2026, one of them 29 February 2024
        assertThat(clock.ageUsed(day).orElseThrow())
                .isEqualTo(Math.max(0, ChronoUnit.DAYS.between(START, day)) / 2_191.0, within(1e-12))
                .isEqualTo(age, within(1e-5));
        assertThat(clock.used(km, day))
                .isEqualTo(Math.max(distance, clock.ageUsed(day).orElseThrow()));
    }

    @ParameterizedTest(name = "{0} of it is used on {1}")
    @CsvSource({
        "0, 2020-03-01",
        "1, 2026-03-01",
        // 0.9 · 2,191 = 1,971.9
        "0.9, 2025-07-25",
        // 0.5 · 2,191 = 1,095.5, half a day is the day after
        "0.5, 2023-03-02"
    })
    void theDayOfAShareIsTheNearestWholeDay(double share, LocalDate day) {
        assertThat(clock(BOTH).ageDay(share)).contains(day);
    }

    @Test
    void aDayLaterHasUsedMoreAndTheDayOfItsShareIsThatDay() {
        Random random = new Random(3);
        for (int i = 0; i < 500; i++) {
            LocalDate from = LocalDate.ofEpochDay(random.nextInt(25_000));
            Limit limit = ofMonths(1 + random.nextInt(240));
            LimitClock clock = new LimitClock(new ClockStart(from, 0, ClockStart.Grade.DOCUMENTED), limit);
            LocalDate day = from.plusDays(random.nextInt(8_000));
            double share = clock.ageUsed(day).orElseThrow();
            assertThat(clock.ageUsed(day.plusDays(1)).orElseThrow()).isGreaterThan(share);
            assertThat(clock.ageDay(share)).contains(day);
            assertThat(clock.isInside(0, day)).isEqualTo(share < 1);
        }
    }

    @Test
    void theLargerShareIsTheOneThatCounts() {
        assertThat(clock(BOTH).used(90_000, START)).isEqualTo(0.75);
        assertThat(clock(BOTH).used(0, LocalDate.of(2026, 3, 1))).isEqualTo(1);
        assertThat(clock(Limit.ofKm(60_000)).used(90_000, START.plusYears(40))).isEqualTo(1.5);
        assertThat(clock(Limit.ofKm(60_000)).used(-1, START)).isZero();
    }

    @Test
    void whatIsNoLimitIsRefused() {
        assertThatThrownBy(() -> Limit.of(0, 72)).hasMessageContaining("above zero");
        assertThatThrownBy(() -> Limit.of(10_000, 0)).hasMessageContaining("above zero");
        assertThatThrownBy(() -> ofMonths(-1)).hasMessageContaining("above zero");
        assertThatThrownBy(() -> new Limit(java.util.OptionalInt.empty(), java.util.OptionalInt.empty()))
                .hasMessageContaining("a distance, an age, or both");
        assertThatThrownBy(() -> new ClockStart(START, -1, ClockStart.Grade.STATED))
                .hasMessageContaining("-1");
        assertThatThrownBy(() -> new ClockStart(START, 5_000_001, ClockStart.Grade.STATED))
                .hasMessageContaining("5000001");
        assertThat(new ClockStart(START, 5_000_000, ClockStart.Grade.STATED).km())
                .isEqualTo(5_000_000);
        assertThat(Limit.ofKm(1).agePerYear()).isEqualTo(OptionalDouble.empty());
    }

    @Test
    void theSmallerOfTwoLimitsIsTakenKindByKind() {
        assertThat(Limit.of(120_000, 60).smallerOf(Limit.of(90_000, 72))).isEqualTo(Limit.of(90_000, 60));
        assertThat(Limit.ofKm(120_000).smallerOf(ofMonths(72))).isEqualTo(BOTH);
        assertThat(Limit.of(120_000, 72).isWithin(BOTH)).isTrue();
        assertThat(Limit.of(120_001, 72).isWithin(BOTH)).isFalse();
        assertThat(Limit.of(120_000, 73).isWithin(BOTH)).isFalse();
        assertThat(Limit.ofKm(120_000).isWithin(BOTH)).isFalse();
        assertThat(BOTH.isWithin(Limit.ofKm(120_000))).isTrue();
    }
}
