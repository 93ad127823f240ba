package knollfield.core.estimate;

/**
 * What a workshop charges by; planning assumptions but for the rate.
 *
 * @param labourRateMinor an hour, minor units
 * @param timeFactor workshop's own time to book time, above zero ({@link TimeFactor})
 * @param lowShare labour at best, as a share of the likely one, above 0 to 1
 * @param highShare labour at worst, as a share of the likely one, at least 1
 * @param consumablesMinor rags, cleaner, sealant, minor units
 * @param toolHireMinor locking tools for the job, minor units
 * @param taxShare tax on everything, 0 to below 1
 */
public record EstimateRates(
        long labourRateMinor,
        double timeFactor,
        double lowShare,
        double highShare,
        long consumablesMinor,
        long toolHireMinor,
        double taxShare) {

    public EstimateRates {
        if (labourRateMinor < 0 || consumablesMinor < 0 || toolHireMinor < 0) {
            throw new IllegalArgumentException("rates must be zero or more");
        }
        if (!(timeFactor > 0)
                || !(lowShare > 0 && lowShare <= 1)
                || !(highShare >= 1)
                || !(taxShare >= 0 && taxShare < 1)) {
            throw new IllegalArgumentException(
                    "time factor (%s) must be above 0, low (%s) 0 to 1, high (%s) at least 1, tax (%s) 0 to below 1"
                            .formatted(timeFactor, lowShare, highShare, taxShare));
        }
    }
}
