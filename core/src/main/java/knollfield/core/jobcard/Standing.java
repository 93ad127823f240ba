package knollfield.core.jobcard;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import knollfield.core.engine.work.Operation;

/** What stays answered when a card is laid anew in the middle of the work: what is done stays done, but what is reopened. */
final class Standing {

    private final CardState state;
    private final CardPlan after;
    /** How each thing done was answered, on this card or for a step it no longer has. */
    private final Map<Operation, Answer> done;

    private Standing(CardState state, CardPlan after) {
        this.state = state;
        this.after = after;
        this.done = new HashMap<>(state.past());
        done.keySet().retainAll(Progress.standing(state.did()));
        state.plan().steps().forEach(s -> {
            Answer answer = state.answers().get(s.code());
            if (answer != null && answer.good()) {
                s.operations().forEach(o -> done.putIfAbsent(o, answer));
            }
        });
    }

    /** Answers that still stand on {@code after}, by step code. */
    static Map<String, Answer> on(CardState state, CardPlan after) {
        Map<String, Answer> kept = new Standing(state, after).kept();
        kept.keySet().removeAll(after.askedAgain());
        return kept;
    }

    /** What was done and stands on no step of {@code after}; it may come back with one. */
    static Map<Operation, Answer> past(CardState state, CardPlan after) {
        Map<Operation, Answer> past = new HashMap<>(new Standing(state, after).done);
        after.steps().stream()
                .filter(s -> !after.askedAgain().contains(s.code()))
                .forEach(s -> s.operations().forEach(past::remove));
        return past;
    }

    private Map<String, Answer> kept() {
        Map<String, Answer> kept = new LinkedHashMap<>();
        for (Step now : after.steps()) {
            Optional<Answer> same = Optional.ofNullable(state.answers().get(now.code()))
                    .filter(a -> state.plan()
                            .step(now.code())
                            .filter(s -> asksNoMore(s, now, a.good()))
                            .isPresent());
            same.or(() -> asItWas(now)).or(() -> doneElsewhere(now)).ifPresent(a -> kept.put(now.code(), a));
        }
        return kept;
    }

    /** The step asks for what it asked for before, or for less. */
    private boolean asksNoMore(Step was, Step now, boolean good) {
        boolean same = was.task().equals(now.task());
        boolean less = good
                && was.task() instanceof Task.Check b
                && now.task() instanceof Task.Check n
                && b.points().containsAll(n.points());
        boolean doesNoMore =
                after.layout() != CardPlan.Layout.ROUTED || was.operations().containsAll(now.operations());
        return (same || less) && doesNoMore;
    }

    /** What was to be done once more, and was not, stands as it was answered. */
    private Optional<Answer> asItWas(Step now) {
        boolean same = after.layout() == CardPlan.Layout.ROUTED
                && !now.operations().isEmpty()
                && state.plan()
                        .step(now.code())
                        .filter(s ->
                                s.task().equals(now.task()) && s.operations().containsAll(now.operations()))
                        .isPresent();
        return same ? Optional.ofNullable(done.get(now.operations().get(0))) : Optional.empty();
    }

    /** What was done in steps of another grouping, and asks for no figure that could be another one by now. */
    private Optional<Answer> doneElsewhere(Step now) {
        boolean figure = !(now.task() instanceof Task.Tick
                || now.task() instanceof Task.Confirm
                || now.task() instanceof Task.Check
                || now.task() instanceof Task.TrueMarks
                // counted before it was laid, which comes once
                || now.task() instanceof Task.MarkToMark);
        if (after.layout() != CardPlan.Layout.ROUTED || now.operations().isEmpty() || figure) {
            return Optional.empty();
        }
        List<Optional<Answer>> each = now.operations().stream()
                .map(o -> Optional.ofNullable(done.get(o)))
                .toList();
        return each.stream().allMatch(Optional::isPresent) ? each.get(0) : Optional.empty();
    }
}
