package knollfield.app.breakdown;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.problem.Checks;
import knollfield.app.settings.WorkshopSettings;
import knollfield.core.engine.Item;
import knollfield.core.learn.WearLearning;
import knollfield.core.learn.WearLearning.Span;
import knollfield.core.learn.YearTold;
import knollfield.core.risk.WearModel;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;
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

    /**
     * A breakdown as it is told.
     *
     * @param item code of what let go; left out where the engine has no book
     * @param costMinor left out where nobody knows yet
     * @param insist keep the odometer although it does not fit the other readings
     */
    record NewBreakdown(
            @Nullable String item,
            LocalDate date,
            BigDecimal value,
            DistanceUnit unit,
            String what,
            @Nullable Long costMinor,
            boolean declined,
            boolean insist) {}

    record NotedBreakdown(long id) {}

    record BreakdownWithdrawal(String why) {}

    /** @param withdrawn why it does not count; left out where it stands */
    record BreakdownView(
            long id,
            long vehicleId,
            String registration,
            String item,
            LocalDate on,
            int km,
            String what,
            @Nullable Long costMinor,
            boolean declined,
            String enteredBy,
            @Nullable String withdrawn) {}

    /** @param lives belts and chains watched in it */
    record YearToldView(int year, double expected, int low, int high, int happened, int lives) {
        static YearToldView of(YearTold y) {
            return new YearToldView(y.year(), y.expected(), y.low(), y.high(), y.happened(), y.lives());
        }
    }

    /** @param total of all its years; its year is 0 */
    record FamilyToldView(String code, String name, List<YearToldView> years, YearToldView total) {}

    /** A figure, below and above which it lies with a chance of 10 % each. */
    record WearSpan(double mean, double low, double high) {
        static WearSpan of(Span s) {
            return new WearSpan(s.mean(), s.low(), s.high());
        }
    }

    record LearnedWearView(int lives, int failures, WearSpan share, WearSpan shape) {
        static LearnedWearView of(WearLearning l) {
            return new LearnedWearView(
                    l.lives(), l.failures(), WearSpan.of(l.shareFailedAtLimits()), WearSpan.of(l.shape()));
        }
    }

    /**
     * Expected against happened.
     *
     * @param learned left out where no life is known
     * @param share failed when the limits are reached, as reckoned with now
     * @param notCounted breakdowns of unknown history, after a finding, or without limits
     * @param version of the workshop's figures
     */
    record BreakdownsView(
            List<FamilyToldView> families,
            @Nullable LearnedWearView learned,
            double share,
            double shape,
            int notCounted,
            List<BreakdownView> breakdowns,
            String currency,
            int version) {}

    /** What is accepted, as it was shown. */
    record AcceptedWear(double share, double shape, int version) {}

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
