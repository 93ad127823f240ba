package knollfield.app.estimate;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.documents.EstimateSheet;
import knollfield.app.estimate.EstimateViews.EstimateLineView;
import knollfield.app.estimate.EstimateViews.EstimateView;
import knollfield.app.estimate.EstimateViews.EstimatesView;
import knollfield.app.estimate.EstimateViews.LeftLineView;
import knollfield.app.estimate.EstimateViews.OutcomeView;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.settings.Houses;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.estimate.Consent;
import knollfield.core.estimate.Estimate;
import knollfield.core.estimate.Outcome;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** A job’s estimates, put together. */
@Component
class EstimatePage {

    private final Estimates estimates;
    private final Jobs jobs;
    private final WorkshopSettings settings;
    private final Houses houses;

    EstimatePage(Estimates estimates, Jobs jobs, WorkshopSettings settings, Houses houses) {
        this.estimates = estimates;
        this.jobs = jobs;
        this.settings = settings;
        this.houses = houses;
    }

    /** A job’s estimates, and what was said to them. */
    EstimatesView list(long id) {
        Job job = jobs.get(id);
        Estimate draft = estimates.draft(job);
        Optional<StoredEstimate> newest = estimates.newest(id);
        List<EstimateRepository.Entered> consents = estimates.consents(id);
        List<LeftLineView> left = estimates.left(job).stream()
                .map(code -> new LeftLineView(
                        code,
                        estimates.nameOf(job, code),
                        EstimateViews.said(consents, code).get(0)))
                .sorted(Comparator.comparing(LeftLineView::name))
                .toList();
        return new EstimatesView(
                EstimateViews.sums(draft),
                draft.timeFactor(),
                newest.map(e -> shown(job, e, draft, consents)).orElse(null),
                estimates.ofJob(id).stream().map(StoredEstimate::number).toList(),
                left,
                newest.map(e -> (int) estimates.standing(job, e.estimate()).stream()
                                .filter(Consent.OfLine::isOpen)
                                .count())
                        .orElse(0),
                List.copyOf(estimates.speakers(job)),
                outcome(job, newest));
    }

    private EstimateView shown(Job job, StoredEstimate e, Estimate draft, List<EstimateRepository.Entered> consents) {
        Map<String, Consent.OfLine> standing = estimates.standing(job, e.estimate()).stream()
                .collect(Collectors.toMap(l -> l.line().code(), Function.identity()));
        Set<String> purpose = jobs.purpose(job);
        return new EstimateView(
                e.number(),
                e.madeOn(),
                e.validUntil(),
                e.madeBy(),
                e.estimate().equals(draft),
                e.estimate().lines().stream()
                        .map(l -> new EstimateLineView(
                                l.code(),
                                l.name(),
                                l.kind(),
                                l.required(),
                                l.ownerSupplied(),
                                l.minutes(),
                                l.partsMinor(),
                                l.lowMinor(),
                                l.likelyMinor(),
                                l.highMinor(),
                                l.kind().isAnswered(),
                                purpose.contains(l.code()) || l.kind() == Estimate.Kind.INSPECTION,
                                EstimateViews.state(standing, l),
                                EstimateViews.state(standing, l).words(),
                                l.kind().isAnswered()
                                        && EstimateViews.state(standing, l).isOpen(),
                                EstimateViews.said(consents, l.code())))
                        .toList(),
                EstimateViews.sums(e.estimate()),
                e.plain());
    }

    private @Nullable OutcomeView outcome(Job job, Optional<StoredEstimate> newest) {
        if (job.actual().isEmpty() || newest.isEmpty()) {
            return null;
        }
        Job.Actual actual = job.actual().get();
        Outcome o = Outcome.of(
                newest.get().estimate(),
                actual.minutes(),
                actual.partsMinor(),
                settings.get().labourRateMinor());
        return new OutcomeView(
                o.minutes(), o.estimatedMinutes(), o.costMinor(), o.estimatedMinor(), o.differenceMinor());
    }

    /** An estimate for the paper. */
    EstimateSheet sheet(long id, int number) {
        Job job = jobs.get(id);
        Vehicle v = jobs.state(job).vehicle();
        StoredEstimate stored = estimates.get(id, number);
        return new EstimateSheet(
                settings.get().name(),
                houses.get().letterhead(),
                settings.get().currency(),
                id,
                number,
                stored.madeOn(),
                stored.validUntil(),
                v.registration(),
                v.makeModel(),
                v.ownerName(),
                stored.estimate(),
                stored.plain(),
                stored.madeBy());
    }
}
