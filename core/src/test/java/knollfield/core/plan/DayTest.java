package knollfield.core.plan;

import static knollfield.core.plan.Cases.bay;
import static knollfield.core.plan.Cases.job;
import static knollfield.core.plan.Cases.ofFleet;
import static knollfield.core.plan.Cases.set;
import static knollfield.core.plan.Cases.shop;
import static knollfield.core.plan.Cases.technician;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import knollfield.core.stores.PartsPlan;
import knollfield.core.stores.PartsPlan.Supply;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a day comes to, from when a job can start, and what must move together. */
class DayTest {

    private static final Ruler RULER = new Ruler(Cases.MONDAY, 14);

    private static Shop two(int now, int cap) {
        return shop(
                5,
                now,
                List.of(technician(1, "Hedra Voss"), technician(2, "Odo Brack", 0)),
                List.of(bay(1, 1), bay(2, 1)),
                List.of(set("CAL", 2)),
                cap);
    }

    private static Board laid(Shop shop, Map<Long, Place> places) {
        return Board.lay(
                new PlanCase(shop, List.of(ofFleet(job(1, 10, 5, 3)), ofFleet(job(2, 4, 5, 3)), job(3, 4, 5, 3))),
                places);
    }

    @Test
    void freeTimeIsWhatJobsLeaveOfTheTechniciansWhoWork() {
        Board board = laid(two(0, 2), Map.of(1L, new Place(1, 1, 8)));

        // Monday Hedra alone: half a day left; Tuesday both, less the two half-hours the job runs over
        assertThat(DaySums.of(board, 0).freeMinutes()).isEqualTo(8 * 30);
        assertThat(DaySums.of(board, 1).freeMinutes()).isEqualTo((32 - 2) * 30);
        assertThat(DaySums.of(laid(two(12, 2), Map.of()), 0).freeMinutes())
                .as("from now on")
                .isEqualTo(4 * 30);
        assertThat(DaySums.of(laid(two(40, 2), Map.of()), 0).freeMinutes())
                .as("a day that has passed")
                .isZero();
    }

    /** Counted half-hour by half-hour instead. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void freeTimeAndCopiesAgreeWithCounting(long seed) {
        PlanCase plan = Cases.random(new Random(seed), 14, 8);
        Board board = Board.lay(
                plan,
                PlanSearch.run(plan, Map.of(), seed, new PlanSearch.Budget.Steps(40))
                        .places());
        for (int day = 0; day < 8; day++) {
            int free = 0;
            for (Shop.Technician t : plan.shop().technicians()) {
                int perDay = plan.shop().ruler().perDay();
                for (int s = day * perDay; s < (day + 1) * perDay; s++) {
                    int at = s;
                    boolean taken = board.places().entrySet().stream()
                            .anyMatch(e -> e.getValue().technicianId() == t.id()
                                    && e.getValue().start() <= at
                                    && at
                                            < board.endAt(e.getKey(), e.getValue())
                                                    .orElseThrow());
                    free += s >= plan.shop().now()
                                    && !t.daysOff().contains(day)
                                    && !t.slotsOff().contains(s)
                                    && !taken
                            ? 30
                            : 0;
                }
            }
            assertThat(DaySums.of(board, day).freeMinutes()).as("day %d", day).isEqualTo(free);
        }
        Map<Long, Integer> copies = DaySums.copies(board);
        assertThat(copies.keySet()).isEqualTo(board.places().keySet());
        copies.forEach((a, copy) -> copies.forEach((b, other) -> {
            Place x = board.places().get(a);
            Place y = board.places().get(b);
            boolean together = x.start() < board.endAt(b, y).orElseThrow()
                    && y.start() < board.endAt(a, x).orElseThrow();
            boolean sameSet = plan.job(a).toolSet().equals(plan.job(b).toolSet());
            if (!a.equals(b) && sameSet && together) {
                assertThat(copy).as("copies of %d and %d", a, b).isNotEqualTo(other);
            }
        }));
        assertThat(copies.values()).allSatisfy(c -> assertThat(c).isBetween(1, 2));
    }

    @Test
    void aFleetIsFullWhereItsCapIsReached() {
        Board board = laid(two(0, 1), Map.of(1L, new Place(1, 1, 8), 3L, new Place(2, 2, 16)));

        assertThat(DaySums.of(board, 0).full())
                .containsExactly(new DaySums.FullFleet(new Shop.Fleet(7, "Post vans", 1), 1));
        assertThat(DaySums.of(board, 1).full()).as("over night").hasSize(1);
        assertThat(DaySums.of(board, 2).full()).isEmpty();
        assertThat(DaySums.of(laid(two(0, 2), Map.of(1L, new Place(1, 1, 8))), 0)
                        .full())
                .isEmpty();
    }

    private static PartsPlan.Served served(String part, Supply supply) {
        return new PartsPlan.Served(new PartsPlan.Need(1, part, Optional.empty(), 0), supply);
    }

    @Test
    void aJobStartsWhenTheLastOfWhatItWaitsForIsThere() {
        LocalDate tuesday = Cases.MONDAY.plusDays(1);
        PartsPlan.Served here = served("P-1", new Supply.InHouse());
        PartsPlan.Served coming = served("P-2", new Supply.Ordered(tuesday));
        PartsPlan.Served missing =
                served("P-3", new Supply.ToOrder(Optional.of(tuesday.plusDays(3)), Optional.empty()));

        assertThat(Earliest.of(RULER, 5, List.of(here), Optional.empty(), Optional.empty()))
                .isEqualTo(new Earliest(5, ""));
        // the boat is unpacked by 13:00, the ninth half-hour of the day
        assertThat(Earliest.of(RULER, 5, List.of(here, coming), Optional.empty(), Optional.empty()))
                .isEqualTo(new Earliest(16 + 8, "part P-2 is ordered and comes with the delivery of that day"));
        assertThat(Earliest.of(RULER, 5, List.of(coming, missing), Optional.of(tuesday), Optional.empty()))
                .isEqualTo(new Earliest(
                        4 * 16 + 8,
                        "part P-3 is not ordered yet; ordered today it comes with the delivery of that day"));
        assertThat(Earliest.of(RULER, 5, List.of(), Optional.of(tuesday), Optional.empty()))
                .isEqualTo(new Earliest(16, "the owner has not agreed to the estimate yet"));
        assertThat(Earliest.of(RULER, 5, List.of(coming), Optional.of(tuesday), Optional.of(Cases.MONDAY.plusDays(2))))
                .isEqualTo(new Earliest(32, "the owner does not want it sooner"));
        assertThat(Earliest.of(RULER, 5, List.of(), Optional.of(Cases.MONDAY), Optional.empty()))
                .as("what is over keeps nothing waiting")
                .isEqualTo(new Earliest(5, ""));
    }

    @Test
    void aPlaceIsPinnedByAPromiseOrByItsTime() {
        Place place = new Place(1, 1, 20);
        assertThat(PlanJob.Pin.of(place, false, 20)).isEqualTo(new PlanJob.Pin.Free());
        assertThat(PlanJob.Pin.of(place, true, 20)).isEqualTo(new PlanJob.Pin.AtPlace(place));
        assertThat(PlanJob.Pin.of(place, false, 21)).isEqualTo(new PlanJob.Pin.AtPlace(place));
    }

    @Test
    void onlyOpenDaysAreClosedToAVehicle() {
        Shop weekdays =
                shop(14, 0, List.of(technician(1, "T", 5, 6, 12, 13)), List.of(bay(1, 1)), List.of(set("CAL", 1)), 1);

        assertThat(weekdays.closedTo(Set.of())).isEmpty();
        assertThat(weekdays.closedTo(EnumSet.of(DayOfWeek.TUESDAY, DayOfWeek.FRIDAY)))
                .containsExactlyInAnyOrder(0, 2, 3, 7, 9, 10);
        assertThat(weekdays.closedTo(EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY)))
                .isEmpty();
    }

    @Test
    void aChangeNamesTheChangesItNeeds() {
        PlanCase plan = new PlanCase(
                two(0, 9), IntStream.range(1, 4).mapToObj(i -> job(i, 16, 5, 3)).toList());
        Map<Long, Place> before = Map.of(1L, new Place(1, 1, 0), 2L, new Place(1, 1, 16));
        // the third takes the first one's place, the first the second one's, the second a free one
        Map<Long, Place> after = Map.of(3L, new Place(1, 1, 0), 1L, new Place(1, 1, 16), 2L, new Place(1, 1, 32));
        List<PlanChange> changes = PlanChange.between(plan, before, after);

        assertThat(changes).hasSize(3);
        assertThat(PlanChange.needs(plan, before, changes)).isEqualTo(Map.of(3L, Set.of(1L), 1L, Set.of(2L)));
    }

    @Test
    void whatIsPinnedDoesNotMove() {
        Place place = new Place(1, 1, 0);
        PlanCase plan = new PlanCase(two(0, 9), List.of(job(1, 4, 5, 3).with(new PlanJob.Pin.AtPlace(place))));
        assertThat(PlanChange.between(plan, Map.of(1L, place), Map.of())).isEmpty();
    }

    @Test
    void theRulerSaysWhenWorkEnds() {
        assertThat(RULER.endOf(8)).isEqualTo(LocalDateTime.of(2026, 11, 30, 12, 0));
        assertThat(RULER.endOf(9)).isEqualTo(LocalDateTime.of(2026, 11, 30, 13, 30));
        assertThat(RULER.endOf(16)).isEqualTo(LocalDateTime.of(2026, 11, 30, 17, 0));
    }
}
