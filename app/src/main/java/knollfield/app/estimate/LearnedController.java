package knollfield.app.estimate;

import java.util.List;
import knollfield.app.engine.EngineBook;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.job.card.Cards;
import knollfield.app.problem.NotFound;
import knollfield.core.completion.Completion;
import knollfield.core.engine.EngineFamily;
import knollfield.core.estimate.LearnedMinutes;
import knollfield.core.jobcard.CardState;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What signed jobs say of the book's times. */
@RestController
@RequestMapping("/api/engines")
class LearnedController {

    private final EngineBook book;
    private final Jobs jobs;
    private final Cards cards;

    LearnedController(EngineBook book, Jobs jobs, Cards cards) {
        this.book = book;
        this.jobs = jobs;
        this.cards = cards;
    }

    /**
     * @param jobs in which its time was taken
     * @param factor of this workshop against the book
     * @param expectedMinutes next time
     */
    record LearnedStep(String code, String title, int bookMinutes, int jobs, double factor, int expectedMinutes) {}

    /** Minutes of each access step by the book, and as signed jobs have them. */
    @GetMapping("/{code}/minutes")
    List<LearnedStep> minutes(@PathVariable String code) {
        EngineFamily family = book.find(code)
                .orElseThrow(() -> new NotFound("Engine family %s is not on file.".formatted(code)))
                .family();
        return LearnedMinutes.of(
                        family, jobs.past(code).stream().map(this::past).toList())
                .stream()
                .map(s -> new LearnedStep(
                        s.step().code(),
                        s.step().title(),
                        s.step().minutes(),
                        s.jobs(),
                        s.factor(),
                        s.expectedMinutes()))
                .toList();
    }

    private LearnedMinutes.Past past(Job job) {
        CardState state = cards.state(job);
        return LearnedMinutes.of(
                state,
                Completion.items(state),
                jobs.state(job).vehicle().equipment(),
                cards.worked(job, state),
                job.actual().map(Job.Actual::minutes));
    }
}
