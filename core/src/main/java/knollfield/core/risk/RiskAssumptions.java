package knollfield.core.risk;

import java.util.Map;
import knollfield.core.due.DelayTime;
import knollfield.core.engine.ItemKind;

/**
 * What the chance of a failure is reckoned with beside the wear of each kind of item (rules.md sections 3 and 4). All are
 * planning assumptions.
 *
 * @param driveShare of belt or chain in the failures of drives; what a family has not got goes to the others in proportion
 * @param tensionerShare of all its tensioners together
 * @param idlerShare of all its idlers and guides together
 * @param pumpShare of a pump that the drive turns
 * @param delayYears mean delay by sort of finding, years in use, above zero; what is missing is as usual
 * @param stillOriginal chance that a part nobody knows of is still the original, for each time its limit has gone by beyond
 *     the first; 0 to 1
 * @param startedPerWeek chance that somebody starts an engine in a week that must not run; 0 to 1
 */
public record RiskAssumptions(
        double driveShare,
        double tensionerShare,
        double idlerShare,
        double pumpShare,
        Map<DelayTime, Double> delayYears,
        double stillOriginal,
        double startedPerWeek) {

    public RiskAssumptions {
        delayYears = Map.copyOf(delayYears);
        if (!(driveShare > 0) || !(tensionerShare >= 0) || !(idlerShare >= 0) || !(pumpShare >= 0)) {
            throw new IllegalArgumentException("shares (%s, %s, %s, %s) must be zero or more, that of the drive above"
                    .formatted(driveShare, tensionerShare, idlerShare, pumpShare));
        }
        if (!(stillOriginal >= 0 && stillOriginal <= 1) || !(startedPerWeek >= 0 && startedPerWeek <= 1)) {
            throw new IllegalArgumentException(
                    "chances (%s, %s) must lie between 0 and 1".formatted(stillOriginal, startedPerWeek));
        }
        if (delayYears.values().stream().anyMatch(y -> !(y > 0))) {
            throw new IllegalArgumentException("delays must be above zero: " + delayYears);
        }
    }

    /** 0.5, 0.2, 0.1, 0.2; half; 1 % a week. */
    public static RiskAssumptions defaults() {
        return new RiskAssumptions(0.5, 0.2, 0.1, 0.2, Map.of(), 0.5, 0.01);
    }

    /** Mean delay of a sort of finding, years in use. */
    public double years(DelayTime delay) {
        return delayYears.getOrDefault(delay, delay.years());
    }

    /** The shortest delay there is, years in use. */
    public double shortestDelayYears() {
        double shortest = Double.POSITIVE_INFINITY;
        for (DelayTime delay : DelayTime.values()) {
            shortest = Math.min(shortest, years(delay));
        }
        return shortest;
    }

    /** Share of all items of such a kind together, before what a family has not got is spread over the others. */
    double share(ItemKind kind) {
        return switch (kind) {
            case TIMING_BELT, TIMING_CHAIN -> driveShare;
            case TENSIONER -> tensionerShare;
            case IDLER, GUIDE -> idlerShare;
            case WATER_PUMP -> pumpShare;
            default -> 0;
        };
    }
}
