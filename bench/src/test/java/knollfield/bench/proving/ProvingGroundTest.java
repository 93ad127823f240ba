package knollfield.bench.proving;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import knollfield.bench.proving.Island.Vehicle;
import org.junit.jupiter.api.Test;

/** One seed and two hundred vehicles of the proving ground: whether it is a fair one, not what comes out. */
class ProvingGroundTest {

    private static final List<Vehicle> ISLAND = Island.of(200, 2026);
    private static final Law LAW = Law.all().get(0);

    private static Outcome of(Way way) {
        return TenYears.of(ISLAND, LAW, way);
    }

    @Test
    void theSameSeedIsTheSameIslandForEveryWay() {
        Outcome again = TenYears.of(Island.of(200, 2026), LAW, Frontiers.careful());

        assertThat(of(Frontiers.careful()))
                .usingRecursiveComparison()
                .ignoringFields("unused")
                .isEqualTo(again);
        assertThat(of(Frontiers.careful()).unused()).isCloseTo(again.unused(), within(1e-9));
    }

    @Test
    void planningSavesMostOfWhatWaitingBreaksAndCannotHelpChains() {
        Outcome waiting = of(Way.nothing());
        Outcome book = of(Way.list(Way.Look.PROJECTED, 1));

        assertThat(waiting.breakdowns()).isGreaterThan(3 * book.breakdowns());
        assertThat(waiting.ofChains()).isEqualTo(book.ofChains());
        assertThat(waiting.cost())
                .isGreaterThanOrEqualTo(
                        (Costs.PLANNED - Costs.VISIT) * waiting.jobs() + 5_200L * waiting.interference());
    }

    @Test
    void alongALineMoreIsPaidForFewerBreakdowns() {
        Outcome soon = of(Way.list(Way.Look.LAST, 0.8));
        Outcome late = of(Way.list(Way.Look.LAST, 1.2));
        assertThat(soon.breakdowns()).isLessThan(late.breakdowns());
        assertThat(soon.jobs()).isGreaterThan(late.jobs());
        assertThat(soon.pastBook()).isLessThan(late.pastBook());

        Outcome cheap = of(Way.careful(5_000, false));
        Outcome dear = of(Way.careful(80_000, false));
        assertThat(dear.breakdowns()).isLessThanOrEqualTo(cheap.breakdowns());
        assertThat(dear.jobs()).isGreaterThan(cheap.jobs());
    }

    @Test
    void visitsAreUsedWhereAWayUsesThem() {
        Outcome without = of(Way.careful(10_000, false));
        Outcome with = of(Way.careful(10_000, true));

        assertThat((double) with.atVisits() / with.jobs()).isGreaterThan(3.0 * without.atVisits() / without.jobs());
        assertThat(with.pastBook()).isLessThan(without.pastBook());
    }

    @Test
    void aDifferenceIsClearOutsideTwoStandardErrors() {
        // From memory: mean −2, sample standard deviation √2, over √5
        ProvingGround.Difference d = ProvingGround.Difference.of(List.of(-2.0, -1.0, -3.0, -0.5, -3.5));
        assertThat(d.mean()).isEqualTo(-2.0);
        assertThat(d.error()).isCloseTo(Math.sqrt(6.5 / 4 / 5), within(1e-12));
        assertThat(d.isClearlyLess()).isTrue();
        assertThat(ProvingGround.Difference.of(List.of(-1.0, 1.5)).isClearlyLess())
                .isFalse();
    }
}
