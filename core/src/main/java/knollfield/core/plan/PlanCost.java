package knollfield.core.plan;

/**
 * What a plan costs, minor units (rules.md section 11): the one sum that is minimised, and its parts.
 *
 * @param exposure of planned jobs, from today to their start
 * @param unplanned waiting of jobs without a place to the end of the ruler, and the fixed price of each
 * @param offRoad days off the road
 * @param changeovers of tool sets
 * @param moves away from places people know
 * @param unplannedJobs how many jobs have no place
 * @param offRoadDays vehicle days off the road
 * @param movedJobs how many are not where people know them
 */
public record PlanCost(
        long exposure,
        long unplanned,
        long offRoad,
        long changeovers,
        long moves,
        int unplannedJobs,
        int offRoadDays,
        int movedJobs) {

    public long total() {
        return exposure + unplanned + offRoad + changeovers + moves;
    }
}
