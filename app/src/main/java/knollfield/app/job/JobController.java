package knollfield.app.job;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import knollfield.app.job.JobForms.ActualIn;
import knollfield.app.job.JobForms.BayView;
import knollfield.app.job.JobForms.Created;
import knollfield.app.job.JobForms.InspectionTimeIn;
import knollfield.app.job.JobForms.JobRow;
import knollfield.app.job.JobForms.NewJob;
import knollfield.app.job.JobForms.PlacedJob;
import knollfield.app.job.JobForms.ReworkIn;
import knollfield.app.job.JobForms.ScopeIn;
import knollfield.app.job.JobForms.TechnicianView;
import knollfield.app.job.JobForms.WeekView;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.core.jobcard.CardGenerator;
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

    @GetMapping
    List<JobRow> list() {
        Map<Long, Person> technicians = views.technicians();
        Map<Long, Bay> bays = views.bays();
        return jobs.current(DAYS_OF_DONE_JOBS).stream()
                .map(j -> JobForms.row(j, jobs.state(j).history().vehicle(), JobViews.booking(j, technicians, bays)))
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
