package knollfield.core.odometer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.units.Years;
import org.apache.commons.statistics.distribution.NormalDistribution;
import org.apache.commons.statistics.distribution.TruncatedNormalDistribution;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ProjectionTest {

    private static final LocalDate DAY = LocalDate.of(2026, 3, 1);
    private static final UsageClass PRIVATE = new UsageClass("PRIVATE", "private", 12_000, 5_000);

    @ParameterizedTest
    @ValueSource(doubles = {-38, -8, -3.0001, -3, -1.281551565544, -0.1, 0, 0.6, 2.9, 3.5, 9})
    void normalAgreesWithAStatisticsLibrary(double z) {
        // Source: Apache Commons Statistics 1.3, NormalDistribution
        NormalDistribution reference = NormalDistribution.of(0, 1);
        assertThat(Normal.cdf(z)).isCloseTo(reference.cumulativeProbability(z), within(1e-13));
        assertThat(Normal.density(z)).isCloseTo(reference.density(z), within(1e-15));
    }

    @ParameterizedTest
    @ValueSource(doubles = {0.001, 0.1, 0.5, 0.9, 0.975})
    void quantilesAgreeWithAStatisticsLibrary(double p) {
        // Source: Apache Commons Statistics 1.3, NormalDistribution
        assertThat(Normal.quantile(p))
                .isCloseTo(NormalDistribution.of(0, 1).inverseCumulativeProbability(p), within(1e-10));
    }

    @Test
    void aClassAloneGivesThePriorTruncatedAtZero() {
        UsageClass wide = new UsageClass("X", "x", 3_000, 4_000);
        UsageRate rate = UsageRate.estimate(List.of(), wide);
        // Source: Apache Commons Statistics 1.3, TruncatedNormalDistribution
        TruncatedNormalDistribution reference =
                TruncatedNormalDistribution.of(3_000, 4_000, 0, Double.POSITIVE_INFINITY);

        assertThat(rate.observed()).isEmpty();
        assertThat(rate.kmPerYear()).isCloseTo(reference.getMean(), within(1e-6));
        assertThat(rate.variance()).isCloseTo(reference.getVariance(), within(1e-2));
    }

    @Test
    void aSingleSegmentIsWeighedAgainstTheClassByPrecision() {
        // worked by hand: σ_w = 2,400; Δt = 2 years: Var(r̂) = 2,400²/2; prior variance 5,000²
        LocalDate from = DAY.minusDays(Math.round(2 * Years.DAYS));
        double t = Years.between(from, DAY);
        UsageRate rate = UsageRate.estimate(
                List.of(
                        new Reading(1, from, 10_000, ReadingSource.WORKSHOP),
                        new Reading(2, DAY, 50_000, ReadingSource.WORKSHOP)),
                PRIVATE);
        double seen = 40_000 / t;
        double variance = 2_400.0 * 2_400 / t;
        double mean = (12_000 / 25e6 + seen / variance) / (1 / 25e6 + 1 / variance);

        assertThat(rate.observed()).hasValueSatisfying(o -> {
            assertThat(o.kmPerYear()).isCloseTo(seen, within(1e-9));
            assertThat(o.variance()).isCloseTo(variance, within(1e-6));
            assertThat(o.segments()).isEqualTo(1);
        });
        assertThat(rate.kmPerYear()).isCloseTo(mean, within(0.01));
    }

    @Test
    void recentSegmentsWeighMore() {
        UsageRate rate = UsageRate.estimate(
                List.of(
                        new Reading(1, DAY.minusYears(6), 0, ReadingSource.WORKSHOP),
                        new Reading(2, DAY.minusYears(2), 80_000, ReadingSource.WORKSHOP),
                        new Reading(3, DAY, 90_000, ReadingSource.WORKSHOP)),
                PRIVATE);

        // 20,000 a year long ago, 5,000 a year lately: the plain mean would be 15,000
        assertThat(rate.observed().orElseThrow().kmPerYear()).isBetween(5_000.0, 9_000.0);
    }

    private static Projection projection(double rate, double spread, double scatter, KnownTrip... trips) {
        return new Projection(
                DAY, 100_000, new UsageRate(rate, spread * spread, scatter, Optional.empty()), List.of(trips));
    }

    @ParameterizedTest(name = "rate {0} ± {1}, scatter {2}, {3} km, chance {4}")
    @CsvSource({
        "20000, 2000, 4000, 22000, 0.1", "20000, 2000, 4000, 22000, 0.9", "3000, 2500, 2400, 60000, 0.1",
        "12000, 0, 2400, 500, 0.9", "12000, 3000, 0, 90000, 0.1", "8000, 1000, 1600, 200000, 0.5"
    })
    void theFirstDayIsTheFirstDayOnWhichTheChanceIsThere(
            double rate, double spread, double scatter, double km, double chance) {
        Projection p = projection(rate, spread, scatter);
        LocalDate day = p.firstDayReached(100_000 + km, chance).orElseThrow();

        assertThat(p.chanceReached(100_000 + km, day)).isGreaterThanOrEqualTo(chance - 1e-9);
        assertThat(p.chanceReached(100_000 + km, day.minusDays(1))).isLessThan(chance);
    }

    @Test
    void noneWithinSixtyYearsIsSaidNotNumbered() {
        assertThat(projection(0, 0, 0).firstDayReached(100_001, 0.5)).isEmpty();
        // one in ten such vehicles hardly moves: nine in ten is never reached
        assertThat(projection(1_000, 900, 200).firstDayReached(160_000, 0.9)).isEmpty();
        assertThat(projection(1_000, 900, 200).firstDayReached(160_000, 0.1)).isPresent();
        assertThat(projection(100, 0, 0).firstDayReached(106_001, 0.5)).isEmpty();
    }

    @Test
    void aTripBringsTheDayForwardByItsDistance() {
        LocalDate from = DAY.plusDays(100);
        Projection p = projection(3_652.5, 0, 0, new KnownTrip(from, from.plusDays(9), 2_000));

        // 10 km a day, 200 more on each of the ten days of the trip
        assertThat(p.medianKm(from)).isCloseTo(101_000, within(1e-6));
        assertThat(p.medianKm(from.plusDays(5))).isCloseTo(102_050, within(1e-6));
        assertThat(p.medianKm(from.plusDays(60))).isCloseTo(103_600, within(1e-6));
        assertThat(p.firstDayReached(102_050, 0.5)).contains(from.plusDays(5));
    }

    @Test
    void aTripThatEndsBeforeItStartsIsRefused() {
        assertThatThrownBy(() -> new KnownTrip(DAY, DAY.minusDays(1), 10)).hasMessageContaining("ends");
    }

    @Test
    void moreUsageNeverMovesADateLater() {
        Random random = new Random(11);
        for (int i = 0; i < 2_000; i++) {
            double km = 100_000 + 1 + random.nextInt(150_000);
            int days = 200 + random.nextInt(1_500);
            int driven = random.nextInt(60_000);
            double chance = List.of(0.1, 0.5, 0.9).get(random.nextInt(3));
            LocalDate slow = reach(driven, days, km, chance);
            LocalDate fast = reach(driven + 1 + random.nextInt(5_000), days, km, chance);
            assertThat(fast).isBeforeOrEqualTo(slow);
        }
    }

    private static LocalDate reach(int driven, int days, double km, double chance) {
        List<Reading> kept = List.of(
                new Reading(1, DAY.minusDays(days), 100_000 - Math.min(100_000, driven), ReadingSource.WORKSHOP),
                new Reading(2, DAY, 100_000, ReadingSource.WORKSHOP));
        return new Projection(DAY, 100_000, UsageRate.estimate(kept, PRIVATE), List.of())
                .firstDayReached(km, chance)
                .orElse(LocalDate.MAX);
    }
}
