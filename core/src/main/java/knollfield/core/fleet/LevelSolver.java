package knollfield.core.fleet;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.IntStream;

/**
 * Finds a plan for {@link Levelling} and how near it is to the best: moves, exchanges and annealing for the plan, Lagrangian
 * relaxation of the capacities for the bound, and a tree that closes the rest.
 */
final class LevelSolver {

    private static final int ROUNDS = 1_500;
    private static final int SWAPS_UP_TO = 100;
    private static final long MOST_STEPS = 3_000_000;

    private final int n;
    private final int months;
    private final int perDay;
    private final int mostNodes;
    private final int[] own;
    private final int[] days;
    private final int[] minutes;
    private final long[][] cost;
    private final boolean[] moves;
    private final int[] roomDays;
    private final long[] roomMinutes;

    /** What the vehicles that stand fast bring to each month. */
    private final long[] fastDays;

    private final long[] fastMinutes;

    private final int[] at;
    private final long[] dayLoad;
    private final long[] minuteLoad;

    private int[] best;
    private long bestOver;
    private long bestCost;

    private final double[] dayPrice;
    private final double[] minutePrice;
    private long leastOver;
    private double bound;

    LevelSolver(List<Levelling.Vehicle> vehicles, List<Levelling.Room> room, int minutesPerDay, int mostNodes) {
        this.mostNodes = mostNodes;
        n = vehicles.size();
        months = room.size();
        perDay = minutesPerDay;
        own = vehicles.stream().mapToInt(Levelling.Vehicle::month).toArray();
        days = vehicles.stream().mapToInt(Levelling.Vehicle::offRoadDays).toArray();
        minutes = vehicles.stream().mapToInt(Levelling.Vehicle::minutes).toArray();
        roomDays = room.stream().mapToInt(Levelling.Room::vehicleDays).toArray();
        roomMinutes = room.stream().mapToLong(Levelling.Room::minutes).toArray();
        moves = new boolean[n];
        cost = new long[n][];
        for (int i = 0; i < n; i++) {
            List<Long> early = vehicles.get(i).earlyMinor();
            moves[i] = !early.isEmpty();
            cost[i] = new long[own[i] + 1];
            for (int m = 0; moves[i] && m < own[i]; m++) {
                cost[i][m] = early.get(m);
            }
        }
        at = own.clone();
        dayLoad = new long[months];
        minuteLoad = new long[months];
        fastDays = new long[months];
        fastMinutes = new long[months];
        for (int i = 0; i < n; i++) {
            dayLoad[own[i]] += days[i];
            minuteLoad[own[i]] += minutes[i];
            if (!moves[i]) {
                fastDays[own[i]] += days[i];
                fastMinutes[own[i]] += minutes[i];
            }
        }
        best = own.clone();
        bestOver = totalOver();
        bestCost = 0;
        dayPrice = new double[months];
        minutePrice = new double[months];
    }

    Levelling.Over over() {
        int overDays = 0;
        long overMinutes = 0;
        for (int m = 0; m < months; m++) {
            overDays += (int) Math.max(0, dayLoad[m] - roomDays[m]);
            overMinutes += Math.max(0, minuteLoad[m] - roomMinutes[m]);
        }
        return new Levelling.Over(overDays, overMinutes, (long) overDays * perDay + overMinutes);
    }

    Levelling solve(int annealings) {
        improve(annealings);
        leastOver = leastOver();
        if (leastOver < bestOver || bestCost > 0) {
            bound = lagrange();
            branch();
        }
        lay(best);
        List<Integer> month = new ArrayList<>(n);
        for (int i = 0; i < n; i++) {
            month.add(best[i]);
        }
        long least = Math.min(bestCost, (long) Math.max(0, Math.ceil(bound - 1e-6)));
        return new Levelling(month, bestCost, least, over(), leastOver);
    }

    private long overOf(int m, long d, long w) {
        return Math.max(0, d - roomDays[m]) * perDay + Math.max(0, w - roomMinutes[m]);
    }

    private long overOf(int m) {
        return overOf(m, dayLoad[m], minuteLoad[m]);
    }

    private long totalOver() {
        long over = 0;
        for (int m = 0; m < months; m++) {
            over += overOf(m);
        }
        return over;
    }

    private void put(int i, int m) {
        dayLoad[at[i]] -= days[i];
        minuteLoad[at[i]] -= minutes[i];
        dayLoad[m] += days[i];
        minuteLoad[m] += minutes[i];
        at[i] = m;
    }

    private void lay(int[] plan) {
        for (int i = 0; i < n; i++) {
            put(i, plan[i]);
        }
    }

    private long totalCost() {
        long sum = 0;
        for (int i = 0; i < n; i++) {
            sum += cost[i][at[i]];
        }
        return sum;
    }

    private void keepIfBetter() {
        long over = totalOver();
        long sum = totalCost();
        if (over < bestOver || (over == bestOver && sum < bestCost)) {
            best = at.clone();
            bestOver = over;
            bestCost = sum;
        }
    }

    /** From as it is: moves and exchanges while they make it better, then annealing, which takes worse ones too at first. */
    private void improve(int annealings) {
        descend();
        keepIfBetter();
        if (bestOver + bestCost > 0) {
            for (int seed = 0; seed < annealings; seed++) {
                anneal(new SplittableRandom(seed));
                descend();
                keepIfBetter();
            }
        }
    }

    /** Steps at random, for the worse too while it is warm (S. Kirkpatrick and others, Science 220 (1983), 671 to 680). */
    private void anneal(SplittableRandom random) {
        int[] free = IntStream.range(0, n).filter(i -> moves[i] && own[i] > 0).toArray();
        if (free.length == 0) {
            return;
        }
        double dearest = 1;
        for (int i : free) {
            for (long c : cost[i]) {
                dearest = Math.max(dearest, c);
            }
        }
        // a quarter of an hour above the room weighs as the dearest move does
        double perMinute = dearest / 15;
        lay(best);
        double over = totalOver();
        double sum = totalCost();
        long steps = Math.min(MOST_STEPS, 50_000L * free.length);
        double warm = dearest / 8;
        double cooling = Math.pow(1e-4, 1.0 / steps);
        double heat = warm;
        for (long step = 0; step < steps; step++, heat *= cooling) {
            int i = free[random.nextInt(free.length)];
            int from = at[i];
            int to = random.nextInt(own[i] + 1);
            int j = random.nextBoolean() ? free[random.nextInt(free.length)] : i;
            if (j != i) {
                to = at[j];
                if (to > own[i] || from > own[j]) {
                    continue;
                }
            }
            if (to == from) {
                continue;
            }
            long was = overOf(from) + overOf(to);
            double price = cost[i][to] - cost[i][from];
            put(i, to);
            if (j != i) {
                price += cost[j][from] - cost[j][to];
                put(j, from);
            }
            long change = overOf(from) + overOf(to) - was;
            double worse = price + perMinute * change;
            if (worse <= 0 || random.nextDouble() < Math.exp(-worse / heat)) {
                over += change;
                sum += price;
                if (over < bestOver || (over == bestOver && sum < bestCost)) {
                    keepIfBetter();
                }
            } else {
                put(i, from);
                if (j != i) {
                    put(j, to);
                }
            }
        }
    }

    private void descend() {
        boolean better = true;
        while (better) {
            better = false;
            for (int i = 0; i < n; i++) {
                better |= moves[i] && moveToBest(i);
            }
            if (!better && n <= SWAPS_UP_TO) {
                better = exchange();
            }
        }
    }

    private boolean moveToBest(int i) {
        int from = at[i];
        int to = from;
        long leastOverChange = 0;
        long leastCostChange = 0;
        long off = overOf(from, dayLoad[from] - days[i], minuteLoad[from] - minutes[i]) - overOf(from);
        for (int m = 0; m <= own[i]; m++) {
            if (m == from) {
                continue;
            }
            long change = off + overOf(m, dayLoad[m] + days[i], minuteLoad[m] + minutes[i]) - overOf(m);
            long price = cost[i][m] - cost[i][from];
            if (change < leastOverChange || (change == leastOverChange && price < leastCostChange)) {
                leastOverChange = change;
                leastCostChange = price;
                to = m;
            }
        }
        if (to != from) {
            put(i, to);
        }
        return to != from;
    }

    /** One vehicle takes the place of another, which goes on to where it fits best; true where that helped. */
    private boolean exchange() {
        boolean better = false;
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                int a = at[i];
                int b = at[j];
                if (a == b || !moves[i] || !moves[j] || b > own[i]) {
                    continue;
                }
                long over = totalOver();
                long sum = cost[i][a] + cost[j][b];
                put(i, b);
                moveToBest(j);
                long nowOver = totalOver();
                long now = cost[i][at[i]] + cost[j][at[j]];
                if (nowOver < over || (nowOver == over && now < sum)) {
                    better = true;
                } else {
                    put(j, b);
                    put(i, a);
                }
            }
        }
        return better;
    }

    /**
     * No plan has less above the room: for each month, what has to stand in it or before it and what cannot be moved away,
     * against the room up to it.
     */
    private long leastOver() {
        long least = 0;
        long days0 = 0;
        long minutes0 = 0;
        long roomD = 0;
        double roomM = 0;
        for (int m = 0; m < months; m++) {
            roomD += roomDays[m];
            roomM += roomMinutes[m];
            for (int i = 0; i < n; i++) {
                if (own[i] == m) {
                    days0 += days[i];
                    minutes0 += minutes[i];
                }
            }
            least = Math.max(
                    least, Math.max(0, days0 - roomD) * perDay + (long) Math.max(0, Math.ceil(minutes0 - roomM)));
        }
        return Math.max(least, fastOver());
    }

    private long fastOver() {
        long least = 0;
        for (int m = 0; m < months; m++) {
            least += overOf(m, fastDays[m], fastMinutes[m]);
        }
        return least;
    }

    /** The greatest bound on the cost found; its prices stay in {@code dayPrice} and {@code minutePrice}. */
    private double lagrange() {
        double[] d = new double[months];
        double[] w = new double[months];
        double[] used = new double[months];
        double[] worked = new double[months];
        double[] capD = new double[months];
        double[] capW = new double[months];
        double spare = roomWithFast(capD, capW);
        double greatest = 0;
        double step = 1.5;
        int since = 0;
        for (int round = 0; round < ROUNDS; round++) {
            Arrays.fill(used, 0);
            Arrays.fill(worked, 0);
            double value = 0;
            for (int i = 0; i < n; i++) {
                int m = cheapest(i, d, w);
                value += cost[i][m] + d[m] * days[i] + w[m] * minutes[i];
                used[m] += days[i];
                worked[m] += minutes[i];
            }
            int dearest = dearest(d, w);
            value -= price(dearest, d, w) * spare;
            double norm = 0;
            for (int m = 0; m < months; m++) {
                value -= d[m] * capD[m] + (w[m] == 0 ? 0 : w[m] * capW[m]);
                used[m] -= capD[m] + (dearest == m ? spare / perDay : 0);
                worked[m] -= capW[m] + (dearest == months + m ? spare : 0);
                double gd = used[m];
                double gw = worked[m] / perDay;
                norm += (gd > 0 || d[m] > 0 ? gd * gd : 0) + (gw > 0 || w[m] > 0 ? gw * gw : 0);
            }
            if (value > greatest + 1e-9) {
                greatest = value;
                System.arraycopy(d, 0, dayPrice, 0, months);
                System.arraycopy(w, 0, minutePrice, 0, months);
                since = 0;
            } else if (++since == 20) {
                step /= 2;
                since = 0;
            }
            if (norm == 0 || greatest > bestCost - 1e-6) {
                break;
            }
            double length = step * Math.max(1, bestCost - value) / norm;
            for (int m = 0; m < months; m++) {
                d[m] = Math.max(0, d[m] + length * used[m]);
                if (capW[m] < Long.MAX_VALUE) {
                    w[m] = Math.max(0, w[m] + length * worked[m] / perDay / perDay);
                }
            }
        }
        return greatest;
    }

    /**
     * The room, with what the vehicles that stand fast have above it.
     *
     * @return minutes of the least that lies above the room that the others have, wherever that is
     */
    private double roomWithFast(double[] capD, double[] capW) {
        for (int m = 0; m < months; m++) {
            capD[m] = Math.max(roomDays[m], fastDays[m]);
            capW[m] = Math.max(roomMinutes[m], fastMinutes[m]);
        }
        return bestOver - fastOver();
    }

    /** Index of the greatest price of a minute: of a month's days, or beyond them of its work. */
    private int dearest(double[] d, double[] w) {
        int most = 0;
        for (int m = 1; m < 2 * months; m++) {
            most = price(m, d, w) > price(most, d, w) ? m : most;
        }
        return most;
    }

    private double price(int of, double[] d, double[] w) {
        return of < months ? d[of] / perDay : w[of - months];
    }

    private int cheapest(int i, double[] d, double[] w) {
        if (!moves[i]) {
            return own[i];
        }
        int to = own[i];
        double least = cost[i][to] + d[to] * days[i] + w[to] * minutes[i];
        for (int m = own[i] - 1; m >= 0; m--) {
            double price = cost[i][m] + d[m] * days[i] + w[m] * minutes[i];
            if (price < least) {
                least = price;
                to = m;
            }
        }
        return to;
    }

    private int[] order = {};
    private int[][] choices = {};
    private double[] restBound = {};
    private double constant;
    private long nodes;
    private boolean whole;

    /** Closes what is between plan and bound, vehicle by vehicle, the months with the least price first. */
    private void branch() {
        List<Integer> movable = new ArrayList<>();
        double[] capD = new double[months];
        double[] capW = new double[months];
        boolean priced = leastOver >= bestOver;
        if (priced) {
            constant -= price(dearest(dayPrice, minutePrice), dayPrice, minutePrice) * roomWithFast(capD, capW);
            for (int m = 0; m < months; m++) {
                constant -= dayPrice[m] * capD[m] + (minutePrice[m] == 0 ? 0 : minutePrice[m] * capW[m]);
            }
        }
        double[] least = new double[n];
        double root = constant;
        for (int i = 0; i < n; i++) {
            int m = cheapest(i, dayPrice, minutePrice);
            least[i] = price(i, m);
            root += least[i];
            if (moves[i]) {
                movable.add(i);
            } else {
                constant += least[i];
            }
        }
        double slack = priced ? bestCost - root : Double.POSITIVE_INFINITY;
        choices = new int[n][];
        for (int i : movable) {
            List<Integer> open = new ArrayList<>();
            for (int m = 0; m <= own[i]; m++) {
                if (price(i, m) - least[i] < slack - 1e-6) {
                    open.add(m);
                }
            }
            int k = i;
            open.sort(Comparator.<Integer>comparingDouble(m -> price(k, m)).thenComparing(m -> -m));
            choices[i] = open.stream().mapToInt(Integer::intValue).toArray();
        }
        // those whose place is all but certain first, so that the doubtful ones are decided with all else in place
        movable.sort(Comparator.<Integer>comparingInt(i -> choices[i].length)
                .thenComparing(i -> -days[i] * perDay - minutes[i])
                .thenComparing(i -> i));
        order = movable.stream().mapToInt(Integer::intValue).toArray();
        restBound = new double[order.length + 1];
        for (int k = order.length - 1; k >= 0; k--) {
            restBound[k] = restBound[k + 1] + least[order[k]];
        }
        lay(own);
        for (int i : order) {
            dayLoad[own[i]] -= days[i];
            minuteLoad[own[i]] -= minutes[i];
        }
        whole = true;
        descendTree(0, 0, 0, priced);
        for (int i : order) {
            dayLoad[at[i]] += days[i];
            minuteLoad[at[i]] += minutes[i];
        }
        if (whole) {
            bound = bestCost;
            leastOver = bestOver;
        }
    }

    private double price(int i, int m) {
        return cost[i][m] + dayPrice[m] * days[i] + minutePrice[m] * minutes[i];
    }

    private void descendTree(int k, double priced, long paid, boolean bounded) {
        if (++nodes > mostNodes) {
            whole = false;
            return;
        }
        if (k == order.length) {
            keepIfBetter();
            return;
        }
        int i = order[k];
        for (int m : choices[i]) {
            double here = priced + price(i, m);
            long sum = paid + cost[i][m];
            if (bounded && constant + here + restBound[k + 1] > bestCost - 1 + 1e-6) {
                break;
            }
            dayLoad[m] += days[i];
            minuteLoad[m] += minutes[i];
            int was = at[i];
            at[i] = m;
            long over = totalOver();
            if (over < bestOver || (over == bestOver && sum < bestCost)) {
                descendTree(k + 1, here, sum, bounded);
            }
            at[i] = was;
            dayLoad[m] -= days[i];
            minuteLoad[m] -= minutes[i];
            if (!whole) {
                return;
            }
        }
    }
}
