package knollfield.core.risk;

import java.util.Optional;

/**
 * The interval at which renewing a set on one vehicle costs least, beside the book limit: a comparison, never a reason
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
        STANDS_STILL("There is none: there is only a distance limit and the vehicle does not move."),
        NOT_WORTH_HAVING("There is none worth having: it would lie beyond three times the limits.");

        private final String words;

        Verdict(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * For what is renewed together.
     *
     * @param plannedMinor full cost of the planned job, above zero
     * @param failureMinor full cost of a failure, above zero
     */
    public static EconomicInterval of(FreshSet set, long plannedMinor, long failureMinor) {
        if (!set.wearsOut()) {
            return none(Verdict.DOES_NOT_WEAR);
        }
        if (failureMinor <= plannedMinor) {
            return none(Verdict.FAILURE_IS_CHEAP);
        }
        double book = set.yearsToFirstLimit();
        if (Double.isInfinite(book)) {
            return none(Verdict.STANDS_STILL);
        }
        return AgeReplacement.optimum(set, plannedMinor, failureMinor, FreshSet.WORTH_HAVING_LIMITS * book)
                .map(best -> new EconomicInterval(
                        Verdict.FOUND,
                        Optional.of(best.age()),
                        Optional.of(best.age() * set.kmPerYear()),
                        Optional.of(best.age() / book),
                        Optional.of(best.costPerUnit()),
                        Optional.of(AgeReplacement.costPerUnit(set, plannedMinor, failureMinor, book))))
                .orElseGet(() -> none(Verdict.NOT_WORTH_HAVING));
    }

    private static EconomicInterval none(Verdict verdict) {
        return new EconomicInterval(
                verdict, Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty());
    }
}
