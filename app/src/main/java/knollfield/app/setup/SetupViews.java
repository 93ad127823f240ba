package knollfield.app.setup;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import knollfield.app.due.Forecasts;
import knollfield.app.due.MoveView;
import knollfield.app.settings.Assumption;
import knollfield.app.settings.Assumptions;
import knollfield.app.settings.Timings;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.core.bundle.School;
import knollfield.core.due.Policy;
import org.jspecify.annotations.Nullable;

/** The workshop and its figures, as they are shown and asked for. */
final class SetupViews {

    private SetupViews() {}

    private static final int SHOWN = 50;

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

    static AssumptionView view(
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

    static PreviewView preview(List<Forecasts.Move> moves) {
        return new PreviewView(
                moves.size(),
                (int) moves.stream()
                        .filter(m -> m.before().forecast().status()
                                != m.after().forecast().status())
                        .count(),
                moves.stream().limit(SHOWN).map(MoveView::of).toList());
    }

    static WorkshopView view(Workshop w) {
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
