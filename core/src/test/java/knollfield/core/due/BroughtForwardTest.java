package knollfield.core.due;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.YearMonth;
import org.junit.jupiter.api.Test;

class BroughtForwardTest {

    private static final LocalDate FROM = LocalDate.of(2027, 10, 15);
    private static final BroughtForward FORWARD = new BroughtForward(YearMonth.of(2027, 8), FROM);

    @Test
    void itHoldsWhileTheJobIsTheOneThatWasBroughtForward() {
        assertThat(FORWARD.holds(FROM)).isTrue();
        assertThat(FORWARD.holds(FROM.plusMonths(2)))
                .as("the use fell a little")
                .isTrue();
        assertThat(FORWARD.holds(FROM.plusYears(5))).as("renewed since").isFalse();
        assertThat(FORWARD.holds(LocalDate.of(2027, 8, 31)))
                .as("due in that month by itself")
                .isFalse();
        assertThat(FORWARD.holds(LocalDate.of(2027, 9, 1))).isTrue();
    }
}
