package knollfield.core.risk;

import java.util.OptionalDouble;

/**
 * Chance that an item fails as its limits are used up (rules.md section 4).
 *
 * <p>Cumulative hazard H = h₀·(f_d^β + f_a^β)/2 with both limits, h₀·f^β with one; h₀ = −ln(1 − p₀). With f_d = f_a it
 * is a Weibull distribution of shape β and scale h₀^(−1/β).
 *
 * @param shareFailedAtLimits p₀, above 0 and below 1; planning assumption 0.02
 * @param shape β, above 0; planning assumption 4 (wear-out)
 */
public record WearModel(double shareFailedAtLimits, double shape) {

    public WearModel {
        if (!(shareFailedAtLimits > 0 && shareFailedAtLimits < 1) || !(shape > 0)) {
            throw new IllegalArgumentException(
                    "share failed at the limits (%s) must lie between 0 and 1, shape (%s) above 0"
                            .formatted(shareFailedAtLimits, shape));
        }
    }

    /** p₀ = 2 %, β = 4: planning assumptions. */
    public static WearModel defaults() {
        return new WearModel(0.02, 4);
    }

    /** H for the fractions used, each zero or more; zero where neither limit exists. */
    public double cumulativeHazard(OptionalDouble distanceUsed, OptionalDouble ageUsed) {
        return hazardAtLimits() * wear(distanceUsed, ageUsed, shape);
    }

    /** h₀ = −ln(1 − p₀). */
    public double hazardAtLimits() {
        return -Math.log1p(-shareFailedAtLimits);
    }

    /** G = (f_d^β + f_a^β)/2, with one limit f^β, without any zero: H as a multiple of h₀. */
    public static double wear(OptionalDouble distanceUsed, OptionalDouble ageUsed, double shape) {
        if (distanceUsed.isPresent() && ageUsed.isPresent()) {
            return (Math.pow(distanceUsed.getAsDouble(), shape) + Math.pow(ageUsed.getAsDouble(), shape)) / 2;
        }
        return distanceUsed.isEmpty() && ageUsed.isEmpty()
                ? 0
                : Math.pow(distanceUsed.orElse(ageUsed.orElse(0)), shape);
    }

    /** Chance of failing between two states of an item that has lived to the first: 1 − exp(−m·(H₂ − H₁)). */
    public static double chanceBetween(double hazardThen, double hazardLater, double factor) {
        return -Math.expm1(-factor * Math.max(0, hazardLater - hazardThen));
    }
}
