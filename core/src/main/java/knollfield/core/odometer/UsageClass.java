package knollfield.core.odometer;

/**
 * How vehicles of one use are expected to run: the prior of the usage rate (planning assumption, rules.md section 1).
 *
 * @param code stable key, such as {@code PRIVATE}
 * @param name the class in the desk's words
 * @param meanKmPerYear zero or more
 * @param sdKmPerYear standard deviation between vehicles of the class, more than zero
 * @param yearlyScatter share of the mean by which one year's distance scatters about a vehicle's own rate, zero or more
 */
public record UsageClass(String code, String name, double meanKmPerYear, double sdKmPerYear, double yearlyScatter) {

    public UsageClass {
        if (!(meanKmPerYear >= 0) || !(sdKmPerYear > 0) || !(yearlyScatter >= 0)) {
            throw new IllegalArgumentException(
                    "usage class %s needs a mean (%s) and a scatter (%s) of zero or more and a spread above zero (%s) km a year"
                            .formatted(code, meanKmPerYear, yearlyScatter, sdKmPerYear));
        }
    }

    /** A class with the default scatter. */
    public UsageClass(String code, String name, double meanKmPerYear, double sdKmPerYear) {
        this(
                code,
                name,
                meanKmPerYear,
                sdKmPerYear,
                OdometerAssumptions.defaults().yearlyScatter());
    }

    /** σ_w: standard deviation of one year's distance about the vehicle's own constant rate, km·yr^−½. */
    public double scatterKmPerRootYear() {
        return yearlyScatter * meanKmPerYear;
    }
}
