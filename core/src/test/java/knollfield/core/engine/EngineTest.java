package knollfield.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import knollfield.core.Families;
import knollfield.core.clock.Limit;
import knollfield.core.units.DistanceUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class EngineTest {

    private static BeltPath path(int belt, int crank, int cam) {
        return new BeltPath(
                belt,
                true,
                List.of(
                        new Pulley("crank", "Crank", Pulley.Role.CRANK, 0, 0, crank, 30, false, true),
                        new Pulley("cam", "Cam", Pulley.Role.CAM, 0, 200, cam, 60, false, true)));
    }

    // By rules.md section 7, mark return
    @ParameterizedTest(name = "belt {0}, crank {1}, cam {2}: {3} turns")
    @CsvSource({"120, 20, 40, 6", "145, 24, 48, 290"})
    void paintMarksReturnAfterSoManyTurns(int belt, int crank, int cam, int turns) {
        assertThat(path(belt, crank, cam).turnsUntilPaintReturns()).isEqualTo(turns);
    }

    @Test
    void markReturnAgreesWithTurningToothByTooth() {
        for (int belt = 90; belt < 170; belt += 7) {
            for (int crank = 17; crank < 26; crank++) {
                int turns = 0;
                int beltAt;
                int camAt;
                do {
                    turns++;
                    beltAt = turns * crank % belt;
                    camAt = turns * crank % (2 * crank);
                } while (beltAt != 0 || camAt != 0);
                assertThat(path(belt, crank, 2 * crank).turnsUntilPaintReturns())
                        .isEqualTo(turns);
            }
        }
    }

    @Test
    void aCamThatDoesNotTurnAtHalfSpeedIsRefused() {
        assertThatThrownBy(() -> path(120, 20, 41))
                .hasMessageContaining(
                        "Cam has 41 teeth, but a cam turns once in two crank turns: 20 crank teeth need 40");
    }

    @Test
    void severeLimitsAreNeverWiderThanNormalOnes() {
        assertThatThrownBy(() ->
                        new Schedule(Limit.of(100_000, 60), Optional.of(Limit.of(90_000, 72)), "book", DistanceUnit.KM))
                .hasMessageContaining("severe");
    }

    @Test
    void referencesOfABookLeadSomewhereAndNeverInCircles() {
        EngineFamily good = Families.belt(TensionerKind.SPRING_PIN, true);
        AccessStep lost = new AccessStep("x", "x", 5, List.of("nowhere"), Optional.empty(), List.of(), 0);
        AccessStep circle = new AccessStep("x", "x", 5, List.of("x"), Optional.empty(), List.of(), 0);

        assertThatThrownBy(() -> withStep(good, lost)).hasMessageContaining("nowhere");
        assertThatThrownBy(() -> withStep(good, circle)).hasMessageContaining("needs itself");
    }

    private static EngineFamily withStep(EngineFamily f, AccessStep step) {
        List<AccessStep> steps = new java.util.ArrayList<>(f.accessSteps());
        steps.add(step);
        return new EngineFamily(
                f.code(),
                f.name(),
                f.drive(),
                f.interference(),
                f.crankFit(),
                f.reference(),
                f.pins(),
                f.tensioner(),
                f.pinOutBeforeTurns(),
                f.mountInTheWay(),
                f.moveOver(),
                f.blankingPlugs(),
                f.coolantLitres(),
                f.path().orElseThrow(),
                f.items(),
                steps,
                f.joints(),
                f.repair(),
                f.cautions());
    }
}
