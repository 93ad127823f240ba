package knollfield.core.bundle;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import knollfield.core.bundle.FitCheck.Data;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GradeTest {

    // By rules.md section 5, "Part grade": the two pumps
    @ParameterizedTest
    @CsvSource({"3200, 9000, 130000, 938", "1920, 9000, 43000, 2540"})
    void theDearPumpIsTheCheapOne(long price, long labour, int km, double minor) {
        assertThat(Grade.costPer10000Km(price, labour, km)).isCloseTo(minor, within(0.5));
    }

    @Test
    void aPartWithoutALifeHasNoCost() {
        assertThatThrownBy(() -> Grade.costPer10000Km(3_200, 9_000, 0)).hasMessageContaining("above zero");
        assertThatThrownBy(() -> Grade.costPer10000Km(-1, 9_000, 1)).hasMessageContaining("zero or more");
    }

    private static Data belt(int teeth, double width) {
        return new Data(
                OptionalInt.of(teeth),
                OptionalDouble.of(width),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                Optional.of("left"));
    }

    @Test
    void aBeltOneToothTooLongIsFoundBeforeItIsOn() {
        assertThat(FitCheck.compare(belt(145, 25.4), belt(146, 25.4)))
                .extracting(FitCheck.Mismatch::words)
                .containsExactly("146 teeth or links, the book has 145");
    }

    @Test
    void widthCountsBeyondWhatMeasuringExplains() {
        assertThat(FitCheck.compare(belt(145, 25.4), belt(145, 25.6))).isEmpty();
        assertThat(FitCheck.compare(belt(145, 25.4), belt(145, 25.7)))
                .extracting(FitCheck.Mismatch::what)
                .containsExactly("width");
    }

    @Test
    void theOtherSideDoesNotFitAndTheUnknownIsNotCompared() {
        Data right = new Data(
                OptionalInt.empty(),
                OptionalDouble.of(25.4),
                OptionalDouble.of(10),
                OptionalDouble.of(3),
                Optional.of("right"));

        assertThat(FitCheck.compare(belt(145, 25.4), right))
                .extracting(FitCheck.Mismatch::what)
                .containsExactly("side");
        assertThat(FitCheck.compare(belt(145, 25.4), Data.unknown())).isEmpty();
    }
}
