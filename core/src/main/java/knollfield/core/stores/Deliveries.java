package knollfield.core.stores;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * The days on which parts can reach the workshop: by boat, by carrier.
 *
 * @param comes true for a day with a delivery
 */
public record Deliveries(Predicate<LocalDate> comes) {

    /** Parts delivered on a day can be used from then on (planning assumption: the morning's boat, unpacked by noon). */
    public static final LocalTime UNPACKED = LocalTime.of(13, 0);

    /** Days searched for a delivery; a place without one for so long has none. */
    private static final int FURTHEST_DAYS = 120;

    /** The first delivery after the day the parts were sent; empty where there is none in sight. */
    public Optional<LocalDate> firstAfter(LocalDate sent) {
        return sent.plusDays(1)
                .datesUntil(sent.plusDays(FURTHEST_DAYS))
                .filter(comes)
                .findFirst();
    }

    /** The delivery that brings what was to come on {@code promised}: the same day, or the first that is not cancelled. */
    public Optional<LocalDate> from(LocalDate promised) {
        return firstAfter(promised.minusDays(1));
    }

    /** When what was promised for {@code promised} and has not come by {@code today} is to be expected. */
    public Optional<LocalDate> expected(LocalDate promised, LocalDate today) {
        return from(promised.isBefore(today) ? today : promised);
    }

    /** The last day whose delivery is in time for work that starts at {@code start}. */
    public static LocalDate lastInTimeFor(LocalDateTime start) {
        return start.toLocalTime().isBefore(UNPACKED) ? start.toLocalDate().minusDays(1) : start.toLocalDate();
    }

    /**
     * The last day, today or later, on which to order so that parts sent {@code daysToSend} later are here in time; empty
     * where it is too late already.
     */
    public Optional<LocalDate> orderBy(LocalDate today, int daysToSend, LocalDate lastInTime) {
        Optional<LocalDate> last = Optional.empty();
        for (LocalDate day = today; day.isBefore(lastInTime); day = day.plusDays(1)) {
            Optional<LocalDate> here = firstAfter(day.plusDays(daysToSend));
            if (here.isPresent() && !here.get().isAfter(lastInTime)) {
                last = Optional.of(day);
            }
        }
        return last;
    }
}
