package knollfield.app.shared;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.temporal.ChronoField;
import java.time.temporal.TemporalAccessor;
import java.util.Locale;
import java.util.Optional;

/**
 * How large anything may be that comes in, whatever it is for; each field has closer bounds of its own where it is used.
 * Declared here once: the reader of bodies, the reader of addresses and the OpenAPI document go by it. Within these bounds
 * no sum, product or date of the rules leaves its type.
 */
public final class Bounds {

    /** Whole and other numbers, either sign; money in minor units among them. */
    public static final long NUMBER = 1_000_000_000_000L;

    /** Whole numbers kept in 32 bits, either sign. */
    public static final int WHOLE = 1_000_000_000;

    /** Digits after the point. */
    public static final int DIGITS = 12;

    public static final LocalDate FIRST_DAY = LocalDate.of(1900, 1, 1);
    public static final LocalDate LAST_DAY = LocalDate.of(2199, 12, 31);

    /** Characters of a text. */
    public static final int TEXT = 20_000;

    /** Elements of a list. */
    public static final int LIST = 5_000;

    /** Bytes of a JSON body. */
    public static final int JSON_BYTES = 2_000_000;

    /** Bytes of a body before somebody has signed in. */
    public static final int STRANGER_BYTES = 64_000;

    /** Bytes of a list that is taken in. */
    public static final int LIST_BYTES = 20_000_000;

    private Bounds() {}

    /** What is wrong with a number; empty where nothing is. */
    public static Optional<String> wrong(double value) {
        return Math.abs(value) <= NUMBER ? Optional.empty() : Optional.of(tooLarge());
    }

    /** What is wrong with a whole number; empty where nothing is. */
    public static Optional<String> wrong(long value) {
        return value >= -NUMBER && value <= NUMBER ? Optional.empty() : Optional.of(tooLarge());
    }

    /** What is wrong with a whole number of 32 bits; empty where nothing is. */
    public static Optional<String> wrong(int value) {
        return value >= -WHOLE && value <= WHOLE
                ? Optional.empty()
                : Optional.of(String.format(Locale.ROOT, "Numbers here go up to %,d.", WHOLE));
    }

    /** What is wrong with a decimal number, which may be written with an exponent; empty where nothing is. */
    public static Optional<String> wrong(BigDecimal value) {
        // the digits before the point, without writing them out
        long whole = (long) value.precision() - value.scale();
        if (whole > 13 || value.abs().compareTo(BigDecimal.valueOf(NUMBER)) > 0) {
            return Optional.of(tooLarge());
        }
        return value.stripTrailingZeros().scale() > DIGITS
                ? Optional.of("At most %d digits after the point.".formatted(DIGITS))
                : Optional.empty();
    }

    /** What is wrong with a day, month or moment; empty where nothing is. */
    public static Optional<String> wrong(TemporalAccessor day) {
        try {
            int year = day.isSupported(ChronoField.YEAR)
                    ? day.get(ChronoField.YEAR)
                    : Math.toIntExact(1970 + Math.floorDiv(day.getLong(ChronoField.INSTANT_SECONDS), 31_556_952L));
            return year >= FIRST_DAY.getYear() && year <= LAST_DAY.getYear() ? Optional.empty() : Optional.of(day());
        } catch (ArithmeticException | DateTimeException e) {
            return Optional.of(day());
        }
    }

    /** What is wrong with a text; empty where nothing is. */
    public static Optional<String> wrong(String text) {
        if (text.length() > TEXT) {
            return Optional.of(String.format(Locale.ROOT, "At most %,d characters.", TEXT));
        }
        boolean unwritable = text.codePoints()
                .anyMatch(c -> Character.isISOControl(c) && !Character.isWhitespace(c)
                        || c >= Character.MIN_SURROGATE && c <= Character.MAX_SURROGATE
                        || c == 0xFFFE
                        || c == 0xFFFF);
        return unwritable ? Optional.of("There is a character in it that cannot be written.") : Optional.empty();
    }

    private static String tooLarge() {
        return String.format(Locale.ROOT, "Numbers here go up to %,d.", NUMBER);
    }

    private static String day() {
        return "Dates here run from %d to %d.".formatted(FIRST_DAY.getYear(), LAST_DAY.getYear());
    }
}
