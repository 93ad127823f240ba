package knollfield.core.odometer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class ClassLearningTest {

    private static final LocalDate DAY = LocalDate.of(2026, 1, 1);
    private static final UsageClass ASSUMED = new UsageClass("PRIVATE", "private", 12_000, 5_000);

    private static List<Reading> chain(int days, int km) {
        return List.of(
                new Reading(1, DAY, 10_000, ReadingSource.WORKSHOP),
                new Reading(2, DAY.plusDays(days), 10_000 + km, ReadingSource.WORKSHOP));
    }

    private static List<List<Reading>> vehicles(int n, int days, int km) {
        List<List<Reading>> all = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            all.add(chain(days, km));
        }
        return all;
    }

    @Test
    void nineteenVehiclesTeachNothingAndTwentyTeach() {
        assertThat(ClassLearning.of(ASSUMED, vehicles(19, 365, 18_000)).inForce())
                .isEqualTo(ASSUMED);

        ClassLearning learned = ClassLearning.of(ASSUMED, vehicles(20, 365, 18_000));
        assertThat(learned.learned()).isTrue();
        assertThat(learned.inForce().meanKmPerYear()).isCloseTo(18_000 * 365.25 / 365, within(0.5));
    }

    @Test
    void readingsOfLessThanNinetyDaysTeachNothing() {
        assertThat(ClassLearning.of(ASSUMED, vehicles(50, 89, 5_000)).vehicles())
                .isZero();
        assertThat(ClassLearning.of(ASSUMED, vehicles(50, 90, 5_000)).vehicles())
                .isEqualTo(50);
    }

    @Test
    void vehiclesThatAllRunAlikeKeepTenPercentOfSpread() {
        UsageClass learned =
                ClassLearning.of(ASSUMED, vehicles(40, 365, 18_000)).inForce();
        assertThat(learned.sdKmPerYear()).isCloseTo(0.1 * learned.meanKmPerYear(), within(1e-9));
    }

    @Test
    void vehiclesThatDoNotMoveLeaveAClassThatStandsStill() {
        UsageClass learned = ClassLearning.of(ASSUMED, vehicles(40, 365, 0)).inForce();
        assertThat(learned.meanKmPerYear()).isZero();
        assertThat(learned.sdKmPerYear()).isPositive();
    }

    @Test
    void samplingNoiseIsTakenOutOfTheSpread() {
        // the truth: 15,000 ± 3,000 km a year between vehicles, and σ_w = 2,400 within each
        Random random = new Random(5);
        List<List<Reading>> all = new ArrayList<>();
        for (int i = 0; i < 4_000; i++) {
            double rate = 15_000 + 3_000 * random.nextGaussian();
            double year = rate + 2_400 * random.nextGaussian();
            all.add(chain(365, (int) Math.max(0, Math.round(year))));
        }
        UsageClass learned = ClassLearning.of(ASSUMED, all).inForce();

        assertThat(learned.meanKmPerYear()).isCloseTo(15_000, within(150.0));
        assertThat(learned.sdKmPerYear()).isCloseTo(3_000, within(150.0));
        // the raw spread would have been √(3,000² + 2,400²) = 3,842
    }
}
