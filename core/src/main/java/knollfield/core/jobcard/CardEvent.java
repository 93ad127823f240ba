package knollfield.core.jobcard;

import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.units.TorqueUnit;

/** Something done on a card. A card is the list of its events; its state follows from them. */
public sealed interface CardEvent {

    /**
     * Check-in; the card's first event.
     *
     * @param odometerKm as read at the vehicle
     * @param stateFound words about keys, codes and state as found; may be empty
     */
    record Started(int odometerKm, String stateFound) implements CardEvent {}

    /** All plain steps of a phase, as far as the next shut gate. */
    record PhaseTicked(String phase) implements CardEvent {}

    /** A plain step or a confirmation. */
    record Ticked(String step) implements CardEvent {}

    record Inspected(String step, String result) implements CardEvent {}

    record Counted(String step, int count) implements CardEvent {}

    /**
     * A torque as shown by the wrench.
     *
     * @param value more than zero, in {@code unit}
     * @param angleDegrees the angle turned after it, where the book asks for one
     * @param unitConfirmed the technician was asked about the unit and stands by it
     */
    record TorqueEntered(String step, double value, TorqueUnit unit, OptionalInt angleDegrees, boolean unitConfirmed)
            implements CardEvent {}

    record Turned(String step) implements CardEvent {}

    /**
     * References looked at.
     *
     * @param notTrue those that were not; empty where all were true
     */
    record MarksRead(String step, Set<String> notTrue) implements CardEvent {
        public MarksRead {
            notTrue = Set.copyOf(notTrue);
        }
    }

    /** A hard stop while turning: the timing must be proven again. */
    record HardStop(String note) implements CardEvent {}

    /** Takes an answer back. */
    record Undone(String step) implements CardEvent {}

    /** A manager opens a gate with words. */
    record GateOverridden(GateKind gate, String words) implements CardEvent {}

    /** Signed: the last event of a card. */
    record Completed(String note) implements CardEvent {}
}
