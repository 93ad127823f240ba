package knollfield.core.bundle;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The cheapest set of candidates, exactly (rules.md section 5).
 *
 * <p>Work and parts are <i>atoms</i>, each with a price that is paid once however many candidates need it. A set S costs
 * the atoms of the required work and of S, the leaving price of every candidate left, and, for those left that fall due
 * before the next opening, the atoms of one later job that does them together.
 *
 * <p>All subsets are gone through, depth first with running sums; above {@value #ENUMERATED} candidates branches are cut
 * whose cheapest completion cannot beat the best found. Sums are whole numbers, so the optimum is exact.
 */
public final class Optimum {

    /** Up to so many candidates no branch is cut. */
    public static final int ENUMERATED = 16;

    /** As many as a family may have items. */
    public static final int MOST = 60;

    /**
     * A candidate.
     *
     * @param atoms what doing it takes, indices into the prices
     * @param leaving price of leaving it, beyond the later job; below zero where a part renewed later is the safer one
     * @param later true where, left, it is done in the later job
     */
    public record Candidate(String code, Set<Integer> atoms, long leaving, boolean later) {
        public Candidate {
            atoms = Set.copyOf(atoms);
        }
    }

    /**
     * The question.
     *
     * @param prices of the atoms, each zero or more; money in any whole unit
     * @param required atoms of the work that is done in any case
     * @param laterInAnyCase atoms of the later job that come with it in any case
     * @param candidates at most {@value #MOST}
     */
    public record Question(
            List<Long> prices, Set<Integer> required, Set<Integer> laterInAnyCase, List<Candidate> candidates) {
        public Question {
            prices = List.copyOf(prices);
            required = Set.copyOf(required);
            laterInAnyCase = Set.copyOf(laterInAnyCase);
            candidates = List.copyOf(candidates);
            if (candidates.size() > MOST) {
                throw new IllegalArgumentException(
                        "%d free candidates are more than one job has; at most %d".formatted(candidates.size(), MOST));
            }
            for (long price : prices) {
                if (price < 0) {
                    throw new IllegalArgumentException("a price must be zero or more, not " + price);
                }
            }
        }

        /** What the set {@code in} costs. */
        public long cost(Collection<String> in) {
            BitSet now = bits(required);
            BitSet then = bits(laterInAnyCase);
            long cost = 0;
            for (Candidate c : candidates) {
                if (in.contains(c.code())) {
                    c.atoms().forEach(now::set);
                } else {
                    cost += c.leaving();
                    if (c.later()) {
                        c.atoms().forEach(then::set);
                    }
                }
            }
            return cost + sum(now) + sum(then);
        }

        private long sum(BitSet atoms) {
            return atoms.stream().mapToLong(prices::get).sum();
        }

        private static BitSet bits(Set<Integer> atoms) {
            BitSet bits = new BitSet();
            atoms.forEach(bits::set);
            return bits;
        }
    }

    /** @param in codes of the candidates that are taken in */
    public record Answer(Set<String> in, long cost) {}

    private final Question question;
    private final int size;
    private final int words;
    private final long[] weights;
    private final long[][] masks;
    private final long[] cheapestFrom;
    private final boolean cut;
    private long best = Long.MAX_VALUE;
    private long bestIn;

    private Optimum(Question question) {
        this.question = question;
        this.size = question.candidates().size();
        this.cut = size > ENUMERATED;
        // atoms that the same candidates need are paid together: one atom of their sum
        Map<List<Integer>, Long> merged = new HashMap<>();
        for (int atom = 0; atom < question.prices().size(); atom++) {
            List<Integer> neededBy = new ArrayList<>();
            for (int c = 0; c < size; c++) {
                if (question.candidates().get(c).atoms().contains(atom)) {
                    neededBy.add(c);
                }
            }
            // paid now and paid later are told apart, because the required work may cover one and not the other
            neededBy.add(question.required().contains(atom) ? -1 : -2);
            neededBy.add(question.laterInAnyCase().contains(atom) ? -1 : -2);
            merged.merge(neededBy, question.prices().get(atom), Long::sum);
        }
        List<List<Integer>> kinds = new ArrayList<>(merged.keySet());
        this.words = (kinds.size() + 63) / 64;
        this.weights = new long[kinds.size()];
        this.masks = new long[size + 2][Math.max(1, words)];
        for (int kind = 0; kind < kinds.size(); kind++) {
            List<Integer> neededBy = kinds.get(kind);
            weights[kind] = merged.getOrDefault(neededBy, 0L);
            int last = neededBy.size() - 2;
            for (int i = 0; i < last; i++) {
                set(masks[neededBy.get(i)], kind);
            }
            if (neededBy.get(last) == -1) {
                set(masks[size], kind);
            }
            if (neededBy.get(last + 1) == -1) {
                set(masks[size + 1], kind);
            }
        }
        this.cheapestFrom = cheapestFrom();
    }

    /** The cheapest set; among equals the one with more in it. */
    public static Answer of(Question question) {
        return new Optimum(question).solve();
    }

    private Answer solve() {
        long base = weight(masks[size], new long[masks[size].length])
                + weight(masks[size + 1], new long[masks[size].length]);
        search(0, masks[size].clone(), masks[size + 1].clone(), base, 0);
        Set<String> in = new HashSet<>();
        for (int c = 0; c < size; c++) {
            if ((bestIn >> c & 1) == 1) {
                in.add(question.candidates().get(c).code());
            }
        }
        return new Answer(Set.copyOf(in), best);
    }

    private void search(int next, long[] now, long[] then, long cost, long in) {
        if (cut && cost + cheapestFrom[next] > best) {
            return;
        }
        if (next == size) {
            if (cost < best || (cost == best && Long.bitCount(in) > Long.bitCount(bestIn))) {
                best = cost;
                bestIn = in;
            }
            return;
        }
        Candidate c = question.candidates().get(next);
        search(next + 1, union(now, masks[next]), then, cost + weight(masks[next], now), in | 1L << next);
        if (c.later()) {
            search(next + 1, now, union(then, masks[next]), cost + c.leaving() + weight(masks[next], then), in);
        } else {
            search(next + 1, now, then, cost + c.leaving(), in);
        }
    }

    /** Least that candidates from an index on can cost: what each alone needs, or its leaving. */
    private long[] cheapestFrom() {
        long[] least = new long[size + 1];
        for (int c = size - 1; c >= 0; c--) {
            long[] others = masks[size].clone();
            long[] othersLater = masks[size + 1].clone();
            for (int o = 0; o < size; o++) {
                if (o != c) {
                    others = union(others, masks[o]);
                    othersLater = union(othersLater, masks[o]);
                }
            }
            Candidate candidate = question.candidates().get(c);
            long left = candidate.leaving() + (candidate.later() ? weight(masks[c], othersLater) : 0);
            least[c] = least[c + 1] + Math.min(weight(masks[c], others), left);
        }
        return least;
    }

    private long weight(long[] of, long[] paid) {
        long sum = 0;
        for (int w = 0; w < words; w++) {
            long open = of[w] & ~paid[w];
            while (open != 0) {
                sum += weights[(w << 6) + Long.numberOfTrailingZeros(open)];
                open &= open - 1;
            }
        }
        return sum;
    }

    private static long[] union(long[] a, long[] b) {
        long[] both = a.clone();
        for (int w = 0; w < both.length; w++) {
            both[w] |= b[w];
        }
        return both;
    }

    private static void set(long[] mask, int bit) {
        mask[bit >> 6] |= 1L << (bit & 63);
    }
}
