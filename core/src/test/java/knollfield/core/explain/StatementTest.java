package knollfield.core.explain;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;

class StatementTest {

    private static String written(Statement statement) {
        return statement.written(f -> f instanceof Fact.Words w ? w.words() : f.toString());
    }

    @Test
    void everyPlaceHasAFigure() {
        assertThatThrownBy(() -> Statement.of("{0} of {1} used.", new Fact.Words("half")))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("{1}");
    }

    @Test
    void whatAPersonTypedStandsAsItIs() {
        assertThat(written(Statement.of(
                        "{1}, because {0}; {1}.",
                        new Fact.Words("the owner wrote {1} and $5 \\"), new Fact.Words("now"))))
                .isEqualTo("now, because the owner wrote {1} and $5 \\; now.");
    }
}
