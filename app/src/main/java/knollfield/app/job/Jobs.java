package knollfield.app.job;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.TextStyle;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.log.VehicleLog;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.bundle.Bundle;
import knollfield.core.bundle.Decision;
import knollfield.core.bundle.Labour;
import knollfield.core.bundle.School;
import knollfield.core.due.JobStage;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.estimate.TimeFactor;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Building and booking jobs. */
@Service
public class Jobs {

    /** So many past jobs of a family say how long the workshop takes. */
    private static final int PAST_JOBS = 50;

    private final JobRepository jobs;
    private final VehicleService vehicles;
    private final EngineBook book;
    private final VehicleLog log;
    private final WorkshopClock clock;
    private final JobBuilds builds;
    private final WorkshopSettings settings;
    private final Map<Long, Kept> outlines = new ConcurrentHashMap<>();
    private final ApplicationEventPublisher events;

    Jobs(
            JobRepository jobs,
            VehicleService vehicles,
            EngineBook book,
            VehicleLog log,
            WorkshopClock clock,
            JobBuilds builds,
            WorkshopSettings settings,
            ApplicationEventPublisher events) {
        this.jobs = jobs;
        this.vehicles = vehicles;
        this.book = book;
        this.log = log;
        this.clock = clock;
        this.builds = builds;
        this.settings = settings;
        this.events = events;
    }

    public Job get(long id) {
        return jobs.find(id).orElseThrow(() -> new NotFound("There is no job " + id + "."));
    }

    public Optional<Job> find(long id) {
        return jobs.find(id);
    }

    public List<Job> ofVehicle(long vehicleId) {
        return jobs.ofVehicle(vehicleId);
    }

    /** Open jobs and those done in the last {@code days} days. */
    public List<Job> current(int days) {
        return jobs.openAndDoneSince(clock.today().minusDays(days));
    }

    public EngineFamily family(Job job) {
        return builds.family(job);
    }

    public VehicleState state(Job job) {
        return builds.state(job);
    }

    /** What goes into {@code job} as things stand now. */
    public Bundle bundle(Job job) {
        return builds.plan(job).bundle();
    }

    /**
     * What planning needs to know of a job.
     *
     * @param minutes this workshop will need: the book's labour by its own time factor
     * @param helperMinutes of a second pair of hands
     * @param partNumbers fitted as each of its items; what the owner brings is left out
     */
    public record Outline(int minutes, int helperMinutes, Map<String, String> partNumbers) {}

    /** An outline and what it was worked out from. */
    private record Kept(Job job, VehicleState state, Workshop workshop, Outline outline) {

        boolean stillHolds(Job other, VehicleState now, Workshop figures) {
            return job.scope().equals(other.scope())
                    && job.items().equals(other.items())
                    && job.familyVersion() == other.familyVersion()
                    && state == now
                    && workshop == figures;
        }
    }

    /** The outline of {@code job}; kept until something it rests on changes, as the whole board is asked for it often. */
    public Outline outline(Job job) {
        VehicleState state = state(job);
        Workshop workshop = settings.get();
        Kept kept = outlines.get(job.id());
        if (kept != null && kept.stillHolds(job, state, workshop)) {
            return kept.outline;
        }
        if (job.scope().isInspection()) {
            return new Outline(job.scope().inspectionMinutes().getAsInt(), 0, Map.of());
        }
        EngineFamily family = family(job);
        Bundle bundle = bundle(job);
        Map<String, String> numbers = new TreeMap<>();
        for (String item : job.items().isEmpty() ? bundle.items() : job.items()) {
            family.item(item)
                    .filter(i -> !job.scope().ownerSupplied().contains(item))
                    .ifPresent(i -> numbers.put(item, builds.fitted(job, i)));
        }
        Outline made = new Outline(
                (int) Math.round(bundle.labour().minutes() * timeFactor(job.familyCode())),
                bundle.labour().helperMinutes(),
                Map.copyOf(numbers));
        outlines.put(job.id(), new Kept(job, state, workshop, made));
        return made;
    }

    /** Number of the part that is fitted as {@code item}. */
    public String fittedPart(Job job, Item item) {
        return builds.fitted(job, item);
    }

    /** Codes of the items the job is for. */
    public Set<String> purpose(Job job) {
        return builds.purpose(job);
    }

    /** The items of {@code job}: as fixed at check-in, before that as the rules have them now. */
    public Set<String> items(Job job) {
        return job.items().isEmpty() ? bundle(job).items() : job.items();
    }

    /** This workshop's time for the family against the book's, from jobs whose hours are on file. */
    public double timeFactor(String familyCode) {
        return TimeFactor.of(past(familyCode).stream()
                .map(j -> new TimeFactor.Past(
                        Labour.of(family(j), state(j).vehicle().equipment(), items(j))
                                .minutes(),
                        j.actual().orElseThrow().minutes()))
                .toList());
    }

    /** The newest jobs of a family whose hours are on file; inspections, which have no book time, are none of them. */
    public List<Job> past(String familyCode) {
        return jobs.withActual(familyCode, PAST_JOBS);
    }

    /** Bays that work is promised in. */
    public List<Bay> bays() {
        return jobs.bays().stream().filter(Bay::active).toList();
    }

    /** Every bay, also those given up, for jobs that were done there. */
    public List<Bay> everyBay() {
        return jobs.bays();
    }

    public List<Job> booked(LocalDateTime from, LocalDateTime to) {
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
        noOtherOpen(vehicle);
        VersionedFamily family = vehicle.familyCode()
                .flatMap(book::find)
                .orElseThrow(() -> new InvalidInput(
                        "/vehicle",
                        "%s has no engine family on file; settle it first.".formatted(vehicle.registration())));
        long id = jobs.add(vehicleId, family.family().code(), family.version());
        log.write(vehicleId, "job started", "", "job " + id);
        return id;
    }

    /** Longest time for a look that opens nothing, minutes. */
    private static final int LONGEST_LOOK = 8 * 60;

    /**
     * Starts an inspection of a vehicle: nothing is opened, and somebody decides what follows.
     *
     * @param minutes of one technician, 1 to 480
     * @throws Conflict as {@link #create}
     * @throws InvalidInput where the time is out of range, or the engine family is not on file
     */
    @Transactional
    public long createInspection(long vehicleId, int minutes) {
        checkLook(minutes, "/inspectionMinutes");
        long id = create(vehicleId);
        Job job = get(id);
        save(job.with(JobScope.inspection(minutes)), job);
        return id;
    }

    private static void checkLook(int minutes, String pointer) {
        new Checks()
                .that(minutes >= 1 && minutes <= LONGEST_LOOK, pointer, "An inspection takes 1 minute to 8 hours.")
                .orThrow();
    }

    /** Sets how long an inspection takes; its price and its place follow. */
    @Transactional
    public void inspectionLasts(long jobId, int minutes, int version) {
        checkLook(minutes, "/minutes");
        jobs.lockBoard();
        Job job = editable(jobId, version);
        if (!job.scope().isInspection()) {
            throw new Conflict("Job %d is no inspection.".formatted(jobId));
        }
        save(job.with(job.scope().looking(OptionalInt.of(minutes))), job);
        log.write(
                job.vehicleId(),
                "time of inspection " + jobId,
                job.scope().inspectionMinutes().getAsInt() + " min",
                minutes + " min");
        events.publishEvent(new JobResized(jobId));
    }

    private static Conflict renewsNothing(Job job) {
        return new Conflict("Job %d is an inspection and renews nothing; sign it and build a job for what it found."
                .formatted(job.id()));
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
        if (job.scope().isInspection()) {
            throw renewsNothing(job);
        }
        builds.check(job, scope);
        Job changed = job.with(scope);
        Set<String> before = items(job);
        Set<String> after = bundle(changed).items();
        if (job.stage() == JobStage.UNDER_WAY) {
            if (!after.containsAll(before)) {
                throw new Conflict(
                        "Job %d is at the bench; a line can be added there, but none taken out.".formatted(jobId));
            }
            save(changed.with(after), job);
            events.publishEvent(new JobWidened(jobId, added(before, after)));
        } else {
            save(changed, job);
        }
        log.write(job.vehicleId(), "bundle of job " + jobId, sorted(before), sorted(after));
        events.publishEvent(new JobResized(jobId));
    }

    private static Set<String> added(Set<String> before, Set<String> after) {
        return after.stream().filter(i -> !before.contains(i)).collect(Collectors.toUnmodifiableSet());
    }

    /**
     * Adds {@code items} to a job at the bench; the others stay as they are.
     *
     * @throws Conflict where the job is not at the bench
     * @throws InvalidInput for an item its engine does not have
     */
    @Transactional
    public void widen(long jobId, Set<String> items) {
        jobs.lockBoard();
        Job job = get(jobId);
        if (job.stage() != JobStage.UNDER_WAY) {
            throw new Conflict("Job %d is not at the bench.".formatted(jobId));
        }
        if (job.scope().isInspection()) {
            throw renewsNothing(job);
        }
        EngineFamily family = family(job);
        Set<String> before = items(job);
        if (items.isEmpty() || items.stream().anyMatch(i -> family.item(i).isEmpty())) {
            throw new InvalidInput("/items", "Choose items of this engine.");
        }
        Set<String> after = new HashSet<>(before);
        after.addAll(items);
        JobScope scope = job.scope();
        for (String item : items) {
            scope = scope.with(item, Decision.in("found at the bench"));
        }
        save(job.with(scope).with(after), job);
        log.write(job.vehicleId(), "added at the bench, job " + jobId, sorted(before), sorted(after));
        events.publishEvent(new JobWidened(jobId, added(before, after)));
        events.publishEvent(new JobResized(jobId));
    }

    /**
     * Takes items off the list of a job at the bench again.
     *
     * @param why as it stands in the vehicle's log, such as {@code left by the owner}
     */
    @Transactional
    public void takeOff(long jobId, Set<String> items, String why) {
        Job job = get(jobId);
        Set<String> left = new HashSet<>(items(job));
        left.removeAll(items);
        save(job.with(left), job);
        log.write(job.vehicleId(), "%s, job %d".formatted(why, jobId), sorted(items(job)), sorted(left));
        events.publishEvent(new JobResized(jobId));
    }

    /**
     * Starts a job that does a signed one again; the first keeps its record.
     *
     * @param items codes of what is opened again; empty: the belt or chain
     * @throws Conflict where the job is not signed, or another is open for the vehicle
     */
    @Transactional
    public long rework(long jobId, Set<String> items, String reason) {
        jobs.lockBoard();
        Job first = get(jobId);
        if (first.stage() != JobStage.DONE) {
            throw new Conflict("Job %d is not signed; go on with it instead.".formatted(jobId));
        }
        if (first.scope().isInspection()) {
            throw new Conflict("Job %d opened nothing; there is nothing to do again.".formatted(jobId));
        }
        EngineFamily family = family(first);
        new Checks()
                .text(reason, 400, "/reason", "What is wrong")
                .that(
                        items.stream().allMatch(i -> family.item(i).isPresent()),
                        "/items",
                        "Choose items of this engine.")
                .orThrow();
        noOtherOpen(vehicles.get(first.vehicleId()));
        JobScope scope = JobScope.usual();
        JobScope again = new JobScope(
                items,
                Optional.of(School.BOOK_MINIMUM),
                scope.seals(),
                scope.keptUntil(),
                scope.decisions(),
                first.scope().parts(),
                first.scope().ownerSupplied(),
                first.scope().variants(),
                0,
                OptionalInt.empty());
        long id = jobs.addRework(first, again, reason.strip());
        log.write(first.vehicleId(), "job %d comes back as job %d".formatted(jobId, id), "", reason.strip());
        return id;
    }

    private void noOtherOpen(Vehicle vehicle) {
        jobs.ofVehicle(vehicle.id()).stream()
                .filter(j -> j.stage().isOpen())
                .findFirst()
                .ifPresent(j -> {
                    throw new Conflict(
                            "%s already has an open job, number %d.".formatted(vehicle.registration(), j.id()));
                });
    }

    /** Lets {@code decision} stand for one item, as {@link #change}. */
    @Transactional
    public void decide(long jobId, String item, Decision decision) {
        Job job = get(jobId);
        change(jobId, job.scope().with(item, decision), job.version());
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
     * Puts the job where the board has checked that it may stand, or takes it off.
     *
     * @throws Conflict where it was changed meanwhile, or is at the bench or closed
     */
    @Transactional
    public void put(long jobId, Optional<Job.Booking> place, int version, String what) {
        Job job = editable(jobId, version);
        save(job.with(place.isPresent() ? JobStage.PLANNED : JobStage.DRAFT, place), job);
        log.write(
                job.vehicleId(),
                what,
                job.booking().map(Jobs::words).orElse(""),
                place.map(Jobs::words).orElse(""));
        events.publishEvent(new JobPlaced(jobId, job.vehicleId(), job.booking(), place));
    }

    /**
     * A job at the bench takes longer, or less long, than it was booked for.
     *
     * @param end of its work on the board
     */
    @Transactional
    public void lasts(long jobId, LocalDateTime end) {
        Job job = get(jobId);
        Optional<Job.Booking> now =
                job.booking().map(b -> new Job.Booking(b.technicianId(), b.bayId(), b.start(), end, b.promised()));
        if (job.stage() != JobStage.UNDER_WAY || now.equals(job.booking())) {
            return;
        }
        save(job.with(JobStage.UNDER_WAY, now), job);
        log.write(
                job.vehicleId(),
                "time of job " + jobId,
                job.booking().map(Jobs::words).orElse(""),
                now.map(Jobs::words).orElse(""));
        job.booking().ifPresent(b -> tellOfEnd(job, b, end));
    }

    private void tellOfEnd(Job job, Job.Booking before, LocalDateTime after) {
        if (before.promised()) {
            events.publishEvent(new JobLasts(job.id(), job.vehicleId(), before.end(), after));
        }
    }

    /**
     * Somebody else goes on with a job at the bench, in the bay where it stands.
     *
     * @throws Conflict where it is not at the bench any more
     */
    @Transactional
    public void handOver(long jobId, long technicianId, String name, LocalDateTime from, LocalDateTime to) {
        Job job = get(jobId);
        Job.Booking b = job.booking()
                .filter(x -> job.stage() == JobStage.UNDER_WAY)
                .orElseThrow(() -> new Conflict("Job %d is not at the bench any more.".formatted(jobId)));
        save(
                job.with(
                        JobStage.UNDER_WAY,
                        Optional.of(new Job.Booking(technicianId, b.bayId(), from, to, b.promised()))),
                job);
        log.write(job.vehicleId(), "job %d taken over by %s".formatted(jobId, name), words(b), span(from, to));
        tellOfEnd(job, b, to);
    }

    private static String words(Job.Booking b) {
        return span(b.start(), b.end()) + (b.promised() ? ", promised" : "");
    }

    private static String span(LocalDateTime from, LocalDateTime to) {
        return Words.AT.format(from) + " to " + Words.AT.format(to);
    }

    /** Notes when the owner can bring the vehicle. */
    @Transactional
    public void wish(long jobId, Job.Wishes wishes, int version) {
        Job job = editable(jobId, version);
        save(job.with(wishes), job);
        log.write(job.vehicleId(), "possible days of job " + jobId, words(job.wishes()), words(wishes));
    }

    private static String words(Job.Wishes w) {
        return w.notBefore().map(d -> "not before " + Words.DAY.format(d) + " ").orElse("")
                + w.days().stream()
                        .sorted()
                        .map(d -> d.getDisplayName(TextStyle.FULL, Locale.UK))
                        .collect(Collectors.joining(", "));
    }

    /** The job changed its place on the board; told within the change. */
    public record JobPlaced(long jobId, long vehicleId, Optional<Job.Booking> before, Optional<Job.Booking> after) {}

    /** What the job holds changed, and so may its time; told within the change. */
    public record JobResized(long jobId) {}

    /** A promised job at the bench ends at another time; told within the change. */
    public record JobLasts(long jobId, long vehicleId, LocalDateTime before, LocalDateTime after) {}

    /** Items were added to a job at the bench; told within the change. */
    public record JobWidened(long jobId, Set<String> items) {}

    /** One change of the board at a time; held until the transaction ends. */
    public void lockBoard() {
        jobs.lockBoard();
    }

    /** Jobs signed from one day to another, both included, soonest first. */
    public List<Job> signedBetween(LocalDate from, LocalDate to) {
        return jobs.signedBetween(from, to);
    }

    /** Jobs that do one of {@code signed} again. */
    public List<Job> reworksOf(Collection<Long> signed) {
        return jobs.reworksOf(signed);
    }

    /** Jobs that somebody could still work on. */
    public List<Job> open() {
        return jobs.open();
    }

    /** Gives the job up; it stays in the vehicle's history. */
    @Transactional
    public void cancel(long jobId, int version) {
        Job job = editable(jobId, version);
        save(job.with(JobStage.CANCELLED, Optional.empty()), job);
        log.write(job.vehicleId(), "job " + jobId + " given up", "", "");
        events.publishEvent(new JobPlaced(jobId, job.vehicleId(), job.booking(), Optional.empty()));
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
