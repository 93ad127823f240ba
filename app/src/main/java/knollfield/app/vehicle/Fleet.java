package knollfield.app.vehicle;

import java.time.DayOfWeek;
import java.util.Set;

/**
 * A fleet.
 *
 * @param offRoadCap vehicles that may be off the road on one day
 * @param days of the week on which they can be in the workshop; empty where any will do
 */
public record Fleet(
        long id, String name, int offRoadCap, String contactName, String phone, Set<DayOfWeek> days, int version) {}
