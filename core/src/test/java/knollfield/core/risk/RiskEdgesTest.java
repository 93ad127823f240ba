package knollfield.core.risk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.DueEngine;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.Policy;
import knollfield.core.due.Status;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Part;
import knollfield.core.engine.TensionerKind;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Where the careful policy takes hold, in which order vehicles stand, and what a failure comes to. */
class RiskEdgesTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final WearModels WEAR = WearModels.all(WearModel.defaults());
    private static final EngineFamily BELT = Families.belt(TensionerKind.SPRING_PIN, true);
    private static final Set<String> SET = Set.of("belt", "tensioner", "pump");
    private static final Policy CAREFUL = Policy.defaults();

    private static VehicleFacts facts(int yearsOld, int km, List<Evidence> evidence) {
        ClockStart start = new ClockStart(TODAY.minusYears(yearsOld), 20_000, ClockStart.Grade.DOCUMENTED);
        return new VehicleFacts(
                TODAY.minusYears(yearsOld + 1L),
                true,
                List.of(
                        new Reading(1, TODAY.minusYears(yearsOld), 20_000, ReadingSource.WORKSHOP),
                        new Reading(2, TODAY, 20_000 + km, ReadingSource.WORKSHOP)),
                Map.of("belt", start, "tensioner", start, "pump", start),
                Set.of(),
                evidence,
                new UsageClass("T", "test", 20_000, 5_000),
                List.of());
    }

    private static VehicleForecast forecast(VehicleFacts facts, Policy policy) {
        return DueEngine.forecast(facts, Optional.of(BELT), policy, TODAY);
    }

    private static Exposure.Stake stake(long failure, long planned) {
        return new Exposure.Stake(new Consequence(failure, failure, failure), planned, 6_000);
    }

    private static Careful.Judged judged(
            VehicleFacts facts, Policy policy, Careful careful, long failure, long planned) {
        return careful.judged(forecast(facts, policy), facts, policy, WEAR, stake(failure, planned), SET);
    }

    @Test
    void aDearStrandingBringsTheDayForwardAndTheVisitIsWorthIt() {
        VehicleFacts old = facts(4, 48_000, List.of());
        VehicleForecast book = forecast(old, CAREFUL);
        Careful.Judged dear = judged(old, CAREFUL, new Careful(8_000_000, 0), 350_000, 60_000);
        assertThat(dear.forecast().actBy().orElseThrow())
                .isBefore(book.actBy().orElseThrow())
                .isAfterOrEqualTo(TODAY);
        assertThat(dear.forecast().reasons().toString()).contains("costs least", "8000000");

        // a stranding that costs nothing: every day up to the book's saves more than it risks
        Careful.Judged cheap = judged(old, CAREFUL, new Careful(0, 1_000_000_000), 350_000, 60_000);
        assertThat(cheap.forecast().actBy()).isEqualTo(book.actBy());
        assertThat(cheap.forecast().reasons().toString())
                .contains("so the day of the book stands", "Not due, but worth doing");
        assertThat(cheap.whileHere()).hasValueSatisfying(w -> {
            assertThat(w.visitMinor()).isEqualTo(1_000_000_000);
            assertThat(w.gainMinor()).isPositive();
        });
        assertThat(judged(old, CAREFUL, new Careful(0, 0), 350_000, 60_000).whileHere())
                .as("a visit that saves nothing")
                .isEmpty();
        Careful.Judged never = judged(old, CAREFUL, new Careful(0, 1_000), 60_000, 60_000);
        assertThat(never.whileHere()).isEmpty();
        assertThat(never.forecast().actBy()).isEqualTo(book.actBy());
        assertThat(never.forecast().reasons().toString()).contains("no day before the limit costs less");
    }

    @Test
    void whatIsDueOrJudgedByAnotherPolicyOrHasNoPriceStaysAsItIs() {
        Careful careful = new Careful(8_000_000, 1_000_000);
        VehicleFacts old = facts(4, 48_000, List.of());
        Policy book = CAREFUL.with(new Policy.Timing.Book());
        assertThat(judged(old, book, careful, 350_000, 60_000).forecast()).isEqualTo(forecast(old, book));
        assertThat(judged(old, CAREFUL, careful, 350_000, 0).forecast()).isEqualTo(forecast(old, CAREFUL));
        assertThat(judged(old, CAREFUL, careful, 350_000, 1).forecast()).isNotEqualTo(forecast(old, CAREFUL));
        VehicleFacts overdue = facts(7, 48_000, List.of());
        assertThat(judged(overdue, CAREFUL, careful, 350_000, 60_000))
                .isEqualTo(new Careful.Judged(forecast(overdue, CAREFUL), Optional.empty()));
        assertThatThrownBy(() -> new Careful(-1, 0)).hasMessageContaining("-1");
        assertThatThrownBy(() -> new Careful(0, -1)).hasMessageContaining("-1");
    }

    private record Waits(VehicleForecast forecast, Optional<Exposure> week, String name) implements DeskOrder.Waiting {}

    private static Waits waits(String name, VehicleFacts facts, double amount) {
        Optional<Exposure> week = amount < 0
                ? Optional.empty()
                : Optional.of(new Exposure(TODAY.plusDays(7), 0.01, 1, amount, false, List.of()));
        return new Waits(forecast(facts, CAREFUL.with(new Policy.Timing.Book())), week, name);
    }

    @Test
    void theDeskStandsByUrgencyThenWhatNobodyKnowsThenPriceThenDay() {
        List<Evidence> broken = List.of(new Evidence(EvidenceKind.BELT_FAILED, TODAY));
        List<Evidence> oil = List.of(new Evidence(EvidenceKind.OIL_TOP, TODAY));
        List<Evidence> mount = List.of(new Evidence(EvidenceKind.MOUNT_TORN, TODAY));
        List<Waits> inOrder = List.of(
                waits("must not run", facts(1, 5_000, broken), 1),
                waits("found, its cost unknown", facts(1, 5_000, oil), -1),
                waits("overdue and dear", facts(7, 48_000, List.of()), 900),
                waits("overdue since long", facts(9, 48_000, List.of()), 500),
                waits("overdue, as dear", facts(7, 48_000, List.of()), 500),
                waits("its cost unknown, a part torn, which moves no date", facts(7, 48_000, mount), -1),
                waits("clear", facts(2, 20_000, List.of()), 5_000));
        List<Waits> shuffled = new ArrayList<>(inOrder);
        Collections.reverse(shuffled);
        shuffled.sort(DeskOrder.byExposure());
        assertThat(shuffled)
                .extracting(Waits::name)
                .isEqualTo(inOrder.stream().map(Waits::name).toList());

        shuffled.sort(DeskOrder.by(w -> w.name().length()));
        assertThat(shuffled.get(2).name()).as("by another price").startsWith("its cost unknown");
    }

    private static Consequence of(Interference interference, OptionalLong value) {
        return Consequence.of(
                Families.belt(TensionerKind.SPRING_PIN, true, CrankFit.KEYED, interference),
                value,
                60_000,
                new Consequence.Costs(15_000, 6_000, 5));
    }

    @Test
    void aFailureCostsTheRepairOrTheVehicleAndItsDaysOffTheRoad() {
        // Common practice, no source: 150.00 to bring it in and five days at 60.00 come on top
        assertThat(of(Interference.YES, OptionalLong.empty())).isEqualTo(new Consequence(225_000, 335_000, 525_000));
        assertThat(of(Interference.UNKNOWN, OptionalLong.of(200_000)))
                .isEqualTo(new Consequence(225_000, 245_000, 245_000));
        assertThat(of(Interference.NO, OptionalLong.of(10))).isEqualTo(new Consequence(105_000, 105_000, 105_000));
        assertThat(Exposure.perHour(900, 90)).isEqualTo(600);
        assertThat(Exposure.perHour(900, 0)).isEqualTo(54_000);
    }

    @Test
    void theNextSevenDaysAreAWeekAndAStopCostsItsDays() {
        VehicleFacts facts = facts(5, 90_000, List.of());
        VehicleForecast f = forecast(facts, CAREFUL);
        assertThat(Exposure.ofAWeek(f, facts.firstRegistered(), List.of(), WEAR, stake(350_000, 60_000)))
                .isEqualTo(Exposure.ofWaiting(
                        f, facts.firstRegistered(), List.of(), WEAR, stake(350_000, 60_000), TODAY.plusDays(7)))
                .isPresent();
        List<Evidence> broken = List.of(new Evidence(EvidenceKind.BELT_FAILED, TODAY));
        VehicleFacts stopped = facts(5, 90_000, broken);
        VehicleForecast stop = forecast(stopped, CAREFUL);
        assertThat(stop.status()).isEqualTo(Status.STOP);
        double[] until =
                Exposure.byDay(stop, stopped.firstRegistered(), broken, WEAR, stake(350_000, 60_000), 40_000, TODAY, 3);
        assertThat(until[0]).isZero();
        // Common practice, no source: a day off the road at 60.00 each, and a chance that somebody starts it
        double started = WEAR.also().startedPerWeek();
        for (int d = 1; d <= 3; d++) {
            double standing = 6_000.0 * d + (1 - Math.pow(1 - started, d / 7.0)) * 330_000;
            assertThat(until[d]).isGreaterThanOrEqualTo(standing - 1e-6).isGreaterThan(until[d - 1]);
        }
        double[] dearer =
                Exposure.byDay(stop, stopped.firstRegistered(), broken, WEAR, stake(350_000, 60_000), 80_000, TODAY, 3);
        assertThat(dearer[3]).isGreaterThan(until[3]);
    }

    @ParameterizedTest
    @EnumSource(EvidenceKind.class)
    void whatIsFoundOnAPartWearsThatPartAndElseWhatItSpeaksOf(EvidenceKind kind) {
        if (kind.hazardFactor() == 1) {
            assertThat(factors(new Evidence(kind, TODAY)).values()).containsOnly(1);
            return;
        }
        Evidence onPump = new Evidence(kind, TODAY, Evidence.Confidence.SEEN, Optional.of("pump"));
        assertThat(factors(onPump)).containsEntry("pump", kind.hazardFactor()).containsEntry("belt", 1);
        Evidence onSeal = new Evidence(kind, TODAY, Evidence.Confidence.SEEN, Optional.of("camseal"));
        assertThat(factors(onSeal))
                .as("on what is no part of the drive: as found on none")
                .isEqualTo(factors(new Evidence(kind, TODAY)));
        boolean speaksOfAny = Families.belt(TensionerKind.SPRING_PIN, true).items().stream()
                .filter(i -> SET.contains(i.code()))
                .anyMatch(i -> kind.wears().contains(i.kind()));
        Map<String, Integer> factors = factors(new Evidence(kind, TODAY));
        for (Item item : BELT.items()) {
            if (SET.contains(item.code())) {
                boolean worn = speaksOfAny
                        ? kind.wears().contains(item.kind())
                        : item.code().equals("belt");
                assertThat(factors.get(item.code())).as(item.code()).isEqualTo(worn ? kind.hazardFactor() : 1);
            }
        }
    }

    private static Map<String, Integer> factors(Evidence evidence) {
        VehicleForecast f = forecast(facts(3, 40_000, List.of(evidence)), CAREFUL);
        Map<String, Integer> all = new java.util.HashMap<>();
        BELT.items().stream()
                .filter(i -> SET.contains(i.code()))
                .forEach(i -> all.put(i.code(), Exposure.hazardFactor(i, f, List.of(evidence))));
        return all;
    }

    @Test
    void sharesOfADriveAddUpToOneAndWhatDoesNotTakeItHasNone() {
        RiskAssumptions assumed = RiskAssumptions.defaults();
        double all = 0;
        for (Item item : BELT.items()) {
            double share = DriveHazard.share(item, BELT.items(), assumed);
            assertThat(share > 0).as(item.code()).isEqualTo(item.takesTheDrive());
            all += share;
        }
        assertThat(all).isCloseTo(1, within(1e-12));
        Item belt = BELT.driveItem();
        assertThat(DriveHazard.share(belt, List.of(belt), assumed)).as("alone").isEqualTo(1);
    }

    @Test
    void itemsThatWearAlikeAreOneTermAndOthersTheirOwn() {
        WearModel usual = WearModel.defaults();
        Limit limit = Limit.of(120_000, 72);
        double alone = FreshSet.at(20_000).with(usual, 0.5, limit).cumulative(3);
        FreshSet twice = FreshSet.at(20_000).with(usual, 0.5, limit).with(usual, 0.25, limit);
        assertThat(twice.cumulative(3)).isCloseTo(1.5 * alone, within(1e-15));
        FreshSet others = twice.with(usual, 0.5, Limit.of(60_000, 72)).with(new WearModel(0.1, 2), 0.25, limit);
        double shorter =
                FreshSet.at(20_000).with(usual, 0.5, Limit.of(60_000, 72)).cumulative(3);
        double other =
                FreshSet.at(20_000).with(new WearModel(0.1, 2), 0.25, limit).cumulative(3);
        assertThat(others.cumulative(3)).isCloseTo(1.5 * alone + shorter + other, within(1e-15));
        FreshSet thrice = others.with(usual, 0.5, Limit.of(60_000, 72));
        assertThat(thrice.cumulative(3)).isCloseTo(1.5 * alone + 2 * shorter + other, within(1e-15));
        assertThatThrownBy(() -> FreshSet.at(-1)).hasMessageContaining("-1");
    }

    @ParameterizedTest
    @CsvSource({"1, 100, 200", "1.0000001, 100, 100", "3, 100, 99"})
    void noBestAgeWhereWearDoesNotGrowOrAFailureCostsNoMore(double shape, double planned, double failure) {
        assertThat(AgeReplacement.optimum(shape, 5, planned, failure)).isEmpty();
    }

    @Test
    void pricesAndShapesOfZeroAreRefused() {
        assertThatThrownBy(() -> AgeReplacement.optimum(0, 5, 1, 2)).hasMessageContaining("above zero");
        assertThatThrownBy(() -> AgeReplacement.optimum(2, 0, 1, 2)).hasMessageContaining("above zero");
        assertThatThrownBy(() -> AgeReplacement.optimum(2, 5, 0, 2)).hasMessageContaining("above zero");
        assertThatThrownBy(() -> AgeReplacement.optimum(2, 5, 1, 0)).hasMessageContaining("above zero");
        FreshSet set = FreshSet.at(20_000).with(WearModel.defaults(), 1, Limit.of(120_000, 72));
        assertThatThrownBy(() -> AgeReplacement.optimum(set, 0, 2, 9)).hasMessageContaining("above zero");
        assertThat(AgeReplacement.optimum(set, 2, 2, 9))
                .as("a failure that costs no more")
                .isEmpty();
        double best = AgeReplacement.optimum(set, 640, 13_470, 60).orElseThrow().age();
        assertThat(AgeReplacement.optimum(set, 640, 13_470, best * 0.999))
                .as("beyond what is looked at")
                .isEmpty();
        assertThat(AgeReplacement.optimum(set, 640, 13_470, best * 1.001)).isPresent();
    }

    /** An idler without limits of its own, of a vehicle registered so many months ago that shows so many km. */
    private static boolean isTakenAsOriginal(int months, int km) {
        EngineFamily family = Families.with(
                BELT,
                new Item(
                        "idler",
                        ItemKind.IDLER,
                        "Idler",
                        new Part("I-1", "Idler", 1, 2_000),
                        Optional.empty(),
                        List.of("tensioner"),
                        true));
        LocalDate registered = TODAY.minusMonths(months);
        ClockStart fresh = new ClockStart(TODAY, km, ClockStart.Grade.DOCUMENTED);
        VehicleFacts facts = new VehicleFacts(
                registered,
                false,
                List.of(new Reading(1, TODAY, km, ReadingSource.WORKSHOP)),
                Map.of("belt", fresh, "tensioner", fresh, "pump", fresh),
                Set.of(),
                List.of(),
                new UsageClass("T", "test", 20_000, 5_000),
                List.of());
        VehicleForecast f = DueEngine.forecast(facts, Optional.of(family), CAREFUL, TODAY);
        return DriveHazard.of(f, registered, List.of(), WEAR)
                .orElseThrow()
                .stillOriginal()
                .isEmpty();
    }

    @ParameterizedTest(name = "{0} months, {1} km")
    @CsvSource({"71, 100000, true", "72, 100000, false", "71, 119999, true", "71, 120000, false", "73, 130000, false"})
    void aPartWithoutLimitsIsTheOriginalInsideThoseOfTheBelt(int months, int km, boolean original) {
        assertThat(isTakenAsOriginal(months, km)).isEqualTo(original);
    }
}
