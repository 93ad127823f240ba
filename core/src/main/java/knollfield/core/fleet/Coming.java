package knollfield.core.fleet;

import java.time.LocalDate;
import java.util.Optional;
import knollfield.core.bundle.Sixtieths;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.Status;
import knollfield.core.due.VehicleForecast;
import knollfield.core.estimate.EstimateRates;

/**
 * A vehicle of a fleet and the job that it waits for.
 *
 * @param actBy the day by which the workshop means to have acted; empty where nothing calls for it
 * @param early first day with a chance of 10 % that a limit in the book is reached; empty where none is in sight
 * @param median the same for 50 %
 * @param late the same for 90 %
 * @param minutes labour of the job, zero or more
 * @param money what it costs
 * @param offRoadDays working days it takes the vehicle off the road, zero where there is no job
 * @param plannedOn the day its job begins, where it has a place on the board
 */
public record Coming(
        long vehicleId,
        Status status,
        Optional<LocalDate> actBy,
        Optional<LocalDate> early,
        Optional<LocalDate> median,
        Optional<LocalDate> late,
        int minutes,
        Money money,
        int offRoadDays,
        Optional<LocalDate> plannedOn) {

    /** As {@code forecast} has it. */
    public static Coming of(
            long vehicleId,
            VehicleForecast forecast,
            int minutes,
            Money money,
            int minutesPerDay,
            Optional<LocalDate> plannedOn) {
        Optional<ItemForecast> item = forecast.deciding();
        Optional<LocalDate> age = item.flatMap(ItemForecast::age).map(ItemForecast.AgeClock::date);
        Optional<ItemForecast.DistanceClock> distance = item.flatMap(ItemForecast::distance);
        return new Coming(
                vehicleId,
                forecast.status(),
                forecast.actBy(),
                sooner(age, distance.flatMap(ItemForecast.DistanceClock::early)),
                sooner(age, distance.flatMap(ItemForecast.DistanceClock::median)),
                sooner(age, distance.flatMap(ItemForecast.DistanceClock::late)),
                minutes,
                money,
                minutes == 0 ? 0 : offRoadDays(minutes, minutesPerDay),
                plannedOn);
    }

    /** Working days that {@code minutes} of labour take at {@code minutesPerDay}, above zero; at least one. */
    static int offRoadDays(int minutes, int minutesPerDay) {
        return Math.max(1, (minutes + minutesPerDay - 1) / minutesPerDay);
    }

    private static Optional<LocalDate> sooner(Optional<LocalDate> a, Optional<LocalDate> b) {
        return a.isPresent() && b.isPresent()
                ? Optional.of(a.get().isBefore(b.get()) ? a.get() : b.get())
                : a.or(() -> b);
    }

    /** True where it waits today already: nothing holds it but a place. */
    public boolean isDueNow(LocalDate today) {
        return status == Status.STOP || actBy.filter(d -> !d.isAfter(today)).isPresent();
    }

    /** True where its job can be brought forward: its day lies ahead, and it has no place on the board. */
    public boolean canMove() {
        return status.isAhead() && actBy.isPresent() && plannedOn.isEmpty();
    }

    /** The day it counts on: that of its job, else its act-by day, today where that has passed; empty where neither is. */
    public Optional<LocalDate> day(LocalDate today) {
        return plannedOn.or(() -> isDueNow(today) ? Optional.of(today) : actBy).map(d -> d.isBefore(today) ? today : d);
    }

    /**
     * What a job costs, before tax, minor units.
     *
     * @param low where its labour comes out short
     * @param high where its labour comes out long
     */
    public record Money(long low, long likely, long high) {

        public static final Money NONE = new Money(0, 0, 0);

        /**
         * Parts, and labour that may take a share more or less (rules.md section 6).
         *
         * @param likelyMinor of both, labour at the rate without a factor
         */
        public static Money of(long likelyMinor, int minutes, EstimateRates rates) {
            long labourMinor = Sixtieths.toMinor(Sixtieths.ofLabour(minutes, rates.labourRateMinor()));
            long parts = likelyMinor - labourMinor;
            return new Money(
                    parts + Math.round(labourMinor * rates.lowShare()),
                    likelyMinor,
                    parts + Math.round(labourMinor * rates.highShare()));
        }

        public Money plus(Money other) {
            return new Money(low + other.low, likely + other.likely, high + other.high);
        }
    }
}
