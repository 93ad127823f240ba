package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.time.Instant;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.Interference;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.units.TorqueUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class CardTest {

    private static final Instant NOW = Instant.parse("2026-11-25T09:00:00Z");
    private static final Set<String> USUAL = Set.of("belt", "tensioner", "pump", "coolant");

    private static CardPlan spring() {
        return Books.listed(Families.belt(TensionerKind.SPRING_PIN, true), Set.of(), USUAL);
    }

    private static CardRefused refused(Bench bench, CardEvent event) {
        CardRefused refusal = catchThrowableOfType(CardRefused.class, () -> bench.enter(event));
        assertThat(refusal).as("refusal of %s", event).isNotNull();
        return refusal;
    }

    @ParameterizedTest
    @EnumSource(names = {"SPRING_PIN", "HYDRAULIC_PIN", "ECCENTRIC_POINTER"})
    void aBeltCardCanBeWorkedToItsSignature(TensionerKind kind) {
        CardPlan plan = Books.listed(Families.belt(kind, false), Set.of(), USUAL);
        Bench bench = new Bench(plan).started();
        assertThat(bench.state.share()).isZero();
        bench.toTheEnd().enter(new CardEvent.Completed(""));

        assertThat(bench.state.completedAt()).isPresent();
        assertThat(bench.state.share()).isEqualTo(1);
        assertThat(CardState.replay(plan, bench.entries)).isEqualTo(bench.state);
    }

    @Test
    void aChainCardHasItsOwnPhasesAndNoBeltGates() {
        CardPlan plan = Books.listed(Families.chain(), Set.of(), Set.of("chain", "tensioner"));
        Bench bench = new Bench(plan).started().toTheEnd().enter(new CardEvent.Completed(""));

        assertThat(plan.phases())
                .extracting(Phase::code)
                .contains("C4", "C10", "C11")
                .doesNotContain("B19");
        // timed by marks, dry, nothing to move over: those gates are not on this card
        assertThat(plan.gatePositions())
                .doesNotContainKeys(GateKind.COOLANT_LEVEL, GateKind.MOVED_OVER, GateKind.SLACK_AT_TENSIONER)
                .containsKeys(GateKind.TWO_TURNS, GateKind.REFERENCES_TRUE);
        assertThat(bench.state.completedAt()).isPresent();
    }

    @Test
    void aFrictionHeldCrankIsTimedBeforeItsBoltIsUndone() {
        List<String> codes = Books.listed(
                        Families.belt(TensionerKind.SPRING_PIN, true, CrankFit.FRICTION_HELD, Interference.YES),
                        Set.of(),
                        USUAL)
                .phases()
                .stream()
                .map(Phase::code)
                .toList();
        List<String> keyed = spring().phases().stream().map(Phase::code).toList();

        assertThat(codes.indexOf("B10")).isLessThan(codes.indexOf("B6"));
        assertThat(keyed.indexOf("B6")).isLessThan(keyed.indexOf("B10"));
    }

    @Test
    void nothingHappensBeforeCheckIn() {
        assertThat(refused(new Bench(spring()), new CardEvent.Ticked("parts")).kind())
                .isEqualTo(CardRefused.Kind.NOT_STARTED);
    }

    @Test
    void noTurnWithAPinIn() {
        Bench bench = new Bench(spring()).started().until("pinsout");
        bench.enter(new CardEvent.Counted("pinsout", 2));
        CardRefused refusal = bench.refused(new CardEvent.Turned("turn1"));

        assertThat(refusal.gate()).contains(GateKind.PINS_OUT);
        assertThat(refusal).hasMessage("Timing pins out: 2 of 3 pins out, 3 are needed.");
    }

    @Test
    void oneTurnIsNotTwo() {
        Bench bench = new Bench(spring()).started().until("turn1");
        assertThat(bench.refused(new CardEvent.Turned("turn2"))).hasMessageContaining("comes first");
        bench.enter(new CardEvent.Turned("turn1"));

        assertThat(bench.refused(new CardEvent.MarksRead("marksafter", Set.of()))
                        .gate())
                .contains(GateKind.TWO_TURNS);
        assertThat(bench.refused(new CardEvent.Completed("")).gate()).contains(GateKind.TWO_TURNS);
    }

    @ParameterizedTest
    @EnumSource(names = {"PINS_OUT", "TWO_TURNS", "REFERENCES_TRUE"})
    void threeGatesNobodyOverrides(GateKind gate) {
        Bench bench = new Bench(spring()).started();
        CardRefused refusal = catchThrowableOfType(
                CardRefused.class, () -> bench.enter(new CardEvent.GateOverridden(gate, "I am sure"), true));

        assertThat(refusal.kind()).isEqualTo(CardRefused.Kind.NOT_ALLOWED);
    }

    @Test
    void theOthersNeedTheManagerAndWords() {
        Bench bench = new Bench(spring()).started().until("onetime");
        CardEvent override = new CardEvent.GateOverridden(GateKind.ONE_TIME_NEW, "bolt on Friday's ferry");

        assertThat(bench.refused(override).kind()).isEqualTo(CardRefused.Kind.NOT_ALLOWED);
        assertThatThrownBy(() -> bench.enter(new CardEvent.GateOverridden(GateKind.ONE_TIME_NEW, " "), true))
                .hasMessageContaining("words");
        bench.enter(override, true);
        assertThat(bench.state.gate(GateKind.ONE_TIME_NEW).open()).isTrue();
        bench.toTheEnd().enter(new CardEvent.Completed(""));
        assertThat(bench.state.gate(GateKind.ONE_TIME_NEW).overriddenWith()).contains("bolt on Friday's ferry");
    }

    @Test
    void aMarkThatIsNotTrueTakesTheTimingBackAndCountsTheAttempt() {
        Bench bench = new Bench(spring()).started().until("marksafter");
        bench.enter(new CardEvent.MarksRead("marksafter", Set.of("inlet cam")));

        assertThat(bench.state.attempt()).isEqualTo(2);
        assertThat(bench.state.answers()).doesNotContainKeys("turn1", "turn2", "pinsout", "belton");
        assertThat(bench.state.answers()).containsKey("compare");
        assertThat(bench.state.next().orElseThrow().code()).isEqualTo("marksagain");
    }

    @Test
    void aHardStopMustBeProvenAway() {
        Bench bench = new Bench(spring()).started().until("turn2");
        bench.enter(new CardEvent.HardStop("at a quarter turn"));

        assertThat(bench.state.hardStop()).isTrue();
        assertThat(bench.refused(new CardEvent.Completed("")).kind()).isEqualTo(CardRefused.Kind.GATE_SHUT);
        bench.toTheEnd();
        assertThat(bench.state.hardStop()).isFalse();
    }

    @Test
    void whatWasDoneRelyingOnAGateHoldsItInPlace() {
        Bench bench = new Bench(spring()).started().until("marksafter");

        assertThat(bench.refused(new CardEvent.Undone("pinsout"))).hasMessageContaining("relying on this");
        bench.enter(new CardEvent.Undone("turn2"));
        assertThat(bench.state.gate(GateKind.TWO_TURNS).waitsFor()).contains("turn 2 of 2 not done");
    }

    @Test
    void aPhaseIsTickedInOneTouchUpToTheNextGate() {
        Bench bench = new Bench(spring()).started();
        bench.enter(new CardEvent.PhaseTicked("B2"));

        assertThat(bench.state.answers()).containsOnlyKeys("parts");
        assertThat(bench.refused(new CardEvent.PhaseTicked("B8")).kind()).isEqualTo(CardRefused.Kind.GATE_SHUT);
    }

    // Common practice, no source: rules.md section 8 and procedure.md; 53 lb·in is 6.0 N·m
    @ParameterizedTest(name = "{0} {1}: in range {2}, asks for {3}")
    @CsvSource({
        "6.0, NEWTON_METRE, true,", "53, POUND_INCH, true,", "53, POUND_FOOT, false, POUND_INCH",
        "4.43, POUND_FOOT, true,", "4.43, POUND_INCH, false, POUND_FOOT", "4.43, NEWTON_METRE, false, POUND_FOOT",
        "53, NEWTON_METRE, false, POUND_INCH", "5.7, NEWTON_METRE, true,", "5.69, NEWTON_METRE, false,POUND_FOOT?"
    })
    void torquesAreJudgedAndUnitsGuarded(double value, TorqueUnit unit, boolean inRange, String guard) {
        TorqueSpec book = new TorqueSpec(new knollfield.core.units.Torque(6.0), OptionalInt.empty(), "book");
        TorqueJudgement judgement = TorqueJudgement.of(book, value, unit);

        assertThat(judgement.inRange()).isEqualTo(inRange);
        if (guard == null) {
            assertThat(judgement.guard()).isEmpty();
        } else if (guard.endsWith("?")) {
            // a plain miss near the book: no other unit fits better than the one that was typed
            assertThat(judgement.guard()).isEmpty();
        } else {
            assertThat(judgement.guard()).contains(TorqueUnit.valueOf(guard));
        }
    }

    @Test
    void aTwelvefoldTorqueAsksBeforeItIsTaken() {
        Bench bench = new Bench(spring()).started().until("torque-tensbolt");
        CardRefused question = refused(
                bench,
                new CardEvent.TorqueEntered("torque-tensbolt", 53, TorqueUnit.POUND_FOOT, OptionalInt.empty(), false));

        assertThat(question.kind()).isEqualTo(CardRefused.Kind.UNIT_GUARD);
        assertThat(question).hasMessage("53 lb·ft is 71.86 N·m; the book says 6 N·m. lb·in or lb·ft?");
        bench.enter(
                new CardEvent.TorqueEntered("torque-tensbolt", 53, TorqueUnit.POUND_INCH, OptionalInt.empty(), false));
        assertThat(bench.state.answers().get("torque-tensbolt").words()).isEqualTo("53 lb·in = 5.99 N·m");
    }

    @Test
    void aTorqueOutOfRangeIsKeptAndHoldsTheGate() {
        Bench bench = new Bench(spring()).started().until("torque-crank");
        bench.enter(
                new CardEvent.TorqueEntered("torque-crank", 120, TorqueUnit.NEWTON_METRE, OptionalInt.of(90), false));
        assertThat(bench.state.gate(GateKind.CRITICAL_TORQUES).waitsFor())
                .contains("Crank bolt out of range: 120 N·m + 90°");
        bench.enter(
                new CardEvent.TorqueEntered("torque-crank", 130, TorqueUnit.NEWTON_METRE, OptionalInt.empty(), false));
        assertThat(bench.state.gate(GateKind.CRITICAL_TORQUES).open())
                .as("without its angle")
                .isFalse();
    }
}
