package knollfield.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What waiting costs, day by day. */
class WaitingCostTest {

    @ParameterizedTest(name = "{0} a day from {2} to {3}, doubled from {1}")
    @CsvSource({
        "10, 5, 0, 3, 30",
        "10, 5, 0, 8, 110",
        "10, 5, 6, 8, 40",
        "10, -3, 0, 2, 40",
        "10, 5, 4, 4, 0",
        "10, 5, 4, 2, 0"
    })
    void aRateThatDoubles(long perDay, int actBy, int from, int to, double cost) {
        assertThat(new WaitingCost.Doubling(perDay, actBy).between(from, to)).isEqualTo(cost);
    }

    @Test
    void aFarActByDoesNotRunOver() {
        assertThat(new WaitingCost.Doubling(7, Integer.MAX_VALUE).between(0, 40))
                .isEqualTo(280);
        assertThat(new WaitingCost.Doubling(7, Integer.MIN_VALUE).between(0, 40))
                .isEqualTo(560);
    }

    @Test
    void fractionsOfADayAddUpBeforeTheyAreRounded() {
        double[] until = new double[31];
        for (int d = 0; d <= 30; d++) {
            until[d] = 0.4 * d;
        }
        PlanJob job = Cases.job(1, 4, new WaitingCost.Calendar(until, 10));
        assertThat(job.waiting(0, 1)).isZero();
        assertThat(job.waiting(0, 30)).as("a day's 0.4 is not nothing").isEqualTo(12);
        assertThat(job.waits().between(10, 25)).isCloseTo(6, within(1e-12));
        assertThat(job.waits().between(30, 99))
                .as("nothing is said beyond the ruler")
                .isZero();
    }

    @Test
    void whatDoesNotGrowIsRefused() {
        assertThatThrownBy(() -> new WaitingCost.Calendar(new double[] {0, 3, 2}, 0))
                .hasMessageContaining("day 2 costs 2.0");
        assertThatThrownBy(() -> new WaitingCost.Calendar(new double[] {0, Double.NaN}, 0))
                .hasMessageContaining("day 1");
    }

    @Test
    void whatGrowsFasterIsPlannedFirstThoughADayOfItCostsLessToday() {
        double[] until = new double[9];
        for (int d = 1; d < until.length; d++) {
            until[d] = 40 * d * d;
        }
        PlanJob grows = Cases.job(1, 48, new WaitingCost.Calendar(until, 3));
        PlanJob steady = Cases.job(2, 48, new WaitingCost.Doubling(100, 1_000));
        assertThat(grows.waiting(0, 1)).isLessThan(steady.waiting(0, 1));
        Shop shop = Cases.shop(
                8, 0, List.of(Cases.technician(1, "T")), List.of(Cases.bay(1, 1)), List.of(Cases.set("CAL", 9)), 9);

        // three days each: 300 for the steady one after the other, 360 the other way round
        PlanSearch.Result found = PlanSearch.run(
                new PlanCase(shop, List.of(grows, steady)), Map.of(), 1, new PlanSearch.Budget.Steps(2_000));
        assertThat(found.cost().exposure()).isEqualTo(300);
    }
}
