package knollfield.core.completion;

import java.time.LocalDate;
import java.util.Optional;
import knollfield.core.due.Status;
import knollfield.core.due.VehicleForecast;

/** Whether a job was done in time. */
public enum Timeliness {
    BEFORE_ACT_BY("by its act-by day"),
    BEFORE_LIMIT("after it, before a limit"),
    AFTER_LIMIT("past a limit"),
    MUST_NOT_RUN("when it must not run any more"),
    NO_RECORD("nothing to count from");

    private final String words;

    Timeliness(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** True where there was a day to keep. */
    public boolean counts() {
        return this == BEFORE_ACT_BY || this == BEFORE_LIMIT || this == AFTER_LIMIT;
    }

    /** @param then how the vehicle stood on the day of the job, before it */
    public static Timeliness of(VehicleForecast then) {
        Optional<LocalDate> actBy = then.actBy();
        if (then.status() == Status.STOP) {
            return MUST_NOT_RUN;
        }
        if (then.status() == Status.OVERDUE) {
            return AFTER_LIMIT;
        }
        if (then.status() == Status.UNKNOWN_HISTORY || actBy.isEmpty()) {
            return NO_RECORD;
        }
        return actBy.get().isBefore(then.today()) ? BEFORE_LIMIT : BEFORE_ACT_BY;
    }
}
