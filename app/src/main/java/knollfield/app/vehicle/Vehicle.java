package knollfield.app.vehicle;

import java.time.LocalDate;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import knollfield.app.shared.Bounds;
import knollfield.core.due.Condition;
import knollfield.core.due.Policy;
import knollfield.core.due.UseState;

/**
 * A vehicle on file.
 *
 * @param engine letters of the engine as the workshop writes them; may be empty
 * @param familyCode engine family; empty where nobody has settled it
 * @param ownerId number of its owner's record; empty where nobody is stated
 * @param ownerName as the record has it
 * @param ownerPhone the number to ring
 * @param fleet the fleet it belongs to; empty for a private one
 * @param cameWithReading it was not new when the workshop first saw it
 * @param equipment equipment that switches access steps on
 * @param liftClass 1 light, 2 heavy
 * @param state whether it runs
 * @param idleHoursPerYear hours the engine runs standing still, zero or more
 * @param own a timing of its own, with the reason
 * @param beltDateCode the date an inspection read on the belt
 * @param version rises with every change of the row
 */
public record Vehicle(
        long id,
        String registration,
        Optional<String> vin,
        String makeModel,
        String engine,
        Optional<String> familyCode,
        Optional<Long> ownerId,
        String ownerName,
        String ownerPhone,
        Optional<Fleet> fleet,
        String usageClass,
        LocalDate firstRegistered,
        boolean cameWithReading,
        Set<Condition> conditions,
        Set<String> equipment,
        int liftClass,
        OptionalLong valueMinor,
        UseState state,
        int idleHoursPerYear,
        Optional<Policy.Own> own,
        Optional<LocalDate> beltDateCode,
        int version) {

    /** A vehicle in use with nothing special about it. */
    public Vehicle(
            long id,
            String registration,
            Optional<String> vin,
            String makeModel,
            Optional<String> familyCode,
            String ownerName,
            String ownerPhone,
            Optional<Fleet> fleet,
            String usageClass,
            LocalDate firstRegistered,
            boolean cameWithReading,
            Set<Condition> conditions,
            Set<String> equipment,
            int liftClass,
            OptionalLong valueMinor,
            int version) {
        this(
                id,
                registration,
                vin,
                makeModel,
                "",
                familyCode,
                Optional.empty(),
                ownerName,
                ownerPhone,
                fleet,
                usageClass,
                firstRegistered,
                cameWithReading,
                conditions,
                equipment,
                liftClass,
                valueMinor,
                UseState.inUse(),
                0,
                Optional.empty(),
                Optional.empty(),
                version);
    }

    /** The same vehicle as one of a fleet. */
    public Vehicle of(Fleet other) {
        return new Vehicle(
                id,
                registration,
                vin,
                makeModel,
                engine,
                familyCode,
                ownerId,
                ownerName,
                ownerPhone,
                Optional.of(other),
                usageClass,
                firstRegistered,
                cameWithReading,
                conditions,
                equipment,
                liftClass,
                valueMinor,
                state,
                idleHoursPerYear,
                own,
                beltDateCode,
                version);
    }

    /** The same vehicle in another state, idling so many hours a year, or with another timing of its own. */
    public Vehicle with(UseState otherState, int idleHours, Optional<Policy.Own> timing, int otherVersion) {
        return new Vehicle(
                id,
                registration,
                vin,
                makeModel,
                engine,
                familyCode,
                ownerId,
                ownerName,
                ownerPhone,
                fleet,
                usageClass,
                firstRegistered,
                cameWithReading,
                conditions,
                equipment,
                liftClass,
                valueMinor,
                otherState,
                idleHours,
                timing,
                beltDateCode,
                otherVersion);
    }

    /** The same vehicle with these letters of its engine, and the family they mean. */
    public Vehicle described(String letters, Optional<String> family) {
        return new Vehicle(
                id,
                registration,
                vin,
                makeModel,
                letters,
                family,
                ownerId,
                ownerName,
                ownerPhone,
                fleet,
                usageClass,
                firstRegistered,
                cameWithReading,
                conditions,
                equipment,
                liftClass,
                valueMinor,
                state,
                idleHoursPerYear,
                own,
                beltDateCode,
                version);
    }

    /** No more than who it is, where the rest of it cannot be reckoned with. */
    public Vehicle bare(LocalDate today) {
        boolean plausible = Bounds.wrong(firstRegistered).isEmpty() && !firstRegistered.isAfter(today);
        return new Vehicle(
                id,
                registration,
                vin,
                makeModel,
                engine,
                Optional.empty(),
                ownerId,
                ownerName,
                ownerPhone,
                fleet,
                usageClass,
                plausible ? firstRegistered : today,
                cameWithReading,
                Set.of(),
                equipment,
                liftClass,
                OptionalLong.empty(),
                state.kind() == UseState.Kind.LAID_UP ? UseState.inUse() : state,
                0,
                Optional.empty(),
                Optional.empty(),
                version);
    }
}
