package knollfield.core.reminder;

import java.time.LocalDate;

/**
 * A workshop's rule for reminders.
 *
 * @param weeksBefore an owner is written to this many weeks before the act-by day, or later; 0 to {@value #MOST_BEFORE}
 * @param weeksBetween and again after so many weeks; 1 to {@value #MOST_BETWEEN}
 * @param most at most so many times for one renewal; 1 to {@value #MOST_TIMES}
 */
public record ReminderRule(int weeksBefore, int weeksBetween, int most) {

    public static final int MOST_BEFORE = 52;
    public static final int MOST_BETWEEN = 52;
    public static final int MOST_TIMES = 12;

    public ReminderRule {
        if (weeksBefore < 0
                || weeksBefore > MOST_BEFORE
                || weeksBetween < 1
                || weeksBetween > MOST_BETWEEN
                || most < 1
                || most > MOST_TIMES) {
            throw new IllegalArgumentException("not a rule for reminders");
        }
    }

    /** The first day on which what must be acted on by {@code actBy} is written about. */
    LocalDate from(LocalDate actBy) {
        return actBy.minusWeeks(weeksBefore);
    }

    /** The first day after {@code last} on which the same is written about again. */
    LocalDate again(LocalDate last) {
        return last.plusWeeks(weeksBetween);
    }
}
