package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.work.Operation;

/** What a card that was begun with one version of a book would ask for otherwise by a later one. */
public final class BookCorrection {

    /**
     * One difference.
     *
     * @param step code of the step on the card that was begun; empty for what it does not have
     * @param isFigure a figure that is measured or done up to
     */
    public record Difference(Optional<String> step, String words, boolean isFigure) {}

    private BookCorrection() {}

    /**
     * What {@code corrected} changes on {@code begun}, in working order; empty where nothing does. Both books are laid in
     * the layout of the card, so that only what the books say differs is told, and not how cards are laid by now.
     */
    public static List<Difference> of(CardPlan begun, EngineFamily corrected) {
        CardPlan then;
        try {
            then = laid(begun, begun.basis().family());
        } catch (CardNotProven e) {
            return List.of();
        }
        CardPlan now;
        try {
            now = laid(begun, corrected);
        } catch (CardNotProven e) {
            return List.of(
                    new Difference(Optional.empty(), "The corrected book gives no card: " + e.getMessage(), false));
        } catch (IllegalArgumentException e) {
            return List.of(new Difference(
                    Optional.empty(), "The corrected book does not have every item of this card any more.", false));
        }
        List<Difference> found = new ArrayList<>();
        Map<String, Step> before = figures(then);
        figures(now).forEach((code, step) -> {
            Step was = before.remove(code);
            if (was == null) {
                found.add(new Difference(
                        Optional.empty(), "The book asks for a figure more now: %s.".formatted(step.title()), true));
            } else if (!figure(was).equals(figure(step))) {
                found.add(new Difference(
                        on(begun, was),
                        "%s: %s on this card, %s in the book now.".formatted(was.title(), figure(was), figure(step)),
                        true));
            }
        });
        before.values()
                .forEach(was -> found.add(new Difference(
                        on(begun, was), "The book does not ask for it any more: %s.".formatted(was.title()), true)));
        found.addAll(operations(then, now));
        return found;
    }

    private static CardPlan laid(CardPlan begun, EngineFamily book) {
        CardBasis basis = begun.basis();
        return CardGenerator.laid(
                new CardBasis(book, basis.equipment(), basis.settledBefore(), basis.scope()),
                begun.layout(),
                Progress.none());
    }

    private static Optional<String> on(CardPlan begun, Step step) {
        return begun.step(step.code()).map(Step::code);
    }

    /** Steps that ask for a figure, by code. */
    private static Map<String, Step> figures(CardPlan plan) {
        Map<String, Step> figures = new LinkedHashMap<>();
        for (Step s : plan.steps()) {
            boolean figure = s.task() instanceof Task.Tighten
                    || s.task() instanceof Task.Measure
                    || s.task() instanceof Task.Passes
                    || s.task() instanceof Task.Count;
            if (figure) {
                figures.put(s.code(), s);
            }
        }
        return figures;
    }

    private static String figure(Step step) {
        if (step.task() instanceof Task.Tighten t) {
            return t.spec().map(CardSteps::words).orElse("no figure");
        }
        if (step.task() instanceof Task.Passes t) {
            return t.spec().map(CardSteps::words).orElse("no figure") + ", %d passes".formatted(t.passes());
        }
        if (step.task() instanceof Task.Count t) {
            return "%d %s".formatted(t.expected(), t.what());
        }
        if (step.task() instanceof Task.Measure m) {
            return m.isOpen() || m.kind() == Task.Measure.Kind.COOLANT_IN || m.kind() == Task.Measure.Kind.COOLANT_OUT
                    ? m.usual().map(u -> CardSteps.number(u) + " " + m.unit()).orElse("no figure")
                    : "%s to %s %s".formatted(CardSteps.number(m.low()), CardSteps.number(m.high()), m.unit());
        }
        throw new IllegalArgumentException(step.code() + " asks for no figure");
    }

    /** What is done on one card and not on the other; nothing for cards that do not say what their steps do. */
    private static List<Difference> operations(CardPlan then, CardPlan now) {
        List<Difference> found = new ArrayList<>();
        then.steps().stream()
                .filter(s -> s.operations().stream().anyMatch(o -> lacks(now, o)))
                .filter(s -> figures(then).get(s.code()) == null)
                .forEach(s -> found.add(new Difference(
                        Optional.of(s.code()),
                        "By the book now not all of this is done: %s.".formatted(s.title()),
                        false)));
        now.steps().stream()
                .filter(s -> s.operations().stream().anyMatch(o -> lacks(then, o)))
                .filter(s -> figures(now).get(s.code()) == null)
                .forEach(s -> found.add(new Difference(
                        Optional.empty(), "By the book now this is done too: %s.".formatted(s.title()), false)));
        return found;
    }

    private static boolean lacks(CardPlan plan, Operation o) {
        return plan.steps().stream().noneMatch(s -> s.operations().contains(o));
    }
}
