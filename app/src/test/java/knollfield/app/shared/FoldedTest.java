package knollfield.app.shared;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FoldedTest {

    // Source: the Unicode Standard, chapter 3.7, canonical decomposition; From memory: what the letters that have none
    // are
    // written as
    @ParameterizedTest
    @CsvSource({
        "Åse Bø, ase bo",
        "ÆGIR, aegir",
        "Œuvre, oeuvre",
        "Groß, gross",
        "Łódź, lodz",
        "Đorđe, dorde",
        "Þór, thor",
        "ÉLOÏSE, eloise",
        "Ὀδυσσεύς, οδυσσευσ",
        "Чайка, чаика",
        "plain 12, plain 12"
    })
    void lettersLoseTheirMarks(String text, String folded) {
        assertThat(Folded.of(text)).isEqualTo(folded);
    }
}
