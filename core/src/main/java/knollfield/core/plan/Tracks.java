package knollfield.core.plan;

import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.random.RandomGenerator;
import java.util.stream.IntStream;

/**
 * The board as plain arrays, so that a search can try some hundred thousand changes a second. Jobs, technicians, bays, tool
 * sets and fleets are their positions in the case's lists. Never holds a placement that breaks a rule.
 */
final class Tracks {

    /** What leaving a promised job without a place costs: more than any plan, so that none is better for it. */
    static final long PROMISE_BROKEN = 100_000_000_000L;

    private static final int NONE = -1;

    /** Of the technicians who have not just lost a job, so many are asked on average. */
    private static final int OTHERS_ASKED = 6;

    final PlanCase plan;
    final int jobs;
    private final int perDay;
    private final int days;
    private final int slots;
    private final int now;
    private final Shop.Prices prices;

    // jobs
    final int[] toolSet;
    final int[] fleet;
    final double[] ratePerDay;
    private final int[] earliest;
    private final int[] fixedStart;
    private final long[] offRoad;

    /** What the days off the road cost at least: with the quickest technician, begun in the morning. */
    private final long[] leastOff;

    private final long[][] waiting;
    private final int[][] nextBlocked;
    private final int[][] technicians;
    private final int[][] bays;
    final long[] unplanned;
    private final int[] knownTech;
    private final int[] knownBay;
    private final int[] knownStart;
    final boolean[] fixed;

    /** End of a job that has begun although its technician does not work then; -1 for all others. */
    private final int[] heldTo;

    // technicians: half-hours of work for a job, the working slots in order, each slot's place among them, and how many
    // lie before each slot
    private final int[][] work;
    private final int[][] workSlots;
    private final int[][] workIndex;
    private final int[][] workBefore;
    private final int[] dayOf;

    private final long[][] techBusy;
    private final long[][] bayBusy;

    // bays by lift class: how many of that class or a heavier one are free in each slot, and where none is
    private final int[] classOf;
    private final int[][] baysFree;
    private final long[][] baysGone;
    private final int[] bayClassOf;

    private final int[][] setsOut;
    private final int[][] setCopies;
    private final long[][] setsGone;
    private final int[][] offTheRoad;
    private final int[] cap;

    // placements
    final int[] tech;
    final int[] bay;
    final int[] start;
    final int[] end;
    final int[][] order;
    final int[] orderSize;

    // gaps before each technician's k-th job and after the last: where they begin, and the half-hours worked in them
    private final int[][] gapOpen;
    private final int[][] gapWork;
    private long cost;

    /** Technicians whom a search that may overlook places looks at in any case: those who have just lost a job. */
    final boolean[] favoured;

    // places are looked for from here, and end by there
    private int windowOpen;
    private int windowClose;

    // answer of the last search for a place
    int foundTech;
    int foundBay;
    int foundStart;
    long foundCost;

    /** The first slot at which waiting and days off the road alone cost as much as what was found; all later ones do too. */
    private int tooDear;

    Tracks(PlanCase plan) {
        this.plan = plan;
        Shop shop = plan.shop();
        jobs = plan.jobs().size();
        perDay = shop.ruler().perDay();
        days = shop.ruler().days();
        slots = shop.ruler().slots();
        now = shop.now();
        prices = shop.prices();
        int techs = shop.technicians().size();
        toolSet = new int[jobs];
        fleet = new int[jobs];
        ratePerDay = new double[jobs];
        earliest = new int[jobs];
        fixedStart = new int[jobs];
        offRoad = new long[jobs];
        leastOff = new long[jobs];
        waiting = new long[jobs][];
        nextBlocked = new int[jobs][];
        technicians = new int[jobs][];
        bays = new int[jobs][];
        unplanned = new long[jobs];
        knownTech = filled(jobs);
        knownBay = filled(jobs);
        knownStart = filled(jobs);
        fixed = new boolean[jobs];
        heldTo = filled(jobs);
        tech = filled(jobs);
        bay = filled(jobs);
        start = filled(jobs);
        end = filled(jobs);
        work = new int[techs][jobs];
        workSlots = new int[techs][];
        workIndex = new int[techs][];
        workBefore = new int[techs][slots + 1];
        dayOf = IntStream.rangeClosed(0, slots).map(s -> s / perDay).toArray();
        int[] liftClasses = shop.bays().stream()
                .mapToInt(Shop.Bay::liftClass)
                .distinct()
                .sorted()
                .toArray();
        classOf = new int[jobs];
        bayClassOf = new int[shop.bays().size()];
        baysFree = new int[liftClasses.length][slots];
        baysGone = new long[liftClasses.length][words()];
        techBusy = new long[techs][words()];
        bayBusy = new long[shop.bays().size()][words()];
        setsOut = new int[shop.toolSets().size()][slots];
        setCopies = new int[shop.toolSets().size()][days];
        setsGone = new long[shop.toolSets().size()][words()];
        offTheRoad = new int[shop.fleets().size()][days];
        cap = shop.fleets().stream().mapToInt(Shop.Fleet::cap).toArray();
        order = new int[techs][jobs];
        orderSize = new int[techs];
        gapOpen = new int[techs][jobs + 1];
        gapWork = new int[techs][jobs + 1];
        favoured = new boolean[techs];
        windowClose = slots;
        layOutShop(shop, liftClasses);
        for (int j = 0; j < jobs; j++) {
            layOutJob(shop, liftClasses, j);
            cost += unplanned[j];
        }
    }

    /** The same placements, to be changed on their own. */
    Tracks(Tracks other) {
        plan = other.plan;
        jobs = other.jobs;
        perDay = other.perDay;
        days = other.days;
        slots = other.slots;
        now = other.now;
        prices = other.prices;
        toolSet = other.toolSet;
        fleet = other.fleet;
        ratePerDay = other.ratePerDay;
        earliest = other.earliest;
        fixedStart = other.fixedStart;
        offRoad = other.offRoad;
        leastOff = other.leastOff;
        waiting = other.waiting;
        nextBlocked = other.nextBlocked;
        technicians = other.technicians;
        bays = other.bays;
        knownTech = other.knownTech;
        knownBay = other.knownBay;
        knownStart = other.knownStart;
        work = other.work;
        workSlots = other.workSlots;
        workIndex = other.workIndex;
        workBefore = other.workBefore;
        dayOf = other.dayOf;
        classOf = other.classOf;
        bayClassOf = other.bayClassOf;
        setCopies = other.setCopies;
        cap = other.cap;
        unplanned = other.unplanned.clone();
        fixed = other.fixed.clone();
        heldTo = other.heldTo.clone();
        techBusy = copy(other.techBusy);
        bayBusy = copy(other.bayBusy);
        baysFree = copy(other.baysFree);
        baysGone = copy(other.baysGone);
        setsOut = copy(other.setsOut);
        setsGone = copy(other.setsGone);
        offTheRoad = copy(other.offTheRoad);
        tech = other.tech.clone();
        bay = other.bay.clone();
        start = other.start.clone();
        end = other.end.clone();
        order = copy(other.order);
        orderSize = other.orderSize.clone();
        gapOpen = copy(other.gapOpen);
        gapWork = copy(other.gapWork);
        favoured = other.favoured.clone();
        windowOpen = other.windowOpen;
        windowClose = other.windowClose;
        cost = other.cost;
    }

    private static int[][] copy(int[][] all) {
        return Arrays.stream(all).map(int[]::clone).toArray(int[][]::new);
    }

    private static long[][] copy(long[][] all) {
        return Arrays.stream(all).map(long[]::clone).toArray(long[][]::new);
    }

    private int words() {
        return (slots + 63) / 64;
    }

    private static int[] filled(int size) {
        int[] array = new int[size];
        Arrays.fill(array, NONE);
        return array;
    }

    private void layOutShop(Shop shop, int[] liftClasses) {
        for (int t = 0; t < work.length; t++) {
            Shop.Technician technician = shop.technicians().get(t);
            workIndex[t] = filled(slots);
            workSlots[t] = IntStream.range(0, slots)
                    .filter(s -> technician.worksIn(s, shop.ruler()))
                    .toArray();
            for (int i = 0; i < workSlots[t].length; i++) {
                workIndex[t][workSlots[t][i]] = i;
            }
            for (int s = 0; s < slots; s++) {
                workBefore[t][s + 1] = workBefore[t][s] + (workIndex[t][s] == NONE ? 0 : 1);
            }
            measureGap(t, 0);
        }
        for (int b = 0; b < bayBusy.length; b++) {
            for (int day : shop.bays().get(b).daysClosed()) {
                if (day >= 0 && day < days) {
                    setRange(bayBusy[b], day * perDay, (day + 1) * perDay);
                }
            }
        }
        for (int b = 0; b < bayBusy.length; b++) {
            int liftClass = shop.bays().get(b).liftClass();
            bayClassOf[b] = Arrays.binarySearch(liftClasses, liftClass);
            for (int s = 0; s < slots; s++) {
                if (lastSet(bayBusy[b], s, s + 1) == NONE) {
                    countFree(b, s, s + 1, 1);
                }
            }
        }
        for (int c = 0; c < liftClasses.length; c++) {
            for (int s = 0; s < slots; s++) {
                if (baysFree[c][s] == 0) {
                    setRange(baysGone[c], s, s + 1);
                }
            }
        }
        for (int s = 0; s < setsOut.length; s++) {
            for (int day = 0; day < days; day++) {
                setCopies[s][day] = shop.toolSets().get(s).copiesOn(day);
                if (setCopies[s][day] == 0) {
                    setRange(setsGone[s], day * perDay, (day + 1) * perDay);
                }
            }
        }
    }

    private void layOutJob(Shop shop, int[] liftClasses, int j) {
        PlanJob job = plan.jobs().get(j);
        toolSet[j] = indexOf(shop.toolSets(), s -> s.code().equals(job.toolSet()));
        fleet[j] = job.fleetId().isPresent()
                ? indexOf(shop.fleets(), f -> f.id() == job.fleetId().getAsLong())
                : NONE;
        ratePerDay[j] = job.waits().perDay(shop.today());
        earliest[j] = Math.max(now, job.earliest());
        offRoad[j] = job.offRoadPerDay();
        waiting[j] = new long[days + 1];
        for (int d = shop.today(); d < days; d++) {
            // rounded once, on the way to the sum and not each day
            waiting[j][d + 1] = job.waiting(shop.today(), d + 1);
        }
        nextBlocked[j] = new int[days + 1];
        nextBlocked[j][days] = days;
        for (int d = days - 1; d >= 0; d--) {
            nextBlocked[j][d] = job.blockedDays().contains(d) ? d : nextBlocked[j][d + 1];
        }
        technicians[j] = IntStream.range(0, work.length)
                .filter(t -> shop.technicians().get(t).skills().containsAll(job.skills()))
                .toArray();
        // the lightest bay that will do comes first, so that the heavy ones stay free
        bays[j] = IntStream.range(0, bayBusy.length)
                .filter(b -> shop.bays().get(b).liftClass() >= job.liftClass())
                .boxed()
                .sorted(Comparator.comparing(b -> shop.bays().get(b).liftClass()))
                .mapToInt(b -> b)
                .toArray();
        // the lightest class that will do; one beyond all where no bay will
        classOf[j] =
                (int) IntStream.of(liftClasses).filter(c -> c < job.liftClass()).count();
        for (int t = 0; t < work.length; t++) {
            work[t][j] = shop.technicians().get(t).slotsFor(job.slots());
        }
        int quickest = IntStream.of(technicians[j]).map(t -> work[t][j]).min().orElse(0);
        leastOff[j] = offRoad[j] * ((quickest + perDay - 1) / perDay);
        fixedStart[j] = NONE;
        PlanJob.Pin pin = job.pin();
        if (pin instanceof PlanJob.Pin.AtStart at) {
            fixedStart[j] = at.slot();
        }
        job.known().ifPresent(k -> {
            knownTech[j] = indexOf(shop.technicians(), t -> t.id() == k.technicianId());
            knownBay[j] = indexOf(shop.bays(), b -> b.id() == k.bayId());
            knownStart[j] = k.start();
        });
        unplanned[j] = waiting[j][days]
                + prices.unplanned()
                + (knownTech[j] != NONE ? prices.move() : 0)
                + (job.mustBePlanned() ? PROMISE_BROKEN : 0);
    }

    /** {@code more} bays more, or fewer, are free from {@code from} to {@code to}: {@code b} and thus its lighter classes too. */
    private void countFree(int b, int from, int to, int more) {
        for (int c = 0; c <= bayClassOf[b]; c++) {
            int[] free = baysFree[c];
            long[] none = baysGone[c];
            for (int i = from; i < to; i++) {
                free[i] += more;
                if (free[i] == 0) {
                    none[i >> 6] |= 1L << i;
                } else {
                    none[i >> 6] &= ~(1L << i);
                }
            }
        }
    }

    private static <T> int indexOf(List<T> all, java.util.function.Predicate<T> which) {
        for (int i = 0; i < all.size(); i++) {
            if (which.test(all.get(i))) {
                return i;
            }
        }
        return NONE;
    }

    /** Minor units; the sum over all jobs, planned or not. */
    long cost() {
        return cost;
    }

    boolean isPlaced(int j) {
        return tech[j] != NONE;
    }

    /** End of work of job {@code j} for technician {@code t} from {@code s}; -1 where it may not start or not end there. */
    int endFrom(int t, int j, int s) {
        if (heldTo[j] != NONE) {
            return heldTo[j];
        }
        if (s < 0 || s >= slots || workIndex[t][s] == NONE) {
            return NONE;
        }
        int last = workIndex[t][s] + work[t][j] - 1;
        return last < workSlots[t].length ? workSlots[t][last] + 1 : NONE;
    }

    /** True where {@code j} may be placed there as the board stands; the job itself must not be on it. */
    boolean fits(int j, int t, int b, int s) {
        int e = t == NONE || b == NONE ? NONE : endFrom(t, j, s);
        if (e == NONE
                || s < earliest[j]
                || (fixedStart[j] != NONE && s != fixedStart[j])
                || !contains(technicians[j], t)
                || !contains(bays[j], b)) {
            return false;
        }
        int first = s / perDay;
        int last = (e - 1) / perDay;
        return nextBlocked[j][first] > last
                && lastSet(techBusy[t], s, e) == NONE
                && lastSet(bayBusy[b], s, e) == NONE
                && lastSet(setsGone[toolSet[j]], s, e) == NONE
                && lastFull(j, first, last) == NONE;
    }

    private static boolean contains(int[] all, int value) {
        for (int i : all) {
            if (i == value) {
                return true;
            }
        }
        return false;
    }

    /** The first bay of those that will do which is free from {@code s} to {@code e}; -1 where none is. */
    int freeBay(int j, int s, int e) {
        for (int b : bays[j]) {
            if (lastSet(bayBusy[b], s, e) == NONE) {
                return b;
            }
        }
        return NONE;
    }

    int[] techniciansFor(int j) {
        return technicians[j];
    }

    /** What placing {@code j} there adds, against its not being in the case at all. */
    long costAt(int j, int t, int b, int s) {
        return costAt(j, t, b, s, endFrom(t, j, s), changeover(t, position(t, s), toolSet[j]));
    }

    private long costAt(int j, int t, int b, int s, int e, long changeover) {
        int first = dayOf[s];
        int last = dayOf[e - 1];
        return waiting[j][first]
                + (last - first + 1) * offRoad[j]
                + changeover
                + (knownTech[j] == NONE || (t == knownTech[j] && b == knownBay[j] && s == knownStart[j])
                        ? 0
                        : prices.move());
    }

    /** What a job with {@code set} adds in changes as the {@code at}th of technician {@code t}'s. */
    private long changeover(int t, int at, int set) {
        int before = at > 0 ? toolSet[order[t][at - 1]] : NONE;
        int after = at < orderSize[t] ? toolSet[order[t][at]] : NONE;
        int pairs = (before != NONE && before != set ? 1 : 0) + (after != NONE && after != set ? 1 : 0);
        if (before != NONE && after != NONE && before != after) {
            pairs--;
        }
        return pairs * prices.changeover();
    }

    /** How many jobs of technician {@code t} start before {@code s}. */
    private int position(int t, int s) {
        int low = 0;
        int high = orderSize[t];
        if (high == 0 || start[order[t][0]] >= s) {
            return 0;
        }
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (start[order[t][middle]] < s) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    void place(int j, int t, int b, int s) {
        int e = endFrom(t, j, s);
        int at = position(t, s);
        cost += costAt(j, t, b, s, e, changeover(t, at, toolSet[j])) - unplanned[j];
        System.arraycopy(order[t], at, order[t], at + 1, orderSize[t] - at);
        System.arraycopy(gapOpen[t], at, gapOpen[t], at + 1, orderSize[t] + 1 - at);
        System.arraycopy(gapWork[t], at, gapWork[t], at + 1, orderSize[t] + 1 - at);
        order[t][at] = j;
        orderSize[t]++;
        tech[j] = t;
        bay[j] = b;
        start[j] = s;
        end[j] = e;
        measureGap(t, at);
        measureGap(t, at + 1);
        setRange(techBusy[t], s, e);
        setRange(bayBusy[b], s, e);
        countFree(b, s, e, -1);
        int set = toolSet[j];
        for (int i = s; i < e; i++) {
            if (++setsOut[set][i] >= setCopies[set][i / perDay]) {
                setsGone[set][i >> 6] |= 1L << i;
            }
        }
        if (fleet[j] != NONE) {
            for (int d = s / perDay; d <= (e - 1) / perDay; d++) {
                offTheRoad[fleet[j]][d]++;
            }
        }
    }

    private void measureGap(int t, int k) {
        int open = k == 0 ? 0 : end[order[t][k - 1]];
        int close = k == orderSize[t] ? slots : start[order[t][k]];
        gapOpen[t][k] = open;
        gapWork[t][k] = workBefore[t][close] - workBefore[t][open];
    }

    void remove(int j) {
        int t = tech[j];
        int b = bay[j];
        int s = start[j];
        int e = end[j];
        int at = position(t, s);
        System.arraycopy(order[t], at + 1, order[t], at, orderSize[t] - at - 1);
        System.arraycopy(gapOpen[t], at + 1, gapOpen[t], at, orderSize[t] - at);
        System.arraycopy(gapWork[t], at + 1, gapWork[t], at, orderSize[t] - at);
        orderSize[t]--;
        measureGap(t, at);
        clearRange(techBusy[t], s, e);
        clearRange(bayBusy[b], s, e);
        countFree(b, s, e, 1);
        int set = toolSet[j];
        for (int i = s; i < e; i++) {
            if (--setsOut[set][i] < setCopies[set][i / perDay]) {
                setsGone[set][i >> 6] &= ~(1L << i);
            }
        }
        if (fleet[j] != NONE) {
            for (int d = s / perDay; d <= (e - 1) / perDay; d++) {
                offTheRoad[fleet[j]][d]--;
            }
        }
        cost += unplanned[j] - costAt(j, t, b, s, e, changeover(t, at, set));
        tech[j] = NONE;
        bay[j] = NONE;
        start[j] = NONE;
        end[j] = NONE;
    }

    /**
     * Looks for the cheapest place of {@code j} that costs less than {@code most}; true where there is one, which then
     * stands in the {@code found} fields. A place is overlooked with chance {@code blink}, so that repeated searches do not
     * all end in the same plan; with such a chance only some of the technicians are asked who are not {@code favoured}, since
     * on a full board hardly anybody else has room.
     */
    boolean find(int j, long most, RandomGenerator random, double blink) {
        foundCost = most;
        foundTech = NONE;
        tooDear = tooDear(j);
        if (knownTech[j] != NONE
                && knownStart[j] >= windowOpen
                && fits(j, knownTech[j], knownBay[j], knownStart[j])
                && endFrom(knownTech[j], j, knownStart[j]) <= windowClose) {
            if (blink == 0 || random.nextDouble() >= blink) {
                consider(
                        j,
                        knownTech[j],
                        knownBay[j],
                        knownStart[j],
                        costAt(j, knownTech[j], knownBay[j], knownStart[j]));
            }
        }
        double asked = (double) OTHERS_ASKED / technicians[j].length;
        for (int t : technicians[j]) {
            if (blink == 0 || favoured[t] || asked >= 1 || random.nextDouble() < asked) {
                findWith(j, t, random, blink);
            }
        }
        return foundTech != NONE;
    }

    int slots() {
        return slots;
    }

    /** True where {@code j} may begin at some slot from {@code open} to before {@code close}, as far as its own times say. */
    boolean canStart(int j, int open, int close) {
        int first = Math.max(open, earliest[j]);
        return fixedStart[j] == NONE ? first < close : fixedStart[j] >= first && fixedStart[j] < close;
    }

    /** From now on places are looked for from slot {@code open} to before {@code close} only. */
    void lookBetween(int open, int close) {
        windowOpen = open;
        windowClose = close;
    }

    private void consider(int j, int t, int b, int s, long there) {
        if (there < foundCost) {
            foundCost = there;
            foundTech = t;
            foundBay = b;
            foundStart = s;
            tooDear = tooDear(j);
        }
    }

    /**
     * Looks through the gaps between the jobs of {@code t}, soonest first. Most are too short, and are passed by without a look
     * at bays and tool sets.
     */
    private void findWith(int j, int t, RandomGenerator random, double blink) {
        int soonest = Math.max(windowOpen, earliest[j]);
        int from = Math.max(fixedStart[j], soonest);
        if ((fixedStart[j] != NONE && fixedStart[j] < soonest) || from >= windowClose || bays[j].length == 0) {
            return;
        }
        int[] open = gapOpen[t];
        int[] length = gapWork[t];
        int size = orderSize[t];
        int need = work[t][j];
        int last = fixedStart[j] == NONE ? size : position(t, from + 1);
        for (int k = position(t, from); k <= last && open[k] < Math.min(tooDear, windowClose); k++) {
            if (length[k] >= need) {
                int begin = Math.max(from, open[k]);
                long changes = changeover(t, k, toolSet[j]);
                if (begin < tooDear && waiting[j][dayOf[begin]] + leastOff[j] + changes < foundCost) {
                    int close = k == size ? slots : start[order[t][k]];
                    findBetween(j, t, begin, Math.min(close, windowClose), changes, random, blink);
                }
            }
        }
    }

    private int tooDear(int j) {
        long[] wait = waiting[j];
        long most = foundCost - leastOff[j];
        int low = 0;
        int high = days;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (wait[middle] < most) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low * perDay;
    }

    /** The first place of each day from {@code open} to {@code close}: later ones of the same day never cost less. */
    private void findBetween(int j, int t, int open, int close, long changes, RandomGenerator random, double blink) {
        int[] working = workSlots[t];
        int[] before = workBefore[t];
        int need = work[t][j];
        long[] wait = waiting[j];
        long[] gone = setsGone[toolSet[j]];
        long[] noBay = baysGone[classOf[j]];
        int s = open;
        int stop = fixedStart[j] != NONE ? Math.min(close, fixedStart[j] + 1) : close;
        while (s < stop) {
            int lastWork = before[s] + need - 1;
            if (lastWork >= working.length) {
                return;
            }
            if (working[before[s]] != s) {
                s = working[before[s]];
                continue;
            }
            int day = dayOf[s];
            int e = working[lastWork] + 1;
            int last = dayOf[e - 1];
            if (e > close || wait[day] + changes + offRoad[j] >= foundCost) {
                return;
            }
            if (nextBlocked[j][day] <= last) {
                s = (nextBlocked[j][day] + 1) * perDay;
                continue;
            }
            if (wait[day] + changes + (last - day + 1) * offRoad[j] >= foundCost) {
                s = (day + 1) * perDay;
                continue;
            }
            int inTheWay = lastSet(gone, s, e);
            if (inTheWay == NONE) {
                inTheWay = lastSet(noBay, s, e);
            }
            if (inTheWay != NONE) {
                s = inTheWay + 1;
                continue;
            }
            int full = lastFull(j, day, last);
            if (full != NONE) {
                s = (full + 1) * perDay;
                continue;
            }
            int free = NONE;
            int soonest = slots;
            for (int b : bays[j]) {
                int taken = lastSet(bayBusy[b], s, e);
                if (taken == NONE) {
                    free = b;
                    break;
                }
                soonest = Math.min(soonest, taken + 1);
            }
            if (free == NONE) {
                s = soonest;
                continue;
            }
            if (blink != 0 && random.nextDouble() < blink) {
                s++;
                continue;
            }
            consider(j, t, free, s, costAt(j, t, free, s, e, changes));
            s = (day + 1) * perDay;
        }
    }

    private int lastFull(int j, int first, int last) {
        if (fleet[j] == NONE) {
            return NONE;
        }
        int[] off = offTheRoad[fleet[j]];
        for (int d = last; d >= first; d--) {
            if (off[d] >= cap[fleet[j]]) {
                return d;
            }
        }
        return NONE;
    }

    /** The last slot of {@code [from, to)} that is set; -1 where none is. */
    static int lastSet(long[] bits, int from, int to) {
        int word = (to - 1) >> 6;
        int firstWord = from >> 6;
        long mask = -1L >>> (63 - ((to - 1) & 63));
        while (true) {
            long here = bits[word] & mask;
            if (word == firstWord) {
                here &= -1L << (from & 63);
            }
            if (here != 0) {
                return (word << 6) + 63 - Long.numberOfLeadingZeros(here);
            }
            if (word == firstWord) {
                return NONE;
            }
            word--;
            mask = -1L;
        }
    }

    private static void setRange(long[] bits, int from, int to) {
        for (int i = from; i < to; i++) {
            bits[i >> 6] |= 1L << i;
        }
    }

    private static void clearRange(long[] bits, int from, int to) {
        for (int i = from; i < to; i++) {
            bits[i >> 6] &= ~(1L << i);
        }
    }

    /** Positions of jobs in the case, by id. */
    static Map<Long, Integer> positionsOf(PlanCase plan) {
        Map<Long, Integer> positions = new HashMap<>();
        for (int j = 0; j < plan.jobs().size(); j++) {
            positions.put(plan.jobs().get(j).id(), j);
        }
        return positions;
    }

    /** Position of the place's technician; -1 where the workshop has no such. */
    int technician(Place place) {
        return indexOf(plan.shop().technicians(), t -> t.id() == place.technicianId());
    }

    /** Position of the place's bay; -1 where the workshop has no such. */
    int bay(Place place) {
        return indexOf(plan.shop().bays(), b -> b.id() == place.bayId());
    }

    /** Places {@code j} at {@code place} where it fits; false where it does not. */
    boolean placeAt(int j, Place place) {
        int t = technician(place);
        int b = bay(place);
        if (!fits(j, t, b, place.start())) {
            return false;
        }
        place(j, t, b, place.start());
        return true;
    }

    /** Places a job that is promised or under way and stays; false where something else is there. */
    boolean placeFixed(int j, Place place) {
        fixed[j] = placeHeld(j, place);
        return fixed[j];
    }

    /** Places a job by what it holds alone, whatever else its place may break; false where something else is there. */
    boolean placeHeld(int j, Place place) {
        int t = technician(place);
        int b = bay(place);
        int s = place.start();
        if (t == NONE || b == NONE || s < 0 || s >= slots) {
            return false;
        }
        if (s < now && endFrom(t, j, s) == NONE) {
            // somebody fell ill: the vehicle stands in its bay all the same
            heldTo[j] = Math.min(slots, s + work[t][j]);
        }
        int e = endFrom(t, j, s);
        if (e == NONE
                || lastSet(techBusy[t], s, e) != NONE
                || lastSet(bayBusy[b], s, e) != NONE
                || lastSet(setsGone[toolSet[j]], s, e) != NONE
                || lastFull(j, s / perDay, (e - 1) / perDay) != NONE) {
            heldTo[j] = NONE;
            return false;
        }
        place(j, t, b, s);
        return true;
    }

    /** Leaves a promised job that collides with another out of the plan: neither placed nor counted. */
    void leaveOut(int j) {
        cost -= unplanned[j];
        unplanned[j] = 0;
        fixed[j] = true;
    }

    Place placeOf(int j) {
        return new Place(
                plan.shop().technicians().get(tech[j]).id(),
                plan.shop().bays().get(bay[j]).id(),
                start[j]);
    }

    /**
     * A slot at which a day begins, so that about {@code share} of the movable jobs on the board begin before it; 0 where there
     * is none.
     */
    int dayAtShare(double share) {
        int[] starts = IntStream.range(0, jobs)
                .filter(j -> isPlaced(j) && !fixed[j])
                .map(j -> start[j])
                .sorted()
                .toArray();
        if (starts.length == 0) {
            return 0;
        }
        int middle = starts[(int) (share * (starts.length - 1))];
        return (middle + perDay / 2) / perDay * perDay;
    }

    /** Every placed job's place, by job id. */
    Map<Long, Place> places() {
        Map<Long, Place> places = new HashMap<>();
        for (int j = 0; j < jobs; j++) {
            if (isPlaced(j)) {
                places.put(plan.jobs().get(j).id(), placeOf(j));
            }
        }
        return places;
    }

    /** The cost by its parts, counted anew from the placements. */
    PlanCost parts() {
        long exposure = 0;
        long unplannedCost = 0;
        long off = 0;
        int unplannedJobs = 0;
        int offDays = 0;
        int moved = 0;
        for (int j = 0; j < jobs; j++) {
            if (!isPlaced(j) && fixed[j]) {
                continue;
            }
            if (!isPlaced(j)) {
                exposure += waiting[j][days];
                unplannedCost += prices.unplanned();
                unplannedJobs++;
                moved += knownTech[j] == NONE ? 0 : 1;
                continue;
            }
            int first = start[j] / perDay;
            int here = (end[j] - 1) / perDay - first + 1;
            exposure += waiting[j][first];
            off += here * offRoad[j];
            offDays += here;
            moved += knownTech[j] == NONE
                            || (tech[j] == knownTech[j] && bay[j] == knownBay[j] && start[j] == knownStart[j])
                    ? 0
                    : 1;
        }
        long changes = 0;
        for (int t = 0; t < order.length; t++) {
            for (int i = 1; i < orderSize[t]; i++) {
                changes += toolSet[order[t][i]] == toolSet[order[t][i - 1]] ? 0 : prices.changeover();
            }
        }
        return new PlanCost(
                exposure, unplannedCost, off, changes, moved * prices.move(), unplannedJobs, offDays, moved);
    }
}
