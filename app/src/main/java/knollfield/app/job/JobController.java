package knollfield.app.job;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.bundle.Decision;
import knollfield.core.bundle.School;
import knollfield.core.due.JobStage;
import knollfield.core.engine.Drive;
import knollfield.core.jobcard.CardGenerator;
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

/** Jobs: list, builder, booking. */
@RestController
@RequestMapping("/api/jobs")
class JobController {

    private static final int DAYS_OF_DONE_JOBS = 14;

    private final Jobs jobs;
    private final People people;
    private final JobViews views;

    JobController(Jobs jobs, People people, JobViews views) {
        this.jobs = jobs;
        this.people = people;
        this.views = views;
    }

    /**
     * @param inspection nothing is opened; null for every other job
     * @param inspectionMinutes so long one looks; null as usual
     */
    record NewJob(
            long vehicleId,
            @Nullable Boolean inspection,
            @Nullable Integer inspectionMinutes) {}

    record InspectionTimeIn(int minutes, int version) {}

    record Created(long id) {}

    /**
     * How the job is to be built; what is left out is as the workshop has it.
     *
     * @param decisions by item code
     * @param parts catalogue numbers by item code
     * @param variants choice by variant code
     * @param version the job's, as it was read
     */
    record ScopeIn(
            Set<String> purpose,
            @Nullable School school,
            School.@Nullable Seals seals,
            @Nullable LocalDate keptUntil,
            Map<String, JobViews.DecisionIn> decisions,
            Map<String, String> parts,
            Set<String> ownerSupplied,
            Map<String, String> variants,
            long toolHireMinor,
            int version) {

        JobScope toScope() {
            Map<String, Decision> decided = new HashMap<>();
            decisions.forEach((item, d) -> decided.put(
                    item,
                    new Decision(
                            d.in(),
                            Optional.ofNullable(d.reason()).orElse("").strip(),
                            Optional.ofNullable(d.inspection()).orElse("").strip())));
            return new JobScope(
                    purpose,
                    Optional.ofNullable(school),
                    Optional.ofNullable(seals),
                    Optional.ofNullable(keptUntil),
                    decided,
                    parts,
                    ownerSupplied,
                    variants,
                    toolHireMinor,
                    OptionalInt.empty());
        }
    }

    record ActualIn(int minutes, long partsMinor, int version) {}

    record JobRow(
            long id,
            long vehicleId,
            String registration,
            String makeModel,
            String ownerName,
            JobStage stage,
            JobViews.@Nullable BookingView booking,
            String waits,
            boolean inspection,
            @Nullable Long reworkOf,
            @Nullable LocalDate completedOn) {}

    /** @param items codes of what is opened again; empty: the belt or chain */
    record ReworkIn(Set<String> items, String reason) {}

    record TechnicianView(long id, String name, Set<Drive> skills, Set<java.time.DayOfWeek> workingDays) {}

    record BayView(long id, String name, String note, int liftClass) {}

    record PlacedJob(
            long jobId,
            String registration,
            long technicianId,
            long bayId,
            LocalDateTime start,
            LocalDateTime end,
            JobStage stage) {}

    record WeekView(
            LocalDate from,
            List<LocalDate> days,
            List<TechnicianView> technicians,
            List<BayView> bays,
            List<PlacedJob> jobs) {}

    @GetMapping
    List<JobRow> list() {
        Map<Long, Person> technicians = views.technicians();
        Map<Long, Bay> bays = views.bays();
        return jobs.current(DAYS_OF_DONE_JOBS).stream()
                .map(j -> {
                    Vehicle v = jobs.state(j).history().vehicle();
                    return new JobRow(
                            j.id(),
                            v.id(),
                            v.registration(),
                            v.makeModel(),
                            v.ownerName(),
                            j.stage(),
                            JobViews.booking(j, technicians, bays),
                            j.waits(),
                            j.scope().isInspection(),
                            j.rework().map(Job.Rework::of).orElse(null),
                            j.done().map(Job.Done::on).orElse(null));
                })
                .toList();
    }

    @PostMapping
    Created create(@RequestBody NewJob body) {
        return new Created(
                body.inspectionMinutes() == null && !Boolean.TRUE.equals(body.inspection())
                        ? jobs.create(body.vehicleId())
                        : jobs.createInspection(
                                body.vehicleId(),
                                Objects.requireNonNullElse(
                                        body.inspectionMinutes(), CardGenerator.USUAL_INSPECTION_MINUTES)));
    }

    @GetMapping("/{id}")
    JobViews.JobView get(@PathVariable long id) {
        return views.view(jobs.get(id));
    }

    /** Builds the job anew. */
    @PutMapping("/{id}/scope")
    JobViews.JobView change(@PathVariable long id, @RequestBody ScopeIn body) {
        jobs.change(id, body.toScope(), body.version());
        return views.view(jobs.get(id));
    }

    /** How long an inspection takes. */
    @PutMapping("/{id}/inspection")
    JobViews.JobView inspection(@PathVariable long id, @RequestBody InspectionTimeIn body) {
        jobs.inspectionLasts(id, body.minutes(), body.version());
        return views.view(jobs.get(id));
    }

    /** Takes the newest version of the engine family's book. */
    @PostMapping("/{id}/newest-book")
    JobViews.JobView newestBook(@PathVariable long id, @RequestParam int version) {
        jobs.takeNewestBook(id, version);
        return views.view(jobs.get(id));
    }

    /** What a signed job took in the end. */
    @PutMapping("/{id}/actual")
    JobViews.JobView actual(@PathVariable long id, @RequestBody ActualIn body) {
        jobs.actual(id, new Job.Actual(body.minutes(), body.partsMinor()), body.version());
        return views.view(jobs.get(id));
    }

    /** Starts a job that does a signed one again; the first keeps its record. */
    @PostMapping("/{id}/rework")
    Created rework(@PathVariable long id, @RequestBody ReworkIn body) {
        return new Created(jobs.rework(id, body.items(), body.reason()));
    }

    @DeleteMapping("/{id}")
    JobViews.JobView cancel(@PathVariable long id, @RequestParam int version) {
        jobs.cancel(id, version);
        return views.view(jobs.get(id));
    }

    /** Seven days of the board from {@code from}. */
    @GetMapping("/week")
    WeekView week(@RequestParam LocalDate from) {
        List<LocalDate> days = from.datesUntil(from.plusDays(7)).toList();
        List<PlacedJob> placed = jobs
                .booked(from.atStartOfDay(), from.plusDays(7).atStartOfDay())
                .stream()
                .flatMap(j -> j.booking().stream()
                        .map(b -> new PlacedJob(
                                j.id(),
                                jobs.state(j).history().vehicle().registration(),
                                b.technicianId(),
                                b.bayId(),
                                b.start(),
                                b.end(),
                                j.stage())))
                .toList();
        return new WeekView(
                from,
                days,
                people.technicians().stream()
                        .map(p -> new TechnicianView(p.id(), p.name(), p.skills(), p.workingDays()))
                        .toList(),
                jobs.bays().stream()
                        .map(b -> new BayView(b.id(), b.name(), b.note(), b.liftClass()))
                        .toList(),
                placed);
    }
}
