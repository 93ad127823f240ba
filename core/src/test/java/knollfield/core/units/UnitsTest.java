package knollfield.core.units;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import javax.measure.quantity.Length;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tech.units.indriya.quantity.Quantities;
import tech.units.indriya.unit.Units;

class UnitsTest {

    // Source: NIST Special Publication 811 (2008), appendix B.8: mile 1.609 344 E+03 m;
    // pound-force foot 1.355 818 E+00 N·m; pound-force inch 1.129 848 E-01 N·m.
    @ParameterizedTest(name = "1 {0} is {1} N·m")
    @CsvSource({"POUND_FOOT, 1.355818", "POUND_INCH, 0.1129848", "NEWTON_METRE, 1"})
    void torqueUnitsAgreeWithThePublishedFactors(TorqueUnit unit, double newtonMetres) {
        assertThat(Torque.of(1, unit).newtonMetres()).isCloseTo(newtonMetres, within(5e-7));
    }

    @Test
    void aPoundFootFollowsFromItsDefiningConstants() {
        // Source: NIST SP 811, appendix B.8 and B.9: ft 0.3048 m, lb 0.453 592 37 kg, g_n 9.806 65 m/s², all exact
        assertThat(Torque.of(1, TorqueUnit.POUND_FOOT).newtonMetres())
                .isCloseTo(0.3048 * 0.45359237 * 9.80665, within(1e-12));
    }

    @Test
    void milesAgreeWithAUnitsLibrary() {
        // Source: indriya, the reference implementation of JSR 385; a mile as 5280 international feet of 0.3048 m
        double km = Quantities.getQuantity(5280 * 0.3048, Units.METRE)
                .asType(Length.class)
                .to(javax.measure.MetricPrefix.KILO(Units.METRE))
                .getValue()
                .doubleValue();
        assertThat(DistanceUnit.MILES.toKm(1)).isCloseTo(km, within(1e-12));
        assertThat(DistanceUnit.MILES.fromKm(DistanceUnit.MILES.toKm(74_565))).isCloseTo(74_565, within(1e-8));
    }

    @ParameterizedTest(name = "{0} lb·ft is {1} N·m")
    // Common practice, no source: the pairs that rules.md section 8 and procedure.md print
    @CsvSource({"55, 74.6", "158, 214.2"})
    void tradePairs(double poundFeet, double newtonMetres) {
        assertThat(Torque.of(poundFeet, TorqueUnit.POUND_FOOT).newtonMetres()).isCloseTo(newtonMetres, within(0.05));
    }

    @Test
    void aNegativeOrEndlessTorqueIsNone() {
        assertThatThrownBy(() -> new Torque(-1)).hasMessageContaining("-1");
        assertThatThrownBy(() -> new Torque(Double.NaN)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void aWholeNumberOfDaysIsNotRoundedUp() {
        LocalDate day = LocalDate.of(2026, 1, 1);
        for (int days = 1; days < 4000; days++) {
            assertThat(Years.firstDayAfter(day, days / Years.DAYS)).isEqualTo(day.plusDays(days));
        }
    }
}
