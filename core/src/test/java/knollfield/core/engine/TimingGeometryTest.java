package knollfield.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import knollfield.core.Families;
import knollfield.core.engine.TimingGeometry.Pull;
import knollfield.core.units.TorqueUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TimingGeometryTest {

    private static Pulley wheel(String code, Pulley.Role role, int teeth) {
        return new Pulley(
                code,
                code,
                role,
                0,
                0,
                teeth,
                Math.max(20, teeth),
                teeth == 0,
                teeth > 0 && role != Pulley.Role.WATER_PUMP);
    }

    // By rules.md section 7, slider-crank check values (r 43, l 137 mm)
    @ParameterizedTest
    @CsvSource({"0, 0", "30, 7.458", "90, 49.923", "180, 86", "-30, 7.458", "360, 0"})
    void thePistonGoesDown(double degrees, double mm) {
        assertThat(TimingGeometry.pistonTravel(43, 137, degrees)).isCloseTo(mm, within(0.0006));
    }

    @Test
    void aRodShorterThanTheThrowIsRefused() {
        assertThatThrownBy(() -> TimingGeometry.pistonTravel(43, 43, 10)).hasMessageContaining("shorter than the rod");
        assertThatThrownBy(() -> TimingGeometry.pistonTravel(0, 43, 10)).hasMessageContaining("above zero");
    }

    // By rules.md section 7, one tooth out
    @ParameterizedTest
    @CsvSource({"24, 15", "48, 7.5"})
    void oneToothOut(int teeth, double degrees) {
        assertThat(TimingGeometry.toothDegrees(teeth)).isEqualTo(degrees);
        assertThatThrownBy(() -> TimingGeometry.toothDegrees(0)).hasMessageContaining("needs teeth");
    }

    @Test
    void markReturnAgreesWithTurningToothByTooth() {
        Random random = new Random(7);
        for (int i = 0; i < 200; i++) {
            int crank = 14 + random.nextInt(16);
            int links = 60 + random.nextInt(120);
            int pump = 12 + random.nextInt(30);
            List<Ratio> ratios = List.of(new Ratio(crank, links), new Ratio(crank, 2L * crank), new Ratio(crank, pump));

            // by turning: tooth after tooth, until belt, cam and pump all stand as they stood
            int passed = 0;
            do {
                passed += crank;
            } while (passed % links != 0 || passed % (2 * crank) != 0 || passed % pump != 0);

            assertThat(TimingGeometry.markReturn(ratios)).isEqualTo(passed / crank);
        }
    }

    @Test
    void camsTurnAtHalfSpeedOrTheBookIsRefusedWithTheReason() {
        List<Pulley> wrong = List.of(
                wheel("crank", Pulley.Role.CRANK, 20),
                wheel("inlet", Pulley.Role.CAM, 40),
                wheel("exhaust", Pulley.Role.CAM, 42));

        assertThatThrownBy(() -> new BeltPath(120, true, wrong))
                .isInstanceOfSatisfying(
                        BookFault.Broken.class,
                        b -> assertThat(b.faults()).singleElement().satisfies(f -> {
                            assertThat(f.pointer()).isEqualTo("/pulleys/2/teeth");
                            assertThat(f.words())
                                    .contains("exhaust has 42 teeth", "need 40", "intermediate ratio must be stated");
                        }));
    }

    @Test
    void anIntermediateRatioThatGivesHalfSpeedIsTaken() {
        // the crank's 20 teeth drive an intermediate of 30, on whose shaft a sprocket of 24 drives cams of 32
        List<Pulley> path = List.of(wheel("drive", Pulley.Role.CRANK, 24), wheel("cam", Pulley.Role.CAM, 32));
        BeltPath chain = new BeltPath(90, true, Optional.of(new Ratio(20, 30)), path);

        assertThat(chain.turnsPerCrankTurn(chain.pulleys().get(1))).isEqualTo(new Ratio(1, 2));
        // the loop advances 2/3 · 24 = 16 links a crank turn: back after lcm(90, 16)/16 = 45 turns, the cam after 2
        assertThat(chain.turnsUntilPaintReturns()).isEqualTo(90);
        assertThatThrownBy(() -> new BeltPath(90, true, Optional.of(new Ratio(3, 4)), path))
                .hasMessageContaining("32 teeth", "3 : 4");
    }

    @Test
    void slackIsAtTheTensionerWhichIsLaidOverLast() {
        BeltPath path = Families.belt(TensionerKind.SPRING_PIN, true).path().orElseThrow();

        assertThat(TimingGeometry.runs(path))
                .extracting(r -> r.from() + ">" + r.to() + " " + r.pull())
                .containsExactly(
                        "crank>tens " + Pull.SLACK,
                        "tens>inlet " + Pull.SLACK,
                        "inlet>exhaust " + Pull.TIGHT,
                        "exhaust>pump " + Pull.TIGHT,
                        "pump>crank " + Pull.TIGHT);
        assertThat(TimingGeometry.layingOn(path))
                .extracting(Pulley::code)
                .containsExactly("crank", "pump", "exhaust", "inlet", "tens");
    }

    // By rules.md section 8, values printed in two units
    @ParameterizedTest
    @CsvSource({
        "219, NEWTON_METRE, 158, POUND_FOOT, true",
        "9, NEWTON_METRE, 7, POUND_FOOT, false",
        "29.8, NEWTON_METRE, 22, POUND_FOOT, false",
        "6, NEWTON_METRE, 53, POUND_INCH, false",
        "6.0, NEWTON_METRE, 83, POUND_INCH, true"
    })
    void figuresInTwoUnitsAreHeldAgainstEachOther(String a, TorqueUnit ua, String b, TorqueUnit ub, boolean flagged) {
        assertThat(new PrintedTorque(a, ua).contradicts(new PrintedTorque(b, ub)))
                .isEqualTo(flagged);
        assertThat(new PrintedTorque(b, ub).contradicts(new PrintedTorque(a, ua)))
                .isEqualTo(flagged);
    }

    @Test
    void aContradictionInPrintIsARemarkOnItsJoint() {
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true);
        List<Joint> joints = new ArrayList<>(family.joints());
        joints.set(
                0,
                joints.get(0)
                        .with(new TorqueSpec(
                                knollfield.core.units.Torque.of(219, TorqueUnit.NEWTON_METRE),
                                java.util.OptionalInt.empty(),
                                "test",
                                List.of(
                                        new PrintedTorque("219", TorqueUnit.NEWTON_METRE),
                                        new PrintedTorque("158", TorqueUnit.POUND_FOOT)))));

        assertThat(BookChecks.remarks(joints, List.of())).anySatisfy(r -> {
            assertThat(r.pointer()).isEqualTo("/joints/0/torque");
            assertThat(r.words()).contains("219 N·m", "158 lb·ft", "161.5");
        });
    }
}
