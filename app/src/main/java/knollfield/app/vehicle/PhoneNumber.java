package knollfield.app.vehicle;

import java.util.Optional;

/** Telephone numbers as people write them. */
public final class PhoneNumber {

    /** Fewer digits are part of too many numbers to mean one. */
    private static final int LEAST = 4;

    /** Fewer digits at the end of a number do not tell one subscriber from another. */
    static final int SUBSCRIBER = 6;

    private PhoneNumber() {}

    /** The digits of a number, as they are kept to compare. */
    public static String digits(String written) {
        return written.replaceAll("\\D", "");
    }

    /**
     * True where {@code asked} is a number or part of one that {@code digits} may be: with or without a country's code, zeros
     * in front, brackets, spaces and strokes (ITU-T E.123 has most of these forms).
     *
     * @param digits as {@link #digits} gives them
     */
    public static boolean matches(String digits, String asked) {
        String kept = national(digits);
        return asked(asked)
                .filter(typed -> kept.contains(typed) || (kept.length() >= SUBSCRIBER && typed.endsWith(kept)))
                .isPresent();
    }

    /** The digits of what was typed, without the zeros in front; empty where it is no number or too little of one. */
    static Optional<String> asked(String typed) {
        return Optional.of(typed)
                .filter(t -> t.matches("[\\d\\s()+./\\-]+"))
                .map(t -> national(digits(t.replace("(0)", ""))))
                .filter(d -> d.length() >= LEAST);
    }

    /** Without the zeros that stand before an area or a country. */
    private static String national(String digits) {
        return digits.replaceFirst("^0+", "");
    }
}
