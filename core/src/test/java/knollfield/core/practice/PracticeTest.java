package knollfield.core.practice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import knollfield.core.Families;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.TimingGeometry;
import knollfield.core.practice.Exercise.Decision;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class PracticeTest {

    private static final EngineFamily FAMILY = Families.belt(TensionerKind.SPRING_PIN, true);
    private static final int CRANK = 24;

    private static Exercise round(long seed) {
        return Exercise.of(FAMILY.path().orElseThrow(), FAMILY.handling(), seed);
    }

    private static List<String> rightOrder() {
        return TimingGeometry.layingOn(FAMILY.path().orElseThrow()).stream()
                .map(Pulley::code)
                .toList();
    }

    private static Marks.Answers right(Exercise e) {
        return new Marks.Answers(
                List.of(e.startTeeth()),
                rightOrder(),
                e.wheelOut(),
                e.teethOut(),
                e.situation().right());
    }

    @Test
    void theSameSeedGivesTheSameRoundAndEveryRoundCanBeSolved() {
        for (long seed = 0; seed < 500; seed++) {
            Exercise e = round(seed);
            assertThat(e).isEqualTo(round(seed));
            assertThat(e.startTeeth()).isBetween(1, 2 * CRANK - 1);
            assertThat(e.wheels()).containsExactlyInAnyOrderElementsOf(rightOrder());
            assertThat(Marks.of(e, right(e)).points()).isEqualTo(100);
        }
    }

    @Test
    void aToothTooFarOrACrankTurnShortShowsInTheMarks() {
        Exercise e = round(3);
        int crankTrue = e.startTeeth() > CRANK ? e.startTeeth() - CRANK : e.startTeeth() + CRANK;

        assertThat(firstPart(e, e.startTeeth() + 1).words()).isEqualTo("The crank stands 1 tooth (15°) from its mark.");
        assertThat(firstPart(e, crankTrue).words()).contains("one more crank turn");
        assertThat(firstPart(e, crankTrue).points()).isEqualTo(10);
        assertThat(firstPart(e, e.startTeeth() + 2 * CRANK).points())
                .as("two turns too many")
                .isEqualTo(20);
        assertThat(Marks.of(e, new Marks.Answers(List.of(e.startTeeth() + 1, -1), List.of(), "", 0, Decision.STOP))
                        .parts()
                        .get(0)
                        .words())
                .isEqualTo("Turned back: this engine never is.");
    }

    private static Marks.Part firstPart(Exercise e, int teeth) {
        return Marks.of(e, new Marks.Answers(List.of(teeth), List.of(), "", 0, Decision.STOP))
                .parts()
                .get(0);
    }

    @Test
    void aWrongWheelInTheOrderIsNamed() {
        List<String> order = new java.util.ArrayList<>(rightOrder());
        java.util.Collections.swap(order, 1, 2);
        Marks.Part part = Marks.of(round(1), new Marks.Answers(List.of(), order, "", 0, Decision.STOP))
                .parts()
                .get(1);

        assertThat(part.points()).isEqualTo(Marks.MOST / 5);
        assertThat(part.words()).startsWith("After 1 right wheels comes the water pump");
    }

    @Test
    void theToothOutIsHalfRightWithTheWheelAlone() {
        Exercise e = round(5);
        Marks.Answers wrongWay = new Marks.Answers(List.of(), List.of(), e.wheelOut(), -e.teethOut(), Decision.STOP);

        assertThat(Marks.of(e, wrongWay).parts().get(2).points()).isEqualTo(15);
        // By rules.md section 7, one tooth of 48 is 7.5° of cam
        assertThat(Math.abs(e.degreesOut())).isEqualTo(7.5, within(1e-9));
    }

    @ParameterizedTest
    @EnumSource(Exercise.Situation.class)
    void everySituationHasOneRightDecision(Exercise.Situation situation) {
        Exercise e = new Exercise(FAMILY.path().orElseThrow(), FAMILY.handling(), 1, List.of(), "inlet", 1, situation);
        for (Decision decision : Decision.values()) {
            Marks.Part part = Marks.of(e, new Marks.Answers(List.of(), List.of(), "", 0, decision))
                    .parts()
                    .get(3);
            assertThat(part.points()).isEqualTo(decision == situation.right() ? Marks.MOST : 0);
            assertThat(part.words()).contains(situation.right().words());
        }
        assertThat(situation.words()).isNotBlank();
    }
}
