package knollfield.core.risk;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.Stream;
import knollfield.core.clock.Limit;

/**
 * A set of parts renewed together on a vehicle of steady use: the sum of their hazards by years since (rules.md section 4).
 */
public final class FreshSet implements AgeReplacement.Wear {

    /** Beyond so many times the limits an optimum is none worth having. */
    public static final int WORTH_HAVING_LIMITS = 3;

    /**
     * What wears by the same shape: a sum of powers of the years with one exponent is one such power.
     *
     * @param hazardOfAYear cumulative hazard of the first year
     */
    private record Power(double shape, double hazardOfAYear) {

        double cumulative(double years) {
            return hazardOfAYear * Math.pow(years, shape);
        }

        double rate(double years) {
            return years == 0 ? 0 : shape * cumulative(years) / years;
        }
    }

    private final double kmPerYear;
    /** The greatest fraction of a limit that a year uses. */
    private final double limitsPerYear;

    private final Power[] powers;

    private FreshSet(double kmPerYear, double limitsPerYear, List<Power> powers) {
        this.kmPerYear = kmPerYear;
        this.limitsPerYear = limitsPerYear;
        // an array: it is gone through thousands of times for one vehicle
        this.powers = powers.toArray(Power[]::new);
    }

    /**
     * Nothing yet, on a vehicle that runs {@code kmPerYear}, zero or more.
     */
    public static FreshSet at(double kmPerYear) {
        if (!(kmPerYear >= 0)) {
            throw new IllegalArgumentException("use must be zero km a year or more, not " + kmPerYear);
        }
        return new FreshSet(kmPerYear, 0, List.of());
    }

    /**
     * This set and a part with such a limit.
     *
     * @param share of the drive's failures, 0 to 1
     */
    public FreshSet with(WearModel wear, double share, Limit limit) {
        OptionalDouble distance = limit.distanceUsed(kmPerYear);
        OptionalDouble age = limit.agePerYear();
        double added = share * wear.cumulativeHazard(distance, age);
        List<Power> all = new ArrayList<>(powers.length + 1);
        boolean joined = false;
        for (Power p : powers) {
            boolean same = p.shape() == wear.shape();
            all.add(same ? new Power(p.shape(), p.hazardOfAYear() + added) : p);
            joined |= same;
        }
        if (!joined) {
            all.add(new Power(wear.shape(), added));
        }
        double most = Math.max(limitsPerYear, Math.max(distance.orElse(0), age.orElse(0)));
        return new FreshSet(kmPerYear, most, all);
    }

    @Override
    public double cumulative(double years) {
        double sum = 0;
        for (Power p : powers) {
            sum += p.cumulative(years);
        }
        return sum;
    }

    @Override
    public double rate(double years) {
        double sum = 0;
        for (Power p : powers) {
            sum += p.rate(years);
        }
        return sum;
    }

    @Override
    public double life(double years) {
        return powers.length == 1
                ? AgeReplacement.lifeOfPower(this, powers[0].shape(), years, AgeReplacement.Wear.super::life)
                : AgeReplacement.Wear.super.life(years);
    }

    public double kmPerYear() {
        return kmPerYear;
    }

    /** Years until the first of the limits is reached; infinite where none ever is. */
    public double yearsToFirstLimit() {
        return 1 / limitsPerYear;
    }

    /** True where every part grows likelier to fail with age. */
    public boolean wearsOut() {
        return Stream.of(powers).allMatch(p -> p.shape() > 1);
    }
}
