package knollfield.core.plan;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.OptionalInt;

/**
 * The board's ruler: days of sixteen half-hours, 08:00 to 12:00 and 13:00 to 17:00. Slot {@code 16 d + k} is half-hour
 * {@code k} of day {@code d}; the night and the lunch break have no slots.
 *
 * @param first day 0
 * @param days how many, one or more
 */
public record Ruler(LocalDate first, int days) {

    /** Half-hours in a working day. */
    public static final int SLOTS_PER_DAY = WorkCalendar.SLOTS_PER_DAY;

    public Ruler {
        if (days < 1) {
            throw new IllegalArgumentException("a ruler of %d days shows nothing".formatted(days));
        }
    }

    /** Slots on the whole ruler. */
    public int slots() {
        return days * SLOTS_PER_DAY;
    }

    /** The day that holds {@code slot}. */
    public static int dayOf(int slot) {
        return Math.floorDiv(slot, SLOTS_PER_DAY);
    }

    /** Day index of {@code date}; below zero before the ruler, {@link #days()} or more after it. */
    public int day(LocalDate date) {
        return (int) ChronoUnit.DAYS.between(first, date);
    }

    public LocalDate date(int day) {
        return first.plusDays(day);
    }

    /** The slot that begins at {@code at}; empty where none does, or outside the ruler. */
    public OptionalInt slotAt(LocalDateTime at) {
        int day = day(at.toLocalDate());
        return day < 0 || day >= days
                ? OptionalInt.empty()
                : WorkCalendar.slotAt(at.toLocalTime())
                        .map(k -> OptionalInt.of(day * SLOTS_PER_DAY + k))
                        .orElseGet(OptionalInt::empty);
    }

    /** The first slot that begins at {@code at} or later; may lie beyond the ruler's end, is at least zero. */
    public int slotFrom(LocalDateTime at) {
        int day = day(at.toLocalDate());
        int k = 0;
        while (k < SLOTS_PER_DAY && WorkCalendar.startOf(k).isBefore(at.toLocalTime())) {
            k++;
        }
        return Math.max(0, day * SLOTS_PER_DAY + k);
    }

    /** When {@code slot} begins. */
    public LocalDateTime startOf(int slot) {
        return date(dayOf(slot)).atTime(WorkCalendar.startOf(Math.floorMod(slot, SLOTS_PER_DAY)));
    }

    /** When work ends that holds the slots before {@code endSlot}. */
    public LocalDateTime endOf(int endSlot) {
        return startOf(endSlot - 1).plusMinutes(30);
    }
}
