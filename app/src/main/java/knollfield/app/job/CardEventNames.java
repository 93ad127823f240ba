package knollfield.app.job;

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
    @JsonSubTypes.Type(value = CardEvent.Completed.class, name = "completed")
})
interface CardEventNames {}
