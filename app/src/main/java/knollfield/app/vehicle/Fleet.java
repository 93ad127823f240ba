package knollfield.app.vehicle;

/**
 * A fleet.
 *
 * @param offRoadCap vehicles that may be off the road on one day
 */
public record Fleet(long id, String name, int offRoadCap, String contactName, String phone) {}
