package knollfield.core.risk;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
import knollfield.core.due.FindingEffect;
import knollfield.core.due.Urgency;
import knollfield.core.due.VehicleForecast;

/** In which order vehicles ask for a decision (rules.md section 2). */
public final class DeskOrder {

    private DeskOrder() {}

    /** A vehicle and what a week of its waiting may cost. */
    public interface Waiting {
        VehicleForecast forecast();

        /** Exposure of the next seven days; empty where it is not known. */
        Optional<Exposure> week();
    }

    /**
     * By urgency. Within one: what has been found and whose cost nobody knows, then what a week costs, the dearest first, then
     * the act-by day.
     */
    public static <W extends Waiting> Comparator<W> byExposure() {
        return by(w -> w.week().map(Exposure::amountMinor).orElse(0.0));
    }

    /** The same by another price of waiting, the dearest first. */
    public static <W extends Waiting> Comparator<W> by(ToDoubleFunction<? super W> price) {
        return Comparator.comparing((W w) -> Urgency.of(w.forecast().status()))
                .thenComparing(w -> !isFoundAndNotKnown(w))
                .thenComparingDouble(w -> -price.applyAsDouble(w))
                .thenComparing(w -> w.forecast().actBy().orElse(LocalDate.MAX));
    }

    private static boolean isFoundAndNotKnown(Waiting w) {
        return w.week().isEmpty()
                && w.forecast().findings().stream().map(FindingEffect::call).anyMatch(FindingEffect.Call::movesTheDate);
    }
}
