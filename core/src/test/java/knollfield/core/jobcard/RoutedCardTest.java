package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.clock.Limit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.RepairEstimate;
import knollfield.core.engine.Schedule;
import knollfield.core.engine.work.Operation;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.KindFamily;
import knollfield.core.kinds.Kinds;
import knollfield.core.route.Router;
import knollfield.core.units.DistanceUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Cards that are worked out from how an engine is built. */
class RoutedCardTest {

    private static final Instant MORNING = Instant.parse("2026-11-27T08:00:00Z");

    static Stream<Kind> kinds() {
        return Kinds.all().stream();
    }

    static EngineFamily family(String kind) {
        return family(Kinds.kind(kind).orElseThrow());
    }

    private static EngineFamily family(Kind kind) {
        return KindFamily.of(
                kind,
                "T-" + kind.code(),
                "Tested " + kind.code(),
                Interference.YES,
                Optional.of(new Schedule(Limit.of(120_000, 72), Optional.empty(), "the test's own", DistanceUnit.KM)),
                new RepairEstimate(100, 200, 300),
                6_000);
    }

    private static Set<String> everything(EngineFamily family) {
        Set<String> items = new HashSet<>();
        family.items().stream()
                .map(i -> i.code())
                .filter(i -> !family.build().orElseThrow().things(i).isEmpty())
                .forEach(items::add);
        return items;
    }

    private static CardPlan card(String kind, String... items) {
        return CardGenerator.generate(family(kind), Set.of(), Set.of(items));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("kinds")
    void everyOperationOfTheLineStandsOnTheCardOnceAndInItsOrder(Kind kind) {
        EngineFamily family = family(kind);
        Set<String> items = everything(family);
        CardPlan plan = CardGenerator.generate(family, Set.of(), items);
        List<Operation> onCard = plan.steps().stream()
                .flatMap(s -> s.operations().stream())
                .distinct()
                .toList();
        var book = new knollfield.core.engine.build.Anatomy(family.build().orElseThrow(), Set.of());
        Set<String> things = RoutedCard.goal(family, family.build().orElseThrow(), items);
        assertThat(onCard)
                .isEqualTo(Router.lay(book, new knollfield.core.engine.work.Goal(things))
                        .operations());
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("kinds")
    void aCardIsWorkedFromCheckInToSignature(Kind kind) {
        EngineFamily family = family(kind);
        CardState signed = worked(CardGenerator.generate(family, Set.of(), everything(family)));
        assertThat(signed.signature()).isPresent();
        assertThat(signed.gates())
                .allSatisfy(g -> assertThat(g.open()).as(g.kind().words()).isTrue());
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("kinds")
    void nothingBehindAGateIsTakenWhileItIsShut(Kind kind) {
        EngineFamily family = family(kind);
        CardPlan plan = CardGenerator.generate(family, Set.of(), everything(family));
        CardState begun = started(plan);
        Step gate = plan.steps().stream()
                .filter(s -> s.gate().isPresent())
                .findFirst()
                .orElseThrow();
        Step behind = plan.steps().stream()
                .filter(s -> plan.position(s) > plan.position(gate))
                .filter(s -> !s.gate().equals(gate.gate()))
                .findFirst()
                .orElseThrow();
        assertThatThrownBy(() -> answer(begun, behind))
                .isInstanceOfSatisfying(
                        CardRefused.class, e -> assertThat(e.kind()).isEqualTo(CardRefused.Kind.GATE_SHUT));
    }

    @Test
    void aPlainBeltJobTakesAtMostFortyTouches() {
        assertThat(touches(card("e01", "belt", "tens"))).isLessThanOrEqualTo(40);
        assertThat(touches(card("e12", "belt", "tens"))).isLessThanOrEqualTo(40);
    }

    /** One for each run of plain steps of a phase and one for each other step; check-in and signature beside. */
    private static int touches(CardPlan plan) {
        int touches = 2;
        for (Phase phase : plan.phases()) {
            boolean ticking = false;
            for (Step s : phase.steps()) {
                boolean plain = s.task() instanceof Task.Tick;
                touches += plain && ticking ? 0 : 1;
                ticking = plain;
            }
        }
        return touches;
    }

    @Test
    void everyTorqueShowsBothUnitsPeopleRead() {
        // Source: NIST SP 811: 1 lbf·ft = 1.3558179483314004 N·m, so 120 N·m are 88.5 lb·ft and 10 N·m 88.5 lb·in
        assertThat(notes(card("e02", "belt", "crankbolt"))).anyMatch(n -> n.contains("120 N·m (89 lb·ft)"));
        assertThat(notes(card("e04", "pumpf"))).anyMatch(n -> n.contains("10 N·m (89 lb·in)"));
    }

    @Test
    void aCautionOfTheBookStandsOnEveryStepThatTouchesItsThing() {
        EngineFamily family = family("e03");
        var build = family.build().orElseThrow();
        assertThat(build.cautions()).isNotEmpty().allSatisfy(c -> {
            List<Step> touching = CardGenerator.generate(family, Set.of(), everything(family)).steps().stream()
                    .filter(s -> s.operations().stream()
                            .anyMatch(o -> o.thing().equals(c.thing())
                                    || build.joints().stream()
                                            .anyMatch(j -> j.code().equals(o.thing())
                                                    && j.holds().contains(c.thing()))))
                    .toList();
            assertThat(touching)
                    .hasSizeGreaterThan(1)
                    .allSatisfy(s -> assertThat(s.caution()).get().asString().contains(c.words()));
        });
    }

    private static List<String> notes(CardPlan plan) {
        return plan.steps().stream().flatMap(s -> s.notes().stream()).toList();
    }

    @Test
    void whatTheBookSaysNothingOfIsNotPutOnACard() {
        assertThatThrownBy(() -> card("e11", "drive"))
                .isInstanceOf(CardNotProven.class)
                .hasMessageContaining("does not say what renewing timing chain takes");
    }

    @Test
    void aReferenceNotTrueAfterTheTurnsSendsTheCardBackToLaying() {
        CardState state = started(card("e06", "belt", "tens"));
        while (!(state.next().orElseThrow().task() instanceof Task.TrueMarks)
                || state.next()
                        .orElseThrow()
                        .gate()
                        .filter(g -> g == GateKind.REFERENCES_TRUE)
                        .isEmpty()) {
            state = answer(state, state.next().orElseThrow());
        }
        Step prove = state.next().orElseThrow();
        String mark = ((Task.TrueMarks) prove.task()).references().get(0);
        CardState back = after(state, new CardEvent.MarksRead(prove.code(), Set.of(mark)));
        assertThat(back.attempt()).isEqualTo(2);
        assertThat(back.plan().askedAgain()).contains("loop-off:belt", "lay:belt", "turn:engine.1");
        assertThat(back.plan().phases())
                .filteredOn(p -> p.title().equals("Correction"))
                .isNotEmpty();
        assertThat(back.plan().steps().stream().map(Step::code))
                .containsSubsequence("loop-off:belt", "camsin", "lay:belt", "turn:engine.1");
        assertThat(finished(back).signature()).isPresent();
    }

    /** The bank that did not prove comes off, is set and laid at its own position; the other stays, and is proven anew. */
    @Test
    void aCorrectionTakesTheBankThatDidNotProveAndNoOther() {
        EngineFamily family = family("e09");
        CardState state = started(CardGenerator.generate(family, Set.of(), everything(family)));
        while (!state.next().orElseThrow().provesReferences()) {
            state = answer(state, state.next().orElseThrow());
        }
        Step prove = state.next().orElseThrow();
        String mark = ((Task.TrueMarks) prove.task()).references().get(0);
        CardState back = after(state, new CardEvent.MarksRead(prove.code(), Set.of(mark)));

        List<Operation> again = new ArrayList<>();
        while (back.next().isPresent()) {
            Step next = back.next().get();
            again.addAll(next.operations());
            back = answer(back, next);
        }
        assertThat(again)
                .extracting(Operation::code)
                .containsSubsequence("loop-off:a", "turn:cai", "bring:a:2", "lay:a", "turn:engine", "prove:a1")
                .containsSubsequence("prove:a1", "bring:b:2", "prove:b1")
                .doesNotContain("loop-off:b", "lay:b", "fit:gb");
    }

    @Test
    void aYieldBoltUndoneForACorrectionIsNewOnceMore() {
        CardState state = started(card("e02", "belt"));
        while (!state.next().orElseThrow().provesReferences()) {
            state = answer(state, state.next().orElseThrow());
        }
        CardState back =
                after(state, new CardEvent.MarksRead(state.next().orElseThrow().code(), Set.of("cam pin")));
        assertThat(back.plan().steps().stream().map(Step::code))
                .containsSubsequence("scratchpins", "lay:belt", "tighten:crank:1");
        Step bolt = back.plan().steps().stream()
                .filter(s -> s.gate().filter(g -> g == GateKind.ONE_TIME_AGAIN).isPresent())
                .findFirst()
                .orElseThrow();
        CardState upTo = back;
        while (!upTo.next().orElseThrow().equals(bolt)) {
            upTo = answer(upTo, upTo.next().orElseThrow());
        }
        CardState old = after(upTo, new CardEvent.Checked(bolt.code(), Set.of("crank bolt")));
        Step lay = old.plan().step("lay:belt").orElseThrow();
        assertThatThrownBy(() -> answer(old, lay))
                .isInstanceOfSatisfying(
                        CardRefused.class, e -> assertThat(e.gate()).contains(GateKind.ONE_TIME_AGAIN));
        assertThat(finished(back).signature()).isPresent();
    }

    @Test
    void foundOutOfTimeTheMarksAreSetOnceTheBeltIsOffAndNothingIsCranked() {
        CardState state = started(card("e01", "belt", "tens"));
        while (state.next()
                .orElseThrow()
                .gate()
                .filter(g -> g == GateKind.REFERENCE_FOUND)
                .isEmpty()) {
            state = answer(state, state.next().orElseThrow());
        }
        CardState scratch = after(state, new CardEvent.OutOfTime("jumped"));
        List<String> codes = scratch.plan().steps().stream().map(Step::code).toList();
        assertThat(codes).containsSubsequence("safepos", "camsin", "marksin", "lay:belt");
        assertThat(codes).noneMatch(c -> c.startsWith("check:compression"));
        assertThat(codes.indexOf("release:belt")).isLessThan(codes.indexOf("safepos"));
        assertThat(finished(scratch).signature()).isPresent();
    }

    @Test
    void aTorqueSettledByAVariantStandsOnTheCard() {
        EngineFamily family = family("e02");
        var spec = new knollfield.core.engine.TorqueSpec(
                new knollfield.core.units.Torque(60), OptionalInt.of(120), "the test's own");
        EngineFamily changed = family.with(family.build().orElseThrow().with(java.util.Map.of("crank", spec)));
        Task.Tighten task = CardGenerator.generate(changed, Set.of(), Set.of("belt")).steps().stream()
                .map(Step::task)
                .filter(Task.Tighten.class::isInstance)
                .map(Task.Tighten.class::cast)
                .filter(t -> t.jointCode().equals("crank"))
                .findFirst()
                .orElseThrow();
        assertThat(task.spec().orElseThrow().torque().newtonMetres()).isEqualTo(60);
        assertThat(task.spec().orElseThrow().angleDegrees()).hasValue(120);
    }

    // --- working a card

    static CardState worked(CardPlan plan) {
        return finished(started(plan));
    }

    private static CardState started(CardPlan plan) {
        return after(CardState.fresh(plan), new CardEvent.Started(90_000, ""));
    }

    private static CardState finished(CardState from) {
        CardState state = from;
        List<String> stuck = new ArrayList<>();
        while (state.next().isPresent()) {
            Step next = state.next().get();
            assertThat(stuck.size()).as("stuck at %s", next.code()).isLessThan(400);
            stuck.add(next.code());
            state = answer(state, next);
        }
        return after(state, new CardEvent.Completed("done"));
    }

    private static CardState answer(CardState state, Step step) {
        return after(state, BookAnswer.to(step));
    }

    private static CardState after(CardState state, CardEvent event) {
        return state.after(new CardEntry(state.seq() + 1, MORNING.plusSeconds(state.seq() * 60), "Wenna", true, event));
    }
}
