package knollfield.core.due;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;

/**
 * All a forecast needs to know of a vehicle.
 *
 * @param cameWithReading the vehicle came with a reading, so first registration at zero is not taken for one
 * @param readings in any order, without those the workshop has marked wrong
 * @param starts by item code: the last renewal, or first registration where documented as original
 * @param conditions hard use that applies
 * @param evidence what has been found and not ended
 */
public record VehicleFacts(
        LocalDate firstRegistered,
        boolean cameWithReading,
        List<Reading> readings,
        Map<String, ClockStart> starts,
        Set<Condition> conditions,
        List<Evidence> evidence,
        UsageClass usage,
        List<KnownTrip> trips) {

    public VehicleFacts {
        readings = List.copyOf(readings);
        starts = Map.copyOf(starts);
        conditions = Set.copyOf(conditions);
        evidence = List.copyOf(evidence);
        trips = List.copyOf(trips);
    }

    /** The readings and, unless the vehicle came with one, first registration at zero (rules.md section 1). */
    public List<Reading> allReadings() {
        if (cameWithReading) {
            return readings;
        }
        return Stream.concat(Stream.of(atFirstRegistration()), readings.stream())
                .toList();
    }

    Reading atFirstRegistration() {
        return new Reading(0, firstRegistered, 0, ReadingSource.FIRST_REGISTRATION);
    }
}
