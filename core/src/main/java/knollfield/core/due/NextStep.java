package knollfield.core.due;

import java.util.Optional;

/** The one thing to do next about a vehicle. */
public enum NextStep {
    RING("ring"),
    ASK_OWNER("ask owner"),
    PROMISE("promise"),
    START("start"),
    SIGN("sign"),
    NONE("none");

    private final String words;

    NextStep(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** What follows from the status, the job that is open if one is, and a call that was promised for today. */
    public static NextStep of(Status status, Optional<JobStage> job, boolean callBack) {
        if (job.isPresent() && job.get().isOpen()) {
            return switch (job.get()) {
                case DRAFT -> PROMISE;
                case PLANNED -> START;
                default -> SIGN;
            };
        }
        if (callBack) {
            return RING;
        }
        return switch (status) {
            case UNKNOWN_HISTORY, NO_BOOK -> ASK_OWNER;
            case CLEAR -> NONE;
            default -> RING;
        };
    }
}
