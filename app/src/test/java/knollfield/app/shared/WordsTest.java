package knollfield.app.shared;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class WordsTest {

    private final Style style = new Style();
    private final Words words = new Words(style);

    private String plain(Statement statement) {
        return words.write(statement, "EUR").replace('\u00a0', ' ');
    }

    @Test
    void figuresCarryTheirUnits() {
        assertThat(plain(Statement.of(
                        "{0}, {1}, {2}, {3}, {4}, {5}, {6}, {7}",
                        new Fact.Km(98_000.4),
                        new Fact.Day(LocalDate.of(2026, 11, 5)),
                        new Fact.Months(18),
                        new Fact.Minutes(348),
                        new Fact.Money(3_800),
                        new Fact.Count(7),
                        new Fact.Share(0.955),
                        new Fact.Words("dust"))))
                .isEqualTo("98,000 km, 5 Nov 2026, 18 months, 5.8 h, €38.00, 7, 95.5 %, dust");
    }

    @Test
    void oneMonthIsOneMonth() {
        assertThat(plain(Statement.of("{0}", new Fact.Months(1)))).isEqualTo("1 month");
        assertThat(plain(Statement.of("{0}", new Fact.Months(0)))).isEqualTo("0 months");
    }

    @ParameterizedTest(name = "{0} in {1} is {2}")
    @CsvSource({"3800, EUR, €38.00", "3800, GBP, £38.00", "3800, JPY, 'JP¥3,800'", "123456789, EUR, '€1,234,567.89'"})
    void moneyFollowsItsCurrency(long minor, String currency, String written) {
        assertThat(words.money(minor, currency)).isEqualTo(written);
    }

    @Test
    void aNameWithinASentenceLosesItsCapital() {
        assertThat(plain(Statement.of("The {0}.", Fact.Words.midSentence("Timing belt"))))
                .isEqualTo("The timing belt.");
        assertThat(plain(Statement.of("{0}.", Fact.Words.atStart("belt off")))).isEqualTo("Belt off.");
        assertThat(Fact.Words.midSentence("").words()).isEmpty();
    }
}
