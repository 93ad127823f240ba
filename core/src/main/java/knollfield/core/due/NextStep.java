package knollfield.core.due;

import java.util.Optional;

/** The one thing to do next about a vehicle. */
public enum NextStep {
    RING("ring"),
    ASK_OWNER("ask owner"),
    PROMISE("promise"),
    START("start"),
    SIGN("sign"),
    RECHECK("recheck"),
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
        return of(status, job, callBack, false, false);
    }

    /**
     * The same with what the bench left.
     *
     * @param recheck something is to be looked at again today
     * @param awaitsOwner the job at the bench waits for the owner's answer
     */
    public static NextStep of(
            VehicleForecast forecast, Optional<JobStage> job, boolean callBack, boolean recheck, boolean awaitsOwner) {
        NextStep next = of(forecast.status(), job, callBack, recheck, awaitsOwner);
        if (next == NONE && !forecast.unknownBeside().isEmpty()) {
            return ASK_OWNER;
        }
        return next == ASK_OWNER && !awaitsOwner && forecast.noInterval() ? NONE : next;
    }

    private static NextStep of(
            Status status, Optional<JobStage> job, boolean callBack, boolean recheck, boolean awaitsOwner) {
        if (awaitsOwner) {
            return ASK_OWNER;
        }
        if (recheck) {
            return RECHECK;
        }
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
