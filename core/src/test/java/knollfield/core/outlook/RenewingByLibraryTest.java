package knollfield.core.outlook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import knollfield.core.clock.Limit;
import knollfield.core.risk.FreshSet;
import knollfield.core.risk.WearModel;
import org.apache.commons.statistics.distribution.ExponentialDistribution;
import org.apache.commons.statistics.distribution.WeibullDistribution;
import org.hipparchus.analysis.integration.IterativeLegendreGaussIntegrator;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a policy comes to in a year, against two libraries. */
class RenewingByLibraryTest {

    private static final IterativeLegendreGaussIntegrator INTEGRATOR =
            new IterativeLegendreGaussIntegrator(8, 1e-12, 1e-12);

    @ParameterizedTest(name = "planned at {0} years, visits from {1}, {2} a year")
    @CsvSource({"3, 3, 0", "6, 6, 0", "6, 4, 0.8", "9, 5, 2", "4, 0, 1.5", "12, 11.5, 6"})
    void aCycleEndsAtAFailureAVisitOrThePlannedAge(double age, double visitFrom, double visits) {
        // both limits are reached in six years, so the life is a Weibull of those shares
        FreshSet set = FreshSet.at(20_000).with(WearModel.defaults(), 1, Limit.of(120_000, 72));
        double scale = 6 * Math.pow(-Math.log1p(-0.02), -0.25);
        // Source: Apache Commons Statistics 1.3, WeibullDistribution of the failure, ExponentialDistribution of the
        // next visit
        WeibullDistribution failure = WeibullDistribution.of(4, scale);
        double gap = visits == 0 ? 1e12 : 1 / visits;
        ExponentialDistribution next = ExponentialDistribution.of(gap);
        // Source: Hipparchus 3.1, IterativeLegendreGaussIntegrator, on either side of the age from which a visit serves
        double before = visitFrom == 0 ? 0 : INTEGRATOR.integrate(100_000, failure::survivalProbability, 0, visitFrom);
        double after = visitFrom == age
                ? 0
                : INTEGRATOR.integrate(
                        100_000,
                        t -> failure.survivalProbability(t) * next.survivalProbability(t - visitFrom),
                        visitFrom,
                        age);
        double length = before + after;
        double visited = visitFrom == age
                ? 0
                : INTEGRATOR.integrate(
                        100_000, t -> failure.survivalProbability(t) * next.density(t - visitFrom), visitFrom, age);
        double planned = failure.survivalProbability(age) * next.survivalProbability(age - visitFrom);
        Renewing r = Renewing.of(set, age, visitFrom, visits);

        assertThat(r.planned()).isCloseTo(planned / length, within(1e-6));
        assertThat(r.atVisits()).isCloseTo(visited / length, within(1e-6));
        assertThat(r.failures()).isCloseTo((1 - planned - visited) / length, within(1e-6));
        assertThat(r.jobs()).isCloseTo(1 / length, within(1e-6));
    }
}
