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

    @Test
    void lengthAndThicknessAreComparedAndWordsNameWhatIsKnown() {
        Data book = new Data(
                OptionalInt.empty(),
                OptionalDouble.empty(),
                OptionalDouble.of(80.1),
                OptionalDouble.of(3.2),
                Optional.empty());
        Data hand = new Data(
                OptionalInt.of(145),
                OptionalDouble.of(25.4),
                OptionalDouble.of(82),
                OptionalDouble.of(5),
                Optional.of("left"));
        assertThat(FitCheck.compare(book, hand))
                .extracting(FitCheck.Mismatch::words)
                .containsExactly("length 82.0 mm, the book has 80.1 mm", "thickness 5.0 mm, the book has 3.2 mm");
        assertThat(FitCheck.words(hand))
                .isEqualTo("145 teeth or links, 25.4 mm wide, 82.0 mm long, 5.0 mm thick, left");
        assertThat(FitCheck.words(Data.unknown())).isEmpty();
    }

    @Test
    void whatCostsNothingIsAllowedAndLessIsNot() {
        assertThat(Grade.costPer10000Km(0, 0, 10_000)).isZero();
        assertThatThrownBy(() -> Grade.costPer10000Km(-1, 0, 10_000)).hasMessageContaining("zero or more");
        assertThatThrownBy(() -> Grade.costPer10000Km(0, -1, 10_000)).hasMessageContaining("zero or more");
        assertThatThrownBy(() -> Grade.costPer10000Km(0, 0, 0)).hasMessageContaining("above zero");
    }
}
