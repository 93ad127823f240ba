package knollfield.core.identity;

import java.util.Locale;
import java.util.Optional;

/**
 * A vehicle identification number.
 *
 * <p>Seventeen characters without I, O and Q (ISO 3779). The ninth is a check digit where the maker uses one (49 CFR
 * 565.15(c)): each character's value times its place's weight, summed, modulo 11, ten written X. Only some markets
 * require it, so a wrong one is a warning and never a refusal.
 *
 * @param text seventeen characters in capitals
 */
public record Vin(String text) {

    private static final String LETTERS = "ABCDEFGHJKLMNPRSTUVWXYZ";
    private static final String LETTER_VALUES = "12345678123457923456789";
    private static final int[] WEIGHTS = {8, 7, 6, 5, 4, 3, 2, 10, 0, 9, 8, 7, 6, 5, 4, 3, 2};

    public Vin {
        if (!text.matches("[A-HJ-NPR-Z0-9]{17}")) {
            throw new IllegalArgumentException(
                    "a VIN has 17 letters and digits without I, O and Q; \"%s\" has %d".formatted(text, text.length()));
        }
    }

    /** The number in {@code typed}, in any case and with blanks anywhere; empty where it is none. */
    public static Optional<Vin> of(String typed) {
        String text = typed.replaceAll("\\s", "").toUpperCase(Locale.ROOT);
        return text.matches("[A-HJ-NPR-Z0-9]{17}") ? Optional.of(new Vin(text)) : Optional.empty();
    }

    /** The check digit its other characters call for: 0 to 9 or X. */
    public char expectedCheckDigit() {
        int sum = 0;
        for (int i = 0; i < WEIGHTS.length; i++) {
            sum += WEIGHTS[i] * value(text.charAt(i));
        }
        int rest = sum % 11;
        return rest == 10 ? 'X' : (char) ('0' + rest);
    }

    /** Whether the ninth character is the check digit; false says little where the maker uses none. */
    public boolean checks() {
        return text.charAt(8) == expectedCheckDigit();
    }

    private static int value(char c) {
        int letter = LETTERS.indexOf(c);
        return letter < 0 ? c - '0' : LETTER_VALUES.charAt(letter) - '0';
    }
}
