package knollfield.app.job;

import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
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
import knollfield.app.vehicle.Renewal;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.completion.Completion;
import knollfield.core.due.ClockStart;
import knollfield.core.due.JobStage;
import knollfield.core.due.Policy;
import knollfield.core.engine.EngineFamily;
import knollfield.core.jobcard.Answer;
import knollfield.core.jobcard.CardEntry;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardGenerator;
import knollfield.core.jobcard.CardPlan;
import knollfield.core.jobcard.CardState;
import knollfield.core.odometer.ReadingSource;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Working a job card. Core decides what a card takes; this keeps it, and acts on check-in and completion. */
@Service
public class Cards {

    private final JobRepository jobRepository;
    private final Jobs jobs;
    private final JobBuilds builds;
    private final CardRepository cards;
    private final VehicleService vehicles;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final WorkshopSettings settings;
    private final VehicleLog log;
    private final Words words;
    private final ApplicationEventPublisher events;

    Cards(
            JobRepository jobRepository,
            Jobs jobs,
            JobBuilds builds,
            CardRepository cards,
            VehicleService vehicles,
            CurrentPerson current,
            WorkshopClock clock,
            WorkshopSettings settings,
            VehicleLog log,
            Words words,
            ApplicationEventPublisher events) {
        this.jobRepository = jobRepository;
        this.jobs = jobs;
        this.builds = builds;
        this.cards = cards;
        this.vehicles = vehicles;
        this.current = current;
        this.clock = clock;
        this.settings = settings;
        this.log = log;
        this.words = words;
        this.events = events;
    }

    /** Where the card of {@code job} stands. */
    public CardState state(Job job) {
        return CardState.replay(plan(job), cards.entries(job.id()));
    }

    private CardPlan plan(Job job) {
        Vehicle vehicle = jobs.state(job).history().vehicle();
        return CardGenerator.generate(jobs.family(job), vehicle.equipment(), jobs.items(job));
    }

    /**
     * Enters one event.
     *
     * @throws knollfield.core.jobcard.CardRefused where the card does not take it
     * @throws Conflict where somebody answered the same step since {@code basedOn}
     */
    @Transactional
    public void enter(long jobId, CardEventRequest request) {
        new Checks()
                .text(request.clientKey(), 60, "/clientKey", "The entry's key")
                .orThrow();
        Job job = jobRepository.findForUpdate(jobId).orElseThrow(() -> new NotFound("There is no job " + jobId + "."));
        if (cards.has(jobId, request.clientKey())) {
            return;
        }
        if (job.stage() == JobStage.CANCELLED || job.stage() == JobStage.DRAFT) {
            throw new Conflict(
                    job.stage() == JobStage.DRAFT
                            ? "Job %d has no place on the board yet; promise a slot first.".formatted(jobId)
                            : "Job %d was given up.".formatted(jobId));
        }
        if (job.items().isEmpty()) {
            job = withItems(job);
        }
        CardState before = state(job);
        conflictOnSameStep(before, request);
        Person person = current.get();
        CardEvent event = event(job, request);
        CardEntry entry = new CardEntry(before.seq() + 1, clock.instant(), person.name(), person.isManager(), event);
        CardState after = before.after(entry);
        cards.add(jobId, request.clientKey(), entry);
        if (event instanceof CardEvent.Started) {
            checkIn(job, request);
        } else if (event instanceof CardEvent.Completed) {
            complete(job, after);
        }
    }

    private CardEvent event(Job job, CardEventRequest request) {
        if (request.type() == CardEventRequest.Type.START
                && request.odometer() != null
                && request.odometerUnit() != null) {
            Vehicle vehicle = jobs.state(job).history().vehicle();
            List<FieldProblem> problems = vehicles.checkReading(
                            vehicle, clock.today(), request.odometer(), request.odometerUnit())
                    .problems();
            if (!problems.isEmpty()) {
                throw new InvalidInput(atOdometer(problems));
            }
        }
        return request.toEvent();
    }

    private void checkIn(Job job, CardEventRequest request) {
        try {
            vehicles.addReading(
                    job.vehicleId(),
                    clock.today(),
                    Objects.requireNonNull(request.odometer()),
                    Objects.requireNonNull(request.odometerUnit()),
                    ReadingSource.WORKSHOP,
                    Boolean.TRUE.equals(request.insist()));
        } catch (InvalidInput e) {
            List<FieldProblem> problems = atOdometer(e.problems());
            throw e.mayInsist() ? InvalidInput.unlessInsisted(problems) : new InvalidInput(problems);
        }
        save(job.with(JobStage.UNDER_WAY, job.booking()));
        log.write(job.vehicleId(), "job " + job.id() + " checked in", "", "");
        events.publishEvent(new JobStarted(job.id()));
    }

    /** A job was checked in; told within the change. */
    public record JobStarted(long jobId) {}

    private void complete(Job job, CardState state) {
        EngineFamily family = jobs.family(job);
        Vehicle vehicle = jobs.state(job).history().vehicle();
        LocalDate today = clock.today();
        int km = state.started().orElseThrow().odometerKm();
        String by = current.get().name();
        for (Completion.Renewed r : Completion.renewed(family, job.items(), today, km)) {
            Renewal renewal = new Renewal(
                    r.item().code(),
                    r.start().date(),
                    r.start().km(),
                    r.start().grade(),
                    builds.fitted(job, r.item()),
                    true,
                    Optional.of(job.id()),
                    by);
            // the odometer was recorded as a reading at check-in
            vehicles.addRenewal(job.vehicleId(), renewal, false, ReadingSource.WORKSHOP);
        }
        VehicleHistory history = jobs.state(job).history();
        vehicles.endEvidence(job.vehicleId(), e -> Completion.ends(family, job.items(), e), "ended by job " + job.id());
        Policy workshop = settings.get().policy();
        Policy policy = vehicle.own().map(own -> workshop.with(own.timing())).orElse(workshop);
        boolean severe = vehicle.conditions().stream().anyMatch(c -> c.appliesTo(family.drive()));
        // a partial job leaves the drive's clocks running
        Optional<ClockStart> driveStart =
                job.items().contains(family.driveItem().code())
                        ? Optional.of(new ClockStart(today, km, ClockStart.Grade.DOCUMENTED))
                        : Optional.ofNullable(jobs.state(job)
                                        .facts()
                                        .starts()
                                        .get(family.driveItem().code()))
                                .map(s -> new ClockStart(s.date(), s.km() - history.offsetOn(today), s.grade()));
        Completion.NextDue next = driveStart
                .map(s -> Completion.nextDue(family, policy, severe, s.date(), s.km()))
                .orElseGet(() -> new Completion.NextDue(OptionalInt.empty(), Optional.empty()));
        save(job.with(JobStage.DONE, new Job.Done(today, km, next.date(), next.km())));
        log.write(
                job.vehicleId(),
                "job " + job.id() + " signed",
                "",
                "%s at %s"
                        .formatted(
                                String.join(", ", job.items().stream().sorted().toList()), words.km(km)));
    }

    /** Fixes what is renewed, so that the card stays the same whatever the rules say later. */
    private Job withItems(Job job) {
        return job.with(jobs.items(job));
    }

    private void save(Job job) {
        if (!jobRepository.update(job)) {
            throw new Conflict("Job %d was changed while you were at it. Yours was not saved.".formatted(job.id()));
        }
    }

    private static void conflictOnSameStep(CardState state, CardEventRequest request) {
        if (request.step() == null) {
            return;
        }
        Answer answer = state.answers().get(request.step());
        if (answer != null && answer.seq() > request.basedOn()) {
            throw new Conflict("%s entered \"%s\" at this step while you were at it. Yours was not saved."
                    .formatted(answer.by(), answer.words()));
        }
    }

    private static List<FieldProblem> atOdometer(List<FieldProblem> problems) {
        return problems.stream()
                .map(p -> new FieldProblem("/odometer", p.detail()))
                .toList();
    }
}
