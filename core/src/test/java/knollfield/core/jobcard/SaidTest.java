package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.work.Breach;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Verb;
import knollfield.core.kinds.Kinds;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** A card that says too little is found, on a caution, on a figure and on a comparison. */
class SaidTest {

    static Stream<EngineFamily> families() {
        return Kinds.all().stream().map(k -> RoutedCardTest.family(k.code()));
    }

    @ParameterizedTest
    @MethodSource("families")
    void whatIsLeftUnsaidIsFound(EngineFamily family) {
        Anatomy book = new Anatomy(family.build().orElseThrow(), Set.of());
        List<String> items = family.items().stream()
                .map(i -> i.code())
                .filter(i -> !family.build().orElseThrow().things(i).isEmpty())
                .toList();
        List<Phase> phases =
                CardGenerator.generate(family, Set.of(), Set.copyOf(items)).phases();
        assertThat(Said.missing(book, phases)).isEmpty();

        List<Breach> figures = Said.missing(
                book,
                changed(
                        phases,
                        s -> s.task() instanceof Task.Tighten
                                ? with(s, s.caution(), new Task.Tick())
                                : s.operations().stream().anyMatch(o -> o.verb() == Verb.COMPARE)
                                        ? with(s, s.caution(), new Task.Tick())
                                        : s));
        assertThat(figures).isNotEmpty().allSatisfy(b -> assertThat(b.laws()).containsExactly(Law.SAID));

        List<Breach> cautions = Said.missing(book, changed(phases, s -> with(s, Optional.empty(), s.task())));
        assertThat(cautions.isEmpty()).isEqualTo(book.build().cautions().isEmpty());
    }

    private static Step with(Step s, Optional<String> caution, Task task) {
        return new Step(
                s.code(),
                s.title(),
                caution,
                s.notes(),
                task,
                s.gate(),
                s.provesTiming(),
                s.serves(),
                s.operations(),
                s.why(),
                s.after());
    }

    private static List<Phase> changed(List<Phase> phases, UnaryOperator<Step> change) {
        return phases.stream()
                .map(p -> new Phase(
                        p.code(), p.title(), p.steps().stream().map(change).toList()))
                .toList();
    }
}
