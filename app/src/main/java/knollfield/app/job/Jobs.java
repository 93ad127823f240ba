package knollfield.app.job;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.log.VehicleLog;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.bundle.Bundle;
import knollfield.core.bundle.Decision;
import knollfield.core.bundle.Labour;
import knollfield.core.due.JobStage;
import knollfield.core.engine.EngineFamily;
import knollfield.core.estimate.TimeFactor;
import knollfield.core.plan.Placement;
import knollfield.core.plan.PlacementRules;
import knollfield.core.plan.WorkCalendar;
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
    private final People people;
    private final VehicleLog log;
    private final WorkshopClock clock;
    private final JobBuilds builds;

    Jobs(
            JobRepository jobs,
            VehicleService vehicles,
            EngineBook book,
            People people,
            VehicleLog log,
            WorkshopClock clock,
            JobBuilds builds) {
        this.jobs = jobs;
        this.vehicles = vehicles;
        this.book = book;
        this.people = people;
        this.log = log;
        this.clock = clock;
        this.builds = builds;
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
