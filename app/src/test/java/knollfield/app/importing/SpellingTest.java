package knollfield.app.importing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import knollfield.app.importing.Spelling.DateOrder;
import knollfield.app.importing.Spelling.NotRead;
import knollfield.app.importing.Spelling.NumberStyle;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Numbers and days as lists write them; the same spellings as the fields of the screens read. */
class SpellingTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 28);
    private static final JsonNode SPELLINGS = JsonMapper.builder()
            .build()
            .readTree(Path.of("../web/src/shared/ui/spellings.json").toFile());

    static Stream<JsonNode> numbers() {
        return SPELLINGS
                .get("numbers")
                .valueStream()
                .filter(n -> !n.get("text").asString().matches(".*(Nm|N·m|%|/h)$"));
    }

    static Stream<JsonNode> dates() {
        return SPELLINGS.get("dates").valueStream();
    }

    @ParameterizedTest
    @MethodSource("numbers")
    void aNumberIsReadAsItIsMeantOrNotAtAll(JsonNode spelling) throws NotRead {
        String text = spelling.get("text").asString();
        int decimals = spelling.get("decimals").asInt();
        if (spelling.has("is")) {
            assertThat(Spelling.number(text, Optional.empty(), decimals).value())
                    .isEqualByComparingTo(spelling.get("is").decimalValue());
        } else if (spelling.has("not")) {
            assertThatThrownBy(() -> Spelling.number(text, Optional.empty(), decimals))
                    .isInstanceOf(NotRead.class);
        }
    }

    @ParameterizedTest
    @MethodSource("dates")
    void aDayIsReadAsItIsMeantOrAskedAbout(JsonNode spelling) throws NotRead {
        String text = spelling.get("text").asString();
        Optional<DateOrder> order = Spelling.order(List.of(text));
        if (spelling.has("is")) {
            assertThat(Spelling.date(text, order, TODAY))
                    .isEqualTo(spelling.get("is").asString());
        } else {
            assertThatThrownBy(() -> Spelling.date(text, order, TODAY)).isInstanceOf(NotRead.class);
        }
    }

    @Test
    void theWholeListSaysWhatItsMarksMean() throws NotRead {
        assertThat(Spelling.style(List.of("64.785", "1.200", "97,50"))).contains(NumberStyle.COMMA);
        assertThat(Spelling.style(List.of("64,785", "0.5"))).contains(NumberStyle.POINT);
        assertThat(Spelling.style(List.of("64,785", "1,200"))).isEmpty();
        assertThat(Spelling.style(List.of("1.234.567"))).contains(NumberStyle.COMMA);
        assertThat(Spelling.number("64.785", Optional.of(NumberStyle.COMMA), 1).value())
                .isEqualByComparingTo(new BigDecimal(64_785));
        assertThatThrownBy(() -> Spelling.number("64.785", Optional.of(NumberStyle.POINT), 1))
                .as("in a list of decimal points it would be 64 km")
                .isInstanceOf(NotRead.class)
                .hasMessageContaining("two ways");
    }

    @Test
    void theWholeListSaysWhatStandsFirstInItsDates() {
        assertThat(Spelling.order(List.of("03/04/2020", "25/11/2020"))).contains(DateOrder.DAY_FIRST);
        assertThat(Spelling.order(List.of("03/04/2020", "11/25/2020"))).contains(DateOrder.MONTH_FIRST);
        assertThat(Spelling.order(List.of("03/04/2020", "05/06/2020"))).isEmpty();
        assertThat(Spelling.order(List.of("03.04.2020"))).contains(DateOrder.DAY_FIRST);
        assertThat(Spelling.order(List.of("2020-04-03", "2021-01-01"))).contains(DateOrder.YEAR_FIRST);
    }
}
