package knollfield.app.job;

import java.math.BigDecimal;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.app.problem.InvalidInput;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.GateKind;
import knollfield.core.units.DistanceUnit;
import knollfield.core.units.Torque;
import knollfield.core.units.TorqueUnit;
import org.jspecify.annotations.Nullable;

/**
 * An entry as the bench sends it. Which fields are needed follows from the type.
 *
 * @param clientKey chosen by the sender; an entry sent twice with the same key counts once
 * @param basedOn number of the last entry the sender had seen
 * @param insist take an odometer that does not fit the readings on file
 * @param words a note, reason or origin
 * @param option a choice, a person's name, or what became of the old parts
 * @param wrong points or references that do not hold
 * @param counts teeth on each run of the new belt
 * @param oldCounts teeth on each run of the old belt
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
        @Nullable String keys,
        @Nullable String codes,
        @Nullable Double value,
        @Nullable TorqueUnit unit,
        @Nullable Integer angleDegrees,
        @Nullable Boolean unitConfirmed,
        @Nullable String result,
        @Nullable String option,
        @Nullable Integer count,
        @Nullable List<Integer> counts,
        @Nullable List<Integer> oldCounts,
        @Nullable Set<String> wrong,
        @Nullable GateKind gate,
        CardEvent.@Nullable PauseReason why,
        @Nullable EvidenceKind evidence,
        @Nullable String item,
        @Nullable Boolean urgent,
        @Nullable Integer minutes,
        @Nullable String part,
        @Nullable Long partMinor,
        CardEvent.@Nullable OldParts oldParts,
        @Nullable Integer days,
        @Nullable String words) {

    /** What is entered. */
    public enum Type {
        START,
        TICK_PHASE,
        TICK,
        INSPECT,
        CHOOSE,
        COUNT,
        CHECK,
        MEASURE,
        RUNS,
        PASS,
        TORQUE,
        FILE_TORQUE,
        TURN,
        MARKS,
        OUT_OF_TIME,
        HARD_STOP,
        UNDO,
        DEVIATE,
        DEFER,
        OVERRIDE,
        PAUSE,
        RESUME,
        JOIN,
        LEAVE,
        HAND_OVER,
        FOUND,
        SIDE_FINDING,
        CONTINGENCY,
        RECHECK,
        COMPLETE
    }

    /**
     * The event this entry stands for.
     *
     * @param fixed what a card is made for from check-in on
     * @throws InvalidInput naming the field that its type needs and that is missing
     */
    CardEvent toEvent(CardEvent.Fixed fixed) {
        return switch (type) {
            case START -> new CardEvent.Started(odometerKm(), text(words), text(keys), text(codes), Optional.of(fixed));
            case TICK_PHASE -> new CardEvent.PhaseTicked(need(phase, "/phase"));
            case TICK -> new CardEvent.Ticked(atStep());
            case INSPECT -> new CardEvent.Inspected(atStep(), need(result, "/result"));
            case CHOOSE -> new CardEvent.Chosen(atStep(), need(option, "/option"), text(words));
            case COUNT -> new CardEvent.Counted(atStep(), need(count, "/count"));
            case CHECK -> new CardEvent.Checked(atStep(), need(wrong, "/wrong"));
            case MEASURE -> new CardEvent.Measured(atStep(), need(value, "/value"));
            case RUNS ->
                new CardEvent.RunsCounted(
                        atStep(), need(oldCounts, "/oldCounts"), need(counts, "/counts"), need(count, "/count"));
            case PASS -> new CardEvent.Passed(atStep());
            case TORQUE ->
                new CardEvent.TorqueEntered(
                        atStep(),
                        need(value, "/value"),
                        need(unit, "/unit"),
                        angle(),
                        Boolean.TRUE.equals(unitConfirmed));
            case FILE_TORQUE -> new CardEvent.TorqueFiled(atStep(), filed());
            case TURN -> new CardEvent.Turned(atStep());
            case MARKS -> new CardEvent.MarksRead(atStep(), need(wrong, "/wrong"));
            case OUT_OF_TIME -> new CardEvent.OutOfTime(text(words));
            case HARD_STOP -> new CardEvent.HardStop(text(words));
            case UNDO -> new CardEvent.Undone(atStep());
            case DEVIATE -> new CardEvent.Deviated(atStep(), text(words));
            case DEFER -> new CardEvent.Deferred(atStep());
            case OVERRIDE -> new CardEvent.GateOverridden(need(gate, "/gate"), need(words, "/words"));
            default -> beside();
        };
    }

    /** What is entered beside the steps. */
    private CardEvent beside() {
        return switch (type) {
            case PAUSE -> new CardEvent.Paused(need(why, "/why"), text(words));
            case RESUME -> new CardEvent.Resumed();
            case JOIN -> new CardEvent.Joined();
            case LEAVE -> new CardEvent.Left();
            case HAND_OVER -> new CardEvent.HandedOver(need(option, "/option"), text(words));
            case FOUND ->
                new CardEvent.Found(
                        Optional.ofNullable(step), need(evidence, "/evidence"), Optional.ofNullable(item), text(words));
            case SIDE_FINDING -> new CardEvent.SideFinding(text(words), Boolean.TRUE.equals(urgent));
            case CONTINGENCY ->
                new CardEvent.Contingency(
                        atStep(),
                        text(words),
                        need(minutes, "/minutes"),
                        text(part),
                        Objects.requireNonNullElse(partMinor, 0L));
            case RECHECK -> new CardEvent.RecheckAsked(text(words), need(days, "/days"));
            case COMPLETE ->
                new CardEvent.Completed(
                        text(words),
                        minutes == null ? OptionalInt.empty() : OptionalInt.of(minutes),
                        Objects.requireNonNullElse(oldParts, CardEvent.OldParts.SHOWN_AND_SCRAPPED));
            default -> throw new IllegalStateException("no event for " + type);
        };
    }

    private TorqueSpec filed() {
        double figure = need(value, "/value");
        if (!(figure > 0) || figure > 2_000) {
            throw new InvalidInput("/value", "A torque is above zero and at most 2,000.");
        }
        if (angle().isPresent() && (angle().getAsInt() < 1 || angle().getAsInt() > 720)) {
            throw new InvalidInput("/angleDegrees", "An angle is 1 to 720 degrees.");
        }
        return new TorqueSpec(Torque.of(figure, need(unit, "/unit")), angle(), need(words, "/words"));
    }

    private OptionalInt angle() {
        return angleDegrees == null ? OptionalInt.empty() : OptionalInt.of(angleDegrees);
    }

    private String atStep() {
        return need(step, "/step");
    }

    private static String text(@Nullable String value) {
        return Objects.requireNonNullElse(value, "").strip();
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
