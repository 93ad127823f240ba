package knollfield.core.risk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.Reason;
import knollfield.core.due.Status;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Part;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.odometer.Projection;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.odometer.UsageClass;
import knollfield.core.odometer.UsageRate;
import org.hipparchus.analysis.UnivariateFunction;
import org.hipparchus.analysis.integration.IterativeLegendreGaussIntegrator;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.univariate.BrentOptimizer;
import org.hipparchus.optim.univariate.SearchInterval;
import org.hipparchus.optim.univariate.UnivariateObjectiveFunction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Hazard of the drive, split over its items, and what follows from it. */
class DriveHazardTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final Limit LIMIT = Limit.of(120_000, 72);
    private static final WearModels WEAR = WearModels.all(WearModel.defaults());
    private static final double WEEK = 7 / 365.25;
    private static final int STAKE = 2_830;
    private static final Exposure.Stake BILLS = new Exposure.Stake(new Consequence(3_470, 3_470, 3_470), 640, 65);

    private static FreshSet drive(double kmPerYear) {
        return FreshSet.at(kmPerYear).with(WearModel.defaults(), 1, LIMIT);
    }

    // --- by rules.md section 4, check values

    @ParameterizedTest(name = "{0} km a year, {1} for a stranding: {2} years, {3} a day")
    @CsvSource({
        "12000, 10000, 6.5950, 0.354843",
        "32000, 10000, 4.1012, 0.570616",
        "60000, 10000, 2.2594, 1.035759",
        "12000, 20000, 5.7091, 0.409609"
    })
    void theBestAgeAndItsCostADay(double kmPerYear, long stranding, double years, double perDay) {
        EconomicInterval best = EconomicInterval.of(drive(kmPerYear), 640, 3_470 + stranding);
        assertThat(best.years().orElseThrow()).isCloseTo(years, within(0.00005));
        assertThat(best.perYearMinor().orElseThrow() / 365.25).isCloseTo(perDay, within(0.0000005));
    }

    @Test
    void withBothClocksLevelItIsAShareOfTheLimits() {
        assertThat(EconomicInterval.of(drive(20_000), 640, 13_470).shareOfBook().orElseThrow())
                .isCloseTo(0.95288, within(0.000005));
    }

    @ParameterizedTest(name = "{0} km a year")
    @CsvSource({"12000, 0.0113, 0.4145, 0.7157", "32000, 0.0187, 0.6787, 1.1711", "60000, 0.0314, 1.1251, 1.9392"})
    void aWeekAtSharesOfTheFirstLimit(double kmPerYear, double early, double at, double past) {
        assertThat(week(kmPerYear, 0.3)).isCloseTo(early, within(0.00005));
        assertThat(week(kmPerYear, 1.0)).isCloseTo(at, within(0.00005));
        assertThat(week(kmPerYear, 1.2)).isCloseTo(past, within(0.00005));
    }

    private static double week(double kmPerYear, double shareOfFirstLimit) {
        FreshSet set = drive(kmPerYear);
        double then = shareOfFirstLimit * set.yearsToFirstLimit();
        return STAKE * -Math.expm1(set.cumulative(then) - set.cumulative(then + WEEK));
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({"FRAYED_EDGE, 76.4301", "OIL_TOP, 38.4766", "CRACKS, 18.0213"})
    void aDelayAloneForAWeek(EvidenceKind found, double minor) {
        // just registered: next to nothing of wear
        VehicleForecast f = forecast(0, 0, List.of(known(ItemKind.TIMING_BELT, 0)), Status.ACT_NOW);
        assertThat(exposure(f, TODAY, found, 7)).isCloseTo(minor, within(0.0005));
    }

    // By the same formula: one rumbling bearing fails as one, in whichever of three items it sits
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({"BEARING_RUMBLE, 76.4301", "TENSIONER_OUT, 38.4766", "BEARING, 76.4301", "OIL_TOP, 38.4766"})
    void oneDefectIsOneDelayWhereverItSits(EvidenceKind found, double minor) {
        List<ItemForecast> all = List.of(
                known(ItemKind.TIMING_BELT, 0),
                known(ItemKind.TENSIONER, 0),
                known(ItemKind.IDLER, 0),
                known(ItemKind.IDLER, 0));
        VehicleForecast f = forecast(0, 0, all, Status.ACT_NOW);
        assertThat(exposure(f, TODAY, found, 7)).isCloseTo(minor, within(0.0005));
    }

    @ParameterizedTest(name = "{1}")
    @CsvSource({"1, 40.1118", "2, 39.7615", "4, 39.4988"})
    void oilAtTheLimitWeighsByTheBeltsShareOfTheDrive(int items, double minor) {
        List<ItemForecast> all = List.of(
                known(ItemKind.TIMING_BELT, 6),
                known(ItemKind.TENSIONER, 6),
                known(ItemKind.IDLER, 6),
                known(ItemKind.WATER_PUMP, 6));
        VehicleForecast f = forecast(12_000, 72_000, all.subList(0, items), Status.ACT_NOW);
        // half a day's difference between six calendar years and 6 × 365.25 days
        assertThat(exposure(f, TODAY.minusYears(6), EvidenceKind.OIL_TOP, 7)).isCloseTo(minor, within(0.005));
    }

    @ParameterizedTest(name = "{0} days, {1} km")
    @CsvSource({"7305, 240000, 0.057062, 1.6488", "2630, 86400, 0.867861, 0.7301"})
    void whatARunningEngineTellsOfAHistoryNobodyKnows(int days, int km, double original, double minor) {
        LocalDate registered = TODAY.minusDays(days);
        VehicleForecast f = forecast(12_000, km, List.of(unknown(ItemKind.TIMING_BELT)), Status.UNKNOWN_HISTORY);
        assertThat(hazard(f, registered).stillOriginal().orElseThrow()).isCloseTo(original, within(0.0005));
        assertThat(exposure(f, registered, null, 7)).isCloseTo(minor, within(0.001));
    }

    @ParameterizedTest(name = "{0} days: {1}")
    @CsvSource({"7, 483.30", "28, 1931.51"})
    void aStopCostsItsDaysAndTheChanceThatSomebodyStartsIt(int days, double minor) {
        VehicleForecast f = forecast(12_000, 24_000, List.of(known(ItemKind.TIMING_BELT, 2)), Status.STOP);
        assertThat(exposure(f, TODAY.minusYears(2), EvidenceKind.BELT_FAILED, days))
                .isCloseTo(minor, within(0.005));
    }

    private static MarginalRule careful(
            int daysOld, double kmPerYear, long stranding, LocalDate book, KnownTrip... trips) {
        LocalDate renewed = TODAY.minusDays(daysOld);
        ItemForecast belt =
                of(ItemKind.TIMING_BELT, Optional.of(new ClockStart(renewed, 0, ClockStart.Grade.DOCUMENTED)));
        VehicleForecast f = forecast(
                kmPerYear, (int) Math.round(kmPerYear * daysOld / 365.25), List.of(belt), Status.COMING, trips);
        return MarginalRule.of(
                hazard(f, renewed),
                Set.of(belt.item().code()),
                new MarginalRule.Costs(640, 3_470, stranding),
                TODAY,
                book);
    }

    @Test
    void waitingUntilTheBooksDaySavesWhatTheRuleSays() {
        // 4.8 years old, the book's six years 1.2 years ahead
        LocalDate book = TODAY.plusDays(Math.round(1.2 * 365.25));
        MarginalRule rule = careful((int) Math.round(4.8 * 365.25), 12_000, 10_000, book);
        assertThat(rule.actBy()).isEqualTo(book);
        // whole days: a day is worth 0.35
        assertThat(rule.gainMinor()).isCloseTo(69.0953, within(0.1));
        assertThat(rule.isWorthDoingWhileHere(TODAY, 90)).isTrue();
        assertThat(rule.isWorthDoingWhileHere(TODAY, 69)).isFalse();
        assertThat(rule.isWorthDoingWhileHere(book, 90))
                .as("due is not worth doing")
                .isFalse();
        // from 4.5494 years it is 90
        int days = (int) Math.round(4.5494 * 365.25);
        assertThat(careful(days, 12_000, 10_000, TODAY.plusDays(Math.round(6 * 365.25) - days))
                        .gainMinor())
                .isCloseTo(90, within(0.1));
    }

    @Test
    void bringingAJobForwardGivesAwayWhatWaitingWouldHaveSaved() {
        LocalDate book = TODAY.plusDays(Math.round(1.2 * 365.25));
        int old = (int) Math.round(4.8 * 365.25);
        LocalDate renewed = TODAY.minusDays(old);
        ItemForecast belt =
                of(ItemKind.TIMING_BELT, Optional.of(new ClockStart(renewed, 0, ClockStart.Grade.DOCUMENTED)));
        VehicleForecast f = forecast(12_000, (int) Math.round(12_000 * old / 365.25), List.of(belt), Status.COMING)
                .actedOnBy(book, 30, Reason.of(Reason.Topic.POLICY, "test"));
        Set<String> job = Set.of(belt.item().code());

        EarlyRenewal early =
                EarlyRenewal.of(f, renewed, List.of(), WEAR, BILLS, 10_000, job).orElseThrow();

        assertThat(early.minor(TODAY)).isCloseTo(69.0953, within(0.1));
        assertThat(early.minor(book)).isZero();
        assertThat(early.minor(book.plusYears(1))).isZero();
        // W(book) - W(d) by hand: g* of the days, less what they would have risked
        LocalDate half = TODAY.plusDays(200);
        double risk = (3_470 + 10_000 - 640)
                * (hazard(f, renewed).wear(job, book) - hazard(f, renewed).wear(job, half));
        assertThat(early.minor(half))
                .isCloseTo(0.354843 * ChronoUnit.DAYS.between(half, book) - risk, within(0.1))
                .isBetween(0.0, early.minor(TODAY));
        // where a failure costs no more than the job, the days are worth their share of its price
        Exposure.Stake cheap = new Exposure.Stake(new Consequence(600, 600, 600), 640, 65);
        assertThat(EarlyRenewal.of(f, renewed, List.of(), WEAR, cheap, 0, job)
                        .orElseThrow()
                        .minor(TODAY))
                .isCloseTo(640 * 1.2 / 6, within(0.5));
        assertThat(EarlyRenewal.of(
                        forecast(12_000, 0, List.of(belt), Status.COMING), renewed, List.of(), WEAR, BILLS, 0, job))
                .as("no day to be early of")
                .isEmpty();
    }

    @Test
    void aDearerStrandingActsEarlierAndNeverPastTheBook() {
        LocalDate book = TODAY.plusYears(3);
        LocalDate before = book;
        for (long stranding = 0; stranding <= 200_000; stranding += 5_000) {
            LocalDate day = careful(1_096, 12_000, stranding, book).actBy();
            assertThat(day).isBeforeOrEqualTo(before).isAfterOrEqualTo(TODAY);
            before = day;
        }
        assertThat(before).isBefore(book.minusYears(1));
        // at 20,000 the best age is 5.7091 years
        assertThat(ChronoUnit.DAYS.between(
                        TODAY.minusDays(1_096),
                        careful(1_096, 12_000, 20_000, book).actBy()))
                .isCloseTo(Math.round(5.7091 * 365.25), within(2L));
    }

    @Test
    void aJourneyMayMakeItCheaperToActBeforeItBegins() {
        KnownTrip trip = new KnownTrip(TODAY.plusDays(60), TODAY.plusDays(120), 60_000);
        LocalDate book = TODAY.plusYears(1);
        LocalDate without = careful(1_461, 12_000, 20_000, book).actBy();
        LocalDate with = careful(1_461, 12_000, 20_000, book, trip).actBy();
        assertThat(without).isAfter(trip.to());
        assertThat(with).isBefore(trip.to()).isAfterOrEqualTo(trip.from().minusDays(1));
    }

    @Test
    void whereNothingCanBeWeighedTheBooksDayStands() {
        LocalDate book = TODAY.plusDays(400);
        MarginalRule cheap = MarginalRule.of(
                hazard(forecast(12_000, 0, List.of(known(ItemKind.TIMING_BELT, 3)), Status.CLEAR), TODAY),
                Set.of("timing-belt"),
                new MarginalRule.Costs(640, 300, 340),
                TODAY,
                book);
        assertThat(cheap).isEqualTo(new MarginalRule(book, Optional.empty(), 0));
        assertThat(cheap.isWorthDoingWhileHere(TODAY, 90)).isFalse();
    }

    // --- against a library

    @Test
    void theBestAgeIsWhereALibraryFindsTheLeastCost() {
        for (double kmPerYear : new double[] {0, 5_000, 20_000, 90_000}) {
            // the belt past 120,000 km or six years, the pump past 90,000 km, another shape
            FreshSet set = FreshSet.at(kmPerYear)
                    .with(WearModel.defaults(), 0.7, LIMIT)
                    .with(new WearModel(0.05, 2.5), 0.3, Limit.ofKm(90_000));
            double book = set.yearsToFirstLimit();
            // Source: Hipparchus 3.1, IterativeLegendreGaussIntegrator and BrentOptimizer
            UnivariateFunction survives = t -> Math.exp(-set.cumulative(t));
            UnivariateFunction cost = t -> (64_000 * survives.value(t) + 1_500_000 * (1 - survives.value(t)))
                    / new IterativeLegendreGaussIntegrator(16, 1e-12, 1e-12).integrate(1_000_000, survives, 0, t);
            var least = new BrentOptimizer(1e-9, 1e-9)
                    .optimize(
                            new MaxEval(500),
                            GoalType.MINIMIZE,
                            new UnivariateObjectiveFunction(cost),
                            new SearchInterval(0.01 * book, 3 * book));

            EconomicInterval found = EconomicInterval.of(set, 64_000, 1_500_000);
            assertThat(found.years().orElseThrow()).isCloseTo(least.getPoint(), within(1e-4 * book));
            assertThat(found.perYearMinor().orElseThrow()).isCloseTo(least.getValue(), within(1e-6 * least.getValue()));
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {7, 90, 400})
    void wearAndDelayTogetherAreWhatALibraryIntegrates(int days) {
        VehicleForecast f = forecast(30_000, 90_000, List.of(known(ItemKind.TIMING_BELT, 3)), Status.ACT_NOW);
        double h0 = -Math.log(0.98);
        double registeredDays = 3 * 365.25;
        // Source: Hipparchus 3.1: P = ∫ h·exp(−∫h) over the time, h = 4 × wear + 1/1.4 a year
        UnivariateFunction h =
                t -> 4 * h0 / 2 * 4 * (Math.pow((3 + t) * 0.25, 3) * 0.25 + Math.pow((3 + t) / 6, 3) / 6) + 1 / 1.4;
        var integrator = new IterativeLegendreGaussIntegrator(12, 1e-10, 1e-10);
        double chance = integrator.integrate(
                1_000_000,
                t -> h.value(t)
                        * Math.exp(
                                -(t == 0
                                        ? 0
                                        : new IterativeLegendreGaussIntegrator(8, 1e-10, 1e-10)
                                                .integrate(100_000, h, 0, t))),
                0,
                days / 365.25);
        LocalDate registered = TODAY.minusDays(Math.round(registeredDays));
        assertThat(exposure(f, registered, EvidenceKind.OIL_TOP, days)).isCloseTo(chance * STAKE, within(0.05));
    }

    @Test
    void whatMayHaveBeenRenewedIsAverageOverTheTimeItMayHaveBeen() {
        // 20 years and 240,000 km: certainly renewed where no part outlives its limit twice
        RiskAssumptions renewed = new RiskAssumptions(0.5, 0.2, 0.1, 0.2, java.util.Map.of(), 0, 0.01);
        WearModels wear = new WearModels(WearModel.defaults(), java.util.Map.of(), renewed);
        VehicleForecast f = forecast(12_000, 240_000, List.of(unknown(ItemKind.TIMING_BELT)), Status.UNKNOWN_HISTORY);
        FreshSet set = drive(12_000);
        // Source: Hipparchus 3.1: mean of the hazard over a renewal anywhere in the last two intervals
        double mean =
                new IterativeLegendreGaussIntegrator(12, 1e-12, 1e-12).integrate(100_000, set::rate, 1e-9, 12) / 12;
        double chance = DriveHazard.of(f, TODAY.minusDays(7305), List.of(), wear)
                .orElseThrow()
                .chance(TODAY.plusDays(7));
        assertThat(chance).isCloseTo(-Math.expm1(-mean * WEEK), within(1e-9));
    }

    // --- laws

    @Test
    void aPumpThatTheDriveDoesNotTurnIsNoPartOfIt() {
        ItemForecast worn = known(ItemKind.WATER_PUMP, 9);
        Item loose = new Item(
                "water-pump", ItemKind.WATER_PUMP, "Pump", worn.item().part(), Optional.empty(), List.of(), false);
        ItemForecast belt = known(ItemKind.TIMING_BELT, 6);
        double alone = exposure(forecast(12_000, 72_000, List.of(belt), Status.CLEAR), TODAY.minusYears(9), null, 7);
        assertThat(exposure(
                        forecast(
                                12_000,
                                72_000,
                                List.of(belt, of(loose, worn.start(), worn.limit(), false)),
                                Status.CLEAR),
                        TODAY.minusYears(9),
                        null,
                        7))
                .isEqualTo(alone);
        assertThat(exposure(forecast(12_000, 72_000, List.of(belt, worn), Status.CLEAR), TODAY.minusYears(9), null, 7))
                .isGreaterThan(alone);
    }

    @Test
    void aPartWithoutLimitsOfItsOwnWearsByThoseOfTheBelt() {
        ItemForecast belt = known(ItemKind.TIMING_BELT, 6);
        ItemForecast own = known(ItemKind.TENSIONER, 6);
        ItemForecast none = of(own.item(), own.start(), Optional.empty(), false);
        assertThat(exposure(forecast(12_000, 72_000, List.of(belt, none), Status.CLEAR), TODAY.minusYears(6), null, 30))
                .isEqualTo(exposure(
                        forecast(12_000, 72_000, List.of(belt, own), Status.CLEAR), TODAY.minusYears(6), null, 30));
    }

    @Test
    void aStopIsNeverCheaperThanTheSameVehicleWithoutIt() {
        Exposure.Stake dear = new Exposure.Stake(new Consequence(900_000, 900_000, 900_000), 640, 0);
        for (EvidenceKind found : EvidenceKind.values()) {
            for (int days : new int[] {1, 7, 60, 400}) {
                VehicleForecast runs =
                        forecast(60_000, 150_000, List.of(known(ItemKind.TIMING_BELT, 8)), Status.ACT_NOW);
                VehicleForecast stopped =
                        forecast(60_000, 150_000, List.of(known(ItemKind.TIMING_BELT, 8)), Status.STOP);
                List<Evidence> evidence = List.of(new Evidence(found, TODAY));
                LocalDate until = TODAY.plusDays(days);
                LocalDate registered = TODAY.minusYears(8);
                assertThat(Exposure.ofWaiting(stopped, registered, evidence, WEAR, dear, until)
                                .orElseThrow()
                                .amountMinor())
                        .isGreaterThanOrEqualTo(Exposure.ofWaiting(runs, registered, evidence, WEAR, dear, until)
                                .orElseThrow()
                                .amountMinor());
            }
        }
    }

    @Test
    void waitingByDayIsTheExposureOfEachDayWithTheStrandingOnTop() {
        VehicleForecast f = forecast(12_000, 66_000, List.of(known(ItemKind.TIMING_BELT, 5)), Status.COMING);
        LocalDate registered = TODAY.minusYears(5);
        double[] bills = Exposure.byDay(f, registered, List.of(), WEAR, BILLS, 0, TODAY.minusDays(2), 30);
        double[] all = Exposure.byDay(f, registered, List.of(), WEAR, BILLS, 10_000, TODAY.minusDays(2), 30);
        assertThat(bills).hasSize(31).isSorted();
        assertThat(bills[2]).as("today").isZero();
        for (int d = 3; d <= 30; d++) {
            assertThat(bills[d]).isEqualTo(exposure(f, registered, null, d - 2));
            assertThat(all[d] / bills[d]).isCloseTo((STAKE + 10_000) / (double) STAKE, within(1e-9));
        }
        VehicleForecast stop = forecast(12_000, 66_000, List.of(known(ItemKind.TIMING_BELT, 5)), Status.STOP);
        assertThat(Exposure.byDay(stop, registered, List.of(), WEAR, BILLS, 0, TODAY, 7)[7])
                .isCloseTo(483.30, within(0.005));
    }

    @Test
    void aChainThatRattlesIsKnownByItsDelayAlone() {
        ItemForecast chain = of(item(ItemKind.TIMING_CHAIN), Optional.empty(), Optional.empty(), true);
        VehicleForecast f = forecast(12_000, 72_000, List.of(chain), Status.NO_BOOK);
        assertThat(DriveHazard.of(f, TODAY.minusYears(6), List.of(), WEAR)).isEmpty();
        assertThat(exposure(f, TODAY.minusYears(6), EvidenceKind.CHAIN_RATTLE, 7))
                .isCloseTo(18.0213, within(0.0005));
    }

    @Test
    void whereNothingIsWorthHavingItIsSaid() {
        // a failure little dearer than the job: the optimum lies far beyond
        assertThat(EconomicInterval.of(drive(12_000), 640, 641).verdict())
                .isEqualTo(EconomicInterval.Verdict.NOT_WORTH_HAVING);
        assertThat(EconomicInterval.of(FreshSet.at(0).with(WearModel.defaults(), 1, Limit.ofKm(120_000)), 640, 3_470)
                        .verdict())
                .isEqualTo(EconomicInterval.Verdict.STANDS_STILL);
    }

    // --- vehicles

    private static DriveHazard hazard(VehicleForecast f, LocalDate registered, EvidenceKind... found) {
        List<Evidence> evidence = new ArrayList<>();
        Arrays.stream(found).forEach(k -> evidence.add(new Evidence(k, TODAY)));
        return DriveHazard.of(f, registered, evidence, WEAR).orElseThrow();
    }

    private static double exposure(VehicleForecast f, LocalDate registered, EvidenceKind found, int days) {
        List<Evidence> evidence = found == null ? List.of() : List.of(new Evidence(found, TODAY));
        return Exposure.ofWaiting(f, registered, evidence, WEAR, BILLS, TODAY.plusDays(days))
                .orElseThrow()
                .amountMinor();
    }

    private static Item item(ItemKind kind) {
        return new Item(
                kind.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-'),
                kind,
                kind.name(),
                new Part("K-1", "part", 1, 1_000),
                Optional.empty(),
                List.of(),
                true);
    }

    private static ItemForecast known(ItemKind kind, int years) {
        return of(kind, Optional.of(new ClockStart(TODAY.minusYears(years), 0, ClockStart.Grade.DOCUMENTED)));
    }

    private static ItemForecast unknown(ItemKind kind) {
        return of(kind, Optional.empty());
    }

    private static ItemForecast of(ItemKind kind, Optional<ClockStart> start) {
        return of(item(kind), start, Optional.of(LIMIT), false);
    }

    private static ItemForecast of(Item item, Optional<ClockStart> start, Optional<Limit> limit, boolean inspection) {
        return new ItemForecast(
                item,
                start,
                limit,
                Optional.empty(),
                false,
                inspection,
                Optional.empty(),
                Optional.empty(),
                ItemForecast.Binding.NONE,
                Optional.empty(),
                Status.CLEAR);
    }

    private static VehicleForecast forecast(
            double kmPerYear, int km, List<ItemForecast> items, Status status, KnownTrip... trips) {
        UsageRate rate = UsageRate.stated(kmPerYear, new UsageClass("T", "test", 12_000, 4_000));
        return new VehicleForecast(
                TODAY,
                status,
                Optional.empty(),
                Optional.empty(),
                items,
                ReadingChain.of(List.of(), OdometerAssumptions.defaults()),
                new Projection(TODAY, km, rate, List.of(trips)),
                0,
                List.of(),
                List.of());
    }
}
