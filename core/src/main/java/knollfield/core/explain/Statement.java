package knollfield.core.explain;

import java.util.List;

/**
 * One sentence and its figures.
 *
 * @param text a sentence with {@code {0}}, {@code {1}} … where the figures stand
 */
public record Statement(String text, List<Fact> facts) {

    public Statement {
        facts = List.copyOf(facts);
    }

    public static Statement of(String text, Fact... facts) {
        return new Statement(text, List.of(facts));
    }
}
