package knollfield.core.matching;

import java.text.Normalizer;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/**
 * Vehicles that answer all of this have an engine of {@code family}. What is empty is not asked; at least make and model or
 * the engine must be. Case, accents, spaces and signs do not count.
 *
 * @param family code of the engine family
 * @param makeModel words that all stand in the vehicle's make and model, in any order
 * @param engine letters of the engine; several parted by commas, of which one must be the vehicle's
 * @param yearFrom first year of first registration
 * @param yearTo last year of first registration, not before {@code yearFrom}
 */
public record FamilyRule(String family, String makeModel, String engine, OptionalInt yearFrom, OptionalInt yearTo) {

    /** @throws IllegalArgumentException where nothing is asked, or the years run backwards */
    public FamilyRule {
        if (words(makeModel).isEmpty() && letters(engine).isEmpty()) {
            throw new IllegalArgumentException("a rule asks for make and model, the engine's letters, or both");
        }
        if (yearFrom.isPresent() && yearTo.isPresent() && yearTo.getAsInt() < yearFrom.getAsInt()) {
            throw new IllegalArgumentException(
                    "the years %d to %d run backwards".formatted(yearFrom.getAsInt(), yearTo.getAsInt()));
        }
    }

    /** What is written of a vehicle; {@code year} that of its first registration. */
    public record Described(String makeModel, String engine, int year) {}

    /** True where the vehicle answers all that is asked. */
    public boolean fits(Described vehicle) {
        return (yearFrom.isEmpty() || vehicle.year() >= yearFrom.getAsInt())
                && (yearTo.isEmpty() || vehicle.year() <= yearTo.getAsInt())
                && words(vehicle.makeModel()).containsAll(words(makeModel))
                && (letters(engine).isEmpty() || letters(engine).contains(joined(vehicle.engine())));
    }

    /** Codes of the families whose rules fit, in order; none, one, or several for somebody to choose from. */
    public static Set<String> families(Collection<FamilyRule> rules, Described vehicle) {
        return rules.stream()
                .filter(r -> r.fits(vehicle))
                .map(FamilyRule::family)
                .collect(Collectors.toCollection(TreeSet::new));
    }

    private static Set<String> words(String text) {
        return Arrays.stream(plain(text).split(" ")).filter(w -> !w.isEmpty()).collect(Collectors.toSet());
    }

    /** Each of several letters without its spaces, as one writes {@code 1.6 TD} and the next {@code 1.6TD}. */
    private static List<String> letters(String text) {
        return Arrays.stream(text.split("[,;]"))
                .map(FamilyRule::joined)
                .filter(w -> !w.isEmpty())
                .toList();
    }

    private static String joined(String text) {
        return plain(text).replace(" ", "");
    }

    private static String plain(String text) {
        return Normalizer.normalize(text, Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^\\p{L}\\d]+", " ")
                .strip();
    }
}
