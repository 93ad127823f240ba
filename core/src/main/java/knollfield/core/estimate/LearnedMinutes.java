package knollfield.core.estimate;

import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.core.bundle.Labour;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.work.Verb;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardPlan;
import knollfield.core.jobcard.CardState;
import knollfield.core.jobcard.Step;
import knollfield.core.jobcard.WorkClock;

/**
 * How long this workshop takes for a piece of work of a family, against the book.
 *
 * <p>The minutes of one time a step is done are counted as Poisson with mean θ · book; θ begins as Gamma with shape and rate
 * both {@link #CREDIT_JOBS} · book, so that its mean is 1 and one slow job does not decide. The two are conjugate, and the
 * mean of θ after some jobs is (c · b + Σ actual) / (c · b + Σ book). Source: A. Gelman and others, Bayesian Data Analysis,
 * third edition, section 2.6 (Poisson model with exposure).
 */
public final class LearnedMinutes {

    /** Jobs by the book that a step is credited with at the start; planning assumption. */
    public static final int CREDIT_JOBS = 3;

    /** Share of the book time below which a card's clock says nothing; planning assumption. */
    private static final double LEAST_SHARE = 0.5;

    /** What is done to time the engine, with pins, marks and by turning: the book has it with belt or chain. */
    private static final Set<Verb> OF_THE_LOOP = EnumSet.of(
            Verb.SET_IN,
            Verb.OUT,
            Verb.FIND,
            Verb.MARK,
            Verb.RELEASE,
            Verb.LOOP_OFF,
            Verb.LAY,
            Verb.TENSION,
            Verb.TURN,
            Verb.BRING,
            Verb.BACK,
            Verb.CREEP,
            Verb.PROVE);

    private LearnedMinutes() {}

    /**
     * What is known of one step.
     *
     * @param jobs in which it was timed, zero or more
     * @param actualMinutes of those jobs together
     * @param factor of this workshop against the book, above zero; 1 where nothing is known
     */
    public record OfStep(AccessStep step, int jobs, double actualMinutes, double factor) {

        /** Minutes to be expected next time, rounded. */
        public int expectedMinutes() {
            return (int) Math.round(step.minutes() * factor);
        }
    }

    /**
     * One time a step was done.
     *
     * @param bookMinutes by the book the job was built on, above zero
     * @param actualMinutes above zero
     */
    public record Timed(int bookMinutes, double actualMinutes) {}

    /**
     * A signed job.
     *
     * @param timed by code of the access step
     */
    public record Past(Map<String, Timed> timed) {
        public Past {
            timed = Map.copyOf(timed);
        }
    }

    /** Each step of {@code family} that takes time by the book, in its order, learned from {@code past}. */
    public static List<OfStep> of(EngineFamily family, Collection<Past> past) {
        List<OfStep> all = new ArrayList<>();
        for (AccessStep step : family.accessSteps()) {
            if (step.minutes() > 0) {
                List<Timed> timed = past.stream()
                        .flatMap(p -> Optional.ofNullable(p.timed().get(step.code())).stream())
                        .toList();
                double actual = timed.stream().mapToDouble(Timed::actualMinutes).sum();
                int book = timed.stream().mapToInt(Timed::bookMinutes).sum();
                double credit = (double) CREDIT_JOBS * step.minutes();
                all.add(new OfStep(step, timed.size(), actual, (credit + actual) / (credit + book)));
            }
        }
        return all;
    }

    /**
     * Where the minutes of a signed card went. A step of the card counts for the access step of the part, loop or joint it
     * handles, and what times the engine for the belt or chain. What handles nothing, such as a look, is shared by all in
     * the proportion of their own minutes, so that a job that took exactly its book time teaches a factor of 1 on average.
     *
     * <p>Nothing is learned of a card typed in from paper, whose clock knows when it was typed, and of a job that took less
     * than half its book time, whose card was ticked afterwards.
     *
     * @param items codes of what it renewed
     * @param equipment what the vehicle has
     * @param stated minutes as told at the signature, where the card's own clock was not right; they stretch all steps alike
     */
    public static Past of(
            CardState card, Set<String> items, Set<String> equipment, WorkClock clock, Optional<Integer> stated) {
        EngineFamily family = card.plan().basis().family();
        Labour labour = Labour.of(family, equipment, items);
        double total = stated.map(Integer::doubleValue).orElse((double) clock.minutes());
        boolean fromPaper = !card.noted(CardEvent.FromPaper.class).isEmpty();
        if (fromPaper || clock.minutes() < 1 || total < labour.minutes() * LEAST_SHARE) {
            return new Past(Map.of());
        }
        Map<String, Integer> book = new LinkedHashMap<>();
        labour.steps().stream()
                .filter(s -> s.step().minutes() > 0)
                .forEach(s -> book.put(s.step().code(), s.step().minutes()));
        Map<String, Double> spent = spent(family, card.plan(), clock, book.keySet());
        double handled =
                spent.values().stream().mapToDouble(Double::doubleValue).sum();
        // what the book has for the steps that were timed is their part of the whole job
        double ofThem =
                spent.keySet().stream().mapToInt(a -> book.getOrDefault(a, 0)).sum() * total / labour.minutes();
        Map<String, Timed> timed = new LinkedHashMap<>();
        spent.forEach((a, m) -> timed.put(a, new Timed(book.getOrDefault(a, 0), ofThem * m / handled)));
        return new Past(timed);
    }

    /** Minutes by code of the access step that the steps of a card handle; only those above zero. */
    private static Map<String, Double> spent(EngineFamily family, CardPlan plan, WorkClock clock, Set<String> needed) {
        Map<String, String> accessOf = accessOfThings(family);
        List<String> way = family.driveItem().accessSteps();
        Optional<String> loop = way.isEmpty() ? Optional.empty() : Optional.of(way.get(way.size() - 1));
        Map<String, Double> spent = new LinkedHashMap<>();
        for (Step step : plan.steps()) {
            double minutes = clock.byStep().getOrDefault(step.code(), 0.0);
            Set<String> access = new HashSet<>();
            step.operations()
                    .forEach(o -> Optional.ofNullable(accessOf.get(o.thing()))
                            .or(() -> OF_THE_LOOP.contains(o.verb()) ? loop : Optional.empty())
                            .filter(needed::contains)
                            .ifPresent(access::add));
            access.forEach(a -> spent.merge(a, minutes / access.size(), Double::sum));
        }
        spent.values().removeIf(m -> m <= 0);
        return spent;
    }

    /** Code of the access step that handles a part, loop, fluid, joint or its fasteners, by its code. */
    private static Map<String, String> accessOfThings(EngineFamily family) {
        Map<String, String> all = new LinkedHashMap<>();
        Optional<Build> build = family.build();
        for (AccessStep step : family.accessSteps()) {
            all.putIfAbsent(step.code(), step.code());
            step.opens().forEach(j -> all.putIfAbsent(j, step.code()));
        }
        for (Item item : family.items()) {
            if (!item.accessSteps().isEmpty()) {
                String last = item.accessSteps().get(item.accessSteps().size() - 1);
                all.putIfAbsent(item.code(), last);
                build.stream()
                        .flatMap(b -> b.renews().stream())
                        .filter(r -> r.item().equals(item.code()))
                        .flatMap(r -> r.things().stream())
                        .forEach(t -> all.putIfAbsent(t, last));
            }
        }
        build.stream().flatMap(b -> b.joints().stream()).forEach(j -> {
            j.holds().stream()
                    .flatMap(h -> Optional.ofNullable(all.get(h)).stream())
                    .findFirst()
                    .ifPresent(a -> all.putIfAbsent(j.code(), a));
            j.fasteners().ifPresent(f -> Optional.ofNullable(all.get(j.code())).ifPresent(a -> all.putIfAbsent(f, a)));
        });
        return all;
    }
}
