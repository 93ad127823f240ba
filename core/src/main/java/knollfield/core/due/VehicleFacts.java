package knollfield.core.due;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.core.clock.ClockStart;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;

/**
 * All a forecast needs to know of a vehicle.
 *
 * @param cameWithReading the vehicle came with a reading, so first registration at zero is not taken for one
 * @param readings in any order, without those the workshop has marked wrong, in km since new whatever odometer showed
 *     them
 * @param starts by item code: the last renewal, or first registration where documented as original
 * @param conditions hard use that applies
 * @param evidence what has been found and not ended
 * @param special what few vehicles have
 */
public record VehicleFacts(
        LocalDate firstRegistered,
        boolean cameWithReading,
        List<Reading> readings,
        Map<String, ClockStart> starts,
        Set<Condition> conditions,
        List<Evidence> evidence,
        UsageClass usage,
        List<KnownTrip> trips,
        Special special) {

    /**
     * What few vehicles have.
     *
     * @param idleHoursPerYear hours the engine runs standing still, zero or more
     * @param own a timing of its own
     * @param dateCode the date an inspection read on the belt
     * @param betterParts codes of items renewed with the better part, so that a known weakness is gone
     */
    public record Special(
            UseState state,
            double idleHoursPerYear,
            Optional<Policy.Own> own,
            Optional<LocalDate> dateCode,
            Set<String> betterParts) {

        private static final Special NOTHING =
                new Special(UseState.inUse(), 0, Optional.empty(), Optional.empty(), Set.of());

        public Special {
            betterParts = Set.copyOf(betterParts);
            if (!(idleHoursPerYear >= 0) || idleHoursPerYear > 8_784) {
                throw new IllegalArgumentException(
                        "idle hours (%s a year) must be from 0 to the hours of a year".formatted(idleHoursPerYear));
            }
        }

        /** In use, and nothing special about it. */
        public static Special nothing() {
            return NOTHING;
        }
    }

    public VehicleFacts {
        readings = List.copyOf(readings);
        starts = Map.copyOf(starts);
        conditions = Set.copyOf(conditions);
        // what a stand-in says is no evidence: nothing is ever judged by it
        evidence = evidence.stream()
                .filter(e -> e.confidence() != Evidence.Confidence.SIMULATED)
                .toList();
        trips = List.copyOf(trips);
    }

    /** A vehicle in use with nothing special about it. */
    public VehicleFacts(
            LocalDate firstRegistered,
            boolean cameWithReading,
            List<Reading> readings,
            Map<String, ClockStart> starts,
            Set<Condition> conditions,
            List<Evidence> evidence,
            UsageClass usage,
            List<KnownTrip> trips) {
        this(firstRegistered, cameWithReading, readings, starts, conditions, evidence, usage, trips, Special.nothing());
    }

    /** This vehicle with another usage class, such as the one its class has learned. */
    public VehicleFacts with(UsageClass other) {
        return new VehicleFacts(
                firstRegistered, cameWithReading, readings, starts, conditions, evidence, other, trips, special);
    }

    /** This vehicle with something special about it. */
    public VehicleFacts with(Special other) {
        return new VehicleFacts(
                firstRegistered, cameWithReading, readings, starts, conditions, evidence, usage, trips, other);
    }

    /** The readings and, unless the vehicle came with one, first registration at zero (rules.md section 1). */
    public List<Reading> allReadings() {
        if (cameWithReading) {
            return readings;
        }
        List<Reading> all = new ArrayList<>(readings.size() + 1);
        all.add(atFirstRegistration());
        all.addAll(readings);
        return all;
    }

    Reading atFirstRegistration() {
        return new Reading(0, firstRegistered, 0, ReadingSource.FIRST_REGISTRATION);
    }
}
