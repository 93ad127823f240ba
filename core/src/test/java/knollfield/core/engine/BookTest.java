package knollfield.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;
import knollfield.core.Families;
import knollfield.core.clock.Limit;
import knollfield.core.units.DistanceUnit;
import knollfield.core.units.Torque;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A book that cannot be right is refused with the reason. */
class BookTest {

    private static final EngineFamily GOOD = Families.belt(TensionerKind.SPRING_PIN, true);

    private static EngineFamily with(
            ReferenceMethod reference,
            List<String> pins,
            List<Item> items,
            List<AccessStep> steps,
            List<Joint> joints,
            int plugs,
            double coolant) {
        return new EngineFamily(
                GOOD.code(),
                GOOD.name(),
                GOOD.drive(),
                GOOD.interference(),
                GOOD.crankFit(),
                reference,
                pins,
                GOOD.tensioner(),
                true,
                true,
                List.of(),
                plugs,
                coolant,
                GOOD.path().orElseThrow(),
                items,
                steps,
                joints,
                GOOD.repair(),
                List.of());
    }

    private static ThrowingCallable items(UnaryOperator<List<Item>> change) {
        List<Item> items = change.apply(new ArrayList<>(GOOD.items()));
        return () -> with(GOOD.reference(), GOOD.pins(), items, GOOD.accessSteps(), GOOD.joints(), 1, 5);
    }

    private static Item item(String code, ItemKind kind, String... steps) {
        return new Item(code, kind, code, new Part("P", "part", 1, 0), Optional.empty(), List.of(steps), false);
    }

    @Test
    void codesAreUnique() {
        assertThatThrownBy(items(l -> {
                    l.add(item("pump", ItemKind.WATER_PUMP));
                    return l;
                }))
                .hasMessage("there are two of item pump");
        List<AccessStep> steps = new ArrayList<>(GOOD.accessSteps());
        steps.add(steps.get(0));
        assertThatThrownBy(() -> with(GOOD.reference(), GOOD.pins(), GOOD.items(), steps, GOOD.joints(), 1, 5))
                .hasMessageContaining("two of access step covers");
    }

    @Test
    void thereIsABeltOrChainAndThereMayBeTwo() {
        assertThatThrownBy(items(l -> {
                    l.removeIf(i -> i.kind().isTheDrive());
                    return l;
                }))
                .hasMessageContaining("belt or chain among its items");
        org.assertj.core.api.Assertions.assertThatCode(items(l -> {
                    l.add(item("second", ItemKind.TIMING_CHAIN));
                    return l;
                }))
                .doesNotThrowAnyException();
    }

    @Test
    void itemsAndStepsReferToWhatIsThere() {
        assertThatThrownBy(items(l -> {
                    l.add(item("idler", ItemKind.IDLER, "ladder"));
                    return l;
                }))
                .hasMessage("it refers to access step ladder, which is not there");
        List<AccessStep> steps = new ArrayList<>(GOOD.accessSteps());
        steps.add(new AccessStep("x", "x", 1, List.of(), Optional.empty(), List.of("no such joint"), 0));
        assertThatThrownBy(() -> with(GOOD.reference(), GOOD.pins(), GOOD.items(), steps, GOOD.joints(), 1, 5))
                .hasMessageContaining("no such joint");
    }

    @Test
    void aFamilyTimedByPinsNamesThem() {
        assertThatThrownBy(() ->
                        with(ReferenceMethod.PINS, List.of(), GOOD.items(), GOOD.accessSteps(), GOOD.joints(), 1, 5))
                .hasMessageContaining("timed by pins and names none");
        assertThat(with(ReferenceMethod.MARKS, List.of(), GOOD.items(), GOOD.accessSteps(), GOOD.joints(), 0, 0)
                        .pins())
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"-1, 5", "0, -0.1", "0, NaN"})
    void plugsAndCoolantAreZeroOrMore(int plugs, double coolant) {
        assertThatThrownBy(() -> with(
                        GOOD.reference(), GOOD.pins(), GOOD.items(), GOOD.accessSteps(), GOOD.joints(), plugs, coolant))
                .hasMessageContaining("zero or more");
    }

    @Test
    void lookingSomethingUpFindsItOrNothing() {
        assertThat(GOOD.item("pump")).map(Item::name).contains("Water pump");
        assertThat(GOOD.item("wing")).isEmpty();
        assertThat(GOOD.joint("crank")).isPresent();
        assertThat(GOOD.joint("wing")).isEmpty();
        assertThat(GOOD.accessStep("belt")).isPresent();
        assertThat(GOOD.accessStep("wing")).isEmpty();
        assertThat(GOOD.driveItem().code()).isEqualTo("belt");
    }

    @Test
    void limitsAreTakenKindByKind() {
        Limit book = new Limit(OptionalInt.of(100_000), OptionalInt.empty());
        Limit own = Limit.of(120_000, 60);

        assertThat(book.smallerOf(own)).isEqualTo(Limit.of(100_000, 60));
        assertThat(own.smallerOf(book)).isEqualTo(Limit.of(100_000, 60));
        assertThatThrownBy(() -> Limit.of(0, 12)).hasMessageContaining("above zero");
        assertThatThrownBy(() -> Limit.of(10, -1)).hasMessageContaining("above zero");
    }

    @Test
    void aSevereScheduleMayLeaveOutWhatTheNormalOneHasNot() {
        Schedule kmOnly =
                new Schedule(Limit.ofKm(100_000), Optional.of(Limit.ofKm(60_000)), "book", DistanceUnit.MILES);
        assertThat(kmOnly.severe()).isPresent();
        assertThatThrownBy(() ->
                        new Schedule(Limit.ofKm(100_000), Optional.of(Limit.ofKm(100_001)), "book", DistanceUnit.KM))
                .hasMessageContaining("must not exceed");
    }

    @Test
    void partsJointsAnglesAndEstimatesHoldTogether() {
        assertThat(new Part("P", "bolts", 4, 250).totalMinor()).isEqualTo(1_000);
        assertThatThrownBy(() -> new Part("P", "p", 0, 1)).hasMessageContaining("at least 1");
        assertThatThrownBy(() -> new Part("P", "p", 1, -1)).hasMessageContaining("zero or more");
        assertThatThrownBy(() -> new TorqueSpec(new Torque(10), OptionalInt.of(0), "book"))
                .hasMessageContaining("angle");
        assertThatThrownBy(() -> new RepairEstimate(5, 4, 6)).hasMessageContaining("low to high");
        assertThatThrownBy(() -> new AccessStep("s", "s", -1, List.of(), Optional.empty(), List.of(), 0))
                .hasMessageContaining("zero or more");
        assertThatThrownBy(() -> new Joint("j", "j", Joint.Stage.FINAL, 0, Optional.empty(), true, List.of(), false))
                .hasMessageContaining("at least one bolt");
    }

    @Test
    void aLoopHasOneCrankACamAndMarksOnlyOnTeeth() {
        Pulley crank = new Pulley("c", "Crank", Pulley.Role.CRANK, 0, 0, 20, 30, false, true);
        Pulley cam = new Pulley("i", "Cam", Pulley.Role.CAM, 0, 200, 40, 60, false, true);

        assertThatThrownBy(() -> new BeltPath(120, true, List.of(cam)))
                .hasMessageContaining("one crank sprocket, not 0");
        assertThatThrownBy(() -> new BeltPath(120, true, List.of(crank, crank, cam)))
                .hasMessageContaining("not 2");
        assertThatThrownBy(() -> new BeltPath(120, true, List.of(crank))).hasMessageContaining("at least one cam");
        assertThatThrownBy(() -> new BeltPath(0, true, List.of(crank, cam))).hasMessageContaining("needs teeth");
        assertThatThrownBy(() -> new Pulley("t", "Tensioner", Pulley.Role.TENSIONER, 0, 0, 0, 28, true, true))
                .hasMessageContaining("cannot carry a timing mark");
        assertThat(new BeltPath(120, true, List.of(crank, cam)).marked()).containsExactly(crank, cam);
    }
}
