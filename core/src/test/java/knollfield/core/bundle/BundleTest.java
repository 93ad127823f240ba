package knollfield.core.bundle;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.bundle.BundleLine.Rule;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Part;
import knollfield.core.engine.TensionerKind;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BundleTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final EngineFamily FAMILY = Families.belt(TensionerKind.SPRING_PIN, true);

    private static BundleRules.Vehicle vehicle(Map<String, ClockStart> starts, Evidence... evidence) {
        return new BundleRules.Vehicle(Set.of(), starts, List.of(evidence), TODAY, 138_000);
    }

    private static BundleLine line(Bundle bundle, String code) {
        return bundle.lines().stream()
                .filter(l -> l.code().equals(code))
                .findFirst()
                .orElseThrow();
    }

    // Common practice, no source: procedure.md's 5.0 h + 0.4 h for air conditioning + 0.4 h for a top-mounted pump
    @ParameterizedTest(name = "{0}: {1} minutes")
    @CsvSource({
        "'', 300",
        "'air conditioning', 324",
        "'top steering pump', 324",
        "'air conditioning;top steering pump', 348"
    })
    void equipmentSwitchesStepsOn(String equipment, int minutes) {
        Set<String> set = equipment.isEmpty() ? Set.of() : Set.of(equipment.split(";"));
        assertThat(Labour.of(FAMILY, set, List.of("belt")).minutes()).isEqualTo(minutes);
    }

    @Test
    void sharedStepsCountOnce() {
        Labour together = Labour.of(FAMILY, Set.of(), List.of("belt", "tensioner", "pump"));

        assertThat(together.minutes()).isEqualTo(300 + 6 + 40 + 10);
        assertThat(Labour.marginalMinutes(FAMILY, Set.of(), List.of("belt", "tensioner"), "pump"))
                .isEqualTo(50);
        assertThat(together.steps())
                .filteredOn(s -> s.step().code().equals("covers"))
                .singleElement()
                .satisfies(s -> assertThat(s.neededBy()).containsExactly("belt", "pump", "tensioner"));
    }

    @Test
    void unionIsNeverMoreThanTheSumAndGrowsWithItems() {
        Random random = new Random(5);
        List<String> codes = FAMILY.items().stream().map(i -> i.code()).toList();
        for (int i = 0; i < 200; i++) {
            List<String> some = new ArrayList<>(codes);
            some.removeIf(c -> random.nextBoolean());
            int union = Labour.of(FAMILY, Set.of("air conditioning"), some).minutes();
            int sum = some.stream()
                    .mapToInt(c -> Labour.of(FAMILY, Set.of("air conditioning"), List.of(c))
                            .minutes())
                    .sum();
            int all = Labour.of(FAMILY, Set.of("air conditioning"), codes).minutes();
            assertThat(union).isLessThanOrEqualTo(sum).isLessThanOrEqualTo(all);
        }
    }

    @Test
    void everyStepComesAfterThoseItNeeds() {
        List<String> order = Labour.of(FAMILY, Set.of("air conditioning"), List.of("pump")).steps().stream()
                .map(s -> s.step().code())
                .toList();
        assertThat(order).contains("aircon", "belt", "pump");
        assertThat(order.indexOf("covers")).isLessThan(order.indexOf("belt"));
    }

    @Test
    void tensionerPumpCoolantAndOneTimeFastenersAreRequired() {
        Bundle bundle = BundleRules.bundle(FAMILY, vehicle(Map.of()), Set.of());

        assertThat(bundle.items()).containsExactlyInAnyOrder("belt", "tensioner", "pump", "coolant");
        assertThat(line(bundle, "camseal").rule()).isEqualTo(Rule.OFFERED);
        assertThat(line(bundle, "camseal").included()).isFalse();
        assertThat(line(bundle, "crank").parts()).extracting(p -> p.number()).containsExactly("F-crank");
        // belt 45.00 + tensioner 39.00 + pump 32.00 + coolant 24.00 + four opened joints at 2.50
        assertThat(bundle.partsMinor()).isEqualTo(15_000);
        assertThat(bundle.labour().minutes()).isEqualTo(371);
        assertThat(bundle.labourMinor(6_000)).isEqualTo(37_100);
    }

    @Test
    void aPumpRenewedRecentlyStaysOutAndTheCoolantStaysIn() {
        ClockStart recent = new ClockStart(TODAY.minusMonths(6), 130_000, ClockStart.Grade.DOCUMENTED);
        Bundle bundle = BundleRules.bundle(FAMILY, vehicle(Map.of("pump", recent)), Set.of("pump"));

        assertThat(line(bundle, "pump").rule()).isEqualTo(Rule.EXCLUDED);
        assertThat(bundle.items()).containsExactlyInAnyOrder("belt", "tensioner");
        assertThat(bundle.lines()).extracting(BundleLine::code).doesNotContain("pumpface");
    }

    @Test
    void oilFromTheTopAsksForTheCamSeals() {
        Bundle bundle =
                BundleRules.bundle(FAMILY, vehicle(Map.of(), new Evidence(EvidenceKind.OIL_TOP, TODAY)), Set.of());

        assertThat(line(bundle, "camseal").rule()).isEqualTo(Rule.REQUIRED);
        assertThat(bundle.items()).contains("camseal");
    }

    @Test
    void anOfferedItemAddsItsOwnMinutesOnly() {
        Bundle without = BundleRules.bundle(FAMILY, vehicle(Map.of()), Set.of());
        Bundle with = BundleRules.bundle(FAMILY, vehicle(Map.of()), Set.of("camseal"));

        assertThat(with.labour().minutes() - without.labour().minutes())
                .isEqualTo(25)
                .isEqualTo(line(without, "camseal").marginalMinutes());
    }

    @Test
    void renewedRecentlyMeansLessThanAQuarterOfItsLife() {
        // Common practice, no source: a part of 120,000 km or six years is not done again within a quarter of either
        for (int km : new int[] {29_999, 30_000}) {
            ClockStart start = new ClockStart(TODAY, 138_000 - km, ClockStart.Grade.DOCUMENTED);
            Bundle bundle = BundleRules.bundle(FAMILY, vehicle(Map.of("pump", start)), Set.of());
            assertThat(line(bundle, "pump").rule()).isEqualTo(km < 30_000 ? Rule.EXCLUDED : Rule.REQUIRED);
        }
        ClockStart seals = new ClockStart(TODAY, 138_000 - 10_000, ClockStart.Grade.DOCUMENTED);
        assertThat(line(BundleRules.bundle(FAMILY, vehicle(Map.of("camseal", seals)), Set.of("camseal")), "camseal")
                        .rule())
                .as("without limits of its own it lives as long as the drive")
                .isEqualTo(Rule.EXCLUDED);
    }

    @Test
    void whatWasFoundOnAnItemAsksForItUnlessItSaysNothingBadOrWasSetAside() {
        Evidence found = new Evidence(EvidenceKind.CRACKS, TODAY, Evidence.Confidence.SEEN, Optional.of("camseal"));
        Evidence good =
                new Evidence(EvidenceKind.INSPECTED_GOOD, TODAY, Evidence.Confidence.SEEN, Optional.of("camseal"));
        assertThat(rule(found)).isEqualTo(Rule.REQUIRED);
        assertThat(rule(good)).isEqualTo(Rule.OFFERED);
        assertThat(rule()).isEqualTo(Rule.OFFERED);
        Evidence elsewhere = new Evidence(EvidenceKind.CRACKS, TODAY, Evidence.Confidence.SEEN, Optional.of("pump"));
        assertThat(rule(elsewhere)).isEqualTo(Rule.OFFERED);
        Evidence oil =
                new Evidence(EvidenceKind.OIL_TOP, TODAY.minusDays(9), Evidence.Confidence.SEEN, Optional.empty());
        Evidence measured =
                new Evidence(EvidenceKind.INSPECTED_GOOD, TODAY, Evidence.Confidence.MEASURED, Optional.empty());
        assertThat(rule(oil)).isEqualTo(Rule.REQUIRED);
        assertThat(rule(oil, measured)).as("looked at again by measuring").isEqualTo(Rule.OFFERED);
    }

    private static Rule rule(Evidence... found) {
        return line(BundleRules.bundle(FAMILY, vehicle(Map.of(), found), Set.of()), "camseal")
                .rule();
    }

    @Test
    void whatTheVehicleHasNotGotIsNotFitted() {
        EngineFamily family = Families.with(
                FAMILY,
                new Item(
                        "compressorbelt",
                        ItemKind.AUXILIARY_BELT,
                        "Compressor belt",
                        new Part("X-1", "Compressor belt", 1, 900),
                        Optional.empty(),
                        List.of("aircon"),
                        false));
        BundleRules.Vehicle cooled =
                new BundleRules.Vehicle(Set.of("air conditioning"), Map.of(), List.of(), TODAY, 138_000);
        assertThat(line(BundleRules.bundle(family, vehicle(Map.of()), Set.of()), "compressorbelt")
                        .rule())
                .isEqualTo(Rule.EXCLUDED);
        assertThat(line(BundleRules.bundle(family, cooled, Set.of()), "compressorbelt")
                        .rule())
                .isEqualTo(Rule.OFFERED);
        EngineFamily loose = Families.with(
                FAMILY,
                new Item(
                        "sticker",
                        ItemKind.GASKET,
                        "Sticker",
                        new Part("X-2", "Sticker", 1, 10),
                        Optional.empty(),
                        List.of(),
                        false));
        assertThat(line(BundleRules.bundle(loose, vehicle(Map.of()), Set.of()), "sticker")
                        .rule())
                .as("no step leads to it")
                .isEqualTo(Rule.OFFERED);
    }

    @Test
    void aSecondPersonsMinutesAreAddedUpAndAnUnknownItemIsRefused() {
        List<AccessStep> book = List.of(
                new AccessStep("a", "a", 30, List.of(), Optional.empty(), List.of(), 10),
                new AccessStep("b", "b", 20, List.of("a"), Optional.empty(), List.of(), 5));
        assertThat(Labour.union(book, Set.of(), Map.of("x", List.of("b"))).helperMinutes())
                .isEqualTo(15);
        assertThatThrownBy(() -> Labour.of(FAMILY, Set.of(), List.of("nothing")))
                .hasMessageContaining("no item nothing");
        assertThatThrownBy(() -> Labour.union(book, Set.of(), Map.of("x", List.of("c"))))
                .hasMessageContaining("no access step c");
    }
}
