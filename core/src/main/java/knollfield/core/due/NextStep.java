package knollfield.core.due;

import java.util.Optional;

/** The one thing to do next about a vehicle. */
public enum NextStep {
    RING("ring", "we ring you"),
    ASK_OWNER("ask owner", "we ask you"),
    PROMISE("promise", "a day is sought"),
    START("start", "comes in"),
    SIGN("sign", "in the workshop"),
    RECHECK("recheck", "a short look"),
    NONE("none", "none");

    private final String words;
    private final String wordsForOwner;

    NextStep(String words, String wordsForOwner) {
        this.words = words;
        this.wordsForOwner = wordsForOwner;
    }

    /** The same for whoever the vehicle belongs to. */
    public String wordsForOwner() {
        return wordsForOwner;
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
