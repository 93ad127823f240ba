package knollfield.core.estimate;

import knollfield.core.bundle.Sixtieths;

/**
 * What a job cost against its estimate (rules.md section 6); minor units before tax.
 *
 * @param minutes worked
 * @param costMinor labour at the rate and parts used
 */
public record Outcome(int minutes, int estimatedMinutes, long costMinor, long estimatedMinor) {

    public static Outcome of(Estimate estimate, int minutes, long partsMinor, long ratePerHourMinor) {
        return new Outcome(
                minutes, estimate.minutes(), cost(minutes, partsMinor, ratePerHourMinor), estimate.netMinor());
    }

    /** Labour at the rate and parts used, minor units before tax. */
    public static long cost(int minutes, long partsMinor, long ratePerHourMinor) {
        return Sixtieths.toMinor(Sixtieths.ofLabour(minutes, ratePerHourMinor)) + partsMinor;
    }

    /** Above zero where it cost more than estimated. */
    public long differenceMinor() {
        return costMinor - estimatedMinor;
    }
}
