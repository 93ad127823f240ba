package knollfield.app.vehicle;

import java.util.Locale;

/** How registrations are compared: without spaces and signs, 0 and O alike, 1 and I alike. */
public final class Registration {

    private Registration() {}

    /** The key of {@code text}; empty where it holds no letter or digit. */
    public static String key(String text) {
        StringBuilder key = new StringBuilder();
        for (char c : text.toUpperCase(Locale.ROOT).toCharArray()) {
            if (Character.isLetterOrDigit(c)) {
                key.append(c == 'O' ? '0' : c == 'I' ? '1' : c);
            }
        }
        return key.toString();
    }
}
