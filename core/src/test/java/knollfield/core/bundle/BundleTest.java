package knollfield.core.bundle;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.bundle.BundleLine.Rule;
import knollfield.core.due.ClockStart;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.EngineFamily;
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
}
