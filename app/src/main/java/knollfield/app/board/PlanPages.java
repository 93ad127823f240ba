package knollfield.app.board;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.app.board.PlanViews.BoardWhatIfView;
import knollfield.app.board.PlanViews.PlanChangeView;
import knollfield.app.board.PlanViews.PlanView;
import knollfield.app.board.PlanViews.StruckView;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.core.plan.Board;
import knollfield.core.plan.Broken;
import knollfield.core.plan.Place;
import knollfield.core.plan.PlanChange;
import knollfield.core.plan.WhatIf;
import org.springframework.stereotype.Component;

/** A run of the planner and a what-if, put together. */
@Component
class PlanPages {

    private final Planner planner;
    private final BoardViews views;
    private final Jobs jobs;

    PlanPages(Planner planner, BoardViews views, Jobs jobs) {
        this.planner = planner;
        this.views = views;
        this.jobs = jobs;
    }

    PlanView view(Planner.Run run) {
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

    BoardWhatIfView whatIf(WhatIfs.Looked looked) {
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
                answer.onLift().stream()
                        .map(l -> PlanViews.onLift(looked.now(), l))
                        .toList());
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
}
