package knollfield.core.bundle;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.bundle.BundleLine.Rule;
import knollfield.core.bundle.BundleRules.Scope;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.DueEngine;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.Policy;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Part;
import knollfield.core.engine.Schedule;
import knollfield.core.engine.TensionerKind;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import knollfield.core.risk.Consequence;
import knollfield.core.risk.WearModel;
import knollfield.core.risk.WearModels;
import knollfield.core.units.DistanceUnit;
import org.junit.jupiter.api.Test;

class BundlePlannerTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final EngineFamily PLAIN = Families.belt(TensionerKind.SPRING_PIN, true);
    private static final LocalDate NEW = TODAY.minusYears(6);

    /** The plain family with an idler behind the cover, an accessory belt before it and a pump in two halves. */
    private static EngineFamily family(int idlerKm) {
        return Families.with(
                PLAIN,
                new Item(
                        "idler",
                        ItemKind.IDLER,
                        "Idler",
                        new Part("I-1", "Idler", 1, 2_000),
                        Optional.of(new Schedule(Limit.ofKm(idlerKm), Optional.empty(), "test", DistanceUnit.KM)),
                        List.of("tensioner"),
                        true),
                new Item(
                        "auxbelt",
                        ItemKind.AUXILIARY_BELT,
                        "Accessory belt",
                        new Part("A-1", "Accessory belt", 1, 1_500),
                        Optional.empty(),
                        List.of("drain"),
                        false),
                new Item(
                        "pumphalf",
                        ItemKind.WATER_PUMP,
                        "Front half of the pump",
                        new Part("P-2", "Pump half", 1, 1_800),
                        Optional.empty(),
                        List.of("pump"),
                        true,
                        Optional.empty(),
                        Optional.of("pump")));
    }

    private static BundlePlan plan(
            EngineFamily family,
            Scope scope,
            Map<String, ClockStart> starts,
            Optional<LocalDate> keptUntil,
            Evidence... found) {
        VehicleFacts facts = new VehicleFacts(
                NEW,
                false,
                List.of(
                        new Reading(1, TODAY.minusYears(1), 100_000, ReadingSource.WORKSHOP),
                        new Reading(2, TODAY, 120_000, ReadingSource.WORKSHOP)),
                starts,
                Set.of(),
                List.of(found),
                new UsageClass("X", "test", 20_000, 4_000),
                List.of());
        VehicleForecast forecast = DueEngine.forecast(
                facts, Optional.of(family), Policy.defaults(), OdometerAssumptions.defaults(), TODAY);
        Consequence consequence =
                Consequence.of(family, OptionalLong.empty(), 50_000, new Consequence.Costs(18_000, 6_500, 6));
        return BundlePlanner.plan(
                family,
                new BundleRules.Vehicle(Set.of(), starts, List.of(found), TODAY, 120_000),
                scope,
                new BundlePlanner.Outlook(
                        forecast, NEW, WearModels.all(WearModel.defaults()), consequence, 6_000, keptUntil));
    }

    private static BundlePlan plan(EngineFamily family, Scope scope) {
        return plan(family, scope, all(family, 20_000, 5), Optional.empty());
    }

    private static Map<String, ClockStart> all(EngineFamily family, int km, int years) {
        Map<String, ClockStart> starts = new HashMap<>();
        family.items()
                .forEach(i ->
                        starts.put(i.code(), new ClockStart(TODAY.minusYears(years), km, ClockStart.Grade.DOCUMENTED)));
        return starts;
    }

    private static Scope scope(EngineFamily family, School school, Map<String, Decision> decisions) {
        Scope s = Scope.whole(family);
        return new Scope(s.purpose(), school, s.seals(), decisions, Map.of(), Set.of());
    }

    private static BundlePlan.Line line(BundlePlan plan, String code) {
        return plan.lines().stream()
                .filter(l -> l.line().code().equals(code))
                .findFirst()
                .orElseThrow();
    }

    private static long total(BundlePlan plan, School school) {
        return plan.schools().get(school.ordinal()).totalMinor();
    }

    @Test
    void anIdlerThatFallsDueSoonGoesInAndOneThatOutlivesTheBeltStays() {
        BundlePlan due = plan(family(130_000), Scope.whole(PLAIN));
        BundlePlan lasting = plan(family(2_000_000), Scope.whole(PLAIN));

        assertThat(due.bundle().items()).contains("idler");
        assertThat(line(due, "idler").savingMinor()).isPositive();
        assertThat(line(due, "idler").limitOn())
                .hasValueSatisfying(d -> assertThat(d).isBefore(due.nextOpening()));
        assertThat(lasting.bundle().items()).doesNotContain("idler");
        assertThat(line(lasting, "idler").savingMinor()).isNegative();
    }

    @Test
    void nowIsTheMarginalPriceOfALine() {
        EngineFamily f = family(130_000);
        BundlePlan with = plan(f, scope(f, School.WHAT_PAYS, Map.of("idler", Decision.in(""))));
        BundlePlan without = plan(f, scope(f, School.WHAT_PAYS, Map.of("idler", Decision.left(""))));
        long a = with.bundle().partsMinor() + with.bundle().labourMinor(6_000);
        long b = without.bundle().partsMinor() + without.bundle().labourMinor(6_000);

        // the tensioner's step is there anyway: the idler adds its part alone
        assertThat(a - b)
                .isEqualTo(2_000)
                .isEqualTo(line(with, "idler").nowMinor())
                .isEqualTo(line(without, "idler").nowMinor());
        assertThat(without.laterOn()).isPresent();
        assertThat(with.laterOn()).isEmpty();
    }

    @Test
    void whatPaysIsNeverDearerThanTheBookMinimum() {
        for (int km : new int[] {125_000, 150_000, 240_000, 900_000}) {
            EngineFamily f = family(km);
            for (int years = 2; years < 6; years++) {
                BundlePlan p = plan(f, Scope.whole(f), all(f, 20_000, years), Optional.empty());

                // a minor unit of rounding between the parts of a sum
                assertThat(total(p, School.WHAT_PAYS)).isLessThanOrEqualTo(total(p, School.BOOK_MINIMUM) + 1);
                assertThat(p.schools().get(School.BOOK_MINIMUM.ordinal()).nowMinor())
                        .isLessThanOrEqualTo(
                                p.schools().get(School.EVERYTHING.ordinal()).nowMinor());
            }
        }
    }

    @Test
    void aLinesSavingIsWhatTheTotalLosesWithoutIt() {
        EngineFamily f = family(150_000);
        BundlePlan best = plan(f, Scope.whole(f));

        // the idler is the one free item in, so the minimum differs by it alone
        assertThat(best.bundle().items()).contains("idler").doesNotContain("auxbelt", "camseal");
        assertThat(total(best, School.BOOK_MINIMUM) - total(best, School.WHAT_PAYS))
                .isEqualTo(line(best, "idler").savingMinor());
    }

    @Test
    void anOwnerWhoPartsWithItSoonLeavesMore() {
        EngineFamily f = family(150_000);
        BundlePlan keeps = plan(f, Scope.whole(f));
        BundlePlan sells = plan(f, Scope.whole(f), all(f, 20_000, 5), Optional.of(TODAY.plusMonths(3)));

        assertThat(keeps.bundle().items()).contains("idler");
        assertThat(sells.bundle().items()).doesNotContain("idler");
        assertThat(sells.nextOpening()).isEqualTo(TODAY.plusMonths(3));
        assertThat(sells.whyThen().template()).contains("parts with the vehicle");
    }

    @Test
    void everythingMeansBehindTheCoverAndSealsFollowTheirOwnSchool() {
        EngineFamily f = family(300_000);
        assertThat(plan(f, scope(f, School.EVERYTHING, Map.of())).bundle().items())
                .contains("idler", "camseal")
                .doesNotContain("auxbelt", "pumphalf");

        BundlePlan dry = plan(f, Scope.whole(f));
        assertThat(dry.bundle().items()).doesNotContain("camseal");
        assertThat(line(dry, "camseal").reason().template()).contains("Dry");
        Scope open = new Scope(Set.of("belt"), School.WHAT_PAYS, School.Seals.WHILE_OPEN, Map.of(), Map.of(), Set.of());
        assertThat(line(plan(f, open), "camseal").line().rule()).isEqualTo(Rule.REQUIRED);
    }

    @Test
    void onlyTheBookMinimumLetsTensionerAndPumpBeReused() {
        EngineFamily f = family(900_000);

        assertThat(line(plan(f, Scope.whole(f)), "pump").reusable()).isFalse();
        BundlePlan minimum = plan(f, scope(f, School.BOOK_MINIMUM, Map.of()));
        assertThat(line(minimum, "pump").reusable()).isTrue();
        assertThat(minimum.bundle().items()).contains("pump");
        Decision reuse = new Decision(false, "renewed with no paper", "dry, no play");
        assertThat(plan(f, scope(f, School.BOOK_MINIMUM, Map.of("pump", reuse)))
                        .bundle()
                        .items())
                .doesNotContain("pump", "coolant");
    }

    @Test
    void aPartialJobLeavesTheBelt() {
        EngineFamily f = family(900_000);
        Scope tensioner =
                new Scope(Set.of("tensioner"), School.WHAT_PAYS, School.Seals.WHEN_WET, Map.of(), Map.of(), Set.of());
        BundlePlan p = plan(f, tensioner, all(f, 60_000, 3), Optional.empty());

        assertThat(p.bundle().items()).containsExactly("tensioner");
        // its clock runs on: the next opening is the belt's own limit, six years after its renewal
        assertThat(p.nextOpening()).isEqualTo(TODAY.plusYears(3));
    }

    @Test
    void theFrontHalfTakesThePlaceOfTheWholePump() {
        EngineFamily f = family(900_000);
        BundlePlan p = plan(f, scope(f, School.WHAT_PAYS, Map.of("pumphalf", Decision.in("original part"))));

        assertThat(p.bundle().items()).contains("pumphalf", "coolant").doesNotContain("pump");
        assertThat(line(p, "pump").reason().template()).contains("front half");
    }

    @Test
    void whatWasFoundAddsItsLine() {
        EngineFamily f = family(900_000);
        BundlePlan p =
                plan(f, Scope.whole(f), all(f, 20_000, 5), Optional.empty(), new Evidence(EvidenceKind.BEARING, TODAY));

        assertThat(line(p, "idler").line().rule()).isEqualTo(Rule.REQUIRED);
        assertThat(p.bundle().items()).contains("idler");
    }

    @Test
    void gradesAndOwnersPartsChangeTheMoneyOnly() {
        EngineFamily f = family(900_000);
        Scope s = new Scope(
                Set.of("belt"),
                School.WHAT_PAYS,
                School.Seals.WHEN_WET,
                Map.of(),
                Map.of("pump", new Part("P-9", "Plain pump", 1, 1_920)),
                Set.of("belt"));
        BundlePlan usual = plan(f, Scope.whole(f));
        BundlePlan changed = plan(f, s);

        assertThat(changed.bundle().items()).isEqualTo(usual.bundle().items());
        assertThat(usual.bundle().partsMinor() - changed.bundle().partsMinor()).isEqualTo(3_200 - 1_920 + 4_500);
    }

    @Test
    void goingAgainstARuleNeedsItsReasonAndReusingAnInspection() {
        EngineFamily f = family(300_000);
        BundlePlan pays = plan(f, Scope.whole(f));
        BundlePlan minimum = plan(f, scope(f, School.BOOK_MINIMUM, Map.of()));

        assertThat(Decision.left("").lacks(line(pays, "pump")))
                .extracting(Decision.Lack::field)
                .containsExactly("reason");
        assertThat(Decision.left("new").lacks(line(pays, "pump"))).isEmpty();
        assertThat(Decision.left("").lacks(line(minimum, "pump")))
                .extracting(Decision.Lack::field)
                .containsExactly("reason", "inspection");
        assertThat(new Decision(false, "new", "dry").lacks(line(minimum, "pump")))
                .isEmpty();
        assertThat(Decision.in("").lacks(line(pays, "pumphalf")))
                .extracting(Decision.Lack::field)
                .containsExactly("reason");
        assertThat(Decision.in("").lacks(line(pays, "auxbelt"))).isEmpty();
        assertThat(BundleRules.takes(f.item("pumphalf").orElseThrow(), Grade.Kind.PLAIN))
                .isFalse();
        assertThat(BundleRules.takes(f.item("pump").orElseThrow(), Grade.Kind.PLAIN))
                .isTrue();
    }

    @Test
    void sharedAndOwnMinutesMakeTheWhole() {
        Bundle b = plan(family(300_000), Scope.whole(PLAIN)).bundle();
        int own = b.items().stream().mapToInt(b.labour()::ownMinutes).sum();

        assertThat(b.labour().sharedMinutes() + own).isEqualTo(b.labour().minutes());
        assertThat(b.labour().sharedMinutes()).isGreaterThanOrEqualTo(300);
    }

    private static String reason(BundlePlan plan, String code) {
        return line(plan, code).reason().template();
    }

    @Test
    void theMoneyOfEachOfferIsSaidInItsOwnWords() {
        EngineFamily f = family(130_000);
        BundlePlan plan = plan(f, Scope.whole(f));
        assertThat(reason(plan, "idler")).contains("its limit comes on {2}");
        assertThat(reason(plan, "camseal")).startsWith("Dry, so left by the seals rule");
        assertThat(reason(plan, "auxbelt")).contains("the book has no limit for it");
        EngineFamily lasting = family(400_000);
        assertThat(reason(plan(lasting, Scope.whole(lasting)), "idler")).contains("it holds until the next opening");
        EngineFamily passed = family(90_000);
        assertThat(reason(plan(passed, Scope.whole(passed)), "idler")).contains("its limit is passed");
        assertThat(line(plan, "auxbelt").laterMinor()).isZero();
        assertThat(plan.byCode().get("idler")).isEqualTo(line(plan, "idler"));
    }

    @Test
    void whatHoldsIsPricedByTheChanceThatItDoesNot() {
        EngineFamily lasting = family(400_000);
        EngineFamily sooner = family(300_000);
        BundlePlan.Line lasts = line(plan(lasting, Scope.whole(lasting)), "idler");
        BundlePlan.Line wears = line(plan(sooner, Scope.whole(sooner)), "idler");
        assertThat(lasts.laterMinor()).isPositive();
        assertThat(wears.laterMinor()).isGreaterThan(lasts.laterMinor());
        assertThat(wears.limitOn().orElseThrow()).isBefore(lasts.limitOn().orElseThrow());
    }

    @Test
    void thePersonsWordGoesOverTheRulesAndTheHalfTakesThePlaceOfTheWhole() {
        EngineFamily f = family(130_000);
        BundlePlan half = plan(f, scope(f, School.WHAT_PAYS, Map.of("pumphalf", Decision.in("original maker"))));
        assertThat(half.bundle().items()).contains("pumphalf").doesNotContain("pump");
        assertThat(reason(half, "pump")).startsWith("Only the front half is renewed");
        BundlePlan both = plan(
                f,
                scope(f, School.WHAT_PAYS, Map.of("pumphalf", Decision.in("original maker"), "pump", Decision.in(""))));
        assertThat(both.bundle().items().stream().filter(i -> i.startsWith("pump")))
                .hasSize(1);
        BundlePlan unknown = plan(f, scope(f, School.WHAT_PAYS, Map.of("no such item", Decision.in(""))));
        assertThat(unknown.bundle().items())
                .isEqualTo(plan(f, Scope.whole(f)).bundle().items());
    }

    @Test
    void aPartialJobCountsUntilTheRunningClockOfTheDrive() {
        EngineFamily f = family(130_000);
        Scope whole = Scope.whole(f);
        Scope partial = new Scope(Set.of("pump"), School.WHAT_PAYS, whole.seals(), Map.of(), Map.of(), Set.of());
        // renewed five years ago at 20,000 km, six years or 120,000 km: 20,000 km or a year are left, at 20,000 a year
        assertThat(plan(f, partial).nextOpening()).isBetween(TODAY.plusMonths(10), TODAY.plusMonths(12));
        assertThat(plan(f, whole).nextOpening()).isAfter(TODAY.plusYears(4));
        assertThat(plan(f, partial, Map.of(), Optional.empty()).nextOpening())
                .as("from first registration, which is over")
                .isEqualTo(TODAY);
        BundlePlan parting = plan(f, whole, all(f, 20_000, 5), Optional.of(TODAY.plusYears(1)));
        assertThat(parting.nextOpening()).isEqualTo(TODAY.plusYears(1));
        assertThat(plan(f, whole, all(f, 20_000, 5), Optional.of(TODAY.plusYears(20)))
                        .nextOpening())
                .isEqualTo(plan(f, whole).nextOpening());
    }
}
