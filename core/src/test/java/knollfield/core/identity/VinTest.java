package knollfield.core.identity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class VinTest {

    // Source: 49 CFR 565.15(c), tables III to V, worked by hand: seventeen ones sum to 89 = 8·11 + 1, so the ninth is 1
    @Test
    void seventeenOnesCheck() {
        assertThat(new Vin("11111111111111111").checks()).isTrue();
    }

    // Source: 49 CFR 565.15(c), table III (letter values) and table IV (weights); each letter is put in the first
    // place,
    // weight 8, over zeros: value·8 mod 11 is the check digit
    @ParameterizedTest(name = "{0} counts {1}")
    @CsvSource({
        "A, 1", "B, 2", "C, 3", "D, 4", "E, 5", "F, 6", "G, 7", "H, 8", "J, 1", "K, 2", "L, 3", "M, 4", "N, 5", "P, 7",
        "R, 9", "S, 2", "T, 3", "U, 4", "V, 5", "W, 6", "X, 7", "Y, 8", "Z, 9"
    })
    void lettersCountAsTheTableSays(String letter, int value) {
        int rest = value * 8 % 11;
        char expected = rest == 10 ? 'X' : (char) ('0' + rest);
        assertThat(new Vin(letter + "0000000000000000").expectedCheckDigit()).isEqualTo(expected);
    }

    // Source: 49 CFR 565.15(c), table IV: weights of the seventeen places
    @ParameterizedTest(name = "place {0} weighs {1}")
    @CsvSource({
        "1, 8", "2, 7", "3, 6", "4, 5", "5, 4", "6, 3", "7, 2", "8, 10", "10, 9", "11, 8", "12, 7", "13, 6", "14, 5",
        "15, 4", "16, 3", "17, 2"
    })
    void placesWeighAsTheTableSays(int place, int weight) {
        StringBuilder text = new StringBuilder("00000000000000000");
        text.setCharAt(place - 1, '1');
        char expected = weight == 10 ? 'X' : (char) ('0' + weight);
        assertThat(new Vin(text.toString()).expectedCheckDigit()).isEqualTo(expected);
    }

    @Test
    void oneChangedCharacterIsNoticed() {
        String good = "11111111111111111";
        for (int i = 0; i < 17; i++) {
            if (i != 8) {
                StringBuilder changed = new StringBuilder(good);
                changed.setCharAt(i, '2');
                assertThat(new Vin(changed.toString()).checks())
                        .as("place %d", i + 1)
                        .isFalse();
            }
        }
    }

    // Source: ISO 3779: 17 characters, no I, O, Q
    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "1111111111111111",
                "111111111111111111",
                "I1111111111111111",
                "O1111111111111111",
                "Q1111111111111111",
                "1111-1111-1111-111"
            })
    void otherTextIsNone(String text) {
        assertThat(Vin.of(text)).isEmpty();
    }

    @Test
    void blanksAndSmallLettersAreTakenAsTyped() {
        assertThat(Vin.of(" 1111 1111 1111 1111a ")).contains(new Vin("1111111111111111A"));
        assertThatThrownBy(() -> new Vin("short")).hasMessageContaining("17").hasMessageContaining("has 5");
    }
}
