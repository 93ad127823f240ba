package knollfield.core.due;

import java.time.LocalDate;
import java.util.Optional;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.engine.Item;

/**
 * How one item of a vehicle stands.
 *
 * @param start where its clocks began; empty where nobody knows
 * @param limit the limits in force, after schedule and policy; empty where the book has none
 * @param other the limits of the other schedule, where the book has two
 * @param severe true where the severe schedule is in force
 * @param inspection true where the limits call for an inspection, not a renewal (chains)
 * @param actBy the day by which the workshop means to have acted; empty where nothing calls for it
 */
public record ItemForecast(
        Item item,
        Optional<ClockStart> start,
        Optional<Limit> limit,
        Optional<Limit> other,
        boolean severe,
        boolean inspection,
        Optional<DistanceClock> distance,
        Optional<AgeClock> age,
        Binding binding,
        Optional<LocalDate> actBy,
        Status status) {

    /** This item acted on by another day, and in the worse of its own status and {@code then}. */
    ItemForecast actedOnBy(LocalDate day, Status then) {
        return new ItemForecast(
                item,
                start,
                limit,
                other,
                severe,
                inspection,
                distance,
                age,
                binding,
                Optional.of(day),
                status.worse(then));
    }

    /** Which clock comes first. */
    public enum Binding {
        DISTANCE,
        AGE,
        NONE
    }

    /**
     * Distance since the clock's start, as of today's median.
     *
     * @param limitKm the limit in force
     * @param usedKm median today, negative never
     * @param leftKm negative where the limit is passed
     * @param early first day with a chance of 10 % that the limit is reached; empty: none within 60 years
     * @param median the same for 50 %
     * @param late the same for 90 %
     */
    public record DistanceClock(
            int limitKm,
            double usedKm,
            double leftKm,
            Optional<LocalDate> early,
            Optional<LocalDate> median,
            Optional<LocalDate> late) {}

    /**
     * Age since the clock's start.
     *
     * @param limitMonths the limit in force
     * @param usedMonths whole calendar months gone
     * @param leftMonths whole calendar months until {@code date}; negative where it is passed
     * @param date the day the limit is reached
     */
    public record AgeClock(int limitMonths, long usedMonths, long leftMonths, LocalDate date) {}
}
