package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.work.Operation;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Words of safety stand on the step whose work they belong to, and on no other. */
class SafetyWordsTest {

    private static List<Step> steps(String kind) {
        EngineFamily family = RoutedCardTest.family(kind);
        Set<String> all = family.items().stream()
                .map(Item::code)
                .filter(i -> !family.build().orElseThrow().things(i).isEmpty())
                .collect(Collectors.toSet());
        return CardGenerator.generate(family, Set.of(), all).steps();
    }

    private static boolean does(Step step, String operation) {
        return step.operations().stream().map(Operation::code).anyMatch(operation::equals);
    }

    // Common practice, no source: what a careful foreman says at that moment.
    @ParameterizedTest(name = "{0}, {1}: {2}")
    @CsvSource(delimiter = '|', textBlock = """
            e07 | safe:battery    | licensed practice come first
            e07 | set-in:support  | while the engine goes up or down
            e07 | out:support     | while the engine goes up or down
            e07 | take-off:mount  | Refrigerant stays closed
            e08 | tighten:arm:1   | No impact tool on guides
            e08 | take-off:tens   | may fly
            e08 | fit:rocker      | counted out before it closes
            e08 | turn:engine     | No oil pressure yet
            e08 | undo:inw        | fetch a helper
            e10 | tighten:tr:1    | No impact tool on guides
            e03 | release:belt    | can snap over as the tension goes
            """)
    void theWordsStandWhereTheWorkIs(String kind, String operation, String words) {
        List<Step> steps = steps(kind);

        assertThat(steps).anyMatch(s -> does(s, operation) && says(s, words));
        // whoever does nothing of the kind reads nothing of it
        assertThat(steps)
                .filteredOn(
                        s -> s.task() instanceof Task.Measure || s.gate().equals(java.util.Optional.of(GateKind.LABEL)))
                .noneMatch(s -> says(s, words));
    }

    private static boolean says(Step step, String words) {
        return step.caution().filter(c -> c.contains(words)).isPresent();
    }

    @Test
    void aBeltWithASpringTensionerSaysNothingOfOilPressureOrFlyingPlungers() {
        assertThat(steps("e01")).noneMatch(s -> says(s, "No oil pressure yet") || says(s, "may fly"));
    }

    @Test
    void everySentenceIsShortAndStandsOnceOnItsStep() {
        for (String kind : List.of("e01", "e07", "e08", "e09", "e10", "e12")) {
            assertThat(steps(kind))
                    .allSatisfy(s -> s.caution().ifPresent(c -> {
                        List<String> sentences = List.of(c.split("(?<=[.]) "));
                        assertThat(sentences)
                                .as(s.code())
                                .doesNotHaveDuplicates()
                                .hasSizeLessThan(6);
                        assertThat(sentences).allMatch(x -> x.length() < 110);
                    }));
        }
    }
}
