package knollfield.app.job.card;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import knollfield.app.aftercare.Aftercare;
import knollfield.app.engine.EngineBook;
import knollfield.app.job.Job;
import knollfield.app.job.JobBuilds;
import knollfield.app.job.JobRepository;
import knollfield.app.job.Jobs;
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
import knollfield.app.standins.Outside;
import knollfield.app.vehicle.Renewal;
import knollfield.app.vehicle.StoredEvidence;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.clock.ClockStart;
import knollfield.core.completion.Completion;
import knollfield.core.completion.Recheck;
import knollfield.core.due.Evidence;
import knollfield.core.due.JobStage;
import knollfield.core.due.Policy;
import knollfield.core.engine.EngineFamily;
import knollfield.core.jobcard.Answer;
import knollfield.core.jobcard.CardBasis;
import knollfield.core.jobcard.CardEntry;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardGenerator;
import knollfield.core.jobcard.CardPlan;
import knollfield.core.jobcard.CardRefused;
import knollfield.core.jobcard.CardScope;
import knollfield.core.jobcard.CardState;
import knollfield.core.jobcard.Progress;
import knollfield.core.jobcard.WorkClock;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.units.DistanceUnit;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Working a job card. Core decides what a card takes; this keeps it, and acts on check-in, findings and completion. */
@Service
public class Cards {

    /** Characters of a finding's note; sixteen clearances at once would be more. */
    private static final int LONGEST_NOTE = 400;

    private final JobRepository jobRepository;
    private final Jobs jobs;
    private final JobBuilds builds;
    private final EngineBook book;
    private final CardRepository cards;
    private final KeptPlanRepository kept;
    private final VehicleService vehicles;
    private final Aftercare aftercare;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final WorkshopSettings settings;
    private final VehicleLog log;
    private final Words words;
    private final ApplicationEventPublisher events;
    private final Outside outside;

    Cards(
            JobRepository jobRepository,
            Jobs jobs,
            JobBuilds builds,
            EngineBook book,
            CardRepository cards,
            KeptPlanRepository kept,
            VehicleService vehicles,
            Aftercare aftercare,
            CurrentPerson current,
            WorkshopClock clock,
            WorkshopSettings settings,
            VehicleLog log,
            Words words,
            ApplicationEventPublisher events,
            Outside outside) {
        this.jobRepository = jobRepository;
        this.jobs = jobs;
        this.builds = builds;
        this.book = book;
        this.cards = cards;
        this.kept = kept;
        this.vehicles = vehicles;
        this.aftercare = aftercare;
        this.current = current;
        this.clock = clock;
        this.settings = settings;
        this.log = log;
        this.words = words;
        this.events = events;
        this.outside = outside;
    }

    /** Where the card of {@code job} stands. */
    public CardState state(Job job) {
        return CardState.replay(plan(job), cards.entries(job.id()));
    }

    /** Time worked on the card of {@code job}, up to now while it is under way. */
    public WorkClock worked(Job job, CardState state) {
        return WorkClock.of(
                state.plan(),
                cards.entries(job.id()),
                clock.zone(),
                state.signature().isPresent() ? Optional.empty() : Optional.of(clock.instant()));
    }

    /** A card's entries with who and when, oldest first. */
    public List<CardEntry> entries(long jobId) {
        return cards.entries(jobId);
    }

    /** The plan a card was begun with, or for one not begun yet the plan it would be begun with now. */
    private CardPlan plan(Job job) {
        EngineFamily family = book.get(job.familyCode(), job.familyVersion());
        Map<Long, CardPlan> plans = kept.of(job.id(), family);
        // the first entry of every card is its check-in; cards begun before plans were kept have none there
        boolean begunBefore = !plans.containsKey(1L) && !cards.entries(job.id()).isEmpty();
        return Optional.ofNullable(plans.get(1L))
                .orElseGet(() -> laid(job, family, begunBefore))
                .keeping(plans);
    }

    private CardPlan laid(Job job, EngineFamily family, boolean begunBefore) {
        if (job.scope().isInspection()) {
            return builds.inspectionCard(job);
        }
        CardEvent.Fixed fixed = fixed(job);
        CardScope scope = CardScope.of(fixed.items()).settled(fixed.variants());
        CardBasis basis = new CardBasis(
                family,
                fixed.equipment(),
                fixed.variants().keySet(),
                job.rework().isPresent() ? scope.asRework() : scope);
        return CardGenerator.laid(
                basis, begunBefore ? CardPlan.Layout.BEGUN_BEFORE : CardPlan.Layout.ROUTED, Progress.none());
    }

    /** What a card of {@code job} begun now would rest on. */
    private CardEvent.Fixed fixed(Job job) {
        return new CardEvent.Fixed(
                jobs.items(job),
                jobs.state(job).vehicle().equipment(),
                job.scope().variants());
    }

    /** An odometer as it was read at check-in. */
    private record OdometerRead(BigDecimal value, DistanceUnit unit, boolean insist) {}

    /**
     * Enters one event.
     *
     * @throws CardRefused where the card does not take it
     * @throws Conflict where somebody answered the same step since {@code basedOn}
     */
    @Transactional
    public void enter(long jobId, CardEntryIn request) {
        new Checks()
                .text(request.clientKey(), 60, "/clientKey", "The entry's key")
                .orThrow();
        Job job = forUpdate(jobId);
        if (sentBefore(jobId, request.clientKey())) {
            return;
        }
        job = workable(job);
        Optional<OdometerRead> reading = Optional.empty();
        if (request instanceof CardEntryIn.StartEntry start
                && start.odometer() != null
                && start.odometerUnit() != null) {
            reading = Optional.of(
                    new OdometerRead(start.odometer(), start.odometerUnit(), Boolean.TRUE.equals(start.insist())));
            checkReading(job, reading.get());
        }
        CardEvent event = marked(job, request.event(fixed(job)));
        CardState before = state(job);
        CardEntry entry = entry(before, event);
        conflictOnSameStep(before, entry, request);
        take(job, request.clientKey(), before, entry, reading);
    }

    /** A figure that the meter's stand-in said is entered as simulated, whoever typed it. */
    private CardEvent marked(Job job, CardEvent event) {
        return event instanceof CardEvent.Measured m && outside.isSimulated(job.id(), m.value())
                ? m.by("meter")
                : event;
    }

    /** Enters an event the workshop itself makes, such as the demo's work. */
    @Transactional
    public void enter(long jobId, CardEvent event) {
        enter(jobId, UUID.randomUUID().toString(), event);
    }

    /** True where an entry with this key came in before; nobody enters one meanwhile. */
    boolean hasForUpdate(long jobId, String clientKey) {
        forUpdate(jobId);
        return cards.by(jobId, clientKey).isPresent();
    }

    /**
     * True where this person's entry with this key came in before; nobody enters one meanwhile.
     *
     * @throws Conflict where it was another person's: it must not count as both
     */
    boolean sentBefore(long jobId, String clientKey) {
        forUpdate(jobId);
        Optional<String> by = cards.by(jobId, clientKey);
        if (by.filter(name -> !name.equals(current.get().name())).isPresent()) {
            throw new Conflict(
                    "%s sent an entry with the same key; yours was not taken. Enter it again.".formatted(by.get()));
        }
        return by.isPresent();
    }

    /** Enters an event under its sender's key, such as a picture that was stored. */
    @Transactional
    void enter(long jobId, String clientKey, CardEvent event) {
        Job job = workable(forUpdate(jobId));
        CardState before = state(job);
        Optional<OdometerRead> reading = event instanceof CardEvent.Started s
                ? Optional.of(new OdometerRead(BigDecimal.valueOf(s.odometerKm()), DistanceUnit.KM, true))
                : Optional.empty();
        take(job, clientKey, before, entry(before, event), reading);
    }

    private void take(Job job, String clientKey, CardState before, CardEntry entry, Optional<OdometerRead> reading) {
        CardState after = before.after(entry);
        cards.add(job.id(), clientKey, entry);
        keepPlan(job, before, after, entry);
        if (entry.event() instanceof CardEvent.Started) {
            checkIn(job, reading.orElseThrow());
        } else if (entry.event() instanceof CardEvent.Completed) {
            complete(job, after);
        } else if (entry.event() instanceof CardEvent.GoesBack e
                && !after.scope().items().isEmpty()) {
            // where nothing is left to renew, the job keeps what it was for; its signature says that nothing was
            jobs.takeOff(job.id(), Set.of(e.item()), "the old part goes back");
        }
        if (entry.event() instanceof CardEvent.ToolFailed e) {
            events.publishEvent(new ToolReported(job.id(), job.familyCode(), e.piece(), e.missing(), e.words()));
        }
        findings(job, before, after);
        tellWaits(job, after);
        if (after.moreMinutes() != before.moreMinutes()) {
            events.publishEvent(new MoreWork(job.id()));
        }
    }

    private void checkReading(Job job, OdometerRead reading) {
        Vehicle vehicle = jobs.state(job).history().vehicle();
        List<FieldProblem> problems = vehicles.checkReading(vehicle, clock.today(), reading.value(), reading.unit())
                .problems();
        if (!problems.isEmpty()) {
            throw new InvalidInput(atOdometer(problems));
        }
    }

    private CardEntry entry(CardState before, CardEvent event) {
        Person person = current.get();
        return new CardEntry(before.seq() + 1, clock.instant(), person.name(), person.isManager(), event);
    }

    private Job forUpdate(long jobId) {
        return jobRepository.findForUpdate(jobId).orElseThrow(() -> new NotFound("There is no job " + jobId + "."));
    }

    private Job workable(Job job) {
        if (job.stage() == JobStage.CANCELLED || job.stage() == JobStage.DRAFT) {
            throw new Conflict(
                    job.stage() == JobStage.DRAFT
                            ? "Job %d has no place on the board yet; promise a slot first.".formatted(job.id())
                            : "Job %d was given up.".formatted(job.id()));
        }
        // fixes what is renewed, so that the card stays the same whatever the rules say later
        return job.items().isEmpty() ? job.with(jobs.items(job)) : job;
    }

    private void checkIn(Job job, OdometerRead reading) {
        try {
            vehicles.addReading(
                    job.vehicleId(),
                    clock.today(),
                    reading.value(),
                    reading.unit(),
                    ReadingSource.WORKSHOP,
                    reading.insist());
        } catch (InvalidInput e) {
            List<FieldProblem> problems = atOdometer(e.problems());
            throw e.mayInsist() ? InvalidInput.unlessInsisted(problems) : new InvalidInput(problems);
        }
        save(job.with(JobStage.UNDER_WAY, job.booking()));
        log.write(job.vehicleId(), "job " + job.id() + " checked in", "", "");
        events.publishEvent(new JobStarted(job.id()));
    }

    /**
     * Whoever keeps the owner's answers adds the codes of what they declined to {@code told}; asked within the change.
     *
     * @param told codes of items; filled by the listener
     */
    public record DeclinesAsked(long jobId, Set<String> told) {}

    /** More work than planned was told at the bench, or taken back; told within the change. */
    public record MoreWork(long jobId) {}

    /**
     * A piece of the tool set that job has cannot be worked with; told within the change.
     *
     * @param words what is wrong; may be empty
     */
    public record ToolReported(long jobId, String familyCode, String piece, boolean missing, String words) {}

    /** A job was signed; told within the change. */
    public record JobSigned(long jobId) {}

    /** A job was checked in; told within the change. */
    public record JobStarted(long jobId) {}

    /** What an event has newly found becomes evidence of the vehicle. */
    private void findings(Job job, CardState before, CardState after) {
        for (CardState.Finding f : after.findings()) {
            if (f.seq() > before.seq()) {
                find(job, new Evidence(f.kind(), clock.today(), Evidence.Confidence.SEEN, f.item()), f.words());
            }
        }
        for (CardState.Finding f : before.findings()) {
            boolean stands = after.findings().stream()
                    .anyMatch(o -> o.kind() == f.kind()
                            && o.item().equals(f.item())
                            && o.words().equals(f.words()));
            if (!stands) {
                unfind(job, f);
            }
        }
    }

    /** What a look was taken back for leaves the vehicle again; what somebody has ended meanwhile stays as it is. */
    private void unfind(Job job, CardState.Finding f) {
        jobs.state(job).history().evidence().stream()
                .filter(e -> e.endedOn().isEmpty()
                        && e.source().equals(source(job))
                        && e.note().equals(cut(f.words()))
                        && e.evidence().kind() == f.kind())
                .forEach(e ->
                        vehicles.withdrawEvidence(job.vehicleId(), e.id(), "taken back at the bench, job " + job.id()));
    }

    private static String source(Job job) {
        return "bench, job " + job.id();
    }

    private static String cut(String note) {
        return note.substring(0, Math.min(LONGEST_NOTE, note.length()));
    }

    /** A look that is taken back and answered again finds the same thing once. */
    private void find(Job job, Evidence found, String note) {
        String source = source(job);
        String words = cut(note);
        boolean known = jobs.state(job).history().evidence().stream()
                .anyMatch(e -> e.endedOn().isEmpty()
                        && e.source().equals(source)
                        && e.note().equals(words)
                        && e.evidence().equals(found));
        if (!known) {
            vehicles.addEvidence(job.vehicleId(), found, source, words);
        }
    }

    /** Adds what was found to the job; it waits on the card until the owner has answered. */
    @EventListener
    void widened(Jobs.JobWidened event) {
        Job job = forUpdate(event.jobId());
        if (job.stage() == JobStage.UNDER_WAY && !event.items().isEmpty()) {
            append(job, new CardEvent.Widened(event.items()));
        }
    }

    /**
     * The owner's answer to what was added at the bench; what they leave goes off the card.
     *
     * @return those of {@code items} that had been waiting
     */
    @Transactional
    public Set<String> ownerAnswered(long jobId, Set<String> items, boolean agreed) {
        Job job = forUpdate(jobId);
        Set<String> waiting = new HashSet<>(items);
        waiting.retainAll(awaiting(job));
        if (!waiting.isEmpty()) {
            append(job, new CardEvent.OwnerAnswered(agreed ? waiting : Set.of(), agreed ? Set.of() : waiting));
            if (!agreed) {
                jobs.takeOff(jobId, waiting, "left by the owner");
            }
        }
        return waiting;
    }

    /** Items of a job at the bench that the owner has not agreed to yet. */
    public Set<String> awaiting(Job job) {
        return job.stage() == JobStage.UNDER_WAY ? state(job).scope().awaiting() : Set.of();
    }

    /** Who put any of these items on the card of a job at the bench. */
    public Set<String> whoAdded(long jobId, Collection<String> items) {
        return cards.entries(jobId).stream()
                .filter(e -> e.event() instanceof CardEvent.Widened w
                        && w.items().stream().anyMatch(items::contains))
                .map(CardEntry::by)
                .collect(Collectors.toSet());
    }

    private void append(Job job, CardEvent event) {
        CardState before = state(job);
        CardEntry entry = entry(before, event);
        CardState after = before.after(entry);
        cards.add(job.id(), UUID.randomUUID().toString(), entry);
        keepPlan(job, before, after, entry);
        tellWaits(job, after);
    }

    /** A plan is kept where the card is begun with it, and wherever an entry asked for another. */
    private void keepPlan(Job job, CardState before, CardState after, CardEntry entry) {
        if (entry.event() instanceof CardEvent.Started || !after.plan().equals(before.plan())) {
            kept.keep(job.id(), entry.seq(), after.plan());
        }
    }

    /** Keeps beside the job what it waits for, so that lists need not read every card. */
    private void tellWaits(Job job, CardState state) {
        EngineFamily family = state.plan().basis().family();
        String owner = state.scope().awaiting().stream()
                .sorted()
                .flatMap(i -> family.item(i).stream())
                .map(i -> i.name().toLowerCase(java.util.Locale.ROOT))
                .collect(Collectors.joining(", "));
        String paused = state.paused()
                .map(p -> p.why().words() + (p.words().isBlank() ? "" : ": " + p.words()))
                .orElse("");
        String both = state.signature().isPresent()
                ? ""
                : paused + (owner.isEmpty() ? "" : (paused.isEmpty() ? "" : "; ") + "the owner's answer: " + owner);
        jobRepository.waits(job.id(), both.substring(0, Math.min(400, both.length())));
    }

    private void complete(Job job, CardState state) {
        EngineFamily family = jobs.family(job);
        Vehicle vehicle = jobs.state(job).history().vehicle();
        LocalDate today = clock.today();
        int km = state.started().orElseThrow().odometerKm();
        String by = current.get().name();
        Set<String> items = Completion.items(state);
        for (Completion.Renewed r : Completion.renewed(family, items, today, km)) {
            Renewal renewal = new Renewal(
                    r.item().code(),
                    r.start().date(),
                    r.start().km(),
                    r.start().grade(),
                    builds.fitted(job, r.item()),
                    state.batches().getOrDefault(r.item().code(), ""),
                    true,
                    Optional.of(job.id()),
                    by);
            // the odometer was recorded as a reading at check-in
            vehicles.addRenewal(job.vehicleId(), renewal, false, ReadingSource.WORKSHOP);
        }
        Set<String> declined = new HashSet<>();
        events.publishEvent(new DeclinesAsked(job.id(), declined));
        Completion.clearances(state, today).forEach((found, note) -> find(job, found, note));
        Completion.inspected(state, today).forEach((found, note) -> find(job, found, note));
        Completion.Work work = Completion.Work.of(state, declined);
        List<Evidence> stays = Completion.stays(
                state,
                work,
                jobs.state(job).history().evidence().stream()
                        .filter(e -> e.endedOn().isEmpty())
                        .map(StoredEvidence::evidence)
                        .toList());
        vehicles.endEvidence(job.vehicleId(), e -> Completion.ends(work, e), "ended by job " + job.id());
        Completion.NextDue next = nextDue(job, items, today, km);
        Job signed = job.with(items.isEmpty() ? job.items() : items)
                .with(JobStage.DONE, new Job.Done(today, km, next.date(), next.km()));
        save(actual(job, state).map(signed::with).orElse(signed));
        aftercare.leave(
                job.vehicleId(), job.id(), Recheck.after(state, today, stays), Completion.followUps(state, stays));
        events.publishEvent(new JobSigned(job.id()));
        log.write(
                job.vehicleId(),
                "job " + job.id() + " signed",
                "",
                "%s at %s"
                        .formatted(
                                job.scope().isInspection()
                                        ? "inspected"
                                        : items.isEmpty()
                                                ? "same parts put back"
                                                : String.join(
                                                        ", ",
                                                        items.stream().sorted().toList()),
                                words.km(km)));
    }

    /**
     * What a job that renews {@code items} would be signed with, were it signed now: day, odometer, next due.
     *
     * @return empty before check-in, and where the same parts go back
     */
    Optional<Job.Done> outcome(Job job, CardState state) {
        Set<String> items = Completion.items(state);
        return state.started().filter(s -> !items.isEmpty()).map(s -> {
            Completion.NextDue next = nextDue(job, items, clock.today(), s.odometerKm());
            return new Job.Done(clock.today(), s.odometerKm(), next.date(), next.km());
        });
    }

    /** When the drive is due next after a job that renewed {@code items}. */
    private Completion.NextDue nextDue(Job job, Set<String> items, LocalDate today, int km) {
        EngineFamily family = jobs.family(job);
        VehicleHistory history = jobs.state(job).history();
        Vehicle vehicle = history.vehicle();
        Policy workshop = settings.get().policy();
        Policy policy = vehicle.own().map(own -> workshop.with(own.timing())).orElse(workshop);
        boolean severe = vehicle.conditions().stream().anyMatch(c -> c.appliesTo(family.drive()));
        // a partial job leaves the drive's clocks running
        Optional<ClockStart> driveStart = items.contains(family.driveItem().code())
                ? Optional.of(new ClockStart(today, km, ClockStart.Grade.DOCUMENTED))
                : Optional.ofNullable(jobs.state(job)
                                .facts()
                                .starts()
                                .get(family.driveItem().code()))
                        .map(s -> new ClockStart(s.date(), s.km() - history.offsetOn(today), s.grade()));
        return driveStart
                .map(s -> Completion.nextDue(family, policy, severe, s.date(), s.km()))
                .orElseGet(() -> new Completion.NextDue(OptionalInt.empty(), Optional.empty()));
    }

    /** What the job took: as stated at the signature, else by the card's clock; nothing where that shows no minute. */
    private Optional<Job.Actual> actual(Job job, CardState state) {
        int minutes = state.signature()
                .orElseThrow()
                .event()
                .workedMinutes()
                .orElseGet(() -> worked(job, state).minutes());
        long parts = jobs.bundle(job).partsMinor()
                + state.moreWork().values().stream()
                        .mapToLong(CardEvent.Contingency::partMinor)
                        .sum();
        return minutes < 1 ? Optional.empty() : Optional.of(new Job.Actual(minutes, parts));
    }

    private void save(Job job) {
        if (!jobRepository.update(job)) {
            throw new Conflict("Job %d was changed while you were at it. Yours was not saved.".formatted(job.id()));
        }
    }

    /**
     * Refuses an answer to a step that somebody else answered since; both answers are told. What one answered oneself is no
     * conflict: entries that waited for the network follow on each other.
     */
    private static void conflictOnSameStep(CardState state, CardEntry entry, CardEntryIn request) {
        if (!(request instanceof CardEntryIn.AtStep at) || at.step() == null) {
            return;
        }
        Answer answer = state.answers().get(at.step());
        if (answer != null && answer.seq() > request.basedOn() && !answer.by().equals(entry.by())) {
            throw new CardConflict(answer.by(), answer.words(), inWords(state, entry, at.step()));
        }
    }

    /** How the refused answer would have read. */
    private static String inWords(CardState state, CardEntry entry, String step) {
        try {
            return Optional.ofNullable(state.after(entry).answers().get(step))
                    .map(Answer::words)
                    .orElse("taken back");
        } catch (CardRefused e) {
            return Objects.requireNonNullElse(e.getMessage(), "not taken");
        }
    }

    private static List<FieldProblem> atOdometer(List<FieldProblem> problems) {
        return problems.stream()
                .map(p -> new FieldProblem("/odometer", p.detail()))
                .toList();
    }
}
