package knollfield.app.job.card;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import java.math.BigDecimal;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.app.problem.Checks;
import knollfield.app.problem.InvalidInput;
import knollfield.core.bundle.FitCheck;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.GateKind;
import knollfield.core.units.DistanceUnit;
import knollfield.core.units.Torque;
import knollfield.core.units.TorqueUnit;
import org.jspecify.annotations.Nullable;

/**
 * An entry as the bench sends it: each kind with its own fields, and the event it stands for. What a kind needs and is
 * missing is named by its field.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({
    @JsonSubTypes.Type(CardEntryIn.StartEntry.class),
    @JsonSubTypes.Type(CardEntryIn.TickPhaseEntry.class),
    @JsonSubTypes.Type(CardEntryIn.TickEntry.class),
    @JsonSubTypes.Type(CardEntryIn.InspectEntry.class),
    @JsonSubTypes.Type(CardEntryIn.ChooseEntry.class),
    @JsonSubTypes.Type(CardEntryIn.CountEntry.class),
    @JsonSubTypes.Type(CardEntryIn.CheckEntry.class),
    @JsonSubTypes.Type(CardEntryIn.MeasureEntry.class),
    @JsonSubTypes.Type(CardEntryIn.RunsEntry.class),
    @JsonSubTypes.Type(CardEntryIn.MarkToMarkEntry.class),
    @JsonSubTypes.Type(CardEntryIn.PassEntry.class),
    @JsonSubTypes.Type(CardEntryIn.TorqueEntry.class),
    @JsonSubTypes.Type(CardEntryIn.FileTorqueEntry.class),
    @JsonSubTypes.Type(CardEntryIn.TurnEntry.class),
    @JsonSubTypes.Type(CardEntryIn.MarksEntry.class),
    @JsonSubTypes.Type(CardEntryIn.OutOfTimeEntry.class),
    @JsonSubTypes.Type(CardEntryIn.HardStopEntry.class),
    @JsonSubTypes.Type(CardEntryIn.UndoEntry.class),
    @JsonSubTypes.Type(CardEntryIn.DeviateEntry.class),
    @JsonSubTypes.Type(CardEntryIn.DeferEntry.class),
    @JsonSubTypes.Type(CardEntryIn.OverrideEntry.class),
    @JsonSubTypes.Type(CardEntryIn.PauseEntry.class),
    @JsonSubTypes.Type(CardEntryIn.ResumeEntry.class),
    @JsonSubTypes.Type(CardEntryIn.JoinEntry.class),
    @JsonSubTypes.Type(CardEntryIn.LeaveEntry.class),
    @JsonSubTypes.Type(CardEntryIn.HandOverEntry.class),
    @JsonSubTypes.Type(CardEntryIn.FoundEntry.class),
    @JsonSubTypes.Type(CardEntryIn.SideFindingEntry.class),
    @JsonSubTypes.Type(CardEntryIn.ContingencyEntry.class),
    @JsonSubTypes.Type(CardEntryIn.BatchEntry.class),
    @JsonSubTypes.Type(CardEntryIn.PartEntry.class),
    @JsonSubTypes.Type(CardEntryIn.ToolFailedEntry.class),
    @JsonSubTypes.Type(CardEntryIn.GoesBackEntry.class),
    @JsonSubTypes.Type(CardEntryIn.RecheckEntry.class),
    @JsonSubTypes.Type(CardEntryIn.CompleteEntry.class)
})
public sealed interface CardEntryIn {

    /** Chosen by the sender; an entry sent twice with the same key counts once. */
    String clientKey();

    /** Number of the last entry the sender had seen. */
    long basedOn();

    /**
     * The event this entry stands for.
     *
     * @param fixed what a card is made for from check-in on
     * @throws InvalidInput naming the field that is missing or out of range
     */
    CardEvent event(CardEvent.Fixed fixed);

    /** An entry about one step. */
    sealed interface AtStep extends CardEntryIn {

        /** Code of the step. */
        @Nullable
        String step();
    }

    /** At check-in. */
    @JsonTypeName("START")
    record StartEntry(
            String clientKey,
            long basedOn,
            @Nullable BigDecimal odometer,
            @Nullable DistanceUnit odometerUnit,
            @Nullable Boolean insist,
            @Nullable String words,
            @Nullable String keys,
            @Nullable String codes)
            implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Started(odometerKm(), text(words), text(keys), text(codes), Optional.of(fixed));
        }

        /** The odometer, km, rounded. */
        private int odometerKm() {
            return (int) Math.round(need(odometerUnit, "/odometerUnit")
                    .toKm(need(odometer, "/odometer").doubleValue()));
        }
    }

    @JsonTypeName("TICK_PHASE")
    record TickPhaseEntry(
            String clientKey, long basedOn, @Nullable String phase) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.PhaseTicked(need(phase, "/phase"));
        }
    }

    @JsonTypeName("TICK")
    record TickEntry(
            String clientKey, long basedOn, @Nullable String step) implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Ticked(at(step));
        }
    }

    /** @param also further results of the same look, where the step takes several */
    @JsonTypeName("INSPECT")
    record InspectEntry(
            String clientKey,
            long basedOn,
            @Nullable String step,
            @Nullable String result,
            @Nullable Set<String> also) implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Inspected(at(step), need(result, "/result"), also == null ? Set.of() : also);
        }
    }

    /** @param words why, where it departs from the usual way */
    @JsonTypeName("CHOOSE")
    record ChooseEntry(
            String clientKey,
            long basedOn,
            @Nullable String step,
            @Nullable String option,
            @Nullable String words) implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Chosen(at(step), need(option, "/option"), text(words));
        }
    }

    @JsonTypeName("COUNT")
    record CountEntry(
            String clientKey,
            long basedOn,
            @Nullable String step,
            @Nullable Integer count) implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Counted(at(step), need(count, "/count"));
        }
    }

    /** @param wrong points that do not hold */
    @JsonTypeName("CHECK")
    record CheckEntry(
            String clientKey,
            long basedOn,
            @Nullable String step,
            @Nullable Set<String> wrong) implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Checked(at(step), need(wrong, "/wrong"));
        }
    }

    /** @param value in the unit of the step */
    @JsonTypeName("MEASURE")
    record MeasureEntry(
            String clientKey,
            long basedOn,
            @Nullable String step,
            @Nullable Double value) implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Measured(at(step), need(value, "/value"));
        }
    }

    /** Teeth on each run of the old and the new belt, and on the wheels of the new one. */
    @JsonTypeName("RUNS")
    record RunsEntry(
            String clientKey,
            long basedOn,
            @Nullable String step,
            @Nullable List<Integer> oldCounts,
            @Nullable List<Integer> counts,
            @Nullable Integer count)
            implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.RunsCounted(
                    at(step), need(oldCounts, "/oldCounts"), need(counts, "/counts"), need(count, "/count"));
        }
    }

    /** Teeth or links from mark to mark on the old and the new one, each counted twice. */
    @JsonTypeName("MARK_TO_MARK")
    record MarkToMarkEntry(
            String clientKey,
            long basedOn,
            @Nullable String step,
            @Nullable List<Integer> oldCounts,
            @Nullable List<Integer> oldAgain,
            @Nullable List<Integer> counts,
            @Nullable List<Integer> again)
            implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.MarksCounted(
                    at(step),
                    new CardEvent.Twice(need(oldCounts, "/oldCounts"), need(oldAgain, "/oldAgain")),
                    new CardEvent.Twice(need(counts, "/counts"), need(again, "/again")));
        }
    }

    @JsonTypeName("PASS")
    record PassEntry(
            String clientKey, long basedOn, @Nullable String step) implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Passed(at(step));
        }
    }

    @JsonTypeName("TORQUE")
    record TorqueEntry(
            String clientKey,
            long basedOn,
            @Nullable String step,
            @Nullable Double value,
            @Nullable TorqueUnit unit,
            @Nullable Integer angleDegrees,
            @Nullable Boolean unitConfirmed)
            implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.TorqueEntered(
                    at(step),
                    need(value, "/value"),
                    need(unit, "/unit"),
                    angle(angleDegrees),
                    Boolean.TRUE.equals(unitConfirmed));
        }
    }

    /**
     * A torque the book does not have.
     *
     * @param words where it comes from
     */
    @JsonTypeName("FILE_TORQUE")
    record FileTorqueEntry(
            String clientKey,
            long basedOn,
            @Nullable String step,
            @Nullable Double value,
            @Nullable TorqueUnit unit,
            @Nullable Integer angleDegrees,
            @Nullable String words)
            implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.TorqueFiled(at(step), filed());
        }

        private TorqueSpec filed() {
            double figure = need(value, "/value");
            if (!(figure > 0) || figure > 2_000) {
                throw new InvalidInput("/value", "A torque is above zero and at most 2,000.");
            }
            OptionalInt turned = angle(angleDegrees);
            if (turned.isPresent() && (turned.getAsInt() < 1 || turned.getAsInt() > 720)) {
                throw new InvalidInput("/angleDegrees", "An angle is 1 to 720 degrees.");
            }
            return new TorqueSpec(Torque.of(figure, need(unit, "/unit")), turned, need(words, "/words"));
        }
    }

    @JsonTypeName("TURN")
    record TurnEntry(
            String clientKey, long basedOn, @Nullable String step) implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Turned(at(step));
        }
    }

    /** @param wrong references that are not true */
    @JsonTypeName("MARKS")
    record MarksEntry(
            String clientKey,
            long basedOn,
            @Nullable String step,
            @Nullable Set<String> wrong) implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.MarksRead(at(step), need(wrong, "/wrong"));
        }
    }

    /** @param planned nothing was found wrong: head or cams were out on purpose; null for no */
    @JsonTypeName("OUT_OF_TIME")
    record OutOfTimeEntry(
            String clientKey,
            long basedOn,
            @Nullable String words,
            @Nullable Boolean planned) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.OutOfTime(text(words), Boolean.TRUE.equals(planned));
        }
    }

    @JsonTypeName("HARD_STOP")
    record HardStopEntry(
            String clientKey, long basedOn, @Nullable String words) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.HardStop(text(words));
        }
    }

    @JsonTypeName("UNDO")
    record UndoEntry(
            String clientKey, long basedOn, @Nullable String step) implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Undone(at(step));
        }
    }

    @JsonTypeName("DEVIATE")
    record DeviateEntry(
            String clientKey,
            long basedOn,
            @Nullable String step,
            @Nullable String words) implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Deviated(at(step), text(words));
        }
    }

    @JsonTypeName("DEFER")
    record DeferEntry(
            String clientKey, long basedOn, @Nullable String step) implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Deferred(at(step));
        }
    }

    @JsonTypeName("OVERRIDE")
    record OverrideEntry(
            String clientKey,
            long basedOn,
            @Nullable GateKind gate,
            @Nullable String words) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.GateOverridden(need(gate, "/gate"), need(words, "/words"));
        }
    }

    @JsonTypeName("PAUSE")
    record PauseEntry(
            String clientKey,
            long basedOn,
            CardEvent.@Nullable PauseReason why,
            @Nullable String words) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Paused(need(why, "/why"), text(words));
        }
    }

    @JsonTypeName("RESUME")
    record ResumeEntry(String clientKey, long basedOn) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Resumed();
        }
    }

    @JsonTypeName("JOIN")
    record JoinEntry(String clientKey, long basedOn) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Joined();
        }
    }

    @JsonTypeName("LEAVE")
    record LeaveEntry(String clientKey, long basedOn) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Left();
        }
    }

    /** @param option name of who goes on */
    @JsonTypeName("HAND_OVER")
    record HandOverEntry(
            String clientKey,
            long basedOn,
            @Nullable String option,
            @Nullable String words) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.HandedOver(need(option, "/option"), text(words));
        }
    }

    /** @param step where it was found; null for the engine as a whole */
    @JsonTypeName("FOUND")
    record FoundEntry(
            String clientKey,
            long basedOn,
            @Nullable String step,
            @Nullable EvidenceKind evidence,
            @Nullable String item,
            @Nullable String words)
            implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Found(
                    Optional.ofNullable(step), need(evidence, "/evidence"), Optional.ofNullable(item), text(words));
        }
    }

    @JsonTypeName("SIDE_FINDING")
    record SideFindingEntry(
            String clientKey,
            long basedOn,
            @Nullable String words,
            @Nullable Boolean urgent) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.SideFinding(text(words), Boolean.TRUE.equals(urgent));
        }
    }

    /** @param joint code of the joint a stud or bolt of which broke off; null where nothing did */
    @JsonTypeName("CONTINGENCY")
    record ContingencyEntry(
            String clientKey,
            long basedOn,
            @Nullable String step,
            @Nullable String words,
            @Nullable Integer minutes,
            @Nullable String part,
            @Nullable Long partMinor,
            @Nullable String joint)
            implements AtStep {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Contingency(
                    at(step),
                    text(words),
                    need(minutes, "/minutes"),
                    text(part),
                    Objects.requireNonNullElse(partMinor, 0L),
                    Optional.ofNullable(joint));
        }
    }

    /** @param words the batch as printed on the part */
    @JsonTypeName("BATCH")
    record BatchEntry(
            String clientKey,
            long basedOn,
            @Nullable String item,
            @Nullable String words) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.BatchRead(need(item, "/item"), text(words));
        }
    }

    /**
     * A new part as it was counted or measured in hand.
     *
     * @param teeth teeth or links
     */
    @JsonTypeName("PART")
    record PartEntry(
            String clientKey,
            long basedOn,
            @Nullable String item,
            @Nullable Integer teeth,
            @Nullable Double widthMm,
            @Nullable Double lengthMm,
            @Nullable Double thicknessMm,
            @Nullable String side)
            implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            Checks checks = new Checks();
            checks.that(teeth == null || (teeth >= 1 && teeth <= 999), "/teeth", "1 to 999 teeth or links.");
            size(checks, widthMm, "/widthMm");
            size(checks, lengthMm, "/lengthMm");
            size(checks, thicknessMm, "/thicknessMm");
            checks.that(side == null || side.length() <= 40, "/side", "At most 40 characters.");
            checks.orThrow();
            return new CardEvent.PartMeasured(
                    need(item, "/item"),
                    new FitCheck.Data(
                            teeth == null ? OptionalInt.empty() : OptionalInt.of(teeth),
                            size(widthMm),
                            size(lengthMm),
                            size(thicknessMm),
                            Optional.ofNullable(side).map(String::strip).filter(s -> !s.isEmpty())));
        }

        private static void size(Checks checks, @Nullable Double mm, String pointer) {
            checks.that(mm == null || (mm > 0 && mm <= 5_000), pointer, "Above 0 and at most 5,000 mm.");
        }

        private static OptionalDouble size(@Nullable Double mm) {
            return mm == null ? OptionalDouble.empty() : OptionalDouble.of(mm);
        }
    }

    /** A piece of the tool set is broken or missing. */
    @JsonTypeName("TOOL_FAILED")
    record ToolFailedEntry(
            String clientKey,
            long basedOn,
            @Nullable String piece,
            @Nullable Boolean missing,
            @Nullable String words) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.ToolFailed(need(piece, "/piece"), need(missing, "/missing"), text(words));
        }
    }

    /** The new part is the wrong one; the old one goes back. */
    @JsonTypeName("GOES_BACK")
    record GoesBackEntry(
            String clientKey,
            long basedOn,
            @Nullable String item,
            @Nullable String words) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.GoesBack(need(item, "/item"), text(words));
        }
    }

    @JsonTypeName("RECHECK")
    record RecheckEntry(
            String clientKey,
            long basedOn,
            @Nullable String words,
            @Nullable Integer days) implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.RecheckAsked(text(words), need(days, "/days"));
        }
    }

    /** @param minutes worked, where the card's clock is not right */
    @JsonTypeName("COMPLETE")
    record CompleteEntry(
            String clientKey,
            long basedOn,
            @Nullable String words,
            @Nullable Integer minutes,
            CardEvent.@Nullable OldParts oldParts)
            implements CardEntryIn {
        @Override
        public CardEvent event(CardEvent.Fixed fixed) {
            return new CardEvent.Completed(
                    text(words),
                    minutes == null ? OptionalInt.empty() : OptionalInt.of(minutes),
                    Objects.requireNonNullElse(oldParts, CardEvent.OldParts.SHOWN_AND_SCRAPPED));
        }
    }

    private static String at(@Nullable String step) {
        return need(step, "/step");
    }

    private static OptionalInt angle(@Nullable Integer degrees) {
        return degrees == null ? OptionalInt.empty() : OptionalInt.of(degrees);
    }

    private static String text(@Nullable String value) {
        return Objects.requireNonNullElse(value, "").strip();
    }

    private static <T> T need(@Nullable T value, String pointer) {
        if (value == null) {
            throw new InvalidInput(pointer, "This is missing.");
        }
        return value;
    }
}
