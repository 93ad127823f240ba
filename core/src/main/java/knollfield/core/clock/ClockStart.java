package knollfield.core.clock;

import java.time.LocalDate;
import java.util.Optional;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;

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
        FIRST_REGISTRATION("counted from first registration"),
        DATE_CODE("counted from the date code read on the belt"),
        INSPECTED("counted from the last good inspection");

        private final String words;

        Grade(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** A start at first registration and zero. */
    public static ClockStart atFirstRegistration(LocalDate firstRegistered) {
        return new ClockStart(firstRegistered, 0, Grade.FIRST_REGISTRATION);
    }

    /**
     * The odometer of a renewal as a reading of the workshop that vouches for it, or of the person who says so; empty where
     * the clock starts at something else.
     */
    public Optional<Reading> reading() {
        return switch (grade) {
            case DOCUMENTED -> Optional.of(new Reading(0, date, km, ReadingSource.WORKSHOP));
            case STATED -> Optional.of(new Reading(0, date, km, ReadingSource.CUSTOMER));
            case ORIGINAL, FIRST_REGISTRATION, DATE_CODE, INSPECTED -> Optional.empty();
        };
    }

    public ClockStart {
        if (km < 0 || km > Reading.MAX_KM) {
            throw new IllegalArgumentException("a clock cannot start at %d km".formatted(km));
        }
    }
}
