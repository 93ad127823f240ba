package knollfield.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import knollfield.core.engine.Drive;
import knollfield.core.plan.PlacementRules.Bay;
import knollfield.core.plan.PlacementRules.Booked;
import knollfield.core.plan.PlacementRules.FleetCap;
import knollfield.core.plan.PlacementRules.Needs;
import knollfield.core.plan.PlacementRules.Rule;
import knollfield.core.plan.PlacementRules.Technician;
import org.junit.jupiter.api.Test;

/** The calendar and the hard rules against counting by hand, half-hour by half-hour. */
class PlanLawsTest {

    private static final LocalDate MONDAY = LocalDate.of(2026, 11, 30);

    private static LocalDateTime countedEnd(WorkCalendar calendar, LocalDate day, int slot, int minutes) {
        int left = Math.max(1, (minutes + 29) / 30);
        LocalDateTime at = day.atTime(WorkCalendar.startOf(slot));
        while (true) {
            LocalTime time = at.toLocalTime();
            boolean open = (!time.isBefore(LocalTime.of(8, 0)) && time.isBefore(LocalTime.of(12, 0)))
                    || (!time.isBefore(LocalTime.of(13, 0)) && time.isBefore(LocalTime.of(17, 0)));
            at = at.plusMinutes(30);
            if (open && calendar.worksOn(at.minusMinutes(30).toLocalDate()) && --left == 0) {
                return at;
            }
        }
    }

    @Test
    void workEndsWhereCountingHalfHoursEnds() {
        Random random = new Random(9);
        for (int i = 0; i < 500; i++) {
            EnumSet<DayOfWeek> days = EnumSet.of(DayOfWeek.of(1 + random.nextInt(7)));
            for (DayOfWeek d : DayOfWeek.values()) {
                if (random.nextBoolean()) {
                    days.add(d);
                }
            }
            WorkCalendar calendar = new WorkCalendar(days);
            int slot = random.nextInt(WorkCalendar.SLOTS_PER_DAY);
            int minutes = random.nextInt(1_500);
            LocalDate day = MONDAY.plusDays(random.nextInt(7));
            if (!calendar.worksOn(day)) {
                continue;
            }
            assertThat(calendar.end(day, slot, minutes)).isEqualTo(countedEnd(calendar, day, slot, minutes));
        }
    }

    @Test
    void slotsAndTimesSayTheSame() {
        for (int slot = 0; slot < WorkCalendar.SLOTS_PER_DAY; slot++) {
            assertThat(WorkCalendar.slotAt(WorkCalendar.startOf(slot))).contains(slot);
        }
        assertThat(WorkCalendar.slotAt(LocalTime.NOON)).isEmpty();
        assertThat(WorkCalendar.slotAt(LocalTime.of(8, 10))).isEmpty();
        assertThat(WorkCalendar.slotAt(LocalTime.of(17, 0))).isEmpty();
        assertThatThrownBy(() -> new WorkCalendar(Set.of())).hasMessageContaining("never works");
    }

    @Test
    void aPlacementEndsAfterItStarts() {
        LocalDateTime start = MONDAY.atTime(8, 0);
        assertThatThrownBy(() -> new Placement(1, 1, 1, start, start)).hasMessageContaining("ends");
    }

    @Test
    void toolSetsAndCapsAreCountedAtTheBusiestMoment() {
        Random random = new Random(31);
        WorkCalendar all = new WorkCalendar(EnumSet.allOf(DayOfWeek.class));
        Technician technician = new Technician(99, "T", EnumSet.allOf(Drive.class), all);
        Bay bay = new Bay(99, "B", 2);
        int refused = 0;
        for (int round = 0; round < 400; round++) {
            List<Booked> board = new ArrayList<>();
            for (int j = 0; j < 6; j++) {
                board.add(new Booked(
                        random(random, all, j + 2),
                        "R" + j,
                        random.nextBoolean() ? "SET" : "OTHER",
                        random.nextBoolean() ? Optional.of(7L) : Optional.empty()));
            }
            int copies = 1 + random.nextInt(3);
            int cap = 1 + random.nextInt(3);
            Placement place = random(random, all, 1);
            Needs needs = new Needs(1, Drive.BELT, 1, "SET", copies, Optional.of(new FleetCap(7, "F", cap)));
            List<Rule> broken =
                    PlacementRules.check(
                                    needs,
                                    place,
                                    technician,
                                    bay,
                                    board,
                                    MONDAY.minusDays(30).atStartOfDay())
                            .stream()
                            .map(PlacementRules.Broken::rule)
                            .toList();
            boolean setOut = mostAtOnce(place, board, copies);
            boolean overCap = daysOver(place, board, cap);
            assertThat(broken.contains(Rule.TOOL_SET_BUSY)).isEqualTo(setOut);
            assertThat(broken.contains(Rule.FLEET_CAP)).isEqualTo(overCap);
            refused += setOut || overCap ? 1 : 0;
        }
        assertThat(refused).as("rounds with a broken rule").isBetween(50, 390);
    }

    private static Placement random(Random random, WorkCalendar calendar, long job) {
        LocalDate day = MONDAY.plusDays(random.nextInt(4));
        int slot = random.nextInt(16);
        return new Placement(
                job,
                job,
                job,
                day.atTime(WorkCalendar.startOf(slot)),
                calendar.end(day, slot, 30 + random.nextInt(900)));
    }

    private static boolean mostAtOnce(Placement place, List<Booked> board, int copies) {
        for (LocalDateTime t = place.start(); t.isBefore(place.end()); t = t.plusMinutes(30)) {
            LocalDateTime at = t;
            long out = board.stream()
                    .filter(b -> b.toolSet().equals("SET"))
                    .filter(b -> !b.placement().start().isAfter(at)
                            && b.placement().end().isAfter(at))
                    .count();
            if (out >= copies) {
                return true;
            }
        }
        return false;
    }

    private static boolean daysOver(Placement place, List<Booked> board, int cap) {
        for (LocalDate d = place.start().toLocalDate(); !d.isAfter(place.end().toLocalDate()); d = d.plusDays(1)) {
            LocalDate day = d;
            long off = board.stream()
                    .filter(b -> b.fleetId().isPresent())
                    .filter(b -> !b.placement().start().toLocalDate().isAfter(day)
                            && !b.placement().end().toLocalDate().isBefore(day))
                    .count();
            if (off >= cap) {
                return true;
            }
        }
        return false;
    }

    @Test
    void movingAJobOntoItsOwnPlaceBreaksNothing() {
        WorkCalendar all = new WorkCalendar(EnumSet.allOf(DayOfWeek.class));
        Placement place = new Placement(1, 1, 1, MONDAY.atTime(8, 0), MONDAY.atTime(12, 0));
        Booked itself = new Booked(place, "R", "SET", Optional.of(7L));

        assertThat(PlacementRules.check(
                        new Needs(1, Drive.BELT, 1, "SET", 1, Optional.of(new FleetCap(7, "F", 1))),
                        place,
                        new Technician(1, "T", Set.of(Drive.BELT), all),
                        new Bay(1, "B", 1),
                        List.of(itself),
                        MONDAY.minusDays(1).atStartOfDay()))
                .isEmpty();
    }
}
