package knollfield.core.risk;

import java.util.Optional;
import java.util.function.DoubleUnaryOperator;

/**
 * The age at which renewing before failure costs least per unit of life (R. E. Barlow and L. C. Hunter, "Optimum
 * Preventive Maintenance Policies", Operations Research 8, 1960).
 *
 * <p>Renewing at age T costs C(T) = [c_p·R(T) + c_f·(1 − R(T))] / ∫₀ᵀ R(t)dt for a life with survival R(t) =
 * exp(−(t/η)^β).
 *
 * @param age T*, in the unit of the scale
 * @param costPerUnit C(T*)
 */
public record AgeReplacement(double age, double costPerUnit) {

    /** Panels of the integration rule; eight points in each. */
    private static final int PANELS = 16;

    private static final int MOST_STEPS = 200;

    // abscissae and weights of the 8-point Gauss-Legendre rule (Abramowitz and Stegun, table 25.4)
    private static final double[] X = {0.1834346424956498, 0.5255324099163290, 0.7966664774136267, 0.9602898564975363};
    private static final double[] W = {0.3626837833783620, 0.3137066458778873, 0.2223810344533745, 0.1012285362903763};

    /** How something wears: cumulative hazard and hazard by age, both zero at age zero and growing. */
    public interface Wear {
        /** H(age). */
        double cumulative(double age);

        /** h(age) = dH/dage. */
        double rate(double age);

        /** Mean life that ends at {@code age} at the latest: ∫₀ᵃ exp(−H(u))du. */
        default double life(double age) {
            double panel = age / PANELS;
            double sum = 0;
            for (int i = 0; i < PANELS; i++) {
                double middle = (i + 0.5) * panel;
                for (int k = 0; k < X.length; k++) {
                    double step = X[k] * panel / 2;
                    sum += W[k] * (Math.exp(-cumulative(middle - step)) + Math.exp(-cumulative(middle + step)));
                }
            }
            return sum * panel / 2;
        }
    }

    /** Beyond it the terms of the series grow so large that they cancel. */
    private static final double SERIES_UP_TO = 4;

    /**
     * ∫₀ᵃ exp(−H(u))du for H(u) = c·u^β, from exp's series taken term by term: a·Σ (−H(a))ⁿ/(n!·(βn + 1)), an incomplete gamma
     * function (Abramowitz and Stegun 6.5.29).
     *
     * @param wear whose cumulative hazard is such a power
     * @param shape β
     */
    static double lifeOfPower(Wear wear, double shape, double age, DoubleUnaryOperator otherwise) {
        double hazard = wear.cumulative(age);
        if (!(hazard < SERIES_UP_TO)) {
            return otherwise.applyAsDouble(age);
        }
        double power = 1;
        double sum = 1;
        for (int n = 1; Math.abs(power) > 1e-18; n++) {
            power *= -hazard / n;
            sum += power / (shape * n + 1);
        }
        return age * sum;
    }

    /** A Weibull life. */
    private record Weibull(double shape, double scale) implements Wear {
        @Override
        public double cumulative(double age) {
            return Math.pow(age / scale, shape);
        }

        @Override
        public double rate(double age) {
            return shape / scale * Math.pow(age / scale, shape - 1);
        }

        @Override
        public double life(double age) {
            return lifeOfPower(this, shape, age, Wear.super::life);
        }
    }

    /**
     * The best age of a Weibull life; empty where there is none because wear does not grow (β ≤ 1) or a failure costs no
     * more than the planned job.
     *
     * @param shape β, above zero
     * @param scale η, above zero, in the unit wanted
     * @param planned c_p, full cost of the planned job, above zero
     * @param failure c_f, full cost of a failure, above zero
     */
    public static Optional<AgeReplacement> optimum(double shape, double scale, double planned, double failure) {
        if (!(shape > 0) || !(scale > 0)) {
            throw new IllegalArgumentException("shape (%s) and scale (%s) must be above zero".formatted(shape, scale));
        }
        check(planned, failure);
        if (shape <= 1 || failure <= planned) {
            return Optional.empty();
        }
        Wear wear = new Weibull(shape, scale);
        double within = scale;
        while (marginal(wear, within) < planned / (failure - planned)) {
            within *= 2;
            if (Double.isInfinite(within)) {
                return Optional.empty();
            }
        }
        return optimum(wear, planned, failure, within);
    }

    /**
     * The best age of what wears as {@code wear} does, whose hazard grows; empty where it lies beyond {@code within} or a
     * failure costs no more than the planned job.
     *
     * @param planned c_p, full cost of the planned job, above zero
     * @param failure c_f, full cost of a failure, above zero
     * @param within above zero, in the unit of the age
     */
    public static Optional<AgeReplacement> optimum(Wear wear, double planned, double failure, double within) {
        check(planned, failure);
        if (failure <= planned) {
            return Optional.empty();
        }
        // h(T)·∫R − F(T) rises from 0 where hazard grows; the optimum is where it equals c_p/(c_f − c_p)
        double wanted = planned / (failure - planned);
        double low = 0;
        double atLow = -wanted;
        double high = within;
        double atHigh = marginal(wear, high) - wanted;
        if (!(atHigh >= 0)) {
            return Optional.empty();
        }
        double age = high;
        int stayed = 0;
        // Illinois: the false position, with the value of an end halved that stays for a second time
        for (int i = 0; i < MOST_STEPS && high - low > 1e-12 * within; i++) {
            age = high - atHigh * (high - low) / (atHigh - atLow);
            double at = marginal(wear, age) - wanted;
            if (Math.abs(at) <= 1e-13 * wanted) {
                break;
            }
            if (at < 0) {
                low = age;
                atLow = at;
                stayed = Math.max(1, stayed + 1);
                atHigh /= stayed > 1 ? 2 : 1;
            } else {
                high = age;
                atHigh = at;
                stayed = Math.min(-1, stayed - 1);
                atLow /= stayed < -1 ? 2 : 1;
            }
        }
        return Optional.of(new AgeReplacement(age, costPerUnit(wear, planned, failure, age)));
    }

    private static void check(double planned, double failure) {
        if (!(planned > 0) || !(failure > 0)) {
            throw new IllegalArgumentException("costs (%s, %s) must be above zero".formatted(planned, failure));
        }
    }

    /** C(T) of a Weibull life for any T above zero, same units as {@link #optimum}. */
    public static double costPerUnit(double shape, double scale, double planned, double failure, double age) {
        return costPerUnit(new Weibull(shape, scale), planned, failure, age);
    }

    /** C(T) for any T above zero. */
    public static double costPerUnit(Wear wear, double planned, double failure, double age) {
        double survives = Math.exp(-wear.cumulative(age));
        return (planned * survives + failure * (1 - survives)) / wear.life(age);
    }

    private static double marginal(Wear wear, double age) {
        return wear.rate(age) * wear.life(age) + Math.expm1(-wear.cumulative(age));
    }
}
