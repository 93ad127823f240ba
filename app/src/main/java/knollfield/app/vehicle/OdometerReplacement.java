package knollfield.app.vehicle;

import java.time.LocalDate;

/**
 * From {@code replacedOn} on the odometer shows {@code offsetKm} less than the vehicle has run.
 *
 * @param readingId the reading that showed it
 */
public record OdometerReplacement(long id, long readingId, LocalDate replacedOn, int offsetKm, String enteredBy) {}
