package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Set;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.units.TorqueUnit;

/** What a step is answered with where everything is as the book has it: for the demo's cards, and for tests. */
public final class BookAnswer {

    private BookAnswer() {}

    /**
     * The entry for {@code step}.
     *
     * @throws IllegalArgumentException for a critical joint whose torque is not on file
     */
    public static CardEvent to(Step step) {
        Task task = step.task();
        String code = step.code();
        if (task instanceof Task.Inspect t) {
            return new CardEvent.Inspected(code, t.results().get(0));
        } else if (task instanceof Task.Choose t) {
            return new CardEvent.Chosen(code, t.options().get(0).code(), "");
        } else if (task instanceof Task.Count t) {
            return new CardEvent.Counted(code, t.expected());
        } else if (task instanceof Task.Check) {
            return new CardEvent.Checked(code, Set.of());
        } else if (task instanceof Task.Measure t) {
            return new CardEvent.Measured(code, t.usual().orElse(t.isOpen() ? t.low() : (t.low() + t.high()) / 2));
        } else if (task instanceof Task.Runs t) {
            return runs(code, t);
        } else if (task instanceof Task.MarkToMark t) {
            return fromMarkToMark(code, t);
        } else if (task instanceof Task.Passes) {
            return new CardEvent.Passed(code);
        } else if (task instanceof Task.Tighten t) {
            TorqueSpec spec =
                    t.spec().orElseThrow(() -> new IllegalArgumentException("no torque on file for " + t.joint()));
            return new CardEvent.TorqueEntered(
                    code, spec.torque().newtonMetres(), TorqueUnit.NEWTON_METRE, spec.angleDegrees(), false);
        } else if (task instanceof Task.Turn) {
            return new CardEvent.Turned(code);
        } else if (task instanceof Task.TrueMarks) {
            return new CardEvent.MarksRead(code, Set.of());
        }
        return new CardEvent.Ticked(code);
    }

    /** An even share from mark to mark, the rest in the last span. */
    private static CardEvent fromMarkToMark(String code, Task.MarkToMark task) {
        int spans = task.spans().size();
        int each = task.total() / spans;
        List<Integer> counts = new ArrayList<>(Collections.nCopies(spans - 1, each));
        counts.add(task.total() - each * (spans - 1));
        CardEvent.Twice twice = new CardEvent.Twice(counts, counts);
        return new CardEvent.MarksCounted(code, twice, twice);
    }

    /** An even share of the teeth on every run, the rest on the wheels. */
    private static CardEvent runs(String code, Task.Runs task) {
        int each = task.total() / (2 * task.runs().size());
        List<Integer> counts = Collections.nCopies(task.runs().size(), each);
        return new CardEvent.RunsCounted(
                code, counts, counts, task.total() - each * task.runs().size());
    }
}
