package knollfield.core.risk;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
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
    public static final Comparator<Waiting> BY_EXPOSURE =
            by(w -> -w.week().map(Exposure::amountMinor).orElse(0.0));

    /** The same by another measure in place of the cost of a week, the smallest first. */
    public static Comparator<Waiting> by(ToDoubleFunction<Waiting> measure) {
        return Comparator.comparing((Waiting w) -> Urgency.of(w.forecast().status()))
                .thenComparing(w -> !isFoundAndNotKnown(w))
                .thenComparingDouble(measure)
                .thenComparing(w -> w.forecast().actBy().orElse(LocalDate.MAX));
    }

    private static boolean isFoundAndNotKnown(Waiting w) {
        return w.week().isEmpty()
                && w.forecast().findings().stream().anyMatch(f -> f.call().movesTheDate());
    }
}
