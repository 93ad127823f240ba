package knollfield.core.jobcard;

import java.util.Optional;

/** An event that the card does not take, and why. Nothing has changed. */
public final class CardRefused extends RuntimeException {

    private static final long serialVersionUID = 1L;

    /** Kinds of refusal, for a screen that answers them differently. */
    public enum Kind {
        NOT_STARTED,
        ALREADY_SIGNED,
        UNKNOWN_STEP,
        WRONG_ANSWER,
        GATE_SHUT,
        STEPS_OPEN,
        UNIT_GUARD,
        NOT_ALLOWED,
        PAUSED,
        AWAITS_OWNER
    }

    private final Kind kind;
    private final transient Optional<GateKind> gate;
    private final transient Optional<TorqueJudgement> judgement;

    CardRefused(Kind kind, String message) {
        this(kind, message, Optional.empty(), Optional.empty());
    }

    CardRefused(Kind kind, String message, Optional<GateKind> gate, Optional<TorqueJudgement> judgement) {
        super(message);
        this.kind = kind;
        this.gate = gate;
        this.judgement = judgement;
    }

    public Kind kind() {
        return kind;
    }

    /** The gate that is in the way. */
    public Optional<GateKind> gate() {
        return gate;
    }

    /** The judgement that asks about the unit. */
    public Optional<TorqueJudgement> judgement() {
        return judgement;
    }
}
