package knollfield.core.odometer;

import java.time.LocalDate;
import knollfield.core.units.DistanceUnit;

/**
 * What an odometer showed on a day.
 *
 * @param id the reading's number in the vehicle's history; 0 for one that is implied, such as first registration
 * @param km distance shown, whole kilometres, 0 to {@value #MAX_KM}
 * @param unit what it was written in
 */
public record Reading(long id, LocalDate date, int km, ReadingSource source, DistanceUnit unit) {

    /** More than any odometer of a road vehicle has shown; beyond it is a slip of the finger. */
    public static final int MAX_KM = 5_000_000;

    public Reading {
        if (km < 0 || km > MAX_KM) {
            throw new IllegalArgumentException(
                    "odometer reading (%d km) must be from 0 to %d km".formatted(km, MAX_KM));
        }
    }

    /** One written in kilometres. */
    public Reading(long id, LocalDate date, int km, ReadingSource source) {
        this(id, date, km, source, DistanceUnit.KM);
    }

    /** The distance whole miles stand for, km, before it was rounded to {@link #km}. */
    double shownKm() {
        if (unit != DistanceUnit.MILES) {
            return km;
        }
        double miles = DistanceUnit.MILES.toKm(Math.round(DistanceUnit.MILES.fromKm(km)));
        return Math.round(miles) == km ? miles : km;
    }

    /** True where both tell of the same look at the odometer. */
    boolean repeats(Reading other) {
        return date.equals(other.date) && km == other.km;
    }

    /** This reading, not below one before it. */
    Reading atLeast(int otherKm) {
        return otherKm <= km ? this : new Reading(id, date, otherKm, source, unit);
    }
}
