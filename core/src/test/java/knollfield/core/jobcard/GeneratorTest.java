package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.Families;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.TensionerKind;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Laws that hold for every generated card (procedure.md, rules.md section 9). */
class GeneratorTest {

    static Stream<Arguments> cards() {
        List<Arguments> all = new ArrayList<>();
        List<Set<String>> jobs = List.of(
                Set.of("belt", "tensioner"),
                Set.of("belt", "tensioner", "pump", "coolant"),
                Set.of("belt", "tensioner", "pump", "camseal", "coolant"));
        for (TensionerKind kind :
                List.of(TensionerKind.SPRING_PIN, TensionerKind.HYDRAULIC_PIN, TensionerKind.ECCENTRIC_POINTER)) {
            for (boolean pinFirst : new boolean[] {true, false}) {
                for (CrankFit fit : CrankFit.values()) {
                    for (Set<String> job : jobs) {
                        EngineFamily f = Families.belt(kind, pinFirst, fit, Interference.YES);
                        all.add(Arguments.of(f, job, "%s, pin first %s, %s, %s".formatted(kind, pinFirst, fit, job)));
                    }
                }
            }
        }
        all.add(Arguments.of(Families.chain(), Set.of("chain", "tensioner"), "chain"));
        all.add(Arguments.of(Families.chain(), Set.of("chain", "tensioner", "guides"), "chain and guides"));
        return all.stream();
    }

    private static List<String> codes(CardPlan plan) {
        return plan.steps().stream().map(Step::code).toList();
    }

    @ParameterizedTest(name = "{2}")
    @MethodSource("cards")
    void everyCardTurnsTwiceThenLooksAndBeginsSafe(EngineFamily family, Set<String> items, String name) {
        List<String> codes = codes(Books.listed(family, Set.of(), items));

        assertThat(codes).contains("turn1", "turn2", "marksafter", "battery", "compare", "start", "label");
        assertThat(codes.indexOf("battery")).isLessThan(codes.indexOf("marksin"));
        assertThat(codes.indexOf("marksin")).isLessThan(codes.indexOf("turn1"));
        assertThat(codes.indexOf("turn1")).isLessThan(codes.indexOf("turn2"));
        assertThat(codes.indexOf("turn2")).isLessThan(codes.indexOf("marksafter"));
        assertThat(codes.indexOf("marksafter")).isLessThan(codes.indexOf("start"));
        assertThat(codes.get(codes.size() - 1)).isEqualTo("label");
    }

    @ParameterizedTest(name = "{2}")
    @MethodSource("cards")
    void aGateIsThereExactlyWhereTheCardHasItsStep(EngineFamily family, Set<String> items, String name) {
        CardPlan plan = Books.listed(family, Set.of(), items);
        List<String> codes = codes(plan);

        assertThat(plan.gatePositions().containsKey(GateKind.PINS_OUT)).isEqualTo(codes.contains("pinsout"));
        assertThat(plan.gatePositions().containsKey(GateKind.COOLANT_LEVEL)).isEqualTo(items.contains("coolant"));
        assertThat(plan.gatePositions().containsKey(GateKind.ENGINE_CARRIED)).isEqualTo(family.mountInTheWay());
        assertThat(plan.gatePositions().containsKey(GateKind.MOVED_OVER))
                .isEqualTo(!family.moveOver().isEmpty());
        assertThat(plan.gatePositions().containsKey(GateKind.PLUGS_BACK)).isEqualTo(family.blankingPlugs() > 0);
        assertThat(plan.gatePositions())
                .containsKeys(
                        GateKind.BATTERY_OFF,
                        GateKind.REFERENCE_FOUND,
                        GateKind.FIT_CHECK,
                        GateKind.TWO_TURNS,
                        GateKind.REFERENCES_TRUE,
                        GateKind.CRITICAL_TORQUES,
                        GateKind.WHEEL_AND_SUPPORT,
                        GateKind.FIRST_START,
                        GateKind.LABEL,
                        GateKind.TENSIONER_SET,
                        GateKind.PINS_OUT);
        assertThat(plan.gatePositions().containsKey(GateKind.SLACK_AT_TENSIONER))
                .isEqualTo(family.drive().isBelt());
        plan.gatePositions().keySet().forEach(g -> assertThat(plan.feeding(g)).isNotEmpty());
    }

    @ParameterizedTest(name = "{2}")
    @MethodSource("cards")
    void whatProvesTheTimingIsProvenAgainAfterAStop(EngineFamily family, Set<String> items, String name) {
        CardPlan plan = Books.listed(family, Set.of(), items);

        assertThat(plan.steps().stream().filter(Step::provesTiming).map(Step::code))
                .contains("turn1", "turn2", "marksafter");
        assertThat(plan.step("battery").orElseThrow().provesTiming()).isFalse();
        assertThat(plan.step("compare").orElseThrow().provesTiming()).isFalse();
    }

    @ParameterizedTest(name = "{2}")
    @MethodSource("cards")
    void aFrictionHeldCrankIsTightenedBeforeTheTurnsAndUndoneAfterTheMarks(
            EngineFamily family, Set<String> items, String name) {
        List<String> codes = codes(Books.listed(family, Set.of(), items));
        if (!codes.contains("crankoff")) {
            return;
        }
        boolean friction = family.crankFit() == CrankFit.FRICTION_HELD;
        assertThat(codes.indexOf("marksin") < codes.indexOf("crankoff")).isEqualTo(friction);
    }

    @ParameterizedTest(name = "{2}")
    @MethodSource("cards")
    void theTensionersOwnPinComesOutInTheFamilysOrder(EngineFamily family, Set<String> items, String name) {
        List<String> codes = codes(Books.listed(family, Set.of(), items));
        if (!codes.contains("tensionerset")) {
            return;
        }
        boolean between = !family.pinOutBeforeTurns() && family.tensioner() != TensionerKind.ECCENTRIC_POINTER;
        assertThat(codes.indexOf("turn1") < codes.indexOf("tensionerset")).isEqualTo(between);
        assertThat(codes.indexOf("tensionerset")).isLessThan(codes.indexOf("turn2"));
    }

    @Test
    void aDryJobDrainsNothing() {
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true);

        assertThat(codes(Books.listed(family, Set.of(), Set.of("belt", "tensioner"))))
                .doesNotContain("drain", "level", "fit-pump");
        assertThat(codes(Books.listed(family, Set.of(), Set.of("belt", "tensioner", "pump", "coolant"))))
                .contains("drain", "level", "fit-pump");
    }

    @Test
    void theBookMinutesAreTheUnionOfTheJob() {
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true);

        assertThat(Books.listed(family, Set.of("air conditioning"), Set.of("belt", "tensioner"))
                        .bookMinutes())
                .isEqualTo(300 + 24 + 6);
    }

    @Test
    void aCardForNothingIsRefused() {
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true);

        assertThatThrownBy(() -> Books.listed(family, Set.of(), Set.of())).hasMessageContaining("at least one item");
        assertThatThrownBy(() -> Books.listed(family, Set.of(), Set.of("wing"))).hasMessageContaining("no item wing");
    }
}
