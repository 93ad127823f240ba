package knollfield.core.plan;

/**
 * What a plan costs, minor units (rules.md section 11): the one sum that is minimised, and its parts.
 *
 * @param exposure of waiting: from today to each job's start, to the end of the ruler for one without a place
 * @param unplanned the fixed price of each job without a place
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
