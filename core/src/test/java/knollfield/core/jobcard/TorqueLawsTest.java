package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.OptionalInt;
import java.util.Random;
import javax.measure.Unit;
import javax.measure.quantity.Energy;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.units.Torque;
import knollfield.core.units.TorqueUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import tech.units.indriya.quantity.Quantities;
import tech.units.indriya.unit.Units;

class TorqueLawsTest {

    private static TorqueSpec book(double newtonMetres) {
        return new TorqueSpec(new Torque(newtonMetres), OptionalInt.empty(), "book");
    }

    @ParameterizedTest
    @EnumSource(TorqueUnit.class)
    void unitsAgreeWithAUnitsLibrary(TorqueUnit unit) {
        // Source: indriya, the reference implementation of JSR 385; the newton metre has the dimension of the joule
        Unit<Energy> poundFoot =
                Units.JOULE.multiply(0.3048).multiply(0.45359237).multiply(9.80665);
        Unit<Energy> reference = switch (unit) {
            case NEWTON_METRE -> Units.JOULE;
            case POUND_FOOT -> poundFoot;
            case POUND_INCH -> poundFoot.divide(12);
        };
        for (double value : new double[] {0.5, 6, 53, 219, 300}) {
            double expected = Quantities.getQuantity(value, reference)
                    .to(Units.JOULE)
                    .getValue()
                    .doubleValue();
            assertThat(Torque.of(value, unit).newtonMetres()).isCloseTo(expected, within(1e-9 * expected));
        }
    }

    @ParameterizedTest
    @EnumSource(TorqueUnit.class)
    void whatGoesInComesOut(TorqueUnit unit) {
        Random random = new Random(1);
        for (int i = 0; i < 1_000; i++) {
            double value = 400 * random.nextDouble();
            assertThat(Torque.of(value, unit).in(unit)).isCloseTo(value, within(1e-9));
        }
    }

    @Test
    void theRangeIsFivePercentAndItsEndsBelongToIt() {
        assertThat(TorqueJudgement.of(book(100), 95, TorqueUnit.NEWTON_METRE).inRange())
                .isTrue();
        assertThat(TorqueJudgement.of(book(100), 105, TorqueUnit.NEWTON_METRE).inRange())
                .isTrue();
        assertThat(TorqueJudgement.of(book(100), 94.99, TorqueUnit.NEWTON_METRE).inRange())
                .isFalse();
        assertThat(TorqueJudgement.of(book(100), 105.01, TorqueUnit.NEWTON_METRE)
                        .inRange())
                .isFalse();
    }

    @Test
    void theRightNumberInAnyUnitIsNeverAskedAboutAndTheWrongUnitAlwaysIs() {
        Random random = new Random(2);
        for (int i = 0; i < 2_000; i++) {
            double newtonMetres = 4 + 300 * random.nextDouble();
            for (TorqueUnit meant : TorqueUnit.values()) {
                double typed = new Torque(newtonMetres).in(meant) * (0.96 + 0.08 * random.nextDouble());
                TorqueJudgement right = TorqueJudgement.of(book(newtonMetres), typed, meant);
                assertThat(right.inRange()).isTrue();
                assertThat(right.guard()).isEmpty();
                for (TorqueUnit wrong : TorqueUnit.values()) {
                    if (wrong != meant) {
                        TorqueJudgement slip = TorqueJudgement.of(book(newtonMetres), typed, wrong);
                        assertThat(slip.inRange()).isFalse();
                        assertThat(slip.guard()).contains(meant);
                    }
                }
            }
        }
    }

    @Test
    void aNumberThatFitsNoUnitIsAPlainMiss() {
        TorqueJudgement miss = TorqueJudgement.of(book(100), 500, TorqueUnit.NEWTON_METRE);

        assertThat(miss.inRange()).isFalse();
        assertThat(miss.guard()).isEmpty();
    }
}
