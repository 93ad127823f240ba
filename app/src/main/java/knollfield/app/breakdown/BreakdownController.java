package knollfield.app.breakdown;

import java.util.Optional;
import java.util.OptionalLong;
import knollfield.app.breakdown.BreakdownViews.AcceptedWear;
import knollfield.app.breakdown.BreakdownViews.BreakdownView;
import knollfield.app.breakdown.BreakdownViews.BreakdownWithdrawal;
import knollfield.app.breakdown.BreakdownViews.BreakdownsView;
import knollfield.app.breakdown.BreakdownViews.FamilyToldView;
import knollfield.app.breakdown.BreakdownViews.LearnedWearView;
import knollfield.app.breakdown.BreakdownViews.NewBreakdown;
import knollfield.app.breakdown.BreakdownViews.NotedBreakdown;
import knollfield.app.breakdown.BreakdownViews.YearToldView;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.problem.Checks;
import knollfield.app.settings.WorkshopSettings;
import knollfield.core.engine.Item;
import knollfield.core.learn.YearTold;
import knollfield.core.risk.WearModel;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Breakdowns, and what they teach. */
@RestController
class BreakdownController {

    private final Breakdowns breakdowns;
    private final Learning learning;
    private final Forecasts forecasts;
    private final WorkshopSettings settings;

    BreakdownController(Breakdowns breakdowns, Learning learning, Forecasts forecasts, WorkshopSettings settings) {
        this.breakdowns = breakdowns;
        this.learning = learning;
        this.forecasts = forecasts;
        this.settings = settings;
    }

    @PostMapping("/api/vehicles/{vehicleId}/breakdowns")
    NotedBreakdown note(@PathVariable long vehicleId, @RequestBody NewBreakdown in) {
        Long cost = in.costMinor();
        return new NotedBreakdown(breakdowns.note(
                vehicleId,
                new Breakdowns.Told(
                        Optional.ofNullable(in.item()).orElse(""),
                        in.date(),
                        in.value(),
                        in.unit(),
                        in.what(),
                        cost == null ? OptionalLong.empty() : OptionalLong.of(cost),
                        in.declined(),
                        in.insist())));
    }

    @GetMapping("/api/setup/breakdowns")
    BreakdownsView breakdowns() {
        Learning.Told told = learning.told();
        return new BreakdownsView(
                told.families().stream()
                        .map(f -> new FamilyToldView(
                                f.code(),
                                f.name(),
                                f.years().stream().map(YearToldView::of).toList(),
                                YearToldView.of(YearTold.total(f.years()))))
                        .toList(),
                told.learned().map(LearnedWearView::of).orElse(null),
                told.inForce().shareFailedAtLimits(),
                told.inForce().shape(),
                told.notCounted(),
                breakdowns.all().stream().map(this::view).toList(),
                settings.get().currency(),
                settings.get().version());
    }

    @PostMapping("/api/setup/breakdowns/{id}/withdraw")
    BreakdownsView withdraw(@PathVariable long id, @RequestBody BreakdownWithdrawal in) {
        breakdowns.withdraw(id, in.why());
        return breakdowns();
    }

    /** Reckons with what was learned from now on. */
    @PostMapping("/api/setup/breakdowns/accept")
    BreakdownsView accept(@RequestBody AcceptedWear in) {
        new Checks()
                .that(in.share() > 0 && in.share() < 1, "/share", "The share must lie between 0 and 1.")
                .that(in.shape() > 0, "/shape", "The shape must be above zero.")
                .orThrow();
        learning.accept(new WearModel(in.share(), in.shape()), in.version());
        return breakdowns();
    }

    private BreakdownView view(Breakdown b) {
        Optional<VehicleState> state = forecasts.find(b.vehicleId());
        return new BreakdownView(
                b.id(),
                b.vehicleId(),
                state.map(s -> s.vehicle().registration()).orElse(""),
                state.flatMap(VehicleState::family)
                        .flatMap(f -> f.item(b.itemCode()))
                        .map(Item::name)
                        .orElse("Timing drive"),
                b.on(),
                b.km(),
                b.what(),
                b.costMinor().isPresent() ? b.costMinor().getAsLong() : null,
                b.declined(),
                b.enteredBy(),
                b.withdrawn().map(Breakdown.Withdrawn::why).orElse(null));
    }
}
