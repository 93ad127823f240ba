package knollfield.app.vehicle;

import java.math.BigDecimal;
import java.time.LocalDate;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.units.DistanceUnit;

/** A reading as it was written, and what it means in kilometres. */
public record StoredReading(
        long id,
        LocalDate date,
        int km,
        BigDecimal writtenValue,
        DistanceUnit writtenUnit,
        ReadingSource source,
        boolean markedWrong,
        String enteredBy) {

    /** In km since new, for an odometer that shows {@code offsetKm} less. */
    Reading toCore(int offsetKm) {
        return new Reading(id, date, Math.min(Reading.MAX_KM, km + offsetKm), source, writtenUnit);
    }
}
