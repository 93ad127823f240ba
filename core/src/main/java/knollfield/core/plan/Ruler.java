package knollfield.core.plan;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;

/**
 * The board's ruler: days of half-hours. With n half-hours to a day, slot {@code n d + k} is half-hour {@code k} of day
 * {@code d}; the night has no slots, nor has a break that is one on every day of the week.
 *
 * @param first day 0
 * @param days how many, one or more
 * @param times when the half-hours of a day begin, in order, one or more
 */
public record Ruler(LocalDate first, int days, List<LocalTime> times) {

    /** The half-hours of {@link WorkHours#usual()}. */
    public static final List<LocalTime> USUAL_TIMES =
            List.copyOf(WorkHours.usual().halfHours());

    public Ruler {
        times = List.copyOf(times);
        if (days < 1 || times.isEmpty()) {
            throw new IllegalArgumentException(
                    "a ruler of %d days of %d half-hours shows nothing".formatted(days, times.size()));
        }
    }

    /** A ruler of the usual working day. */
    public Ruler(LocalDate first, int days) {
        this(first, days, USUAL_TIMES);
    }

    /** The half-hours in which anybody works; those of the usual day where nobody does. */
    public static List<LocalTime> times(Collection<WorkHours> hours) {
        SortedSet<LocalTime> starts = new TreeSet<>();
        hours.forEach(h -> starts.addAll(h.halfHours()));
        return starts.isEmpty() ? USUAL_TIMES : List.copyOf(starts);
    }

    /** Half-hours in a day. */
    public int perDay() {
        return times.size();
    }

    /** Slots on the whole ruler. */
    public int slots() {
        return days * perDay();
    }

    /** The day that holds {@code slot}. */
    public int dayOf(int slot) {
        return Math.floorDiv(slot, perDay());
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
        int k = times.indexOf(at.toLocalTime());
        return day < 0 || day >= days || k < 0 ? OptionalInt.empty() : OptionalInt.of(day * perDay() + k);
    }

    /** The first slot that begins at {@code at} or later; may lie beyond the ruler's end, is at least zero. */
    public int slotFrom(LocalDateTime at) {
        int day = day(at.toLocalDate());
        int k = 0;
        while (k < perDay() && times.get(k).isBefore(at.toLocalTime())) {
            k++;
        }
        return Math.max(0, day * perDay() + k);
    }

    /** When {@code slot} begins. */
    public LocalDateTime startOf(int slot) {
        return date(dayOf(slot)).atTime(times.get(Math.floorMod(slot, perDay())));
    }

    /** When work ends that holds the slots before {@code endSlot}. */
    public LocalDateTime endOf(int endSlot) {
        return startOf(endSlot - 1).plusMinutes(WorkHours.STEP_MINUTES);
    }

    /** Slots of this ruler in which {@code hours} leave no work. */
    public Set<Integer> slotsOff(WorkHours hours) {
        Set<Integer> off = new HashSet<>();
        for (int s = 0; s < slots(); s++) {
            LocalDateTime at = startOf(s);
            if (!hours.workAt(at.getDayOfWeek(), at.toLocalTime())) {
                off.add(s);
            }
        }
        return off;
    }

    /**
     * When work of {@code minutes} that starts at {@code start} ends for somebody with these hours; a begun half-hour counts
     * whole. Empty where {@code start} is not worked or the ruler ends before the work.
     */
    public Optional<LocalDateTime> end(LocalDateTime start, int minutes, WorkHours hours) {
        int left = Math.max(1, (minutes + WorkHours.STEP_MINUTES - 1) / WorkHours.STEP_MINUTES);
        OptionalInt from = slotAt(start);
        if (from.isEmpty() || !hours.workAt(start.getDayOfWeek(), start.toLocalTime())) {
            return Optional.empty();
        }
        for (int s = from.getAsInt(); s < slots(); s++) {
            LocalDateTime at = startOf(s);
            left -= hours.workAt(at.getDayOfWeek(), at.toLocalTime()) ? 1 : 0;
            if (left == 0) {
                return Optional.of(endOf(s + 1));
            }
        }
        return Optional.empty();
    }
}
