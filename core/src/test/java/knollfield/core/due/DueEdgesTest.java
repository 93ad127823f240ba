package knollfield.core.due;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.Families;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.Policy.Timing;
import knollfield.core.due.Policy.UnknownRule;
import knollfield.core.due.SetAside.Wish;
import knollfield.core.due.VehicleFacts.Special;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.RepairEstimate;
import knollfield.core.engine.Schedule;
import knollfield.core.engine.TensionerKind;
import knollfield.core.kinds.KindFamily;
import knollfield.core.kinds.Kinds;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import knollfield.core.units.DistanceUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** What is said of a vehicle, and where what is said changes. */
class DueEdgesTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final LocalDate THEN = TODAY.minusYears(4);
    private static final UsageClass TWENTY = new UsageClass("T", "test", 20_000, 6_000);
    private static final EngineFamily BELT = Families.belt(TensionerKind.SPRING_PIN, true);
    private static final Policy BOOK = new Policy(new Timing.Book(), 0.1, 0.5, 120, UnknownRule.DUE_NOW);
    private static final Special PLAIN = new Special(UseState.inUse(), 0, Optional.empty(), Optional.empty(), Set.of());

    private static Reading reading(LocalDate on, int km) {
        return new Reading(on.toEpochDay(), on, km, ReadingSource.WORKSHOP);
    }

    private static ClockStart renewed(LocalDate on, int km) {
        return new ClockStart(on, km, ClockStart.Grade.DOCUMENTED);
    }

    /** Renewed four years ago at 50,000 km, {@code km} today. */
    private static VehicleFacts ran(int km, Set<Condition> hard, Evidence... evidence) {
        return with(
                Map.of("belt", renewed(THEN, 50_000)),
                List.of(reading(THEN, 50_000), reading(TODAY, km)),
                hard,
                evidence);
    }

    private static VehicleFacts with(
            Map<String, ClockStart> starts, List<Reading> readings, Set<Condition> hard, Evidence... evidence) {
        return new VehicleFacts(
                TODAY.minusYears(9), true, readings, starts, hard, List.of(evidence), TWENTY, List.of());
    }

    private static VehicleForecast judge(VehicleFacts facts) {
        return DueEngine.forecast(facts, Optional.of(BELT), BOOK, TODAY);
    }

    private static ItemForecast belt(VehicleForecast f) {
        return f.item("belt").orElseThrow();
    }

    /** Templates and their facts, as a text. */
    private static String said(VehicleForecast f) {
        return f.reasons().stream().map(r -> r.statement().toString()).toList().toString();
    }

    @Test
    void whicheverDecidesSaysSoInItsOwnWords() {
        assertThat(said(judge(ran(60_000, Set.of())))).contains("Age decides for the {0}", "months=72", "left, until");
        assertThat(said(judge(ran(150_000, Set.of()))))
                .contains("Distance decides for the {0}: even chance by {1}, one in ten", "{2} left.")
                .doesNotContain("Age decides");
        assertThat(said(judge(ran(170_000, Set.of()))))
                .as("to the kilometre")
                .contains("its limit was passed about", "used, {2} left.")
                .doesNotContain("over.");
        assertThat(said(judge(ran(170_001, Set.of())))).contains("its limit was passed about", "used, {2} over.");
        VehicleFacts old = with(
                Map.of("belt", renewed(TODAY.minusMonths(73), 50_000)),
                List.of(reading(TODAY.minusMonths(73), 50_000), reading(TODAY, 60_000)),
                Set.of());
        assertThat(said(judge(old))).contains("over since {2}");
        VehicleFacts last = with(
                Map.of("belt", renewed(TODAY.minusMonths(72), 50_000)),
                List.of(reading(TODAY.minusMonths(72), 50_000), reading(TODAY, 60_000)),
                Set.of());
        assertThat(said(judge(last)))
                .as("its last day")
                .contains("left, until {3}")
                .doesNotContain("over since");
    }

    @Test
    void theLimitOfHardUseIsShownBesideTheNormalOne() {
        assertThat(said(judge(ran(100_000, Set.of()))))
                .contains("Normal; from", "Under hard use the limit would be {0}, {1} left");
        assertThat(said(judge(ran(120_000, Set.of())))).as("exactly").contains("would be {0}, {1} left");
        assertThat(said(judge(ran(120_001, Set.of())))).contains("would be {0}: over by {1}");
        assertThat(said(judge(ran(100_000, Set.of(Condition.DUST)))))
                .contains("Severe, because of")
                .doesNotContain("would be");
        VehicleFacts chain = with(
                Map.of("chain", renewed(THEN, 50_000)),
                List.of(reading(THEN, 50_000), reading(TODAY, 90_000)),
                Set.of(Condition.TOWING));
        VehicleForecast f = DueEngine.forecast(chain, Optional.of(Families.chain()), BOOK, TODAY);
        assertThat(said(f)).contains("the book has no severe limits for this item");
    }

    @Test
    void whatAClassTeachesAndWhatReadingsShowIsSaid() {
        assertThat(said(judge(ran(100_000, Set.of())))).contains("its readings show");
        VehicleFacts none = with(
                Map.of("belt", new ClockStart(THEN, 50_000, ClockStart.Grade.ORIGINAL)),
                List.of(reading(TODAY, 100_000)),
                Set.of());
        assertThat(said(judge(none))).contains("from its class alone");
        ClockStart mistyped = renewed(THEN, 160_000);
        VehicleFacts unsettled = with(
                Map.of("belt", mistyped),
                List.of(
                        reading(THEN.minusYears(1), 40_000),
                        mistyped.reading().orElseThrow(),
                        reading(THEN.plusMonths(1), 50_000),
                        reading(TODAY, 100_000)),
                Set.of());
        assertThat(said(judge(unsettled))).contains("The odometer stated with the renewal of {0}, {1}, tells nothing");
    }

    @ParameterizedTest
    @CsvSource({
        "FIRST_REGISTRATION, Counted from first registration",
        "ORIGINAL, Counted from first registration",
        "DATE_CODE, No renewal on record",
        "INSPECTED, Last inspected and found good",
        "DOCUMENTED, Last renewed",
        "STATED, Last renewed"
    })
    void fromWhatAClockCountsIsSaid(ClockStart.Grade grade, String words) {
        VehicleFacts facts = with(
                Map.of("belt", new ClockStart(THEN, 50_000, grade)),
                List.of(reading(THEN, 50_000), reading(TODAY, 100_000)),
                Set.of());
        assertThat(said(judge(facts))).contains(words, grade.words());
        assertThat(grade.words()).isNotBlank();
    }

    @ParameterizedTest
    @CsvSource({
        "YES, an interference engine, 0.1",
        "UNKNOWN, an engine whose interference is unconfirmed, 0.1",
        "NO, an engine that does not interfere, 0.5"
    })
    void byWhatTheWorkshopActsIsSaid(Interference interference, String words, double risk) {
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true, CrankFit.KEYED, interference);
        VehicleFacts facts = ran(100_000, Set.of());
        assertThat(said(DueEngine.forecast(facts, Optional.of(family), BOOK, TODAY)))
                .contains("Act by {0}: the workshop acts at {1}", words, "share=" + risk);
        Policy careful = BOOK.with(new Timing.Careful());
        assertThat(said(DueEngine.forecast(facts, Optional.of(family), careful, TODAY)))
                .contains("By the book {0}: at its limit", words)
                .doesNotContain("the workshop acts at");
    }

    @Test
    void aBeltWithoutAnAgeLimitSaysHowOldItIs() {
        EngineFamily byDistance = KindFamily.of(
                Kinds.all().stream()
                        .filter(k -> k.build().loops().get(0).kind() == Drive.BELT)
                        .findFirst()
                        .orElseThrow(),
                "T",
                "Tested",
                Interference.YES,
                Optional.of(new Schedule(Limit.ofKm(120_000), Optional.empty(), "the test's own", DistanceUnit.KM)),
                new RepairEstimate(100, 200, 300),
                6_000);
        Map<String, ClockStart> starts =
                byDistance.items().stream().collect(Collectors.toMap(Item::code, i -> renewed(THEN, 50_000)));
        VehicleFacts facts = with(starts, List.of(reading(THEN, 50_000), reading(TODAY, 90_000)), Set.of());
        assertThat(said(DueEngine.forecast(facts, Optional.of(byDistance), BOOK, TODAY)))
                .contains("rubber ages", "months=48");
        assertThat(said(judge(ran(90_000, Set.of())))).doesNotContain("rubber ages");
    }

    @Test
    void aJourneyIsNamedAndWhetherItMovesTheDay() {
        KnownTrip far = new KnownTrip(TODAY.plusDays(30), TODAY.plusDays(40), 30_000);
        KnownTrip near = new KnownTrip(TODAY.plusDays(30), TODAY.plusDays(40), 300);
        KnownTrip begun = new KnownTrip(TODAY, TODAY.plusDays(4), 300);
        assertThat(said(judge(trip(far)))).contains("act before it starts");
        assertThat(said(judge(trip(near))))
                .contains("{0} extra from {1} to {2}.")
                .doesNotContain("act before it starts");
        assertThat(said(judge(trip(begun)))).doesNotContain("{0} extra from");
    }

    private static VehicleFacts trip(KnownTrip trip) {
        return new VehicleFacts(
                TODAY.minusYears(9),
                true,
                List.of(reading(THEN, 50_000), reading(TODAY, 145_000)),
                Map.of("belt", renewed(THEN, 50_000)),
                Set.of(),
                List.of(),
                TWENTY,
                List.of(trip));
    }

    @Test
    void aLimitPassedOnTheDayOfTheFirstReadingAndOneAtItAreToldApart() {
        Map<String, ClockStart> starts = Map.of("belt", renewed(THEN, 50_000));
        assertThat(judge(with(starts, List.of(reading(TODAY, 170_000)), Set.of()))
                        .status())
                .isEqualTo(Status.ACT_NOW);
        assertThat(judge(with(starts, List.of(reading(TODAY, 170_001)), Set.of()))
                        .status())
                .isEqualTo(Status.OVERDUE);
        VehicleFacts stood = with(
                starts,
                List.of(reading(THEN, 50_000), reading(TODAY.minusDays(100), 170_000), reading(TODAY, 170_000)),
                Set.of());
        assertThat(belt(judge(stood)).distance().orElseThrow().median()).contains(TODAY.minusDays(100));
    }

    @Test
    void exactlyAtALimitSinceRegistrationAHistoryMatters() {
        VehicleFacts under = new VehicleFacts(
                TODAY.minusYears(2),
                true,
                List.of(reading(TODAY, 119_999)),
                Map.of(),
                Set.of(),
                List.of(),
                TWENTY,
                List.of());
        VehicleFacts at = new VehicleFacts(
                TODAY.minusYears(2),
                true,
                List.of(reading(TODAY, 120_000)),
                Map.of(),
                Set.of(),
                List.of(),
                TWENTY,
                List.of());
        assertThat(belt(judge(under)).start()).isPresent();
        assertThat(judge(at).status()).isEqualTo(Status.UNKNOWN_HISTORY);
    }

    @Test
    void anInspectionCountsAtTheOdometerOfItsDayUnlessARenewalCameAfter() {
        assertThat(inspected(TODAY.minusYears(2), Map.of()).km())
                .as("between two")
                .isCloseTo(170_000, within(60));
        assertThat(inspected(TODAY.minusYears(4), Map.of()).km())
                .as("on the day of one")
                .isEqualTo(150_000);
        assertThat(inspected(TODAY.minusYears(5), Map.of()).km())
                .as("before the first")
                .isEqualTo(150_000);
        ClockStart later = renewed(TODAY.minusYears(1), 180_000);
        assertThat(inspected(TODAY.minusYears(2), Map.of("chain", later))).isEqualTo(later);
        ClockStart earlier = renewed(TODAY.minusYears(3), 160_000);
        assertThat(inspected(TODAY.minusYears(2), Map.of("chain", earlier)).grade())
                .isEqualTo(ClockStart.Grade.INSPECTED);

        VehicleFacts after = with(
                Map.of(),
                List.of(reading(TODAY.minusYears(4), 150_000), reading(TODAY.minusYears(1), 180_000)),
                Set.of(),
                new Evidence(EvidenceKind.INSPECTED_GOOD, TODAY));
        VehicleForecast f = DueEngine.forecast(after, Optional.of(Families.chain()), BOOK, TODAY);
        assertThat(f.item("chain").orElseThrow().start().orElseThrow().km())
                .as("after the last: as projected")
                .isEqualTo((int) Math.round(f.projection().medianKm(TODAY)))
                .isGreaterThan(190_000);
    }

    private static ClockStart inspected(LocalDate on, Map<String, ClockStart> starts) {
        VehicleFacts facts = with(
                starts,
                List.of(reading(TODAY.minusYears(4), 150_000), reading(TODAY, 190_000)),
                Set.of(),
                new Evidence(EvidenceKind.INSPECTED_GOOD, on));
        return DueEngine.forecast(facts, Optional.of(Families.chain()), BOOK, TODAY)
                .item("chain")
                .orElseThrow()
                .start()
                .orElseThrow();
    }

    @Test
    void whatIsFoundOnAPartThatCarriesTheBeltCallsForItAndOnAnotherDoesNot() {
        assertThat(belt(judge(ran(70_000, Set.of(), on("tensioner")))).status()).isEqualTo(Status.ACT_NOW);
        assertThat(belt(judge(ran(70_000, Set.of(), on("pump")))).status()).isEqualTo(Status.ACT_NOW);
        assertThat(belt(judge(ran(70_000, Set.of(), on("camseal")))).status()).isEqualTo(Status.CLEAR);
        assertThat(belt(judge(ran(70_000, Set.of(), on("belt")))).status()).isEqualTo(Status.ACT_NOW);
        assertThat(belt(judge(ran(70_000, Set.of(), on("no such part")))).status())
                .isEqualTo(Status.ACT_NOW);
    }

    private static Evidence on(String item) {
        return new Evidence(EvidenceKind.BEARING_RUMBLE, TODAY, Evidence.Confidence.SEEN, Optional.of(item));
    }

    @Test
    void aFindingNeverPutsADayThatHasPassedForward() {
        VehicleForecast overdue = judge(ran(190_000, Set.of()));
        VehicleForecast found = judge(ran(190_000, Set.of(), new Evidence(EvidenceKind.CRACKS, TODAY)));
        assertThat(found.actBy()).isEqualTo(overdue.actBy());
        assertThat(found.actBy().orElseThrow()).isBefore(TODAY);
        VehicleForecast ahead = judge(ran(70_000, Set.of(), new Evidence(EvidenceKind.CRACKS, TODAY.minusDays(3))));
        assertThat(ahead.actBy()).contains(TODAY.minusDays(3));
    }

    @Test
    void ofPartsNobodyKnowsOnlyThoseThatTakeTheDriveAreAskedAfter() {
        assertThat(judge(ran(70_000, Set.of())).unknownBeside())
                .extracting(i -> i.item().code())
                .containsExactly("tensioner", "pump");
        assertThat(judge(with(Map.of(), List.of(reading(TODAY, 190_000)), Set.of()))
                        .unknownBeside())
                .isEmpty();
        ClockStart known = renewed(THEN, 50_000);
        VehicleFacts all = with(
                Map.of("belt", known, "tensioner", known, "pump", known),
                List.of(reading(THEN, 50_000), reading(TODAY, 70_000)),
                Set.of());
        assertThat(judge(all).unknownBeside()).isEmpty();
    }

    @Test
    void idlingIsPartOfWhatAPartHasUsed() {
        Special idles = new Special(UseState.inUse(), 100, Optional.empty(), Optional.empty(), Set.of());
        VehicleForecast f = judge(ran(70_000, Set.of()).with(idles));
        ClockStart start = renewed(THEN, 50_000);
        double years = ChronoUnit.DAYS.between(THEN, TODAY) / 365.25;
        // Common practice, no source: an hour idling is as hard as 50 km
        assertThat(f.usedKm(start, TODAY)).isCloseTo(20_000 + 5_000 * years, within(0.01));
        assertThat(f.usedKm(renewed(TODAY, 90_000), TODAY))
                .as("never below zero")
                .isZero();
        assertThat(judge(ran(70_000, Set.of()).with(PLAIN)).usedKm(start, TODAY))
                .isCloseTo(20_000, within(0.01));
    }

    @Test
    void anEarlierDayCallsByHowNearItIs() {
        VehicleForecast clear = judge(ran(60_000, Set.of()));
        Reason why = Reason.of(Reason.Topic.POLICY, "because");
        assertThat(clear.status()).isEqualTo(Status.CLEAR);
        assertThat(clear.actedOnBy(TODAY, 120, why).status()).isEqualTo(Status.ACT_NOW);
        assertThat(clear.actedOnBy(TODAY.plusDays(1), 120, why).status()).isEqualTo(Status.COMING);
        assertThat(clear.actedOnBy(TODAY.plusDays(120), 120, why).status()).isEqualTo(Status.COMING);
        VehicleForecast far = clear.actedOnBy(TODAY.plusDays(121), 120, why);
        assertThat(far.status()).isEqualTo(Status.CLEAR);
        assertThat(far.actBy()).contains(TODAY.plusDays(121));
        assertThat(belt(far).actBy()).contains(TODAY.plusDays(121));
        assertThat(far.deciding().orElseThrow().actBy()).contains(TODAY.plusDays(121));
        assertThat(far.reasons()).endsWith(why);
    }

    @ParameterizedTest
    @CsvSource({
        "STOP, STOP, true, false",
        "OVERDUE, DECIDE_NOW, true, false",
        "UNKNOWN_HISTORY, DECIDE_NOW, true, false",
        "ACT_NOW, DECIDE_NOW, true, false",
        "COMING, COMING, false, true",
        "NO_BOOK, NOTHING_TO_COUNT, false, false",
        "CLEAR, CLEAR, false, true"
    })
    void howUrgentAStatusIs(Status status, Urgency urgency, boolean decide, boolean ahead) {
        assertThat(Urgency.of(status)).isEqualTo(urgency);
        assertThat(urgency.isToBeDecided()).isEqualTo(decide);
        assertThat(status.isAhead()).isEqualTo(ahead);
        assertThat(status.worse(Status.CLEAR)).isEqualTo(status);
        assertThat(Status.STOP.worse(status)).isEqualTo(Status.STOP);
    }

    @ParameterizedTest
    @EnumSource(FindingEffect.Call.class)
    void onlyAStopAndADeadlineMoveADate(FindingEffect.Call call) {
        assertThat(call.movesTheDate())
                .isEqualTo(Set.of(FindingEffect.Call.STOP, FindingEffect.Call.ACT_NOW, FindingEffect.Call.ACT_SOON)
                        .contains(call));
    }

    @Test
    void whatIsSaidAloudHasWordsAndNoTwoAlike() {
        for (Class<? extends Enum<?>> words : List.of(
                FindingEffect.Call.class,
                Evidence.Confidence.class,
                SetAside.Why.class,
                UseState.Kind.class,
                Reason.Topic.class,
                NextStep.class,
                Urgency.class,
                DelayTime.class)) {
            List<String> all = Arrays.stream(words.getEnumConstants())
                    .map(DueEdgesTest::words)
                    .toList();
            assertThat(all).as(words.getSimpleName()).doesNotHaveDuplicates().noneMatch(String::isBlank);
        }
        assertThat(NextStep.PROMISE.wordsForOwner()).isEqualTo("a day is sought");
        assertThat(EvidenceKind.offered())
                .doesNotContain(EvidenceKind.BEARING)
                .hasSize(EvidenceKind.values().length - 1);
    }

    private static String words(Enum<?> value) {
        try {
            return (String) value.getClass().getMethod("words").invoke(value);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void ofWishesTheLongestHoldsUntilSomethingIsFound() {
        Wish month = new Wish(SetAside.Why.DECLINED, TODAY.minusDays(10), TODAY.plusDays(20));
        Wish week = new Wish(SetAside.Why.ASK_AGAIN, TODAY.minusDays(1), TODAY.plusDays(7));
        assertThat(SetAside.of(List.of(week, month), List.of(), TODAY))
                .contains(new SetAside(SetAside.Why.DECLINED, TODAY.plusDays(20)));
        Evidence between = new Evidence(EvidenceKind.CRACKS, TODAY.minusDays(5));
        assertThat(SetAside.of(List.of(week, month), List.of(between), TODAY))
                .contains(new SetAside(SetAside.Why.ASK_AGAIN, TODAY.plusDays(7)));
        Evidence good = new Evidence(EvidenceKind.INSPECTED_GOOD, TODAY);
        assertThat(SetAside.of(List.of(month), List.of(good), TODAY))
                .as("it says nothing bad")
                .isPresent();
        assertThat(SetAside.of(List.of(month), List.of(), month.until()))
                .as("its last day")
                .isEmpty();

        Wish call = new Wish(SetAside.Why.ASK_AGAIN, TODAY.minusDays(8), TODAY);
        assertThat(SetAside.callBack(List.of(call), TODAY)).isTrue();
        assertThat(SetAside.callBack(List.of(call), TODAY.minusDays(1))).isFalse();
        assertThat(SetAside.callBack(List.of(call, week), TODAY))
                .as("said again since")
                .isFalse();
        assertThat(SetAside.callBack(List.of(new Wish(SetAside.Why.DECLINED, call.said(), TODAY)), TODAY))
                .isFalse();
    }

    @Test
    void whoeverIsSoldOrScrappedIsPlannedNoMore() {
        for (UseState.Kind kind : UseState.Kind.values()) {
            UseState state = kind == UseState.Kind.IN_USE ? UseState.inUse() : new UseState(kind, Optional.of(TODAY));
            assertThat(state.planned()).isEqualTo(kind == UseState.Kind.IN_USE || kind == UseState.Kind.LAID_UP);
            assertThat(state.standsFrom().isPresent()).isEqualTo(kind == UseState.Kind.LAID_UP);
        }
    }

    @Test
    void aheadStandsStillFromTheDayAVehicleIsLaidUp() {
        VehicleForecast runs = judge(ran(150_000, Set.of()));
        Ahead.Track track = Ahead.Track.of(runs).orElseThrow();
        assertThat(track.today()).isEqualTo(Ahead.of(runs, TODAY).orElseThrow());
        assertThat(track.crossesDay())
                .isEqualTo(belt(runs)
                        .distance()
                        .orElseThrow()
                        .median()
                        .orElseThrow()
                        .toEpochDay());
        LocalDate stands = TODAY.plusDays(50);
        VehicleForecast soon = judge(ran(150_000, Set.of())
                .with(new Special(UseState.laidUp(stands), 0, Optional.empty(), Optional.empty(), Set.of())));
        Ahead.Track laidUp = Ahead.Track.of(soon).orElseThrow();
        for (int days : new int[] {0, 25, 50, 51, 400}) {
            LocalDate on = TODAY.plusDays(days);
            assertThat(laidUp.on(on).distance())
                    .isCloseTo(Ahead.of(soon, on).orElseThrow().distance(), within(1e-9));
            assertThat(track.on(on).distance())
                    .isCloseTo(Ahead.of(runs, on).orElseThrow().distance(), within(1e-9));
            assertThat(track.ageOn(on))
                    .isCloseTo(Ahead.of(runs, on).orElseThrow().age(), within(1e-3));
        }
        assertThat(laidUp.on(TODAY.plusDays(400)).distance())
                .isEqualTo(laidUp.on(stands).distance());
    }

    @Test
    void whereADistanceNeverComesTheAgeCrosses() {
        VehicleFacts laidUp = ran(60_000, Set.of())
                .with(new Special(UseState.laidUp(TODAY), 0, Optional.empty(), Optional.empty(), Set.of()));
        VehicleForecast f = judge(laidUp);
        Ahead.Track track = Ahead.Track.of(f).orElseThrow();
        assertThat(track.crossesDay()).isEqualTo(THEN.plusMonths(72).toEpochDay());
    }
}
