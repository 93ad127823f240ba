package knollfield.core.route;

import java.util.ArrayList;
import java.util.List;
import knollfield.core.dryrun.DryRun;
import knollfield.core.dryrun.Verdict;
import knollfield.core.engine.BookFault;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.work.Goal;
import knollfield.core.kinds.RandomBooks;

/** Works out jobs on random books and runs them dry. */
public final class RandomRoutes {

    /** What became of so many books. */
    public record Tally(int proven, int refused, List<String> broken) {}

    private RandomRoutes() {}

    /** Seeds {@code from} to {@code from + count - 1}. */
    public static Tally of(long from, int count) {
        int proven = 0;
        int refused = 0;
        List<String> broken = new ArrayList<>();
        for (long seed = from; seed < from + count; seed++) {
            try {
                RandomBooks.Case c = RandomBooks.of(seed);
                Anatomy book = new Anatomy(c.book());
                Goal goal = new Goal(c.things());
                Verdict verdict =
                        DryRun.prove(book, goal, Router.lay(book, goal).operations());
                if (verdict.passes()) {
                    proven++;
                } else {
                    broken.add("seed %d %s: %s".formatted(seed, c.things(), verdict.breaches()));
                }
            } catch (Unroutable e) {
                if (e.circle().isEmpty()) {
                    broken.add("seed %d: refused without its place".formatted(seed));
                } else {
                    refused++;
                }
            } catch (BookFault.Broken e) {
                refused++;
            }
        }
        return new Tally(proven, refused, broken);
    }

    /** @param args how many */
    public static void main(String[] args) {
        Tally tally = of(1, args.length > 0 ? Integer.parseInt(args[0]) : 10_000);
        tally.broken().stream().limit(20).forEach(System.out::println);
        System.out.printf(
                "%d proven, %d refused with their place, %d broken%n",
                tally.proven(), tally.refused(), tally.broken().size());
    }
}
