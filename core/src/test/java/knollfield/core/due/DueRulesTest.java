package knollfield.core.due;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.Evidence.Confidence;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.due.Policy.Timing;
import knollfield.core.due.Policy.UnknownRule;
import knollfield.core.due.VehicleFacts.Special;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.TensionerKind;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Clocks, policies, unknown histories and evidence of rules.md sections 2 and 3, one by one. */
class DueRulesTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final UsageClass TWENTY = new UsageClass("T", "test", 20_000, 6_000);
    private static final EngineFamily BELT = Families.belt(TensionerKind.SPRING_PIN, true);
    private static final Policy BOOK = new Policy(new Timing.Book(), 0.1, 0.5, 120, UnknownRule.DUE_NOW);
    private static final ClockStart RENEWED =
            new ClockStart(TODAY.minusMonths(30), 50_000, ClockStart.Grade.DOCUMENTED);

    private static VehicleFacts vehicle(Map<String, ClockStart> starts, Evidence... evidence) {
        return new VehicleFacts(
                TODAY.minusYears(9),
                true,
                List.of(
                        new Reading(1, TODAY.minusMonths(30), 50_000, ReadingSource.WORKSHOP),
                        new Reading(2, TODAY.minusMonths(12), 80_000, ReadingSource.WORKSHOP),
                        new Reading(3, TODAY, 100_000, ReadingSource.WORKSHOP)),
                starts,
                Set.of(),
                List.of(evidence),
                TWENTY,
                List.of());
    }

    private static VehicleFacts renewed(Evidence... evidence) {
        return vehicle(Map.of("belt", RENEWED, "tensioner", RENEWED, "pump", RENEWED), evidence);
    }

    private static VehicleForecast judge(VehicleFacts facts, Policy policy) {
        return DueEngine.forecast(facts, Optional.of(BELT), policy, TODAY);
    }

    private static ItemForecast belt(VehicleForecast f) {
        return f.item("belt").orElseThrow();
    }

    private static Special special(UseState state, double idleHours) {
        return new Special(state, idleHours, Optional.empty(), Optional.empty(), Set.of());
    }

    private static String reasons(VehicleForecast f) {
        return f.reasons().stream().map(r -> r.statement().template()).toList().toString();
    }

    private static Policy unknown(UnknownRule rule) {
        return new Policy(new Timing.Book(), 0.1, 0.5, 120, rule);
    }

    @Test
    void idlingCountsAsDistanceSinceTheRenewalAndAsUsage() {
        VehicleForecast plain = judge(renewed(), BOOK);
        VehicleForecast idling = judge(renewed().with(special(UseState.inUse(), 200)), BOOK);

        // Common practice, no source: an hour idling is as hard as 50 km; 200 hours a year over 30 months
        double years = java.time.temporal.ChronoUnit.DAYS.between(RENEWED.date(), TODAY) / 365.25;
        assertThat(belt(idling).distance().orElseThrow().usedKm()).isCloseTo(50_000 + 200 * 50 * years, within(1.0));
        assertThat(belt(idling).distance().orElseThrow().median().orElseThrow())
                .isBefore(belt(plain).distance().orElseThrow().median().orElseThrow());
        double left = 120_000 - 50_000 - 10_000 * years;
        double rate = plain.projection().rate().kmPerYear() + 10_000;
        assertThat(belt(idling).distance().orElseThrow().median())
                .contains(TODAY.plusDays((long) Math.ceil(left / rate * 365.25)));
        assertThat(reasons(idling)).contains("hours of idling a year count as");
    }

    @Test
    void idlingMovesALimitPassedLongAgoFurtherBack() {
        VehicleFacts dusty = new VehicleFacts(
                renewed().firstRegistered(),
                true,
                renewed().readings(),
                Map.of("belt", new ClockStart(TODAY.minusMonths(30), 50_000, ClockStart.Grade.DOCUMENTED)),
                Set.of(Condition.DUST),
                List.of(),
                TWENTY,
                List.of());
        LocalDate plain =
                belt(judge(dusty, BOOK)).distance().orElseThrow().median().orElseThrow();
        LocalDate idling = belt(judge(dusty.with(special(UseState.inUse(), 600)), BOOK))
                .distance()
                .orElseThrow()
                .median()
                .orElseThrow();

        assertThat(plain).isAfter(TODAY);
        // 70,000 km = 50,000 driven and 20,000 idled at 30,000 a year: reached some months ago
        assertThat(idling).isBefore(TODAY.minusMonths(4));
    }

    @Test
    void aLaidUpVehicleAgesAndDoesNotRun() {
        VehicleFacts facts = renewed().with(special(UseState.laidUp(TODAY), 200));
        ItemForecast belt = belt(judge(facts, BOOK));

        assertThat(belt.binding()).isEqualTo(Binding.AGE);
        assertThat(belt.distance().orElseThrow().median()).isEmpty();
        assertThat(belt.age().orElseThrow().date()).isEqualTo(RENEWED.date().plusMonths(72));
        assertThat(reasons(judge(facts, BOOK))).contains("Laid up since");
    }

    @Test
    void anUnknownHistoryIsDueNowByDefault() {
        VehicleForecast f = judge(vehicle(Map.of()), unknown(UnknownRule.DUE_NOW));
        assertThat(f.status()).isEqualTo(Status.UNKNOWN_HISTORY);
        assertThat(f.actBy()).contains(TODAY);
    }

    @Test
    void anUnknownHistoryMayCountFromFirstRegistration() {
        VehicleForecast f = judge(vehicle(Map.of()), unknown(UnknownRule.FROM_FIRST_REGISTRATION));
        // nine years against 72 months
        assertThat(f.status()).isEqualTo(Status.OVERDUE);
        assertThat(belt(f).start().orElseThrow().grade()).isEqualTo(ClockStart.Grade.FIRST_REGISTRATION);
    }

    @Test
    void aDateCodeCountsAgeFromItAndDistanceByTheClass() {
        LocalDate code = TODAY.minusYears(3);
        Special read = new Special(UseState.inUse(), 0, Optional.empty(), Optional.of(code), Set.of());
        VehicleForecast f = judge(vehicle(Map.of()).with(read), unknown(UnknownRule.FROM_DATE_CODE));
        ItemForecast belt = belt(f);

        assertThat(belt.age().orElseThrow().date()).isEqualTo(code.plusMonths(72));
        // three years at the class's 20,000 km: 60,000 of 120,000
        assertThat(belt.distance().orElseThrow().usedKm()).isCloseTo(60_000, within(60.0));
        assertThat(f.status()).isEqualTo(Status.CLEAR);
        assertThat(reasons(f)).contains("No renewal on record");
    }

    @Test
    void withoutADateCodeThatRuleSaysDueNow() {
        assertThat(judge(vehicle(Map.of()), unknown(UnknownRule.FROM_DATE_CODE)).status())
                .isEqualTo(Status.UNKNOWN_HISTORY);
    }

    @Test
    void insideBothLimitsTheHistoryDoesNotMatter() {
        VehicleFacts young = new VehicleFacts(
                TODAY.minusYears(2),
                false,
                List.of(new Reading(1, TODAY, 41_000, ReadingSource.CUSTOMER)),
                Map.of(),
                Set.of(),
                List.of(),
                TWENTY,
                List.of());
        assertThat(judge(young, BOOK).status()).isEqualTo(Status.CLEAR);
    }

    @Test
    void theWorkshopChoosesWhetherAStatedRenewalCounts() {
        ClockStart stated = new ClockStart(RENEWED.date(), RENEWED.km(), ClockStart.Grade.STATED);
        VehicleFacts facts = vehicle(Map.of("belt", stated));
        Policy strict =
                new Policy(new Timing.Book(), 0.1, 0.5, 120, UnknownRule.DUE_NOW, false, Policy.Found.defaults());

        assertThat(judge(facts, BOOK).status()).isEqualTo(Status.CLEAR);
        assertThat(judge(facts, strict).status()).isEqualTo(Status.UNKNOWN_HISTORY);
        assertThat(judge(renewed(), strict).status()).isEqualTo(Status.CLEAR);
    }

    @Test
    void aVehiclesOwnTimingReplacesTheWorkshops() {
        Special own = new Special(
                UseState.inUse(),
                0,
                Optional.of(new Policy.Own(new Timing.Fixed(Limit.of(60_000, 48)), "pulls the lifeboat")),
                Optional.empty(),
                Set.of());
        VehicleForecast f = judge(renewed().with(own), BOOK);

        assertThat(belt(f).limit()).contains(Limit.of(60_000, 48));
        assertThat(f.reasons()).anySatisfy(r -> assertThat(r.topic()).isEqualTo(Reason.Topic.POLICY));
    }

    @Test
    void aFixedTimingNeverGoesPastTheBook() {
        Policy generous = new Policy(new Timing.Fixed(Limit.of(500_000, 40)), 0.1, 0.5, 120, UnknownRule.DUE_NOW);
        assertThat(belt(judge(renewed(), generous)).limit()).contains(Limit.of(120_000, 40));
    }

    @Test
    void aKnownWeaknessIsDueUntilTheBetterPartIsIn() {
        EngineFamily weak = withWeakTensioner();
        VehicleForecast f = DueEngine.forecast(renewed(), Optional.of(weak), BOOK, TODAY);
        assertThat(f.status()).isEqualTo(Status.ACT_NOW);
        assertThat(f.deciding().orElseThrow().item().code()).isEqualTo("tensioner");
        assertThat(reasons(f)).contains("Known weakness");

        Special better = new Special(UseState.inUse(), 0, Optional.empty(), Optional.empty(), Set.of("tensioner"));
        assertThat(DueEngine.forecast(renewed().with(better), Optional.of(weak), BOOK, TODAY)
                        .status())
                .isEqualTo(Status.CLEAR);
    }

    @Test
    void aPumpThatTheDriveDoesNotTurnCallsForNothingByItsClocksButByWhatIsFoundOnIt() {
        EngineFamily apart = family(
                BELT.drive(),
                BELT.items().stream()
                        .map(i -> i.code().equals("pump")
                                ? new Item(i.code(), i.kind(), i.name(), i.part(), i.schedule(), i.accessSteps(), false)
                                : i)
                        .toList());
        ClockStart old = new ClockStart(TODAY.minusYears(9), 0, ClockStart.Grade.DOCUMENTED);
        Map<String, ClockStart> starts = Map.of("belt", RENEWED, "tensioner", RENEWED, "pump", old);
        assertThat(judge(vehicle(starts), BOOK).status()).isEqualTo(Status.OVERDUE);
        assertThat(DueEngine.forecast(vehicle(starts), Optional.of(apart), BOOK, TODAY)
                        .status())
                .isEqualTo(Status.CLEAR);
        Evidence trace = new Evidence(EvidenceKind.COOLANT_TRACE, TODAY, Evidence.Confidence.SEEN, Optional.of("pump"));
        assertThat(DueEngine.forecast(vehicle(starts, trace), Optional.of(apart), BOOK, TODAY)
                        .status())
                .isNotEqualTo(Status.CLEAR);
    }

    private static EngineFamily withWeakTensioner() {
        List<Item> items = new ArrayList<>();
        for (Item i : BELT.items()) {
            items.add(
                    i.code().equals("tensioner")
                            ? new Item(
                                    i.code(),
                                    i.kind(),
                                    i.name(),
                                    i.part(),
                                    i.schedule(),
                                    i.accessSteps(),
                                    i.drivenByTimingDrive(),
                                    Optional.of("the first kind weeps"),
                                    Optional.empty())
                            : i);
        }
        return family(BELT.drive(), items);
    }

    private static EngineFamily family(Drive drive, List<Item> items) {
        return new EngineFamily(
                BELT.code(),
                BELT.name(),
                drive,
                BELT.interference(),
                BELT.crankFit(),
                BELT.reference(),
                BELT.pins(),
                BELT.tensioner(),
                BELT.pinOutBeforeTurns(),
                BELT.mountInTheWay(),
                BELT.moveOver(),
                BELT.blankingPlugs(),
                BELT.coolantLitres(),
                BELT.path().orElseThrow(),
                items,
                BELT.accessSteps(),
                BELT.joints(),
                BELT.repair(),
                BELT.cautions());
    }

    @Test
    void whereTheBookHasNoIntervalNobodyIsAskedAndItIsCalledSo() {
        List<Item> without = BELT.items().stream()
                .map(i -> i.kind().isTheDrive() ? i.with(i.part(), Optional.empty()) : i)
                .toList();
        VehicleForecast chain = DueEngine.forecast(renewed(), Optional.of(family(Drive.CHAIN, without)), BOOK, TODAY);
        VehicleForecast unknown = DueEngine.forecast(renewed(), Optional.empty(), BOOK, TODAY);

        assertThat(chain.statusWords()).isEqualTo("No interval in the book");
        assertThat(NextStep.of(chain, Optional.empty(), false, false, false)).isEqualTo(NextStep.NONE);
        assertThat(unknown.statusWords()).isEqualTo("Not in book");
        assertThat(NextStep.of(unknown, Optional.empty(), false, false, false)).isEqualTo(NextStep.ASK_OWNER);
    }

    @Test
    void aPumpNobodyKnowsOfBesideAKnownBeltIsAskedAfterAndChangesNoStatus() {
        VehicleForecast known = judge(renewed(), BOOK);
        VehicleForecast f = judge(vehicle(Map.of("belt", RENEWED, "tensioner", RENEWED)), BOOK);

        assertThat(f.status()).isEqualTo(known.status()).isEqualTo(Status.CLEAR);
        assertThat(f.unknownBeside()).extracting(i -> i.item().code()).contains("pump");
        assertThat(NextStep.of(f, Optional.empty(), false, false, false)).isEqualTo(NextStep.ASK_OWNER);
        assertThat(NextStep.of(f, Optional.of(JobStage.DRAFT), false, false, false))
                .isEqualTo(NextStep.PROMISE);
        assertThat(judge(vehicle(Map.of()), BOOK).unknownBeside())
                .as("a history unknown as a whole is said as that")
                .isEmpty();
    }

    @Test
    void neglectedOilIsHardUseForABeltInOilOnly() {
        VehicleFacts neglected = new VehicleFacts(
                renewed().firstRegistered(),
                true,
                renewed().readings(),
                renewed().starts(),
                Set.of(Condition.OIL_NEGLECTED),
                List.of(),
                TWENTY,
                List.of());
        VehicleForecast dry = judge(neglected, BOOK);
        VehicleForecast inOil =
                DueEngine.forecast(neglected, Optional.of(family(Drive.BELT_IN_OIL, BELT.items())), BOOK, TODAY);

        assertThat(belt(dry).severe()).isFalse();
        assertThat(belt(inOil).severe()).isTrue();
        assertThat(reasons(inOil)).contains("gauge its width");
    }

    // By rules.md section 3, the table of evidence
    @ParameterizedTest(name = "{0} on a belt: {1}, on a chain: {2}, hazard {3}")
    @CsvSource({
        "BELT_FAILED, STOP, STOP, 1",
        "GUIDE_BROKEN, STOP, STOP, 1",
        "CRACKS, ACT_NOW, ACT_NOW, 3",
        "FRAYED_EDGE, ACT_NOW, ACT_NOW, 3",
        "OIL_TOP, ACT_NOW, ACT_NOW, 4",
        "OIL_BOTTOM, ACT_NOW, ACT_NOW, 4",
        "COOLANT_TRACE, ACT_NOW, ACT_NOW, 3",
        "WHINE, ACT_NOW, ACT_NOW, 1",
        "SLAP, ACT_NOW, ACT_NOW, 1",
        "BEARING_RUMBLE, ACT_NOW, ACT_NOW, 3",
        "TENSIONER_OUT, ACT_NOW, ACT_NOW, 3",
        "BEARING, ACT_NOW, ACT_NOW, 3",
        "SWOLLEN, ACT_NOW, ACT_NOW, 4",
        "CHAIN_RATTLE, COMING, COMING, 1",
        "CORRELATION_CODE, ACT_NOW, ACT_NOW, 1",
        "DAMPER_LOOSE, ACT_NOW, ACT_NOW, 1",
        "DAMPER_CRACKED, CLEAR, CLEAR, 1",
        "MOUNT_TORN, CLEAR, CLEAR, 1",
        "ACCESSORY_TENSIONER_WORN, CLEAR, CLEAR, 1",
        "PIPE_BRITTLE, CLEAR, CLEAR, 1",
        "OUT_OF_TIME, ACT_NOW, ACT_NOW, 1",
        "CLEARANCE_OUT, CLEAR, CLEAR, 1",
        "INSPECTED_GOOD, CLEAR, CLEAR, 1"
    })
    void everyFindingHasItsEffect(EvidenceKind kind, Status onBelt, Status onChain, int hazard) {
        Evidence found = new Evidence(kind, TODAY);
        VehicleFacts chain = vehicle(Map.of("chain", RENEWED), found);

        assertThat(judge(renewed(found), BOOK).status()).isEqualTo(onBelt);
        assertThat(DueEngine.forecast(chain, Optional.of(Families.chain()), BOOK, TODAY)
                        .status())
                .isEqualTo(onChain);
        assertThat(kind.hazardFactor()).isEqualTo(hazard);
    }

    @ParameterizedTest
    @EnumSource(
            value = EvidenceKind.class,
            names = {"WHINE", "DAMPER_CRACKED", "INSPECTED_GOOD", "CRACKS"},
            mode = EnumSource.Mode.EXCLUDE)
    void findingsSayWhatElseToDo(EvidenceKind kind) {
        assertThat(kind.advice().isEmpty() && kind.asksFor().isEmpty()).isFalse();
    }

    @Test
    void slapRightAfterABeltJobStopsTheEngine() {
        ClockStart lastWeek = new ClockStart(TODAY.minusDays(7), 99_500, ClockStart.Grade.DOCUMENTED);
        Map<String, ClockStart> starts = Map.of("belt", lastWeek, "tensioner", lastWeek, "pump", lastWeek);
        Evidence slap = new Evidence(EvidenceKind.SLAP, TODAY);

        assertThat(judge(vehicle(starts, slap), BOOK).status()).isEqualTo(Status.STOP);
        assertThat(judge(renewed(slap), BOOK).status()).isEqualTo(Status.ACT_NOW);
    }

    @Test
    void aLaterGoodMeasurementOutweighsLooksButNeverAStop() {
        Evidence looks = new Evidence(EvidenceKind.SWOLLEN, TODAY.minusDays(3), Confidence.SEEN, Optional.empty());
        Evidence gauge = new Evidence(EvidenceKind.INSPECTED_GOOD, TODAY, Confidence.MEASURED, Optional.empty());
        Evidence glance = new Evidence(EvidenceKind.INSPECTED_GOOD, TODAY, Confidence.SEEN, Optional.empty());
        Evidence measured =
                new Evidence(EvidenceKind.SWOLLEN, TODAY.minusDays(3), Confidence.MEASURED, Optional.empty());
        Evidence stop = new Evidence(EvidenceKind.BELT_FAILED, TODAY.minusDays(3), Confidence.SAID, Optional.empty());

        assertThat(judge(renewed(looks, gauge), BOOK).status()).isEqualTo(Status.CLEAR);
        assertThat(judge(renewed(looks, gauge), BOOK).findings())
                .extracting(FindingEffect::call)
                .containsExactlyInAnyOrder(FindingEffect.Call.SET_ASIDE, FindingEffect.Call.NOTED);
        assertThat(judge(renewed(looks, glance), BOOK).status()).isEqualTo(Status.ACT_NOW);
        assertThat(judge(renewed(measured, gauge), BOOK).status()).isEqualTo(Status.ACT_NOW);
        assertThat(judge(renewed(stop, gauge), BOOK).status()).isEqualTo(Status.STOP);
    }

    @Test
    void whatIsFoundOnAPumpCallsForTheDriveToo() {
        Evidence weeping = new Evidence(EvidenceKind.COOLANT_TRACE, TODAY, Confidence.SEEN, Optional.of("pump"));
        VehicleForecast f = judge(renewed(weeping), BOOK);

        assertThat(f.item("pump").orElseThrow().status()).isEqualTo(Status.ACT_NOW);
        assertThat(belt(f).status()).isEqualTo(Status.ACT_NOW);
        assertThat(f.item("tensioner").orElseThrow().status()).isNotEqualTo(Status.ACT_NOW);
    }

    @Test
    void anInspectionClockBeginsAgainWithAGoodInspection() {
        EngineFamily chain = Families.chain();
        VehicleFacts old = new VehicleFacts(
                TODAY.minusYears(12),
                true,
                List.of(
                        new Reading(1, TODAY.minusYears(4), 150_000, ReadingSource.WORKSHOP),
                        new Reading(2, TODAY, 190_000, ReadingSource.WORKSHOP)),
                Map.of(),
                Set.of(),
                List.of(),
                TWENTY,
                List.of());
        VehicleFacts inspected = new VehicleFacts(
                old.firstRegistered(),
                true,
                old.readings(),
                Map.of(),
                Set.of(),
                List.of(new Evidence(EvidenceKind.INSPECTED_GOOD, TODAY.minusYears(2))),
                TWENTY,
                List.of());
        ItemForecast after = DueEngine.forecast(inspected, Optional.of(chain), BOOK, TODAY)
                .item("chain")
                .orElseThrow();

        assertThat(DueEngine.forecast(old, Optional.of(chain), BOOK, TODAY).status())
                .isEqualTo(Status.UNKNOWN_HISTORY);
        assertThat(after.start().orElseThrow().km()).isBetween(169_900, 170_100);
        assertThat(after.status()).isEqualTo(Status.CLEAR);
        assertThat(after.inspection()).isTrue();
    }

    // Source: java.time.LocalDate.plusMonths: the day of the month is kept, or the last valid day taken
    @ParameterizedTest(name = "{0} plus {1} months is {2}")
    @CsvSource({
        "2020-02-29, 72, 2026-02-28",
        "2020-02-29, 48, 2024-02-29",
        "2021-08-31, 6, 2022-02-28",
        "2023-10-31, 1, 2023-11-30",
        "2024-12-15, 60, 2029-12-15",
        "2019-01-31, 13, 2020-02-29"
    })
    void ageAddsCalendarMonths(LocalDate renewed, int months, LocalDate end) {
        Policy fixed = new Policy(new Timing.Fixed(Limit.of(120_000, months)), 0.1, 0.5, 120, UnknownRule.DUE_NOW);
        ClockStart start = new ClockStart(renewed, 0, ClockStart.Grade.DOCUMENTED);
        VehicleFacts facts = new VehicleFacts(
                renewed, false, List.of(), Map.of("belt", start), Set.of(), List.of(), TWENTY, List.of());

        assertThat(belt(judge(facts, fixed)).age().orElseThrow().date()).isEqualTo(end);
        assertThat(renewed.plusMonths(months)).isEqualTo(end);
    }

    // Source: SAE J2012 (ISO 15031-6): P0016 and P0017 bank 1, P0018 and P0019 bank 2; even sensor A, odd sensor B
    @ParameterizedTest(name = "{0}: bank {1} sensor {2}")
    @CsvSource({"P0016, 1, A", "P0017, 1, B", "P0018, 2, A", "P0019, 2, B"})
    void faultCodesSpeakOfTheDrive(String code, int bank, String sensor) {
        FaultCode read =
                FaultCode.of(" " + code.toLowerCase(java.util.Locale.ROOT)).orElseThrow();
        assertThat(read.meaning())
                .contains("Crankshaft position to camshaft position correlation")
                .endsWith("bank " + bank + " sensor " + sensor);
        assertThat(read.evidence()).isEqualTo(EvidenceKind.CORRELATION_CODE);
    }

    @ParameterizedTest
    @CsvSource({"P0015", "P0020", "P0300", "''"})
    void otherFaultCodesSayNothingOfTheDrive(String code) {
        assertThat(FaultCode.of(code)).isEmpty();
    }

    @Test
    void trustAndDailyLimitCanBeChanged() {
        VehicleFacts facts = new VehicleFacts(
                TODAY.minusYears(9),
                true,
                List.of(
                        new Reading(1, TODAY.minusDays(100), 90_000, ReadingSource.CUSTOMER),
                        new Reading(2, TODAY.minusDays(10), 80_000, ReadingSource.WORKSHOP)),
                Map.of("belt", RENEWED),
                Set.of(),
                List.of(),
                TWENTY,
                List.of());
        OdometerAssumptions gullible = OdometerAssumptions.defaults()
                .withTrust(ReadingSource.CUSTOMER, 5)
                .withTrust(ReadingSource.WORKSHOP, 1);

        assertThat(judge(facts, BOOK).readings().last().orElseThrow().km()).isEqualTo(80_000);
        assertThat(DueEngine.forecast(facts, Optional.of(BELT), BOOK, gullible, TODAY)
                        .readings()
                        .last()
                        .orElseThrow()
                        .km())
                .isEqualTo(90_000);
        assertThatThrownBy(() -> new OdometerAssumptions(Map.of(), 0, 0.2, 50)).hasMessageContaining("(0)");
    }

    @Test
    void aStatedUsageReplacesTheEstimate() {
        VehicleForecast slow = DueEngine.atStatedUsage(
                renewed(), Optional.of(BELT), BOOK, OdometerAssumptions.defaults(), TODAY, 5_000);
        VehicleForecast none =
                DueEngine.atStatedUsage(renewed(), Optional.of(BELT), BOOK, OdometerAssumptions.defaults(), TODAY, 0);

        // 70,000 km left at 5,000 a year
        assertThat(belt(slow).distance().orElseThrow().median().orElseThrow())
                .isEqualTo(TODAY.plusDays((long) Math.ceil(14 * 365.25)));
        assertThat(belt(none).binding()).isEqualTo(Binding.AGE);
    }
}
