package knollfield.core.risk;

import java.util.Optional;

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
    private static final int PANELS = 64;

    // abscissae and weights of the 8-point Gauss-Legendre rule (Abramowitz and Stegun, table 25.4)
    private static final double[] X = {0.1834346424956498, 0.5255324099163290, 0.7966664774136267, 0.9602898564975363};
    private static final double[] W = {0.3626837833783620, 0.3137066458778873, 0.2223810344533745, 0.1012285362903763};

    /**
     * The best age; empty where there is none because wear does not grow (β ≤ 1) or a failure costs no more than the
     * planned job.
     *
     * @param shape β, above zero
     * @param scale η, above zero, in the unit wanted
     * @param planned c_p, full cost of the planned job, above zero
     * @param failure c_f, full cost of a failure, above zero
     */
    public static Optional<AgeReplacement> optimum(double shape, double scale, double planned, double failure) {
        if (!(shape > 0) || !(scale > 0) || !(planned > 0) || !(failure > 0)) {
            throw new IllegalArgumentException("shape (%s), scale (%s) and costs (%s, %s) must be above zero"
                    .formatted(shape, scale, planned, failure));
        }
        if (shape <= 1 || failure <= planned) {
            return Optional.empty();
        }
        // h(T)·∫R − F(T) rises from 0 without end for β > 1; the optimum is where it equals c_p/(c_f − c_p)
        double wanted = planned / (failure - planned);
        double low = 0;
        double high = 1;
        while (marginal(shape, high) < wanted) {
            low = high;
            high *= 2;
        }
        for (int i = 0; i < 80; i++) {
            double middle = (low + high) / 2;
            if (marginal(shape, middle) < wanted) {
                low = middle;
            } else {
                high = middle;
            }
        }
        double t = (low + high) / 2;
        return Optional.of(new AgeReplacement(t * scale, cost(shape, t, planned, failure) / scale));
    }

    /** C(T) for any T above zero, same units as {@link #optimum}. */
    public static double costPerUnit(double shape, double scale, double planned, double failure, double age) {
        return cost(shape, age / scale, planned, failure) / scale;
    }

    private static double cost(double shape, double t, double planned, double failure) {
        double survives = survival(shape, t);
        return (planned * survives + failure * (1 - survives)) / life(shape, t);
    }

    private static double marginal(double shape, double t) {
        return shape * Math.pow(t, shape - 1) * life(shape, t) - (1 - survival(shape, t));
    }

    private static double survival(double shape, double t) {
        return Math.exp(-Math.pow(t, shape));
    }

    /** ∫₀ᵗ exp(−u^β)du. */
    private static double life(double shape, double t) {
        double panel = t / PANELS;
        double sum = 0;
        for (int i = 0; i < PANELS; i++) {
            double middle = (i + 0.5) * panel;
            for (int k = 0; k < X.length; k++) {
                double step = X[k] * panel / 2;
                sum += W[k] * (survival(shape, middle - step) + survival(shape, middle + step));
            }
        }
        return sum * panel / 2;
    }
}
