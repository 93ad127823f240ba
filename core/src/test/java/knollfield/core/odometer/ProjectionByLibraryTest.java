package knollfield.core.odometer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import knollfield.core.units.Years;
import org.apache.commons.statistics.distribution.NormalDistribution;
import org.apache.commons.statistics.distribution.TruncatedNormalDistribution;
import org.hipparchus.analysis.UnivariateFunction;
import org.hipparchus.analysis.integration.IterativeLegendreGaussIntegrator;
import org.hipparchus.analysis.solvers.BrentSolver;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Usage and projection against libraries that know nothing of vehicles. */
class ProjectionByLibraryTest {

    private static final LocalDate DAY = LocalDate.of(2026, 3, 1);

    private static Projection projection(double rate, double spread, double scatter) {
        return new Projection(DAY, 100_000, new UsageRate(rate, spread * spread, scatter, Optional.empty()), List.of());
    }

    /** Distance after a time: mean and variance of a drift that is not known for certain and a Brownian motion about it. */
    private static NormalDistribution after(double rate, double spread, double scatter, double years) {
        return NormalDistribution.of(
                100_000 + rate * years, Math.sqrt(spread * spread * years * years + scatter * scatter * years));
    }

    @ParameterizedTest(name = "{0} ± {1} km a year, scatter {2}, {3} days, {4} km")
    @CsvSource({
        "20000, 2000, 4000, 400, 118000",
        "12000, 3000, 2400, 900, 140000",
        "5000, 2500, 1000, 60, 101500",
        "32000, 6000, 6400, 1500, 260000"
    })
    void theChanceToHaveShownADistance(double rate, double spread, double scatter, int days, double km) {
        LocalDate on = DAY.plusDays(days);
        NormalDistribution reference = after(rate, spread, scatter, Years.between(DAY, on));
        Projection p = projection(rate, spread, scatter);

        // Source: Apache Commons Statistics 1.3, NormalDistribution, survival probability
        assertThat(p.chanceReached(km, on)).isCloseTo(reference.survivalProbability(km), within(1e-9));
        for (double q : new double[] {0.05, 0.1, 0.5, 0.9, 0.99}) {
            // Source: Apache Commons Statistics 1.3, NormalDistribution, inverse of the cumulative probability
            assertThat(p.quantileKm(on, q)).isCloseTo(reference.inverseCumulativeProbability(q), within(1e-4));
        }
    }

    @ParameterizedTest(name = "{0} ± {1} km a year, scatter {2}, {3} km with chance {4}")
    @CsvSource({
        "20000, 2000, 4000, 22000, 0.1",
        "20000, 2000, 4000, 22000, 0.9",
        "12000, 3000, 2400, 61000, 0.35",
        "9000, 800, 900, 4000, 0.75"
    })
    void theDayOfAChanceIsWhereASolverFindsIt(double rate, double spread, double scatter, double km, double chance) {
        // Source: Hipparchus 3.1, BrentSolver, on the survival probability of Apache Commons Statistics 1.3
        UnivariateFunction over =
                years -> after(rate, spread, scatter, years).survivalProbability(100_000 + km) - chance;
        double years = new BrentSolver(1e-9).solve(200, over, 1e-4, 50);
        LocalDate day = projection(rate, spread, scatter)
                .firstDayReached(100_000 + km, chance)
                .orElseThrow();
        assertThat(Years.between(DAY, day)).isBetween(years - 1e-6, years + 1 / Years.DAYS + 1e-6);
    }

    @ParameterizedTest(name = "{0} km in {1} days of a class of {2} ± {3}")
    @CsvSource({"9000, 400, 12000, 5000", "40000, 700, 12000, 5000", "500, 300, 3000, 2500", "0, 365, 20000, 8000"})
    void whatReadingsAndClassSayTogetherIsWhatIntegrationGives(int km, int days, double mean, double sd) {
        UsageClass usage = new UsageClass("T", "test", mean, sd);
        LocalDate from = DAY.minusDays(days);
        double years = Years.between(from, DAY);
        double sigma = usage.scatterKmPerRootYear();
        UsageRate rate = UsageRate.estimate(
                List.of(
                        new Reading(1, from, 50_000, ReadingSource.WORKSHOP),
                        new Reading(2, DAY, 50_000 + km, ReadingSource.WORKSHOP)),
                usage);

        // Source: Hipparchus 3.1 integrates the truncated prior of Apache Commons Statistics 1.3 times the likelihood
        TruncatedNormalDistribution prior = TruncatedNormalDistribution.of(mean, sd, 0, Double.POSITIVE_INFINITY);
        UnivariateFunction weight = r -> prior.density(r)
                * NormalDistribution.of(r * years, sigma * Math.sqrt(years)).density(km);
        double seen = km / years;
        double most = Math.max(mean, seen) + 8 * sd;
        double all = integral(weight, most);
        double expected = integral(r -> r * weight.value(r), most) / all;
        double square = integral(r -> (r - expected) * (r - expected) * weight.value(r), most) / all;
        assertThat(rate.kmPerYear()).isCloseTo(expected, within(0.05));
        assertThat(Math.sqrt(rate.variance())).isCloseTo(Math.sqrt(square), within(0.05));
    }

    private static double integral(UnivariateFunction f, double to) {
        double sum = 0;
        int pieces = 400;
        IterativeLegendreGaussIntegrator integrator = new IterativeLegendreGaussIntegrator(12, 1e-10, 1e-25);
        for (int i = 0; i < pieces; i++) {
            sum += integrator.integrate(1_000_000, f, to * i / pieces, to * (i + 1) / pieces);
        }
        return sum;
    }
}
