package knollfield.core.bundle;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SixtiethsTest {

    @Test
    void labourAndPartsTogetherAreRoundedOnce() {
        Random random = new Random(11);
        for (int i = 0; i < 5_000; i++) {
            int minutes = random.nextInt(5_000);
            long rate = random.nextInt(50_000);
            long parts = random.nextInt(1_000_000);
            // Source: java.math.BigDecimal, exact to the last division, HALF_UP
            long exact = BigDecimal.valueOf(minutes)
                    .multiply(BigDecimal.valueOf(rate))
                    .add(BigDecimal.valueOf(parts).multiply(BigDecimal.valueOf(60)))
                    .divide(BigDecimal.valueOf(60), 0, RoundingMode.HALF_UP)
                    .longValueExact();
            assertThat(Sixtieths.toMinor(Sixtieths.ofLabour(minutes, rate) + Sixtieths.ofMinor(parts)))
                    .isEqualTo(exact);
        }
    }

    @ParameterizedTest
    @CsvSource({"0, 0", "29, 0", "30, 1", "59, 1", "89, 1", "90, 2", "-29, 0", "-30, 0", "-31, -1"})
    void halfAUnitIsRoundedUp(long sixtieths, long minor) {
        assertThat(Sixtieths.toMinor(sixtieths)).isEqualTo(minor);
    }
}
