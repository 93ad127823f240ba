package knollfield.core.plan;

import static knollfield.core.plan.Cases.bay;
import static knollfield.core.plan.Cases.job;
import static knollfield.core.plan.Cases.needing;
import static knollfield.core.plan.Cases.ofFleet;
import static knollfield.core.plan.Cases.set;
import static knollfield.core.plan.Cases.shop;
import static knollfield.core.plan.Cases.technician;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import knollfield.core.plan.Broken.Rule;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The hard rules of the board in words, and against counting half-hour by half-hour. */
class BoardTest {

    private static final Shop.Technician HEDRA = technician(1, "Hedra Voss", 5, 6);
    private static final Shop.Technician ODO = technician(2, "Odo Brack", 0, 5, 6);

    private static Shop workshop(int now, int cap) {
        return shop(
                14,
                now,
                List.of(HEDRA, ODO),
                List.of(bay(1, 1), bay(2, 2)),
                List.of(set("CAL", 1), set("OST", 2)),
                cap);
    }

    private static PlanCase of(Shop shop, PlanJob... jobs) {
        return new PlanCase(shop, List.of(jobs));
    }

    private static List<String> words(Board board, long job, Place place) {
        return board.broken(job, place).stream().map(Broken::words).toList();
    }

    private static List<Rule> rules(Board board, long job, Place place) {
        return board.broken(job, place).stream().map(Broken::rule).toList();
    }

    @Test
    void aFreePlaceIsTakenAndAnsweredWithItsEnd() {
        Board board = Board.lay(of(workshop(0, 1), job(1, 10, 5, 3)), Map.of());

        board.place(1, new Place(1, 1, 8));

        assertThat(board.placeOf(1)).contains(new Place(1, 1, 8));
        // 8 half-hours of the afternoon and 2 of the next morning
        assertThat(board.endAt(1, new Place(1, 1, 8))).contains(18);
        assertThat(board.plan().shop().ruler().endOf(18)).isEqualTo(LocalDateTime.of(2026, 12, 1, 9, 0));
    }

    @Test
    void eachRuleOfOneJobIsSaidInWords() {
        PlanJob late = needing(job(1, 4, 5, 3), "CAL", 20, "parts come with Tuesday's ferry", 3);
        Board board = Board.lay(of(workshop(4, 1), late), Map.of());

        assertThat(words(board, 1, new Place(1, 1, 2))).containsExactly("That time has passed.");
        assertThat(words(board, 1, new Place(1, 1, 8)))
                .containsExactly("Not before Tue 1 Dec 10:00: parts come with Tuesday's ferry.");
        assertThat(words(board, 1, new Place(1, 1, 3 * 16)))
                .containsExactly("The vehicle cannot be here on Thursday 3 Dec.");
        assertThat(words(board, 1, new Place(1, 1, 5 * 16)))
                .containsExactly("Hedra Voss does not work on Saturday 5 Dec.");
        assertThat(words(board, 1, new Place(1, 1, 13 * 16 + 14)))
                .containsExactly("It would not be done by Sunday 13 Dec.");
        assertThat(rules(board, 1, new Place(1, 1, 14 * 16))).containsExactly(Rule.TOO_LATE);
    }

    @Test
    void whatHoldsTechnicianBayToolSetAndFleetIsNamed() {
        PlanJob first = ofFleet(job(1, 10, 5, 3));
        PlanJob second = ofFleet(job(2, 4, 5, 3));
        Board board = Board.lay(of(workshop(0, 1), first, second), Map.of(1L, new Place(1, 1, 0)));

        assertThat(words(board, 2, new Place(1, 1, 4)))
                .containsExactly(
                        "Hedra Voss has SKR 1 then, until Mon 30 Nov 14:00.",
                        "Bay 1 holds SKR 1 then, until Mon 30 Nov 14:00.",
                        "The only tool set for CAL is with SKR 1, until Mon 30 Nov 14:00.",
                        "Post vans: 1 of 1 off the road on Monday 30 Nov. SKR 1 is in. Room again on Tuesday 1 Dec.");
        assertThat(board.broken(2, new Place(1, 1, 4)).get(3).inTheWay()).containsExactly(1L);
        assertThat(words(board, 2, new Place(1, 1, 16))).isEmpty();
        assertThatThrownBy(() -> board.place(2, new Place(1, 1, 4)))
                .isInstanceOf(PlaceRefused.class)
                .hasMessageContaining("1 of 1 off the road");
        assertThat(board.placeOf(2)).isEmpty();
    }

    @Test
    void skillLiftClosedBayAndBrokenToolSetAreSaid() {
        Shop shop = new Shop(
                new Ruler(Cases.MONDAY, 5),
                0,
                0,
                List.of(new Shop.Technician(1, "Wenna Tal", Set.of("BELT"), 100, Set.of())),
                List.of(new Shop.Bay(1, "Bay 3", 1, Set.of(1))),
                List.of(new Shop.ToolSet("CAL", "Calder 1.6", 1, Map.of(2, 1))),
                List.of(),
                Cases.PRICES);
        PlanJob heavy = new PlanJob(
                1,
                "SKR 1",
                "CAL",
                Set.of("CHAIN"),
                4,
                0,
                2,
                0,
                "",
                Set.of(),
                java.util.OptionalLong.empty(),
                new WaitingCost.Doubling(1, 0),
                1,
                new PlanJob.Pin.Free(),
                Optional.empty());
        PlanJob light = job(2, 4, 1, 0);
        Board board = Board.lay(of(shop, heavy, light), Map.of());

        assertThat(words(board, 1, new Place(1, 1, 0)))
                .containsExactly("Wenna Tal does not do this work (CHAIN).", "Bay 3 is too light for this vehicle.");
        assertThat(words(board, 2, new Place(1, 1, 16))).containsExactly("Bay 3 is closed on Tuesday 1 Dec.");
        assertThat(words(board, 2, new Place(1, 1, 32)))
                .containsExactly("No tool set for Calder 1.6 can be used on Wednesday 2 Dec.");
    }

    @Test
    void aJobOverNightKeepsItsBayAndToolSetWhileItsTechnicianIsAway() {
        // Friday noon, the weekend between, Monday morning
        Board board = Board.lay(
                of(workshop(0, 1), job(1, 10, 5, 3), job(2, 4, 5, 3)), Map.of(1L, new Place(1, 1, 4 * 16 + 8)));

        assertThat(board.endAt(1, new Place(1, 1, 4 * 16 + 8))).contains(7 * 16 + 2);
        assertThat(rules(board, 2, new Place(2, 1, 7 * 16))).containsExactly(Rule.BAY_BUSY, Rule.TOOL_SET_BUSY);
        assertThat(board.share(1).orElseThrow().daysOffRoad()).isEqualTo(4);
    }

    @Test
    void promisesAreLaidFirstAndWhatCollidesIsSaid() {
        Place place = new Place(1, 1, 0);
        PlanJob promised = Cases.knownAt(job(1, 4, 5, 3).with(new PlanJob.Pin.AtPlace(place)), place);
        PlanJob other = job(2, 4, 5, 3).with(new PlanJob.Pin.AtPlace(new Place(1, 2, 2)));
        PlanJob free = job(3, 4, 5, 3);

        Board board = Board.lay(of(workshop(0, 1), free, other, promised), Map.of(3L, place));

        assertThat(board.placeOf(1)).contains(place);
        assertThat(board.clashes().keySet()).containsExactlyInAnyOrder(2L, 3L);
        assertThat(board.clashes().get(2L)).extracting(Broken::rule).contains(Rule.TECHNICIAN_BUSY);
        // a promise that collides is not planned anew by itself, and does not make every plan look dear
        assertThat(board.cost().unplannedJobs()).isEqualTo(1);
    }

    @Test
    void aJobWhosePartsComeLaterNowStillHoldsItsPlaceAndSaysSo() {
        PlanJob late = needing(job(1, 4, 5, 3), "OST", 20, "parts come with Tuesday's ferry");
        Place place = new Place(1, 1, 0);
        PlanCase plan = of(workshop(0, 1), late, job(2, 4, 5, 3));
        Board board = Board.lay(plan, Map.of(1L, place));

        assertThat(board.placeOf(1)).contains(place);
        assertThat(board.clashes().get(1L)).extracting(Broken::rule).containsExactly(Rule.NOT_THERE_YET);
        assertThat(rules(board, 2, place)).containsExactly(Rule.TECHNICIAN_BUSY, Rule.BAY_BUSY);
        assertThat(board.cost().unplannedJobs()).isEqualTo(1);
        // no plan may begin with it there, and every plan gives it a place it can start at
        assertThat(Board.lawfulCost(plan, Map.of(1L, place)).unplannedJobs()).isEqualTo(2);
        Map<Long, Place> planned = PlanSearch.run(plan, Map.of(1L, place), 1, new PlanSearch.Budget.Steps(50))
                .places();
        assertThat(Referee.judge(plan, planned).broken()).isEmpty();
        assertThat(planned.get(1L).start()).isGreaterThanOrEqualTo(20);
    }

    @Test
    void aPromiseWithoutItsPartsStaysAndSaysSo() {
        Place place = new Place(1, 1, 8);
        PlanJob promised =
                needing(job(1, 4, 5, 3), "OST", 20, "parts come later").with(new PlanJob.Pin.AtPlace(place));
        PlanCase plan = of(workshop(0, 1), promised);

        assertThat(Board.lay(plan, Map.of()).clashes().get(1L))
                .extracting(Broken::words)
                .containsExactly("Not before Tue 1 Dec 10:00: parts come later.");
        assertThat(PlanSearch.run(plan, Map.of(), 1, new PlanSearch.Budget.Steps(20))
                        .places())
                .containsEntry(1L, place);
    }

    @Test
    void takingAJobOffFreesItsPlace() {
        Board board = Board.lay(of(workshop(0, 1), job(1, 4, 5, 3), job(2, 4, 5, 3)), Map.of(1L, new Place(1, 1, 0)));
        PlanCost with = board.cost();

        board.remove(1);

        assertThat(board.broken(2, new Place(1, 1, 0))).isEmpty();
        assertThat(board.cost().unplannedJobs()).isEqualTo(with.unplannedJobs() + 1);
        board.remove(1);
        assertThat(board.placeOf(1)).isEmpty();
    }

    @Test
    void aJobWithoutAPlaceIsExposedToTheEndOfTheRulerAndHasAPriceBesides() {
        // 14 days, act-by on day 3: three at 5, eleven at 10
        Board board = Board.lay(of(workshop(0, 1), job(1, 4, 5, 3)), Map.of());

        assertThat(board.cost().exposure()).isEqualTo(3 * 5 + 11 * 10);
        assertThat(board.cost().unplanned()).isEqualTo(300);
        assertThat(board.alone(1, Optional.empty())).isEqualTo(125 + 300);
        // over one night: two days off the road at 10, one day of waiting at 5
        assertThat(board.alone(1, Optional.of(new Place(1, 1, 16 + 14)))).isEqualTo(5 + 2 * 10);
        board.place(1, new Place(1, 1, 16 + 14));
        assertThat(board.cost()).isEqualTo(new PlanCost(5, 0, 20, 0, 0, 0, 2, 0));
        assertThat(board.cost().total()).isEqualTo(25);
    }

    @Test
    void aCaseThatRefersToWhatIsNotThereIsRefused() {
        assertThatThrownBy(() -> of(workshop(0, 1), needing(job(1, 1, 1, 1), "NONE", 0, "")))
                .hasMessageContaining("NONE");
        assertThatThrownBy(() -> of(workshop(0, 1), job(1, 1, 1, 1), job(1, 2, 1, 1)))
                .hasMessageContaining("twice");
        assertThatThrownBy(() -> job(1, 0, 1, 1)).hasMessageContaining("cannot be planned");
        assertThatThrownBy(() -> Board.lay(of(workshop(0, 1)), Map.of()).placeOf(9))
                .hasMessageContaining("job 9");
    }

    /** The sentences, the search's own quick test and a referee that counts half-hours agree on ten thousand places. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5})
    void wordsSearchAndRefereeAgree(long seed) {
        Random random = new Random(seed);
        int refused = 0;
        int tried = 0;
        for (int round = 0; round < 20; round++) {
            PlanCase plan = Cases.random(random, 8, 6);
            Board board = Board.lay(plan, Map.of());
            for (int i = 0; i < 100; i++) {
                long id = random.nextInt(8);
                Place place = new Place(
                        1 + random.nextInt(plan.shop().technicians().size()),
                        1 + random.nextInt(plan.shop().bays().size()),
                        random.nextInt(plan.shop().ruler().slots()));
                board.remove(id);
                Map<Long, Place> with = new java.util.HashMap<>(board.places());
                with.put(id, place);
                boolean lawful = Referee.judge(plan, with).broken().isEmpty();
                List<Broken> broken = board.broken(id, place);
                assertThat(broken.isEmpty())
                        .as("%s at %s: %s", id, place, broken)
                        .isEqualTo(lawful);
                assertThat(board.tracks()
                                .fits(
                                        (int) id,
                                        board.tracks().technician(place),
                                        board.tracks().bay(place),
                                        place.start()))
                        .isEqualTo(lawful);
                if (lawful) {
                    board.place(id, place);
                }
                assertThat(board.cost().total())
                        .isEqualTo(Referee.judge(plan, board.places()).cost());
                assertThat(board.tracks().cost()).isEqualTo(board.cost().total());
                refused += lawful ? 0 : 1;
                tried++;
            }
        }
        assertThat(refused).isBetween(tried / 10, tried * 19 / 20);
    }

    @ParameterizedTest(name = "{0} slot {1}, {2} minutes ends {3}")
    @CsvSource({
        "2026-11-30, 0, 240, 2026-11-30T12:00", "2026-11-30, 0, 241, 2026-11-30T13:30",
        "2026-11-30, 8, 30, 2026-11-30T13:30", "2026-12-04, 12, 240, 2026-12-07T10:00"
    })
    void workEndsAfterItsHalfHours(LocalDate day, int slot, int minutes, LocalDateTime end) {
        assertThat(new Ruler(day, 14).end(day.atTime(Ruler.USUAL_TIMES.get(slot)), minutes, WorkHours.usual()))
                .contains(end);
        Board board = Board.lay(of(workshop(0, 1), job(1, (minutes + 29) / 30, 1, 1)), Map.of());
        Ruler ruler = board.plan().shop().ruler();
        assertThat(board.endAt(1, new Place(1, 1, ruler.day(day) * 16 + slot)).map(ruler::endOf))
                .contains(end);
    }

    @Test
    void slotsAndTimesSayTheSame() {
        Ruler ruler = new Ruler(Cases.MONDAY, 14);
        for (int slot = 0; slot < ruler.slots(); slot++) {
            assertThat(ruler.slotAt(ruler.startOf(slot))).hasValue(slot);
            assertThat(ruler.slotFrom(ruler.startOf(slot))).isEqualTo(slot);
            assertThat(ruler.slotFrom(ruler.startOf(slot).minusMinutes(29))).isEqualTo(slot);
        }
        assertThat(ruler.slotAt(Cases.MONDAY.atTime(12, 0))).isEmpty();
        assertThat(ruler.slotAt(Cases.MONDAY.atTime(8, 10))).isEmpty();
        assertThat(ruler.slotAt(Cases.MONDAY.minusDays(1).atTime(8, 0))).isEmpty();
        assertThat(ruler.slotFrom(Cases.MONDAY.atTime(17, 0))).isEqualTo(16);
        assertThat(ruler.slotFrom(Cases.MONDAY.minusDays(3).atTime(9, 0))).isZero();
    }
}
