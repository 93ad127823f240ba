package knollfield.core.bundle;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.core.Families;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.Part;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.grow.GrownBuild;
import knollfield.core.engine.grow.RandomBooks;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is put together once for many vehicles is what each would get by itself. */
class UsualJobsTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 3, 1);

    private static BundleRules.Vehicle vehicle(EngineFamily family, Random dice) {
        Set<String> equipment = family.accessSteps().stream()
                .map(AccessStep::equipment)
                .flatMap(Optional::stream)
                .filter(e -> dice.nextBoolean())
                .collect(Collectors.toSet());
        Map<String, ClockStart> starts = new HashMap<>();
        List<Evidence> evidence = new ArrayList<>();
        for (Item item : family.items()) {
            if (dice.nextInt(3) > 0) {
                starts.put(
                        item.code(),
                        new ClockStart(
                                TODAY.minusDays(dice.nextInt(3_000)),
                                dice.nextInt(100_000),
                                ClockStart.Grade.DOCUMENTED));
            }
            if (dice.nextInt(8) == 0) {
                EvidenceKind kind = EvidenceKind.values()[dice.nextInt(EvidenceKind.values().length)];
                evidence.add(
                        new Evidence(kind, TODAY.minusDays(3), Evidence.Confidence.SEEN, Optional.of(item.code())));
            }
        }
        return new BundleRules.Vehicle(equipment, starts, evidence, TODAY, 100_000 + dice.nextInt(60_000));
    }

    @ParameterizedTest(name = "book {0}")
    @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
    void eachVehicleGetsTheJobThatTheRulesPutTogetherForIt(int seed) {
        Random dice = new Random(seed);
        EngineFamily family = GrownBuild.grown(RandomBooks.any(dice));
        UsualJobs jobs = new UsualJobs();
        Set<UsualJobs.Usual> different = new HashSet<>();
        for (int i = 0; i < 60; i++) {
            BundleRules.Vehicle vehicle = vehicle(family, dice);
            Bundle alone = BundleRules.bundle(family, vehicle, Set.of());
            UsualJobs.Usual usual = jobs.of(family, vehicle);

            assertThat(usual.items()).isEqualTo(alone.items());
            assertThat(usual.minutes()).isEqualTo(alone.labour().minutes());
            assertThat(usual.partsMinor()).isEqualTo(alone.partsMinor());
            assertThat(usual.plannedMinor(8_765)).isEqualTo(alone.partsMinor() + alone.labourMinor(8_765));
            different.add(usual);
        }
        assertThat(different).hasSizeGreaterThan(1);
    }

    @Test
    void aChangedBookIsAnotherBook() {
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true);
        EngineFamily changed = Families.withItems(
                family,
                family.items().stream()
                        .map(i -> i.with(new Part(
                                i.part().number(),
                                i.part().name(),
                                i.part().quantity(),
                                i.part().priceMinor() + 100)))
                        .toList());
        BundleRules.Vehicle vehicle = new BundleRules.Vehicle(Set.of(), Map.of(), List.of(), TODAY, 100_000);
        UsualJobs jobs = new UsualJobs();

        long before = jobs.of(family, vehicle).partsMinor();
        assertThat(jobs.of(changed, vehicle).partsMinor()).isGreaterThan(before);
        assertThat(jobs.of(family, vehicle).partsMinor()).isEqualTo(before);
    }

    @Test
    void severalThreadsMayAskAtOnce() {
        EngineFamily family = GrownBuild.grown(RandomBooks.any(new Random(9)));
        List<BundleRules.Vehicle> vehicles = Stream.iterate(1, i -> i + 1)
                .limit(200)
                .map(i -> vehicle(family, new Random(i % 20)))
                .toList();
        UsualJobs jobs = new UsualJobs();
        List<UsualJobs.Usual> together =
                vehicles.parallelStream().map(v -> jobs.of(family, v)).toList();
        assertThat(together)
                .isEqualTo(vehicles.stream()
                        .map(v -> new UsualJobs().of(family, v))
                        .toList());
    }
}
