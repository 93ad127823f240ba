package knollfield.app.vehicle;

import java.time.LocalDate;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalLong;
import knollfield.app.engine.EngineBook;
import knollfield.app.problem.Checks;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleViews.VehicleDetails;
import knollfield.core.due.UseState;
import knollfield.core.identity.Vin;
import org.springframework.stereotype.Component;

/** Reads what is typed of a vehicle. */
@Component
class VehicleForm {

    private final VehicleService vehicles;
    private final EngineBook book;
    private final WorkshopSettings settings;
    private final WorkshopClock clock;

    VehicleForm(VehicleService vehicles, EngineBook book, WorkshopSettings settings, WorkshopClock clock) {
        this.vehicles = vehicles;
        this.book = book;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * @param before the vehicle that is changed; empty for a new one
     * @throws knollfield.app.problem.InvalidInput naming the field
     */
    Vehicle vehicle(VehicleDetails d, Optional<Vehicle> before) {
        Optional<String> vin = Optional.ofNullable(d.vin())
                .map(v -> v.replaceAll("\\s", "").toUpperCase(Locale.ROOT))
                .filter(v -> !v.isEmpty());
        String engine = Optional.ofNullable(d.engine()).orElse("").strip();
        Optional<String> family = Optional.ofNullable(d.family()).filter(f -> !f.isBlank());
        Optional<Fleet> fleet = Optional.ofNullable(d.fleetId())
                .flatMap(
                        f -> vehicles.fleets().stream().filter(x -> x.id() == f).findFirst());
        LocalDate registered = d.firstRegistered();
        new Checks()
                .text(d.registration(), 20, "/registration", "The registration")
                .that(
                        d.registration() == null
                                || d.registration().isBlank()
                                || !Registration.key(Optional.ofNullable(d.registration())
                                                .orElse(""))
                                        .isEmpty(),
                        "/registration",
                        "A registration needs letters or digits.")
                .that(vin.isEmpty() || Vin.of(vin.get()).isPresent(), "/vin", VinWarning.SHAPE)
                .text(d.makeModel(), 80, "/makeModel", "Make and model")
                .that(engine.length() <= 60, "/engine", "The engine's letters: at most 60 characters.")
                .text(d.ownerName(), 120, "/ownerName", "The owner")
                .text(d.ownerPhone(), 40, "/ownerPhone", "The phone number")
                .that(
                        family.isEmpty() || book.find(family.get()).isPresent(),
                        "/family",
                        "No such engine family is on file.")
                .that(d.fleetId() == null || fleet.isPresent(), "/fleetId", "There is no such fleet.")
                .text(d.usageClass(), 20, "/usageClass", "The usage class")
                .that(
                        d.usageClass().isBlank() || settings.usageClasses().containsKey(d.usageClass()),
                        "/usageClass",
                        "There is no such usage class.")
                .that(registered != null, "/firstRegistered", "The day of first registration is missing.")
                .that(
                        registered == null || !registered.isAfter(clock.today()),
                        "/firstRegistered",
                        "First registration lies in the future.")
                .that(
                        registered == null || registered.getYear() >= 1900,
                        "/firstRegistered",
                        "First registration lies before 1900.")
                .that(
                        d.idleHoursPerYear() >= 0 && d.idleHoursPerYear() <= 8_784,
                        "/idleHoursPerYear",
                        "Idle hours must be 0 to 8,784 a year.")
                .that(d.valueMinor() == null || d.valueMinor() >= 0, "/valueMinor", "The value must be zero or more.")
                .that(
                        d.beltDateCode() == null || !d.beltDateCode().isAfter(clock.today()),
                        "/beltDateCode",
                        "The date code lies in the future.")
                .orThrow();
        return new Vehicle(
                before.map(Vehicle::id).orElse(0L),
                d.registration().strip(),
                vin,
                d.makeModel().strip(),
                engine,
                family,
                Optional.ofNullable(d.ownerId()).or(() -> before.flatMap(Vehicle::ownerId)),
                d.ownerName().strip(),
                d.ownerPhone().strip(),
                fleet,
                d.usageClass(),
                Objects.requireNonNull(registered),
                d.cameWithReading(),
                d.conditions(),
                d.equipment(),
                d.heavy() ? 2 : 1,
                d.valueMinor() == null ? OptionalLong.empty() : OptionalLong.of(d.valueMinor()),
                before.map(Vehicle::state).orElse(UseState.inUse()),
                d.idleHoursPerYear(),
                before.flatMap(Vehicle::own),
                Optional.ofNullable(d.beltDateCode()),
                before.isPresent() ? d.version() : 1);
    }
}
