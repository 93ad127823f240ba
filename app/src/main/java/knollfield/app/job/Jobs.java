package knollfield.app.job;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.log.VehicleLog;
import knollfield.app.parts.Catalogue;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.bundle.Bundle;
import knollfield.core.bundle.BundleLine;
import knollfield.core.bundle.BundlePlan;
import knollfield.core.bundle.BundlePlanner;
import knollfield.core.bundle.BundleRules;
import knollfield.core.bundle.Decision;
import knollfield.core.bundle.Grade;
import knollfield.core.bundle.Labour;
import knollfield.core.due.JobStage;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.Part;
import knollfield.core.estimate.TimeFactor;
import knollfield.core.plan.Placement;
import knollfield.core.plan.PlacementRules;
import knollfield.core.plan.WorkCalendar;
import knollfield.core.risk.Consequence;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Building and booking jobs. */
@Service
public class Jobs {

    /** So many past jobs of a family say how long the workshop takes. */
    private static final int PAST_JOBS = 50;

    private final JobRepository jobs;
    private final VehicleService vehicles;
    private final Forecasts forecasts;
    private final EngineBook book;
    private final People people;
    private final VehicleLog log;
    private final WorkshopClock clock;
    private final WorkshopSettings settings;
    private final Catalogue catalogue;

    Jobs(
            JobRepository jobs,
            VehicleService vehicles,
            Forecasts forecasts,
            EngineBook book,
            People people,
            VehicleLog log,
            WorkshopClock clock,
            WorkshopSettings settings,
            Catalogue catalogue) {
        this.jobs = jobs;
        this.vehicles = vehicles;
        this.forecasts = forecasts;
        this.book = book;
        this.people = people;
        this.log = log;
        this.clock = clock;
        this.settings = settings;
        this.catalogue = catalogue;
    }

    public Job get(long id) {
        return jobs.find(id).orElseThrow(() -> new NotFound("There is no job " + id + "."));
    }

    public List<Job> ofVehicle(long vehicleId) {
        return jobs.ofVehicle(vehicleId);
    }

    /** Open jobs and those done in the last {@code days} days. */
    public List<Job> current(int days) {
        return jobs.openAndDoneSince(clock.today().minusDays(days));
    }

    /** The book the job was built on, with its settled variants. */
    public EngineFamily family(Job job) {
        return book.get(job.familyCode(), job.familyVersion())
                .settled(job.scope().variants());
    }

    public VehicleState state(Job job) {
        return forecasts
                .find(job.vehicleId())
                .orElseThrow(() -> new NotFound("There is no vehicle " + job.vehicleId() + "."));
    }

    /** What goes into {@code job} as things stand now. */
    public Bundle bundle(Job job) {
        return plan(job).bundle();
    }

    /** The same with what each line costs now and later, and what each school would do. */
    public BundlePlan plan(Job job) {
        EngineFamily family = family(job);
        VehicleState state = state(job);
        Workshop workshop = settings.get();
        Consequence consequence = state.consequence()
                .orElseGet(() ->
                        Consequence.of(family, state.vehicle().valueMinor(), state.plannedMinor(), workshop.costs()));
        return BundlePlanner.plan(
                family,
                job.stage() == JobStage.DONE ? before(job, state) : forecasts.forBundle(state),
                job.stage() == JobStage.DONE ? asDone(job, family) : scope(job, family),
                new BundlePlanner.Outlook(
                        state.forecast(),
                        state.facts().firstRegistered(),
                        workshop.wearModels(),
                        consequence,
                        workshop.labourRateMinor(),
                        job.scope().keptUntil()));
    }

    /** The vehicle as it came to a job that is done: without what the job itself renewed. */
    private BundleRules.Vehicle before(Job job, VehicleState state) {
        VehicleHistory h = state.history();
        VehicleHistory then = new VehicleHistory(
                h.vehicle(),
                h.readings(),
                h.renewals().stream()
                        .filter(r -> !r.jobId().equals(Optional.of(job.id())))
                        .toList(),
                h.evidence(),
                h.trips(),
                h.replacements(),
                h.calls(),
                h.declines());
        BundleRules.Vehicle now = forecasts.forBundle(state);
        return new BundleRules.Vehicle(
                now.equipment(),
                then.facts(state.facts().usage()).starts(),
                now.evidence(),
                now.today(),
                now.odometerKm());
    }

    /** A job that is done holds what was renewed in it, whatever the rules say today. */
    private BundleRules.Scope asDone(Job job, EngineFamily family) {
        BundleRules.Scope scope = scope(job, family);
        Map<String, Decision> done = new HashMap<>();
        for (Item item : family.items()) {
            done.put(item.code(), new Decision(job.items().contains(item.code()), "", ""));
        }
        return new BundleRules.Scope(
                scope.purpose(), scope.school(), scope.seals(), done, scope.parts(), scope.ownerSupplied());
    }

    private BundleRules.Scope scope(Job job, EngineFamily family) {
        JobScope scope = job.scope();
        Workshop workshop = settings.get();
        Map<String, Part> parts = new HashMap<>();
        scope.parts()
                .forEach((item, number) -> catalogue
                        .find(number)
                        .ifPresent(p -> parts.put(item, new Part(p.number(), p.name(), 1, p.priceMinor()))));
        return new BundleRules.Scope(
                scope.purpose().isEmpty() ? Set.of(family.driveItem().code()) : scope.purpose(),
                scope.school().orElse(workshop.school()),
                scope.seals().orElse(workshop.seals()),
                scope.decisions(),
                parts,
                scope.ownerSupplied());
    }

    /** Number of the part that is fitted as {@code item}. */
    String fitted(Job job, Item item) {
        return Optional.ofNullable(job.scope().parts().get(item.code()))
                .orElse(item.part().number());
    }

    /** The items of {@code job}: as fixed at check-in, before that as the rules have them now. */
    public Set<String> items(Job job) {
        return job.items().isEmpty() ? bundle(job).items() : job.items();
    }

    /** This workshop's time for the family against the book's, from jobs whose hours are on file. */
    public double timeFactor(String familyCode) {
        return TimeFactor.of(jobs.withActual(familyCode, PAST_JOBS).stream()
                .map(j -> new TimeFactor.Past(
                        Labour.of(family(j), state(j).vehicle().equipment(), items(j))
                                .minutes(),
                        j.actual().orElseThrow().minutes()))
                .toList());
    }

    List<Bay> bays() {
        return jobs.bays();
    }

    List<Job> booked(LocalDateTime from, LocalDateTime to) {
        return jobs.booked(from, to);
    }

    /**
     * Starts a job for a vehicle.
     *
     * @throws Conflict where one is open already
     * @throws InvalidInput where its engine family is not on file
     */
    @Transactional
    public long create(long vehicleId) {
        jobs.lockBoard();
        Vehicle vehicle = vehicles.get(vehicleId);
        jobs.ofVehicle(vehicleId).stream()
                .filter(j -> j.stage().isOpen())
                .findFirst()
                .ifPresent(j -> {
                    throw new Conflict(
                            "%s already has an open job, number %d.".formatted(vehicle.registration(), j.id()));
                });
        VersionedFamily family = vehicle.familyCode()
                .flatMap(book::find)
                .orElseThrow(() -> new InvalidInput(
                        "/vehicle",
                        "%s has no engine family on file; settle it first.".formatted(vehicle.registration())));
        long id = jobs.add(vehicleId, family.family().code(), family.version());
        log.write(vehicleId, "job started", "", "job " + id);
        return id;
    }

    /**
     * Builds the job anew under {@code scope}. A job at the bench may only grow.
     *
     * @throws InvalidInput where the scope refers to what is not there, or breaks a rule without its reason
     * @throws Conflict where the job was changed meanwhile, or would lose a line at the bench
     */
    @Transactional
    public void change(long jobId, JobScope scope, int version) {
        jobs.lockBoard();
        Job job = get(jobId);
        if (job.stage() != JobStage.UNDER_WAY) {
            job = editable(jobId, version);
        } else if (job.version() != version) {
            throw changedMeanwhile(job);
        }
        check(job, scope);
        Job changed = job.with(scope);
        Set<String> before = items(job);
        Set<String> after = bundle(changed).items();
        if (job.stage() == JobStage.UNDER_WAY) {
            if (!after.containsAll(before)) {
                throw new Conflict(
                        "Job %d is at the bench; a line can be added there, but none taken out.".formatted(jobId));
            }
            save(changed.with(after), job);
        } else {
            // a booked job that grows must still fit where it stands
            Optional<Job.Booking> moved = job.booking()
                    .map(b -> place(
                            changed,
                            b.technicianId(),
                            b.bayId(),
                            b.start().toLocalDate(),
                            b.start().toLocalTime()));
            save(changed.with(job.stage(), moved), job);
        }
        log.write(job.vehicleId(), "bundle of job " + jobId, sorted(before), sorted(after));
    }

    /** Lets {@code decision} stand for one item, as {@link #change}. */
    @Transactional
    public void decide(long jobId, String item, Decision decision) {
        Job job = get(jobId);
        change(jobId, job.scope().with(item, decision), job.version());
    }

    private void check(Job job, JobScope scope) {
        EngineFamily family = book.get(job.familyCode(), job.familyVersion());
        Checks checks = new Checks();
        known(checks, family, scope.purpose(), "/purpose");
        known(checks, family, scope.decisions().keySet(), "/decisions");
        known(checks, family, scope.parts().keySet(), "/parts");
        known(checks, family, scope.ownerSupplied(), "/ownerSupplied");
        checks.that(scope.toolHireMinor() >= 0, "/toolHireMinor", "Must be zero or more.");
        scope.keptUntil()
                .ifPresent(d -> checks.that(
                        !d.isBefore(clock.today()), "/keptUntil", "The day lies in the past; leave it open instead."));
        scope.parts()
                .forEach((item, number) -> checks.that(
                        catalogue
                                .find(number)
                                .filter(p -> p.familyCode().equals(family.code())
                                        && p.itemCode().equals(item))
                                .isPresent(),
                        "/parts/" + item,
                        "Part %s is not on file for this item.".formatted(number)));
        scope.parts()
                .forEach((item, number) -> checks.that(
                        family.item(item).flatMap(Item::halfOf).isEmpty()
                                || catalogue
                                        .find(number)
                                        .filter(p -> p.grade() == Grade.Kind.ORIGINAL)
                                        .isPresent(),
                        "/parts/" + item,
                        "A front half alone is only fitted as the original maker's part."));
        scope.variants()
                .forEach((variant, choice) -> checks.that(
                        family.variants().stream()
                                .anyMatch(v -> v.code().equals(variant)
                                        && v.choice(choice).isPresent()),
                        "/variants/" + variant,
                        "%s has no such choice.".formatted(family.name())));
        checks.orThrow();
        Map<String, BundlePlan.Line> plain = plan(job.with(new JobScope(
                        scope.purpose(),
                        scope.school(),
                        scope.seals(),
                        scope.keptUntil(),
                        Map.of(),
                        scope.parts(),
                        scope.ownerSupplied(),
                        scope.variants(),
                        scope.toolHireMinor())))
                .byCode();
        scope.decisions().forEach((item, decision) -> {
            BundlePlan.Line line = plain.get(item);
            if (line == null) {
                return;
            }
            boolean required = line.line().rule() == BundleLine.Rule.REQUIRED;
            boolean excluded = line.line().rule() == BundleLine.Rule.EXCLUDED;
            checks.that(
                    !(required && !decision.in() && decision.reason().isBlank()),
                    "/decisions/%s/reason".formatted(item),
                    "%s is required; leaving it needs a reason."
                            .formatted(line.line().name()));
            checks.that(
                    !(required
                            && !decision.in()
                            && line.reusable()
                            && decision.inspection().isBlank()),
                    "/decisions/%s/inspection".formatted(item),
                    "Reusing it needs what the inspection found.");
            checks.that(
                    !(excluded && decision.in() && decision.reason().isBlank()),
                    "/decisions/%s/reason".formatted(item),
                    "The rules leave %s out; taking it in needs a reason."
                            .formatted(line.line().name()));
        });
        checks.orThrow();
    }

    private static void known(Checks checks, EngineFamily family, Set<String> items, String pointer) {
        items.stream()
                .filter(i -> family.item(i).isEmpty())
                .forEach(i -> checks.that(false, pointer, "%s has no item %s.".formatted(family.name(), i)));
    }

    private static String sorted(Set<String> items) {
        return String.join(", ", items.stream().sorted().toList());
    }

    /** Says what a signed job took; estimates of its family learn from it. */
    @Transactional
    public void actual(long jobId, Job.Actual actual, int version) {
        Job job = get(jobId);
        if (job.stage() != JobStage.DONE) {
            throw new Conflict("Job %d is not signed yet; what it took is known then.".formatted(jobId));
        }
        if (job.version() != version) {
            throw changedMeanwhile(job);
        }
        new Checks()
                .that(
                        actual.minutes() > 0 && actual.minutes() <= 10_000,
                        "/minutes",
                        "The time must be above zero and at most 166 hours.")
                .that(actual.partsMinor() >= 0, "/partsMinor", "Parts must be zero or more.")
                .orThrow();
        save(job.with(actual), job);
        log.write(
                job.vehicleId(),
                "actual cost of job " + jobId,
                job.actual().map(a -> a.minutes() + " min").orElse(""),
                actual.minutes() + " min");
    }

    /** Takes the newest version of the book for a job that is not at the bench yet. */
    @Transactional
    public void takeNewestBook(long jobId, int version) {
        Job job = editable(jobId, version);
        VersionedFamily newest = book.find(job.familyCode())
                .orElseThrow(() -> new NotFound("Engine family %s is not on file.".formatted(job.familyCode())));
        if (newest.version() == job.familyVersion()) {
            throw new Conflict("Job %d is built on the newest book already.".formatted(jobId));
        }
        save(job.onBook(newest.version()), job);
        log.write(
                job.vehicleId(),
                "book of job " + jobId,
                "version " + job.familyVersion(),
                "version " + newest.version());
    }

    /**
     * Gives the job its place.
     *
     * @throws InvalidInput with every rule the place would break
     */
    @Transactional
    public void book(long jobId, long technicianId, long bayId, LocalDate day, LocalTime time, int version) {
        jobs.lockBoard();
        Job job = editable(jobId, version);
        Job.Booking booking = place(job, technicianId, bayId, day, time);
        save(job.with(JobStage.PLANNED, Optional.of(booking)), job);
        log.write(job.vehicleId(), "job " + jobId + " promised", "", booking.start() + " to " + booking.end());
    }

    /** Takes the job off the board. */
    @Transactional
    public void unbook(long jobId, int version) {
        Job job = editable(jobId, version);
        save(job.with(JobStage.DRAFT, Optional.empty()), job);
        log.write(job.vehicleId(), "job " + jobId + " taken off the board", "", "");
    }

    /** Gives the job up; it stays in the vehicle's history. */
    @Transactional
    public void cancel(long jobId, int version) {
        Job job = editable(jobId, version);
        save(job.with(JobStage.CANCELLED, Optional.empty()), job);
        log.write(job.vehicleId(), "job " + jobId + " given up", "", "");
    }

    private Job.Booking place(Job job, long technicianId, long bayId, LocalDate day, LocalTime time) {
        Person technician = people.technicians().stream()
                .filter(p -> p.id() == technicianId)
                .findFirst()
                .orElseThrow(() -> new InvalidInput("/technicianId", "Choose a technician."));
        Bay bay = jobs.bays().stream()
                .filter(b -> b.id() == bayId)
                .findFirst()
                .orElseThrow(() -> new InvalidInput("/bayId", "Choose a bay."));
        int slot = WorkCalendar.slotAt(time)
                .orElseThrow(() -> new InvalidInput(
                        "/time", "A job starts on a half-hour from 08:00 to 11:30 or 13:00 to 16:30."));
        if (technician.workingDays().isEmpty()) {
            throw new InvalidInput("/technicianId", technician.name() + " has no working days on file.");
        }
        WorkCalendar calendar = new WorkCalendar(technician.workingDays());
        LocalDateTime start = day.atTime(time);
        LocalDateTime end = calendar.end(day, slot, bundle(job).labour().minutes());
        Vehicle vehicle = state(job).history().vehicle();
        Placement placement = new Placement(job.id(), technicianId, bayId, start, end);
        List<PlacementRules.Broken> broken = PlacementRules.check(
                needs(job, vehicle),
                placement,
                new PlacementRules.Technician(technician.id(), technician.name(), technician.skills(), calendar),
                new PlacementRules.Bay(bay.id(), bay.name(), bay.liftClass()),
                board(day.atStartOfDay(), end.toLocalDate().plusDays(1).atStartOfDay()),
                clock.now());
        if (!broken.isEmpty()) {
            throw new InvalidInput(broken.stream()
                    .map(b -> new FieldProblem(
                            switch (b.rule()) {
                                case SKILL, TECHNICIAN_BUSY -> "/technicianId";
                                case BAY_CLASS, BAY_BUSY -> "/bayId";
                                case IN_THE_PAST, DAY_OFF, TOOL_SET_BUSY, FLEET_CAP -> "/day";
                            },
                            b.words()))
                    .toList());
        }
        return new Job.Booking(technicianId, bayId, start, end);
    }

    private PlacementRules.Needs needs(Job job, Vehicle vehicle) {
        return new PlacementRules.Needs(
                job.id(),
                family(job).drive(),
                vehicle.liftClass(),
                job.familyCode(),
                book.toolSetCopies(job.familyCode()),
                vehicle.fleet().map(f -> new PlacementRules.FleetCap(f.id(), f.name(), f.offRoadCap())));
    }

    private List<PlacementRules.Booked> board(LocalDateTime from, LocalDateTime to) {
        return jobs.booked(from, to).stream()
                .filter(j -> j.stage().isOpen())
                .flatMap(j -> j.booking().stream().map(b -> {
                    Vehicle v = state(j).history().vehicle();
                    return new PlacementRules.Booked(
                            new Placement(j.id(), b.technicianId(), b.bayId(), b.start(), b.end()),
                            v.registration(),
                            j.familyCode(),
                            v.fleet().map(f -> f.id()));
                }))
                .toList();
    }

    private Job editable(long jobId, int version) {
        Job job = get(jobId);
        if (job.stage() != JobStage.DRAFT && job.stage() != JobStage.PLANNED) {
            throw new Conflict("Job %d is %s; it can no longer be changed here."
                    .formatted(jobId, job.stage() == JobStage.UNDER_WAY ? "under way" : "closed"));
        }
        if (job.version() != version) {
            throw changedMeanwhile(job);
        }
        return job;
    }

    private void save(Job changed, Job before) {
        if (!jobs.update(changed)) {
            throw changedMeanwhile(before);
        }
    }

    private Conflict changedMeanwhile(Job job) {
        String last = log.newest(job.vehicleId(), 1).stream()
                .map(l -> "%s: %s%s".formatted(l.by(), l.what(), l.after().isEmpty() ? "" : ", " + l.after()))
                .findFirst()
                .orElse("somebody changed it");
        return new Conflict(
                "Job %d was changed while you were at it (%s). Yours was not saved.".formatted(job.id(), last));
    }
}
