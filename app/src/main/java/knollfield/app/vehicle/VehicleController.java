package knollfield.app.vehicle;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.FamilyRules;
import knollfield.app.problem.Checks;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.Timings;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.due.ClockStart;
import knollfield.core.due.Condition;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.Policy;
import knollfield.core.due.UseState;
import knollfield.core.identity.Vin;
import knollfield.core.matching.FamilyRule;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Adding a vehicle and changing one. */
@RestController
@RequestMapping("/api/vehicles")
class VehicleController {

    /** Characters of a paper's number, or a name. */
    private static final int SHORTEST_PROOF = 3;

    private final VehicleService vehicles;
    private final EngineBook book;
    private final FamilyRules rules;
    private final WorkshopSettings settings;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    VehicleController(
            VehicleService vehicles,
            EngineBook book,
            FamilyRules rules,
            WorkshopSettings settings,
            CurrentPerson current,
            WorkshopClock clock) {
        this.vehicles = vehicles;
        this.book = book;
        this.rules = rules;
        this.settings = settings;
        this.current = current;
        this.clock = clock;
    }

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
            int version) {}

    @PostMapping
    Stored add(@RequestBody VehicleDetails d) {
        Vehicle typed = vehicle(d, Optional.empty());
        Set<String> fitting = typed.familyCode().isPresent()
                ? Set.of()
                : rules.families(new FamilyRule.Described(
                        typed.makeModel(),
                        typed.engine(),
                        typed.firstRegistered().getYear()));
        Vehicle vehicle = fitting.size() == 1
                ? typed.described(typed.engine(), fitting.stream().findFirst())
                : typed;
        List<String> said = new ArrayList<>(warnings(vehicle));
        if (fitting.size() == 1) {
            said.add("Its engine family is %s, by your matching rules."
                    .formatted(fitting.iterator().next()));
        } else if (fitting.size() > 1) {
            said.add("Your matching rules give it several engine families: %s. It was filed without one."
                    .formatted(String.join(", ", fitting)));
        }
        return new Stored(vehicles.add(vehicle, "added by hand"), said);
    }

    @GetMapping("/{id}/details")
    VehicleDetails details(@PathVariable long id) {
        Vehicle v = vehicles.get(id);
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

    @PutMapping("/{id}/details")
    Stored change(@PathVariable long id, @RequestBody VehicleDetails d) {
        Vehicle vehicle = vehicle(d, Optional.of(vehicles.get(id)));
        vehicles.change(vehicle, "details");
        return new Stored(id, warnings(vehicle));
    }

    /** What looks odd about a VIN as it is typed; empty where nothing does. */
    @GetMapping("/vin-warning")
    List<String> vinWarning(@RequestParam String vin) {
        return VinWarning.of(vin).stream().toList();
    }

    @PostMapping("/{id}/readings")
    Recorded addReading(@PathVariable long id, @RequestBody NewReading r) {
        return new Recorded(vehicles.addReading(id, r.date(), r.value(), r.unit(), r.source(), r.insist()));
    }

    @PutMapping("/{id}/readings/{readingId}/mark")
    void markReading(@PathVariable long id, @PathVariable long readingId, @RequestBody ReadingMark mark) {
        vehicles.markReading(id, readingId, mark.wrong(), mark.version());
    }

    @PostMapping("/{id}/readings/{readingId}/replacement")
    void replaceOdometer(@PathVariable long id, @PathVariable long readingId, @RequestBody Version body) {
        vehicles.replaceOdometer(id, readingId, body.version());
    }

    @DeleteMapping("/{id}/readings/{readingId}/replacement")
    void undoReplacement(@PathVariable long id, @PathVariable long readingId, @RequestParam int version) {
        vehicles.undoReplacement(id, readingId, version);
    }

    @PutMapping("/{id}/conditions")
    void setConditions(@PathVariable long id, @RequestBody Conditions body) {
        vehicles.setConditions(id, body.conditions(), body.version());
    }

    @PutMapping("/{id}/state")
    void setState(@PathVariable long id, @RequestBody StateChange body) {
        LocalDate since = body.since();
        boolean inUse = body.state() == UseState.Kind.IN_USE;
        new Checks()
                .that(inUse || since != null, "/since", "Since when?")
                .that(since == null || !since.isAfter(clock.today()), "/since", "That day lies in the future.")
                .orThrow();
        UseState state = inUse ? UseState.inUse() : new UseState(body.state(), Optional.ofNullable(since));
        Vehicle v = vehicles.get(id);
        vehicles.change(v.with(state, v.idleHoursPerYear(), v.own(), body.version()), "state");
    }

    @PutMapping("/{id}/own-timing")
    void setOwnTiming(@PathVariable long id, @RequestBody OwnTiming body) {
        Vehicle v = vehicles.get(id);
        if (body.kind() == null) {
            vehicles.change(v.with(v.state(), v.idleHoursPerYear(), Optional.empty(), body.version()), "own timing");
            return;
        }
        double share = body.share() == null ? 1 : body.share();
        Timings.check(
                        new Checks(),
                        body.kind(),
                        share,
                        body.km(),
                        body.months(),
                        new Timings.Pointers("/share", "/km", "/months"))
                .text(body.reason(), 200, "/reason", "The reason")
                .orThrow();
        Policy.Own own = new Policy.Own(
                Timings.of(body.kind(), share, body.km(), body.months()),
                Optional.ofNullable(body.reason()).orElse("").strip());
        vehicles.change(v.with(v.state(), v.idleHoursPerYear(), Optional.of(own), body.version()), "own timing");
    }

    @PostMapping("/{id}/renewals")
    void addRenewal(@PathVariable long id, @RequestBody NewRenewal r) {
        String proof = Optional.ofNullable(r.proof()).orElse("").strip();
        new Checks()
                .text(r.item(), 30, "/item", "The item")
                .that(r.km() >= 0, "/km", "The odometer must be zero or more.")
                .that(
                        r.grade() == ClockStart.Grade.STATED || proof.length() >= SHORTEST_PROOF,
                        "/proof",
                        "Documented by what? The number of the paper, or who saw it. Where there is none, the owner states it.")
                .that(proof.length() <= 120, "/proof", "The proof has at most 120 characters.")
                .orThrow();
        Renewal renewal = new Renewal(
                r.item(),
                r.date(),
                r.km(),
                r.grade(),
                Optional.ofNullable(r.part()).orElse(""),
                "",
                proof,
                Boolean.TRUE.equals(r.betterPart()),
                Optional.empty(),
                current.get().name());
        ReadingSource source = Optional.ofNullable(r.source())
                .orElse(r.grade() == ClockStart.Grade.STATED ? ReadingSource.CUSTOMER : ReadingSource.CERTIFICATE);
        vehicles.addRenewal(id, renewal, r.countsAsReading(), source);
    }

    @PostMapping("/{id}/evidence")
    void addEvidence(@PathVariable long id, @RequestBody NewEvidence e) {
        Optional<String> item = Optional.ofNullable(e.item()).filter(i -> !i.isBlank());
        item.ifPresent(code -> new Checks()
                .that(
                        vehicles.get(id)
                                .familyCode()
                                .flatMap(book::find)
                                .flatMap(f -> f.family().item(code))
                                .isPresent(),
                        "/item",
                        "This engine has no item \"%s\".".formatted(code))
                .orThrow());
        vehicles.addEvidence(
                id,
                new Evidence(
                        e.kind(),
                        e.found(),
                        Optional.ofNullable(e.confidence()).orElse(Evidence.Confidence.SEEN),
                        item),
                "workshop",
                Optional.ofNullable(e.note()).orElse("").strip());
    }

    @PostMapping("/{id}/evidence/{evidenceId}/withdrawal")
    void withdrawEvidence(@PathVariable long id, @PathVariable long evidenceId, @RequestBody Withdrawal body) {
        vehicles.withdrawEvidence(id, evidenceId, body.why());
    }

    @PostMapping("/{id}/trips")
    void addTrip(@PathVariable long id, @RequestBody NewTrip t) {
        new Checks()
                .that(!t.to().isBefore(t.from()), "/to", "The trip ends before it starts.")
                .that(t.to().isAfter(clock.today()), "/to", "A known trip lies ahead; this one is over.")
                .that(
                        t.extraKm() > 0 && t.extraKm() <= 200_000,
                        "/extraKm",
                        "The extra distance must be 1 to 200,000 km.")
                .orThrow();
        vehicles.addTrip(id, new KnownTrip(t.from(), t.to(), t.extraKm()));
    }

    @DeleteMapping("/{id}/trips/{tripId}")
    void cancelTrip(@PathVariable long id, @PathVariable long tripId) {
        vehicles.cancelTrip(id, tripId);
    }

    @PostMapping("/{id}/calls")
    void addCall(@PathVariable long id, @RequestBody NewCall c) {
        vehicles.addCall(id, c.spokeWith(), c.note(), Optional.ofNullable(c.askAgainOn()));
    }

    @PostMapping("/{id}/declines")
    void addDecline(@PathVariable long id, @RequestBody NewDecline d) {
        vehicles.addDecline(id, d.declinedBy(), d.told(), d.until());
    }

    @PostMapping("/{id}/declines/{declineId}/withdrawal")
    void withdrawDecline(@PathVariable long id, @PathVariable long declineId) {
        vehicles.withdrawDecline(id, declineId);
    }

    private Vehicle vehicle(VehicleDetails d, Optional<Vehicle> before) {
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

    private static List<String> warnings(Vehicle v) {
        return v.vin().flatMap(VinWarning::of).stream().toList();
    }
}
