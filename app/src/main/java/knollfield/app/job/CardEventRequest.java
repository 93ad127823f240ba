package knollfield.app.job;

import java.math.BigDecimal;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.app.problem.InvalidInput;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.GateKind;
import knollfield.core.units.DistanceUnit;
import knollfield.core.units.TorqueUnit;
import org.jspecify.annotations.Nullable;

/**
 * An entry as the bench sends it. Which fields are needed follows from the type.
 *
 * @param clientKey chosen by the sender; an entry sent twice with the same key counts once
 * @param basedOn number of the last entry the sender had seen
 * @param insist take an odometer that does not fit the readings on file
 */
public record CardEventRequest(
        String clientKey,
        long basedOn,
        Type type,
        @Nullable String step,
        @Nullable String phase,
        @Nullable BigDecimal odometer,
        @Nullable DistanceUnit odometerUnit,
        @Nullable Boolean insist,
        @Nullable Double value,
        @Nullable TorqueUnit unit,
        @Nullable Integer angleDegrees,
        @Nullable Boolean unitConfirmed,
        @Nullable String result,
        @Nullable Integer count,
        @Nullable Set<String> notTrue,
        @Nullable GateKind gate,
        @Nullable String words) {

    /** What is entered. */
    public enum Type {
        START,
        TICK_PHASE,
        TICK,
        INSPECT,
        COUNT,
        TORQUE,
        TURN,
        MARKS,
        HARD_STOP,
        UNDO,
        OVERRIDE,
        COMPLETE
    }

    /**
     * The event this entry stands for.
     *
     * @throws InvalidInput naming the field that its type needs and that is missing
     */
    CardEvent toEvent() {
        return switch (type) {
            case START ->
                new CardEvent.Started(odometerKm(), Optional.ofNullable(words).orElse(""));
            case TICK_PHASE -> new CardEvent.PhaseTicked(need(phase, "/phase"));
            case TICK -> new CardEvent.Ticked(need(step, "/step"));
            case INSPECT -> new CardEvent.Inspected(need(step, "/step"), need(result, "/result"));
            case COUNT -> new CardEvent.Counted(need(step, "/step"), need(count, "/count"));
            case TORQUE ->
                new CardEvent.TorqueEntered(
                        need(step, "/step"),
                        need(value, "/value"),
                        need(unit, "/unit"),
                        angleDegrees == null ? OptionalInt.empty() : OptionalInt.of(angleDegrees),
                        Boolean.TRUE.equals(unitConfirmed));
            case TURN -> new CardEvent.Turned(need(step, "/step"));
            case MARKS -> new CardEvent.MarksRead(need(step, "/step"), need(notTrue, "/notTrue"));
            case HARD_STOP -> new CardEvent.HardStop(Optional.ofNullable(words).orElse(""));
            case UNDO -> new CardEvent.Undone(need(step, "/step"));
            case OVERRIDE -> new CardEvent.GateOverridden(need(gate, "/gate"), need(words, "/words"));
            case COMPLETE -> new CardEvent.Completed(Optional.ofNullable(words).orElse(""));
        };
    }

    /** The odometer at check-in, km, rounded. */
    int odometerKm() {
        return (int) Math.round(need(odometerUnit, "/odometerUnit")
                .toKm(need(odometer, "/odometer").doubleValue()));
    }

    private static <T> T need(@Nullable T value, String pointer) {
        if (value == null) {
            throw new InvalidInput(pointer, "This is missing.");
        }
        return value;
    }
}
