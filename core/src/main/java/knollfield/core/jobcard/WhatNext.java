package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.dryrun.DryRun;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.work.Breach;
import knollfield.core.engine.work.Goal;
import knollfield.core.engine.work.Operation;

/**
 * A question of practice: so far the work is done, what comes next? Any family can be asked about, and the dry run answers;
 * the same seed asks the same question.
 */
public final class WhatNext {

    /** Answers to choose from, the right one among them. */
    private static final int CHOICES = 4;

    private final CardPlan plan;
    private final Goal goal;
    private final List<Step> moves;
    private final int at;
    private final List<Step> choices;

    private WhatNext(CardPlan plan, Goal goal, List<Step> moves, int at, List<Step> choices) {
        this.plan = plan;
        this.goal = goal;
        this.moves = moves;
        this.at = at;
        this.choices = choices;
    }

    /**
     * What an answer comes to.
     *
     * @param breaches what it would break, the nearest first; empty where it may be done now
     * @param may those of the choices that may be done now
     */
    public record Verdict(Step chosen, List<Breach> breaches, List<Step> may) {
        public Verdict {
            breaches = List.copyOf(breaches);
            may = List.copyOf(may);
        }

        public boolean right() {
            return breaches.isEmpty();
        }
    }

    /** The question that {@code seed} stands for; empty where the book gives no proven card of at least four moves. */
    public static Optional<WhatNext> of(EngineFamily book, long seed) {
        return BookProof.of(book).stream()
                .filter(p -> p.card().filter(c -> moves(c).size() >= CHOICES).isPresent())
                .findFirst()
                .map(p -> of(p, new Random(seed)));
    }

    private static WhatNext of(BookProof.Purpose purpose, Random random) {
        CardPlan plan = purpose.card().orElseThrow();
        List<Step> moves = moves(plan);
        int at = random.nextInt(moves.size() - CHOICES + 1);
        List<Step> later = new ArrayList<>(moves.subList(at + 1, moves.size()));
        Collections.shuffle(later, random);
        List<Step> choices = new ArrayList<>(later.subList(0, CHOICES - 1));
        choices.add(moves.get(at));
        Collections.shuffle(choices, random);
        EngineFamily family = plan.basis().family();
        Goal goal = new Goal(RoutedCard.goal(family, family.build().orElseThrow(), purpose.items()));
        return new WhatNext(plan, goal, moves, at, List.copyOf(choices));
    }

    /** Steps that hands do; what is only asked about the same operations is left out. */
    private static List<Step> moves(CardPlan plan) {
        Set<Operation> seen = new HashSet<>();
        return plan.steps().stream()
                .filter(s -> !s.operations().isEmpty() && seen.addAll(s.operations()))
                .toList();
    }

    /** What is done so far, in order. */
    public List<Step> done() {
        return moves.subList(0, at);
    }

    public List<Step> choices() {
        return choices;
    }

    /**
     * Judges an answer: it is done now, and all the rest after it in the order of the card.
     *
     * @return empty where {@code code} is none of the choices
     */
    public Optional<Verdict> answer(String code) {
        return choices.stream()
                .filter(s -> s.code().equals(code))
                .findFirst()
                .map(s -> new Verdict(
                        s,
                        breaches(s),
                        choices.stream().filter(c -> breaches(c).isEmpty()).toList()));
    }

    private List<Breach> breaches(Step chosen) {
        List<Operation> work = Stream.of(
                        done().stream(),
                        Stream.of(chosen),
                        moves.subList(at, moves.size()).stream().filter(s -> s != chosen))
                .flatMap(s -> s)
                .flatMap(s -> s.operations().stream())
                .distinct()
                .toList();
        return DryRun.prove(plan.anatomy(), goal, work).breaches();
    }
}
