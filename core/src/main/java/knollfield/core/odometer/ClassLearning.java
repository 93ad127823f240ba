package knollfield.core.odometer;

import java.util.Collection;
import java.util.List;

/**
 * What the workshop's own vehicles teach about a usage class (empirical Bayes; rules.md section 1; Efron and Morris,
 * "Data Analysis Using Stein's Estimator", JASA 70, 1975, for taking sampling noise out of the raw spread).
 *
 * @param assumed the class as set down
 * @param inForce the class that forecasts use: learned from enough vehicles, else as assumed
 * @param vehicles how many had readings over at least {@value #MIN_SPAN_DAYS} days
 */
public record ClassLearning(UsageClass assumed, UsageClass inForce, int vehicles) {

    /** Planning assumption: from this many vehicles on the class is learned. */
    public static final int MIN_VEHICLES = 20;

    /** Planning assumption: a vehicle's kept readings must span this many days to teach anything. */
    public static final int MIN_SPAN_DAYS = 90;

    /** Planning assumption: the learned spread is at least this share of the learned mean. */
    public static final double MIN_SPREAD = 0.10;

    /** Whether the class in force was learned. */
    public boolean learned() {
        return vehicles >= MIN_VEHICLES;
    }

    /**
     * From {@value #MIN_VEHICLES} vehicles on, the mean of their rates, and as variance max((10 % of the mean)²,
     * Var(rates) − mean Var(r̂)), Var with n − 1.
     *
     * @param keptChains kept readings of the class's vehicles, each in date order
     */
    public static ClassLearning of(UsageClass assumed, Collection<List<Reading>> keptChains) {
        int n = 0;
        double sum = 0;
        double sumSquares = 0;
        double sumNoise = 0;
        for (List<Reading> kept : keptChains) {
            if (kept.size() < 2
                    || kept.get(kept.size() - 1).date().toEpochDay()
                                    - kept.get(0).date().toEpochDay()
                            < MIN_SPAN_DAYS) {
                continue;
            }
            UsageRate.Observed seen =
                    UsageRate.observe(kept, assumed.scatterKmPerRootYear()).orElseThrow();
            n++;
            sum += seen.kmPerYear();
            sumSquares += seen.kmPerYear() * seen.kmPerYear();
            sumNoise += seen.variance();
        }
        if (n < MIN_VEHICLES) {
            return new ClassLearning(assumed, assumed, n);
        }
        double mean = sum / n;
        double raw = (sumSquares - n * mean * mean) / (n - 1);
        // a class in which nothing moves still needs a spread above zero
        double floor = Math.max(1, MIN_SPREAD * mean);
        double variance = Math.max(floor * floor, raw - sumNoise / n);
        return new ClassLearning(
                assumed,
                new UsageClass(assumed.code(), assumed.name(), mean, Math.sqrt(variance), assumed.yearlyScatter()),
                n);
    }
}
