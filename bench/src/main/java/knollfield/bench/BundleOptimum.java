package knollfield.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import knollfield.core.bundle.Optimum;
import knollfield.core.bundle.Optimum.Candidate;
import knollfield.core.bundle.Optimum.Question;

/** How long the optimum of a bundle takes, beside pricing every subset of the same question one by one. */
public final class BundleOptimum {

    private static final int RUNS = 200;

    private BundleOptimum() {}

    /** @param args numbers of free candidates; 16 and 24 where none are given */
    public static void main(String[] args) {
        int[] sizes = args.length == 0
                ? new int[] {16, 24}
                : Arrays.stream(args).mapToInt(Integer::parseInt).toArray();
        for (int size : sizes) {
            Random random = new Random(size);
            double[] ours = new double[RUNS];
            for (int i = 0; i < 2 * RUNS; i++) {
                Question q = question(random, size);
                long start = System.nanoTime();
                Optimum.of(q);
                // the first half warms up
                ours[i % RUNS] = (System.nanoTime() - start) / 1e6;
            }
            Arrays.sort(ours);
            System.out.printf(
                    "%d candidates: median %.2f ms, slowest of %d %.2f ms%n",
                    size, ours[RUNS / 2], RUNS, ours[RUNS - 1]);
            if (size <= Optimum.ENUMERATED) {
                Question q = question(random, size);
                long start = System.nanoTime();
                long best = everySubset(q);
                double naive = (System.nanoTime() - start) / 1e6;
                System.out.printf(
                        "  every subset priced by itself: %.0f ms, the same optimum: %s; ratio ours to it %.4f%n",
                        naive, best == Optimum.of(q).cost(), ours[RUNS / 2] / naive);
            }
        }
    }

    private static long everySubset(Question q) {
        long best = Long.MAX_VALUE;
        for (int subset = 0; subset < 1 << q.candidates().size(); subset++) {
            Set<String> in = new HashSet<>();
            for (int c = 0; c < q.candidates().size(); c++) {
                if ((subset >> c & 1) == 1) {
                    in.add(q.candidates().get(c).code());
                }
            }
            best = Math.min(best, q.cost(in));
        }
        return best;
    }

    private static Question question(Random random, int candidates) {
        int shared = 20;
        List<Long> prices = new ArrayList<>();
        for (int i = 0; i < shared + candidates; i++) {
            prices.add(random.nextInt(20_000) * 60L);
        }
        List<Candidate> list = new ArrayList<>();
        for (int c = 0; c < candidates; c++) {
            Set<Integer> atoms = new HashSet<>(Set.of(shared + c));
            for (int s = 0; s < shared; s++) {
                if (random.nextInt(4) == 0) {
                    atoms.add(s);
                }
            }
            list.add(new Candidate("c" + c, atoms, random.nextInt(40_000) * 60L, random.nextBoolean()));
        }
        return new Question(prices, Set.of(0, 1, 2, 3, 4, 5), Set.of(), list);
    }
}
