package knollfield.core.odometer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.units.DistanceUnit;
import knollfield.core.units.Years;
import org.apache.commons.statistics.distribution.NormalDistribution;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Where a reading just fits and just does not, and where a projection begins, stands and ends. */
class OdometerEdgesTest {

    private static final LocalDate DAY = LocalDate.of(2024, 1, 1);
    private static final UsageClass PRIVATE = new UsageClass("PRIVATE", "private", 12_000, 5_000);

    private static Reading shop(long id, int day, int km) {
        return new Reading(id, DAY.plusDays(day), km, ReadingSource.WORKSHOP);
    }

    private static ReadingChain with(Reading odd, Reading... shop) {
        List<Reading> all = new ArrayList<>(List.of(shop));
        all.add(new Reading(99, odd.date(), odd.km(), ReadingSource.CUSTOMER));
        return ReadingChain.of(all);
    }

    private static RejectReason reason(Reading odd, Reading... shop) {
        ReadingChain chain = with(odd, shop);
        assertThat(chain.kept()).hasSize(shop.length);
        return chain.rejected().get(0).reason();
    }

    @Test
    void aReadingTooSoonBeforeTheNextIsImpossibleAndOneAboveTheNextRunsBackwards() {
        assertThat(reason(shop(9, 100, 50_000), shop(1, 0, 40_000), shop(2, 101, 100_000)))
                .isEqualTo(RejectReason.IMPOSSIBLE_RATE);
        assertThat(reason(shop(9, 50, 130_000), shop(1, 0, 100_000), shop(2, 100, 110_000)))
                .isEqualTo(RejectReason.RUNS_BACKWARDS);
        assertThat(reason(shop(9, 100, 4_900_000), shop(1, 0, 40_000), shop(2, 200, 60_000)))
                .as("more in kilometres than an odometer shows")
                .isEqualTo(RejectReason.IMPOSSIBLE_RATE);
    }

    /** The line of 80,000 to 120,000 km shows 100,000 half way: 115,000 km written as miles are 185,075. */
    @ParameterizedTest
    @CsvSource({"185075, KM_AS_MILES", "185077, RUNS_BACKWARDS", "136795, KM_AS_MILES", "136790, RUNS_BACKWARDS"})
    void anotherUnitIsSuspectedWithinFifteenPercentOfTheLine(int km, RejectReason reason) {
        assertThat(reason(shop(9, 100, km), shop(1, 0, 80_000), shop(2, 200, 120_000)))
                .isEqualTo(reason);
    }

    @Test
    void beyondTheLastReadingTheLineGoesOnAtItsOwnRate() {
        // 100 km a day: 130,000 km half a year on; in miles 80,779
        assertThat(reason(shop(9, 300, 80_779), shop(1, 0, 100_000), shop(2, 200, 120_000)))
                .isEqualTo(RejectReason.MILES_AS_KM);
        ReadingChain slow = with(shop(9, 1_000, 80_779), shop(1, 0, 100_000), shop(2, 200, 120_000));
        assertThat(slow.rejected().get(0).reason()).as("200,000 km by then").isEqualTo(RejectReason.RUNS_BACKWARDS);
    }

    @Test
    void theOrderInWhichReadingsComeDoesNotMatter() {
        List<Reading> inOrder = List.of(shop(1, 0, 10_000), shop(2, 100, 20_000), shop(3, 300, 30_000));
        List<Reading> reversed = new ArrayList<>(inOrder);
        Collections.reverse(reversed);
        assertThat(ReadingChain.of(reversed)).isEqualTo(ReadingChain.of(inOrder));
        assertThat(ReadingChain.of(reversed).kept()).isEqualTo(inOrder);
    }

    @Test
    void aTrustedFirstReadingOutweighsTheLaterOne() {
        ReadingChain chain = ReadingChain.of(
                List.of(shop(1, 0, 100_000), new Reading(2, DAY.plusDays(9), 50_000, ReadingSource.CUSTOMER)));
        assertThat(chain.kept()).extracting(Reading::id).containsExactly(1L);
        assertThat(ReadingChain.of(List.of()).kept()).isEmpty();
        assertThat(ReadingChain.of(List.of()).last()).isEmpty();
        assertThat(ReadingChain.of(List.of(shop(1, 0, 5))).kept()).hasSize(1);
    }

    @Test
    void theWeightOfOneSaidTwiceIsThatOfWhoeverIsTrustedMost() {
        Reading twice = new Reading(2, DAY.plusDays(9), 50_000, ReadingSource.CUSTOMER);
        ReadingChain chain = ReadingChain.of(List.of(
                new Reading(1, DAY, 100_000, ReadingSource.CUSTOMER),
                twice,
                new Reading(3, twice.date(), 50_000, ReadingSource.WORKSHOP)));
        assertThat(chain.kept()).extracting(Reading::id).containsExactly(2L, 3L);
        OdometerAssumptions turned = OdometerAssumptions.defaults().withTrust(ReadingSource.CUSTOMER, 9);
        assertThat(turned.trust(ReadingSource.CUSTOMER)).isEqualTo(9);
        assertThat(turned.trust(ReadingSource.WORKSHOP)).isEqualTo(ReadingSource.WORKSHOP.trust());
        assertThat(turned.maxKmPerDay()).isEqualTo(1_500);
        assertThatThrownBy(() -> turned.withTrust(ReadingSource.CUSTOMER, 0)).hasMessageContaining("1 or more");
        assertThat(turned.withTrust(ReadingSource.CUSTOMER, 1).trust(ReadingSource.CUSTOMER))
                .isOne();
    }

    @Test
    void betweenReadingsALineBeforeThemTheFirstAndAfterThemNothing() {
        ReadingChain chain = ReadingChain.of(List.of(shop(1, 0, 10_000), shop(2, 100, 20_000), shop(3, 300, 30_000)));
        assertThat(chain.interpolatedKm(DAY.plusDays(25))).hasValue(12_500);
        assertThat(chain.interpolatedKm(DAY.plusDays(200))).hasValue(25_000);
        assertThat(chain.interpolatedKm(DAY.plusDays(300))).hasValue(30_000);
        assertThat(chain.interpolatedKm(DAY.plusDays(301))).isEmpty();
        assertThat(chain.interpolatedKm(DAY.minusDays(50))).hasValue(10_000);
        assertThat(ReadingChain.of(List.of()).interpolatedKm(DAY)).isEmpty();
        assertThat(ReadingChain.of(List.of(shop(1, 0, 10_000), shop(2, 0, 10_400)))
                        .interpolatedKm(DAY))
                .hasValue(10_400);
        assertThat(chain.spanYears()).isCloseTo(300 / 365.25, within(1e-9));
        assertThat(ReadingChain.of(List.of(shop(1, 0, 10_000))).spanYears()).isZero();
    }

    @Test
    void anotherOdometerLacksWhatTheOldOneWouldShow() {
        ReadingChain chain = ReadingChain.of(List.of(shop(1, 0, 100_000), shop(2, 100, 110_000)));
        assertThat(chain.offsetOfReplacement(DAY.plusDays(150), 5)).hasValue(114_995);
        assertThat(chain.offsetOfReplacement(DAY.plusDays(150), 114_999)).hasValue(1);
        assertThat(chain.offsetOfReplacement(DAY.plusDays(150), 115_000)).isEmpty();
        assertThat(chain.offsetOfReplacement(DAY.minusDays(1), 5)).isEmpty();
        assertThat(chain.offsetOfReplacement(DAY, 5))
                .as("only the first by then")
                .hasValue(99_995);
    }

    @Test
    void theDayADistanceWasShownIsTheFirstOfThem() {
        ReadingChain chain = ReadingChain.of(
                List.of(shop(1, 0, 10_000), shop(2, 100, 20_000), shop(3, 150, 20_000), shop(4, 250, 30_000)));
        assertThat(chain.dateReached(20_000)).contains(DAY.plusDays(100));
        assertThat(chain.dateReached(20_001)).contains(DAY.plusDays(151));
        assertThat(chain.dateReached(30_000)).contains(DAY.plusDays(250));
        assertThat(chain.dateReached(19_901)).contains(DAY.plusDays(100));
        assertThat(chain.dateReached(19_900)).contains(DAY.plusDays(99));
        // standing still and idling: 0 km and 3,652.5 km a year, which is 10 a day, from day 100 on
        assertThat(chain.dateReached(20_200, 3_652.5, DAY.plusDays(100))).contains(DAY.plusDays(120));
    }

    @ParameterizedTest
    @ValueSource(doubles = {1e-15, 1e-11, 0.0749, 0.075, 0.0751, 0.925, 0.9251, 1 - 1e-12})
    void farQuantilesAgreeWithAStatisticsLibrary(double p) {
        // Source: Apache Commons Statistics 1.3, NormalDistribution
        assertThat(Normal.quantile(p))
                .isCloseTo(NormalDistribution.of(0, 1).inverseCumulativeProbability(p), within(1e-9));
    }

    @Test
    void aQuantileNeedsAChance() {
        for (double p : new double[] {0, 1, Double.NaN}) {
            assertThatThrownBy(() -> Normal.quantile(p)).hasMessageContaining("between 0 and 1");
        }
        assertThat(Normal.cdf(Double.NaN)).isNaN();
    }

    private static Projection at(double rate, Optional<LocalDate> standsFrom, KnownTrip... trips) {
        return new Projection(DAY, 100_000, new UsageRate(rate, 0, 0, Optional.empty()), List.of(trips), standsFrom);
    }

    @Test
    void aDistanceIsReachedAtOnceWithinSixtyYearsOrNever() {
        Projection still = at(0, Optional.empty());
        assertThat(still.firstDayReached(100_000, 0.5)).contains(DAY);
        assertThat(still.firstDayReached(99_000, 0.5)).contains(DAY);
        Projection slow = at(100, Optional.empty());
        assertThat(slow.firstDayReached(106_000, 0.5)).isPresent();
        assertThat(slow.firstDayReached(106_000.1, 0.5)).isEmpty();
        KnownTrip soon = new KnownTrip(DAY.plusDays(10), DAY.plusDays(19), 500);
        assertThat(at(0, Optional.empty(), soon).firstDayReached(100_501, 0.5)).isEmpty();
        assertThat(at(0, Optional.empty(), soon).firstDayReached(100_500, 0.5)).contains(DAY.plusDays(20));
    }

    @Test
    void aVehicleThatStandsRunsNoFurther() {
        LocalDate stands = DAY.plusDays(100);
        Projection p = at(3_652.5, Optional.of(stands));
        assertThat(p.running(DAY.plusDays(99))).isEqualTo(DAY.plusDays(99));
        assertThat(p.running(stands)).isEqualTo(stands);
        assertThat(p.running(DAY.plusDays(101))).isEqualTo(stands);
        assertThat(p.medianKm(DAY.plusDays(400))).isCloseTo(101_000, within(1e-6));
        assertThat(p.firstDayReached(101_000, 0.5)).contains(stands);
        assertThat(p.firstDayReached(101_001, 0.5)).isEmpty();
    }

    @Test
    void ofATripThatHasBegunOnlyTheRestIsAhead() {
        Projection p = at(3_652.5, Optional.empty(), new KnownTrip(DAY.minusDays(5), DAY.plusDays(4), 2_000));
        assertThat(p.medianKm(DAY)).isCloseTo(100_000, within(1e-6));
        assertThat(p.medianKm(DAY.plusDays(2))).isCloseTo(100_420, within(1e-6));
        assertThat(p.medianKm(DAY.plusDays(50))).isCloseTo(101_500, within(1e-6));
        Projection gone = at(3_652.5, Optional.empty(), new KnownTrip(DAY.minusDays(50), DAY.minusDays(41), 2_000));
        assertThat(gone.medianKm(DAY.plusDays(50))).isCloseTo(100_500, within(1e-6));
    }

    @Test
    void idlingIsAddedToTheRateAndAStatedRateHasNoDoubt() {
        UsageRate stated = UsageRate.stated(9_000, PRIVATE);
        assertThat(stated).isEqualTo(new UsageRate(9_000, 0, 2_400, Optional.empty()));
        assertThat(stated.plus(1_200)).isEqualTo(new UsageRate(10_200, 0, 2_400, Optional.empty()));
        assertThat(stated.plus(0)).isSameAs(stated);
        Projection p = at(1_000, Optional.empty());
        assertThat(p.plusRate(826.25).medianKm(DAY.plusYears(4))).isCloseTo(100_000 + 4 * 1_826.25, within(1e-6));
        assertThat(p.plusRate(0)).isSameAs(p);
    }

    @Test
    void segmentsAreWeighedByTheirMiddleAndTwoReadingsOfADayByNothing() {
        List<Reading> kept = List.of(shop(1, 0, 0), shop(2, 731, 40_000), shop(3, 1_461, 50_000));
        UsageRate.Observed seen = UsageRate.estimate(kept, PRIVATE).observed().orElseThrow();
        // From memory: weights halve with each year back from the middle of a segment
        double first = 731 / Years.DAYS;
        double second = 730 / Years.DAYS;
        double w1 = first * Math.pow(0.5, second + first / 2);
        double w2 = second * Math.pow(0.5, second / 2);
        assertThat(seen.kmPerYear()).isCloseTo((w1 * 40_000 / first + w2 * 10_000 / second) / (w1 + w2), within(1e-6));

        List<Reading> twice = new ArrayList<>(kept);
        twice.add(2, new Reading(4, DAY.plusDays(731), 40_000, ReadingSource.CUSTOMER));
        assertThat(UsageRate.estimate(twice, PRIVATE).observed()).contains(seen);
        assertThat(UsageRate.estimate(List.of(shop(1, 0, 5), shop(2, 0, 9)), PRIVATE)
                        .observed())
                .isEmpty();
    }

    @Test
    void readingsOfAClassWithoutScatterAreTakenAsTheyAre() {
        UsageClass exact = new UsageClass("E", "exact", 12_000, 5_000, 0);
        UsageRate rate = UsageRate.estimate(List.of(shop(1, 0, 0), shop(2, 1_461, 32_000)), exact);
        assertThat(rate.kmPerYear()).isCloseTo(8_000, within(1e-9));
        assertThat(rate.variance()).isZero();
    }

    @Test
    void wholeMilesStandForWhatTheyAre() {
        Reading miles = new Reading(1, DAY, 120_001, ReadingSource.WORKSHOP, DistanceUnit.MILES);
        // Source: international mile of 1959, 1,609.344 m: 74,565 miles are 120,000.7 km
        assertThat(miles.shownKm()).isCloseTo(74_565 * 1.609344, within(1e-9));
        assertThat(new Reading(1, DAY, 120_003, ReadingSource.WORKSHOP, DistanceUnit.MILES).shownKm())
                .as("no whole mile rounds to it")
                .isEqualTo(120_003);
        assertThat(shop(1, 0, 120_001).shownKm()).isEqualTo(120_001);
    }

    @Test
    void whatAClassLearnsIsTheSpreadBetweenVehiclesLessTheNoise() {
        List<List<Reading>> chains = new ArrayList<>();
        for (int i = 0; i < 20; i++) {
            chains.add(List.of(shop(1, 0, 0), shop(2, 1_461, i % 2 == 0 ? 40_000 : 80_000)));
        }
        ClassLearning learned = ClassLearning.of(PRIVATE, chains);
        // by hand: 10,000 and 20,000 km a year in turn: variance 25e6 × 20/19; noise 2,400² over four years
        assertThat(learned.inForce().meanKmPerYear()).isCloseTo(15_000, within(1e-6));
        assertThat(learned.inForce().sdKmPerYear())
                .isCloseTo(Math.sqrt(25e6 * 20 / 19 - 2_400.0 * 2_400 / 4), within(1e-3));
        assertThat(ClassLearning.of(PRIVATE, chains.subList(0, 19)).learned()).isFalse();
        assertThat(new OdometerAssumptions(Map.of(), 1_500, 0.2, 0).idleKmPerHour())
                .isZero();
    }
}
