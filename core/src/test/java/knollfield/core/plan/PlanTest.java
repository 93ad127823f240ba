package knollfield.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.core.engine.Drive;
import knollfield.core.plan.PlacementRules.Bay;
import knollfield.core.plan.PlacementRules.Booked;
import knollfield.core.plan.PlacementRules.FleetCap;
import knollfield.core.plan.PlacementRules.Needs;
import knollfield.core.plan.PlacementRules.Rule;
import knollfield.core.plan.PlacementRules.Technician;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PlanTest {

    private static final WorkCalendar WEEKDAYS = new WorkCalendar(EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY));
    private static final LocalDate MONDAY = LocalDate.of(2026, 11, 30);
    private static final LocalDateTime NOW = MONDAY.minusDays(5).atTime(9, 0);
    private static final Technician HEDRA = new Technician(1, "Hedra Voss", Set.of(Drive.BELT), WEEKDAYS);
    private static final Bay LIGHT = new Bay(1, "Bay 3", 1);

    @ParameterizedTest(name = "{0} slot {1}, {2} minutes ends {3}")
    @CsvSource({
        "2026-11-30, 0, 240, 2026-11-30T12:00", "2026-11-30, 0, 241, 2026-11-30T13:30",
        "2026-11-30, 8, 30, 2026-11-30T13:30", "2026-12-04, 12, 240, 2026-12-07T10:00"
    })
    void workEndsAfterItsHalfHours(LocalDate day, int slot, int minutes, LocalDateTime end) {
        assertThat(WEEKDAYS.end(day, slot, minutes)).isEqualTo(end);
    }

    private static Placement place(long job, LocalDate day, int slot, int minutes) {
        return new Placement(job, 1, 1, day.atTime(WorkCalendar.startOf(slot)), WEEKDAYS.end(day, slot, minutes));
    }

    private static List<Rule> broken(Needs needs, Placement place, Booked... board) {
        return PlacementRules.check(needs, place, HEDRA, LIGHT, List.of(board), NOW).stream()
                .map(PlacementRules.Broken::rule)
                .toList();
    }

    private static Needs needs(Drive drive, int lift) {
        return new Needs(1, drive, lift, "CAL-16", 1, Optional.of(new FleetCap(4, "Post vans", 1)));
    }

    @Test
    void afreePlaceBreaksNothing() {
        assertThat(broken(needs(Drive.BELT, 1), place(1, MONDAY, 0, 300))).isEmpty();
    }

    @Test
    void skillBayDayAndPastAreEachSaid() {
        assertThat(broken(needs(Drive.CHAIN, 2), place(1, MONDAY.minusDays(8), 0, 300)))
                .containsExactly(Rule.IN_THE_PAST, Rule.DAY_OFF, Rule.SKILL, Rule.BAY_CLASS);
    }

    @Test
    void aJobInTheWayHoldsTechnicianBayToolSetAndFleet() {
        Booked other = new Booked(place(2, MONDAY, 4, 300), "SKR 316 E", "CAL-16", Optional.of(4L));

        assertThat(broken(needs(Drive.BELT, 1), place(1, MONDAY, 0, 300), other))
                .containsExactly(Rule.TECHNICIAN_BUSY, Rule.BAY_BUSY, Rule.TOOL_SET_BUSY, Rule.FLEET_CAP);
        assertThat(PlacementRules.check(
                        needs(Drive.BELT, 1), place(1, MONDAY, 0, 300), HEDRA, LIGHT, List.of(other), NOW))
                .last()
                .satisfies(b ->
                        assertThat(b.words()).isEqualTo("Post vans: 1 of 1 off the road on 2026-11-30: SKR 316 E."));
    }

    @Test
    void aJobThatEndsWhenTheNextStartsIsNotInTheWay() {
        Booked other = new Booked(place(2, MONDAY, 0, 240), "SKR 316 E", "OTHER", Optional.empty());

        assertThat(broken(needs(Drive.BELT, 1), place(1, MONDAY, 8, 120), other))
                .isEmpty();
    }
}
