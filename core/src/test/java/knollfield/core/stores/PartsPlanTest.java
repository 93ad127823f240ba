package knollfield.core.stores;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Deliveries on Tuesdays and Fridays; today is Wednesday 25 November 2026. */
class PartsPlanTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final Set<DayOfWeek> FERRY = EnumSet.of(DayOfWeek.TUESDAY, DayOfWeek.FRIDAY);
    private static final Deliveries FERRIES = new Deliveries(d -> FERRY.contains(d.getDayOfWeek()));

    @ParameterizedTest(name = "sent in {0} days, needed {1}: order by {2}")
    @CsvSource({
        // Friday's boat is unpacked at noon: too late for Friday morning, in time for the afternoon
        "0, 2026-11-27T08:00, ",
        "0, 2026-11-27T13:00, 2026-11-26",
        "0, 2026-12-01T08:00, 2026-11-26",
        "0, 2026-12-01T13:30, 2026-11-30",
        "3, 2026-12-04T08:00, 2026-11-27",
        "3, 2026-12-04T13:00, 2026-11-30",
        "7, 2026-12-01T13:00, ",
    })
    void orderByIsTheLastDayInTime(int daysToSend, LocalDateTime start, LocalDate orderBy) {
        assertThat(FERRIES.orderBy(TODAY, daysToSend, Deliveries.lastInTimeFor(start)))
                .isEqualTo(Optional.ofNullable(orderBy));
    }

    @Test
    void aCancelledFerryBringsItWithTheNext() {
        Deliveries noFriday = new Deliveries(d -> FERRIES.comes().test(d) && !d.equals(LocalDate.of(2026, 11, 27)));
        assertThat(FERRIES.firstAfter(TODAY)).contains(LocalDate.of(2026, 11, 27));
        assertThat(noFriday.firstAfter(TODAY)).contains(LocalDate.of(2026, 12, 1));
        assertThat(noFriday.from(LocalDate.of(2026, 11, 27))).contains(LocalDate.of(2026, 12, 1));
        assertThat(FERRIES.from(LocalDate.of(2026, 11, 27))).contains(LocalDate.of(2026, 11, 27));
        assertThat(new Deliveries(d -> false).firstAfter(TODAY)).isEmpty();
    }

    private static PartsPlan.Need need(long job, String start, double rank) {
        return new PartsPlan.Need(
                job, "P1", start.isEmpty() ? Optional.empty() : Optional.of(LocalDateTime.parse(start)), rank);
    }

    @Test
    void stockGoesToWhoStartsFirstThenOrdersThenTheSupplier() {
        List<PartsPlan.Served> served = PartsPlan.share(
                List.of(
                        need(1, "", 5),
                        need(2, "2026-12-07T08:00", 0),
                        need(3, "2026-11-26T08:00", 0),
                        need(4, "", 1),
                        need(5, "2026-11-30T08:00", 0)),
                Map.of("P1", 1),
                List.of(new PartsPlan.OnOrder("P1", 1, LocalDate.of(2026, 12, 1))),
                Map.of("P1", 0),
                FERRIES,
                TODAY);

        assertThat(served).extracting(s -> s.need().jobId()).containsExactly(3L, 5L, 2L, 4L, 1L);
        assertThat(served.get(0).supply()).isEqualTo(new PartsPlan.Supply.InHouse());
        // the piece on order is for Monday's job and comes on Tuesday
        assertThat(served.get(1).supply()).isEqualTo(new PartsPlan.Supply.Ordered(LocalDate.of(2026, 12, 1)));
        assertThat(served.get(1).late()).isTrue();
        assertThat(served.get(2).supply())
                .isEqualTo(new PartsPlan.Supply.ToOrder(
                        Optional.of(LocalDate.of(2026, 11, 27)), Optional.of(LocalDate.of(2026, 12, 3))));
        assertThat(served.get(2).late()).isFalse();
        assertThat(served.get(3).supply().day()).contains(LocalDate.of(2026, 11, 27));
    }

    @Test
    void aPartNobodyListsSaysSoAndKeepsNothingWaiting() {
        PartsPlan.Served served = PartsPlan.share(
                        List.of(need(1, "2026-11-26T08:00", 0)), Map.of(), List.of(), Map.of(), FERRIES, TODAY)
                .get(0);
        assertThat(served.supply()).isEqualTo(new PartsPlan.Supply.NotListed());
        assertThat(served.supply().day()).isEmpty();
        assertThat(served.late()).isFalse();
    }

    @Test
    void anOrderThatShouldHaveComeIsExpectedWithTheNextDelivery() {
        PartsPlan.Served served = PartsPlan.share(
                        List.of(need(1, "", 0)),
                        Map.of(),
                        List.of(new PartsPlan.OnOrder("P1", 1, LocalDate.of(2026, 11, 20))),
                        Map.of(),
                        FERRIES,
                        TODAY)
                .get(0);
        assertThat(served.supply()).isEqualTo(new PartsPlan.Supply.Ordered(LocalDate.of(2026, 11, 27)));
    }

    private static PartsPlan.Served served(long job, String part, PartsPlan.Supply supply, String start) {
        return new PartsPlan.Served(
                new PartsPlan.Need(
                        job, part, start.isEmpty() ? Optional.empty() : Optional.of(LocalDateTime.parse(start)), 0),
                supply);
    }

    private static PartsPlan.Supply toOrder(String here, String orderBy) {
        return new PartsPlan.Supply.ToOrder(
                Optional.of(LocalDate.parse(here)),
                orderBy.isEmpty() ? Optional.empty() : Optional.of(LocalDate.parse(orderBy)));
    }

    @Test
    void shortagesAreSummedAndWhatIsTooLateComesFirst() {
        List<PartsPlan.Served> served = List.of(
                served(1, "A", toOrder("2026-11-27", "2026-12-03"), "2026-12-07T08:00"),
                served(2, "A", toOrder("2026-11-27", "2026-11-30"), "2026-12-01T14:00"),
                served(3, "B", toOrder("2026-11-27", ""), "2026-11-26T08:00"),
                served(4, "C", toOrder("2026-11-27", ""), ""),
                served(4, "D", new PartsPlan.Supply.InHouse(), ""),
                served(4, "E", new PartsPlan.Supply.Ordered(LocalDate.of(2026, 11, 27)), ""));

        assertThat(PartsPlan.shortages(served))
                .containsExactly(
                        new PartsPlan.Shortage("B", 1, Optional.empty(), true, List.of(3L)),
                        new PartsPlan.Shortage("A", 2, Optional.of(LocalDate.of(2026, 11, 30)), false, List.of(1L, 2L)),
                        new PartsPlan.Shortage("C", 1, Optional.empty(), false, List.of(4L)));
        assertThat(PartsPlan.ready(served)).isFalse();
        assertThat(PartsPlan.ready(List.of(served.get(4), served(4, "F", new PartsPlan.Supply.NotListed(), ""))))
                .isTrue();
    }

    @Test
    void anOrderIsExpectedAsPromisedOrWithTheNextDelivery() {
        assertThat(FERRIES.expected(LocalDate.of(2026, 12, 1), TODAY)).contains(LocalDate.of(2026, 12, 1));
        assertThat(FERRIES.expected(LocalDate.of(2026, 11, 20), TODAY)).contains(LocalDate.of(2026, 11, 27));
    }

    @ParameterizedTest(name = "{0} waits by {1}, {2} starts on {3}, {4} usable: {5}")
    @CsvSource({
        "1, 2026-11-20, 1, 2026-11-30, 1, true", "1, 2026-12-09, 1, 2026-12-09, 1, true",
        "1, 2026-12-10, 1, 2026-11-30, 1, false", "1, 2026-11-20, 1, 2026-12-10, 1, false",
        "1, 2026-11-20, 1, 2026-11-30, 2, false", "1, 2026-11-20, 2, 2026-11-30, 2, true",
        "0, 2026-11-20, 2, 2026-11-30, 1, false", "1, 2026-11-20, 0, 2026-11-30, 0, true",
    })
    void aSetIsInTheWayWhereOthersHaveEveryCopyWhileADueJobWaits(
            int waiting, LocalDate actBy, int placed, LocalDate start, int usable, boolean clash) {
        List<ToolDemand.Wanting> jobs = new java.util.ArrayList<>();
        for (int i = 0; i < waiting; i++) {
            jobs.add(new ToolDemand.Wanting(Optional.empty(), Optional.of(actBy)));
        }
        for (int i = 0; i < placed; i++) {
            jobs.add(new ToolDemand.Wanting(Optional.of(start), Optional.empty()));
        }
        assertThat(ToolDemand.of(jobs, usable, TODAY).clash()).isEqualTo(clash);
    }
}
