package knollfield.core.risk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.DueEngine;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.Policy;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.TensionerKind;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import org.apache.commons.statistics.distribution.WeibullDistribution;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RiskTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final WearModel WEAR = WearModel.defaults();

    private static double hazard(double distance, double age) {
        return WEAR.cumulativeHazard(OptionalDouble.of(distance), OptionalDouble.of(age));
    }

    // By rules.md section 4, check values
    @ParameterizedTest(name = "from ({0}, {1}) to ({2}, {3}): {4} %")
    @CsvSource({"0, 0, 1, 1, 2.000", "0, 0, 1.25, 1.25, 4.813", "1.00, 0.98, 1.10, 1.05, 0.762"})
    void chances(double d1, double a1, double d2, double a2, double percent) {
        double chance = WearModel.chanceBetween(hazard(d1, a1), hazard(d2, a2), 1);
        assertThat(100 * chance).isCloseTo(percent, within(0.0005));
    }

    @Test
    void equalFractionsAreAWeibull() {
        // Source: Apache Commons Statistics 1.3, WeibullDistribution, shape β and scale h₀^(−1/β)
        WeibullDistribution weibull = WeibullDistribution.of(4, Math.pow(-Math.log1p(-0.02), -0.25));
        for (double f = 0.1; f < 2; f += 0.1) {
            assertThat(WearModel.chanceBetween(0, hazard(f, f), 1))
                    .isCloseTo(weibull.cumulativeProbability(f), within(1e-12));
        }
    }

    private static VehicleForecast forecast(List<Evidence> evidence, EngineFamily family) {
        ClockStart start = new ClockStart(TODAY.minusYears(5), 20_000, ClockStart.Grade.DOCUMENTED);
        VehicleFacts facts = new VehicleFacts(
                TODAY.minusYears(6),
                true,
                List.of(new Reading(1, TODAY, 120_000, ReadingSource.WORKSHOP)),
                Map.of("belt", start, "tensioner", start, "pump", start),
                Set.of(),
                evidence,
                new UsageClass("T", "test", 20_000, 5_000),
                List.of());
        return DueEngine.forecast(facts, Optional.of(family), Policy.defaults(), TODAY);
    }

    private static long exposure(List<Evidence> evidence, LocalDate until) {
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true);
        Consequence consequence =
                Consequence.of(family, OptionalLong.of(1_000_000), 60_000, new Consequence.Costs(15_000, 6_000, 5));
        return Exposure.ofWaiting(
                        forecast(evidence, family),
                        TODAY.minusYears(6),
                        evidence,
                        WearModels.all(WEAR),
                        new Exposure.Stake(consequence, 60_000, 6_000),
                        until)
                .orElseThrow()
                .minor();
    }

    @Test
    void waitingLongerAndMoreEvidenceNeverLowerExposure() {
        long before = 0;
        for (int weeks = 1; weeks < 60; weeks++) {
            long now = exposure(List.of(), TODAY.plusWeeks(weeks));
            assertThat(now).isGreaterThanOrEqualTo(before);
            assertThat(exposure(List.of(new Evidence(EvidenceKind.OIL_TOP, TODAY)), TODAY.plusWeeks(weeks)))
                    .isGreaterThan(now);
            before = now;
        }
    }

    private static int factor(EvidenceKind... kinds) {
        List<Evidence> evidence =
                java.util.Arrays.stream(kinds).map(k -> new Evidence(k, TODAY)).toList();
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true);
        return Exposure.hazardFactor(family.driveItem(), forecast(evidence, family), evidence);
    }

    @Test
    void factorsOfSeveralFindingsMultiplyUpToTen() {
        assertThat(factor()).isEqualTo(1);
        assertThat(factor(EvidenceKind.CRACKS))
                .isEqualTo(EvidenceKind.CRACKS.hazardFactor())
                .isEqualTo(3);
        assertThat(factor(EvidenceKind.CRACKS, EvidenceKind.CRACKS)).isEqualTo(9);
        assertThat(factor(EvidenceKind.CRACKS, EvidenceKind.OIL_BOTTOM))
                .as("3 times 4")
                .isEqualTo(10);
        assertThat(factor(EvidenceKind.CRACKS, EvidenceKind.CRACKS, EvidenceKind.CRACKS))
                .isEqualTo(10);
    }

    @Test
    void repairIsCappedAtTheVehiclesValue() {
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true);
        Consequence capped =
                Consequence.of(family, OptionalLong.of(200_000), 60_000, new Consequence.Costs(15_000, 6_000, 5));

        assertThat(capped).isEqualTo(new Consequence(225_000, 245_000, 245_000));
    }

    @Test
    void aChainWithoutEvidenceHasNoKnownExposure() {
        assertThat(Exposure.ofWaiting(
                        forecast(List.of(), Families.chain()),
                        TODAY.minusYears(6),
                        List.of(),
                        WearModels.all(WEAR),
                        new Exposure.Stake(new Consequence(1, 2, 3), 0, 0),
                        TODAY.plusDays(7)))
                .isEmpty();
    }
}
