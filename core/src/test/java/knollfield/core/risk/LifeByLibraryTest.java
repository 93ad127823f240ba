package knollfield.core.risk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import knollfield.core.clock.Limit;
import org.hipparchus.analysis.integration.IterativeLegendreGaussIntegrator;
import org.hipparchus.special.Gamma;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Mean life up to an age, against a library's incomplete gamma function and its integrator. */
class LifeByLibraryTest {

    private static final Limit BOTH = Limit.of(120_000, 72);

    @ParameterizedTest(name = "shape {0}, share failed {1}, {2} years")
    @CsvSource({
        "4, 0.02, 1",
        "4, 0.02, 6",
        "4, 0.02, 18",
        "2.5, 0.1, 10",
        "6, 0.02, 12",
        "1.01, 0.3, 9",
        "4, 0.5, 9.2",
        "4, 0.5, 20",
        "3, 0.9, 40"
    })
    void ofOneExponentItIsAnIncompleteGammaFunction(double shape, double failed, double years) {
        FreshSet set = FreshSet.at(20_000).with(new WearModel(failed, shape), 1, BOTH);
        double scale = 6 * Math.pow(-Math.log1p(-failed), -1 / shape);
        // Source: Hipparchus 3.1, Gamma.regularizedGammaP: η/β·Γ(1/β)·P(1/β, (a/η)^β)
        double expected = scale
                / shape
                * Math.exp(Gamma.logGamma(1 / shape))
                * Gamma.regularizedGammaP(1 / shape, Math.pow(years / scale, shape));
        assertThat(set.life(years)).isCloseTo(expected, within(1e-7 * expected));
    }

    @ParameterizedTest
    @CsvSource({"0.5", "3", "6", "11", "17"})
    void ofTwoExponentsItIsIntegrated(double years) {
        FreshSet set = FreshSet.at(26_000)
                .with(WearModel.defaults(), 0.7, BOTH)
                .with(new WearModel(0.05, 2.5), 0.3, Limit.of(90_000, 60));
        // Source: Hipparchus 3.1, IterativeLegendreGaussIntegrator
        double expected = new IterativeLegendreGaussIntegrator(10, 1e-13, 1e-13)
                .integrate(1_000_000, t -> Math.exp(-set.cumulative(t)), 0, years);
        assertThat(set.life(years)).isCloseTo(expected, within(1e-9));
    }
}
