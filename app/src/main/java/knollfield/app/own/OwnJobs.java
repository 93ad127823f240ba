package knollfield.app.own;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import knollfield.app.board.Boards;
import knollfield.app.due.Forecasts;
import knollfield.app.estimate.Estimates;
import knollfield.app.estimate.StoredEstimate;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.JobStage;
import knollfield.core.engine.Item;
import knollfield.core.estimate.Consent;
import knollfield.core.estimate.Estimate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Jobs on a contact's own vehicles, and what the contact answers. */
@Service
class OwnJobs {

    private static final int DAYS_SHOWN = 30;
    private static final int MOST_WARNING = 400;

    private final Jobs jobs;
    private final Forecasts forecasts;
    private final Estimates estimates;
    private final Boards boards;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    OwnJobs(
            Jobs jobs,
            Forecasts forecasts,
            Estimates estimates,
            Boards boards,
            CurrentPerson current,
            WorkshopClock clock) {
        this.jobs = jobs;
        this.forecasts = forecasts;
        this.estimates = estimates;
        this.boards = boards;
        this.current = current;
        this.clock = clock;
    }

    /** Open ones and those done lately, those that wait for an answer first. */
    List<Job> all() {
        return jobs.current(DAYS_SHOWN).stream().filter(this::isOwn).toList();
    }

    private boolean isOwn(Job job) {
        return forecasts
                .find(job.vehicleId())
                .filter(s -> VehicleService.View.of(current.get()).includes(s.vehicle()))
                .isPresent();
    }

    /** @throws NotFound where it is not there, or another fleet's: nobody learns which */
    Job get(long id) {
        return jobs.find(id)
                .filter(this::isOwn)
                .orElseThrow(() -> new NotFound("There is no job %d, or it is not yours to see.".formatted(id)));
    }

    /** The newest estimate, while the job can still be answered. */
    Optional<StoredEstimate> estimate(Job job) {
        return job.stage().isOpen() ? estimates.newest(job.id()) : Optional.empty();
    }

    /** What is told of leaving a line, in words for its owner. */
    String warning(Job job, Estimate.Line line) {
        Optional<Item> item = jobs.family(job).item(line.code());
        String drive = jobs.family(job).drive().isBelt() ? "timing belt" : "timing chain";
        return item.filter(Item::takesTheDrive).isPresent()
                ? "The %s stays as it is. Should it fail, the %s goes with it; doing it later opens the same covers again."
                        .formatted(line.name().toLowerCase(Locale.ROOT), drive)
                : "The %s stays as it is; doing it later opens the same covers again."
                        .formatted(line.name().toLowerCase(Locale.ROOT));
    }

    /** What is told of refusing the whole job. */
    static String warning(StoredEstimate estimate) {
        String waiting = estimate.plain().stream()
                .filter(p -> p.startsWith("What waiting costs"))
                .findFirst()
                .orElse("The work stays undone.");
        return waiting.substring(0, Math.min(MOST_WARNING, waiting.length()));
    }

    boolean hasExpired(StoredEstimate estimate) {
        return estimate.validUntil().isBefore(clock.today());
    }

    /** A line can be left here where that needs nobody's signature, and nothing is opened yet. */
    boolean mayLeave(Job job, Estimate.Line line) {
        return line.kind() == Estimate.Kind.ITEM
                && job.stage() != JobStage.UNDER_WAY
                && Consent.lacks(
                                line,
                                jobs.purpose(job).contains(line.code()),
                                Consent.Answer.LEFT,
                                warning(job, line),
                                false,
                                true,
                                false)
                        .isEmpty();
    }

    /**
     * The contact's answer to an estimate, all lines at once.
     *
     * @param number of the estimate that was seen
     * @param agree codes of lines
     * @param leave likewise
     * @param refused the whole job is refused
     * @throws Conflict where a newer estimate was made meanwhile
     */
    @Transactional
    public void answer(long jobId, int number, List<String> agree, List<String> leave, boolean refused) {
        jobs.lockBoard();
        Job job = get(jobId);
        StoredEstimate estimate =
                estimate(job).orElseThrow(() -> new Conflict("There is no estimate to answer any more."));
        if (estimate.number() != number) {
            throw new Conflict("A newer estimate was made meanwhile. Look at that one; nothing was noted.");
        }
        List<Estimate.Line> left = lines(estimate, leave, "/leave");
        lines(estimate, agree, "/agree");
        new Checks()
                .that(refused || !agree.isEmpty() || !leave.isEmpty(), "/agree", "Choose at least one line.")
                .that(agree.stream().noneMatch(leave::contains), "/leave", "A line is agreed to or left, not both.")
                .that(
                        refused || left.stream().allMatch(l -> mayLeave(job, l)),
                        "/leave",
                        "The workshop does not leave this line without talking it over: ring, please.")
                .that(
                        !refused || job.stage() != JobStage.UNDER_WAY,
                        "/refused",
                        "The vehicle is opened already: ring, please.")
                .orThrow();
        if (refused) {
            note(job, number, codes(estimate), Consent.Answer.LEFT, warning(estimate), true);
            return;
        }
        for (Estimate.Line l : left) {
            note(job, number, List.of(l.code()), Consent.Answer.LEFT, warning(job, l), false);
        }
        if (!agree.isEmpty()) {
            note(job, number, agree, Consent.Answer.AGREED, "", false);
        }
    }

    private static List<String> codes(StoredEstimate e) {
        return e.estimate().lines().stream()
                .filter(l -> l.kind().isAnswered())
                .map(Estimate.Line::code)
                .toList();
    }

    private static List<Estimate.Line> lines(StoredEstimate e, List<String> codes, String at) {
        return codes.stream()
                .map(c -> e.estimate().lines().stream()
                        .filter(l -> l.kind().isAnswered() && l.code().equals(c))
                        .findFirst()
                        .orElseThrow(() -> new InvalidInput(at, "The estimate has no line %s.".formatted(c))))
                .toList();
    }

    private void note(Job job, int number, List<String> lines, Consent.Answer answer, String warning, boolean refused) {
        estimates.note(
                job.id(),
                number,
                new Estimates.Said(
                        lines,
                        answer,
                        current.get().name(),
                        clock.today(),
                        Consent.How.OWN_PLACE,
                        warning,
                        false,
                        refused,
                        true));
    }

    /** When the vehicle can be spared. */
    @Transactional
    public void wish(long jobId, Job.Wishes wishes, int version) {
        Job job = get(jobId);
        new Checks()
                .that(
                        wishes.notBefore()
                                .filter(d -> d.isBefore(clock.today()))
                                .isEmpty(),
                        "/notBefore",
                        "That day has passed.")
                .orThrow();
        boards.wish(job.id(), wishes, version);
    }
}
