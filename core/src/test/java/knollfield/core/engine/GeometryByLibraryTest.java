package knollfield.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.hipparchus.analysis.solvers.BrentSolver;
import org.hipparchus.fraction.BigFraction;
import org.hipparchus.util.ArithmeticUtils;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Teeth and throws against a library that knows nothing of engines. */
class GeometryByLibraryTest {

    @ParameterizedTest(name = "throw {0}, rod {1}, {2} degrees")
    @CsvSource({
        "43, 137, 0",
        "43, 137, 17.5",
        "43, 137, 90",
        "43, 137, 179",
        "43, 137, 270",
        "39.2, 128.5, 61",
        "48, 150, 123",
        "10, 10.5, 88"
    })
    void thePistonPinIsWhereTheRodEnds(double throwLength, double rod, double degrees) {
        double x = throwLength * Math.cos(Math.toRadians(degrees));
        double y = throwLength * Math.sin(Math.toRadians(degrees));
        // Source: Hipparchus 3.1, BrentSolver: the pin on the bore's line that is one rod from the crank pin, above it
        double pin = new BrentSolver(1e-14).solve(200, at -> Math.hypot(at - x, y) - rod, x, throwLength + rod + 1);
        assertThat(TimingGeometry.pistonTravel(throwLength, rod, degrees))
                .isCloseTo(throwLength + rod - pin, within(1e-9));
    }

    @Test
    void marksAreBackAfterTheLeastCommonMultiple() {
        Random random = new Random(23);
        for (int i = 0; i < 400; i++) {
            int crank = 14 + random.nextInt(20);
            int links = 60 + random.nextInt(160);
            int cam = 2 * crank;
            int wheel = 11 + random.nextInt(40);
            // Source: Hipparchus 3.1, BigFraction in lowest terms and ArithmeticUtils.lcm
            long turns = 1;
            for (BigFraction f : List.of(
                    new BigFraction(crank, links), new BigFraction(crank, cam), new BigFraction(crank, wheel))) {
                turns = ArithmeticUtils.lcm(turns, f.getDenominatorAsLong());
            }
            assertThat(TimingGeometry.markReturn(
                            List.of(new Ratio(crank, links), new Ratio(crank, cam), new Ratio(crank, wheel))))
                    .isEqualTo(turns);
        }
    }

    @ParameterizedTest
    @CsvSource({"24", "48", "19", "37", "120"})
    void allTeethTogetherAreOneTurn(int teeth) {
        // Source: Hipparchus 3.1, BigFraction: a share of a turn, exactly, times the teeth is one
        assertThat(BigFraction.getReducedFraction(1, teeth).multiply(teeth)).isEqualTo(BigFraction.ONE);
        assertThat(TimingGeometry.toothDegrees(teeth))
                .isEqualTo(BigFraction.getReducedFraction(360, teeth).doubleValue());
    }
}
