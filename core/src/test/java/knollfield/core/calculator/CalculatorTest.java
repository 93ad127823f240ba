package knollfield.core.calculator;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import knollfield.core.engine.Handling.Clearance;
import knollfield.core.engine.Handling.FreeRun;
import knollfield.core.units.Torque;
import knollfield.core.units.TorqueUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tech.units.indriya.quantity.Quantities;
import tech.units.indriya.unit.Units;

class CalculatorTest {

    // Source: NIST Special Publication 811 (2008), appendix B.8: pound-force foot 1.355 818 N·m, pound-force inch
    // 0.112 984 8 N·m, both rounded to seven figures
    @ParameterizedTest
    @CsvSource({"POUND_FOOT, 1.355818, 5e-7", "POUND_INCH, 0.1129848, 5e-8", "NEWTON_METRE, 1, 1e-15"})
    void torqueUnitsAreThoseOfTheTables(TorqueUnit unit, double newtonMetres, double rounding) {
        assertThat(Torque.of(1, unit).newtonMetres()).isEqualTo(newtonMetres, within(rounding));
    }

    // By rules.md section 8 (string formula), 0.16 kg/m, 0.12 m, 85 Hz: 66.6 N; worked by hand
    // 4 · 0.16 · 0.0144 · 7225 = 66.5856
    @Test
    void theTensionOfAStringFollowsFromItsFrequency() {
        FreeRun run = new FreeRun(0.16, 0.12);
        assertThat(BeltTension.newtons(run, 85)).isEqualTo(66.5856, within(1e-9));
        assertThat(BeltTension.hertz(run, 66.5856)).isEqualTo(85, within(1e-9));
    }

    // From memory: OpenStax, University Physics Volume 1, section 16.3, guitar strings: 3.09e-4 kg/m under 56.40 N
    // carries waves at 427.23 m/s, and 5.78e-3 kg/m needs 1055.00 N for the same speed; a run swings at v/2L
    @Test
    void itAgreesWithTheStringsOfATextbook() {
        double length = 0.65;
        assertThat(BeltTension.hertz(new FreeRun(3.09e-4, length), 56.40))
                .isEqualTo(427.23 / (2 * length), within(0.01));
        assertThat(BeltTension.newtons(new FreeRun(5.78e-3, length), 427.23 / (2 * length)))
                .isEqualTo(1055.00, within(0.05));
    }

    @Test
    void tensionAndFrequencyUndoEachOtherAndGrowTogether() {
        Random random = new Random(7);
        for (int i = 0; i < 1_000; i++) {
            FreeRun run = new FreeRun(0.02 + random.nextDouble(), 0.05 + random.nextDouble());
            double hertz = 20 + 200 * random.nextDouble();
            double newtons = BeltTension.newtons(run, hertz);
            assertThat(BeltTension.hertz(run, newtons)).isEqualTo(hertz, within(1e-9));
            assertThat(BeltTension.newtons(run, 2 * hertz)).isEqualTo(4 * newtons, within(1e-6));
        }
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, -1, Double.NaN, Double.POSITIVE_INFINITY})
    void whatIsNoFrequencyIsRefused(double hertz) {
        assertThatThrownBy(() -> BeltTension.newtons(new FreeRun(0.16, 0.12), hertz))
                .isInstanceOf(IllegalArgumentException.class);
    }

    // Common practice, no source: rules.md section 8, a wrench works in 20 to 100 % of its range
    @ParameterizedTest
    @CsvSource({"40, GOOD", "39.9, TOO_SMALL", "200, GOOD", "200.1, TOO_GREAT", "130, GOOD", "6, TOO_SMALL"})
    void aWrenchIsTrustedFromAFifthOfItsRange(double newtonMetres, TorqueWrench.Fit fit) {
        assertThat(new TorqueWrench(new Torque(200), 450).fit(new Torque(newtonMetres)))
                .isEqualTo(fit);
    }

    // Common practice, no source: T · L/(L + E), worked by hand: 100 · 400/(400 + 50) = 88.889
    @Test
    void aCrowfootLengthensTheLever() {
        TorqueWrench wrench = new TorqueWrench(new Torque(200), 400);
        assertThat(wrench.settingWithCrowfoot(new Torque(100), 50).newtonMetres())
                .isEqualTo(88.8889, within(1e-4));
        assertThat(wrench.settingWithCrowfoot(new Torque(100), 0).newtonMetres())
                .isEqualTo(100);
        // turned back it shortens it: 100 · 400/(400 − 50) = 114.286
        assertThat(wrench.settingWithCrowfoot(new Torque(100), -50).newtonMetres())
                .isEqualTo(114.2857, within(1e-4));
        assertThatThrownBy(() -> wrench.settingWithCrowfoot(new Torque(100), -400))
                .hasMessageContaining("shorter than the wrench");
    }

    // Common practice, no source: rules.md section 8, 60° is one flat, 90° a quarter turn
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "60 | 1 flat",
                "90 | a quarter turn, 1.5 flats",
                "120 | 2 flats",
                "180 | half a turn, 3 flats",
                "100 | 1.67 flats",
                "270 | three quarters of a turn, 4.5 flats",
                "360 | a whole turn, 6 flats"
            })
    void anglesAreSeenOnAHexagon(double degrees, String words) {
        assertThat(TurnedAngle.words(degrees)).isEqualTo(words);
    }

    // Source: indriya, the reference implementation of JSR 385; a degree is pi/180 rad (NIST SP 811, table 8)
    @ParameterizedTest
    @ValueSource(doubles = {1, 60, 90, 100, 120, 360, 720})
    void flatsAgreeWithAUnitsLibrary(double degrees) {
        var degree = Units.RADIAN.multiply(Math.PI / 180);
        var flat = Units.RADIAN.multiply(Math.PI / 3);
        double expected =
                Quantities.getQuantity(degrees, degree).to(flat).getValue().doubleValue();

        assertThat(TurnedAngle.flats(degrees)).isEqualTo(expected, within(1e-12 * expected + 1e-15));
    }

    // By rules.md section 8; worked by hand: (2 · 0.30 + 4 · 0.50)/6 = 0.4333
    @Test
    void coolantMixesByVolume() {
        assertThat(new CoolantMix(2, 0.30, 4, 0.50).share()).hasValue((2 * 0.30 + 4 * 0.50) / 6);
        assertThat(new CoolantMix(0, 0.30, 0, 0.50).share()).as("nothing in it").isEmpty();
        assertThat(new CoolantMix(0, 0.30, 5, 0.50).share()).hasValue(0.50);
        // 2 L at 30 % and 4 L new to make 6 L at 50 %: 2.4 L of concentrate
        assertThat(new CoolantMix(2, 0.30, 4, 0).concentrateFor(0.5).orElseThrow())
                .isEqualTo(2.4, within(1e-12));
        assertThatThrownBy(() -> new CoolantMix(2, 1.3, 4, 0.5)).hasMessageContaining("0 to 1");
    }

    @Test
    void aMixLiesBetweenItsPartsAndNearerTheGreaterOne() {
        Random random = new Random(11);
        for (int i = 0; i < 1_000; i++) {
            CoolantMix mix = new CoolantMix(
                    0.1 + random.nextDouble() * 9,
                    random.nextDouble(),
                    0.1 + random.nextDouble() * 9,
                    random.nextDouble());
            double share = mix.share().orElseThrow();
            assertThat(share)
                    .isBetween(
                            Math.min(mix.keptShare(), mix.newShare()) - 1e-12,
                            Math.max(mix.keptShare(), mix.newShare()) + 1e-12);
        }
    }

    // Common practice, no source: procedure.md, clearances of one engine: 0.152 and 0.178 mm
    @ParameterizedTest
    @CsvSource({"0.152, 0", "0.178, 0", "0.165, 0", "0.20, 0.022", "0.14, -0.012"})
    void aClearanceIsSetAgainstItsLimits(double measured, double offBy) {
        ValveClearance judged = ValveClearance.of(measured, new Clearance("inlet", 0.152, 0.178));

        assertThat(judged.offByMm()).isEqualTo(offBy, within(1e-9));
        assertThat(judged.good()).isEqualTo(offBy == 0);
    }

    // Common practice, no source: worked by hand, 2.40 + 0.20 − 0.165 = 2.435
    @Test
    void aShimTakesUpWhatIsTooWide() {
        assertThat(ValveClearance.of(0.20, new Clearance("inlet", 0.152, 0.178)).shimFor(2.40))
                .isEqualTo(2.435, within(1e-9));
    }
}
