package knollfield.core.risk;

import java.util.OptionalLong;
import knollfield.core.engine.EngineFamily;

/**
 * What a failure on the road costs, in minor units: low, likely and high (rules.md section 4).
 *
 * @param low at most {@code likely}
 * @param high at least {@code likely}
 */
public record Consequence(long low, long likely, long high) {

    /**
     * Workshop-wide costs of a breakdown; planning assumptions.
     *
     * @param recoveryMinor bringing the vehicle in
     * @param dayOffRoadMinor a day without the vehicle
     * @param daysOffRoad days without it after a failure
     */
    public record Costs(long recoveryMinor, long dayOffRoadMinor, int daysOffRoad) {}

    /**
     * Interference or unknown: engine repair, at most the vehicle's value, recovery and days off the road; otherwise the
     * belt job in place of the repair.
     */
    public static Consequence of(
            EngineFamily family, OptionalLong vehicleValueMinor, long plannedJobMinor, Costs costs) {
        long around = costs.recoveryMinor() + costs.dayOffRoadMinor() * costs.daysOffRoad();
        if (!family.interference().worksAsYes()) {
            return new Consequence(plannedJobMinor + around, plannedJobMinor + around, plannedJobMinor + around);
        }
        long cap = vehicleValueMinor.orElse(Long.MAX_VALUE);
        return new Consequence(
                Math.min(cap, family.repair().low()) + around,
                Math.min(cap, family.repair().likely()) + around,
                Math.min(cap, family.repair().high()) + around);
    }
}
