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

    private static final double[] CENTRE_ABOVE = {
        2509.0809287301226727, 33430.575583588128105, 67265.770927008700853, 45921.953931549871457,
        13731.693765509461125, 1971.5909503065514427, 133.14166789178437745, 3.387132872796366608
    };
    private static final double[] CENTRE_BELOW = {
        5226.495278852545925,
        28729.085735721942674,
        39307.89580009271061,
        21213.794301586595867,
        5394.1960214247511077,
        687.1870074920579083,
        42.313330701600911252,
        1
    };
    private static final double[] NEAR_ABOVE = {
        7.7454501427834140764e-4, .0227238449892691845833, .24178072517745061177, 1.27045825245236838258,
        3.64784832476320460504, 5.7694972214606914055, 4.6303378461565452959, 1.42343711074968357734
    };
    private static final double[] NEAR_BELOW = {
        1.05075007164441684324e-9,
        5.475938084995344946e-4,
        .0151986665636164571966,
        .14810397642748007459,
        .68976733498510000455,
        1.6763848301838038494,
        2.05319162663775882187,
        1
    };
    private static final double[] FAR_ABOVE = {
        2.01033439929228813265e-7, 2.71155556874348757815e-5, .0012426609473880784386, .026532189526576123093,
        .29656057182650489123, 1.7848265399172913358, 5.4637849111641143699, 6.6579046435011037772
    };
    private static final double[] FAR_BELOW = {
        2.04426310338993978564e-15,
        1.4215117583164458887e-7,
        1.8463183175100546818e-5,
        7.868691311456132591e-4,
        .0148753612908506148525,
        .13692988092273580531,
        .59983220655588793769,
        1
    };

    /**
     * The z with Φ(z) = {@code p}, 0 &lt; p &lt; 1, to about 1e-15 relative (M. J. Wichura, "Algorithm AS 241: The
     * Percentage Points of the Normal Distribution", Applied Statistics 37, 1988).
     *
     * @throws IllegalArgumentException outside that range
     */
    public static double quantile(double p) {
        if (!(p > 0 && p < 1)) {
            throw new IllegalArgumentException("a quantile needs a chance between 0 and 1, not " + p);
        }
        double q = p - 0.5;
        if (Math.abs(q) <= 0.425) {
            double r = 0.180625 - q * q;
            return q * polynomial(CENTRE_ABOVE, r) / polynomial(CENTRE_BELOW, r);
        }
        double r = Math.sqrt(-Math.log(Math.min(p, 1 - p)));
        double z = r <= 5
                ? polynomial(NEAR_ABOVE, r - 1.6) / polynomial(NEAR_BELOW, r - 1.6)
                : polynomial(FAR_ABOVE, r - 5) / polynomial(FAR_BELOW, r - 5);
        return q < 0 ? -z : z;
    }

    private static double polynomial(double[] falling, double x) {
        double sum = 0;
        for (double c : falling) {
            sum = sum * x + c;
        }
        return sum;
    }
}
