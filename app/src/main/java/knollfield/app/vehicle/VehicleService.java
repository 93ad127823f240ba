package knollfield.app.vehicle;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import knollfield.app.log.Made;
import knollfield.app.log.VehicleLog;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.Person;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.due.BroughtForward;
import knollfield.core.due.Condition;
import knollfield.core.due.Evidence;
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

    private static final int SHORTEST_REASON = 4;

    private final VehicleRepository vehicles;
    private final HistoryRepository histories;
    private final Owners owners;
    private final VehicleLog log;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final WorkshopSettings settings;
    private final Words words;
    private final ApplicationEventPublisher events;
    private final Made made;

    VehicleService(
            VehicleRepository vehicles,
            HistoryRepository histories,
            Owners owners,
            VehicleLog log,
            CurrentPerson current,
            WorkshopClock clock,
            WorkshopSettings settings,
            Words words,
            ApplicationEventPublisher events,
            Made made) {
        this.vehicles = vehicles;
        this.histories = histories;
        this.owners = owners;
        this.log = log;
        this.current = current;
        this.clock = clock;
        this.settings = settings;
        this.words = words;
        this.events = events;
        this.made = made;
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
        return View.of(person).includes(vehicle);
    }

    /** What of the vehicles somebody sees: all, or those of one fleet. */
    public record View(boolean all, Optional<Long> fleet) {

        public static View of(Person person) {
            return person.isOutside() ? new View(false, person.fleetId()) : new View(true, Optional.empty());
        }

        public boolean includes(Fleet other) {
            return all || fleet.filter(f -> f == other.id()).isPresent();
        }

        public boolean includes(Vehicle vehicle) {
            return all || vehicle.fleet().map(Fleet::id).equals(fleet);
        }
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

    /** Every vehicle, without what has happened to it. */
    public List<Vehicle> all() {
        return vehicles.all();
    }

    /** How many vehicles there are, and what they lack. */
    public OnFile onFile() {
        return vehicles.onFile();
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
        long id = vehicles.add(vehicle, owners.of(vehicle, Optional.empty()));
        log.write(id, how, "", vehicle.registration() + ", " + vehicle.makeModel());
        changed(id);
        return id;
    }

    /** Takes a vehicle over with all that has happened to it, as from an older record; one line in its log. */
    @Transactional
    public long takeOver(VehicleHistory history, String how) {
        long id = add(history.vehicle(), how);
        history.readings().forEach(r -> histories.addReading(id, r, clock.instant()));
        history.renewals().forEach(r -> histories.addRenewal(id, r, clock.instant()));
        history.evidence().forEach(e -> histories.addEvidence(id, e, clock.instant()));
        history.trips().forEach(t -> histories.addTrip(id, t.trip()));
        history.calls().forEach(c -> histories.addCall(id, c, clock.instant()));
        history.declines().forEach(d -> histories.addDecline(id, d, clock.instant()));
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
            VehicleHistory history = history(vehicle);
            int sinceNew = Math.min(Reading.MAX_KM, km + history.offsetOn(date));
            objection(history, new Reading(0, date, sinceNew, source)).ifPresent(o -> {
                throw InvalidInput.unlessInsisted(List.of(new FieldProblem("/value", o)));
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
        ReadingChain chain = ReadingChain.of(facts.allReadings(), settings.get().odometer());
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
                            .formatted(
                                    words.km(reading.km()),
                                    words.km(settings.get().odometer().maxKmPerDay()),
                                    against);
                case MILES_AS_KM, KM_AS_MILES -> "%s %s.%s".formatted(words.km(reading.km()), reason.words(), against);
            };
        });
    }

    private long store(
            Vehicle vehicle, LocalDate date, int km, BigDecimal value, DistanceUnit unit, ReadingSource source) {
        StoredReading reading = new StoredReading(
                0, date, km, value, unit, source, false, current.get().name());
        OptionalLong same = histories.sameReading(vehicle.id(), reading);
        if (same.isPresent()) {
            return same.getAsLong();
        }
        long id = histories.addReading(vehicle.id(), reading, clock.instant());
        log.write(
                vehicle.id(),
                "odometer reading",
                "",
                "%s on %s, %s".formatted(words.km(km), words.day(date), source.words()));
        changed(vehicle.id());
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
        changed(vehicleId);
    }

    /** Replaces the hard-use conditions. */
    @Transactional
    public void setConditions(long vehicleId, Set<Condition> conditions, int version) {
        Vehicle vehicle = get(vehicleId);
        if (!vehicles.updateConditions(vehicleId, version, conditions)) {
            throw conflict(vehicle);
        }
        log.write(vehicleId, "hard use", names(vehicle.conditions()), names(conditions));
        changed(vehicleId);
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
        changed(vehicleId);
    }

    /**
     * Notes something found.
     *
     * @param source who or what found it
     */
    @Transactional
    public void addEvidence(long vehicleId, Evidence evidence, String source, String note) {
        Vehicle vehicle = get(vehicleId);
        checkReading(vehicle, evidence.found(), BigDecimal.ZERO, DistanceUnit.KM)
                .that(note.length() <= 400, "/note", "The note is longer than 400 characters.")
                .orThrow();
        StoredEvidence noted = new StoredEvidence(
                0,
                evidence,
                source,
                note,
                Optional.empty(),
                Optional.empty(),
                current.get().name());
        if (histories.hasEvidence(vehicleId, noted)) {
            return;
        }
        histories.addEvidence(vehicleId, noted, clock.instant());
        log.write(
                vehicleId,
                "evidence",
                "",
                "%s, %s%s"
                        .formatted(
                                evidence.kind().words(),
                                evidence.confidence().words(),
                                note.isBlank() ? "" : ": " + note));
        changed(vehicleId);
    }

    /** Withdraws something found, with the reason. */
    @Transactional
    public void withdrawEvidence(long vehicleId, long evidenceId, String why) {
        Vehicle vehicle = get(vehicleId);
        List<StoredEvidence> all = history(vehicle).evidence();
        Optional<Evidence> withdrawn = all.stream()
                .filter(e -> e.id() == evidenceId)
                .map(StoredEvidence::evidence)
                .findFirst();
        boolean stops = withdrawn
                .filter(e -> e.kind().effect() == EvidenceKind.Effect.STOP)
                .isPresent();
        new Checks()
                .text(why, 200, "/why", "The reason")
                .that(
                        why.strip().length() >= SHORTEST_REASON,
                        "/why",
                        "Say in a few words what was looked at, and what it was.")
                .that(
                        !stops || current.get().isManager() || measuredGoodSince(withdrawn.orElseThrow(), all),
                        "/why",
                        "This stops the vehicle: a manager withdraws it, or a new look that is measured and good.")
                .orThrow();
        if (histories.endEvidence(vehicleId, evidenceId, clock.today(), why) != 1) {
            throw new NotFound("There is no open finding %d on this vehicle.".formatted(evidenceId));
        }
        log.write(vehicleId, "evidence withdrawn", "", why);
        changed(vehicleId);
    }

    private static boolean measuredGoodSince(Evidence found, List<StoredEvidence> all) {
        return all.stream()
                .map(StoredEvidence::evidence)
                .anyMatch(e -> e.kind() == EvidenceKind.INSPECTED_GOOD
                        && e.confidence() == Evidence.Confidence.MEASURED
                        && !e.found().isBefore(found.found()));
    }

    /** Ends the open evidence that {@code ended} says a job has dealt with. */
    @Transactional
    public void endEvidence(long vehicleId, Predicate<Evidence> ended, String why) {
        for (StoredEvidence e : history(get(vehicleId)).evidence()) {
            if (e.endedOn().isEmpty() && ended.test(e.evidence())) {
                histories.endEvidence(vehicleId, e.id(), clock.today(), why);
            }
        }
        changed(vehicleId);
    }

    /** Notes a journey to come. */
    @Transactional
    public void addTrip(long vehicleId, KnownTrip trip) {
        get(vehicleId);
        histories.addTrip(vehicleId, trip);
        log.write(vehicleId, "known trip", "", inWords(trip));
        changed(vehicleId);
    }

    /** Notes that a journey will not be made. */
    @Transactional
    public void cancelTrip(long vehicleId, long tripId) {
        VehicleHistory history = history(get(vehicleId));
        if (!histories.cancelTrip(vehicleId, tripId, clock.today())) {
            throw new NotFound("There is no such trip to cancel.");
        }
        String before = history.trips().stream()
                .filter(t -> t.id() == tripId)
                .map(t -> inWords(t.trip()))
                .findFirst()
                .orElse("");
        log.write(vehicleId, "known trip cancelled", before, "");
        changed(vehicleId);
    }

    private String inWords(KnownTrip trip) {
        return "%s from %s to %s".formatted(words.km(trip.extraKm()), words.day(trip.from()), words.day(trip.to()));
    }

    /**
     * Takes a reading that runs backwards for that of a new odometer: what it lacks of the distance since new is added
     * to it and to all that follow.
     *
     * @throws InvalidInput where no earlier reading says how much it lacks, or it lacks nothing
     */
    @Transactional
    public void replaceOdometer(long vehicleId, long readingId, int version) {
        Vehicle vehicle = get(vehicleId);
        touch(vehicle, version);
        VehicleHistory history = history(vehicle);
        StoredReading reading = history.readings().stream()
                .filter(r -> r.id() == readingId)
                .findFirst()
                .orElseThrow(() -> new NotFound("There is no such reading."));
        int shown = reading.km() + history.offsetOn(reading.date());
        ReadingChain others = ReadingChain.of(
                history.facts(usage(vehicle)).allReadings().stream()
                        .filter(r -> r.date().isBefore(reading.date())
                                || (r.date().equals(reading.date()) && r.id() < readingId))
                        .toList(),
                settings.get().odometer());
        int offset = others.offsetOfReplacement(reading.date(), shown)
                .orElseThrow(() -> new InvalidInput(
                        "/readingId",
                        "%s is not less than the readings before it lead one to expect, so no new odometer explains it."
                                .formatted(words.km(reading.km()))));
        histories.addReplacement(
                vehicleId,
                new OdometerReplacement(
                        0, readingId, reading.date(), offset, current.get().name()),
                clock.instant());
        log.write(
                vehicleId,
                "odometer replaced",
                "",
                "from %s on, %s are added to what it shows".formatted(words.day(reading.date()), words.km(offset)));
        changed(vehicleId);
    }

    /** Takes that back. */
    @Transactional
    public void undoReplacement(long vehicleId, long readingId, int version) {
        Vehicle vehicle = get(vehicleId);
        if (!histories.undoReplacement(vehicleId, readingId)) {
            throw new NotFound("No new odometer is on file for this reading.");
        }
        touch(vehicle, version);
        log.write(vehicleId, "odometer replacement taken back", "", "");
        changed(vehicleId);
    }

    /** Notes a call. Its day to ask again takes the place of an earlier one. */
    @Transactional
    public void addCall(long vehicleId, String spokeWith, String note, Optional<LocalDate> askAgainOn) {
        get(vehicleId);
        new Checks()
                .text(spokeWith, 120, "/spokeWith", "Who was spoken with")
                .text(note, 400, "/note", "What was said")
                .that(
                        askAgainOn.filter(d -> !d.isAfter(clock.today())).isEmpty(),
                        "/askAgainOn",
                        "The day to ask again must lie after today.")
                .orThrow();
        CallNote call = new CallNote(
                0,
                clock.today(),
                spokeWith.strip(),
                note.strip(),
                askAgainOn,
                current.get().name());
        histories.addCall(vehicleId, call, clock.instant());
        log.write(
                vehicleId,
                "call with " + call.spokeWith(),
                "",
                call.note()
                        + askAgainOn.map(d -> "; ask again on " + words.day(d)).orElse(""));
        changed(vehicleId);
    }

    /** Notes that the owner does not want the work for now, and the words in which the risk was told. */
    @Transactional
    public void addDecline(long vehicleId, String declinedBy, String told, LocalDate until) {
        get(vehicleId);
        new Checks()
                .text(declinedBy, 120, "/declinedBy", "Who declined")
                .text(told, 400, "/told", "The words in which the risk was told")
                .that(until.isAfter(clock.today()), "/until", "The decline must end after today.")
                .that(
                        !until.isAfter(clock.today().plusYears(2)),
                        "/until",
                        "A decline holds two years at most; then it is time to ask again.")
                .orThrow();
        histories.addDecline(
                vehicleId,
                new StandingDecline(
                        0,
                        clock.today(),
                        declinedBy.strip(),
                        told.strip(),
                        until,
                        Optional.empty(),
                        current.get().name()),
                clock.instant());
        log.write(
                vehicleId,
                "declined by " + declinedBy.strip(),
                "",
                "until %s; told: %s".formatted(words.day(until), told.strip()));
        changed(vehicleId);
    }

    /** Notes that a decline no longer stands. */
    @Transactional
    public void withdrawDecline(long vehicleId, long declineId) {
        get(vehicleId);
        if (!histories.withdrawDecline(vehicleId, declineId, clock.today())) {
            throw new NotFound("There is no such decline.");
        }
        log.write(vehicleId, "decline withdrawn", "", "");
        changed(vehicleId);
    }

    /** Brings the vehicle's next job forward to a month before that of its act-by day, {@code from}. */
    @Transactional
    public void bringForward(long vehicleId, YearMonth month, LocalDate from) {
        get(vehicleId);
        histories.bringForward(
                vehicleId, new BroughtForward(month, from), current.get().name(), clock.instant());
        log.write(vehicleId, "brought forward to level the fleet's months", words.day(from), words.month(month));
        changed(vehicleId);
    }

    /**
     * Takes that back.
     *
     * @throws NotFound where it is not brought forward
     */
    @Transactional
    public void leaveInItsMonth(long vehicleId) {
        get(vehicleId);
        if (!histories.leaveInItsMonth(vehicleId)) {
            throw new NotFound("It is not brought forward any more.");
        }
        log.write(vehicleId, "no longer brought forward", "", "");
        changed(vehicleId);
    }

    /**
     * Replaces what is on file of a vehicle; {@code after.version()} is the one it was read with.
     *
     * @throws InvalidInput where the registration belongs to another vehicle
     * @throws Conflict where somebody else changed it first
     */
    @Transactional
    public void change(Vehicle after, String what) {
        Vehicle before = get(after.id());
        vehicles.findByKey(Registration.key(after.registration()))
                .filter(other -> other.id() != after.id())
                .ifPresent(other -> {
                    throw new InvalidInput("/registration", "%s is already on file.".formatted(other.registration()));
                });
        if (!vehicles.update(after, owners.of(after, Optional.of(before)))) {
            throw conflict(before);
        }
        int digits = settings.get().currencyDigits();
        log.write(
                after.id(),
                what,
                VehicleWords.differences(before, after, digits),
                VehicleWords.differences(after, before, digits));
        changed(after.id());
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

    /** Tells whoever keeps forecasts; a list that is taken in tells of all its vehicles at once. */
    private void changed(long vehicleId) {
        if (!made.isGathered()) {
            events.publishEvent(new VehicleChanged(vehicleId));
        }
    }

    private static String names(Set<Condition> conditions) {
        return conditions.isEmpty()
                ? "none"
                : conditions.stream().sorted().map(Condition::words).collect(Collectors.joining(", "));
    }
}
