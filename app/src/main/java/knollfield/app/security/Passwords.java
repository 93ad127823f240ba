package knollfield.app.security;

import com.nulabinc.zxcvbn.Zxcvbn;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import knollfield.app.problem.Checks;

/**
 * What a password must be: long enough, and not one that guessing tries first. Judged by zxcvbn (Wheeler, USENIX Security
 * 2016), whose lists of common passwords, words, names and keyboard runs come with the library.
 */
final class Passwords {

    /** Characters; NIST SP 800-63B asks for 8 with a second factor and 15 without, and most here have none. */
    static final int SHORTEST = 12;

    /** What BCrypt reads; more would be cut off silently. */
    private static final int LONGEST_BYTES = 72;

    /** Ten to the tenth guesses are nothing to who holds the file; ten to the eighth are out of reach through the door. */
    private static final double FEWEST_GUESSES_LOG10 = 8;

    private static final Zxcvbn ZXCVBN = new Zxcvbn();

    private Passwords() {}

    /**
     * Notes against {@code /password} what is wrong with one.
     *
     * @param known words an attacker knows of this person, such as the sign-in name
     */
    static Checks check(Checks checks, String password, List<String> known) {
        boolean fits = password.getBytes(StandardCharsets.UTF_8).length <= LONGEST_BYTES;
        checks.that(
                        password.codePointCount(0, password.length()) >= SHORTEST,
                        "/password",
                        "A password needs at least %d characters; four words in a row are a good one."
                                .formatted(SHORTEST))
                .that(fits, "/password", "A password may have at most %d bytes.".formatted(LONGEST_BYTES));
        if (!checks.problems().stream().allMatch(p -> !p.pointer().equals("/password"))) {
            return checks;
        }
        List<String> words = known.stream()
                .flatMap(k -> Arrays.stream(k.toLowerCase(Locale.ROOT).split("\\s+")))
                .filter(w -> w.length() >= 3)
                .toList();
        String own = password.toLowerCase(Locale.ROOT);
        for (String word : words) {
            own = own.replace(word, "");
        }
        boolean good = own.length() >= SHORTEST / 2
                && ZXCVBN.measure(password, words).getGuessesLog10() >= FEWEST_GUESSES_LOG10;
        return checks.that(
                good,
                "/password",
                "This password is among the first that are tried. Take four words that do not belong together.");
    }
}
