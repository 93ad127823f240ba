package knollfield.app.own;

import java.time.DayOfWeek;
import java.time.LocalDateTime;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.estimate.Declines;
import knollfield.app.estimate.Estimates;
import knollfield.app.estimate.StoredEstimate;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.own.OwnJobsViews.OwnAnswerIn;
import knollfield.app.own.OwnJobsViews.OwnEstimate;
import knollfield.app.own.OwnJobsViews.OwnJob;
import knollfield.app.own.OwnJobsViews.OwnLine;
import knollfield.app.own.OwnJobsViews.OwnWishIn;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.due.JobStage;
import knollfield.core.estimate.Consent;
import knollfield.core.estimate.Estimate;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The fleet contact's own place: jobs on the own vehicles, nothing of anybody else's, and no note that is not for outside. */
@RestController
@RequestMapping("/api/own/jobs")
class OwnJobsController {

    private final OwnJobs own;
    private final OwnAnswers answers;
    private final Jobs jobs;
    private final Estimates estimates;

    OwnJobsController(OwnJobs own, OwnAnswers answers, Jobs jobs, Estimates estimates) {
        this.own = own;
        this.answers = answers;
        this.jobs = jobs;
        this.estimates = estimates;
    }

    @GetMapping
    List<OwnJob> all() {
        return own.all().stream()
                .map(this::view)
                .sorted(Comparator.comparing((OwnJob j) -> j.open() == 0)
                        .thenComparing(j -> j.doneOn() != null)
                        .thenComparing(j -> j.from() == null ? LocalDateTime.MAX : j.from())
                        .thenComparing(OwnJob::jobId))
                .toList();
    }

    /** Answers an estimate; the job as it stands then. */
    @PostMapping("/{id}/answer")
    OwnJob answer(@PathVariable long id, @RequestBody OwnAnswerIn a) {
        own.answer(
                id,
                a.number(),
                Objects.requireNonNullElse(a.agree(), List.<String>of()),
                Objects.requireNonNullElse(a.leave(), List.<String>of()),
                Boolean.TRUE.equals(a.refused()));
        return view(own.get(id));
    }

    /** Says when the vehicle can be spared; the job as it stands then. */
    @PutMapping("/{id}/wishes")
    OwnJob wish(@PathVariable long id, @RequestBody OwnWishIn w) {
        own.wish(
                id,
                new Job.Wishes(
                        Optional.ofNullable(w.notBefore()), Objects.requireNonNullElse(w.days(), Set.<DayOfWeek>of())),
                w.version());
        return view(own.get(id));
    }

    private OwnJob view(Job job) {
        Vehicle v = jobs.state(job).vehicle();
        Optional<StoredEstimate> estimate = answers.estimate(job);
        Map<String, Consent.OfLine> standing = estimate.map(e -> estimates.standing(job, e.estimate()).stream()
                        .collect(Collectors.toMap(l -> l.line().code(), Function.identity())))
                .orElse(Map.of());
        Optional<Job.Booking> promised = job.booking().filter(b -> b.promised() || job.stage() == JobStage.UNDER_WAY);
        return new OwnJob(
                job.id(),
                v.id(),
                v.registration(),
                v.makeModel(),
                OwnJobsViews.words(job),
                promised.map(Job.Booking::start).orElse(null),
                promised.map(Job.Booking::end).orElse(null),
                job.done().map(Job.Done::on).orElse(null),
                job.stage() == JobStage.DRAFT || job.stage() == JobStage.PLANNED,
                job.wishes().notBefore().orElse(null),
                job.wishes().days(),
                job.version(),
                (int) standing.values().stream().filter(Consent.OfLine::isOpen).count(),
                estimate.map(e -> view(job, e, standing)).orElse(null));
    }

    private OwnEstimate view(Job job, StoredEstimate e, Map<String, Consent.OfLine> standing) {
        List<OwnLine> lines = e.estimate().lines().stream()
                .filter(l -> l.kind().isAnswered())
                .map(l -> line(job, l, standing))
                .toList();
        return new OwnEstimate(
                e.number(),
                e.madeOn(),
                e.validUntil(),
                answers.hasExpired(e),
                lines,
                e.estimate().netMinor()
                        - lines.stream().mapToLong(OwnLine::likelyMinor).sum(),
                e.estimate().netMinor(),
                e.estimate().totalMinor(),
                e.plain(),
                Declines.waiting(e),
                answers.mayRefuse(job));
    }

    private OwnLine line(Job job, Estimate.Line l, Map<String, Consent.OfLine> standing) {
        Consent.State state = Optional.ofNullable(standing.get(l.code()))
                .map(Consent.OfLine::state)
                .orElse(Consent.State.NOT_ASKED);
        return new OwnLine(
                l.code(),
                l.name(),
                l.lowMinor(),
                l.likelyMinor(),
                l.highMinor(),
                answers.mayLeave(job, l),
                answers.warning(job, l),
                state.isOpen(),
                state == Consent.State.NOT_ASKED ? "waits for you" : state.words());
    }
}
