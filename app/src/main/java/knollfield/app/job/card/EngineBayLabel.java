package knollfield.app.job.card;

import java.util.Set;
import knollfield.app.documents.Label;
import knollfield.app.documents.LabelPrinter;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.problem.Conflict;
import knollfield.app.settings.WorkshopSettings;
import knollfield.core.completion.Completion;
import knollfield.core.jobcard.CardState;
import org.springframework.stereotype.Component;

/** The label that goes into the engine bay once a job is signed. */
@Component
class EngineBayLabel {

    private final Jobs jobs;
    private final Cards cards;
    private final LabelPrinter printer;
    private final WorkshopSettings settings;

    EngineBayLabel(Jobs jobs, Cards cards, LabelPrinter printer, WorkshopSettings settings) {
        this.jobs = jobs;
        this.cards = cards;
        this.printer = printer;
        this.settings = settings;
    }

    /**
     * The label as it is, or before the signature as it would be were the job signed today: it is written and protected
     * before its step is ticked.
     *
     * @throws Conflict before check-in, and where the job puts the same parts back
     */
    byte[] pdf(long jobId) {
        Job job = jobs.get(jobId);
        CardState state = cards.state(job);
        Set<String> items = Completion.items(state);
        if (state.started().isEmpty()) {
            throw new Conflict("Job %d is not checked in yet; there is no label.".formatted(jobId));
        }
        if (job.scope().isInspection()) {
            throw new Conflict("Job %d renewed nothing; the label that is there stays.".formatted(jobId));
        }
        if (items.isEmpty()) {
            throw new Conflict("Job %d put the same parts back; the label of the first job stays.".formatted(jobId));
        }
        Job.Done done = job.done().or(() -> cards.outcome(job, state)).orElseThrow();
        return printer.print(new Label(
                settings.get().name(),
                jobs.state(job).history().vehicle().registration(),
                CardViews.names(jobs.family(job), items),
                done.on(),
                done.km(),
                done.nextDueOn(),
                done.nextDueKm()));
    }
}
