package knollfield.core.learn;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.apache.commons.statistics.distribution.GammaDistribution;
import org.apache.commons.statistics.distribution.PoissonDistribution;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Counts and waits against a library. */
class ErlangByLibraryTest {

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 6, 9, 17, 40, 120})
    void aSumOfWaits(int events) {
        // Source: Apache Commons Statistics 1.3, GammaDistribution of whole shape and scale one
        GammaDistribution waits = GammaDistribution.of(events, 1);
        for (double x : new double[] {0.01, 0.5, 1, 3.7, 8, 20, 55, 150}) {
            assertThat(Erlang.below(events, x)).isCloseTo(waits.cumulativeProbability(x), within(1e-10));
        }
        assertThat(Erlang.below(events, 0)).isZero();
        assertThat(Erlang.below(events, -1)).isZero();
    }

    @ParameterizedTest
    @ValueSource(doubles = {0.01, 0.3, 1, 2.5, 7, 19.9, 80, 333, 4_000})
    void aCountThatIsNotExceeded(double mean) {
        // Source: Apache Commons Statistics 1.3, PoissonDistribution, the smallest count of so much probability
        PoissonDistribution counts = PoissonDistribution.of(mean);
        for (double chance : new double[] {0.001, 0.1, 0.25, 0.5, 0.75, 0.9, 0.999}) {
            assertThat(Erlang.quantile(mean, chance)).isEqualTo(counts.inverseCumulativeProbability(chance));
        }
    }
}
