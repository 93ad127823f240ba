package knollfield.core.jobcard;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.bundle.FitCheck;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.units.TorqueUnit;

/** Something done on a card. A card is the list of its events; its state follows from them. */
public sealed interface CardEvent {

    /**
     * Check-in; the card's first event.
     *
     * @param odometerKm as read at the vehicle
     * @param stateFound words about the state as found; may be empty
     * @param keys where the keys are; may be empty
     * @param codes fault codes read, in words; may be empty
     * @param fixed what the card is made for from that moment on, whatever is changed elsewhere; empty: as planned
     */
    record Started(int odometerKm, String stateFound, String keys, String codes, Optional<Fixed> fixed)
            implements CardEvent {

        public Started(int odometerKm, String stateFound) {
            this(odometerKm, stateFound, "", "", Optional.empty());
        }
    }

    /**
     * What a card rests on, as of check-in.
     *
     * @param items codes of what is to be renewed
     * @param equipment of the vehicle
     * @param variants settled points, choice by variant code
     */
    record Fixed(Set<String> items, Set<String> equipment, Map<String, String> variants) {
        public Fixed {
            items = Set.copyOf(items);
            equipment = Set.copyOf(equipment);
            variants = Map.copyOf(variants);
        }
    }

    /** All plain steps of a phase, as far as the next shut gate. */
    record PhaseTicked(String phase) implements CardEvent {}

    /** A plain step or a confirmation. */
    record Ticked(String step) implements CardEvent {}

    /**
     * A look with its result.
     *
     * @param also further results of the same look, where the step takes several
     */
    record Inspected(String step, String result, Set<String> also) implements CardEvent {
        public Inspected {
            also = Set.copyOf(also);
        }

        /** One result alone. */
        public Inspected(String step, String result) {
            this(step, result, Set.of());
        }
    }

    /** @param reason why, where the choice departs from the usual way */
    record Chosen(String step, String option, String reason) implements CardEvent {}

    record Counted(String step, int count) implements CardEvent {}

    /** Points of a check that do not hold; empty where all do. */
    record Checked(String step, Set<String> wrong) implements CardEvent {
        public Checked {
            wrong = Set.copyOf(wrong);
        }
    }

    /** A figure read off an instrument, in the step's unit. */
    record Measured(String step, double value, Optional<String> simulatedBy) implements CardEvent {
        /** Read off an instrument. */
        public Measured(String step, double value) {
            this(step, value, Optional.empty());
        }

        /** The same figure where {@code standIn} said it, and no instrument. */
        public Measured by(String standIn) {
            return new Measured(step, value, Optional.of(standIn));
        }
    }

    /**
     * Teeth counted on each run, in the step's order.
     *
     * @param old on the belt that came off
     * @param now on the belt that went on
     * @param onWheels teeth that lie on the wheels of the new one
     */
    record RunsCounted(String step, List<Integer> old, List<Integer> now, int onWheels) implements CardEvent {
        public RunsCounted {
            old = List.copyOf(old);
            now = List.copyOf(now);
        }
    }

    /**
     * Teeth or links counted from mark to mark, in the step's order, each twice.
     *
     * @param old on the one that came off
     * @param now on the one that goes on
     */
    record MarksCounted(String step, Twice old, Twice now) implements CardEvent {}

    /** The same spans counted twice. */
    record Twice(List<Integer> first, List<Integer> again) {
        public Twice {
            first = List.copyOf(first);
            again = List.copyOf(again);
        }
    }

    /** One pass over a bolt pattern. */
    record Passed(String step) implements CardEvent {}

    /**
     * A torque as shown by the wrench.
     *
     * @param value more than zero, in {@code unit}
     * @param angleDegrees the angle turned after it, where the book asks for one
     * @param unitConfirmed the technician was asked about the unit and stands by it
     */
    record TorqueEntered(String step, double value, TorqueUnit unit, OptionalInt angleDegrees, boolean unitConfirmed)
            implements CardEvent {}

    /** A torque the book does not have, with its origin; the joint can then be signed off. */
    record TorqueFiled(String step, TorqueSpec spec) implements CardEvent {}

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

    /**
     * The timing is set from scratch: found out of time, belt broken or jumped, or head or cams were out.
     *
     * @param planned nothing was found wrong: it follows from work that was done on purpose
     */
    record OutOfTime(String words, boolean planned) implements CardEvent {

        /** Found so. */
        public OutOfTime(String words) {
            this(words, false);
        }
    }

    /** A hard stop while turning: the timing must be proven again. */
    record HardStop(String note) implements CardEvent {}

    /** Takes an answer back. */
    record Undone(String step) implements CardEvent {}

    /** An answer that is not as the book has it is accepted with a reason, where no gate rests on it. */
    record Deviated(String step, String reason) implements CardEvent {}

    /** The level is read cold tomorrow, as a recheck. */
    record Deferred(String step) implements CardEvent {}

    /** A manager opens a gate with words. */
    record GateOverridden(GateKind gate, String words) implements CardEvent {}

    /** @param why what the job waits for */
    record Paused(PauseReason why, String words) implements CardEvent {}

    /** Work goes on, by whoever says so. */
    record Resumed() implements CardEvent {}

    /** Somebody joins; their time counts from here on. */
    record Joined() implements CardEvent {}

    /** Somebody leaves the job to the others. */
    record Left() implements CardEvent {}

    /** @param to name of the technician who goes on */
    record HandedOver(String to, String words) implements CardEvent {}

    /**
     * Something found that belongs to the timing drive.
     *
     * @param step where it was found
     * @param item code of the item it was found on, where it is one
     */
    record Found(Optional<String> step, EvidenceKind kind, Optional<String> item, String words) implements CardEvent {}

    /** Something found that does not belong to this job; it becomes a follow-up. */
    record SideFinding(String words, boolean urgent) implements CardEvent {}

    /**
     * Work nobody planned, such as a sheared stud.
     *
     * @param joint code of the joint a stud or bolt of which broke off, so that the card is laid anew for it
     * @param minutes it adds, above zero
     * @param part what it takes, in words; empty for none
     * @param partMinor its price in minor units, zero or more
     */
    record Contingency(String step, String what, int minutes, String part, long partMinor, Optional<String> joint)
            implements CardEvent {

        /** Nothing broke off. */
        public Contingency(String step, String what, int minutes, String part, long partMinor) {
            this(step, what, minutes, part, partMinor, Optional.empty());
        }
    }

    /**
     * The new part is not the right one and the old one goes back.
     *
     * @param item code of the item, which the job no longer renews
     * @param why in words, never blank
     */
    record GoesBack(String item, String why) implements CardEvent {}

    /**
     * The batch of a part, as it is printed on it.
     *
     * @param item code of an item the job renews
     * @param batch 1 to 60 characters
     */
    record BatchRead(String item, String batch) implements CardEvent {}

    /**
     * A new part as it was counted, measured or looked at in hand.
     *
     * @param item code of an item the job renews
     * @param seen what was counted or measured; not all of it empty
     */
    record PartMeasured(String item, FitCheck.Data seen) implements CardEvent {}

    /**
     * A piece of the tool set cannot be worked with.
     *
     * @param piece one of {@link CardPlan#toolPieces()}
     * @param missing it is not there; otherwise it is broken
     * @param words what is wrong; may be empty
     */
    record ToolFailed(String piece, boolean missing, String words) implements CardEvent {}

    /**
     * What follows was written on a printed card and is typed in afterwards.
     *
     * @param workedBy who did the work
     * @param entries how many of the entries after this one are meant, one or more
     */
    record FromPaper(String workedBy, int entries) implements CardEvent {}

    /** Items added at the bench; they wait for the owner. */
    record Widened(Set<String> items) implements CardEvent {
        public Widened {
            items = Set.copyOf(items);
        }
    }

    /** The owner's answer to what was added. */
    record OwnerAnswered(Set<String> agreed, Set<String> left) implements CardEvent {
        public OwnerAnswered {
            agreed = Set.copyOf(agreed);
            left = Set.copyOf(left);
        }
    }

    /** @param photoId of the stored picture */
    record PhotoTaken(String step, long photoId, String caption) implements CardEvent {}

    /**
     * Something to look at again after the job.
     *
     * @param days from the day of signing, 0 to 366
     */
    record RecheckAsked(String what, int days) implements CardEvent {}

    /**
     * Signed: the last event of a card.
     *
     * @param workedMinutes as the technician states them; empty: as the card's clock has them
     * @param oldParts what became of the old parts
     */
    record Completed(String note, OptionalInt workedMinutes, OldParts oldParts) implements CardEvent {
        public Completed(String note) {
            this(note, OptionalInt.empty(), OldParts.SHOWN_AND_SCRAPPED);
        }
    }

    /** What became of the old parts. */
    enum OldParts {
        SHOWN_AND_SCRAPPED("shown and scrapped"),
        KEPT("kept in the workshop"),
        RETURNED("returned to the owner");

        private final String words;

        OldParts(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What a job can wait for. */
    enum PauseReason {
        PARTS("parts"),
        OWNER("the owner's answer"),
        FERRY("the delivery"),
        TOOLS("tools"),
        ANOTHER_JOB("another job"),
        BREAK("a break"),
        END_OF_DAY("the next day"),
        OTHER("something else");

        private final String words;

        PauseReason(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }
}
