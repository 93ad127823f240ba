package knollfield.app.vehicle;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.app.problem.Checks;
import knollfield.app.settings.Timings;
import knollfield.app.vehicle.VehicleViews.VehicleDetails;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.Condition;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.Policy;
import knollfield.core.due.UseState;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;

/** What is written of a vehicle, as it is shown and asked for. */
final class VehicleViews {

    private VehicleViews() {}

    /** What is on file of a vehicle; money in minor units. */
    record VehicleDetails(
            String registration,
            @Nullable String vin,
            String makeModel,
            @Nullable String engine,
            @Nullable String family,
            @Nullable Long ownerId,
            String ownerName,
            String ownerPhone,
            @Nullable Long fleetId,
            String usageClass,
            @Nullable LocalDate firstRegistered,
            boolean cameWithReading,
            Set<Condition> conditions,
            Set<String> equipment,
            boolean heavy,
            @Nullable Long valueMinor,
            int idleHoursPerYear,
            @Nullable LocalDate beltDateCode,
            int version) {}

    /** What was stored, and what looks odd about it all the same. */
    record Stored(long id, List<String> warnings) {}

    record NewReading(LocalDate date, BigDecimal value, DistanceUnit unit, ReadingSource source, boolean insist) {}

    record Recorded(long id) {}

    record ReadingMark(boolean wrong, int version) {}

    record Version(int version) {}

    record Conditions(Set<Condition> conditions, int version) {}

    /**
     * @param proof where it is documented: the paper's number or file, or who saw it
     * @param source of the odometer stated with it; left out: the owner where he only tells of it, else a paper
     */
    record NewRenewal(
            String item,
            LocalDate date,
            int km,
            ClockStart.Grade grade,
            @Nullable String part,
            @Nullable String proof,
            @Nullable Boolean betterPart,
            boolean countsAsReading,
            @Nullable ReadingSource source) {}

    record NewEvidence(
            EvidenceKind kind,
            LocalDate found,
            Evidence.@Nullable Confidence confidence,
            @Nullable String item,
            @Nullable String note) {}

    record Withdrawal(String why) {}

    record NewTrip(LocalDate from, LocalDate to, int extraKm) {}

    record NewCall(String spokeWith, String note, @Nullable LocalDate askAgainOn) {}

    record NewDecline(String declinedBy, String told, LocalDate until) {}

    record StateChange(UseState.Kind state, @Nullable LocalDate since, int version) {}

    /** A timing of the vehicle's own; {@code kind} null: the workshop's. */
    record OwnTiming(
            Timings.@Nullable Kind kind,
            @Nullable Double share,
            @Nullable Integer km,
            @Nullable Integer months,
            @Nullable String reason,
            int version) {

        /** @throws knollfield.app.problem.InvalidInput naming the field */
        Policy.Own toOwn(Timings.Kind kind) {
            double share = share() == null ? 1 : share();
            Timings.check(new Checks(), kind, share, km(), months(), new Timings.Pointers("/share", "/km", "/months"))
                    .text(reason(), 200, "/reason", "The reason")
                    .orThrow();
            return new Policy.Own(
                    Timings.of(kind, share, km(), months()),
                    Optional.ofNullable(reason()).orElse("").strip());
        }
    }

    static List<String> warnings(Vehicle v) {
        return v.vin().flatMap(VinWarning::of).stream().toList();
    }

    static VehicleDetails details(Vehicle v) {
        return new VehicleDetails(
                v.registration(),
                v.vin().orElse(null),
                v.makeModel(),
                v.engine(),
                v.familyCode().orElse(null),
                v.ownerId().orElse(null),
                v.ownerName(),
                v.ownerPhone(),
                v.fleet().map(Fleet::id).orElse(null),
                v.usageClass(),
                v.firstRegistered(),
                v.cameWithReading(),
                v.conditions(),
                v.equipment(),
                v.liftClass() > 1,
                v.valueMinor().isPresent() ? v.valueMinor().getAsLong() : null,
                v.idleHoursPerYear(),
                v.beltDateCode().orElse(null),
                v.version());
    }
}
