package knollfield.app.own;

import java.util.List;
import java.util.Optional;
import knollfield.app.estimate.Declines;
import knollfield.app.estimate.Estimates;
import knollfield.app.estimate.StoredEstimate;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.due.JobStage;
import knollfield.core.estimate.Consent;
import knollfield.core.estimate.Estimate;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** An estimate answered by those whose vehicle it is, without the workshop in between: whole, in words for them. */
@Component
class OwnAnswers {

    private final Jobs jobs;
    private final Estimates estimates;
    private final Declines declines;
    private final WorkshopClock clock;

    OwnAnswers(Jobs jobs, Estimates estimates, Declines declines, WorkshopClock clock) {
        this.declines = declines;
        this.jobs = jobs;
        this.estimates = estimates;
        this.clock = clock;
    }

    /**
     * What somebody answers.
     *
     * @param number of the estimate that was seen
     * @param agree codes of lines
     * @param leave likewise
     * @param refused the whole job is refused
     * @param insist noted whether or not who says it is named as one who may speak for the owner
     */
    record Answer(
            int number,
            List<String> agree,
            List<String> leave,
            boolean refused,
            String saidBy,
            Consent.How how,
            boolean insist) {}

    /** The newest estimate, while the job can still be answered. */
    Optional<StoredEstimate> estimate(Job job) {
        return job.stage().isOpen() ? estimates.newest(job.id()) : Optional.empty();
    }

    /** What is told of leaving a line, in words for its owner. */
    String warning(Job job, Estimate.Line line) {
        return declines.warning(job, line);
    }

    boolean hasExpired(StoredEstimate estimate) {
        return estimate.validUntil().isBefore(clock.today());
    }

    /** A line can be left from outside where that needs nobody's signature, and nothing is opened yet. */
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

    boolean mayRefuse(Job job) {
        return job.stage() != JobStage.UNDER_WAY;
    }

    /**
     * Notes an answer, all lines at once, under the board's lock.
     *
     * @throws Conflict where a newer estimate was made meanwhile
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public void note(Job job, Answer a) {
        StoredEstimate estimate =
                estimate(job).orElseThrow(() -> new Conflict("There is no estimate to answer any more."));
        if (estimate.number() != a.number()) {
            throw new Conflict("A newer estimate was made meanwhile. Look at that one; nothing was noted.");
        }
        List<Estimate.Line> left = lines(estimate, a.leave(), "/leave");
        lines(estimate, a.agree(), "/agree");
        new Checks()
                .that(
                        a.refused() || !a.agree().isEmpty() || !a.leave().isEmpty(),
                        "/agree",
                        "Choose at least one line.")
                .that(
                        a.agree().stream().noneMatch(a.leave()::contains),
                        "/leave",
                        "A line is agreed to or left, not both.")
                .that(
                        a.refused() || left.stream().allMatch(l -> mayLeave(job, l)),
                        "/leave",
                        "The workshop does not leave this line without talking it over: ring, please.")
                .that(!a.refused() || mayRefuse(job), "/refused", "The vehicle is opened already: ring, please.")
                .orThrow();
        if (a.refused()) {
            say(job, a, codes(estimate), Consent.Answer.LEFT, Declines.waiting(estimate), true);
            return;
        }
        for (Estimate.Line l : left) {
            say(job, a, List.of(l.code()), Consent.Answer.LEFT, warning(job, l), false);
        }
        if (!a.agree().isEmpty()) {
            say(job, a, a.agree(), Consent.Answer.AGREED, "", false);
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

    private void say(Job job, Answer a, List<String> lines, Consent.Answer answer, String warning, boolean refused) {
        estimates.note(
                job.id(),
                a.number(),
                new Estimates.Said(
                        lines, answer, a.saidBy(), clock.today(), a.how(), warning, false, refused, a.insist()));
    }
}
