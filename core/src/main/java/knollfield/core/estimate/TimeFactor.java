package knollfield.core.estimate;

import java.util.Collection;

/** How long this workshop takes, against the book (rules.md section 6). */
public final class TimeFactor {

    /** Minutes of book work the workshop is credited with at the start, so that one job does not decide. */
    private static final double CREDIT_MINUTES = 600;

    private TimeFactor() {}

    /** Minutes of a past job, each above zero. */
    public record Past(int bookMinutes, int actualMinutes) {}

    /** (600 + Σ actual) / (600 + Σ book) over past jobs of the family; 1 where there are none. */
    public static double of(Collection<Past> jobs) {
        double actual = CREDIT_MINUTES;
        double book = CREDIT_MINUTES;
        for (Past job : jobs) {
            if (job.bookMinutes() > 0 && job.actualMinutes() > 0) {
                actual += job.actualMinutes();
                book += job.bookMinutes();
            }
        }
        return actual / book;
    }
}
