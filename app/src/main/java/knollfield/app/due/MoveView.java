package knollfield.app.due;

import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/** A vehicle that moved, as it is told: status and act-by date before and after. */
public record MoveView(
        long vehicleId,
        String registration,
        String ownerName,
        String before,
        @Nullable LocalDate actByBefore,
        String after,
        @Nullable LocalDate actByAfter) {

    public static MoveView of(Forecasts.Move m) {
        return new MoveView(
                m.after().vehicle().id(),
                m.after().vehicle().registration(),
                m.after().vehicle().ownerName(),
                m.before().forecast().status().words(),
                m.before().forecast().actBy().orElse(null),
                m.after().forecast().status().words(),
                m.after().forecast().actBy().orElse(null));
    }
}
