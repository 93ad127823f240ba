package knollfield.core.plan;

import static knollfield.core.plan.Cases.bay;
import static knollfield.core.plan.Cases.job;
import static knollfield.core.plan.Cases.needing;
import static knollfield.core.plan.Cases.set;
import static knollfield.core.plan.Cases.shop;
import static knollfield.core.plan.Cases.technician;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What the search finds, against orders that are known to be best and against trying everything. */
class PlanSearchTest {

    private static final PlanSearch.Budget STEPS = new PlanSearch.Budget.Steps(4_000);

    private static PlanCase oneTechnician(List<PlanJob> jobs, int days) {
        return new PlanCase(
                shop(
                        days,
                        0,
                        List.of(technician(1, "T")),
                        List.of(bay(1, 1)),
                        List.of(set("CAL", 9), set("OST", 9)),
                        9),
                jobs);
    }

    private static long cost(PlanCase plan, List<PlanJob> order) {
        Map<Long, Place> places = new HashMap<>();
        int day = 0;
        for (PlanJob j : order) {
            day = Math.max(day, j.earliest() / 16);
            places.put(j.id(), new Place(1, 1, day * 16));
            day += j.slots() / 16;
        }
        Referee.Verdict verdict = Referee.judge(plan, places);
        assertThat(verdict.broken()).isEmpty();
        return verdict.cost();
    }

    /**
     * Source: W. E. Smith, "Various optimizers for single-stage production", Naval Research Logistics Quarterly 3, 1956:
     * the sum of weighted completion (and so of weighted start) is least in the order of weight over duration. It holds
     * here with one technician, no other rule binding, durations in whole days, and every act-by passed already or beyond
     * the last start, so that no rate changes on the way (rules.md section 11).
     */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void smithsOrderIsFoundWhereItIsOptimal(long seed) {
        Random random = new Random(seed);
        List<PlanJob> jobs = new ArrayList<>();
        int days = 0;
        for (int j = 0; j < 12; j++) {
            int length = 1 + random.nextInt(3);
            days += length;
            jobs.add(job(j, 16 * length, 1 + random.nextInt(30), random.nextBoolean() ? -5 : 1_000));
        }
        PlanCase plan = oneTechnician(jobs, days);
        List<PlanJob> smith = new ArrayList<>(jobs);
        smith.sort(Comparator.comparingDouble(j -> -j.waits().perDay(0) / j.slots()));

        PlanSearch.Result found = PlanSearch.run(plan, Map.of(), seed, STEPS);

        assertThat(found.cost().total()).isEqualTo(cost(plan, smith));
    }

    /** Elsewhere every order is tried: act-by dates in between, days before which a job cannot start, tool-set changes. */
    @ParameterizedTest
    @ValueSource(longs = {11, 12})
    void withMixedActByTheBestOfAllOrdersIsFound(long seed) {
        Random random = new Random(seed);
        List<PlanJob> jobs = new ArrayList<>();
        for (int j = 0; j < 8; j++) {
            jobs.add(needing(
                    job(j, 16 * (1 + random.nextInt(2)), 1 + random.nextInt(30), random.nextInt(14)),
                    random.nextBoolean() ? "CAL" : "OST",
                    random.nextInt(3) == 0 ? 16 * random.nextInt(6) : 0,
                    ""));
        }
        PlanCase plan = oneTechnician(jobs, 24);
        long best = bestOrder(plan, new ArrayList<>(), new ArrayList<>(jobs));

        assertThat(PlanSearch.run(plan, Map.of(), seed, STEPS).cost().total()).isEqualTo(best);
    }

    private static long bestOrder(PlanCase plan, List<PlanJob> order, List<PlanJob> left) {
        if (left.isEmpty()) {
            return cost(plan, order);
        }
        long best = Long.MAX_VALUE;
        for (PlanJob next : List.copyOf(left)) {
            left.remove(next);
            order.add(next);
            best = Math.min(best, bestOrder(plan, order, left));
            order.remove(order.size() - 1);
            left.add(next);
        }
        return best;
    }

    /** Three jobs with every rule of the board, against every combination of technician, bay and start. */
    @Test
    void smallCasesAreSolvedToTheBestOfAllPlans() {
        Random random = new Random(77);
        for (int round = 0; round < 6; round++) {
            PlanCase plan = Cases.random(random, 2, 2);
            long best = Long.MAX_VALUE;
            List<Place> all = everyPlace(plan.shop());
            for (Place first : all) {
                for (Place second : all) {
                    Map<Long, Place> places = new HashMap<>();
                    if (first.start() >= 0) {
                        places.put(0L, first);
                    }
                    if (second.start() >= 0) {
                        places.put(1L, second);
                    }
                    Referee.Verdict verdict = Referee.judge(plan, places);
                    best = verdict.broken().isEmpty() ? Math.min(best, verdict.cost()) : best;
                }
            }
            assertThat(PlanSearch.run(plan, Map.of(), round, STEPS).cost().total())
                    .as("round %d", round)
                    .isEqualTo(best);
        }
    }

    /** Every place there is, and one that stands for none. */
    private static List<Place> everyPlace(Shop shop) {
        List<Place> all = new ArrayList<>(List.of(new Place(0, 0, -1)));
        for (Shop.Technician t : shop.technicians()) {
            for (Shop.Bay b : shop.bays()) {
                for (int s = 0; s < shop.ruler().slots(); s++) {
                    all.add(new Place(t.id(), b.id(), s));
                }
            }
        }
        return all;
    }

    @ParameterizedTest
    @ValueSource(longs = {21, 22, 23, 24, 25, 26, 27, 28})
    void everyPlanHoldsEveryRuleAndItsCostIsRight(long seed) {
        PlanCase plan = Cases.random(new Random(seed), 30, 15);

        PlanSearch.Result found = PlanSearch.run(plan, Map.of(), seed, new PlanSearch.Budget.Steps(1_000));

        Referee.Verdict verdict = Referee.judge(plan, found.places());
        assertThat(verdict.broken()).isEmpty();
        assertThat(verdict.cost()).isEqualTo(found.cost().total());
        assertThat(found.cost().unplannedJobs()).isEqualTo(30 - found.places().size());
        assertThat(found.cost().total()).isLessThan(found.before().total());
    }

    // so many jobs that the searches share the days out among them
    @ParameterizedTest
    @ValueSource(longs = {31, 32, 33})
    void aLongBoardThatIsSearchedInPartsIsOnePlan(long seed) {
        PlanCase plan = Cases.random(new Random(seed), 120, 30);
        List<PlanSearch.Progress> seen = new ArrayList<>();

        PlanSearch.Result found =
                PlanSearch.run(plan, Map.of(), seed, new PlanSearch.Budget.Steps(1_500), seen::add, () -> false);

        Referee.Verdict verdict = Referee.judge(plan, found.places());
        assertThat(verdict.broken()).isEmpty();
        assertThat(verdict.cost())
                .isEqualTo(found.cost().total())
                .isEqualTo(seen.get(seen.size() - 1).best().total());
        assertThat(seen).extracting(p -> p.best().total()).isSortedAccordingTo(Comparator.reverseOrder());
        assertThat(PlanSearch.run(plan, Map.of(), seed, new PlanSearch.Budget.Steps(1_500))
                        .places())
                .isEqualTo(found.places());
    }

    // Source: W. E. Smith (1956), Naval Research Logistics Quarterly 3: on one machine jobs in the order of rate over
    // time
    @Test
    void onALongBoardAJobComesForwardFromItsLastDayToItsFirst() {
        List<PlanJob> jobs = new ArrayList<>();
        Map<Long, Place> backwards = new HashMap<>();
        for (int i = 0; i < 110; i++) {
            jobs.add(job(i + 1, 16, 100L + 10 * i, 0));
            backwards.put(i + 1L, new Place(1, 1, i * 16));
        }
        PlanCase plan = oneTechnician(jobs, 112);
        long best = cost(
                plan,
                jobs.stream()
                        .sorted(Comparator.comparing((PlanJob j) ->
                                        j.waits().perDay(plan.shop().today()))
                                .reversed())
                        .toList());

        PlanSearch.Result found = PlanSearch.run(plan, backwards, 1, STEPS);

        assertThat(found.before().total()).isGreaterThan(best * 3 / 2);
        assertThat((double) found.cost().total()).isBetween((double) best, best * 1.01);
    }

    @Test
    void sameSeedAndStepsGiveTheSamePlanAndAnotherSeedGoesAnotherWay() {
        PlanCase plan = Cases.random(new Random(5), 40, 15);
        List<Map<Long, Place>> plans = new ArrayList<>();
        for (long seed : new long[] {1, 1, 2}) {
            plans.add(PlanSearch.run(plan, Map.of(), seed, new PlanSearch.Budget.Steps(300))
                    .places());
        }
        assertThat(plans.get(1)).isEqualTo(plans.get(0));
        assertThat(plans.get(2)).isNotEqualTo(plans.get(0));
    }

    @Test
    void whatIsPromisedStaysAndWhatIsPromisedForATimeKeepsIt() {
        Random random = new Random(8);
        PlanCase plan = Cases.random(random, 25, 12);
        Map<Long, Place> first = PlanSearch.run(plan, Map.of(), 1, new PlanSearch.Budget.Steps(200))
                .places();
        List<Long> ids = new ArrayList<>(first.keySet());
        Collections.sort(ids);
        long fixed = ids.get(0);
        long timed = ids.get(1);
        PlanCase promised = plan.with(plan.job(fixed).with(new PlanJob.Pin.AtPlace(first.get(fixed))))
                .with(plan.job(timed)
                        .with(new PlanJob.Pin.AtStart(first.get(timed).start())));

        Map<Long, Place> second = PlanSearch.run(promised, Map.of(), 99, STEPS).places();

        assertThat(second).containsEntry(fixed, first.get(fixed));
        assertThat(second.get(timed).start()).isEqualTo(first.get(timed).start());
        assertThat(Referee.judge(promised, second).broken()).isEmpty();
    }

    @Test
    void aPriceForMovesKeepsAPlanCalm() {
        PlanCase plan = Cases.random(new Random(3), 30, 15);
        Map<Long, Place> known = PlanSearch.run(plan, Map.of(), 1, new PlanSearch.Budget.Steps(50))
                .places();
        List<PlanJob> jobs = plan.jobs().stream()
                .map(j -> known.containsKey(j.id()) ? Cases.knownAt(j, known.get(j.id())) : j)
                .toList();
        int calm = moved(withMovePrice(plan.shop(), jobs, 500), known);
        int restless = moved(withMovePrice(plan.shop(), jobs, 0), known);

        assertThat(calm).isLessThan(restless);
    }

    private static PlanCase withMovePrice(Shop s, List<PlanJob> jobs, long price) {
        return new PlanCase(
                new Shop(
                        s.ruler(),
                        s.today(),
                        s.now(),
                        s.technicians(),
                        s.bays(),
                        s.toolSets(),
                        s.fleets(),
                        new Shop.Prices(12, price, 300)),
                jobs);
    }

    private static int moved(PlanCase plan, Map<Long, Place> known) {
        PlanSearch.Result result = PlanSearch.run(plan, known, 4, new PlanSearch.Budget.Steps(1_500));
        assertThat(result.cost().total()).isLessThanOrEqualTo(result.before().total());
        int changes = (int) PlanChange.between(plan, known, result.places()).stream()
                .filter(c -> c.from().isPresent())
                .count();
        assertThat(result.cost().movedJobs()).isEqualTo(changes);
        return changes;
    }

    @Test
    void aStoppedRunKeepsItsBestAndTellsHowItStands() {
        PlanCase plan = Cases.random(new Random(6), 30, 15);
        List<PlanSearch.Progress> seen = new ArrayList<>();

        PlanSearch.Result result = PlanSearch.run(
                plan,
                Map.of(),
                1,
                new PlanSearch.Budget.Time(Duration.ofMinutes(5)),
                seen::add,
                () -> !seen.isEmpty() && seen.size() > 0);

        assertThat(seen).isNotEmpty();
        assertThat(seen.get(0).done()).isZero();
        assertThat(Referee.judge(plan, result.places()).broken()).isEmpty();
        assertThat(result.cost().total()).isLessThanOrEqualTo(seen.get(0).best().total());
    }

    @Test
    void progressOnlyGetsBetter() {
        List<PlanSearch.Progress> seen = new ArrayList<>();
        PlanSearch.run(
                Cases.random(new Random(16), 30, 15),
                Map.of(),
                1,
                new PlanSearch.Budget.Steps(800),
                seen::add,
                () -> false);

        assertThat(seen).hasSizeGreaterThan(10);
        assertThat(seen).extracting(p -> p.best().total()).isSortedAccordingTo(Comparator.reverseOrder());
        assertThat(seen).extracting(PlanSearch.Progress::done).isSorted().endsWith(1.0);
    }

    /** Of the usual day 08:00 to 12:00 and 13:00 to 17:00, with slots 0 to 15. */
    @Test
    void whoWorksInTheAfternoonOrBreaksAtAnotherTimeGetsWorkWheneverThereIsRoom() {
        Set<Integer> mornings = new HashSet<>();
        Set<Integer> teaBreaks = new HashSet<>();
        for (int day = 0; day < 3; day++) {
            for (int k = 0; k < 8; k++) {
                mornings.add(16 * day + k);
            }
            teaBreaks.add(16 * day + 3);
        }
        PlanJob first = job(1, 6, 20, 0);
        PlanJob second = job(2, 6, 10, 0);

        assertThat(startsWith(mornings, first)).containsExactly(8);
        // three half-hours, the break, three more; then the second
        assertThat(startsWith(teaBreaks, first, second)).containsExactly(0, 7);
        // begun in the break, work could not start there: it starts behind it
        assertThat(startsWith(teaBreaks, needing(first, "CAL", 3, "parts"))).containsExactly(4);
    }

    private static List<Integer> startsWith(Set<Integer> slotsOff, PlanJob... jobs) {
        PlanCase plan = new PlanCase(
                shop(
                        3,
                        0,
                        List.of(new Shop.Technician(1, "Ruan", Set.of("BELT"), 100, Set.of(), slotsOff)),
                        List.of(bay(1, 2)),
                        List.of(set("CAL", 1)),
                        9),
                List.of(jobs));
        return PlanSearch.run(plan, Map.of(), 1, new PlanSearch.Budget.Steps(50)).places().values().stream()
                .map(Place::start)
                .sorted()
                .toList();
    }

    @Test
    void nothingToPlanIsAPlan() {
        PlanCase plan = oneTechnician(List.of(), 5);
        assertThat(PlanSearch.run(plan, Map.of(), 1, STEPS).places()).isEmpty();
    }
}
