package knollfield.app.breakdown;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.log.VehicleLog;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.StandingDecline;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.units.DistanceUnit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Notes breakdowns. One is a reading, and unless the drive has been renewed since, a finding that stops the engine. */
@Service
public class Breakdowns {

    private static final long MOST_MINOR = 100_000_000_000L;

    private final BreakdownRepository repository;
    private final VehicleService vehicles;
    private final EngineBook book;
    private final VehicleLog log;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final Words words;

    Breakdowns(
            BreakdownRepository repository,
            VehicleService vehicles,
            EngineBook book,
            VehicleLog log,
            CurrentPerson current,
            WorkshopClock clock,
            Words words) {
        this.repository = repository;
        this.vehicles = vehicles;
        this.book = book;
        this.log = log;
        this.current = current;
        this.clock = clock;
        this.words = words;
    }

    /**
     * What somebody says of it.
     *
     * @param item code of what let go; empty where the engine has no book
     * @param value of the odometer, in {@code unit}
     * @param insist keep the reading although it does not fit the others
     */
    public record Told(
            String item,
            LocalDate on,
            BigDecimal value,
            DistanceUnit unit,
            String what,
            OptionalLong costMinor,
            boolean declined,
            boolean insist) {

        /** The same on another day, at another odometer. */
        public Told at(LocalDate day, BigDecimal odometer) {
            return new Told(item, day, odometer, unit, what, costMinor, declined, insist);
        }
    }

    /** Of one vehicle, newest first, withdrawn ones too. */
    public List<Breakdown> ofVehicle(long vehicleId) {
        return repository.ofVehicle(vehicleId);
    }

    /** Of all vehicles, newest first, withdrawn ones too. */
    public List<Breakdown> all() {
        return repository.all();
    }

    /** Notes one; returns its number. */
    @Transactional
    public long note(long vehicleId, Told told) {
        Vehicle vehicle = vehicles.get(vehicleId);
        VehicleHistory history = vehicles.history(vehicle);
        Optional<EngineFamily> family = vehicle.familyCode().flatMap(book::find).map(VersionedFamily::family);
        Optional<Item> item = family.flatMap(f -> f.item(told.item()));
        vehicles.checkReading(vehicle, told.on(), told.value(), told.unit())
                .text(told.what(), 400, "/what", "What happened")
                .that(
                        family.isPresent()
                                ? item.filter(Item::takesTheDrive).isPresent()
                                : told.item().isBlank(),
                        "/item",
                        family.isPresent()
                                ? "Choose what let go: something whose failure takes the drive with it."
                                : "The engine has no book, so nothing of it can be named; leave this empty.")
                .that(
                        told.costMinor().orElse(0) >= 0 && told.costMinor().orElse(0) <= MOST_MINOR,
                        "/costMinor",
                        "The cost must be zero or more, and at most a thousand million.")
                .that(
                        repository.ofVehicle(vehicleId).stream().noneMatch(b -> b.stands() && b.on().equals(told.on())),
                        "/date",
                        "A breakdown on %s is on file already.".formatted(words.day(told.on())))
                .orThrow();
        int km = (int) Math.round(told.unit().toKm(told.value().doubleValue()));
        boolean read = history.readings().stream()
                .anyMatch(r -> r.date().equals(told.on()) && r.km() == km && !r.markedWrong());
        if (!read) {
            vehicles.addReading(vehicleId, told.on(), told.value(), told.unit(), ReadingSource.WORKSHOP, told.insist());
        }
        boolean declined = told.declined() || history.declines().stream().anyMatch(d -> stood(d, told.on()));
        long id = repository.add(
                new Breakdown(
                        0,
                        vehicleId,
                        told.item(),
                        told.on(),
                        km,
                        told.what().strip(),
                        told.costMinor(),
                        declined,
                        current.get().name(),
                        Optional.empty()),
                clock.instant());
        String what = item.map(Item::name).orElse("Timing drive");
        log.write(
                vehicleId,
                "breakdown",
                "",
                "%s on %s at %s: %s%s"
                        .formatted(
                                what,
                                words.day(told.on()),
                                words.km(km),
                                told.what().strip(),
                                declined ? "; the work had been declined" : ""));
        boolean renewedSince = history.renewals().stream()
                .anyMatch(r -> !r.date().isBefore(told.on())
                        && family.flatMap(f -> f.item(r.itemCode()))
                                .filter(i -> i.kind().isTheDrive())
                                .isPresent());
        if (!renewedSince) {
            vehicles.addEvidence(
                    vehicleId,
                    new Evidence(EvidenceKind.BELT_FAILED, told.on(), Evidence.Confidence.SEEN, Optional.empty()),
                    "breakdown",
                    told.what().strip());
        }
        return id;
    }

    private static boolean stood(StandingDecline decline, LocalDate on) {
        return !decline.declinedOn().isAfter(on)
                && !decline.until().isBefore(on)
                && decline.withdrawnOn().filter(w -> !w.isAfter(on)).isEmpty();
    }

    /** Takes one back that was noted in error. What was found with it is withdrawn by itself. */
    @Transactional
    void withdraw(long id, String why) {
        Breakdown breakdown =
                repository.find(id).orElseThrow(() -> new NotFound("There is no breakdown %d.".formatted(id)));
        new Checks().text(why, 200, "/why", "The reason").orThrow();
        if (!repository.withdraw(id, clock.today(), why.strip())) {
            throw new Conflict("It has been withdrawn already.");
        }
        log.write(breakdown.vehicleId(), "breakdown withdrawn", breakdown.what(), why.strip());
    }
}
