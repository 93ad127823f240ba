package knollfield.app.board;

import java.time.Instant;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.app.away.Absences;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.CurrentPerson;
import knollfield.core.plan.Board;
import knollfield.core.plan.Broken;
import knollfield.core.plan.Place;
import knollfield.core.plan.PlanChange;
import knollfield.core.plan.Shop;
import knollfield.core.plan.WhatIf;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Working out a plan, and what if; both end in changes to be accepted. */
@RestController
@RequestMapping("/api/board")
class PlanController {

    private static final long MOST_STEPS = 10_000_000;

    private final Planner planner;
    private final WhatIfs whatIfs;
    private final Absences absences;
    private final BoardViews views;
    private final Jobs jobs;
    private final CurrentPerson current;

    PlanController(
            Planner planner, WhatIfs whatIfs, Absences absences, BoardViews views, Jobs jobs, CurrentPerson current) {
        this.jobs = jobs;
        this.planner = planner;
        this.whatIfs = whatIfs;
        this.absences = absences;
        this.views = views;
        this.current = current;
    }

    /**
     * @param seed of the search; 1 where left out
     * @param steps of each of its two chains, for a run that repeats exactly; the usual time where left out
     */
    record PlanIn(@Nullable Long seed, @Nullable Long steps) {}

    record AcceptIn(List<Long> jobIds) {}

    /**
     * One job that would stand elsewhere.
     *
     * @param savesMinor what its own waiting and days off the road change by
     * @param needs jobs whose changes must be made with it, as they stand in its way now
     * @param tell the owner who counts on the time it has now, with the number to ring; null where nobody does
     */
    record PlanChangeView(
            long jobId,
            String registration,
            BoardViews.@Nullable PlaceView from,
            BoardViews.@Nullable PlaceView to,
            long savesMinor,
            Set<Long> needs,
            @Nullable String tell) {}

    /**
     * A run.
     *
     * @param done 0 to 1
     * @param changes what would move; empty while it runs, and where nothing better was found
     * @param boardChanged somebody changed the board since it began
     */
    record PlanView(
            long id,
            String by,
            Instant began,
            Planner.Phase phase,
            boolean stopped,
            double done,
            long steps,
            BoardViews.PlanCostView before,
            BoardViews.PlanCostView best,
            List<PlanChangeView> changes,
            boolean boardChanged) {}

    record LastPlanView(@Nullable PlanView plan) {}

    record StruckView(long jobId, String registration, List<String> words, boolean promiseBroken) {}

    /** What would move if the worse happened; money in minor units. */
    record BoardWhatIfView(
            BoardViews.PlanCostView before,
            BoardViews.PlanCostView after,
            List<StruckView> struck,
            List<PlanChangeView> changes,
            List<OnLiftView> onLift) {}

    record TakerView(long technicianId, String name) {}

    /**
     * A vehicle on the lift of whoever is away.
     *
     * @param minutesLeft of its work
     * @param takers who knows the work and is free for it
     */
    record OnLiftView(long jobId, String registration, String technician, int minutesLeft, List<TakerView> takers) {}

    record TakeOverIn(long jobId, long technicianId) {}

    /** @param takeOver who takes over what is on the lift; what is not named there stays open */
    record WhatIfAcceptIn(
            BoardController.AbsenceIn absence,
            Set<Long> jobIds,
            @Nullable List<TakeOverIn> takeOver) {}

    @GetMapping("/plan")
    LastPlanView last() {
        return new LastPlanView(planner.last().map(this::view).orElse(null));
    }

    /** Begins a run, or joins the one that is running. */
    @PostMapping("/plan")
    PlanView begin(@RequestBody PlanIn in) {
        if (in.steps() != null && (in.steps() < 1 || in.steps() > MOST_STEPS)) {
            throw new InvalidInput("/steps", "Must be 1 to 10,000,000.");
        }
        return view(planner.begin(
                current.get().name(), Optional.ofNullable(in.seed()).orElse(1L), Optional.ofNullable(in.steps())));
    }

    @PostMapping("/plan/{id}/stop")
    PlanView stop(@PathVariable long id) {
        return view(planner.stop(id));
    }

    @PostMapping("/plan/{id}/accept")
    PlanView accept(@PathVariable long id, @RequestBody AcceptIn in) {
        planner.accept(id, in.jobIds());
        return view(planner.get(id));
    }

    private PlanView view(Planner.Run run) {
        boolean done = run.phase == Planner.Phase.DONE;
        return new PlanView(
                run.id,
                run.by,
                run.began,
                run.phase,
                run.stop,
                run.progress.done(),
                run.progress.steps(),
                BoardViews.PlanCostView.of(run.before),
                BoardViews.PlanCostView.of(run.progress.best()),
                done ? changes(run.gathered, run.changes()) : List.of(),
                done && planner.boardChanged(run));
    }

    private List<PlanChangeView> changes(BoardCases.Gathered gathered, List<PlanChange> changes) {
        Board board = Board.lay(gathered.plan(), Map.of());
        Map<Long, Set<Long>> needs = PlanChange.needs(gathered.plan(), gathered.places(), changes);
        return changes.stream()
                .map(c -> new PlanChangeView(
                        c.jobId(),
                        gathered.plan().job(c.jobId()).name(),
                        c.from()
                                .map(p -> views.place(gathered, p, c.jobId(), board))
                                .orElse(null),
                        c.to().map(p -> views.place(gathered, p, c.jobId(), board))
                                .orElse(null),
                        board.alone(c.jobId(), c.from()) - board.alone(c.jobId(), c.to()),
                        needs.getOrDefault(c.jobId(), Set.of()),
                        tell(gathered.job(c.jobId()), c).orElse(null)))
                .sorted(Comparator.comparing(c -> -c.savesMinor()))
                .toList();
    }

    private Optional<String> tell(Job job, PlanChange change) {
        boolean sameTime = change.to().map(Place::start).equals(change.from().map(Place::start));
        return job.booking()
                .filter(b -> b.promised() && !sameTime)
                .map(b -> jobs.state(job).vehicle())
                .map(v -> v.ownerName() + ", " + v.ownerPhone());
    }

    /** What would move if something were away; changes nothing. */
    @PostMapping("/what-if")
    BoardWhatIfView whatIf(@RequestBody BoardController.AbsenceIn in) {
        WhatIfs.Looked looked = whatIfs.ask(in.checked(absences));
        WhatIf.Answer answer = looked.answer();
        return new BoardWhatIfView(
                BoardViews.PlanCostView.of(answer.before()),
                BoardViews.PlanCostView.of(answer.after()),
                answer.struck().entrySet().stream()
                        .map(e -> new StruckView(
                                e.getKey(),
                                looked.now().plan().job(e.getKey()).name(),
                                e.getValue().stream().map(Broken::words).toList(),
                                answer.promisesBroken().contains(e.getKey())))
                        .toList(),
                changes(looked.now(), answer.changes()),
                answer.onLift().stream().map(l -> onLift(looked.now(), l)).toList());
    }

    private static OnLiftView onLift(BoardCases.Gathered now, WhatIf.OnLift lift) {
        Shop shop = now.plan().shop();
        Place place = Objects.requireNonNull(now.places().get(lift.jobId()));
        return new OnLiftView(
                lift.jobId(),
                now.plan().job(lift.jobId()).name(),
                shop.technician(place.technicianId()).map(Shop.Technician::name).orElse(""),
                lift.slotsLeft() * BoardCases.MINUTES_PER_SLOT,
                lift.takers().stream()
                        .flatMap(id -> shop.technician(id).stream())
                        .map(t -> new TakerView(t.id(), t.name()))
                        .toList());
    }

    /** Enters the absence and moves what it strikes, as was seen. */
    @PostMapping("/what-if/accept")
    void accept(@RequestBody WhatIfAcceptIn in) {
        whatIfs.accept(
                in.absence().checked(absences),
                new HashSet<>(in.jobIds()),
                Objects.requireNonNullElse(in.takeOver(), List.<TakeOverIn>of()).stream()
                        .collect(Collectors.toMap(TakeOverIn::jobId, TakeOverIn::technicianId, (a, b) -> b)));
    }
}
