package knollfield.core.plan;

/**
 * Where a job stands on the board. Technician, bay, vehicle and tool set are held from its start to its end, nights and
 * days off included.
 *
 * @param start slot of the ruler
 */
public record Place(long technicianId, long bayId, int start) {}
