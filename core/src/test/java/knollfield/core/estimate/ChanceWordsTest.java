package knollfield.core.estimate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ChanceWordsTest {

    // Common practice, no source: the nearest fraction that one says aloud
    @ParameterizedTest
    @CsvSource({
        "0, less than one in a thousand",
        "0.0006, less than one in a thousand",
        "0.0009, about one in a thousand",
        "0.0098, about one in 100",
        "0.012, about one in 100",
        "0.034, about one in 30",
        "0.06, about one in 15",
        "0.11, about one in ten",
        "0.27, about one in four",
        "0.34, about one in three",
        "0.594, about three in five",
        "0.66, about two in three",
        "0.86, about nine in ten",
        "0.97, all but certain",
        "1, all but certain"
    })
    void aChanceIsSaidAsTheNearestCommonFraction(double chance, String words) {
        assertThat(ChanceWords.of(chance)).isEqualTo(words);
    }

    @Test
    void eachRangeOfWordsEndsAtItsEdge() {
        assertThat(ChanceWords.of(1 / 1_400.0)).isEqualTo("about one in a thousand");
        assertThat(ChanceWords.of(Math.nextDown(1 / 1_400.0))).isEqualTo("less than one in a thousand");
        assertThat(ChanceWords.of(1 / 12.5)).isEqualTo("about one in ten");
        assertThat(ChanceWords.of(Math.nextDown(1 / 12.5))).isEqualTo("about one in 15");
        assertThat(ChanceWords.of(0.95)).isEqualTo("about nine in ten");
        assertThat(ChanceWords.of(Math.nextUp(0.95))).isEqualTo("all but certain");
    }

    @Test
    void whatIsNoChanceIsRefused() {
        assertThatThrownBy(() -> ChanceWords.of(1.01)).hasMessageContaining("0 to 1");
        assertThatThrownBy(() -> ChanceWords.of(Double.NaN)).hasMessageContaining("0 to 1");
    }
}
