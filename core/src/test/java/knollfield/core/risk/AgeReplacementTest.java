package knollfield.core.risk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Optional;
import knollfield.core.clock.Limit;
import org.apache.commons.statistics.distribution.WeibullDistribution;
import org.hipparchus.analysis.integration.IterativeLegendreGaussIntegrator;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.univariate.BrentOptimizer;
import org.hipparchus.optim.univariate.SearchInterval;
import org.hipparchus.optim.univariate.UnivariateObjectiveFunction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AgeReplacementTest {

    // By rules.md section 4, check values
    @ParameterizedTest(name = "shape {0}, failure {1}: renew at {2}, {3} a unit")
    @CsvSource({"2, 5, 0.5107, 4.0852", "3, 10, 0.3825, 3.9494"})
    void checkValues(double shape, double failure, double age, double cost) {
        AgeReplacement best = AgeReplacement.optimum(shape, 1, 1, failure).orElseThrow();
        assertThat(best.age()).isCloseTo(age, within(0.00005));
        assertThat(best.costPerUnit()).isCloseTo(cost, within(0.00005));
    }

    // Source: Hipparchus 3.1 integrates and minimises, Apache Commons Statistics 1.3 gives the survival
    @ParameterizedTest(name = "shape {0}, scale {1}, costs {2} and {3}")
    @CsvSource({
        "1.2, 1, 1, 30",
        "1.5, 10, 100, 900",
        "2, 1, 1, 5",
        "2.5, 6, 640, 5200",
        "3, 1, 1, 10",
        "4, 2.652, 640, 3800",
        "4, 2.652, 640, 700",
        "6, 9, 500, 20000"
    })
    void agreesWithALibraryThatIntegratesAndMinimises(double shape, double scale, double planned, double failure) {
        WeibullDistribution life = WeibullDistribution.of(shape, scale);
        IterativeLegendreGaussIntegrator integrator = new IterativeLegendreGaussIntegrator(15, 1e-11, 1e-11);
        java.util.function.DoubleUnaryOperator cost = t -> {
            double survives = life.survivalProbability(t);
            return (planned * survives + failure * (1 - survives))
                    / integrator.integrate(100_000, life::survivalProbability, 0, t);
        };
        double library = new BrentOptimizer(1e-10, 1e-12)
                .optimize(
                        new MaxEval(2_000),
                        GoalType.MINIMIZE,
                        new UnivariateObjectiveFunction(cost::applyAsDouble),
                        new SearchInterval(scale * 1e-3, scale * 3))
                .getPoint();
        AgeReplacement best =
                AgeReplacement.optimum(shape, scale, planned, failure).orElseThrow();

        assertThat(best.age()).isCloseTo(library, within(library * 1e-4));
        assertThat(best.costPerUnit()).isCloseTo(cost.applyAsDouble(library), within(best.costPerUnit() * 1e-8));
        assertThat(AgeReplacement.costPerUnit(shape, scale, planned, failure, 0.7 * scale))
                .isCloseTo(cost.applyAsDouble(0.7 * scale), within(best.costPerUnit() * 1e-8));
    }

    @ParameterizedTest(name = "shape {0}, planned {1}, failure {2}")
    @CsvSource({"1, 1, 5", "0.8, 1, 5", "2, 5, 5", "2, 6, 5"})
    void whereWearDoesNotGrowOrFailureIsCheapThereIsNone(double shape, double planned, double failure) {
        assertThat(AgeReplacement.optimum(shape, 1, planned, failure)).isEmpty();
    }

    @Test
    void nonsenseIsRefused() {
        assertThatThrownBy(() -> AgeReplacement.optimum(2, 0, 1, 5)).hasMessageContaining("scale (0.0)");
    }

    @Test
    void aVehicleThatUsesBothLimitsAlikeIsTheWeibullOfTheFractions() {
        // 20,000 km a year against 120,000 km, and 72 months: both limits after six years
        EconomicInterval e = EconomicInterval.of(
                FreshSet.at(20_000).with(WearModel.defaults(), 1, Limit.of(120_000, 72)), 64_000, 520_000);
        AgeReplacement inFractions = AgeReplacement.optimum(4, Math.pow(-Math.log1p(-0.02), -0.25), 64_000, 520_000)
                .orElseThrow();

        assertThat(e.verdict()).isEqualTo(EconomicInterval.Verdict.FOUND);
        assertThat(e.shareOfBook().orElseThrow()).isCloseTo(inFractions.age(), within(1e-9));
        assertThat(e.years().orElseThrow()).isCloseTo(6 * inFractions.age(), within(1e-9));
        assertThat(e.km().orElseThrow()).isCloseTo(120_000 * inFractions.age(), within(1e-3));
        assertThat(e.perYearMinor().orElseThrow())
                .isLessThanOrEqualTo(e.perYearAtBookMinor().orElseThrow());
    }

    @Test
    void whereThereIsNoIntervalTheReasonIsGiven() {
        WearModel wear = WearModel.defaults();
        assertThat(EconomicInterval.of(
                                FreshSet.at(20_000).with(new WearModel(0.02, 1), 1, Limit.of(120_000, 72)),
                                64_000,
                                520_000)
                        .verdict())
                .isEqualTo(EconomicInterval.Verdict.DOES_NOT_WEAR);
        assertThat(EconomicInterval.of(FreshSet.at(20_000).with(wear, 1, Limit.of(120_000, 72)), 64_000, 64_000)
                        .verdict())
                .isEqualTo(EconomicInterval.Verdict.FAILURE_IS_CHEAP);
        assertThat(EconomicInterval.of(FreshSet.at(20_000).with(wear, 1, Limit.of(120_000, 72)), 64_000, 64_001)
                        .verdict())
                .as("dearer by a minor unit, yet its best age lies far beyond the limits")
                .isEqualTo(EconomicInterval.Verdict.NOT_WORTH_HAVING);
        assertThat(EconomicInterval.of(
                                FreshSet.at(20_000).with(new WearModel(0.02, 1.01), 1, Limit.of(120_000, 72)),
                                64_000,
                                520_000)
                        .verdict())
                .as("a shape just above 1 wears, if slowly")
                .isNotEqualTo(EconomicInterval.Verdict.DOES_NOT_WEAR);
        EconomicInterval still =
                EconomicInterval.of(FreshSet.at(0).with(wear, 1, Limit.ofKm(120_000)), 64_000, 520_000);
        assertThat(still.verdict()).isEqualTo(EconomicInterval.Verdict.STANDS_STILL);
        assertThat(still.years()).isEqualTo(Optional.empty());
    }
}
