package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.Families;
import knollfield.core.bundle.FitCheck;
import knollfield.core.completion.Completion;
import knollfield.core.completion.Recheck;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.build.Joint;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What goes on beside the steps: waiting, handing over, finding, adding, and what is left to be looked at again. */
class BenchWorkTest {

    private static Bench bench() {
        return new Bench(Books.card(Families.belt(TensionerKind.SPRING_PIN, true), Books.USUAL)).started();
    }

    @Test
    void aJobThatWaitsTakesNoAnswerUntilItGoesOnButTakesAFinding() {
        Bench bench = bench().enter(new CardEvent.Paused(CardEvent.PauseReason.FERRY, "bolt on Friday"));
        CardRefused refusal = bench.refused(new CardEvent.Ticked("parts"));

        assertThat(refusal.kind()).isEqualTo(CardRefused.Kind.PAUSED);
        assertThat(refusal).hasMessage("The job waits for the delivery; go on with it first.");
        assertThat(bench.refused(new CardEvent.Paused(CardEvent.PauseReason.BREAK, ""))
                        .kind())
                .isEqualTo(CardRefused.Kind.PAUSED);
        bench.enter(new CardEvent.SideFinding("brake hose chafed", true))
                .enter(new CardEvent.Resumed())
                .enter(new CardEvent.Ticked("parts"));
        assertThat(bench.state.noted(CardEvent.SideFinding.class)).hasSize(1);
        assertThat(bench.refused(new CardEvent.Resumed())).hasMessageContaining("not waiting");
    }

    @Test
    void whatALookShowsIsAFindingAndSaysWhatToDo() {
        Bench bench = bench().until("look").enter(new CardEvent.Inspected("look", "oil from the top"));

        assertThat(bench.state.findings()).singleElement().satisfies(f -> {
            assertThat(f.kind()).isEqualTo(EvidenceKind.OIL_TOP);
            assertThat(f.step()).contains("look");
        });
        assertThat(bench.state.answers().get("look").hint()).contains("Cam seals and cover gasket.");
        assertThat(bench.state.answers().get("look").good()).isTrue();
        bench.enter(
                new CardEvent.Found(Optional.of("strip"), EvidenceKind.BEARING, Optional.of("tensioner"), "rumbles"));
        assertThat(bench.state.findings()).hasSize(2);
        assertThat(bench.refused(new CardEvent.Found(Optional.empty(), EvidenceKind.BEARING, Optional.of("wing"), "")))
                .hasMessageContaining("no item wing");
    }

    @Test
    void onlyTheAddedItemWaitsForItsOwner() {
        Bench bench = bench().until("release").enter(new CardEvent.Widened(Set.of("camseal")));
        assertThat(bench.state.plan().step("fit-camseal")).isPresent();
        assertThat(bench.state.scope().awaiting()).containsExactly("camseal");

        // its new point is compared; everything else goes on
        bench.until("fit-pump");
        assertThat(bench.refused(new CardEvent.Ticked("fit-camseal")).kind()).isEqualTo(CardRefused.Kind.AWAITS_OWNER);
        bench.enter(new CardEvent.PhaseTicked("B17"));
        assertThat(bench.state.answers()).containsKey("fit-pump").doesNotContainKey("fit-camseal");
        while (bench.state.next().filter(s -> !s.code().equals("fit-camseal")).isPresent()) {
            bench.enter(BookAnswer.to(bench.state.next().orElseThrow()));
        }
        assertThat(bench.refused(new CardEvent.Completed(""))).hasMessage("The owner has not answered yet: cam seals.");
        Bench left = copy(bench).enter(new CardEvent.OwnerAnswered(Set.of(), Set.of("camseal")));
        assertThat(left.state.plan().step("fit-camseal")).isEmpty();
        left.enter(new CardEvent.Completed(""));
        bench.enter(new CardEvent.OwnerAnswered(Set.of("camseal"), Set.of()))
                .toTheEnd()
                .enter(new CardEvent.Completed(""));

        assertThat(Completion.items(bench.state)).contains("camseal");
        assertThat(Completion.items(left.state)).doesNotContain("camseal");
    }

    private static Bench copy(Bench bench) {
        Bench other = new Bench(bench.plan);
        bench.entries.forEach(e -> {
            other.state = other.state.after(e);
            other.entries.add(e);
        });
        return other;
    }

    @Test
    void anItemAddedLateAsksForItsPartsToBeComparedAndKeepsTheRest() {
        Bench bench = bench().until("turn1");
        int answered = bench.state.answers().size();
        bench.enter(new CardEvent.Widened(Set.of("camseal")));

        assertThat(bench.state.answers()).hasSize(answered - 1).doesNotContainKey("compare");
        assertThat(bench.refused(new CardEvent.Turned("turn1")).gate()).contains(GateKind.FIT_CHECK);
        assertThat(bench.state.next().orElseThrow().code()).isEqualTo("compare");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "  "})
    void wordsAreNeededWhereTheyAreTheWholePoint(String none) {
        Bench bench = bench();
        assertThat(bench.refused(new CardEvent.SideFinding(none, false))).hasMessageContaining("few words");
        assertThat(bench.refused(new CardEvent.Contingency("parts", none, 30, "", 0)))
                .hasMessageContaining("few words");
        assertThat(bench.refused(new CardEvent.RecheckAsked(none, 3))).hasMessageContaining("few words");
        assertThat(bench.refused(new CardEvent.SideFinding("x".repeat(401), false)))
                .hasMessageContaining("longer than 400");
    }

    @Test
    void contingenciesHaveTheirBounds() {
        Bench bench = bench();
        assertThat(bench.refused(new CardEvent.Contingency("parts", "stud sheared", 0, "", 0)))
                .hasMessageContaining("minutes");
        assertThat(bench.refused(new CardEvent.Contingency("parts", "stud sheared", 45, "stud", -1)))
                .hasMessageContaining("price");
        bench.enter(new CardEvent.Contingency("parts", "stud sheared", 45, "stud", 350));
        assertThat(bench.state.noted(CardEvent.Contingency.class).get(0).minutes())
                .isEqualTo(45);
    }

    @Test
    void aPatternTakesOneTouchForEachPassAndNoMore() {
        // the test's pump has one bolt: a pattern needs a book with more
        assertThat(BoltPattern.crosswise(4)).containsExactly(1, 3, 2, 4);
        assertThat(BoltPattern.crosswise(6)).startsWith(1, 4).containsExactlyInAnyOrder(1, 2, 3, 4, 5, 6);
        assertThat(BoltPattern.crosswise(5)).startsWith(1, 3).hasSize(5);
    }

    @ParameterizedTest
    @CsvSource({
        "ROUND, 6, 3, true, 3 4 5 6 1 2", "ROUND, 6, 3, false, 3 2 1 6 5 4", "OUTWARDS, 6, 1, true, 1 2 6 3 5 4",
        "OUTWARDS, 5, 2, false, 2 1 3 5 4", "CROSSWISE, 4, 2, true, 2 4 3 1", "CROSSWISE, 4, 1, false, 1 3 4 2"
    })
    void aPatternIsGoneOverFromTheBoltAndTheWayOfTheBook(
            Joint.BoltOrder.Way way, int bolts, int start, boolean clockwise, String order) {
        Task.Passes passes = new Task.Passes(
                "Cover", bolts, 2, Optional.empty(), Optional.of(new Joint.BoltOrder(way, start, clockwise)));
        assertThat(passes.order().stream().map(String::valueOf).collect(Collectors.joining(" ")))
                .isEqualTo(order);
    }

    @Test
    void rechecksFollowFromTheCard() {
        Bench bench = bench().until("drain")
                .enter(new CardEvent.Measured("drain", 5.5))
                .until("fill");
        bench.enter(new CardEvent.Measured("fill", 4)).until("level");
        assertThat(bench.refused(new CardEvent.Deferred("label")).kind()).isNotNull();
        bench.enter(new CardEvent.Deferred("level"))
                .enter(new CardEvent.RecheckAsked("wheel fasteners", 7))
                .toTheEnd()
                .enter(new CardEvent.Completed(""));

        assertThat(Recheck.after(bench.state, LocalDate.of(2026, 11, 25), List.of()))
                .containsExactly(
                        new Recheck("Coolant level, cold", LocalDate.of(2026, 11, 26)),
                        new Recheck(
                                "Coolant: 4 L in for 5.5 L out, 27 % short: bleed again, check after the road test.",
                                LocalDate.of(2026, 11, 26)),
                        new Recheck("wheel fasteners", LocalDate.of(2026, 12, 2)));
    }

    @Test
    void theSamePartsPutBackRestartNoClock() {
        CardScope scope = CardScope.of(Set.of("belt", "tensioner")).asRework();
        CardPlan plan =
                Books.listed(new CardBasis(Families.belt(TensionerKind.SPRING_PIN, true), Set.of(), Set.of(), scope));
        Bench same = new Bench(plan).started().until("refit");
        assertThat(same.refused(new CardEvent.Chosen("refit", "same", ""))).hasMessageContaining("few words");
        same.enter(new CardEvent.Chosen("refit", "same", "belt is a week old"))
                .toTheEnd()
                .enter(new CardEvent.Completed(""));
        Bench fresh = new Bench(plan).started().toTheEnd().enter(new CardEvent.Completed(""));

        assertThat(Completion.items(same.state)).isEmpty();
        assertThat(Completion.items(fresh.state)).containsExactlyInAnyOrder("belt", "tensioner");
    }

    @Test
    void whatAsksForAPartTheBookDoesNotHaveIsOfferedALineUntilThereIsOne() {
        Bench bench = bench();
        bench.enter(new CardEvent.Found(Optional.empty(), EvidenceKind.MOUNT_TORN, Optional.empty(), "left side"));
        bench.enter(new CardEvent.Found(Optional.empty(), EvidenceKind.COOLANT_TRACE, Optional.empty(), ""));
        bench.enter(new CardEvent.Found(Optional.empty(), EvidenceKind.CRACKS, Optional.empty(), ""));
        // the book has a water pump and no mount, and cracks ask for nothing beside the belt
        assertThat(bench.state.withoutALine()).containsExactly(EvidenceKind.MOUNT_TORN);

        String step = bench.state.next().orElseThrow().code();
        bench.enter(new CardEvent.Contingency(step, "engine mount torn, new one", 40, "mount", 9_000));
        assertThat(bench.state.withoutALine()).isEmpty();
    }

    @Test
    void partsAndToolsAreOnesOfTheCard() {
        Bench bench = new Bench(
                        CardGenerator.generate(Families.belt(TensionerKind.SPRING_PIN, true), Set.of(), Books.USUAL))
                .started();
        FitCheck.Data teeth = new FitCheck.Data(
                OptionalInt.of(146),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                Optional.empty());
        bench.enter(new CardEvent.PartMeasured("belt", teeth));
        assertThat(bench.state.partsMeasured()).containsExactly(java.util.Map.entry("belt", teeth));
        assertThat(bench.refused(new CardEvent.PartMeasured("chain", teeth)).kind())
                .isEqualTo(CardRefused.Kind.WRONG_ANSWER);
        assertThat(bench.refused(new CardEvent.PartMeasured("belt", FitCheck.Data.unknown())))
                .hasMessageContaining("at least one figure");
        assertThat(bench.refused(new CardEvent.ToolFailed("spoon", true, ""))).hasMessageContaining("no tool spoon");
        String piece = bench.plan.toolPieces().get(0);
        bench.enter(new CardEvent.ToolFailed(piece, true, "")).enter(new CardEvent.ToolFailed(piece, false, "bent"));
        assertThat(bench.state.toolsFailed()).hasSize(1);
        assertThat(bench.state.toolsFailed().get(piece).missing()).isFalse();
    }

    // --- the card's clock

    private static final ZoneId ZONE = ZoneId.of("UTC");
    private static final Instant EIGHT = Instant.parse("2026-11-25T08:00:00Z");

    private static CardEntry at(int minute, String by, CardEvent event) {
        return new CardEntry(1, EIGHT.plusSeconds(minute * 60L), by, false, event);
    }

    @Test
    void minutesGoToThePhaseTheyWereWorkedInAndTwoPeopleCountTwice() {
        List<CardEntry> entries = List.of(
                at(0, "Hedra", new CardEvent.Started(1, "")),
                at(10, "Hedra", new CardEvent.Ticked("parts")),
                at(15, "Hedra", new CardEvent.Ticked("battery")),
                at(15, "Perran", new CardEvent.Joined()),
                at(25, "Perran", new CardEvent.Ticked("raise")),
                at(25, "Perran", new CardEvent.Left()),
                at(30, "Hedra", new CardEvent.Paused(CardEvent.PauseReason.PARTS, "bolt")),
                at(90, "Wenna", new CardEvent.Resumed()),
                at(100, "Hedra", new CardEvent.Ticked("clear")));
        WorkClock clock = WorkClock.of(bench().plan, entries, ZONE, Optional.empty());

        assertThat(clock.byPhase())
                .containsExactly(
                        java.util.Map.entry("B2", 10),
                        java.util.Map.entry("B3", 5 + 2 * 10 + 5),
                        java.util.Map.entry("B5", 2 * 10));
        assertThat(clock.byStep())
                .containsExactlyInAnyOrderEntriesOf(
                        java.util.Map.of("parts", 10.0, "battery", 5.0, "raise", 20.0, "clear", 20.0));
        assertThat(clock.byPerson())
                .containsEntry("Hedra", 40)
                .containsEntry("Perran", 10)
                .containsEntry("Wenna", 10);
        assertThat(clock.waits())
                .containsExactly(new WorkClock.Wait("parts", "bolt", EIGHT.plusSeconds(1800), Optional.of(60)));
        assertThat(clock.minutes()).isEqualTo(60);
    }

    @Test
    void whatIsTickedInOneTouchSharesItsMinutes() {
        CardPlan plan = bench().plan;
        String phase = plan.phases().stream()
                .filter(p -> p.steps().stream()
                                .filter(s -> s.task() instanceof Task.Tick)
                                .count()
                        > 1)
                .findFirst()
                .orElseThrow()
                .code();
        WorkClock clock = WorkClock.of(
                plan,
                List.of(
                        at(0, "Hedra", new CardEvent.Started(1, "")),
                        at(12, "Hedra", new CardEvent.PhaseTicked(phase))),
                ZONE,
                Optional.empty());
        assertThat(clock.byStep()).hasSizeGreaterThan(1);
        assertThat(clock.byStep().values().stream()
                        .mapToDouble(Double::doubleValue)
                        .sum())
                .isCloseTo(12, within(1e-9));
    }

    @Test
    void aNightNobodyNotedIsNoWork() {
        List<CardEntry> entries = List.of(
                at(0, "Hedra", new CardEvent.Started(1, "")),
                at(60, "Hedra", new CardEvent.Ticked("parts")),
                at(24 * 60, "Hedra", new CardEvent.Ticked("battery")),
                at(24 * 60 + 30, "Hedra", new CardEvent.HandedOver("Perran", "")),
                at(24 * 60 + 40, "Perran", new CardEvent.Ticked("raise")));
        WorkClock clock =
                WorkClock.of(bench().plan, entries, ZONE, Optional.of(EIGHT.plusSeconds((24 * 60 + 55) * 60L)));

        assertThat(clock.uncounted()).isEqualTo(23 * 60);
        assertThat(clock.byPerson()).containsEntry("Hedra", 90).containsEntry("Perran", 25);
        assertThat(clock.minutes()).isEqualTo(115);
    }

    @Test
    void aSignedCardSaysHowLongAndWhatBecameOfTheOldParts() {
        Bench bench = bench().toTheEnd();
        assertThat(bench.refused(new CardEvent.Completed("", OptionalInt.of(10_001), CardEvent.OldParts.KEPT)))
                .hasMessageContaining("166 hours");
        bench.enter(new CardEvent.Completed("quiet", OptionalInt.of(290), CardEvent.OldParts.RETURNED));

        assertThat(bench.state.signature().orElseThrow().event().oldParts().words())
                .isEqualTo("returned to the owner");
        assertThat(bench.refused(new CardEvent.SideFinding("late", false)).kind())
                .isEqualTo(CardRefused.Kind.ALREADY_SIGNED);
    }
}
