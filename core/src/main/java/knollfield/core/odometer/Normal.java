package knollfield.core.odometer;

/** The standard normal distribution, as far as projections need it. */
public final class Normal {

    private static final double ROOT_TWO_PI = Math.sqrt(2 * Math.PI);

    private Normal() {}

    /** φ(z). */
    public static double density(double z) {
        return Math.exp(-z * z / 2) / ROOT_TWO_PI;
    }

    /**
     * Φ(z), within 1e-13 for all z.
     *
     * <p>Near the middle the Maclaurin-type series Φ(z) = ½ + φ(z)·Σ z^(2k+1)/(1·3·5…(2k+1)) (G. Marsaglia, "Evaluating
     * the Normal Distribution", Journal of Statistical Software 11(4), 2004); in the tails, where that cancels, Mills'
     * ratio as a continued fraction (Abramowitz and Stegun 26.2.14).
     */
    public static double cdf(double z) {
        if (Double.isNaN(z)) {
            return Double.NaN;
        }
        double x = Math.abs(z);
        if (x > 3) {
            double tail = density(x) * millsRatio(x);
            return z > 0 ? 1 - tail : tail;
        }
        double term = z;
        double sum = z;
        for (int k = 3; Math.abs(term) > 1e-17; k += 2) {
            term *= z * z / k;
            sum += term;
        }
        return 0.5 + density(z) * sum;
    }

    private static double millsRatio(double x) {
        double fraction = x;
        // from the inside out; sixty levels are far more than x > 3 needs
        for (int k = 60; k >= 1; k--) {
            fraction = x + k / fraction;
        }
        return 1 / fraction;
    }

    /**
     * The z with Φ(z) = {@code p}, 0 &lt; p &lt; 1, by bisection on {@link #cdf}.
     *
     * @throws IllegalArgumentException outside that range
     */
    public static double quantile(double p) {
        if (!(p > 0 && p < 1)) {
            throw new IllegalArgumentException("a quantile needs a chance between 0 and 1, not " + p);
        }
        double low = -40;
        double high = 40;
        for (int i = 0; i < 100; i++) {
            double middle = (low + high) / 2;
            if (cdf(middle) < p) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return (low + high) / 2;
    }
}
