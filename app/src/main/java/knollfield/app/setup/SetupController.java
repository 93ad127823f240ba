package knollfield.app.setup;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import knollfield.app.due.Forecasts;
import knollfield.app.due.MoveView;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.Assumption;
import knollfield.app.settings.Assumptions;
import knollfield.app.settings.Timings;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.bundle.School;
import knollfield.core.due.Policy;
import knollfield.core.odometer.ClassLearning;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Policy, rates and planning assumptions, and what a change of them would move; the manager's alone. */
@RestController
@RequestMapping("/api/setup")
class SetupController {

    private static final int SHOWN = 50;

    private final WorkshopSettings settings;
    private final Forecasts forecasts;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    SetupController(WorkshopSettings settings, Forecasts forecasts, CurrentPerson current, WorkshopClock clock) {
        this.settings = settings;
        this.forecasts = forecasts;
        this.current = current;
        this.clock = clock;
    }

    /**
     * Shares run from 0 to 1; money is in minor units of the currency.
     *
     * @param stranding what one that does not happen is worth beyond its bills, in the currency itself
     * @param visit what renewing on a visit for other work saves, in the currency itself
     * @param visitsPerYear of a vehicle for other work
     */
    record WorkshopView(
            String name,
            String currency,
            Timings.Kind policy,
            double earlyShare,
            @Nullable Integer fixedKm,
            @Nullable Integer fixedMonths,
            double riskInterference,
            double riskOther,
            int horizonDays,
            Policy.UnknownRule unknownRule,
            boolean statedCounts,
            long labourRateMinor,
            long recoveryMinor,
            long dayOffRoadMinor,
            int daysOffRoad,
            double shareFailedAtLimits,
            double wearShape,
            School school,
            School.Seals seals,
            double stranding,
            double visit,
            double visitsPerYear,
            int version,
            String changedBy,
            Instant changedAt) {}

    /**
     * @param unit as it is written; a share is kept from 0 to 1 and written in per cent
     * @param share true where it is such a share
     * @param value as the workshop has it
     * @param changedBy null where it is as usual
     */
    record AssumptionView(
            String name,
            String group,
            String words,
            String unit,
            boolean share,
            double usual,
            double value,
            double min,
            double max,
            boolean whole,
            @Nullable String changedBy,
            @Nullable Instant changedAt) {}

    /** What a usage class has learned from the workshop's own vehicles. */
    record ClassView(
            String name,
            int vehicles,
            boolean learned,
            int needed,
            double assumedMean,
            double assumedSpread,
            double mean,
            double spread) {}

    record ChangeView(Instant at, String by, String what, String before, String after) {}

    record AssumptionsView(
            int version, List<AssumptionView> assumptions, List<ClassView> classes, List<ChangeView> changes) {}

    /** @param amounts by name; those left out stay as they are */
    record AssumptionsChange(Map<String, Double> amounts, int version) {}

    /**
     * What a change would move.
     *
     * @param vehicles how many, of which {@code moves} holds the worst fifty
     * @param newStatus how many of them change their status
     */
    record PreviewView(int vehicles, int newStatus, List<MoveView> moves) {}

    @GetMapping("/workshop")
    WorkshopView workshop() {
        return view(settings.get());
    }

    @PutMapping("/workshop")
    WorkshopView changeWorkshop(@RequestBody WorkshopChange c) {
        settings.change(workshop(c), c.amounts());
        return view(settings.get());
    }

    /** What the change would move; changes nothing. */
    @PostMapping("/workshop/preview")
    PreviewView previewWorkshop(@RequestBody WorkshopChange c) {
        return preview(forecasts.preview(workshop(c)));
    }

    @GetMapping("/assumptions")
    AssumptionsView assumptions() {
        Assumptions set = settings.get().assumptions();
        Map<String, WorkshopSettings.Changed> changed = settings.assumptionChanges();
        return new AssumptionsView(
                settings.get().version(),
                settings.catalogue().stream()
                        .map(a -> view(a, set, changed, settings.get().currency()))
                        .toList(),
                forecasts.classes().values().stream()
                        .sorted(java.util.Comparator.comparing(c -> c.assumed().name()))
                        .map(c -> new ClassView(
                                c.assumed().name(),
                                c.vehicles(),
                                c.learned(),
                                ClassLearning.MIN_VEHICLES,
                                c.assumed().meanKmPerYear(),
                                c.assumed().sdKmPerYear(),
                                c.inForce().meanKmPerYear(),
                                c.inForce().sdKmPerYear()))
                        .toList(),
                settings.changes().stream()
                        .map(c -> new ChangeView(c.at(), c.by(), c.what(), c.before(), c.after()))
                        .toList());
    }

    @PutMapping("/assumptions")
    AssumptionsView changeAssumptions(@RequestBody AssumptionsChange c) {
        settings.assume(c.amounts(), c.version(), current.get().name(), clock.instant());
        return assumptions();
    }

    /** What the change would move; changes nothing. */
    @PostMapping("/assumptions/preview")
    PreviewView previewAssumptions(@RequestBody AssumptionsChange c) {
        Workshop next = settings.get()
                .with(settings.checked(c.amounts()), c.version(), current.get().name(), clock.instant());
        return preview(forecasts.preview(next));
    }

    private static AssumptionView view(
            Assumption a, Assumptions set, Map<String, WorkshopSettings.Changed> changed, String currency) {
        Optional<WorkshopSettings.Changed> last = Optional.ofNullable(changed.get(a.name()));
        return new AssumptionView(
                a.name(),
                a.group(),
                a.words(),
                a.unitWords(currency),
                a.isShare(),
                a.usual(),
                set.value(a.name()).orElse(a.usual()),
                a.min(),
                a.max(),
                a.whole(),
                last.map(WorkshopSettings.Changed::by).orElse(null),
                last.map(WorkshopSettings.Changed::at).orElse(null));
    }

    private static PreviewView preview(List<Forecasts.Move> moves) {
        return new PreviewView(
                moves.size(),
                (int) moves.stream()
                        .filter(m -> m.before().forecast().status()
                                != m.after().forecast().status())
                        .count(),
                moves.stream().limit(SHOWN).map(MoveView::of).toList());
    }

    private Workshop workshop(WorkshopChange c) {
        return c.on(settings.get(), current.get().name(), clock.instant());
    }

    private static WorkshopView view(Workshop w) {
        Policy p = w.policy();
        return new WorkshopView(
                w.name(),
                w.currency(),
                Timings.kindOf(p.timing()),
                p.share(),
                Timings.km(p.timing()),
                Timings.months(p.timing()),
                p.riskInterference(),
                p.riskOther(),
                p.horizonDays(),
                p.unknownRule(),
                p.statedCounts(),
                w.labourRateMinor(),
                w.costs().recoveryMinor(),
                w.costs().dayOffRoadMinor(),
                w.costs().daysOffRoad(),
                w.wear().shareFailedAtLimits(),
                w.wear().shape(),
                w.school(),
                w.seals(),
                w.assumptions().stranding(),
                w.assumptions().visit(),
                w.assumptions().visitsPerYear(),
                w.version(),
                w.changedBy(),
                w.changedAt());
    }
}
