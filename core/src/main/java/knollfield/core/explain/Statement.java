package knollfield.core.explain;

import java.util.List;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * One sentence and its figures.
 *
 * @param template a sentence with {@code {0}}, {@code {1}} … where the figures stand; nobody reads it so
 */
public record Statement(String template, List<Fact> facts) {

    private static final Pattern PLACE = Pattern.compile("\\{(\\d+)}");

    /** @throws IllegalArgumentException where a place of the template has no figure */
    public Statement {
        facts = List.copyOf(facts);
        // most sentences have few places or none, and thousands of vehicles say one: no pattern is gone through for
        // them
        for (int at = template.indexOf('{'); at >= 0; at = template.indexOf('{', at + 1)) {
            Matcher place = PLACE.matcher(template).region(at, template.length());
            if (place.lookingAt() && Integer.parseInt(place.group(1)) >= facts.size()) {
                throw new IllegalArgumentException("No figure for %s in: %s".formatted(place.group(), template));
            }
        }
    }

    public static Statement of(String template, Fact... facts) {
        return new Statement(template, List.of(facts));
    }

    /** The sentence as a person reads it; what {@code figure} says stands as it is, braces and all. */
    public String written(Function<Fact, String> figure) {
        return PLACE.matcher(template)
                .replaceAll(
                        place -> Matcher.quoteReplacement(figure.apply(facts.get(Integer.parseInt(place.group(1))))));
    }
}
