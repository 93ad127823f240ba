package knollfield.core.clock;

import java.time.LocalDate;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * The clocks of an item, from where they began against the limit in force (rules.md section 2). At a limit is not inside it.
 *
 * <p>The distance since the start is the asker's: read, projected or with idling, as the question wants it.
 */
public final class LimitClock {

    private final ClockStart start;
    private final Limit limit;
    private final Optional<LocalDate> ageEnd;
    // worked out once: a vehicle's days are gone through one by one
    private final long startDay;
    private final double ageDays;

    public LimitClock(ClockStart start, Limit limit) {
        this.start = start;
        this.limit = limit;
        this.ageEnd = limit.ageEnd(start.date());
        this.startDay = start.date().toEpochDay();
        this.ageDays = ageEnd.map(end -> end.toEpochDay() - startDay).orElse(1L);
    }

    public ClockStart start() {
        return start;
    }

    public Limit limit() {
        return limit;
    }

    /** Share of the distance limit that {@code usedKm} since the start is; zero or more, empty without a distance limit. */
    public OptionalDouble distanceUsed(double usedKm) {
        return limit.distanceUsed(usedKm);
    }

    /** Share of the age limit used on {@code day}, in calendar days; zero or more, empty without an age limit. */
    public OptionalDouble ageUsed(LocalDate day) {
        return ageEnd.isPresent()
                ? OptionalDouble.of(Math.max(0, day.toEpochDay() - startDay) / ageDays)
                : OptionalDouble.empty();
    }

    /** The larger of the two shares, zero or more. */
    public double used(double usedKm, LocalDate day) {
        return Math.max(distanceUsed(usedKm).orElse(0), ageUsed(day).orElse(0));
    }

    /** True where neither limit has been reached on {@code day} with {@code usedKm} since the start. */
    public boolean isInside(double usedKm, LocalDate day) {
        return (limit.km().isEmpty() || usedKm < limit.km().getAsInt())
                && (ageEnd.isEmpty() || day.isBefore(ageEnd.get()));
    }

    /** The day on which the age limit is reached; empty without one. */
    public Optional<LocalDate> ageEnd() {
        return ageEnd;
    }

    /** The day on which {@code share} of the age limit is used, to the nearest whole day; empty without one. */
    public Optional<LocalDate> ageDay(double share) {
        return limit.ageDay(start.date(), share);
    }
}
