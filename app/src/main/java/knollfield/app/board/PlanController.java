package knollfield.app.board;

import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import knollfield.app.away.Absences;
import knollfield.app.board.PlanViews.AcceptIn;
import knollfield.app.board.PlanViews.BoardWhatIfView;
import knollfield.app.board.PlanViews.LastPlanView;
import knollfield.app.board.PlanViews.PlanIn;
import knollfield.app.board.PlanViews.PlanView;
import knollfield.app.board.PlanViews.TakeOverIn;
import knollfield.app.board.PlanViews.WhatIfAcceptIn;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.CurrentPerson;
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
    private final PlanPages pages;
    private final CurrentPerson current;

    PlanController(Planner planner, WhatIfs whatIfs, Absences absences, PlanPages pages, CurrentPerson current) {
        this.planner = planner;
        this.whatIfs = whatIfs;
        this.absences = absences;
        this.pages = pages;
        this.current = current;
    }

    @GetMapping("/plan")
    LastPlanView last() {
        return new LastPlanView(planner.last().map(pages::view).orElse(null));
    }

    /** Begins a run, or joins the one that is running. */
    @PostMapping("/plan")
    PlanView begin(@RequestBody PlanIn in) {
        if (in.steps() != null && (in.steps() < 1 || in.steps() > MOST_STEPS)) {
            throw new InvalidInput("/steps", "Must be 1 to 10,000,000.");
        }
        return pages.view(planner.begin(
                current.get().name(), Optional.ofNullable(in.seed()).orElse(1L), Optional.ofNullable(in.steps())));
    }

    @PostMapping("/plan/{id}/stop")
    PlanView stop(@PathVariable long id) {
        return pages.view(planner.stop(id));
    }

    @PostMapping("/plan/{id}/accept")
    PlanView accept(@PathVariable long id, @RequestBody AcceptIn in) {
        planner.accept(id, in.jobIds());
        return pages.view(planner.get(id));
    }

    /** What would move if something were away; changes nothing. */
    @PostMapping("/what-if")
    BoardWhatIfView whatIf(@RequestBody BoardJobViews.AbsenceIn in) {
        return pages.whatIf(whatIfs.ask(in.checked(absences)));
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
