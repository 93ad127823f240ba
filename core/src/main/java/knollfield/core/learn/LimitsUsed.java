package knollfield.core.learn;

import java.util.OptionalDouble;
import knollfield.core.risk.WearModel;

/**
 * How much of its limits a drive has used.
 *
 * @param distance share of the distance limit, zero or more, 1 = at the limit; empty without one
 * @param age the same of the age limit; one of the two is there
 */
public record LimitsUsed(OptionalDouble distance, OptionalDouble age) {

    public LimitsUsed {
        if (distance.isEmpty() && age.isEmpty()) {
            throw new IllegalArgumentException("no limit to have used");
        }
        if (!(distance.orElse(0) >= 0) || !(age.orElse(0) >= 0)) {
            throw new IllegalArgumentException("shares used (%s, %s) must be zero or more".formatted(distance, age));
        }
    }

    /** G = (f_d^β + f_a^β)/2, with one limit f^β: cumulative hazard as a multiple of h₀. */
    public double wear(double shape) {
        return WearModel.wear(distance, age, shape);
    }

    /**
     * g = dG/dt, a year.
     *
     * @param perYear shares used in a year, of the same limits
     */
    public double wearPerYear(double shape, LimitsUsed perYear) {
        double byDistance = growth(shape, distance, perYear.distance);
        double byAge = growth(shape, age, perYear.age);
        return distance.isPresent() && age.isPresent() ? (byDistance + byAge) / 2 : byDistance + byAge;
    }

    private static double growth(double shape, OptionalDouble used, OptionalDouble perYear) {
        return used.isEmpty() ? 0 : shape * Math.pow(used.getAsDouble(), shape - 1) * perYear.orElse(0);
    }
}
