package knollfield.app.job;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.log.VehicleLog;
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
import knollfield.core.bundle.BundleRules;
import knollfield.core.due.JobStage;
import knollfield.core.engine.EngineFamily;
import knollfield.core.plan.Placement;
import knollfield.core.plan.PlacementRules;
import knollfield.core.plan.WorkCalendar;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Building and booking jobs. */
@Service
public class Jobs {

    private final JobRepository jobs;
    private final VehicleService vehicles;
    private final Forecasts forecasts;
    private final EngineBook book;
    private final People people;
    private final VehicleLog log;
    private final WorkshopClock clock;

    Jobs(
            JobRepository jobs,
            VehicleService vehicles,
            Forecasts forecasts,
            EngineBook book,
            People people,
            VehicleLog log,
            WorkshopClock clock) {
        this.jobs = jobs;
        this.vehicles = vehicles;
        this.forecasts = forecasts;
        this.book = book;
        this.people = people;
        this.log = log;
        this.clock = clock;
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

    EngineFamily family(Job job) {
        return book.get(job.familyCode(), job.familyVersion());
    }

    VehicleState state(Job job) {
        return forecasts
                .find(job.vehicleId())
                .orElseThrow(() -> new NotFound("There is no vehicle " + job.vehicleId() + "."));
    }

    /** What goes into {@code job} as things stand now. */
    public Bundle bundle(Job job) {
        return BundleRules.bundle(family(job), forecasts.forBundle(state(job)), job.chosen());
    }

    /** The items of {@code job}: as fixed at check-in, before that as the rules have them now. */
    Set<String> items(Job job) {
        return job.items().isEmpty() ? bundle(job).items() : job.items();
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

    /** Takes the offered items in {@code chosen} in, and leaves the others. */
    @Transactional
    public void choose(long jobId, Set<String> chosen, int version) {
        jobs.lockBoard();
        Job job = editable(jobId, version);
        EngineFamily family = family(job);
        chosen.stream().filter(c -> family.item(c).isEmpty()).findFirst().ifPresent(c -> {
            throw new InvalidInput("/chosen", "%s has no item %s.".formatted(family.name(), c));
        });
        Job changed = new Job(
                job.id(),
                job.vehicleId(),
                job.familyCode(),
                job.familyVersion(),
                job.stage(),
                chosen,
                job.items(),
                Optional.empty(),
                job.done(),
                job.version());
        // a booked job that grows must still fit where it stands
        Optional<Job.Booking> moved = job.booking()
                .map(b -> place(
                        changed,
                        b.technicianId(),
                        b.bayId(),
                        b.start().toLocalDate(),
                        b.start().toLocalTime()));
        save(with(changed, job.stage(), moved), job);
        log.write(
                job.vehicleId(), "bundle of job " + jobId, String.join(", ", job.chosen()), String.join(", ", chosen));
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
        save(with(job, JobStage.PLANNED, Optional.of(booking)), job);
        log.write(job.vehicleId(), "job " + jobId + " promised", "", booking.start() + " to " + booking.end());
    }

    /** Takes the job off the board. */
    @Transactional
    public void unbook(long jobId, int version) {
        Job job = editable(jobId, version);
        save(with(job, JobStage.DRAFT, Optional.empty()), job);
        log.write(job.vehicleId(), "job " + jobId + " taken off the board", "", "");
    }

    /** Gives the job up; it stays in the vehicle's history. */
    @Transactional
    public void cancel(long jobId, int version) {
        Job job = editable(jobId, version);
        save(with(job, JobStage.CANCELLED, Optional.empty()), job);
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

    static Job with(Job job, JobStage stage, Optional<Job.Booking> booking) {
        return new Job(
                job.id(),
                job.vehicleId(),
                job.familyCode(),
                job.familyVersion(),
                stage,
                job.chosen(),
                job.items(),
                booking,
                job.done(),
                job.version());
    }
}
