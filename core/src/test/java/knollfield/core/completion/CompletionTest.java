package knollfield.core.completion;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.Families;
import knollfield.core.clock.ClockStart;
import knollfield.core.completion.Completion.Work;
import knollfield.core.due.DueEngine;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.Policy;
import knollfield.core.due.Status;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.RepairEstimate;
import knollfield.core.engine.TensionerKind;
import knollfield.core.kinds.KindFamily;
import knollfield.core.kinds.Kinds;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class CompletionTest {

    private static final LocalDate DONE = LocalDate.of(2026, 11, 25);
    private static final EngineFamily FAMILY = Families.belt(TensionerKind.SPRING_PIN, true);
    private static final Policy EARLY = Policy.defaults().with(new Policy.Timing.Early(0.95));

    @Test
    void whatWasRenewedStartsAgainAndTheRestKeepsItsClock() {
        Map<String, ClockStart> starts = Completion.renewed(FAMILY, Set.of("belt", "tensioner"), DONE, 138_000).stream()
                .collect(Collectors.toMap(r -> r.item().code(), Completion.Renewed::start));
        assertThat(starts).containsOnlyKeys("belt", "tensioner");

        ClockStart old = new ClockStart(DONE.minusYears(5), 50_000, ClockStart.Grade.STATED);
        VehicleFacts facts = new VehicleFacts(
                DONE.minusYears(9),
                true,
                List.of(new Reading(1, DONE, 138_000, ReadingSource.WORKSHOP)),
                Map.of("belt", starts.get("belt"), "tensioner", starts.get("tensioner"), "pump", old),
                Set.of(),
                List.of(),
                new UsageClass("T", "test", 20_000, 5_000),
                List.of());
        VehicleForecast after = DueEngine.forecast(facts, Optional.of(FAMILY), Policy.defaults(), DONE);

        assertThat(after.item("belt").orElseThrow().distance().orElseThrow().usedKm())
                .isZero();
        assertThat(after.item("belt").orElseThrow().status()).isEqualTo(Status.CLEAR);
        assertThat(after.item("pump").orElseThrow().distance().orElseThrow().usedKm())
                .isEqualTo(88_000);
    }

    private static Evidence found(EvidenceKind kind) {
        return new Evidence(kind, DONE, Evidence.Confidence.SEEN, Optional.empty());
    }

    @ParameterizedTest
    @EnumSource(EvidenceKind.class)
    void aNewBeltEndsWhatItWasTheCauseOfAndNothingThatSomethingElseBroughtAbout(EvidenceKind kind) {
        Evidence evidence = found(kind);
        Set<String> cause = FAMILY.items().stream()
                .filter(i -> kind.asksFor().contains(i.kind()))
                .map(Item::code)
                .collect(Collectors.toSet());
        // what a new belt and tensioner leave as it is: trade experience
        boolean other = Set.of(
                        EvidenceKind.OIL_TOP,
                        EvidenceKind.OIL_BOTTOM,
                        EvidenceKind.COOLANT_TRACE,
                        EvidenceKind.DAMPER_LOOSE,
                        EvidenceKind.DAMPER_CRACKED,
                        EvidenceKind.MOUNT_TORN,
                        EvidenceKind.ACCESSORY_TENSIONER_WORN,
                        EvidenceKind.PIPE_BRITTLE,
                        EvidenceKind.CLEARANCE_OUT)
                .contains(kind);
        Set<String> drive = Set.of("belt", "tensioner");
        Set<String> whole = new HashSet<>(drive);
        whole.addAll(cause);

        assertThat(ends(drive, Set.of(), evidence)).isEqualTo(!other);
        assertThat(Completion.stays(new Work(FAMILY, drive, Set.of(), false), List.of(evidence)))
                .hasSize(other ? 1 : 0);
        assertThat(ends(whole, Set.of(), evidence)).isEqualTo(!other || !cause.isEmpty());
        assertThat(ends(drive, cause, evidence)).isEqualTo(!other || !cause.isEmpty());
    }

    @Test
    void whatWasFoundOnAPartEndsWithThatPartOrWithTheDrive() {
        Evidence onTensioner =
                new Evidence(EvidenceKind.BEARING_RUMBLE, DONE, Evidence.Confidence.SEEN, Optional.of("tensioner"));

        assertThat(ends(Set.of("tensioner"), Set.of(), onTensioner)).isTrue();
        assertThat(ends(Set.of("pump"), Set.of(), onTensioner)).isFalse();
        assertThat(ends(Set.of("belt"), Set.of(), onTensioner)).isTrue();
        assertThat(ends(Set.of("pump"), Set.of("tensioner"), onTensioner))
                .as("declining a part renews nothing")
                .isFalse();
    }

    private static boolean ends(Set<String> items, Set<String> declined, Evidence evidence) {
        return Completion.ends(new Work(FAMILY, items, declined, false), evidence);
    }

    @Test
    void aClearanceEndsWithAMeasurementAndAFalseReferenceWithAllThatHoldsTheTiming() {
        Evidence clearance = found(EvidenceKind.CLEARANCE_OUT);
        Evidence reference = found(EvidenceKind.OUT_OF_TIME);

        assertThat(Completion.ends(new Work(FAMILY, Set.of("belt"), Set.of(), true), clearance))
                .isTrue();
        assertThat(ends(Set.of("belt"), Set.of(), reference)).isFalse();
        assertThat(ends(Set.of("belt", "tensioner"), Set.of(), reference)).isTrue();
    }

    @Test
    void theLabelSaysWhatComesFirst() {
        Completion.NextDue next = Completion.nextDue(FAMILY, EARLY, false, DONE, 138_000);

        // 95 % of 120,000 km and of the 2,192 days to 25 November 2032
        assertThat(next.km()).isEqualTo(OptionalInt.of(252_000));
        assertThat(next.date()).contains(DONE.plusDays(2_082));
        assertThat(Completion.nextDue(FAMILY, Policy.defaults(), false, DONE, 138_000)
                        .km())
                .as("careful is never past the book, and the label knows no costs")
                .isEqualTo(OptionalInt.of(258_000));
    }

    @Test
    void hardUseShortensTheLabel() {
        assertThat(Completion.nextDue(FAMILY, EARLY, true, DONE, 138_000).km()).isEqualTo(OptionalInt.of(204_500));
    }

    @Test
    void aFindingOfSeveralPartsEndsWithAllOfThemOrWithTheDrive() {
        EngineFamily chain = Families.chain();
        Evidence rattle = found(EvidenceKind.CHAIN_RATTLE);
        assertThat(Completion.ends(new Work(chain, Set.of("tensioner", "guides"), Set.of(), false), rattle))
                .isTrue();
        assertThat(Completion.ends(new Work(chain, Set.of("tensioner"), Set.of(), false), rattle))
                .isFalse();
        assertThat(Completion.ends(new Work(chain, Set.of("chain"), Set.of(), false), rattle))
                .isTrue();
        assertThat(ends(Set.of("tensioner", "pump"), Set.of(), found(EvidenceKind.CRACKS)))
                .as("it asks for no part but the belt")
                .isFalse();
        assertThat(ends(
                        Set.of("tensioner"),
                        Set.of(),
                        new Evidence(EvidenceKind.BEARING_RUMBLE, DONE, Evidence.Confidence.SEEN, Optional.of("pump"))))
                .as("it was found on another part")
                .isFalse();
    }

    @Test
    void aBookWithoutAScheduleHasNoNextDay() {
        EngineFamily unscheduled = KindFamily.of(
                Kinds.all().get(0),
                "T",
                "Tested",
                Interference.YES,
                Optional.empty(),
                new RepairEstimate(100, 200, 300),
                6_000);
        Completion.NextDue none = Completion.nextDue(unscheduled, EARLY, false, DONE, 138_000);
        assertThat(none.km()).isEmpty();
        assertThat(none.date()).isEmpty();
    }
}
