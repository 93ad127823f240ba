package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.Families;
import knollfield.core.completion.Completion;
import knollfield.core.completion.Recheck;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.TensionerKind;
import knollfield.core.jobcard.CardEvent.Chosen;
import knollfield.core.jobcard.CardEvent.Inspected;
import knollfield.core.kinds.Kinds;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** A look at a drive that opens nothing: what is looked at, and what it comes to. */
class InspectionTest {

    private static final LocalDate DAY = LocalDate.of(2026, 11, 25);
    private static final EngineFamily BELT = Families.belt(TensionerKind.SPRING_PIN, true);
    private static final EngineFamily CHAIN = Families.chain();

    private static CardPlan plan(EngineFamily family) {
        return CardGenerator.inspection(new CardBasis(family, Set.of(), Set.of(), CardScope.ofInspection()), 45);
    }

    private static Bench atTheEnd(EngineFamily family) {
        return new Bench(plan(family)).started().until(InspectionCard.END);
    }

    private static Bench ended(Bench bench, InspectionEnd end) {
        return bench.enter(new Chosen(InspectionCard.END, end.name(), "as heard and seen"))
                .enter(new CardEvent.Completed(""));
    }

    private static List<String> results(CardPlan plan, String step) {
        return ((Task.Inspect) plan.step(step).orElseThrow().task()).results();
    }

    static Stream<EngineFamily> families() {
        return Stream.concat(
                Stream.of(BELT, CHAIN, Books.friction()),
                Kinds.all().stream().map(k -> RoutedCardTest.family(k.code())));
    }

    @ParameterizedTest
    @MethodSource("families")
    void nothingIsOpenedOnAnyEngineAndEachDriveIsLookedAt(EngineFamily family) {
        CardPlan plan = plan(family);
        assertThat(plan.steps()).allSatisfy(s -> {
            assertThat(s.operations()).isEmpty();
            assertThat(s.gate()).isEmpty();
            assertThat(s.serves()).isEmpty();
        });
        boolean chain = family.drive() == Drive.CHAIN;
        // Common practice, no source: a belt is looked at through its window, a chain's guides by borescope
        assertThat(plan.step(chain ? "guides" : "window")).isPresent();
        assertThat(plan.steps().stream().anyMatch(s -> s.code().startsWith(InspectionCard.SLACK)))
                .isEqualTo(plan.step("guides").isPresent());
        Bench bench = ended(atTheEnd(family), InspectionEnd.NOTHING);
        assertThat(Completion.items(bench.state)).isEmpty();
    }

    @Test
    void slackIsJudgedByTheBooksFigureWhereItHasOne() {
        EngineFamily kind = Kinds.all().stream()
                .map(k -> RoutedCardTest.family(k.code()))
                .filter(f -> f.build().orElseThrow().looks().stream()
                        .anyMatch(l -> l.code().equals("slack") && l.hasFigure()))
                .findFirst()
                .orElseThrow();
        Step slack = plan(kind).step("slack-slack").orElseThrow();
        assertThat(slack.title()).contains("at most 3 mm");
        assertThat(slack.notes().get(0)).contains("The book measures it with");
        Bench bench =
                new Bench(plan(kind)).started().until("slack-slack").enter(new Inspected("slack-slack", "outside it"));
        assertThat(bench.state.findings())
                .extracting(CardState.Finding::kind)
                .containsExactly(EvidenceKind.CHAIN_RATTLE);
        assertThat(plan(CHAIN).step("slack-felt").orElseThrow().notes())
                .containsExactly("The book has no figure for it.");
    }

    @Test
    void oilIsToldByItsHeightOnADryBeltOnly() {
        assertThat(results(plan(BELT), "wet")).contains("oil from the top", "oil at the bottom only");
        assertThat(results(plan(CHAIN), "wet")).noneMatch(r -> r.contains("oil"));
    }

    @Test
    void theEndNeedsItsReason() {
        Bench bench = atTheEnd(CHAIN);
        assertThat(bench.refused(new Chosen(InspectionCard.END, "NOTHING", " ")))
                .hasMessageContaining("a few words");
        assertThat(bench.refused(new CardEvent.Completed("")).kind()).isEqualTo(CardRefused.Kind.STEPS_OPEN);
        ended(bench, InspectionEnd.AGAIN_IN_12);
        assertThat(bench.state.inspectionEnd())
                .contains(new InspectionEnd.Decided(InspectionEnd.AGAIN_IN_12, "as heard and seen"));
        assertThat(bench.state.answers().get(InspectionCard.END).deviation()).isFalse();
    }

    @ParameterizedTest
    @CsvSource({
        "NOTHING, 0, false",
        "AGAIN_IN_1, 1, false",
        "AGAIN_IN_3, 3, false",
        "AGAIN_IN_6, 6, false",
        "AGAIN_IN_12, 12, false",
        "TENSIONER, 0, true",
        "FULL_SET, 0, true"
    })
    void eachEndLeavesItsDayOrItsFollowUp(InspectionEnd end, int months, boolean followUp) {
        CardState card = ended(atTheEnd(CHAIN), end).state;
        List<Recheck> again = Recheck.after(card, DAY, List.of());
        assertThat(again).extracting(Recheck::due).isEqualTo(months == 0 ? List.of() : List.of(DAY.plusMonths(months)));
        assertThat(again).allSatisfy(r -> assertThat(r.what()).endsWith(". as heard and seen"));
        assertThat(Completion.followUps(card, List.of()))
                .extracting(CardEvent.SideFinding::words)
                .isEqualTo(followUp ? List.of("Inspected: %s. as heard and seen".formatted(end.words())) : List.of());
        assertThat(Completion.inspected(card, DAY).keySet())
                .extracting(Evidence::kind)
                .isEqualTo(end == InspectionEnd.NOTHING ? List.of(EvidenceKind.INSPECTED_GOOD) : List.of());
    }

    @Test
    void aDriveOnWhichSomethingWasFoundIsNotCalledGood() {
        Bench bench = new Bench(plan(CHAIN))
                .started()
                .until("guides")
                .enter(new Inspected("guides", "guide broken or cracked"))
                .until(InspectionCard.END);
        assertThat(Completion.inspected(ended(bench, InspectionEnd.NOTHING).state, DAY))
                .isEmpty();
    }

    @Test
    void whatWasKnownBeforeGetsNoFollowUpFromALookAndWhatIsFoundGetsOne() {
        Evidence before = new Evidence(EvidenceKind.DAMPER_CRACKED, DAY, Evidence.Confidence.SEEN, Optional.empty());
        Evidence now = new Evidence(EvidenceKind.OIL_TOP, DAY, Evidence.Confidence.SEEN, Optional.empty());
        for (InspectionEnd end : List.of(InspectionEnd.AGAIN_IN_1, InspectionEnd.FULL_SET)) {
            Bench bench = new Bench(plan(BELT))
                    .started()
                    .until("wet")
                    .enter(new Inspected("wet", "oil from the top"))
                    .until(InspectionCard.END);
            CardState card = ended(bench, end).state;
            assertThat(Completion.stays(card, Completion.Work.of(card, Set.of()), List.of(before, now)))
                    .isEqualTo(end.needsAJob() ? List.of() : List.of(now));
        }
    }

    @Test
    void anInspectionRenewsNothingAndTakesTime() {
        assertThatThrownBy(() -> CardGenerator.inspection(
                        new CardBasis(BELT, Set.of(), Set.of(), CardScope.of(Set.of("belt"))), 45))
                .hasMessageContaining("renews nothing");
        Bench bench = new Bench(plan(BELT))
                .enter(new CardEvent.Started(
                        1,
                        "",
                        "",
                        "",
                        Optional.of(new CardEvent.Fixed(Set.of(), Set.of("air conditioning"), Map.of()))));
        assertThat(bench.state.plan().bookMinutes()).isEqualTo(45);
        assertThat(bench.state.plan().isInspection()).isTrue();
    }
}
