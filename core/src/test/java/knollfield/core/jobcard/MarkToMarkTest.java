package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.core.engine.work.Verb;
import knollfield.core.jobcard.CardEvent.MarksCounted;
import knollfield.core.jobcard.CardEvent.Twice;
import knollfield.core.kinds.Kinds;
import org.junit.jupiter.api.Test;

/** Marks that go over to the new loop by count, and what else goes over from old to new. */
class MarkToMarkTest {

    /** The kind whose cams are timed by the workshop's own paint. */
    private static CardPlan painted() {
        return Kinds.all().stream()
                .map(k -> RoutedCardTest.family(k.code()))
                .map(f -> CardGenerator.generate(
                        f, Set.of(), f.items().stream().map(i -> i.code()).collect(Collectors.toSet())))
                .filter(p -> counted(p).findAny().isPresent())
                .findFirst()
                .orElseThrow();
    }

    private static Stream<Step> counted(CardPlan plan) {
        return plan.steps().stream().filter(s -> s.task() instanceof Task.MarkToMark);
    }

    private static Bench atTheCount() {
        CardPlan plan = painted();
        return new Bench(plan)
                .started()
                .until(counted(plan).findFirst().orElseThrow().code());
    }

    private static String said(Bench bench, List<Integer> old, List<Integer> oldAgain, List<Integer> now) {
        String step = bench.state.next().orElseThrow().code();
        bench.enter(new MarksCounted(step, new Twice(old, oldAgain), new Twice(now, now)));
        return bench.state.answers().get(step).words();
    }

    @Test
    void theNewOneIsMarkedByCountRightRoundBeforeItIsLaid() {
        CardPlan plan = painted();
        Step step = counted(plan).findFirst().orElseThrow();
        Task.MarkToMark task = (Task.MarkToMark) step.task();
        // From memory: one belt over two banks, so that it runs over the crank's wheel and four cam wheels
        assertThat(task.spans()).hasSize(5);
        assertThat(task.spans().get(0)).startsWith("Crank");
        assertThat(task.spans().get(4)).endsWith("to crank wheel");
        assertThat(task.total()).isEqualTo(211);
        assertThat(plan.steps().stream()
                        .filter(s -> s.operations().stream().anyMatch(o -> o.verb() == Verb.LAY))
                        .allMatch(s -> plan.position(s) > plan.position(step)))
                .isTrue();
    }

    @Test
    void whatIsCountedDifferentlyTheSecondTimeHoldsTheCardWithItsSpan() {
        Bench bench = atTheCount();
        String step = bench.state.next().orElseThrow().code();
        List<Integer> right = List.of(60, 30, 31, 30, 60);

        assertThat(said(bench, right, List.of(60, 31, 31, 30, 60), right))
                .endsWith(", old: 30 the first time, then 31")
                .doesNotContain(";");
        assertThat(bench.state.next().orElseThrow().code()).isEqualTo(step);

        assertThat(said(bench, right, right, List.of(60, 30, 30, 31, 60)))
                .contains(": 30 on the new, 31 on the old")
                .contains(": 31 on the new, 30 on the old")
                .doesNotContain("add up");
        assertThat(said(bench, List.of(60, 30, 31, 30, 59), List.of(60, 30, 31, 30, 59), List.of(60, 30, 31, 30, 59)))
                .isEqualTo("they add up to 210, it has 211");
        assertThat(bench.state.next().orElseThrow().code()).isEqualTo(step);

        assertThat(said(bench, right, right, right))
                .isEqualTo("60 + 30 + 31 + 30 + 60, together 211 teeth, old and new, each twice");
        assertThat(bench.state.next().orElseThrow().code()).isNotEqualTo(step);
    }

    @Test
    void aCountOfAnotherNumberOfSpansIsNoAnswer() {
        Bench bench = atTheCount();
        String step = bench.state.next().orElseThrow().code();
        Twice once = new Twice(List.of(211), List.of(211));
        assertThat(bench.refused(new MarksCounted(step, once, once)).kind()).isEqualTo(CardRefused.Kind.WRONG_ANSWER);
        Twice none = new Twice(List.of(0, 61, 60, 30, 60), List.of(0, 61, 60, 30, 60));
        assertThat(bench.refused(new MarksCounted(step, none, none)).kind()).isEqualTo(CardRefused.Kind.WRONG_ANSWER);
    }

    @Test
    void aSmallPartGoesOverWithItsPlaceItsFaceAndThePartItGoesOnWith() {
        CardPlan plan = Kinds.all().stream()
                .map(k -> RoutedCardTest.family(k.code()))
                .filter(f -> f.build().orElseThrow().assemblies().stream()
                        .anyMatch(a -> !a.moveOver().isEmpty()))
                .map(f -> CardGenerator.generate(
                        f, Set.of(), f.items().stream().map(i -> i.code()).collect(Collectors.toSet())))
                .findFirst()
                .orElseThrow();
        Step over = plan.steps().stream()
                .filter(s -> s.title().startsWith("Small parts moved over"))
                .findFirst()
                .orElseThrow();
        assertThat(over.notes())
                .contains("Washer: under the tensioner's arm, chamfer to the arm. Goes on with: tensioner.");
        // and once more where it goes on, which may be a day later
        assertThat(plan.steps().stream()
                        .filter(s -> s.operations().stream().anyMatch(o -> o.verb() == Verb.FIT))
                        .flatMap(s -> s.notes().stream()))
                .contains("Washer: under the tensioner's arm, chamfer to the arm.");
    }
}
