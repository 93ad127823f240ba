package knollfield.app.own;

import java.time.LocalDateTime;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import knollfield.app.board.Boards;
import knollfield.app.estimate.StoredEstimate;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.letters.Letters;
import knollfield.app.log.VehicleLog;
import knollfield.app.outbox.Channel;
import knollfield.app.outbox.PrivatePages;
import knollfield.app.problem.Checks;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.Houses;
import knollfield.app.shared.Secret;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Owner;
import knollfield.app.vehicle.Owners;
import knollfield.core.due.JobStage;
import knollfield.core.estimate.Consent;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Owners' private addresses: made, taken back, opened once and answered. */
@Service
public class OwnerLinks implements PrivatePages {

    /** Where the pages are, behind the address at which people outside reach the server. */
    static final String PATH = "/answer/";

    /** It stands in logs with a word more. */
    private static final int MOST_NAME = 80;

    private static final int SLOTS = 5;
    /** A time that was offered may have fallen out of the best five since; it is taken as long as it could be offered at all. */
    private static final int SLOTS_TAKEN = 20;

    private final OwnerLinkRepository repository;
    private final OwnAnswers answers;
    private final Jobs jobs;
    private final Boards boards;
    private final Houses houses;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final VehicleLog log;
    private final TransactionTemplate transaction;
    private final Owners owners;
    private final Letters letters;

    OwnerLinks(
            OwnerLinkRepository repository,
            OwnAnswers answers,
            Jobs jobs,
            Boards boards,
            Houses houses,
            CurrentPerson current,
            WorkshopClock clock,
            VehicleLog log,
            TransactionTemplate transaction,
            Owners owners,
            Letters letters) {
        this.owners = owners;
        this.letters = letters;
        this.repository = repository;
        this.answers = answers;
        this.jobs = jobs;
        this.boards = boards;
        this.houses = houses;
        this.current = current;
        this.clock = clock;
        this.log = log;
        this.transaction = transaction;
    }

    /** True where people outside can reach a page; until Setup says where, none is offered. */
    public boolean isOffered() {
        return !houses.get().outsideAddress().isEmpty();
    }

    List<OwnerLink> ofJob(long jobId) {
        return repository.ofJob(jobs.get(jobId).id());
    }

    Optional<OwnerLink.Ended> ended(OwnerLink link) {
        return link.ended(clock.today());
    }

    /**
     * Makes a private address for the newest estimate of a job, and returns it; it cannot be read again. One made before ends.
     *
     * @throws InvalidInput where there is nothing to answer, or nobody outside reaches the server
     */
    @Override
    @Transactional
    public String make(long jobId) {
        Job job = jobs.get(jobId);
        StoredEstimate estimate = toAnswer(job);
        repository.revoke(jobId, clock.instant());
        String secret = Secret.make();
        repository.add(
                Secret.hash(secret),
                jobId,
                estimate.number(),
                clock.instant(),
                current.get().name(),
                estimate.validUntil());
        log.write(
                job.vehicleId(),
                "private page for estimate %d of job %d".formatted(estimate.number(), jobId),
                "",
                "until " + Words.DAY.format(estimate.validUntil()));
        return houses.get().outsideAddress() + PATH + secret;
    }

    /** The owner of a job's vehicle; empty where none is on file. */
    Optional<Owner> owner(long jobId) {
        return jobs.state(jobs.get(jobId)).vehicle().ownerId().map(owners::get);
    }

    /** Writes to the owner with a private address, which is made when the message goes. */
    @Transactional
    public void write(long jobId, Channel channel) {
        Job job = jobs.get(jobId);
        StoredEstimate estimate = toAnswer(job);
        Owner owner = owner(jobId).orElseThrow(() -> new InvalidInput("/channel", "Nobody is on file to write to."));
        letters.estimate(owner, channel, jobs.state(job).vehicle(), jobId, estimate.validUntil());
    }

    private StoredEstimate toAnswer(Job job) {
        StoredEstimate estimate = answerable(job)
                .orElseThrow(() -> new InvalidInput(
                        "/estimate", "Make an estimate that is still valid first; an address leads to one estimate."));
        if (!isOffered()) {
            throw new InvalidInput(
                    "/outsideAddress", "Setup does not say yet at which address people outside reach this server.");
        }
        return estimate;
    }

    private Optional<StoredEstimate> answerable(Job job) {
        return answers.estimate(job).filter(e -> !answers.hasExpired(e));
    }

    /** Takes the address of a job back. */
    @Transactional
    public void revoke(long jobId) {
        Job job = jobs.get(jobId);
        if (repository.revoke(jobId, clock.instant()) > 0) {
            log.write(job.vehicleId(), "private page of job " + jobId, "in force", "taken back");
        }
    }

    /**
     * What an address opens.
     *
     * @param slots times that can be chosen, soonest first; none where a time is promised already
     */
    record Opened(OwnerLink link, Job job, StoredEstimate estimate, List<Job.Booking> slots) {

        Optional<Job.Booking> promised() {
            return job.booking().filter(b -> b.promised() || job.stage() == JobStage.UNDER_WAY);
        }
    }

    /** Why an address opens nothing, in words for whoever holds it. */
    static final class Closed extends RuntimeException {
        private static final long serialVersionUID = 1L;

        Closed(String words) {
            super(words);
        }
    }

    /**
     * Opens an address.
     *
     * @throws NotFound where there is none, or it was taken back: nobody learns which
     * @throws Closed where it has ended
     */
    Opened open(String secret) {
        OwnerLink link = repository
                .find(Secret.hash(secret))
                .filter(l -> l.revokedAt().isEmpty())
                .orElseThrow(() -> new NotFound("This address is not in force. It may not have been copied whole."));
        link.ended(clock.today()).ifPresent(e -> {
            throw new Closed(
                    e == OwnerLink.Ended.ANSWERED
                            ? "This estimate has been answered. If you want to change what was said, please ring us."
                            : "The time to answer this estimate here is over. Please ring us; we will make it anew.");
        });
        Job job = jobs.get(link.jobId());
        StoredEstimate estimate = answerable(job)
                .orElseThrow(
                        () -> new Closed("There is nothing to answer any more. Please ring us if that surprises you."));
        if (estimate.number() != link.estimateNumber()) {
            throw new Closed("We have made a newer estimate since. Please use its address, or ring us.");
        }
        return new Opened(link, job, estimate, slots(job, SLOTS));
    }

    private List<Job.Booking> slots(Job job, int most) {
        boolean settled = job.stage() == JobStage.UNDER_WAY
                || job.booking().filter(Job.Booking::promised).isPresent();
        return settled
                ? List.of()
                : boards.offered(job.id(), most).stream()
                        .sorted(Comparator.comparing(Job.Booking::start))
                        .toList();
    }

    /**
     * What came by a private page.
     *
     * @param slot when the vehicle is to come; empty: the workshop rings
     */
    record Given(List<String> agree, List<String> leave, boolean refused, String name, Optional<LocalDateTime> slot) {}

    /** Notes the answer and takes the time that was chosen, both or neither; how the job stands then. */
    Job answer(String secret, Given given) {
        new Checks().text(given.name(), MOST_NAME, "/name", "Your name").orThrow();
        return current.as(given.name() + ", private page", () -> transaction.execute(status -> inOne(secret, given)));
    }

    private Job inOne(String secret, Given given) {
        jobs.lockBoard();
        Opened opened = open(secret);
        if (!repository.use(opened.link().id(), clock.instant())) {
            throw new Closed("This estimate was answered a moment ago. Please ring us if it was not you.");
        }
        long id = opened.job().id();
        Optional<Job.Booking> slot = given.slot().map(s -> chosen(opened.job(), s));
        answers.note(
                opened.job(),
                new OwnAnswers.Answer(
                        opened.estimate().number(),
                        given.agree(),
                        given.leave(),
                        given.refused(),
                        given.name(),
                        Consent.How.PRIVATE_PAGE,
                        false));
        if (slot.isPresent() && !given.refused()) {
            Job.Booking b = slot.get();
            boards.place(
                    id,
                    new Boards.Wanted(
                            b.technicianId(),
                            b.bayId(),
                            b.start().toLocalDate(),
                            b.start().toLocalTime()),
                    true,
                    jobs.get(id).version());
        }
        return jobs.get(id);
    }

    private Job.Booking chosen(Job job, LocalDateTime start) {
        return slots(job, SLOTS_TAKEN).stream()
                .filter(b -> b.start().equals(start))
                .findFirst()
                .orElseThrow(() -> new InvalidInput(
                        "/slot", "That time has gone meanwhile. Nothing was sent yet: choose another, please."));
    }
}
