package knollfield.app.job.card;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.app.aftercare.Aftercare;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.job.Job;
import knollfield.app.job.JobRepository;
import knollfield.core.due.JobStage;
import knollfield.core.jobcard.BookCorrection;
import knollfield.core.jobcard.BookCorrection.Difference;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardPlan;
import knollfield.core.jobcard.CardState;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;

/** A book that is corrected says so on cards under way, and sends signed jobs that used an old figure to be looked at. */
@Service
class BookCorrections {

    private static final int LONGEST = 380;

    private final EngineBook book;
    private final JobRepository jobs;
    private final Cards cards;
    private final Aftercare aftercare;

    BookCorrections(EngineBook book, JobRepository jobs, Cards cards, Aftercare aftercare) {
        this.book = book;
        this.jobs = jobs;
        this.cards = cards;
        this.aftercare = aftercare;
    }

    /** What the newest book has otherwise than the card of a job that is under way. */
    List<Difference> since(Job job, CardState state) {
        if (job.stage() != JobStage.UNDER_WAY) {
            return List.of();
        }
        return book.find(job.familyCode())
                .filter(newest -> newest.version() > job.familyVersion())
                .map(newest -> BookCorrection.of(state.plan(), newest.family()))
                .orElse(List.of());
    }

    /** Signed jobs whose figures this correction changes become follow-ups, each once for each correction. */
    @EventListener
    void corrected(EngineBook.BookChanged event) {
        List<VersionedFamily> versions = book.versions(event.code());
        if (versions.size() < 2) {
            return;
        }
        for (Job job : jobs.signedOf(event.code())) {
            CardState state = cards.state(job);
            Set<String> changed = figures(state.plan(), versions.get(0));
            changed.removeAll(figures(state.plan(), versions.get(1)));
            List<String> used = changed.stream().sorted().toList();
            if (!used.isEmpty()) {
                String words = "Book corrected, version %d. %s"
                        .formatted(versions.get(0).version(), String.join(" ", used));
                aftercare.leave(
                        job.vehicleId(),
                        job.id(),
                        List.of(),
                        List.of(new CardEvent.SideFinding(
                                words.substring(0, Math.min(LONGEST, words.length())), false)));
            }
        }
    }

    private static Set<String> figures(CardPlan plan, VersionedFamily version) {
        return BookCorrection.of(plan, version.family()).stream()
                .filter(Difference::isFigure)
                .filter(d -> d.step().isPresent())
                .map(Difference::words)
                .collect(Collectors.toSet());
    }
}
