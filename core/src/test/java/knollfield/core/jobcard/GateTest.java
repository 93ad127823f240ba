package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.Families;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Handling;
import knollfield.core.engine.Joint.Stage;
import knollfield.core.engine.TensionerKind;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Each gate of rules.md section 9 holds, and only its own words or its own proof open it. */
class GateTest {

    /** Cards that together have every gate. */
    static Stream<CardPlan> cards() {
        CardPlan scratch = new Bench(Books.card(Books.marks(TensionerKind.HYDRAULIC_PIN), Books.USUAL))
                .started()
                .until("marksin")
                .enter(new CardEvent.OutOfTime("jumped"))
                .state
                .plan();
        return Stream.of(
                Books.everyBeltGate(),
                Books.card(Books.marks(TensionerKind.SPRING_PIN), Books.USUAL),
                Books.card(Books.twoBanks(), Set.of("chain", "tensioner", "guides")),
                scratch);
    }

    static Stream<Arguments> gates() {
        return cards().flatMap(plan -> plan.gatePositions().keySet().stream().map(gate -> Arguments.of(gate, plan)));
    }

    /** Worked as far as {@code gate} lets it, with everything well except what feeds that gate. */
    private static Bench upTo(GateKind gate, CardPlan plan) {
        Bench bench = new Bench(plan).started();
        while (true) {
            Step next = bench.state.next().orElseThrow();
            if (next.gate().filter(g -> g == gate).isPresent()) {
                return bench;
            }
            bench.enter(BookAnswer.to(next));
        }
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("gates")
    void nothingBehindAShutGateCanBeEnteredAndTheCardCannotBeSigned(GateKind gate, CardPlan plan) {
        Bench bench = upTo(gate, plan);
        GateState shut = bench.state.gate(gate);
        assertThat(shut.open()).isFalse();
        assertThat(shut.waitsFor()).hasValueSatisfying(w -> assertThat(w).isNotBlank());

        List<Step> steps = plan.steps();
        int last = plan.gatePositions().get(gate);
        for (Step behind : steps.subList(last + 1, steps.size())) {
            CardRefused refusal = bench.refused(BookAnswer.to(behind));
            assertThat(refusal.kind()).isEqualTo(CardRefused.Kind.GATE_SHUT);
            if (plan.feeding(gate).size() == 1) {
                assertThat(refusal.gate()).as(behind.code()).contains(gate);
            }
        }
        CardRefused signing = bench.refused(new CardEvent.Completed(""));
        assertThat(signing.kind()).isEqualTo(CardRefused.Kind.GATE_SHUT);
        if (plan.feeding(gate).size() == 1) {
            assertThat(signing.gate()).contains(gate);
        }
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("gates")
    void onlyTheManagerOpensItWithWordsAndThreeNobody(GateKind gate, CardPlan plan) {
        Bench bench = upTo(gate, plan);
        CardEvent words = new CardEvent.GateOverridden(gate, "seen by two of us");
        assertThat(bench.refused(words).kind()).isEqualTo(CardRefused.Kind.NOT_ALLOWED);

        if (EnumSet.of(GateKind.PINS_OUT, GateKind.TWO_TURNS, GateKind.REFERENCES_TRUE)
                .contains(gate)) {
            assertThat(org.assertj.core.api.Assertions.catchThrowableOfType(
                            CardRefused.class, () -> bench.enter(words, true)))
                    .hasMessageContaining("Nobody can override");
            return;
        }
        bench.enter(words, true);
        assertThat(bench.state.gate(gate).open()).isTrue();
        bench.toTheEnd().enter(new CardEvent.Completed(""));
        assertThat(bench.state.overrides().get(gate).words()).isEqualTo("seen by two of us");
        assertThat(bench.state.overrides().get(gate).by()).isEqualTo("Ines Carrow");
    }

    @Test
    void theseCardsHaveEveryGateThereIs() {
        Set<GateKind> seen = EnumSet.noneOf(GateKind.class);
        cards().forEach(p -> seen.addAll(p.gatePositions().keySet()));
        // these two appear while a card is worked; their own tests stand in CorrectionTest
        seen.add(GateKind.SECOND_EYES);
        seen.add(GateKind.ONE_TIME_AGAIN);

        assertThat(seen).containsExactlyInAnyOrder(GateKind.values());
    }

    @ParameterizedTest
    @EnumSource(
            value = TensionerKind.class,
            names = {"CHAIN_RATCHET"},
            mode = EnumSource.Mode.EXCLUDE)
    void everyKindOfTensionerHasItsOwnStep(TensionerKind kind) {
        CardPlan plan = Books.card(Books.marks(kind), Books.USUAL);
        Bench bench = new Bench(plan).started().toTheEnd().enter(new CardEvent.Completed(""));

        assertThat(bench.state.completedAt()).isPresent();
        assertThat(plan.step("tensionerset").orElseThrow().title()).isNotBlank();
        boolean window = kind == TensionerKind.ECCENTRIC_POINTER
                || kind == TensionerKind.TWIST
                || kind == TensionerKind.FREQUENCY;
        assertThat(plan.gatePositions().containsKey(GateKind.TENSION_IN_WINDOW)).isEqualTo(window);
    }

    @Test
    void nothingIsLetOffBeforeThePinsAreCountedIn() {
        Bench bench =
                new Bench(Books.card(Books.friction(), Books.USUAL)).started().until("pinsin");

        assertThat(bench.refused(new CardEvent.Ticked("release")).gate()).contains(GateKind.REFERENCE_FOUND);
    }

    @ParameterizedTest
    @EnumSource(
            value = Stage.class,
            names = {"PUMP_AND_SEALS", "CRANK_BEFORE_TURNS"})
    void aBoltStagedBeforeTheTurnsIsDoneUpBeforeThemOnAChainToo(Stage stage) {
        CardPlan plan = Books.card(Families.chain(Handling.careful(), "cover", stage), Set.of("chain", "tensioner"));

        assertThat(plan.steps()).extracting(Step::code).containsOnlyOnce("torque-cambolt");
        assertThat(plan.steps()).extracting(Step::code).containsSubsequence("torque-cambolt", "turn1");
    }

    @Test
    void aTensionerOnlyCardHasNoGatesOfTheDrive() {
        EngineFamily family = Families.chain(Handling.careful(), "cover");
        CardPlan only = Books.card(family, Set.of("tensioner"));
        CardPlan whole = Books.card(family, Set.of("chain", "tensioner"));

        assertThat(only.gatePositions())
                .doesNotContainKeys(
                        GateKind.PINS_OUT,
                        GateKind.REFERENCES_TRUE,
                        GateKind.REFERENCE_FOUND,
                        GateKind.CAMS_HELD,
                        GateKind.SLACK_AT_TENSIONER)
                // nothing starts before the engine was turned by hand
                .containsKeys(
                        GateKind.TENSIONER_SET,
                        GateKind.TWO_TURNS,
                        GateKind.FIT_CHECK,
                        GateKind.BATTERY_OFF,
                        GateKind.LABEL);
        assertThat(whole.gatePositions()).containsKeys(GateKind.TWO_TURNS, GateKind.REFERENCES_TRUE);
        Bench bench = new Bench(only).started();
        assertThat(bench.refused(new CardEvent.OutOfTime("")).getMessage()).contains("the drive stays on");
        assertThat(bench.refused(new CardEvent.HardStop("")).getMessage())
                .as("nothing on this card could prove it away")
                .contains("the drive stays on");
        bench.toTheEnd().enter(new CardEvent.Completed(""));
        assertThat(bench.state.completedAt()).isPresent();
    }

    /** More of them with {@code -Dknollfield.walks=10000}. */
    private static final int WALKS = Integer.getInteger("knollfield.walks", 3_000);

    @Test
    void noWalkOfValidActionsSignsACardWithAnOpenGate() {
        Random random = new Random(42);
        List<CardPlan> plans = cards().toList();
        int signed = 0;
        for (int walk = 0; walk < WALKS; walk++) {
            CardPlan plan = plans.get(walk % plans.size());
            Bench bench = new Bench(plan).started();
            int length = 40 + random.nextInt(140);
            for (int i = 0; i < length && bench.state.completedAt().isEmpty(); i++) {
                try {
                    String by =
                            List.of("Hedra Voss", "Perran Voss", "Ines Carrow").get(random.nextInt(3));
                    bench.enter(Walk.event(random, bench), by, by.startsWith("Ines"));
                } catch (CardRefused e) {
                    assertThat(e.getMessage()).isNotBlank();
                }
            }
            CardState state = bench.state;
            if (state.completedAt().isPresent()) {
                signed++;
                assertThat(state.gates()).allMatch(GateState::open);
                assertThat(state.hardStop()).isFalse();
                assertThat(state.scope().awaiting()).isEmpty();
                assertThat(state.answers()).containsKeys("turn1", "turn2", "marksafter", "pinsout");
                assertThat(state.answers().get("marksafter").good()).isTrue();
            }
            assertThat(CardState.replay(plan, bench.entries)).isEqualTo(state);
        }
        assertThat(signed).as("walks that reached a signature").isGreaterThan(WALKS / 20);
    }

    /** What somebody at a bench could press next. */
    private static final class Walk {

        static CardEvent event(Random random, Bench bench) {
            CardState state = bench.state;
            List<Step> steps = state.plan().steps();
            Step any = steps.get(random.nextInt(steps.size()));
            int dice = random.nextInt(1000);
            if (dice < 860 && state.next().isPresent()) {
                return state.paused().isPresent()
                        ? new CardEvent.Resumed()
                        : BookAnswer.to(state.next().orElseThrow());
            }
            List<CardEvent> others = new ArrayList<>(List.of(
                    new CardEvent.Undone(any.code()),
                    BookAnswer.to(any),
                    new CardEvent.GateOverridden(GateKind.values()[random.nextInt(GateKind.values().length)], "words"),
                    new CardEvent.MarksRead("marksafter", Set.of("crank")),
                    new CardEvent.Counted("pinsout", random.nextInt(4)),
                    new CardEvent.HardStop("at a quarter"),
                    new CardEvent.OutOfTime("jumped"),
                    new CardEvent.Paused(CardEvent.PauseReason.PARTS, ""),
                    new CardEvent.Resumed(),
                    new CardEvent.Widened(Set.of("camseal")),
                    new CardEvent.OwnerAnswered(Set.of("camseal"), Set.of()),
                    new CardEvent.OwnerAnswered(Set.of(), Set.of("camseal")),
                    new CardEvent.Measured("window", random.nextInt(9) - 1),
                    new CardEvent.Checked("compare", Set.of()),
                    new CardEvent.Deviated(any.code(), "as it is"),
                    new CardEvent.Chosen("tools", random.nextBoolean() ? "here" : "paint", "one pin is away"),
                    new CardEvent.Inspected("look", "belt off or teeth missing"),
                    new CardEvent.PhaseTicked("B13"),
                    new CardEvent.Completed("")));
            if (bench.plan.basis().family().item("camseal").isEmpty()) {
                others.removeIf(e -> e instanceof CardEvent.Widened);
            }
            return others.get(random.nextInt(others.size()));
        }
    }
}
