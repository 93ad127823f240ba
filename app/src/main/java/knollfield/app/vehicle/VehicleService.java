package knollfield.app.vehicle;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.app.log.VehicleLog;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.Person;
import knollfield.app.security.Role;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.due.Condition;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.VehicleFacts;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import knollfield.core.units.DistanceUnit;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Vehicles and what happens to them; every change is one transaction and a line in the vehicle's log. */
@Service
public class VehicleService {

    private final VehicleRepository vehicles;
    private final HistoryRepository histories;
    private final VehicleLog log;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final WorkshopSettings settings;
    private final Words words;
    private final ApplicationEventPublisher events;

    VehicleService(
            VehicleRepository vehicles,
            HistoryRepository histories,
            VehicleLog log,
            CurrentPerson current,
            WorkshopClock clock,
            WorkshopSettings settings,
            Words words,
            ApplicationEventPublisher events) {
        this.vehicles = vehicles;
        this.histories = histories;
        this.log = log;
        this.current = current;
        this.clock = clock;
        this.settings = settings;
        this.words = words;
        this.events = events;
    }

    /**
     * The vehicle, where the person asking may see it.
     *
     * @throws NotFound where there is none, or it is of another fleet than the contact's
     */
    public Vehicle get(long id) {
        return vehicles.find(id)
                .filter(v -> maySee(current.get(), v))
                .orElseThrow(() -> new NotFound("There is no vehicle %d, or it is not yours to see.".formatted(id)));
    }

    /** True where {@code person} may see {@code vehicle}: a fleet contact sees the own fleet only. */
    public boolean maySee(Person person, Vehicle vehicle) {
        return person.role() != Role.FLEET_CONTACT
                || vehicle.fleet().map(Fleet::id).equals(person.fleetId());
    }

    public Optional<Vehicle> findByRegistration(String registration) {
        return vehicles.findByKey(Registration.key(registration));
    }

    public VehicleHistory history(Vehicle vehicle) {
        return histories.of(vehicle);
    }

    /** For whoever keeps forecasts; asks no one's leave. */
    public Optional<VehicleHistory> historyForForecast(long id) {
        return vehicles.find(id).map(histories::of);
    }

    /** Every vehicle with its history. */
    public List<VehicleHistory> allHistories() {
        return histories.of(vehicles.all());
    }

    public List<Fleet> fleets() {
        return vehicles.fleets();
    }

    /**
     * Adds a vehicle whose fields have been checked.
     *
     * @throws InvalidInput where the registration is already on file
     */
    @Transactional
    public long add(Vehicle vehicle, String how) {
        if (vehicles.findByKey(Registration.key(vehicle.registration())).isPresent()) {
            throw new InvalidInput("/registration", "%s is already on file.".formatted(vehicle.registration()));
        }
        long id = vehicles.add(vehicle);
        log.write(id, how, "", vehicle.registration() + ", " + vehicle.makeModel());
        events.publishEvent(new VehicleChanged(id));
        return id;
    }

    /** Takes a vehicle over with all that has happened to it, as from an older record; one line in its log. */
    @Transactional
    public long takeOver(VehicleHistory history, String how) {
        long id = add(history.vehicle(), how);
        history.readings().forEach(r -> histories.addReading(id, r, clock.instant()));
        history.renewals().forEach(r -> histories.addRenewal(id, r, clock.instant()));
        history.evidence()
                .forEach(e -> histories.addEvidence(id, e.kind(), e.found(), e.note(), e.enteredBy(), clock.instant()));
        history.trips().forEach(t -> histories.addTrip(id, t));
        return id;
    }

    /**
     * Records a reading.
     *
     * @param insist record it although it does not fit the others; it is then kept as rejected, or rejects them
     * @return the reading's number
     * @throws InvalidInput for a date in the future or before first registration, a value no odometer shows, or one that
     *     does not fit the readings on file
     */
    @Transactional
    public long addReading(
            long vehicleId, LocalDate date, BigDecimal value, DistanceUnit unit, ReadingSource source, boolean insist) {
        Vehicle vehicle = get(vehicleId);
        checkReading(vehicle, date, value, unit).orThrow();
        int km = (int) Math.round(unit.toKm(value.doubleValue()));
        if (!insist) {
            objection(history(vehicle), new Reading(0, date, km, source)).ifPresent(o -> {
                throw new InvalidInput("/value", o);
            });
        }
        return store(vehicle, date, km, value, unit, source);
    }

    /** What is wrong with a reading by itself. */
    public Checks checkReading(Vehicle vehicle, LocalDate date, BigDecimal value, DistanceUnit unit) {
        double km = unit.toKm(value.doubleValue());
        return new Checks()
                .that(
                        value.signum() >= 0 && km <= Reading.MAX_KM,
                        "/value",
                        "An odometer shows 0 to %s; %s is not one."
                                .formatted(words.km(Reading.MAX_KM), value.toPlainString()))
                .that(!date.isAfter(clock.today()), "/date", "%s lies in the future.".formatted(words.day(date)))
                .that(
                        !date.isBefore(vehicle.firstRegistered()),
                        "/date",
                        "%s lies before first registration, %s."
                                .formatted(words.day(date), words.day(vehicle.firstRegistered())));
    }

    /** Why {@code reading} does not fit the vehicle's readings, in words; empty where it does. */
    public Optional<String> objection(VehicleHistory history, Reading reading) {
        VehicleFacts facts = history.facts(usage(history.vehicle()));
        ReadingChain chain = ReadingChain.of(facts.allReadings());
        return chain.objectionTo(reading).map(reason -> {
            Optional<Reading> before = chain.kept().stream()
                    .filter(r -> !r.date().isAfter(reading.date()))
                    .reduce((a, b) -> b);
            String against = before.map(b -> " %s was read on %s.".formatted(words.km(b.km()), words.day(b.date())))
                    .orElse("");
            return switch (reason) {
                case RUNS_BACKWARDS -> "%s runs backwards.%s".formatted(words.km(reading.km()), against);
                case IMPOSSIBLE_RATE ->
                    "%s would be more than %s a day.%s"
                            .formatted(words.km(reading.km()), words.km(ReadingChain.MAX_KM_PER_DAY), against);
                case MILES_AS_KM, KM_AS_MILES -> "%s %s.%s".formatted(words.km(reading.km()), reason.words(), against);
            };
        });
    }

    private long store(
            Vehicle vehicle, LocalDate date, int km, BigDecimal value, DistanceUnit unit, ReadingSource source) {
        StoredReading reading = new StoredReading(
                0, date, km, value, unit, source, false, current.get().name());
        long id = histories.addReading(vehicle.id(), reading, clock.instant());
        log.write(
                vehicle.id(),
                "odometer reading",
                "",
                "%s on %s, %s".formatted(words.km(km), words.day(date), source.words()));
        events.publishEvent(new VehicleChanged(vehicle.id()));
        return id;
    }

    /** Marks a reading as wrong for good, or takes that back. */
    @Transactional
    public void markReading(long vehicleId, long readingId, boolean wrong, int version) {
        Vehicle vehicle = get(vehicleId);
        if (!histories.markReading(vehicleId, readingId, wrong)) {
            throw new NotFound("There is no such reading.");
        }
        touch(vehicle, version);
        log.write(
                vehicleId,
                wrong ? "reading marked wrong" : "reading taken back in",
                "",
                history(vehicle).readings().stream()
                        .filter(r -> r.id() == readingId)
                        .map(r -> words.km(r.km()) + " on " + words.day(r.date()))
                        .findFirst()
                        .orElse(""));
        events.publishEvent(new VehicleChanged(vehicleId));
    }

    /** Replaces the hard-use conditions. */
    @Transactional
    public void setConditions(long vehicleId, Set<Condition> conditions, int version) {
        Vehicle vehicle = get(vehicleId);
        if (!vehicles.updateConditions(vehicleId, version, conditions)) {
            throw conflict(vehicle);
        }
        log.write(vehicleId, "hard use", names(vehicle.conditions()), names(conditions));
        events.publishEvent(new VehicleChanged(vehicleId));
    }

    /**
     * Notes a renewal done elsewhere or earlier.
     *
     * @param countsAsReading the odometer stated with it also counts as a reading of {@code source}
     */
    @Transactional
    public void addRenewal(long vehicleId, Renewal renewal, boolean countsAsReading, ReadingSource source) {
        Vehicle vehicle = get(vehicleId);
        BigDecimal value = BigDecimal.valueOf(renewal.km());
        checkReading(vehicle, renewal.date(), value, DistanceUnit.KM).orThrow();
        histories.addRenewal(vehicleId, renewal, clock.instant());
        log.write(
                vehicleId,
                "renewal of the " + renewal.itemCode(),
                "",
                "%s at %s, %s"
                        .formatted(
                                words.day(renewal.date()),
                                words.km(renewal.km()),
                                renewal.grade().words()));
        if (countsAsReading) {
            store(vehicle, renewal.date(), renewal.km(), value, DistanceUnit.KM, source);
        }
        events.publishEvent(new VehicleChanged(vehicleId));
    }

    /** Notes something found. */
    @Transactional
    public void addEvidence(long vehicleId, EvidenceKind kind, LocalDate found, String note) {
        Vehicle vehicle = get(vehicleId);
        checkReading(vehicle, found, BigDecimal.ZERO, DistanceUnit.KM).orThrow();
        histories.addEvidence(vehicleId, kind, found, note, current.get().name(), clock.instant());
        log.write(vehicleId, "evidence", "", kind.words() + (note.isBlank() ? "" : ": " + note));
        events.publishEvent(new VehicleChanged(vehicleId));
    }

    /** Withdraws something found, with the reason. */
    @Transactional
    public void withdrawEvidence(long vehicleId, long evidenceId, String why) {
        get(vehicleId);
        new Checks().text(why, 200, "/why", "The reason").orThrow();
        if (histories.endEvidence(vehicleId, Optional.of(evidenceId), clock.today(), why) != 1) {
            throw new NotFound("There is no open finding %d on this vehicle.".formatted(evidenceId));
        }
        log.write(vehicleId, "evidence withdrawn", "", why);
        events.publishEvent(new VehicleChanged(vehicleId));
    }

    /** Ends all evidence because a job has renewed the drive. */
    @Transactional
    public void endEvidence(long vehicleId, String why) {
        histories.endEvidence(vehicleId, Optional.empty(), clock.today(), why);
        events.publishEvent(new VehicleChanged(vehicleId));
    }

    /** Notes a journey to come. */
    @Transactional
    public void addTrip(long vehicleId, KnownTrip trip) {
        get(vehicleId);
        histories.addTrip(vehicleId, trip);
        log.write(
                vehicleId,
                "known trip",
                "",
                "%s from %s to %s".formatted(words.km(trip.extraKm()), words.day(trip.from()), words.day(trip.to())));
        events.publishEvent(new VehicleChanged(vehicleId));
    }

    /** The usage class a vehicle is in. */
    public UsageClass usage(Vehicle vehicle) {
        Map<String, UsageClass> classes = settings.usageClasses();
        return Optional.ofNullable(classes.get(vehicle.usageClass()))
                .orElseThrow(() -> new IllegalStateException("no usage class " + vehicle.usageClass()));
    }

    private void touch(Vehicle vehicle, int version) {
        if (!vehicles.touch(vehicle.id(), version)) {
            throw conflict(vehicle);
        }
    }

    private Conflict conflict(Vehicle vehicle) {
        String last = log.newest(vehicle.id(), 1).stream()
                .map(l -> "%s changed \"%s\" to \"%s\"".formatted(l.by(), l.what(), l.after()))
                .findFirst()
                .orElse("somebody changed it");
        return new Conflict(
                "%s: %s while you were at it. Yours was not saved.".formatted(vehicle.registration(), last));
    }

    private static String names(Set<Condition> conditions) {
        return conditions.isEmpty()
                ? "none"
                : conditions.stream().sorted().map(Condition::words).collect(Collectors.joining(", "));
    }
}
