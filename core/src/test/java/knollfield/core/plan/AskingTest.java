package knollfield.core.plan;

import static knollfield.core.plan.Cases.bay;
import static knollfield.core.plan.Cases.job;
import static knollfield.core.plan.Cases.needing;
import static knollfield.core.plan.Cases.set;
import static knollfield.core.plan.Cases.shop;
import static knollfield.core.plan.Cases.technician;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Offers, what if, and why: asked of the same board. */
class AskingTest {

    private static final Shop ONE = shop(
            5, 0, List.of(technician(1, "Hedra Voss")), List.of(bay(1, 1)), List.of(set("CAL", 1), set("OST", 1)), 1);

    @Test
    void anOfferSaysWhatItCostsThoseWhoStillWait() {
        // both take a whole day; the other is worth more each day it waits
        PlanJob asked = job(1, 16, 5, 100);
        PlanJob waiting = job(2, 16, 40, 100);
        List<Offers.Offer> offers = Offers.best(new PlanCase(ONE, List.of(asked, waiting)), Map.of(), 1, 5);

        assertThat(offers).hasSize(5);
        // on Tuesday the other still has Monday: nothing lost; on Monday the other waits a day longer
        Offers.Offer tuesday = offers.get(0);
        assertThat(tuesday.place().start()).isEqualTo(16);
        assertThat(tuesday.share().waiting()).isEqualTo(5);
        assertThat(tuesday.restMinor()).isZero();
        assertThat(tuesday.later()).isEmpty();
        Offers.Offer monday =
                offers.stream().filter(o -> o.place().start() == 0).findFirst().orElseThrow();
        assertThat(monday.restMinor()).isEqualTo(40);
        assertThat(monday.later()).containsExactly(new Offers.Later(2, "SKR 2", java.util.OptionalInt.of(1)));
        assertThat(offers).extracting(Offers.Offer::total).isSorted();
    }

    @Test
    void anOfferRespectsTheDaysOfTheVehicleAndItsParts() {
        PlanJob asked = needing(job(1, 4, 5, 100), "CAL", 16, "parts", 2, 3);
        List<Offers.Offer> offers = Offers.best(new PlanCase(ONE, List.of(asked)), Map.of(), 1, 5);

        assertThat(offers).extracting(o -> ONE.ruler().dayOf(o.place().start())).containsExactly(1, 4);
    }

    @Test
    void aJobWithAPlaceIsOfferedOthersToo() {
        Place here = new Place(1, 1, 0);
        PlanJob planned = Cases.knownAt(job(1, 16, 5, 100).with(new PlanJob.Pin.AtPlace(here)), here);
        List<Offers.Offer> offers = Offers.best(new PlanCase(ONE, List.of(planned)), Map.of(1L, here), 1, 2);

        assertThat(offers).extracting(o -> o.place().start()).contains(0, 16);
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3})
    void everyOfferCanBeTaken(long seed) {
        PlanCase plan = Cases.random(new Random(seed), 15, 10);
        Map<Long, Place> places = PlanSearch.run(plan, Map.of(), 1, new PlanSearch.Budget.Steps(30))
                .places();
        long asked = plan.jobs().get(0).id();
        Map<Long, Place> others = new HashMap<>(places);
        others.remove(asked);
        for (Offers.Offer offer : Offers.best(plan, places, asked, 5)) {
            others.put(asked, offer.place());
            assertThat(Referee.judge(plan, others).broken()).isEmpty();
        }
    }

    private static Shop without(Shop s, long technician, Integer... days) {
        return new Shop(
                s.ruler(),
                s.today(),
                s.now(),
                s.technicians().stream()
                        .map(t -> t.id() == technician
                                ? new Shop.Technician(t.id(), t.name(), t.skills(), t.speedPercent(), Set.of(days))
                                : t)
                        .toList(),
                s.bays(),
                s.toolSets(),
                s.fleets(),
                s.prices());
    }

    @Test
    void ifATechnicianIsAwayAPromiseIsKeptBySomebodyElseAndNobodyElseMoves() {
        Shop two = shop(
                5,
                0,
                List.of(technician(1, "Hedra Voss"), technician(2, "Odo Brack")),
                List.of(bay(1, 1), bay(2, 1)),
                List.of(set("CAL", 3)),
                3);
        Place promised = new Place(1, 1, 16);
        PlanJob a = Cases.knownAt(job(1, 8, 5, 100).with(new PlanJob.Pin.AtPlace(promised)), promised);
        Place planned = new Place(1, 1, 0);
        PlanJob b = Cases.knownAt(job(2, 8, 5, 100), planned);
        Place undisturbed = new Place(2, 2, 0);
        PlanJob c = Cases.knownAt(job(3, 8, 50, 100), undisturbed);
        PlanJob waiting = job(4, 8, 50, 100);
        PlanCase now = new PlanCase(two, List.of(a, b, c, waiting));
        Map<Long, Place> places = Map.of(1L, promised, 2L, planned, 3L, undisturbed);

        WhatIf.Answer answer = WhatIf.of(now, places, new PlanCase(without(two, 1, 0, 1), now.jobs()), 1, 200);

        assertThat(answer.struck().keySet()).containsExactlyInAnyOrder(1L, 2L);
        assertThat(answer.promisesBroken()).isEmpty();
        assertThat(answer.places().get(1L)).isEqualTo(new Place(2, 1, 16));
        assertThat(answer.places()).containsEntry(3L, undisturbed);
        assertThat(answer.changes()).extracting(PlanChange::jobId).containsExactly(1L, 2L);
        assertThat(answer.after().total()).isGreaterThan(answer.before().total());
        assertThat(Board.lay(new PlanCase(without(two, 1, 0, 1), List.of(b, c)), answer.places())
                        .clashes())
                .isEmpty();
    }

    @Test
    void ifTheFerryDoesNotComeAPromiseIsBrokenAndAPlannedJobMoves() {
        Shop two = shop(
                5,
                0,
                List.of(technician(1, "Hedra Voss"), technician(2, "Odo Brack")),
                List.of(bay(1, 1), bay(2, 1)),
                List.of(set("CAL", 3)),
                3);
        Place promised = new Place(1, 1, 16);
        Place planned = new Place(2, 2, 16);
        PlanJob a = Cases.knownAt(job(1, 8, 5, 100).with(new PlanJob.Pin.AtPlace(promised)), promised);
        PlanJob b = Cases.knownAt(job(2, 8, 5, 100), planned);
        PlanCase now = new PlanCase(two, List.of(a, b));
        PlanCase then = new PlanCase(
                two, List.of(needing(a, "CAL", 40, "no ferry before"), needing(b, "CAL", 40, "no ferry before")));

        WhatIf.Answer answer = WhatIf.of(now, Map.of(1L, promised, 2L, planned), then, 1, 200);

        assertThat(answer.struck().keySet()).containsExactlyInAnyOrder(1L, 2L);
        assertThat(answer.struck().get(1L)).extracting(Broken::rule).containsExactly(Broken.Rule.NOT_THERE_YET);
        assertThat(answer.promisesBroken()).containsExactly(1L);
        assertThat(answer.places().values())
                .allSatisfy(p -> assertThat(p.start()).isGreaterThanOrEqualTo(40));
        assertThat(answer.changes()).extracting(PlanChange::jobId).containsExactly(1L, 2L);
    }

    @Test
    void aPromiseNobodyCanKeepIsSaidToBeBrokenAndStillGetsAPlace() {
        Place promised = new Place(1, 1, 0);
        PlanJob a = Cases.knownAt(job(1, 8, 5, 100).with(new PlanJob.Pin.AtPlace(promised)), promised);
        PlanCase now = new PlanCase(ONE, List.of(a));

        WhatIf.Answer answer =
                WhatIf.of(now, Map.of(1L, promised), new PlanCase(without(ONE, 1, 0), List.of(a)), 1, 200);

        assertThat(answer.promisesBroken()).containsExactly(1L);
        assertThat(answer.places().get(1L).start()).isEqualTo(16);
    }

    @Test
    void aVehicleOnTheLiftStaysThereWhenItsTechnicianFallsIll() {
        Shop ill = shop(5, 6, List.of(technician(1, "Hedra Voss", 0)), List.of(bay(1, 1)), List.of(set("CAL", 1)), 1);
        Place begun = new Place(1, 1, 2);
        PlanJob a = Cases.knownAt(job(1, 8, 5, 100).with(new PlanJob.Pin.AtPlace(begun)), begun);
        PlanJob b = job(2, 4, 5, 100);
        Board board = Board.lay(new PlanCase(ill, List.of(a, b)), Map.of(1L, begun));

        assertThat(board.placeOf(1)).contains(begun);
        assertThat(board.endAt(1, begun)).contains(10);
        assertThat(board.clashes().get(1L)).extracting(Broken::rule).containsExactly(Broken.Rule.DAY_OFF);
        Shop well = shop(5, 6, List.of(technician(1, "Hedra Voss")), List.of(bay(1, 1)), List.of(set("CAL", 1)), 1);
        PlanCase now = new PlanCase(well, List.of(a, b));
        assertThat(WhatIf.of(now, Map.of(1L, begun), new PlanCase(ill, List.of(a, b)), 1, 50)
                        .struck())
                .isEmpty();
    }

    @Test
    void whoIsFreeAndKnowsTheWorkMayTakeOverWhatIsOnTheLift() {
        Shop.Technician chainsOnly = new Shop.Technician(4, "Perran Loy", Set.of("CHAIN"), 100, Set.of());
        List<Shop.Technician> others =
                List.of(technician(2, "Odo Brack"), technician(3, "Wenna Tal"), chainsOnly, technician(5, "Kit", 0));
        List<Shop.Technician> all = new java.util.ArrayList<>(List.of(technician(1, "Hedra Voss")));
        all.addAll(others);
        List<Shop.Technician> ill = new java.util.ArrayList<>(List.of(technician(1, "Hedra Voss", 0)));
        ill.addAll(others);
        List<Shop.Bay> bays = List.of(bay(1, 1), bay(2, 1));
        Shop now = shop(5, 6, all, bays, List.of(set("CAL", 2)), 3);
        Place begun = new Place(1, 1, 2);
        Place busy = new Place(3, 2, 9);
        PlanJob a = Cases.knownAt(job(1, 8, 5, 100).with(new PlanJob.Pin.AtPlace(begun)), begun);
        PlanJob b = Cases.knownAt(job(2, 4, 5, 100).with(new PlanJob.Pin.AtPlace(busy)), busy);
        Map<Long, Place> places = Map.of(1L, begun, 2L, busy);

        WhatIf.Answer answer = WhatIf.of(
                new PlanCase(now, List.of(a, b)),
                places,
                new PlanCase(shop(5, 6, ill, bays, List.of(set("CAL", 2)), 3), List.of(a, b)),
                1,
                50);
        // it would have ended at slot 10; Wenna begins another at 9, Perran does no belts, Kit is off
        assertThat(answer.onLift()).containsExactly(new WhatIf.OnLift(1, 4, List.of(2L)));
        // away on its second day only: whoever is away does not take over from herself
        Place overNight = new Place(1, 1, 2);
        PlanJob twoDays = Cases.knownAt(job(1, 20, 5, 100).with(new PlanJob.Pin.AtPlace(overNight)), overNight);
        assertThat(WhatIf.of(
                                new PlanCase(now, List.of(twoDays)),
                                Map.of(1L, overNight),
                                new PlanCase(without(now, 1, 1), List.of(twoDays)),
                                1,
                                50)
                        .onLift())
                .containsExactly(new WhatIf.OnLift(1, 16, List.of(2L, 3L, 5L)));
        // checked in sooner than was planned: it is on the lift all the same, and stays there
        Place sooner = new Place(1, 1, 8);
        PlanJob early = Cases.knownAt(job(1, 8, 5, 100).with(new PlanJob.Pin.AtPlace(sooner, true)), sooner);
        WhatIf.Answer early2 = WhatIf.of(
                new PlanCase(now, List.of(early)),
                Map.of(1L, sooner),
                new PlanCase(shop(5, 6, ill, bays, List.of(set("CAL", 2)), 3), List.of(early)),
                1,
                50);
        assertThat(early2.struck()).isEmpty();
        assertThat(early2.changes()).isEmpty();
        assertThat(early2.onLift()).containsExactly(new WhatIf.OnLift(1, 8, List.of(2L, 3L)));
        assertThat(WhatIf.of(
                                new PlanCase(now, List.of(a, b)),
                                places,
                                new PlanCase(without(now, 1, 1), List.of(a, b)),
                                1,
                                50)
                        .onLift())
                .as("away from tomorrow on, when it is done")
                .isEmpty();
    }

    @Test
    void ifNothingIsStruckNothingMoves() {
        Place here = new Place(1, 1, 0);
        PlanJob a = Cases.knownAt(job(1, 8, 5, 100), here);
        PlanCase now = new PlanCase(ONE, List.of(a));

        WhatIf.Answer answer = WhatIf.of(now, Map.of(1L, here), new PlanCase(without(ONE, 1, 4), List.of(a)), 1, 50);

        assertThat(answer.changes()).isEmpty();
        assertThat(answer.struck()).isEmpty();
        assertThat(answer.after()).isEqualTo(answer.before());
    }

    private static String text(List<Statement> statements) {
        StringBuilder all = new StringBuilder();
        for (Statement s : statements) {
            String line = s.template();
            for (int i = 0; i < s.facts().size(); i++) {
                Fact f = s.facts().get(i);
                line = line.replace(
                        "{" + i + "}",
                        f instanceof Fact.Money m
                                ? m.minor() + ""
                                : f instanceof Fact.Day d ? d.date().toString() : ((Fact.Words) f).words());
            }
            all.append(line).append('\n');
        }
        return all.toString();
    }

    @Test
    void whyHereSaysWhatItCostsWhatStandsSoonerAndWhatWouldBeNext() {
        PlanJob first = job(1, 16, 40, 100);
        PlanJob second = job(2, 16, 5, 0);
        Board board = Board.lay(
                new PlanCase(ONE, List.of(first, second)), Map.of(1L, new Place(1, 1, 0), 2L, new Place(1, 1, 16)));

        String why = text(Why.here(board, 2));

        // overdue, so double: 10 for the one day
        assertThat(why)
                .contains("Waiting until 2026-12-01 may cost 10, one day off the road 10.")
                .contains("2026-11-30: Hedra Voss has SKR 1 then, until Mon 30 Nov 17:00.")
                .contains("Later, 2026-12-02 with Hedra Voss would be next: 10 dearer.");
        assertThat(board.placeOf(2)).contains(new Place(1, 1, 16));
        assertThat(Why.notPlanned(board, 2)).isEmpty();
    }

    @Test
    void ofADayWithoutAPlaceTheOneThatIsNearestSaysWhy() {
        PlanJob first = job(1, 16, 40, 100);
        PlanJob second = needing(job(2, 16, 5, 0), "OST", 0, "");
        // the first bay takes no such vehicle, the second one would do, but for who is busy in the third
        Shop shop = shop(
                5,
                0,
                List.of(technician(1, "Hedra Voss")),
                List.of(bay(1, 0), bay(2, 1), bay(3, 1)),
                List.of(set("CAL", 1), set("OST", 1)),
                1);
        Board board = Board.lay(
                new PlanCase(shop, List.of(first, second)), Map.of(1L, new Place(1, 3, 0), 2L, new Place(1, 2, 16)));

        assertThat(text(Why.here(board, 2)))
                .contains("2026-11-30: Hedra Voss has SKR 1 then, until Mon 30 Nov 17:00.")
                .doesNotContain("Bay 1");
    }

    @Test
    void whyNotPlannedNamesTheOneRuleInTheWay() {
        PlanJob blocker = job(1, 80, 40, 100);
        PlanJob other = needing(job(2, 8, 5, 100), "OST", 0, "");
        PlanCase plan = new PlanCase(
                shop(
                        5,
                        0,
                        List.of(technician(1, "Hedra Voss")),
                        List.of(bay(1, 1), bay(2, 1)),
                        List.of(set("CAL", 1), set("OST", 1)),
                        1),
                List.of(blocker, other));
        Board board = Board.lay(plan, Map.of(1L, new Place(1, 1, 0)));

        assertThat(text(Why.notPlanned(board, 2)))
                .isEqualTo("2026-11-30 with Hedra Voss fails by one rule only: "
                        + "Hedra Voss has SKR 1 then, until Fri 4 Dec 17:00.\n");
        board.remove(1);
        assertThat(text(Why.notPlanned(board, 2))).startsWith("Nothing forbids it: 2026-11-30 with Hedra Voss is free");
        assertThat(Why.here(board, 2)).isEmpty();
    }

    @Test
    void whereEveryPlaceBreaksTwoRulesItIsSaidAsFarAsWasLookedAt() {
        Integer[] always = IntStream.range(0, 40).boxed().toArray(Integer[]::new);
        // not there before the last half-hour, and away on every day
        PlanJob barred = needing(job(1, 8, 5, 100), "CAL", 40 * 16 - 1, "parts", always);
        Shop small = shop(40, 0, List.of(technician(1, "Hedra Voss")), List.of(bay(1, 1)), List.of(set("CAL", 1)), 1);
        Shop large = shop(
                40,
                0,
                IntStream.rangeClosed(1, 60)
                        .mapToObj(i -> technician(i, "T" + i))
                        .toList(),
                IntStream.rangeClosed(1, 60).mapToObj(i -> bay(i, 1)).toList(),
                List.of(set("CAL", 1)),
                1);

        assertThat(text(Why.notPlanned(Board.lay(new PlanCase(small, List.of(barred)), Map.of()), 1)))
                .contains("Every place up to " + small.ruler().date(39) + " breaks two rules or more.");
        // 3,600 places each half-hour, sixteen a day: one whole day and a part of the next
        assertThat(text(Why.notPlanned(Board.lay(new PlanCase(large, List.of(barred)), Map.of()), 1)))
                .contains("Every place up to " + large.ruler().date(0) + " breaks two rules or more.");
    }

    @Test
    void whyNotPlannedSaysThatNobodyHasTheSkill() {
        PlanJob chain = new PlanJob(
                1,
                "SKR 1",
                "CAL",
                Set.of("CHAIN"),
                4,
                0,
                9,
                0,
                "",
                Set.of(),
                java.util.OptionalLong.empty(),
                new WaitingCost.Doubling(1, 0),
                1,
                new PlanJob.Pin.Free(),
                Optional.empty());
        assertThat(text(Why.notPlanned(Board.lay(new PlanCase(ONE, List.of(chain)), Map.of()), 1)))
                .contains("Nobody here does this work (CHAIN).")
                .contains("No bay takes so heavy a vehicle.");
    }

    @Test
    void whyHereSaysWhatItWaitsForAndThatAPromiseStays() {
        Place here = new Place(1, 1, 24);
        PlanJob job = needing(job(1, 4, 5, 100), "CAL", 24, "parts come with Tuesday's ferry");
        Board board = Board.lay(new PlanCase(ONE, List.of(job)), Map.of(1L, here));

        assertThat(text(Why.here(board, 1)))
                .contains("It cannot start before 2026-12-01: parts come with Tuesday's ferry.");
        PlanCase promised = new PlanCase(ONE, List.of(job.with(new PlanJob.Pin.AtPlace(here))));
        assertThat(text(Why.here(Board.lay(promised, Map.of()), 1)))
                .contains("promised or under way")
                .doesNotContain("would be next");
        assertThat(board.placeOf(1)).contains(here);
    }
}
