package knollfield.app.job;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.app.due.VehicleState;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.bundle.Bundle;
import knollfield.core.bundle.BundleLine;
import knollfield.core.due.JobStage;
import knollfield.core.due.Status;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
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
    private final WorkshopSettings settings;
    private final Words words;

    JobController(Jobs jobs, People people, WorkshopSettings settings, Words words) {
        this.jobs = jobs;
        this.people = people;
        this.settings = settings;
        this.words = words;
    }

    record NewJob(long vehicleId) {}

    record Created(long id) {}

    record Choice(Set<String> chosen, int version) {}

    record BookingRequest(long technicianId, long bayId, LocalDate day, LocalTime time, int version) {}

    record BookingView(
            long technicianId, String technician, long bayId, String bay, LocalDateTime start, LocalDateTime end) {}

    record JobRow(
            long id,
            long vehicleId,
            String registration,
            String makeModel,
            String ownerName,
            JobStage stage,
            @Nullable BookingView booking,
            @Nullable LocalDate completedOn) {}

    record LineView(
            String code,
            String name,
            BundleLine.Kind kind,
            BundleLine.Rule rule,
            boolean included,
            int minutes,
            long partsMinor,
            long labourMinor,
            String reason) {}

    record AccessStepView(String code, String title, int minutes, int helperMinutes, List<String> neededBy) {}

    record JobView(
            long id,
            int version,
            JobStage stage,
            long vehicleId,
            String registration,
            String makeModel,
            String ownerName,
            String ownerPhone,
            @Nullable String fleet,
            String family,
            Drive drive,
            Interference interference,
            Status status,
            @Nullable LocalDate actBy,
            List<LineView> lines,
            List<AccessStepView> steps,
            int minutes,
            int helperMinutes,
            long partsMinor,
            long labourMinor,
            long totalMinor,
            long labourRateMinor,
            @Nullable BookingView booking,
            @Nullable LocalDate completedOn) {}

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
        Map<Long, Person> technicians = technicians();
        Map<Long, Bay> bays = bays();
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
                            booking(j, technicians, bays),
                            j.done().map(Job.Done::on).orElse(null));
                })
                .toList();
    }

    @PostMapping
    Created create(@RequestBody NewJob body) {
        return new Created(jobs.create(body.vehicleId()));
    }

    @GetMapping("/{id}")
    JobView get(@PathVariable long id) {
        return view(jobs.get(id));
    }

    @PutMapping("/{id}/lines")
    JobView choose(@PathVariable long id, @RequestBody Choice body) {
        jobs.choose(id, body.chosen(), body.version());
        return view(jobs.get(id));
    }

    @PutMapping("/{id}/booking")
    JobView book(@PathVariable long id, @RequestBody BookingRequest b) {
        jobs.book(id, b.technicianId(), b.bayId(), b.day(), b.time(), b.version());
        return view(jobs.get(id));
    }

    @DeleteMapping("/{id}/booking")
    JobView unbook(@PathVariable long id, @RequestParam int version) {
        jobs.unbook(id, version);
        return view(jobs.get(id));
    }

    @DeleteMapping("/{id}")
    JobView cancel(@PathVariable long id, @RequestParam int version) {
        jobs.cancel(id, version);
        return view(jobs.get(id));
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

    private JobView view(Job job) {
        VehicleState state = jobs.state(job);
        Vehicle v = state.history().vehicle();
        EngineFamily family = jobs.family(job);
        Workshop workshop = settings.get();
        Bundle bundle = jobs.bundle(job);
        long parts = bundle.partsMinor();
        long labour = bundle.labourMinor(workshop.labourRateMinor());
        return new JobView(
                job.id(),
                job.version(),
                job.stage(),
                v.id(),
                v.registration(),
                v.makeModel(),
                v.ownerName(),
                v.ownerPhone(),
                v.fleet().map(f -> f.name()).orElse(null),
                family.name(),
                family.drive(),
                family.interference(),
                state.forecast().status(),
                state.forecast().actBy().orElse(null),
                bundle.lines().stream().map(l -> line(l, workshop)).toList(),
                bundle.labour().steps().stream()
                        .map(s -> new AccessStepView(
                                s.step().code(),
                                s.step().title(),
                                s.step().minutes(),
                                s.step().helperMinutes(),
                                List.copyOf(s.neededBy())))
                        .toList(),
                bundle.labour().minutes(),
                bundle.labour().helperMinutes(),
                parts,
                labour,
                parts + labour,
                workshop.labourRateMinor(),
                booking(job, technicians(), bays()),
                job.done().map(Job.Done::on).orElse(null));
    }

    private LineView line(BundleLine line, Workshop workshop) {
        return new LineView(
                line.code(),
                line.name(),
                line.kind(),
                line.rule(),
                line.included(),
                line.marginalMinutes(),
                line.partsMinor(),
                Math.round(line.marginalMinutes() * workshop.labourRateMinor() / 60.0),
                words.write(line.reason(), workshop.currency()));
    }

    private static @Nullable BookingView booking(Job job, Map<Long, Person> technicians, Map<Long, Bay> bays) {
        return job.booking()
                .map(b -> new BookingView(
                        b.technicianId(),
                        Optional.ofNullable(technicians.get(b.technicianId()))
                                .map(Person::name)
                                .orElse("somebody who has left"),
                        b.bayId(),
                        Optional.ofNullable(bays.get(b.bayId())).map(Bay::name).orElse("?"),
                        b.start(),
                        b.end()))
                .orElse(null);
    }

    private Map<Long, Person> technicians() {
        return people.technicians().stream().collect(Collectors.toMap(Person::id, p -> p));
    }

    private Map<Long, Bay> bays() {
        return jobs.bays().stream().collect(Collectors.toMap(Bay::id, b -> b));
    }
}
