package knollfield.app.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.core.bundle.Bundle;
import knollfield.core.bundle.BundleLine;
import knollfield.core.bundle.BundleRules;
import knollfield.core.bundle.Labour;
import knollfield.core.clock.ClockStart;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;
import knollfield.core.jobcard.BookAnswer;
import knollfield.core.jobcard.CardEntry;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardGenerator;
import knollfield.core.jobcard.CardPlan;
import knollfield.core.jobcard.CardState;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Every family of the island can be built, and its card worked to a signature. */
class EveryFamilyTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);

    static Stream<EngineFamily> families() {
        return SkerrowFamilies.all().stream();
    }

    private static Bundle usual(EngineFamily family, Map<String, ClockStart> starts) {
        return BundleRules.bundle(
                family,
                new BundleRules.Vehicle(Set.of("air conditioning"), starts, List.of(), TODAY, 150_000),
                Set.of());
    }

    /** All but the one whose book says only how its tensioner is renewed: its chain cannot be put on a card. */
    static Stream<EngineFamily> workable() {
        return families().filter(f -> !f.code().equals(SkerrowFamilies.codeOf("e11")));
    }

    @ParameterizedTest
    @MethodSource("workable")
    void theCardIsWorkedToItsSignature(EngineFamily family) {
        CardPlan plan = CardGenerator.generate(
                family, Set.of("air conditioning"), usual(family, Map.of()).items());
        CardState state = enter(CardState.fresh(plan), new CardEvent.Started(150_000, ""));
        while (state.next().isPresent()) {
            state = enter(state, BookAnswer.to(state.next().get()));
        }
        state = enter(state, new CardEvent.Completed(""));

        assertThat(state.completedAt()).isPresent();
        assertThat(state.gates()).allMatch(g -> g.open() && g.overriddenWith().isEmpty());
        assertThat(plan.steps()).allSatisfy(s -> assertThat(s.title()).isNotBlank());
        assertThat(plan.bookMinutes()).isBetween(200, 600);
    }

    /** A book of the first format: whatever is renewed, no joint is opened and left. */
    @ParameterizedTest
    @MethodSource("families")
    void everyJointThatTheStepsOpenIsDoneUp(EngineFamily family) {
        if (family.build().isPresent()) {
            return;
        }
        for (Item item : family.items()) {
            CardPlan plan = CardGenerator.generate(family, Set.of(), Set.of(item.code()));
            Set<String> tight = plan.steps().stream()
                    .flatMap(s -> s.operations().stream())
                    .filter(o -> o.verb() == Verb.TIGHTEN)
                    .map(Operation::thing)
                    .collect(Collectors.toSet());
            assertThat(Labour.of(family, Set.of(), Set.of(item.code())).opened(family))
                    .as("%s renews %s", family.code(), item.name())
                    .allSatisfy(j -> assertThat(tight).contains(j.code()));
        }
    }

    @ParameterizedTest
    @MethodSource("families")
    void theBundleHasTheDriveItsTensionerAndOnePriceForEachPart(EngineFamily family) {
        Bundle bundle = usual(family, Map.of());

        assertThat(bundle.items()).contains(family.driveItem().code());
        assertThat(bundle.items())
                .anySatisfy(i -> assertThat(family.item(i).orElseThrow().kind()).isEqualTo(ItemKind.TENSIONER));
        assertThat(bundle.partsMinor())
                .isEqualTo(bundle.lines().stream()
                        .filter(BundleLine::included)
                        .flatMap(l -> l.parts().stream())
                        .mapToLong(p -> p.totalMinor())
                        .sum());
        assertThat(bundle.lines())
                .allSatisfy(l -> assertThat(l.reason().template()).isNotBlank());
    }

    @ParameterizedTest
    @MethodSource("families")
    void whatWasJustRenewedStaysOut(EngineFamily family) {
        Map<String, ClockStart> all = family.items().stream()
                .filter(i -> !i.kind().isTheDrive())
                .collect(java.util.stream.Collectors.toMap(
                        Item::code, i -> new ClockStart(TODAY.minusMonths(2), 149_000, ClockStart.Grade.DOCUMENTED)));
        boolean limited = family.driveItem().schedule().isPresent();
        Bundle bundle = usual(family, all);

        // a family without any limit cannot say what recent is
        if (limited) {
            assertThat(bundle.items())
                    .isSubsetOf(Stream.concat(family.driveItems().stream(), Stream.of("coolant"))
                            .toList());
        }
        assertThat(bundle.items()).contains(family.driveItem().code());
    }

    private static CardState enter(CardState state, CardEvent event) {
        return state.after(new CardEntry(state.seq() + 1, Instant.EPOCH, "Hedra Voss", false, event));
    }
}
