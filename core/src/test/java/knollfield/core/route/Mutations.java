package knollfield.core.route;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import knollfield.core.dryrun.DryRun;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.work.Goal;
import knollfield.core.engine.work.Operation;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.Kinds;

/** Proven cards with one fault each: an operation left out, or two swapped that an arrow binds. */
public final class Mutations {

    /**
     * How many faults there were and which the dry run let pass.
     *
     * @param passed those let pass, with how often
     */
    public record Tally(int leftOut, int swapped, Map<String, Integer> passed) {

        public int letPass() {
            return passed.values().stream().mapToInt(Integer::intValue).sum();
        }
    }

    private Mutations() {}

    /** Every single item and the whole of each kind. */
    public static List<Set<String>> jobs(Build build) {
        List<Set<String>> jobs = new ArrayList<>();
        Set<String> whole = new LinkedHashSet<>();
        for (Build.Renews r : build.renews()) {
            jobs.add(new LinkedHashSet<>(r.things()));
            whole.addAll(r.things());
        }
        jobs.add(whole);
        return jobs;
    }

    public static Tally all() {
        int leftOut = 0;
        int swapped = 0;
        Map<String, Integer> passed = new LinkedHashMap<>();
        for (Kind kind : Kinds.all()) {
            Anatomy book = new Anatomy(kind.build());
            for (Set<String> job : jobs(kind.build())) {
                Goal goal = new Goal(job);
                Line line = Router.lay(book, goal);
                List<Operation> card = line.operations();
                for (Operation o : card) {
                    List<Operation> without = new ArrayList<>(card);
                    without.remove(o);
                    leftOut++;
                    if (DryRun.prove(book, goal, without).passes()) {
                        passed.merge("%s without %s".formatted(kind.code(), o), 1, Integer::sum);
                    }
                }
                for (Arrow a : line.arrows()) {
                    List<Operation> other = new ArrayList<>(card);
                    other.remove(a.then());
                    other.add(other.indexOf(a.first()), a.then());
                    swapped++;
                    if (DryRun.prove(book, goal, other).passes()) {
                        passed.merge(
                                "%s %s before %s: %s".formatted(kind.code(), a.then(), a.first(), a.words()),
                                1,
                                Integer::sum);
                    }
                }
            }
        }
        return new Tally(leftOut, swapped, passed);
    }

    /** @param args none */
    public static void main(String[] args) {
        Tally tally = all();
        tally.passed().forEach((what, times) -> System.out.printf("let pass %d times: %s%n", times, what));
        int faults = tally.leftOut() + tally.swapped();
        System.out.printf(
                "%d left out, %d swapped, %.2f %% caught%n",
                tally.leftOut(), tally.swapped(), 100.0 * (faults - tally.letPass()) / faults);
    }
}
