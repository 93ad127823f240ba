package knollfield.app.board;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Collectors;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.plan.Board;
import knollfield.core.plan.Place;
import knollfield.core.plan.PlanChange;
import knollfield.core.plan.PlanCost;
import knollfield.core.plan.PlanSearch;
import knollfield.core.plan.Ruler;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Service;

/** "Work out a plan": one run at a time in the background, seen by all; changes nothing until it is accepted. */
@Service
class Planner implements DisposableBean {

    private static final Logger LOG = LoggerFactory.getLogger(Planner.class);

    private final BoardCases cases;
    private final Boards boards;
    private final WorkshopClock clock;
    private final Duration limit;
    private final ExecutorService thread = Executors.newSingleThreadExecutor(task -> {
        Thread t = new Thread(task, "planner");
        t.setDaemon(true);
        return t;
    });
    private final AtomicLong numbers = new AtomicLong();
    private volatile @Nullable Run run;

    Planner(
            BoardCases cases,
            Boards boards,
            WorkshopClock clock,
            @Value("${knollfield.planner.seconds:10}") double seconds) {
        this.cases = cases;
        this.boards = boards;
        this.clock = clock;
        limit = Duration.ofMillis(Math.round(seconds * 1000));
    }

    /** How far a run has come. */
    enum Phase {
        RUNNING,
        DONE,
        FAILED
    }

    /** One run, as it goes; what it found stands in {@code places} once it is done. */
    static final class Run {
        final long id;
        final String by;
        final Instant began;
        final long seed;
        final BoardCases.Gathered gathered;
        final PlanCost before;
        volatile PlanSearch.Progress progress;
        volatile Phase phase = Phase.RUNNING;
        volatile boolean stop;
        volatile Map<Long, Place> places;

        private Run(long id, String by, Instant began, long seed, BoardCases.Gathered gathered) {
            this.id = id;
            this.by = by;
            this.began = began;
            this.seed = seed;
            this.gathered = gathered;
            places = gathered.places();
            // a job that cannot start where it stands has no place that a plan could be measured against
            before = Board.lawfulCost(gathered.plan(), gathered.places());
            progress = new PlanSearch.Progress(0, 0, before);
        }

        /** What would move against the board it began from. */
        List<PlanChange> changes() {
            return PlanChange.between(gathered.plan(), gathered.places(), places);
        }
    }

    /**
     * Begins a run, or joins the one that is running.
     *
     * @param steps of each chain, for a run that repeats exactly; empty to search for the usual time
     */
    synchronized Run begin(String by, long seed, Optional<Long> steps) {
        Run running = run;
        if (running != null && running.phase == Phase.RUNNING) {
            return running;
        }
        Run next = new Run(numbers.incrementAndGet(), by, clock.instant(), seed, cases.now());
        run = next;
        PlanSearch.Budget budget = steps.<PlanSearch.Budget>map(PlanSearch.Budget.Steps::new)
                .orElseGet(() -> new PlanSearch.Budget.Time(limit));
        thread.execute(() -> work(next, budget));
        return next;
    }

    private static void work(Run run, PlanSearch.Budget budget) {
        try {
            PlanSearch.Result result = PlanSearch.run(
                    run.gathered.plan(),
                    run.gathered.places(),
                    run.seed,
                    budget,
                    p -> run.progress = p,
                    () -> run.stop);
            // a plan that is not better is none: nothing moves for nothing
            if (result.cost().total() < run.before.total()) {
                run.places = result.places();
            }
            run.phase = Phase.DONE;
        } catch (RuntimeException e) {
            LOG.error("working out a plan failed", e);
            run.phase = Phase.FAILED;
        }
    }

    /** The last run, running or done. */
    Optional<Run> last() {
        return Optional.ofNullable(run);
    }

    Run get(long id) {
        return last().filter(r -> r.id == id).orElseThrow(() -> new NotFound("That plan is gone; work out another."));
    }

    /** Stops a run; its best so far stays. */
    Run stop(long id) {
        Run running = get(id);
        running.stop = true;
        return running;
    }

    /** True where jobs stand elsewhere than when the run began, or there are others. */
    boolean boardChanged(Run r) {
        BoardCases.Gathered now = cases.now();
        return !now.ruler().times().equals(r.gathered.ruler().times())
                || !now.places().equals(sameRuler(r, now))
                || !now.jobs().keySet().equals(r.gathered.jobs().keySet());
    }

    /** The run's places as slots of today's ruler. */
    private static Map<Long, Place> sameRuler(Run r, BoardCases.Gathered now) {
        int shift = now.ruler().day(r.gathered.ruler().first()) * now.ruler().perDay();
        return r.gathered.places().entrySet().stream()
                .collect(Collectors.toMap(
                        Map.Entry::getKey,
                        e -> new Place(
                                e.getValue().technicianId(),
                                e.getValue().bayId(),
                                e.getValue().start() + shift)));
    }

    /**
     * Makes the changes of some jobs, or of all.
     *
     * @throws Conflict where the run is not done
     */
    void accept(long id, List<Long> jobIds) {
        Run done = get(id);
        if (done.phase != Phase.DONE) {
            throw new Conflict("The plan is still being worked out; stop it first.");
        }
        Ruler ruler = cases.now().ruler();
        if (!ruler.times().equals(done.gathered.ruler().times())) {
            throw new Conflict("The working hours have changed since this plan was worked out; work it out anew.");
        }
        int shift = ruler.day(done.gathered.ruler().first()) * ruler.perDay();
        List<Boards.Move> moves = done.changes().stream()
                .filter(c -> jobIds.contains(c.jobId()))
                .map(c -> new Boards.Move(
                        c.jobId(), c.to().map(p -> new Place(p.technicianId(), p.bayId(), p.start() + shift))))
                .toList();
        if (moves.isEmpty()) {
            throw new InvalidInput("/jobs", "Choose at least one change.");
        }
        boards.accept(moves, "accepted from a plan");
    }

    @Override
    public void destroy() {
        Run running = run;
        if (running != null) {
            running.stop = true;
        }
        thread.shutdownNow();
    }
}
