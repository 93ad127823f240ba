package knollfield.core.due;

import java.time.LocalDate;

/**
 * Where an item's clocks began.
 *
 * @param km odometer then, zero or more
 */
public record ClockStart(LocalDate date, int km, Grade grade) {

    /** How well the beginning is known (rules.md section 2). */
    public enum Grade {
        DOCUMENTED("documented"),
        STATED("stated"),
        ORIGINAL("original part, documented"),
        FIRST_REGISTRATION("counted from first registration");

        private final String words;

        Grade(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public ClockStart {
        if (km < 0) {
            throw new IllegalArgumentException("a clock cannot start at %d km".formatted(km));
        }
    }
}
