package knollfield.core.plan;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.Optional;
import java.util.Set;

/**
 * The half-hours of a working day: 08:00 to 12:00 and 13:00 to 17:00 (planning assumption).
 *
 * @param workingDays days of the week somebody works
 */
public record WorkCalendar(Set<DayOfWeek> workingDays) {

    /** Half-hours in a working day. */
    public static final int SLOTS_PER_DAY = 16;

    private static final int MORNING_SLOTS = 8;

    public WorkCalendar {
        workingDays = Set.copyOf(workingDays);
        if (workingDays.isEmpty()) {
            throw new IllegalArgumentException("somebody who never works cannot be planned");
        }
    }

    /** The slot, 0 to 15, that starts at {@code time}; empty where none does. */
    public static Optional<Integer> slotAt(LocalTime time) {
        for (int slot = 0; slot < SLOTS_PER_DAY; slot++) {
            if (startOf(slot).equals(time)) {
                return Optional.of(slot);
            }
        }
        return Optional.empty();
    }

    public static LocalTime startOf(int slot) {
        int hour = slot < MORNING_SLOTS ? 8 : 13;
        return LocalTime.of(hour, 0).plusMinutes(30L * (slot % MORNING_SLOTS));
    }

    public boolean worksOn(LocalDate date) {
        return workingDays.contains(date.getDayOfWeek());
    }

    /**
     * When work of {@code minutes} that starts at {@code slot} of {@code date} ends, counting this person's working
     * half-hours; a begun half-hour counts whole.
     */
    public LocalDateTime end(LocalDate date, int slot, int minutes) {
        int left = Math.max(1, (minutes + 29) / 30);
        LocalDate day = date;
        int at = slot;
        while (true) {
            if (worksOn(day)) {
                int here = Math.min(left, SLOTS_PER_DAY - at);
                left -= here;
                at += here;
                if (left == 0) {
                    return day.atTime(startOf(at - 1).plusMinutes(30));
                }
            }
            day = day.plusDays(1);
            at = 0;
        }
    }
}
