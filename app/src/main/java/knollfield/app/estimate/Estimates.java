package knollfield.app.estimate;

import java.time.LocalDate;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import knollfield.app.due.VehicleState;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.job.card.Cards;
import knollfield.app.log.VehicleLog;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.Person;
import knollfield.app.security.Role;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Owners;
import knollfield.core.bundle.Bundle;
import knollfield.core.bundle.Decision;
import knollfield.core.due.JobStage;
import knollfield.core.engine.Item;
import knollfield.core.estimate.Consent;
import knollfield.core.estimate.Estimate;
import knollfield.core.estimate.EstimateRates;
import knollfield.core.jobcard.CardEvent;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Making estimates and noting what is said to them. */
@Service
public class Estimates {

    /** Where what an answer lacks stands in the request. */
    private static final Map<Consent.Field, String> POINTERS =
            Map.of(Consent.Field.LINE, "/lines", Consent.Field.WARNING, "/warning", Consent.Field.SIGNED, "/signed");

    private final EstimateRepository repository;
    private final Jobs jobs;
    private final Cards cards;
    private final WorkshopSettings settings;
    private final PlainWords plain;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final VehicleLog log;
    private final Words words;
    private final Owners owners;
    private final ApplicationEventPublisher events;

    Estimates(
            EstimateRepository repository,
            Jobs jobs,
            Cards cards,
            WorkshopSettings settings,
            PlainWords plain,
            CurrentPerson current,
            WorkshopClock clock,
            VehicleLog log,
            Words words,
            Owners owners,
            ApplicationEventPublisher events) {
        this.events = events;
        this.owners = owners;
        this.repository = repository;
        this.jobs = jobs;
        this.cards = cards;
        this.settings = settings;
        this.plain = plain;
        this.current = current;
        this.clock = clock;
        this.log = log;
        this.words = words;
    }

    /** The job's price as things stand now, given to nobody yet. */
    public Estimate draft(Job job) {
        Workshop workshop = settings.get();
        EstimateRates rates =
                workshop.rates(jobs.timeFactor(job.familyCode()), job.scope().toolHireMinor());
        if (job.scope().isInspection()) {
            return Estimate.ofInspection(job.scope().inspectionMinutes().getAsInt(), rates, more(job));
        }
        return Estimate.of(jobs.bundle(job), job.scope().ownerSupplied(), rates, more(job));
    }

    private List<Estimate.More> more(Job job) {
        return job.stage() != JobStage.UNDER_WAY && job.stage() != JobStage.DONE
                ? List.of()
                : cards.state(job).moreWork().entrySet().stream()
                        .map(e -> more(e.getKey(), e.getValue()))
                        .toList();
    }

    private static Estimate.More more(long entry, CardEvent.Contingency told) {
        String what = told.part().isBlank() ? told.what() : told.what() + ", " + told.part();
        return new Estimate.More(entry, what, told.minutes(), told.partMinor());
    }

    /** How far the owner's consent to a job has come. */
    public enum Asked {
        NOT_YET,
        WAITING,
        ANSWERED
    }

    /** Whether the owner was asked, and has answered every line of the newest estimate. */
    public Asked asked(Job job) {
        return newest(job.id())
                .map(e -> standing(job, e.estimate()).stream().anyMatch(Consent.OfLine::isOpen)
                        ? Asked.WAITING
                        : Asked.ANSWERED)
                .orElse(Asked.NOT_YET);
    }

    List<StoredEstimate> ofJob(long jobId) {
        return repository.ofJob(jobId);
    }

    StoredEstimate get(long jobId, int number) {
        return repository.ofJob(jobId).stream()
                .filter(e -> e.number() == number)
                .findFirst()
                .orElseThrow(() -> new NotFound("Job %d has no estimate %d.".formatted(jobId, number)));
    }

    public Optional<StoredEstimate> newest(long jobId) {
        return repository.ofJob(jobId).stream().findFirst();
    }

    List<EstimateRepository.Entered> consents(long jobId) {
        return repository.consents(jobId);
    }

    /** What was said to lines of a job's estimates, oldest first. */
    public List<Consent> said(long jobId) {
        return repository.consents(jobId).stream()
                .map(EstimateRepository.Entered::consent)
                .toList();
    }

    /** The newest estimate of a job. */
    public Optional<Estimate> given(long jobId) {
        return newest(jobId).map(StoredEstimate::estimate);
    }

    /** Lines that owners left from one day to another, both included, by the job's number. */
    public Map<Long, List<Consent>> leftBetween(LocalDate from, LocalDate to) {
        return repository.leftBetween(from, to).stream()
                .collect(Collectors.groupingBy(
                        EstimateRepository.Entered::jobId,
                        TreeMap::new,
                        Collectors.mapping(EstimateRepository.Entered::consent, Collectors.toList())));
    }

    /** What a line is called: in the newest estimate, else in the engine's book. */
    public String nameOf(Job job, String code) {
        return given(job.id()).stream()
                .flatMap(e -> e.lines().stream())
                .filter(l -> l.code().equals(code))
                .map(Estimate.Line::name)
                .findFirst()
                .or(() -> jobs.family(job).item(code).map(Item::name))
                .orElse(code);
    }

    /** How the lines of {@code estimate} stand. */
    public List<Consent.OfLine> standing(Job job, Estimate estimate) {
        List<Consent> said = said(job.id());
        return Consent.standing(estimate, said, holds(job, said));
    }

    /** What the job holds, worked out by its rules and so only where a no makes it matter; given up, it holds nothing. */
    private Set<String> holds(Job job, List<Consent> said) {
        return job.stage() == JobStage.CANCELLED || said.stream().noneMatch(c -> c.answer() == Consent.Answer.LEFT)
                ? Set.of()
                : jobs.items(job);
    }

    /** Codes of what the owner left and the job does not hold. */
    public Set<String> left(Job job) {
        List<Consent> said = said(job.id());
        return Consent.left(said, holds(job, said));
    }

    /**
     * Makes the next estimate of a job.
     *
     * @throws Conflict where the job is closed
     */
    @Transactional
    public int make(long jobId) {
        Job job = jobs.get(jobId);
        if (!job.stage().isOpen()) {
            throw new Conflict("Job %d is closed; no estimate is made for it.".formatted(jobId));
        }
        VehicleState state = jobs.state(job);
        Bundle bundle = jobs.bundle(job);
        Estimate estimate = draft(job);
        Workshop workshop = settings.get();
        int number = newest(jobId).map(StoredEstimate::number).orElse(0) + 1;
        LocalDate today = clock.today();
        repository.add(new StoredEstimate(
                0,
                jobId,
                number,
                today,
                today.plusDays(workshop.assumptions().validDays()),
                job.version(),
                current.get().name(),
                clock.instant(),
                estimate,
                job.scope().isInspection()
                        ? plain.ofInspection(state, jobs.family(job), estimate, workshop.currency())
                        : plain.of(state, jobs.family(job), bundle, estimate, workshop.currency())));
        log.write(
                job.vehicleId(),
                "estimate %d of job %d".formatted(number, jobId),
                "",
                words.money(estimate.totalMinor(), workshop.currency()));
        return number;
    }

    /**
     * What was said to lines of an estimate.
     *
     * @param lines codes of item lines
     * @param warning what was told of the risk; needed where lines are left
     * @param signed the decline of required lines was signed
     * @param refused the whole job is refused, and given up
     * @param insist noted although nobody has named who said it as one who may speak for the owner
     */
    public record Said(
            List<String> lines,
            Consent.Answer answer,
            String saidBy,
            LocalDate on,
            Consent.How how,
            String warning,
            boolean signed,
            boolean refused,
            boolean insist) {

        public boolean no() {
            return answer == Consent.Answer.LEFT;
        }
    }

    /**
     * Notes it. A no is always noted: before the work what is left goes out of the job, at the bench what still waits for an
     * answer; what is too late to leave stays in, and is told so. A yes brings back what was left before.
     *
     * @throws knollfield.app.problem.InvalidInput where a left line lacks its warning, or a required one its signature
     */
    @Transactional
    public void note(long jobId, int number, Said said) {
        // the board's lock before the job's, as everywhere: a job at the bench grows and shrinks under both
        jobs.lockBoard();
        Job job = jobs.get(jobId);
        if (!job.stage().isOpen()) {
            throw new Conflict("Job %d is closed; consent is no longer asked.".formatted(jobId));
        }
        StoredEstimate stored = get(jobId, number);
        Set<String> awaited = cards.awaiting(job);
        boolean atBench = job.stage() == JobStage.UNDER_WAY;
        Set<String> items = jobs.items(job);
        Set<String> goOut = said.lines().stream()
                .filter(l -> said.no()
                        && (atBench ? awaited.contains(l) : items.contains(l) || l.equals(Estimate.INSPECTION)))
                .collect(Collectors.toCollection(LinkedHashSet::new));
        check(said, job, stored, goOut).orThrow();
        speaker(job, said);
        cards.ownerAnswered(jobId, Set.copyOf(said.lines()), !said.no());
        Set<String> back = said.no() || atBench ? Set.of() : left(job);
        for (String code : new LinkedHashSet<>(said.lines())) {
            Estimate.Line line = answerable(stored, code).orElseThrow();
            repository.addConsent(
                    jobId,
                    stored.id(),
                    new Consent(
                            code,
                            said.answer(),
                            line.highMinor(),
                            said.saidBy(),
                            said.on(),
                            said.how(),
                            said.warning(),
                            said.signed()),
                    current.get().name(),
                    clock.instant());
            String who = "%s, %s".formatted(said.saidBy(), said.how().words());
            if (goOut.contains(code) && !said.refused()) {
                jobs.decide(jobId, code, new Decision(false, "left by " + who, said.signed() ? "decline signed" : ""));
            } else if (back.contains(code)) {
                jobs.decide(jobId, code, Decision.in("agreed after all by " + who));
            }
        }
        log.write(
                job.vehicleId(),
                "consent to estimate %d of job %d".formatted(number, jobId),
                "",
                "%s: %s, %s, %s"
                        .formatted(
                                said.answer().words(),
                                String.join(", ", said.lines()),
                                said.saidBy(),
                                said.how().words()));
        if (said.refused()) {
            giveUp(jobs.get(jobId));
            return;
        }
        Job after = jobs.get(jobId);
        if (asked(after) == Asked.ANSWERED && said(jobId).stream().anyMatch(c -> c.answer() == Consent.Answer.AGREED)) {
            repository.agree(jobId, draft(after).totalMinor());
        }
        price(after);
    }

    /**
     * What a job comes to beside what its owner agreed to; told within the change.
     *
     * @param agreedMinor total with tax when its owner had answered every line
     * @param nowMinor total with tax as things stand
     */
    public record Priced(long jobId, long vehicleId, long agreedMinor, long nowMinor) {
        public boolean isDearer() {
            return nowMinor > agreedMinor;
        }
    }

    @EventListener
    void resized(Jobs.JobResized event) {
        price(jobs.get(event.jobId()));
    }

    private void price(Job job) {
        long now = draft(job).totalMinor();
        agreed(job).ifPresent(agreed -> events.publishEvent(new Priced(job.id(), job.vehicleId(), agreed, now)));
    }

    /** What it came to when every line was answered; before that was kept, the newest estimate of which a line was agreed to. */
    private Optional<Long> agreed(Job job) {
        return repository
                .agreed(job.id())
                .or(() -> repository.consents(job.id()).stream()
                        .filter(c -> c.consent().answer() == Consent.Answer.AGREED)
                        .map(EstimateRepository.Entered::estimateNumber)
                        .max(Integer::compareTo)
                        .map(number -> get(job.id(), number).estimate().totalMinor()));
    }

    /** Without the promise first: whoever refuses a job needs not be told that its time no longer stands. */
    private void giveUp(Job job) {
        job.booking()
                .filter(Job.Booking::promised)
                .ifPresent(b -> jobs.put(
                        job.id(),
                        Optional.of(new Job.Booking(b.technicianId(), b.bayId(), b.start(), b.end(), false)),
                        job.version(),
                        "job %d refused".formatted(job.id())));
        jobs.cancel(job.id(), jobs.get(job.id()).version());
    }

    private Checks check(Said said, Job job, StoredEstimate stored, Set<String> goOut) {
        boolean atBench = job.stage() == JobStage.UNDER_WAY;
        Checks checks = new Checks()
                .text(said.saidBy(), 120, "/saidBy", "Who said it")
                .that(!said.on().isAfter(clock.today()), "/on", "The day lies ahead.")
                .that(!said.on().isBefore(stored.madeOn()), "/on", "The estimate is younger than that.")
                .that(!said.lines().isEmpty(), "/lines", "Choose at least one line.")
                .that(
                        said.no() || !stored.validUntil().isBefore(said.on()),
                        "/on",
                        "The estimate was valid until %s; make a new one.".formatted(stored.validUntil()))
                .that(said.warning().length() <= 400, "/warning", "The warning is longer than 400 characters.")
                .that(!said.refused() || said.no(), "/refused", "A job is refused by a no, not by a yes.")
                .that(
                        !said.refused() || !atBench,
                        "/refused",
                        "The job is at the bench: it has to be brought to an end.");
        Set<String> purpose = jobs.purpose(job);
        Set<String> left = Consent.left(said(job.id()), job.items());
        for (String code : said.lines()) {
            Optional<Estimate.Line> line = answerable(stored, code);
            checks.that(line.isPresent(), "/lines", "The estimate has no line %s to answer.".formatted(code));
            checks.that(
                    // what broke is put right whatever is said; a no to it is a no to its price
                    said.no() || !atBench || code.startsWith(Estimate.MORE) || !left.contains(code),
                    "/lines",
                    "It was left and is off the card. Add it at the bench again, then note the answer.");
            line.ifPresent(l -> Consent.lacks(
                            l,
                            purpose.contains(code) || code.equals(Estimate.INSPECTION),
                            said.answer(),
                            said.warning(),
                            said.signed(),
                            goOut.contains(code),
                            said.refused())
                    .forEach(lack -> checks.that(false, POINTERS.getOrDefault(lack.field(), "/lines"), lack.words())));
        }
        return checks;
    }

    /** Where the owner has named who else may speak, an answer of somebody else is asked about once. */
    private void speaker(Job job, Said said) {
        Set<String> may = speakers(job);
        if (said.insist()
                || may.size() < 2
                || may.stream().anyMatch(m -> m.equalsIgnoreCase(said.saidBy().strip()))) {
            return;
        }
        throw InvalidInput.unlessInsisted(List.of(new FieldProblem(
                "/saidBy", "Only these may speak for the owner: %s.".formatted(String.join(", ", may)))));
    }

    /** The owner and those who may speak for the owner, the owner first. */
    Set<String> speakers(Job job) {
        Set<String> may = new LinkedHashSet<>();
        jobs.state(job).vehicle().ownerId().map(owners::get).ifPresent(o -> {
            may.add(o.name());
            may.addAll(o.speakers());
        });
        return may;
    }

    /**
     * The owner's answer to lines that were added at the bench, on the phone beside the vehicle: an estimate that has
     * them is made where there is none.
     *
     * @throws Conflict where none of the lines waits for an answer
     */
    @Transactional
    public void answeredAtTheBench(
            long jobId,
            List<String> lines,
            boolean agreed,
            String saidBy,
            String warning,
            boolean signed,
            boolean insist) {
        jobs.lockBoard();
        Job job = jobs.get(jobId);
        Set<String> awaited = cards.awaiting(job);
        if (!awaited.containsAll(lines) || lines.isEmpty()) {
            throw new Conflict("These lines no longer wait for the owner's answer.");
        }
        Person by = current.get();
        boolean alone = agreed
                && by.role() == Role.TECHNICIAN
                && cards.whoAdded(jobId, lines).contains(by.name());
        new Checks()
                .that(
                        !alone,
                        "/saidBy",
                        "You put this on the job yourself, so somebody else notes that the owner agrees: the front desk or a manager. That they leave it you may note.")
                .orThrow();
        boolean onPaper = newest(jobId)
                .filter(e -> !e.validUntil().isBefore(clock.today()))
                .filter(e -> lines.stream().allMatch(l -> answerable(e, l).isPresent()))
                .isPresent();
        int number = onPaper ? newest(jobId).orElseThrow().number() : make(jobId);
        note(
                jobId,
                number,
                new Said(
                        lines,
                        agreed ? Consent.Answer.AGREED : Consent.Answer.LEFT,
                        saidBy,
                        clock.today(),
                        Consent.How.PHONE,
                        warning,
                        signed,
                        false,
                        insist));
    }

    /** What the owner of a job left in words. */
    @EventListener
    void declines(Cards.DeclinesAsked asked) {
        asked.told().addAll(left(jobs.get(asked.jobId())));
    }

    private static Optional<Estimate.Line> answerable(StoredEstimate stored, String code) {
        return stored.estimate().lines().stream()
                .filter(l -> l.kind().isAnswered() && l.code().equals(code))
                .findFirst();
    }
}
