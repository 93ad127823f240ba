package knollfield.core.due;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.Evidence.Confidence;
import knollfield.core.due.Policy.Timing;
import knollfield.core.due.Policy.UnknownRule;
import knollfield.core.due.VehicleFacts.Special;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.TensionerKind;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import knollfield.core.risk.Consequence;
import knollfield.core.risk.Exposure;
import knollfield.core.risk.WearModel;
import knollfield.core.risk.WearModels;
import org.junit.jupiter.api.Test;

/** What must hold for every vehicle, tried on seeded random ones. */
class DueLawsTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final UsageClass TWENTY = new UsageClass("T", "test", 20_000, 6_000);
    private static final int VEHICLES = 1_500;

    /** Any vehicle: some readings that disagree, some items never renewed, some findings, a trip now and then. */
    private static VehicleFacts any(Random random, double stretch) {
        LocalDate registered = TODAY.minusDays(200 + random.nextInt(5_000));
        List<Reading> readings = new ArrayList<>();
        double rate = random.nextInt(50_000);
        long days = TODAY.toEpochDay() - registered.toEpochDay();
        int n = random.nextInt(9);
        for (int i = 0; i < n; i++) {
            long after = days * (i + 1) / (n + 1);
            readings.add(new Reading(
                    i + 1,
                    registered.plusDays(after),
                    (int) (rate * after / 365.25 * stretch),
                    ReadingSource.values()[random.nextInt(6)]));
        }
        Map<String, ClockStart> starts = new HashMap<>();
        for (String item : List.of("belt", "tensioner", "pump")) {
            if (random.nextInt(4) > 0) {
                long after = (long) (days * random.nextDouble() * 0.9);
                starts.put(
                        item,
                        new ClockStart(
                                registered.plusDays(after),
                                (int) (rate * after / 365.25),
                                random.nextBoolean() ? ClockStart.Grade.DOCUMENTED : ClockStart.Grade.STATED));
            }
        }
        Special special = new Special(
                random.nextInt(12) == 0 ? UseState.laidUp(TODAY.minusDays(random.nextInt(300))) : UseState.inUse(),
                random.nextInt(6) == 0 ? random.nextInt(400) : 0,
                Optional.empty(),
                Optional.empty(),
                Set.of());
        List<KnownTrip> trips = random.nextInt(5) == 0
                ? List.of(new KnownTrip(
                        TODAY.plusDays(10), TODAY.plusDays(20L + random.nextInt(60)), 1 + random.nextInt(9_000)))
                : List.of();
        return new VehicleFacts(
                registered, false, readings, starts, Set.of(), findings(random), TWENTY, trips, special);
    }

    private static List<Evidence> findings(Random random) {
        List<Evidence> found = new ArrayList<>();
        while (random.nextInt(4) == 0) {
            found.add(finding(random));
        }
        return found;
    }

    private static Evidence finding(Random random) {
        return new Evidence(
                EvidenceKind.values()[random.nextInt(EvidenceKind.values().length)],
                TODAY.minusDays(random.nextInt(60)),
                Confidence.values()[random.nextInt(3)],
                random.nextInt(3) == 0 ? Optional.of("pump") : Optional.empty());
    }

    private static EngineFamily family(Random random) {
        return switch (random.nextInt(4)) {
            case 0 -> Families.chain();
            case 1 -> Families.belt(TensionerKind.SPRING_PIN, true, CrankFit.KEYED, Interference.NO);
            case 2 -> Families.belt(TensionerKind.SPRING_PIN, true, CrankFit.KEYED, Interference.UNKNOWN);
            default -> Families.belt(TensionerKind.SPRING_PIN, true);
        };
    }

    private static Policy policy(Timing timing, Random random) {
        return new Policy(
                timing,
                0.1,
                0.5,
                120,
                UnknownRule.values()[random.nextInt(3)],
                random.nextBoolean(),
                Policy.Found.defaults());
    }

    private static VehicleForecast judge(VehicleFacts facts, EngineFamily family, Policy policy) {
        return DueEngine.forecast(facts, Optional.of(family), policy, TODAY);
    }

    private static LocalDate actBy(VehicleForecast f) {
        return f.actBy().orElse(LocalDate.MAX);
    }

    private static VehicleFacts withConditions(VehicleFacts v, Set<Condition> conditions) {
        return new VehicleFacts(
                v.firstRegistered(),
                v.cameWithReading(),
                v.readings(),
                v.starts(),
                conditions,
                v.evidence(),
                v.usage(),
                v.trips(),
                v.special());
    }

    private static VehicleFacts withEvidence(VehicleFacts v, Evidence more) {
        List<Evidence> all = new ArrayList<>(v.evidence());
        all.add(more);
        return new VehicleFacts(
                v.firstRegistered(),
                v.cameWithReading(),
                v.readings(),
                v.starts(),
                v.conditions(),
                all,
                v.usage(),
                v.trips(),
                v.special());
    }

    @Test
    void moreUsageNeverMovesADueDateLater() {
        for (int i = 0; i < VEHICLES; i++) {
            EngineFamily family = family(new Random(i));
            Policy policy = new Policy(
                    new Timing.Early(0.95),
                    0.1,
                    0.5,
                    120,
                    UnknownRule.FROM_FIRST_REGISTRATION,
                    true,
                    Policy.Found.defaults());
            VehicleFacts slow = any(new Random(i), 1);
            VehicleFacts fast = any(new Random(i), 1 + new Random(i).nextDouble());
            if (judge(fast, family, policy).readings().kept().size()
                    != judge(slow, family, policy).readings().kept().size()) {
                continue; // another chain is another history, not more usage
            }
            VehicleForecast slower = judge(slow, family, policy);
            VehicleForecast faster = judge(fast, family, policy);
            assertThat(actBy(faster)).as("vehicle %d", i).isBeforeOrEqualTo(actBy(slower));
            assertThat(faster.status()).as("vehicle %d", i).isLessThanOrEqualTo(slower.status());
        }
    }

    @Test
    void severeIsNeverLaterThanNormal() {
        for (int i = 0; i < VEHICLES; i++) {
            Random random = new Random(i);
            VehicleFacts facts = any(random, 1);
            EngineFamily family = family(random);
            Policy policy = policy(new Timing.Early(0.95), random);
            Set<Condition> hard = new HashSet<>(List.of(Condition.values()[random.nextInt(5)]));
            VehicleForecast normal = judge(facts, family, policy);
            VehicleForecast severe = judge(withConditions(facts, hard), family, policy);
            for (int k = 0; k < normal.items().size(); k++) {
                // a history that settles nothing is due now, which a date gone by is as well
                assertThat(severe.items().get(k).actBy().orElse(LocalDate.MAX))
                        .as("vehicle %d, item %d", i, k)
                        .isBeforeOrEqualTo(
                                notBeforeToday(normal.items().get(k).actBy().orElse(LocalDate.MAX)));
            }
        }
    }

    private static LocalDate notBeforeToday(LocalDate day) {
        return day.isBefore(TODAY) ? TODAY : day;
    }

    @Test
    void earlyIsNeverLaterThanBook() {
        for (int i = 0; i < VEHICLES; i++) {
            Random random = new Random(i);
            VehicleFacts facts = any(random, 1);
            EngineFamily family = family(random);
            double share = 0.5 + random.nextDouble() / 2;
            Policy book = policy(new Timing.Book(), random);
            assertThat(actBy(judge(facts, family, book.with(new Timing.Early(share)))))
                    .as("vehicle %d", i)
                    .isBeforeOrEqualTo(actBy(judge(facts, family, book)));
        }
    }

    @Test
    void moreEvidenceNeverLowersExposure() {
        for (int i = 0; i < VEHICLES; i++) {
            Random random = new Random(i);
            VehicleFacts facts = any(random, 1);
            EngineFamily family = family(random);
            Policy policy = policy(new Timing.Book(), random);
            VehicleFacts more = withEvidence(facts, finding(random));
            LocalDate until = TODAY.plusDays(1 + random.nextInt(400));
            OptionalLong before = exposure(facts, family, policy, until);
            OptionalLong after = exposure(more, family, policy, until);
            // a delay or a stop is known where wear is not
            assertThat(after.isPresent() || before.isEmpty()).isTrue();
            assertThat(after.orElse(0)).as("vehicle %d", i).isGreaterThanOrEqualTo(before.orElse(0));
        }
    }

    private static OptionalLong exposure(VehicleFacts facts, EngineFamily family, Policy policy, LocalDate until) {
        Consequence consequence =
                Consequence.of(family, OptionalLong.of(1_200_000), 64_000, new Consequence.Costs(18_000, 6_500, 6));
        Optional<Exposure> exposure = Exposure.ofWaiting(
                judge(facts, family, policy),
                facts.firstRegistered(),
                facts.evidence(),
                WearModels.all(WearModel.defaults()),
                new Exposure.Stake(consequence, 64_000, 6_500),
                until);
        return exposure.isPresent() ? OptionalLong.of(exposure.get().minor()) : OptionalLong.empty();
    }

    @Test
    void whatCannotBeCountedIsNeverClearAndEveryForecastHasReasons() {
        for (int i = 0; i < VEHICLES; i++) {
            Random random = new Random(i);
            VehicleFacts facts = any(random, 1);
            Policy policy = policy(new Timing.Early(0.95), random);
            VehicleForecast without = DueEngine.forecast(facts, Optional.empty(), policy, TODAY);
            assertThat(without.status()).isIn(Status.NO_BOOK, Status.STOP, Status.ACT_NOW);

            VehicleForecast f = judge(facts, family(random), policy);
            assertThat(f.reasons()).isNotEmpty();
            ItemForecast drive = f.items().stream()
                    .filter(x -> x.item().kind().isTheDrive())
                    .findFirst()
                    .orElseThrow();
            if (drive.start().isEmpty() || drive.limit().isEmpty()) {
                assertThat(f.status()).isNotIn(Status.CLEAR, Status.COMING);
            }
        }
    }
}
