package knollfield.app.board;

import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import knollfield.app.board.BoardJobViews.AskedView;
import knollfield.app.board.BoardJobViews.BoardJobView;
import knollfield.app.board.BoardJobViews.BrokenView;
import knollfield.app.board.BoardJobViews.LaterView;
import knollfield.app.board.BoardJobViews.NoShowView;
import knollfield.app.board.BoardJobViews.SlotOfferView;
import knollfield.app.board.BoardJobViews.WhileHereView;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.core.plan.Board;
import knollfield.core.plan.Why;
import org.springframework.stereotype.Component;

/** What the board knows of one job. */
@Component
class BoardJobs {

    private static final int OFFERS = 5;

    private final Boards boards;
    private final BoardCases cases;
    private final BoardViews views;
    private final Jobs jobs;
    private final Visits visits;
    private final WorkshopSettings settings;
    private final Words words;

    BoardJobs(
            Boards boards,
            BoardCases cases,
            BoardViews views,
            Jobs jobs,
            Visits visits,
            WorkshopSettings settings,
            Words words) {
        this.boards = boards;
        this.cases = cases;
        this.views = views;
        this.jobs = jobs;
        this.visits = visits;
        this.settings = settings;
        this.words = words;
    }

    /** What a place would break. */
    AskedView asked(Boards.Answer answer) {
        return new AskedView(
                answer.booking()
                        .map(b -> BoardViews.place(answer.shop(), answer.place(), b.end()))
                        .orElse(null),
                answer.broken().stream()
                        .map(b -> new BrokenView(b.rule(), b.words()))
                        .toList());
    }

    /** A job as the board knows it. */
    BoardJobView job(long id) {
        BoardCases.Gathered gathered = cases.now();
        Job job = jobs.get(id);
        Board board = Board.lay(gathered.plan(), gathered.places());
        boolean known = gathered.plan().jobs().stream().anyMatch(j -> j.id() == id);
        String currency = settings.get().currency();
        List<String> why = !known
                ? List.of()
                : (board.placeOf(id).isPresent() ? Why.here(board, id) : Why.notPlanned(board, id))
                        .stream().map(s -> words.write(s, currency)).toList();
        return new BoardJobView(
                id,
                job.version(),
                jobs.state(job).vehicle().registration(),
                known
                        ? board.placeOf(id)
                                .map(p -> views.place(gathered, p, id, board))
                                .orElse(null)
                        : null,
                job.booking().map(Job.Booking::promised).orElse(false),
                job.wishes().notBefore().orElse(null),
                new TreeSet<>(job.wishes().days()),
                boards.noShows(id).stream()
                        .map(n -> new NoShowView(n.start(), n.note(), n.enteredBy()))
                        .toList(),
                why,
                visits.worthDoingWith(job, OFFERS).stream()
                        .map(v -> new WhileHereView(
                                v.state().vehicle().id(),
                                v.state().vehicle().registration(),
                                v.occasion().words()))
                        .toList());
    }

    /** The best slots now. */
    List<SlotOfferView> offers(long id) {
        BoardCases.Gathered gathered = cases.now();
        jobs.get(id);
        Board board = Board.lay(gathered.plan(), Map.of());
        return Boards.offers(gathered, id, OFFERS).stream()
                .map(o -> new SlotOfferView(
                        views.place(gathered, o.place(), id, board),
                        o.share().waiting(),
                        o.share().offRoad(),
                        o.share().changeovers(),
                        o.restMinor(),
                        o.total(),
                        o.later().stream()
                                .map(l -> new LaterView(
                                        l.jobId(),
                                        l.name(),
                                        l.days().isPresent() ? l.days().getAsInt() : null))
                                .toList()))
                .toList();
    }
}
