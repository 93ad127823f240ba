package knollfield.app.job.card;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import knollfield.core.jobcard.CardEvent;

/** The names under which events are stored; core knows nothing of JSON. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({
    @JsonSubTypes.Type(value = CardEvent.Started.class, name = "started"),
    @JsonSubTypes.Type(value = CardEvent.PhaseTicked.class, name = "phase-ticked"),
    @JsonSubTypes.Type(value = CardEvent.Ticked.class, name = "ticked"),
    @JsonSubTypes.Type(value = CardEvent.Inspected.class, name = "inspected"),
    @JsonSubTypes.Type(value = CardEvent.Counted.class, name = "counted"),
    @JsonSubTypes.Type(value = CardEvent.TorqueEntered.class, name = "torque-entered"),
    @JsonSubTypes.Type(value = CardEvent.Turned.class, name = "turned"),
    @JsonSubTypes.Type(value = CardEvent.MarksRead.class, name = "marks-read"),
    @JsonSubTypes.Type(value = CardEvent.HardStop.class, name = "hard-stop"),
    @JsonSubTypes.Type(value = CardEvent.Undone.class, name = "undone"),
    @JsonSubTypes.Type(value = CardEvent.GateOverridden.class, name = "gate-overridden"),
    @JsonSubTypes.Type(value = CardEvent.Chosen.class, name = "chosen"),
    @JsonSubTypes.Type(value = CardEvent.Checked.class, name = "checked"),
    @JsonSubTypes.Type(value = CardEvent.Measured.class, name = "measured"),
    @JsonSubTypes.Type(value = CardEvent.RunsCounted.class, name = "runs-counted"),
    @JsonSubTypes.Type(value = CardEvent.Passed.class, name = "passed"),
    @JsonSubTypes.Type(value = CardEvent.TorqueFiled.class, name = "torque-filed"),
    @JsonSubTypes.Type(value = CardEvent.OutOfTime.class, name = "out-of-time"),
    @JsonSubTypes.Type(value = CardEvent.Deviated.class, name = "deviated"),
    @JsonSubTypes.Type(value = CardEvent.Deferred.class, name = "deferred"),
    @JsonSubTypes.Type(value = CardEvent.Paused.class, name = "paused"),
    @JsonSubTypes.Type(value = CardEvent.Resumed.class, name = "resumed"),
    @JsonSubTypes.Type(value = CardEvent.Joined.class, name = "joined"),
    @JsonSubTypes.Type(value = CardEvent.Left.class, name = "left"),
    @JsonSubTypes.Type(value = CardEvent.HandedOver.class, name = "handed-over"),
    @JsonSubTypes.Type(value = CardEvent.Found.class, name = "found"),
    @JsonSubTypes.Type(value = CardEvent.SideFinding.class, name = "side-finding"),
    @JsonSubTypes.Type(value = CardEvent.Contingency.class, name = "contingency"),
    @JsonSubTypes.Type(value = CardEvent.Widened.class, name = "widened"),
    @JsonSubTypes.Type(value = CardEvent.OwnerAnswered.class, name = "owner-answered"),
    @JsonSubTypes.Type(value = CardEvent.PhotoTaken.class, name = "photo-taken"),
    @JsonSubTypes.Type(value = CardEvent.RecheckAsked.class, name = "recheck-asked"),
    @JsonSubTypes.Type(value = CardEvent.Completed.class, name = "completed")
})
interface CardEventNames {}
