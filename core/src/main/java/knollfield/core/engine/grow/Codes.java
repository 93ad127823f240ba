package knollfield.core.engine.grow;

import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Codes that are still free in a build, and words of names by which things of a first book find each other. */
final class Codes {

    private final Set<String> joints;
    private final Set<String> taken = new HashSet<>();

    /** @param joints codes of the book's joints, which stay as they are */
    Codes(Set<String> joints) {
        this.joints = Set.copyOf(joints);
    }

    /** {@code wanted}, or the next like it that nothing bears, a joint neither. */
    String own(String wanted) {
        return free(wanted, joints);
    }

    /** {@code wanted}, or the next like it; a part, a wheel or a shaft may bear the code of its joint. */
    String part(String wanted) {
        return free(wanted, Set.of());
    }

    private String free(String wanted, Set<String> barred) {
        String code = wanted;
        for (int n = 2; barred.contains(code) || taken.contains(code); n++) {
            code = wanted + "-" + n;
        }
        taken.add(code);
        return code;
    }

    /** The words of {@code text}, lower case, those of {@code without} left out. */
    static Set<String> words(String text, Set<String> without) {
        return Stream.of(text.toLowerCase(Locale.ROOT).split("[^\\p{L}\\p{N}]+"))
                .map(Codes::singular)
                .filter(w -> !w.isEmpty() && !without.contains(w))
                .collect(Collectors.toSet());
    }

    private static String singular(String word) {
        return word.length() > 3 && word.endsWith("s") && !word.endsWith("ss")
                ? word.substring(0, word.length() - 1)
                : word;
    }

    /** How many words two names share. */
    static int shared(Set<String> one, Set<String> other) {
        return (int) one.stream().filter(other::contains).count();
    }
}
