package knollfield.core.odometer;

import java.time.LocalDate;

/**
 * What an odometer showed on a day.
 *
 * @param id the reading's number in the vehicle's history; 0 for one that is implied, such as first registration
 * @param km distance shown, whole kilometres, 0 to {@value #MAX_KM}
 */
public record Reading(long id, LocalDate date, int km, ReadingSource source) {

    /** More than any odometer of a road vehicle has shown; beyond it is a slip of the finger. */
    public static final int MAX_KM = 5_000_000;

    public Reading {
        if (km < 0 || km > MAX_KM) {
            throw new IllegalArgumentException(
                    "odometer reading (%d km) must be from 0 to %d km".formatted(km, MAX_KM));
        }
    }
}
