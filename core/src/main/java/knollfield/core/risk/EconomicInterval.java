package knollfield.core.risk;

import java.util.Optional;
import knollfield.core.engine.Limit;

/**
 * The interval at which renewing an item of one vehicle costs least, beside the book limit: a comparison, never a reason
 * to exceed the book (rules.md section 4).
 *
 * @param verdict whether there is one, and why not
 * @param years T*, years since the renewal; empty without one
 * @param km distance the vehicle runs in that time
 * @param shareOfBook T* over the time in which the vehicle reaches the first of its book limits
 * @param perYearMinor what renewing at T* costs a year, minor units
 * @param perYearAtBookMinor what renewing at the book limit costs a year
 */
public record EconomicInterval(
        Verdict verdict,
        Optional<Double> years,
        Optional<Double> km,
        Optional<Double> shareOfBook,
        Optional<Double> perYearMinor,
        Optional<Double> perYearAtBookMinor) {

    /** Whether there is an interval that costs least. */
    public enum Verdict {
        FOUND("Renewing at this interval costs least; the book limit stands all the same."),
        DOES_NOT_WEAR("There is none: at this shape an item does not grow likelier to fail with age."),
        FAILURE_IS_CHEAP("There is none: a failure costs no more than the planned job."),
        STANDS_STILL("There is none: the item has only a distance limit and the vehicle does not move.");

        private final String words;

        Verdict(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * For a vehicle that runs {@code kmPerYear}: with both limits H(t) = h₀·((r/L)^β + (1/A)^β)/2·t^β, which is a
     * Weibull life in years of shape β and scale (h₀·((r/L)^β + (1/A)^β)/2)^(−1/β).
     *
     * @param kmPerYear zero or more
     * @param plannedMinor full cost of the planned job, above zero
     * @param failureMinor full cost of a failure, above zero
     */
    public static EconomicInterval of(
            WearModel wear, Limit limit, double kmPerYear, long plannedMinor, long failureMinor) {
        double bookYears = Double.POSITIVE_INFINITY;
        double ratePower = 0;
        int limits = 0;
        if (limit.km().isPresent()) {
            double perYear = kmPerYear / limit.km().getAsInt();
            ratePower += Math.pow(perYear, wear.shape());
            bookYears = 1 / perYear;
            limits++;
        }
        if (limit.months().isPresent()) {
            double perYear = 12.0 / limit.months().getAsInt();
            ratePower += Math.pow(perYear, wear.shape());
            bookYears = Math.min(bookYears, 1 / perYear);
            limits++;
        }
        if (wear.shape() <= 1) {
            return none(Verdict.DOES_NOT_WEAR);
        }
        if (failureMinor <= plannedMinor) {
            return none(Verdict.FAILURE_IS_CHEAP);
        }
        if (ratePower == 0) {
            return none(Verdict.STANDS_STILL);
        }
        double h0 = -Math.log1p(-wear.shareFailedAtLimits());
        double scale = Math.pow(h0 * ratePower / limits, -1 / wear.shape());
        double book = bookYears;
        return AgeReplacement.optimum(wear.shape(), scale, plannedMinor, failureMinor)
                .map(best -> new EconomicInterval(
                        Verdict.FOUND,
                        Optional.of(best.age()),
                        Optional.of(best.age() * kmPerYear),
                        Optional.of(best.age() / book),
                        Optional.of(best.costPerUnit()),
                        Optional.of(AgeReplacement.costPerUnit(wear.shape(), scale, plannedMinor, failureMinor, book))))
                .orElseThrow();
    }

    private static EconomicInterval none(Verdict verdict) {
        return new EconomicInterval(
                verdict, Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty());
    }
}
