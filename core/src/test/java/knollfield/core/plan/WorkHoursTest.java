package knollfield.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class WorkHoursTest {

    private static final WorkHours EARLY_AND_SATURDAY =
            WorkHours.read("MONDAY 07:30-12:00 12:30-16:00;FRIDAY 07:30-13:00;SATURDAY 09:00-12:00");

    @Test
    void hoursComeBackAsTheyWereWritten() {
        assertThat(WorkHours.read(EARLY_AND_SATURDAY.write())).isEqualTo(EARLY_AND_SATURDAY);
        assertThat(WorkHours.read("")).isEqualTo(WorkHours.NONE);
        assertThat(WorkHours.usual().halfHours()).hasSize(16).doesNotContain(LocalTime.of(12, 0), LocalTime.of(17, 0));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"MONDAY 08:00", "MONDAY 08:10-12:00", "MONDAY 12:00-08:00", "MONDAY 8-12", "MONTAG 08:00-12:00"})
    void whatIsNoSpanOfHalfHoursIsRefused(String line) {
        assertThatThrownBy(() -> WorkHours.read(line)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void spansOfADayDoNotOverlap() {
        assertThatThrownBy(() -> WorkHours.read("MONDAY 08:00-12:00 11:30-16:00"))
                .hasMessageContaining("overlap");
    }

    @Test
    void theRulerHasEveryHalfHourSomebodyWorksOnOneDayOrAnother() {
        List<LocalTime> times = Ruler.times(List.of(EARLY_AND_SATURDAY));
        // 07:30 to 16:00 without a gap: Friday works through Monday's break
        assertThat(times).hasSize(17).startsWith(LocalTime.of(7, 30)).endsWith(LocalTime.of(15, 30));
        Ruler ruler = new Ruler(LocalDate.of(2026, 11, 30), 14, times);
        Set<Integer> off = ruler.slotsOff(EARLY_AND_SATURDAY);
        assertThat(ruler.slots() - off.size()).isEqualTo(2 * (16 + 11 + 6));
        for (int slot = 0; slot < ruler.slots(); slot++) {
            assertThat(ruler.slotAt(ruler.startOf(slot))).hasValue(slot);
        }
    }

    @ParameterizedTest(name = "{1} minutes from {0} end {2}")
    @CsvSource({
        "2026-11-30T11:30, 60, 2026-11-30T13:00", "2026-11-30T15:30, 90, 2026-12-04T08:30",
        "2026-12-04T12:30, 60, 2026-12-05T09:30", "2026-12-05T11:00, 90, 2026-12-07T08:00"
    })
    void workSkipsBreaksEveningsAndFreeDays(LocalDateTime start, int minutes, LocalDateTime end) {
        Ruler ruler = new Ruler(LocalDate.of(2026, 11, 30), 14, Ruler.times(List.of(EARLY_AND_SATURDAY)));
        assertThat(ruler.end(start, minutes, EARLY_AND_SATURDAY)).contains(end);
    }

    @Test
    void nobodyStartsInABreakOrBeyondTheRuler() {
        Ruler ruler = new Ruler(LocalDate.of(2026, 11, 30), 1, Ruler.times(List.of(EARLY_AND_SATURDAY)));
        LocalDate monday = LocalDate.of(2026, 11, 30);
        assertThat(ruler.end(monday.atTime(12, 0), 30, EARLY_AND_SATURDAY)).isEmpty();
        assertThat(ruler.end(monday.atTime(8, 10), 30, EARLY_AND_SATURDAY)).isEmpty();
        assertThat(ruler.end(monday.atTime(15, 30), 60, EARLY_AND_SATURDAY)).isEmpty();
    }

    @ParameterizedTest(name = "{2} minutes, {0} to {1}, under {3}: {4}")
    @CsvSource({
        "2026-11-30T08:00, 2026-11-30T11:00, 180, MONDAY 08:00-11:00, true",
        "2026-11-30T08:00, 2026-11-30T11:30, 200, MONDAY 08:00-11:00, false",
        "2026-11-30T08:00, 2026-11-30T11:30, 180, MONDAY 08:00-11:00, true",
        "2026-11-30T08:00, 2026-11-30T11:00, 180, MONDAY 08:30-16:00, false",
        "2026-11-30T11:00, 2026-11-30T14:00, 150, MONDAY 07:30-12:00 12:30-16:00, true",
        // over the nights until Friday: Monday has four half-hours left, Friday two until half past eight
        "2026-11-30T14:00, 2026-12-04T08:30, 180, MONDAY 07:30-16:00, false",
        "2026-11-30T14:00, 2026-12-04T08:30, 180, MONDAY 07:30-16:00;FRIDAY 07:30-08:30, true",
        "2026-11-30T14:00, 2026-12-04T08:30, 180, MONDAY 07:30-16:00;TUESDAY 08:00-09:00, true",
        // it stood too short already, and is no worse off
        "2026-11-30T08:00, 2026-11-30T09:00, 240, MONDAY 08:00-09:00, true",
        // it did not begin in these hours before
        "2026-11-30T12:00, 2026-11-30T13:00, 30, MONDAY 13:00-16:00, true"
    })
    void hoursAreKeptWhereAJobBeginsAsBeforeAndEndsNoLater(
            LocalDateTime from, LocalDateTime to, int minutes, String next, boolean kept) {
        assertThat(EARLY_AND_SATURDAY.areKeptBy(WorkHours.read(next), from, to, minutes))
                .isEqualTo(kept);
    }

    @Test
    void aPlacementOutsideSomebodysHoursSaysSo() {
        Shop.Technician early = new Shop.Technician(1, "Perran Rowse", Set.of("BELT"), 100, Set.of(), Set.of(14, 15));
        Shop shop = Cases.shop(2, 0, List.of(early), List.of(Cases.bay(1, 1)), List.of(Cases.set("CAL", 1)), 1);
        Board board = Board.lay(new PlanCase(shop, List.of(Cases.job(1, 4, 5, 3))), Map.of());
        assertThat(board.broken(1, new Place(1, 1, 14)))
                .extracting(Broken::words)
                .containsExactly("Perran Rowse does not work on Mon 30 Nov 16:00.");
        assertThat(board.endAt(1, new Place(1, 1, 12))).contains(18);
        assertThat(early.worksIn(13, shop.ruler())).isTrue();
        assertThat(EARLY_AND_SATURDAY.workOn(DayOfWeek.SUNDAY)).isFalse();
    }
}
