package knollfield.app.aftercare;

import java.time.LocalDate;
import java.util.Optional;

/**
 * A recheck of a vehicle.
 *
 * @param done empty until somebody has looked
 */
public record StoredRecheck(
        long id, long vehicleId, long jobId, String what, LocalDate due, Optional<Closed> done, int version) {}
