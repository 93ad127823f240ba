package knollfield.core.learn;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.risk.WearModel;
import org.hipparchus.analysis.UnivariateFunction;
import org.hipparchus.analysis.integration.IterativeLegendreGaussIntegrator;
import org.hipparchus.distribution.continuous.GammaDistribution;
import org.hipparchus.distribution.discrete.PoissonDistribution;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What breakdowns teach, from the lives on file to the assumptions they speak for. */
class WearLearningTest {

    private static final LocalDate DAY = LocalDate.of(2019, 3, 1);
    private static final LimitsUsed A_SIXTH = level(1 / 6.0);
    private static final double PRIOR = 6 / 0.0202027;

    private static LimitsUsed level(double share) {
        return new LimitsUsed(OptionalDouble.of(share), OptionalDouble.of(share));
    }

    private static DriveLife life(double from, double to, DriveLife.End end) {
        return new DriveLife(
                ClockStart.atFirstRegistration(DAY),
                DAY,
                DAY.plusYears(5),
                end,
                List.of(new DriveLife.Year(2019, level(from), level(to))),
                A_SIXTH);
    }

    private static List<DriveLife> lives(int renewed, double at, double... failed) {
        List<DriveLife> lives = new ArrayList<>();
        for (int i = 0; i < renewed; i++) {
            lives.add(life(0, at, DriveLife.End.RENEWED));
        }
        for (double f : failed) {
            lives.add(life(0, f, DriveLife.End.FAILED));
        }
        return lives;
    }

    @Test
    void twoHundredRenewalsAndThreeFailures() {
        List<DriveLife> lives = lives(200, 0.95, 0.9, 1.1, 1.2);
        WearLearning learned = WearLearning.of(lives).orElseThrow();

        // From memory: Gamma(6 + 3, 6/h₀ + ΣΔG) by hand: 9/464.09
        assertThat(WearLearning.atShape(lives, 4).orElseThrow().hazardAtLimits().mean())
                .isCloseTo(0.019393, within(5e-7));
        assertThat(learned.hazardAtLimits().mean()).isCloseTo(0.019507, within(5e-7));
        assertThat(learned.shape().mean()).isCloseTo(4.3516, within(5e-5));
        assertThat(learned.failures()).isEqualTo(3);
        assertThat(learned.lives()).isEqualTo(203);
        assertThat(learned.wear().shareFailedAtLimits()).isCloseTo(-Math.expm1(-0.019507), within(5e-7));
    }

    /** Source: adaptive Gauss-Legendre integration over h₀ and the gamma density of a numerics library. */
    @Test
    void theMeanAndItsSpanAreThoseOfTheDensity() {
        List<DriveLife> lives = lives(40, 1.1, 0.6, 1.3);
        lives.add(life(0.8, 1.4, DriveLife.End.LAST_READING));
        double[] norm = new double[1];
        double[] mean = new double[1];
        double[] low = new double[1];
        WearLearning learned = WearLearning.of(lives).orElseThrow();
        for (double shape = 2.5; shape <= 6; shape += 0.25) {
            double b = shape;
            UnivariateFunction density = h -> {
                double p = new GammaDistribution(6, 1 / PRIOR).density(h)
                        * Math.exp(-0.5 * Math.pow(Math.log(b / 4) / 0.12, 2));
                for (DriveLife l : lives) {
                    LimitsUsed from = l.years().get(0).from();
                    LimitsUsed to = l.years().get(0).to();
                    p *= Math.exp(-h
                            * (Math.pow(to.age().orElse(0), b)
                                    - Math.pow(from.age().orElse(0), b)));
                    if (l.failed()) {
                        p *= h * b * Math.pow(to.age().orElse(0), b - 1) / 6;
                    }
                }
                return p;
            };
            var integrator = new IterativeLegendreGaussIntegrator(20, 1e-10, 1e-14);
            norm[0] += integrator.integrate(1_000_000, density, 0, 0.2);
            mean[0] += integrator.integrate(1_000_000, h -> h * density.value(h), 0, 0.2);
            low[0] += integrator.integrate(
                    1_000_000, density, 0, learned.hazardAtLimits().low());
        }
        assertThat(learned.hazardAtLimits().mean()).isCloseTo(mean[0] / norm[0], within(1e-7));
        assertThat(low[0] / norm[0]).isCloseTo(0.1, within(1e-5));
        assertThat(learned.hazardAtLimits().high())
                .isGreaterThan(learned.hazardAtLimits().mean());
    }

    @Test
    void threeBreakdownsThatNobodyExpectedMoveItByHalfAtMost() {
        List<DriveLife> lives = lives(0, 0, 0.01, 0.01, 0.01);

        assertThat(WearLearning.atShape(lives, 4).orElseThrow().hazardAtLimits().mean() / 0.0202027)
                .isCloseTo(1.5, within(1e-4));
        assertThat(WearLearning.of(List.of())).isEmpty();
    }

    /** What failed the day it was fitted has used nothing: it must not make every shape impossible. */
    @Test
    void aLifeWithoutWearLeavesFigures() {
        WearLearning learned = WearLearning.of(lives(1, 0.5, 0)).orElseThrow();

        assertThat(learned.hazardAtLimits().mean()).isBetween(0.02, 0.03);
        assertThat(learned.shape().mean()).isBetween(2.5, 6.0);
    }

    // --- lives

    private static Reading read(int id, LocalDate on, int km) {
        return new Reading(id, on, km, ReadingSource.WORKSHOP);
    }

    private static DrivePast past(List<ClockStart> renewals, List<LocalDate> failures, List<LocalDate> findings) {
        ReadingChain chain = ReadingChain.of(List.of(
                new Reading(0, DAY, 0, ReadingSource.FIRST_REGISTRATION),
                read(1, DAY.plusYears(2), 40_000),
                read(2, DAY.plusYears(6), 120_000)));
        return new DrivePast(chain, DAY, renewals, failures, findings, Limit.of(100_000, 120), 20_000, 0);
    }

    private static ClockStart renewed(int years) {
        return new ClockStart(DAY.plusYears(years), 20_000 * years, ClockStart.Grade.DOCUMENTED);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', nullValues = "-", textBlock = """
            seen from its second year, past its limit in the fifth | - | - | - | 2 5 NO_LONGER_KNOWN
            renewed and still running                              | 4 | - | - | 2 4 RENEWED, 4 6 LAST_READING
            failed, renewed the same day                           | 4 | 4 | - | 2 4 FAILED, 4 6 LAST_READING
            failed, renewed a year later                           | 4 | 3 | - | 2 3 FAILED, 4 6 LAST_READING
            failed before anybody here saw it                      | 2 | 1 | - | 2 6 LAST_READING
            something found, then failed                           | 4 | 4 | 3 | 2 3 FOUND, 4 6 LAST_READING
            found on the day it failed                             | 4 | 4 | 4 | 2 4 FAILED, 4 6 LAST_READING
            """)
    void aVehiclesPastIsTheLivesItTellsOf(String what, Integer renewed, Integer failed, Integer found, String lives) {
        DrivePast past = past(
                renewed == null ? List.of() : List.of(renewed(renewed)),
                failed == null ? List.of() : List.of(DAY.plusYears(failed)),
                found == null ? List.of() : List.of(DAY.plusYears(found)));

        assertThat(past.lives())
                .extracting(l -> "%d %d %s"
                        .formatted(
                                l.enters().getYear() - DAY.getYear(), l.leaves().getYear() - DAY.getYear(), l.end()))
                .containsExactly(lives.split(", "));
    }

    @Test
    void whatALifeHasUsedFollowsTheReadings() {
        DriveLife second =
                past(List.of(renewed(4)), List.of(), List.of()).lives().get(1);

        assertThat(second.used().distance().orElseThrow()).isCloseTo(0.4, within(1e-3));
        assertThat(second.used().age().orElseThrow()).isCloseTo(0.2, within(1e-3));
        assertThat(second.years()).extracting(DriveLife.Year::year).containsExactly(2023, 2024, 2025);
        assertThat(second.perYear().distance().orElseThrow()).isEqualTo(0.2);
    }

    // --- expected against happened

    /** Source: quantiles of the Poisson distribution of a statistics library. */
    @Test
    void ayearIsToldWithWhatChanceMakesOfIt() {
        List<DriveLife> lives = new ArrayList<>();
        for (int i = 0; i < 70; i++) {
            lives.add(life(0, 1.1, i < 3 ? DriveLife.End.FAILED : DriveLife.End.RENEWED));
        }
        YearTold year = YearTold.of(lives, WearModel.defaults()).get(0);
        double expected = 70 * 0.0202027 * Math.pow(1.1, 4);
        PoissonDistribution chance = new PoissonDistribution(expected);

        assertThat(year.expected()).isCloseTo(expected, within(1e-5));
        assertThat(year.low()).isEqualTo(chance.inverseCumulativeProbability(0.1));
        assertThat(year.high()).isEqualTo(chance.inverseCumulativeProbability(0.9));
        assertThat(year.happened()).isEqualTo(3);
        assertThat(YearTold.total(List.of(year, year)).expected()).isCloseTo(2 * expected, within(1e-5));
    }

    /** Source: the Poisson distribution of a statistics library, cumulated to just below and just at the count. */
    @ParameterizedTest
    @CsvSource({"0.02", "0.9", "1", "7.5", "60", "745", "12345.6", "999999"})
    void howManyAreLikelyIsRightForFewAndForVeryMany(double expected) {
        // one life of a year whose wear is what is expected, so that a policy with tiny limits is among them
        double used = Math.pow(expected / 0.0202027, 0.25);
        YearTold year = YearTold.of(List.of(life(0, used, DriveLife.End.RENEWED)), WearModel.defaults())
                .get(0);
        PoissonDistribution chance = new PoissonDistribution(year.expected());

        assertThat(year.expected()).isCloseTo(expected, within(expected * 1e-5));
        for (double[] end : new double[][] {{year.low(), 0.1}, {year.high(), 0.9}}) {
            int count = (int) end[0];
            assertThat(chance.cumulativeProbability(count)).isGreaterThanOrEqualTo(end[1] - 1e-9);
            assertThat(count == 0 ? 0 : chance.cumulativeProbability(count - 1)).isLessThan(end[1] + 1e-9);
        }
    }
}
