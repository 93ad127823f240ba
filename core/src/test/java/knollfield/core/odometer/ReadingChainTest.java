package knollfield.core.odometer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import knollfield.core.units.DistanceUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ReadingChainTest {

    private static final LocalDate DAY = LocalDate.of(2024, 1, 1);

    private static Reading reading(long id, int day, int km, ReadingSource source) {
        return new Reading(id, DAY.plusDays(day), km, source);
    }

    private static Reading shop(long id, int day, int km) {
        return reading(id, day, km, ReadingSource.WORKSHOP);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', textBlock = """
            below the one before            |  60000 | RUNS_BACKWARDS
            ten times what it can have run  | 900000 | IMPOSSIBLE_RATE
            68,000 miles, no unit given     |  68351 | MILES_AS_KM
            km entered as miles             | 177028 | KM_AS_MILES
            """)
    void aReadingThatDoesNotFitIsRejectedWithItsReason(String behaviour, int km, RejectReason reason) {
        ReadingChain chain = ReadingChain.of(List.of(
                shop(1, 0, 100_000),
                shop(2, 182, 110_000),
                reading(3, 200, km, ReadingSource.CUSTOMER),
                shop(4, 365, 120_000)));

        assertThat(chain.kept()).extracting(Reading::id).containsExactly(1L, 2L, 4L);
        assertThat(chain.rejected()).singleElement().satisfies(r -> {
            assertThat(r.reading().id()).isEqualTo(3);
            assertThat(r.reason()).isEqualTo(reason);
        });
    }

    @Test
    void trustDecidesNotNumbers() {
        ReadingChain chain = ReadingChain.of(List.of(
                reading(1, 0, 90_000, ReadingSource.CUSTOMER),
                reading(2, 50, 91_000, ReadingSource.CUSTOMER),
                shop(3, 100, 60_000)));

        assertThat(chain.kept()).extracting(Reading::id).containsExactly(3L);
    }

    @Test
    void ofEqualChainsTheLaterReadingStays() {
        ReadingChain chain = ReadingChain.of(List.of(shop(1, 0, 50_000), shop(2, 10, 40_000)));

        assertThat(chain.kept()).extracting(Reading::id).containsExactly(2L);
        assertThat(chain.rejected())
                .extracting(ReadingChain.Rejected::reason)
                .containsExactly(RejectReason.RUNS_BACKWARDS);
    }

    @Test
    void ofEqualChainsTheLaterReadingStaysInTheMiddleToo() {
        ReadingChain chain =
                ReadingChain.of(List.of(shop(1, 0, 1_000), shop(2, 10, 5_000), shop(3, 12, 3_000), shop(4, 20, 6_000)));

        assertThat(chain.kept()).extracting(Reading::id).containsExactly(1L, 3L, 4L);
    }

    @Test
    void aDayMayHoldTwoReadingsWithinADaysDistance() {
        assertThat(ReadingChain.of(List.of(shop(1, 0, 1_000), shop(2, 0, 2_500)))
                        .rejected())
                .isEmpty();
        assertThat(ReadingChain.of(List.of(shop(1, 0, 1_000), shop(2, 0, 2_501)))
                        .rejected())
                .hasSize(1);
    }

    @Test
    void theKeptChainIsTheHeaviestOfAllChains() {
        Random random = new Random(7);
        for (int round = 0; round < 400; round++) {
            List<Reading> readings = new ArrayList<>();
            for (int i = 0; i < 9; i++) {
                readings.add(reading(
                        i, random.nextInt(600), random.nextInt(60_000), ReadingSource.values()[random.nextInt(6)]));
            }
            int best = 0;
            for (int mask = 1; mask < 1 << readings.size(); mask++) {
                List<Reading> subset = new ArrayList<>();
                for (int i = 0; i < readings.size(); i++) {
                    if ((mask >> i & 1) == 1) {
                        subset.add(readings.get(i));
                    }
                }
                if (isConsistent(subset)) {
                    best = Math.max(best, weight(subset));
                }
            }
            ReadingChain chain = ReadingChain.of(readings);
            assertThat(isConsistent(chain.kept())).isTrue();
            assertThat(weight(chain.kept())).isEqualTo(best);
            assertThat(chain.kept().size() + chain.rejected().size()).isEqualTo(readings.size());
        }
    }

    private static int weight(List<Reading> readings) {
        return readings.stream().mapToInt(r -> r.source().trust()).sum();
    }

    private static boolean isConsistent(List<Reading> readings) {
        List<Reading> sorted = readings.stream()
                .sorted((a, b) -> a.date().equals(b.date())
                        ? Integer.compare(a.km(), b.km())
                        : a.date().compareTo(b.date()))
                .toList();
        for (int i = 1; i < sorted.size(); i++) {
            Reading a = sorted.get(i - 1);
            Reading b = sorted.get(i);
            long days = Math.max(1, b.date().toEpochDay() - a.date().toEpochDay());
            if (b.km() < a.km() || b.km() - a.km() > 1_500 * days) {
                return false;
            }
        }
        return true;
    }

    @Test
    void interpolatesTheDayADistanceWasReached() {
        ReadingChain chain = ReadingChain.of(List.of(shop(1, 0, 10_000), shop(2, 100, 20_000)));

        assertThat(chain.dateReached(15_000)).contains(DAY.plusDays(50));
        assertThat(chain.dateReached(5_000)).contains(DAY);
        assertThat(chain.dateReached(20_001)).isEmpty();
    }

    @Test
    void saysWhetherANewReadingWouldFit() {
        ReadingChain chain = ReadingChain.of(List.of(shop(1, 0, 100_000), shop(2, 365, 120_000)));

        assertThat(chain.objectionTo(shop(3, 400, 122_000))).isEmpty();
        assertThat(chain.objectionTo(shop(3, 400, 119_999))).contains(RejectReason.RUNS_BACKWARDS);
    }

    @Test
    void aTenDigitOdometerIsNoReading() {
        assertThatThrownBy(() -> shop(1, 0, 1_234_567_890)).hasMessageContaining("1234567890");
    }

    @Test
    void oneValueRepeatedOnOneDayDoesNotOutweighWhatOthersSay() {
        List<Reading> readings = new ArrayList<>();
        for (int year = 2018; year < 2023; year++) {
            readings.add(new Reading(
                    year - 2_000, LocalDate.of(year, 5, 1), 10_000 * (year - 2016), ReadingSource.CERTIFICATE));
        }
        // a typing error, entered once for each of five renewed items
        for (int item = 0; item < 5; item++) {
            readings.add(new Reading(100 + item, LocalDate.of(2019, 1, 1), 250_000, ReadingSource.WORKSHOP));
        }
        ReadingChain chain = ReadingChain.of(readings);
        assertThat(chain.kept()).extracting(Reading::km).containsExactly(20_000, 30_000, 40_000, 50_000, 60_000);
        assertThat(chain.rejected()).hasSize(5);

        // and one that is right stays with all who said it
        readings.removeIf(r -> r.id() >= 100);
        readings.add(new Reading(200, LocalDate.of(2022, 5, 1), 60_000, ReadingSource.CUSTOMER));
        assertThat(ReadingChain.of(readings).kept()).hasSize(6);
    }

    /** Odometers truncate: 74,565 miles are 120,000.7 km and may be anything up to a mile more. */
    @ParameterizedTest
    @CsvSource({
        "74565, MILES, true, 120002",
        "74564, MILES, false, 120002",
        "120001, KM, false, 120002",
        "74600, MILES, true, 120057"
    })
    void betweenMilesAndKilometresAWholeMileLessIsNotBackwards(int value, DistanceUnit unit, boolean kept, int lastKm) {
        Reading later =
                new Reading(2, DAY.plusDays(20), (int) Math.round(unit.toKm(value)), ReadingSource.CUSTOMER, unit);
        ReadingChain chain = ReadingChain.of(List.of(shop(1, 0, 120_002), later));

        assertThat(chain.rejected().isEmpty()).isEqualTo(kept);
        assertThat(chain.last().orElseThrow().km()).isEqualTo(lastKm);
    }

    @Test
    void ofEqualChainsTheOneWhoseRejectsFitAsAnotherUnit() {
        // 44,000 and 44,200 read as miles go on from 70,000 km
        ReadingChain chain = ReadingChain.of(
                List.of(shop(1, 0, 50_000), shop(2, 365, 70_000), shop(3, 370, 44_000), shop(4, 375, 44_200)));

        assertThat(chain.kept()).extracting(Reading::id).containsExactly(1L, 2L);
        assertThat(chain.rejected())
                .extracting(ReadingChain.Rejected::reason)
                .containsOnly(RejectReason.MILES_AS_KM)
                .hasSize(2);
    }

    @Test
    void idlingCountsFromTheRenewalOnAlsoBetweenTwoReadings() {
        ReadingChain chain = ReadingChain.of(List.of(shop(1, 0, 50_000), shop(2, 400, 60_000)));
        LocalDate renewed = DAY.plusDays(100);

        // From memory: a straight line from 52,500 km on, which is 25 km and 54.8 of idling a day
        double perDay = 25 + 20_000 / 365.25;
        assertThat(chain.dateReached(56_000, 20_000, renewed))
                .contains(renewed.plusDays((long) Math.ceil(3_500 / perDay)));
        assertThat(chain.dateReached(51_000, 20_000, renewed)).contains(renewed);
    }

    /** What a feed brings in years; also where two stories weigh the same all along. */
    @Test
    void manyThousandsOfReadingsAreSortedToo() {
        List<Reading> readings = new ArrayList<>();
        for (int i = 0; i < 6_000; i++) {
            readings.add(reading(2L * i, i, 100_000 + 10 * i, ReadingSource.TELEMATICS));
        }
        readings.add(reading(1, 6_000, 5_000, ReadingSource.TELEMATICS));
        ReadingChain chain = ReadingChain.of(readings);

        assertThat(chain.kept()).hasSize(6_000);
        assertThat(chain.rejected()).hasSize(1);

        List<Reading> apart = new ArrayList<>();
        for (int i = 0; i < 300; i++) {
            apart.add(shop(i, i, 400_000 - 1_000 * i));
        }
        assertThat(ReadingChain.of(apart).kept()).as("no two of them fit").hasSize(1);
    }
}
