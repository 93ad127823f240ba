package knollfield.app.vehicle;

import java.time.LocalDate;
import java.util.Optional;

/**
 * What was said about a vehicle.
 *
 * @param askAgainOn the day the owner wants to be asked again
 */
public record CallNote(
        long id, LocalDate spokenOn, String spokeWith, String note, Optional<LocalDate> askAgainOn, String enteredBy) {}
