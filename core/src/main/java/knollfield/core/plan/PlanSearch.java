package knollfield.core.plan;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;

/**
 * Works out a plan: ruin and recreate (G. Schrimpf et al., "Record breaking optimization results using the ruin and recreate
 * principle", Journal of Computational Physics 159, 2000; strings of neighbours and blinks after J. Christiaens and
 * G. Vanden Berghe, "Slack induction by string removals for vehicle routing problems", Transportation Science 54, 2020),
 * accepted as in simulated annealing. The board stays feasible all the time, so every moment's best is a plan.
 *
 * <p>Two chains run beside each other and meet from time to time, where the worse goes on from the better one's plan. The
 * same case, start, seed and number of steps give the same plan; a limit in time does not repeat exactly.
 */
public final class PlanSearch {

    /** Times the chains meet in a run. */
    private static final int MEETINGS = 40;

    private static final int CHAINS = 2;

    /** Steps between two looks at the clock: a step takes some microseconds, the look itself a tenth of one. */
    private static final int STEPS_BETWEEN_LOOKS = 16;

    private PlanSearch() {}

    /** How long to search. */
    public sealed interface Budget {

        /**
         * So many steps of each chain; repeats exactly.
         *
         * @param perChain zero or more
         */
        record Steps(long perChain) implements Budget {}

        /** Until so much time has passed. */
        record Time(Duration limit) implements Budget {}
    }

    /**
     * How a run stands.
     *
     * @param done 0 to 1
     * @param steps of all chains so far
     */
    public record Progress(double done, long steps, PlanCost best) {}

    /** What came out, and how it compares with where the search began. */
    public record Result(Map<Long, Place> places, PlanCost cost, PlanCost before, long steps) {}

    /** A run without anybody who watches or stops it. */
    public static Result run(PlanCase plan, Map<Long, Place> from, long seed, Budget budget) {
        return run(plan, from, seed, budget, p -> {}, () -> false);
    }

    /**
     * Searches for a better plan than {@code from}.
     *
     * @param from places to begin with; those that break a rule are left out, and promised jobs are placed first
     * @param watch is told at the start and at every meeting
     * @param stop asked often; ends the run with the best so far
     */
    public static Result run(
            PlanCase plan,
            Map<Long, Place> from,
            long seed,
            Budget budget,
            Consumer<Progress> watch,
            BooleanSupplier stop) {
        long began = System.nanoTime();
        SplittableRandom seeds = new SplittableRandom(seed);
        Chain first = new Chain(Board.lawful(plan, from).tracks(), seeds.split());
        PlanCost before = first.tracks.parts();
        first.begin();
        List<Chain> chains = new ArrayList<>(List.of(first));
        while (chains.size() < CHAINS) {
            chains.add(new Chain(first, seeds.split()));
        }
        Tracks told = new Tracks(first.tracks);
        watch.accept(new Progress(0, 0, told.parts()));
        ExecutorService threads = Executors.newFixedThreadPool(CHAINS, task -> {
            Thread thread = new Thread(task, "plan-search");
            thread.setDaemon(true);
            return thread;
        });
        try {
            for (int meeting = 0; meeting < MEETINGS && !stop.getAsBoolean(); meeting++) {
                int next = meeting;
                List<Future<?>> running = new ArrayList<>();
                for (Chain chain : chains) {
                    running.add(threads.submit(() -> chain.run(budget, began, next, stop)));
                }
                for (Future<?> f : running) {
                    f.get();
                }
                meet(chains, meeting);
                best(chains).layBest(told);
                watch.accept(new Progress((meeting + 1.0) / MEETINGS, steps(chains), told.parts()));
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (ExecutionException e) {
            throw new IllegalStateException("the search for a plan failed", e.getCause());
        } finally {
            threads.shutdownNow();
        }
        best(chains).layBest(told);
        return new Result(told.places(), told.parts(), before, steps(chains));
    }

    private static long steps(List<Chain> chains) {
        return chains.stream().mapToLong(c -> c.steps).sum();
    }

    private static Chain best(List<Chain> chains) {
        Chain best = chains.get(0);
        for (Chain c : chains) {
            best = c.bestCost < best.bestCost ? c : best;
        }
        return best;
    }

    /** Every fourth time the worse chain goes on from the better one's present plan; between, both go their own ways. */
    private static void meet(List<Chain> chains, int meeting) {
        if (meeting % 4 != 3) {
            return;
        }
        Chain leader = chains.get(0);
        for (Chain c : chains) {
            leader = c.tracks.cost() < leader.tracks.cost() ? c : leader;
        }
        for (Chain c : chains) {
            if (c != leader) {
                c.takeOver(leader.tracks);
            }
        }
    }

    /** One search. */
    private static final class Chain {

        /** Share of a job's mean cost at which a step for the worse is still taken: at first, and in the end. */
        private static final double HOT = 0.35;

        private static final double COLD = 0.004;

        private static final int MOST_REMOVED = 14;
        private static final double BLINK = 0.02;

        /** Jobs without a place that a step tries to place, on average, besides those it has taken off. */
        private static final int OTHERS_TRIED = 2;

        final Tracks tracks;
        private final SplittableRandom random;
        private final int[] movable;
        private final int[] gone;
        private int goneCount;
        private final int[] absent;
        private int absentCount;
        private final boolean[] isGone;
        private final int[] oldTech;
        private final int[] oldBay;
        private final int[] oldStart;
        private final double[] key;
        private final int[] bestTech;
        private final int[] bestBay;
        private final int[] bestStart;
        private double heat;
        long bestCost;
        long steps;

        /** Goes on from where {@code other} stands, another way. */
        Chain(Chain other, SplittableRandom random) {
            this(new Tracks(other.tracks), random);
            heat = other.heat;
            remember();
        }

        Chain(Tracks tracks, SplittableRandom random) {
            this.random = random;
            this.tracks = tracks;
            int jobs = tracks.jobs;
            int[] free = new int[jobs];
            int count = 0;
            for (int j = 0; j < jobs; j++) {
                if (!tracks.fixed[j]) {
                    free[count++] = j;
                }
            }
            movable = Arrays.copyOf(free, count);
            gone = new int[jobs];
            absent = new int[jobs];
            isGone = new boolean[jobs];
            oldTech = new int[jobs];
            oldBay = new int[jobs];
            oldStart = new int[jobs];
            key = new double[jobs];
            bestTech = new int[jobs];
            bestBay = new int[jobs];
            bestStart = new int[jobs];
        }

        /** Gives every job without a place one, those first that lose most by waiting for the time they take. */
        void begin() {
            collectAbsent();
            for (int i = 0; i < absentCount; i++) {
                key[absent[i]] = order(absent[i], 1) - (isPromised(absent[i]) ? 1e12 : 0);
            }
            sortAbsent();
            insertAbsent(0);
            remember();
            heat = Math.max(1, tracks.cost() - promisesBroken() * Tracks.PROMISE_BROKEN)
                    / (double) Math.max(1, tracks.jobs);
        }

        private boolean isPromised(int j) {
            return tracks.unplanned[j] >= Tracks.PROMISE_BROKEN;
        }

        private long promisesBroken() {
            long broken = 0;
            for (int j : movable) {
                broken += isPromised(j) && !tracks.isPlaced(j) ? 1 : 0;
            }
            return broken;
        }

        /** Works through its share of the budget up to the next meeting. */
        void run(Budget budget, long began, int meeting, BooleanSupplier stop) {
            if (movable.length == 0) {
                return;
            }
            if (budget instanceof Budget.Steps s) {
                long until = s.perChain() * (meeting + 1) / MEETINGS;
                while (steps < until) {
                    step((double) steps / s.perChain());
                    if (steps % STEPS_BETWEEN_LOOKS == 0 && stop.getAsBoolean()) {
                        return;
                    }
                }
            } else if (budget instanceof Budget.Time t) {
                double limit = t.limit().toNanos();
                double until = (meeting + 1.0) / MEETINGS;
                double done = (System.nanoTime() - began) / limit;
                while (done < until) {
                    step(done);
                    if (steps % STEPS_BETWEEN_LOOKS == 0) {
                        done = (System.nanoTime() - began) / limit;
                        if (stop.getAsBoolean()) {
                            return;
                        }
                    }
                }
            }
        }

        private void step(double done) {
            long before = tracks.cost();
            goneCount = 0;
            ruin();
            for (int i = 0; i < goneCount; i++) {
                int j = gone[i];
                tracks.favoured[tracks.tech[j]] = true;
                oldTech[j] = tracks.tech[j];
                oldBay[j] = tracks.bay[j];
                oldStart[j] = tracks.start[j];
                tracks.remove(j);
            }
            collectSome();
            sortForInsertion();
            insertAbsent(BLINK);
            double temperature = heat * HOT * Math.pow(COLD / HOT, done);
            if (tracks.cost() < before - temperature * Math.log(random.nextDouble())) {
                if (tracks.cost() < bestCost) {
                    remember();
                }
            } else {
                putBack();
            }
            for (int i = 0; i < goneCount; i++) {
                isGone[gone[i]] = false;
            }
            Arrays.fill(tracks.favoured, false);
            steps++;
        }

        private void putBack() {
            for (int i = 0; i < absentCount; i++) {
                if (tracks.isPlaced(absent[i])) {
                    tracks.remove(absent[i]);
                }
            }
            for (int i = 0; i < goneCount; i++) {
                int j = gone[i];
                tracks.place(j, oldTech[j], oldBay[j], oldStart[j]);
            }
        }

        private void take(int j) {
            if (!isGone[j] && tracks.isPlaced(j) && !tracks.fixed[j]) {
                isGone[j] = true;
                gone[goneCount++] = j;
            }
        }

        /** Takes jobs off that stand in each other's way: near in time, of one technician, tool set or fleet. */
        private void ruin() {
            int most = Math.min(MOST_REMOVED, movable.length);
            int wanted = 1 + random.nextInt(most);
            int seed = movable[random.nextInt(movable.length)];
            int at = tracks.isPlaced(seed) ? tracks.start[seed] : anyStart();
            take(seed);
            double kind = random.nextDouble();
            if (kind < 0.65) {
                strings(at, wanted);
            } else if (kind < 0.85) {
                alike(seed, at, wanted);
            } else {
                for (int i = 0; i < 3 * wanted && goneCount < wanted; i++) {
                    take(movable[random.nextInt(movable.length)]);
                }
            }
        }

        private int anyStart() {
            int j = movable[random.nextInt(movable.length)];
            return tracks.isPlaced(j)
                    ? tracks.start[j]
                    : random.nextInt(tracks.plan.shop().ruler().slots());
        }

        /** A run of successive jobs around {@code at} from one technician after the other. */
        private void strings(int at, int wanted) {
            int techs = tracks.order.length;
            int first = random.nextInt(techs);
            int longest = 1 + random.nextInt(wanted);
            for (int i = 0; i < techs && goneCount < wanted; i++) {
                int t = (first + i) % techs;
                int size = tracks.orderSize[t];
                if (size == 0) {
                    continue;
                }
                int middle = 0;
                while (middle < size - 1 && tracks.end[tracks.order[t][middle]] <= at) {
                    middle++;
                }
                int length = 1 + random.nextInt(longest);
                int from = Math.max(0, middle - random.nextInt(length));
                for (int k = from; k < Math.min(size, from + length) && goneCount < wanted; k++) {
                    take(tracks.order[t][k]);
                }
            }
        }

        /** The jobs nearest in time that share the seed's tool set, or its fleet. */
        private void alike(int seed, int at, int wanted) {
            boolean byFleet = tracks.fleet[seed] >= 0 && random.nextBoolean();
            for (int i = 0; i < wanted && goneCount < wanted; i++) {
                int nearest = -1;
                int distance = Integer.MAX_VALUE;
                for (int j : movable) {
                    boolean same =
                            byFleet ? tracks.fleet[j] == tracks.fleet[seed] : tracks.toolSet[j] == tracks.toolSet[seed];
                    if (same && !isGone[j] && tracks.isPlaced(j)) {
                        // not always the very nearest
                        int d = Math.abs(tracks.start[j] - at) + random.nextInt(24);
                        if (d < distance) {
                            distance = d;
                            nearest = j;
                        }
                    }
                }
                if (nearest < 0) {
                    return;
                }
                take(nearest);
            }
        }

        /** Those just taken off, and some of those for whom there was no room before: all of them every time take long. */
        private void collectSome() {
            collectAbsent();
            int others = absentCount - goneCount;
            if (others <= OTHERS_TRIED) {
                return;
            }
            double chance = (double) OTHERS_TRIED / others;
            int kept = 0;
            for (int i = 0; i < absentCount; i++) {
                int j = absent[i];
                if (isGone[j] || isPromised(j) || random.nextDouble() < chance) {
                    absent[kept++] = j;
                }
            }
            absentCount = kept;
        }

        private void collectAbsent() {
            absentCount = 0;
            for (int j : movable) {
                if (!tracks.isPlaced(j)) {
                    absent[absentCount++] = j;
                }
            }
        }

        private void sortForInsertion() {
            int how = random.nextInt(10);
            for (int i = 0; i < absentCount; i++) {
                int j = absent[i];
                key[j] = order(j, how) - (isPromised(j) ? 1e12 : 0);
            }
            sortAbsent();
        }

        /** The smaller the sooner it is placed. */
        private double order(int j, int how) {
            PlanJob job = tracks.plan.jobs().get(j);
            switch (how) {
                case 0:
                case 1:
                case 2:
                    return -tracks.ratePerDay[j] / job.slots();
                case 3:
                case 4:
                    return -tracks.ratePerDay[j];
                case 5:
                    return -job.slots();
                case 6:
                    return job.waits().actBy();
                case 7:
                    return job.earliest();
                default:
                    return random.nextDouble();
            }
        }

        /** By insertion: the few jobs of a step, and nearly sorted where many have no place. */
        private void sortAbsent() {
            for (int i = 1; i < absentCount; i++) {
                int j = absent[i];
                double k = key[j];
                int at = i - 1;
                while (at >= 0 && key[absent[at]] > k) {
                    absent[at + 1] = absent[at];
                    at--;
                }
                absent[at + 1] = j;
            }
        }

        private void insertAbsent(double blink) {
            for (int i = 0; i < absentCount; i++) {
                int j = absent[i];
                if (tracks.find(j, tracks.unplanned[j], random, blink)) {
                    tracks.place(j, tracks.foundTech, tracks.foundBay, tracks.foundStart);
                }
            }
        }

        private void remember() {
            bestCost = tracks.cost();
            System.arraycopy(tracks.tech, 0, bestTech, 0, bestTech.length);
            System.arraycopy(tracks.bay, 0, bestBay, 0, bestBay.length);
            System.arraycopy(tracks.start, 0, bestStart, 0, bestStart.length);
        }

        void takeOver(Tracks other) {
            arrange(tracks, other.tech, other.bay, other.start);
            if (tracks.cost() < bestCost) {
                remember();
            }
        }

        /** Brings {@code board} to the best plan so far. */
        void layBest(Tracks board) {
            arrange(board, bestTech, bestBay, bestStart);
        }

        private void arrange(Tracks board, int[] techs, int[] bays, int[] starts) {
            for (int j : movable) {
                if (board.isPlaced(j)) {
                    board.remove(j);
                }
            }
            for (int j : movable) {
                if (techs[j] >= 0) {
                    board.place(j, techs[j], bays[j], starts[j]);
                }
            }
        }
    }
}
