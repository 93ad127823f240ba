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
 * <p>Two chains run beside each other and meet from time to time. On a long board each has its own days between two meetings,
 * cut at another morning each time, and at the meeting what both have found is one plan: nothing but a change of tool set
 * crosses a night that no job stands over. On a short one both have the whole board, and the worse goes on from the better
 * one's plan. The same case, start, seed and number of steps give the same plan; a limit in time does not repeat exactly.
 */
public final class PlanSearch {

    /** Times the chains meet in a run. */
    private static final int MEETINGS = 40;

    private static final int CHAINS = 2;

    /** From so many jobs on the board is divided. */
    private static final int CUT_FROM = 100;

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
        Tracks board = new Tracks(first.tracks);
        Plan best = Plan.of(board);
        PlanCost told = board.parts();
        watch.accept(new Progress(0, 0, told));
        ExecutorService threads = Executors.newFixedThreadPool(CHAINS, task -> {
            Thread thread = new Thread(task, "plan-search");
            thread.setDaemon(true);
            return thread;
        });
        try {
            for (int meeting = 0; meeting < MEETINGS && !stop.getAsBoolean(); meeting++) {
                int next = meeting;
                boolean apart = divide(chains, board, seeds);
                List<Future<?>> running = new ArrayList<>();
                for (Chain chain : chains) {
                    running.add(threads.submit(() -> chain.run(budget, began, next, stop)));
                }
                for (Future<?> f : running) {
                    f.get();
                }
                for (int c = 0; c < CHAINS; c++) {
                    chains.get(c).layBest(board);
                    boolean whole = !apart || c == CHAINS - 1;
                    if (whole && board.cost() < best.cost()) {
                        best = Plan.of(board);
                        told = board.parts();
                    }
                }
                (apart ? chains : List.of(leader(chains))).forEach(c -> c.layPresent(board));
                if (!apart && meeting % 4 == 3) {
                    chains.forEach(c -> c.takeOver(board));
                }
                watch.accept(new Progress((meeting + 1.0) / MEETINGS, steps(chains), told));
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (ExecutionException e) {
            throw new IllegalStateException("the search for a plan failed", e.getCause());
        } finally {
            threads.shutdownNow();
        }
        best.lay(board, first.movable, first.movable.length);
        return new Result(board.places(), board.parts(), before, steps(chains));
    }

    /** Gives each chain its own part of a long board's days; false where both have all of them. */
    private static boolean divide(List<Chain> chains, Tracks board, SplittableRandom random) {
        if (chains.get(0).movable.length < CUT_FROM) {
            return false;
        }
        chains.forEach(c -> c.takeOver(board));
        int cut = board.dayAtShare(0.3 + 0.4 * random.nextDouble());
        if (cut == 0 || cut >= board.slots()) {
            chains.forEach(Chain::ownAll);
            return false;
        }
        boolean[] late = new boolean[board.jobs];
        for (int j = 0; j < late.length; j++) {
            boolean either = board.canStart(j, 0, cut) && board.canStart(j, cut, board.slots());
            late[j] = either ? random.nextBoolean() : board.canStart(j, cut, board.slots());
        }
        chains.get(0).own(0, cut, late, false);
        chains.get(1).own(cut, board.slots(), late, true);
        return true;
    }

    private static long steps(List<Chain> chains) {
        return chains.stream().mapToLong(c -> c.steps).sum();
    }

    private static Chain leader(List<Chain> chains) {
        Chain leader = chains.get(0);
        for (Chain c : chains) {
            leader = c.tracks.cost() < leader.tracks.cost() ? c : leader;
        }
        return leader;
    }

    /** Where every job stands; -1 where it has no place. */
    private record Plan(int[] tech, int[] bay, int[] start, long cost) {

        static Plan of(Tracks board) {
            return new Plan(board.tech.clone(), board.bay.clone(), board.start.clone(), board.cost());
        }

        /** Brings the first {@code count} of {@code which} on {@code board} to where they stand here. */
        void lay(Tracks board, int[] which, int count) {
            boolean[] moves = new boolean[count];
            for (int i = 0; i < count; i++) {
                int j = which[i];
                moves[i] = board.tech[j] != tech[j] || board.bay[j] != bay[j] || board.start[j] != start[j];
                if (moves[i] && board.isPlaced(j)) {
                    board.remove(j);
                }
            }
            for (int i = 0; i < count; i++) {
                int j = which[i];
                if (moves[i] && tech[j] >= 0) {
                    board.place(j, tech[j], bay[j], start[j]);
                }
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

        /** Of the movable jobs those that are this chain's until the next meeting. */
        private final int[] own;

        private int owned;
        private final boolean[] isOwn;
        private int open;
        private int close;
        private final int[] gone;
        private int goneCount;
        private final int[] absent;
        private int absentCount;
        private final boolean[] isGone;
        private final int[] oldTech;
        private final int[] oldBay;
        private final int[] oldStart;
        private final double[] key;
        private double heat;
        private Plan best;
        long steps;

        /** Goes on from where {@code other} stands, another way. */
        Chain(Chain other, SplittableRandom random) {
            this(new Tracks(other.tracks), random);
            heat = other.heat;
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
            own = new int[count];
            isOwn = new boolean[jobs];
            best = Plan.of(tracks);
            ownAll();
        }

        /** Every movable job is this chain's, and all days. */
        void ownAll() {
            owned = 0;
            for (int j : movable) {
                makeOwn(j);
            }
            look(0, tracks.slots());
        }

        /**
         * This chain's are the jobs that stand between two slots, and of those without a place the {@code late} ones where it has
         * the later days, else the others.
         */
        void own(int from, int to, boolean[] late, boolean second) {
            owned = 0;
            Arrays.fill(isOwn, false);
            look(from, to);
            for (int j : movable) {
                boolean mine = tracks.isPlaced(j) ? tracks.start[j] >= from && tracks.end[j] <= to : late[j] == second;
                if (mine) {
                    makeOwn(j);
                }
            }
            best = Plan.of(tracks);
        }

        private void makeOwn(int j) {
            own[owned++] = j;
            isOwn[j] = true;
        }

        private void look(int from, int to) {
            open = from;
            close = to;
            tracks.lookBetween(from, to);
        }

        /** Gives every job without a place one, those first that lose most by waiting for the time they take. */
        void begin() {
            collectAbsent();
            for (int i = 0; i < absentCount; i++) {
                key[absent[i]] = order(absent[i], 1) - (isPromised(absent[i]) ? 1e12 : 0);
            }
            sortAbsent();
            insertAbsent(0);
            best = Plan.of(tracks);
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
            if (owned == 0) {
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
                if (tracks.cost() < best.cost()) {
                    best = Plan.of(tracks);
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
            if (isOwn[j] && !isGone[j] && tracks.isPlaced(j)) {
                isGone[j] = true;
                gone[goneCount++] = j;
            }
        }

        /** Takes jobs off that stand in each other's way: near in time, of one technician, tool set or fleet. */
        private void ruin() {
            int most = Math.min(MOST_REMOVED, owned);
            int wanted = 1 + random.nextInt(most);
            int seed = own[random.nextInt(owned)];
            int at = tracks.isPlaced(seed) ? tracks.start[seed] : anyStart();
            take(seed);
            double kind = random.nextDouble();
            if (kind < 0.65) {
                strings(at, wanted);
            } else if (kind < 0.85) {
                alike(seed, at, wanted);
            } else {
                for (int i = 0; i < 3 * wanted && goneCount < wanted; i++) {
                    take(own[random.nextInt(owned)]);
                }
            }
        }

        private int anyStart() {
            int j = own[random.nextInt(owned)];
            return tracks.isPlaced(j) ? tracks.start[j] : open + random.nextInt(close - open);
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
                for (int k = 0; k < owned; k++) {
                    int j = own[k];
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
            for (int k = 0; k < owned; k++) {
                int j = own[k];
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

        /** Goes on from where {@code board} stands. */
        void takeOver(Tracks board) {
            Plan.of(board).lay(tracks, movable, movable.length);
            if (tracks.cost() < best.cost()) {
                best = Plan.of(tracks);
            }
        }

        /** Brings this chain's own jobs on {@code board} to the best plan since they are its own. */
        void layBest(Tracks board) {
            best.lay(board, own, owned);
        }

        /** Brings this chain's own jobs on {@code board} to where they stand now. */
        void layPresent(Tracks board) {
            Plan.of(tracks).lay(board, own, owned);
        }
    }
}
