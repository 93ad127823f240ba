package knollfield.app.vehicle;

import java.time.LocalDate;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import knollfield.core.due.Condition;

/**
 * A vehicle on file.
 *
 * @param familyCode engine family; empty where nobody has settled it
 * @param fleet the fleet it belongs to; empty for a private one
 * @param cameWithReading it was not new when the workshop first saw it
 * @param equipment equipment that switches access steps on
 * @param liftClass 1 light, 2 heavy
 * @param version rises with every change of the row
 */
public record Vehicle(
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
        int version) {}
