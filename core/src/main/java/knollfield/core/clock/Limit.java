package knollfield.core.clock;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;

/**
 * A book limit, whichever comes first.
 *
 * @param km distance since the renewal, more than zero where present
 * @param months calendar months since the renewal, more than zero where present
 */
public record Limit(OptionalInt km, OptionalInt months) {

    public Limit {
        if (km.isEmpty() && months.isEmpty()) {
            throw new IllegalArgumentException("a limit needs a distance, an age, or both");
        }
        if (km.orElse(1) <= 0 || months.orElse(1) <= 0) {
            throw new IllegalArgumentException("a limit must be above zero: %s km, %s months".formatted(km, months));
        }
    }

    public static Limit of(int km, int months) {
        return new Limit(OptionalInt.of(km), OptionalInt.of(months));
    }

    public static Limit ofKm(int km) {
        return new Limit(OptionalInt.of(km), OptionalInt.empty());
    }

    /** The day on which what began at {@code start} reaches the age limit; empty without one. */
    public Optional<LocalDate> ageEnd(LocalDate start) {
        return months.isPresent() ? Optional.of(start.plusMonths(months.getAsInt())) : Optional.empty();
    }

    /** The day on which {@code share} of the age limit is used, to the nearest whole day; empty without one. */
    public Optional<LocalDate> ageDay(LocalDate start, double share) {
        return ageEnd(start).map(end -> start.plusDays(Math.round(share * ChronoUnit.DAYS.between(start, end))));
    }

    /** Share of the distance limit that {@code usedKm} is; zero or more, empty without a distance limit. */
    public OptionalDouble distanceUsed(double usedKm) {
        return km.isPresent() ? OptionalDouble.of(Math.max(0, usedKm) / km.getAsInt()) : OptionalDouble.empty();
    }

    /** Share of the age limit used in a year of twelve months; empty without an age limit. */
    public OptionalDouble agePerYear() {
        return months.isPresent() ? OptionalDouble.of(12.0 / months.getAsInt()) : OptionalDouble.empty();
    }

    /** The smaller of both limits, kind by kind. */
    public Limit smallerOf(Limit other) {
        return new Limit(smaller(km, other.km), smaller(months, other.months));
    }

    private static OptionalInt smaller(OptionalInt a, OptionalInt b) {
        if (a.isEmpty()) {
            return b;
        }
        return b.isEmpty() ? a : OptionalInt.of(Math.min(a.getAsInt(), b.getAsInt()));
    }

    public boolean isWithin(Limit wider) {
        return km.orElse(Integer.MAX_VALUE) <= wider.km.orElse(Integer.MAX_VALUE)
                && months.orElse(Integer.MAX_VALUE) <= wider.months.orElse(Integer.MAX_VALUE);
    }
}
