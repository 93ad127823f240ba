package knollfield.core.due;

import java.time.LocalDate;
import java.util.Optional;
import knollfield.core.clock.LimitClock;
import knollfield.core.due.ItemForecast.Binding;

/**
 * A vehicle in the due window that all vehicles share: shares of its own limits used on a day, 1 = at the limit
 * (product.md, "Ahead").
 *
 * @param distance share of the distance limit by the median; zero without one
 * @param age share of the age limit; zero without one
 * @param crosses the day its first limit is reached with even chance; empty where none is within 60 years
 * @param wall the limit reached first
 */
public record Ahead(double distance, double age, Optional<LocalDate> crosses, Binding wall) {

    /** Of the item that decides, as {@code forecast} sees it, on {@code date}; empty where it has no limits or no start. */
    public static Optional<Ahead> of(VehicleForecast forecast, LocalDate date) {
        Optional<ItemForecast> deciding = forecast.deciding();
        if (deciding.isEmpty()
                || deciding.get().start().isEmpty()
                || deciding.get().limit().isEmpty()) {
            return Optional.empty();
        }
        ItemForecast item = deciding.get();
        LimitClock clock = new LimitClock(item.start().get(), item.limit().get());
        return Optional.of(new Ahead(
                clock.distanceUsed(forecast.usedKm(clock.start(), date)).orElse(0),
                clock.ageUsed(date).orElse(0),
                crosses(item),
                item.binding()));
    }

    /** The day the first of an item's limits is reached with even chance. */
    public static Optional<LocalDate> crosses(ItemForecast item) {
        return switch (item.binding()) {
            case AGE -> item.age().map(ItemForecast.AgeClock::date);
            case DISTANCE -> item.distance().flatMap(ItemForecast.DistanceClock::median);
            case NONE -> Optional.empty();
        };
    }

    /** Whether the limit lies behind by the end of {@code date}. */
    public boolean crossedBy(LocalDate date) {
        return crosses.isPresent() && !crosses.get().isAfter(date);
    }

    /**
     * A vehicle's way through the window, worked out once so that a crowd can be moved from day to day quickly. Without a
     * known trip the shares rise in a straight line from today on; with one each day is worked out anew.
     */
    public static final class Track {

        /** The day of a crossing that does not come. */
        public static final long NEVER = Long.MAX_VALUE;

        private static final int FAR_DAYS = 1_000;

        private final VehicleForecast forecast;
        private final Ahead today;
        private final long todayDay;
        private final double distanceToday;
        private final double distancePerDay;
        private final double ageToday;
        private final double agePerDay;
        private final boolean straight;

        private Track(VehicleForecast forecast, Ahead today, Ahead far) {
            this.forecast = forecast;
            this.today = today;
            this.todayDay = forecast.today().toEpochDay();
            this.distanceToday = today.distance;
            this.distancePerDay = (far.distance - today.distance) / FAR_DAYS;
            this.ageToday = today.age;
            this.agePerDay = (far.age - today.age) / FAR_DAYS;
            this.straight = forecast.projection().trips().isEmpty()
                    && forecast.projection()
                            .standsFrom()
                            .filter(d -> d.isAfter(forecast.today()))
                            .isEmpty();
        }

        /** Of the item that decides; empty where it has no place in the window. */
        public static Optional<Track> of(VehicleForecast forecast) {
            LocalDate day = forecast.today();
            return Ahead.of(forecast, day)
                    .map(now -> new Track(
                            forecast,
                            now,
                            Ahead.of(forecast, day.plusDays(FAR_DAYS)).orElseThrow()));
        }

        public Ahead today() {
            return today;
        }

        /** Days since 1970 of the first crossing, {@link #NEVER} where none comes. */
        public long crossesDay() {
            return today.crosses.map(LocalDate::toEpochDay).orElse(NEVER);
        }

        /** Share of the distance limit on {@code date}, today or later. */
        public double distanceOn(LocalDate date) {
            return straight ? distanceToday + (date.toEpochDay() - todayDay) * distancePerDay : exact(date).distance;
        }

        /** Share of the age limit on {@code date}, today or later. */
        public double ageOn(LocalDate date) {
            return ageToday + (date.toEpochDay() - todayDay) * agePerDay;
        }

        /** Where the vehicle stands on {@code date}, today or later. */
        public Ahead on(LocalDate date) {
            return new Ahead(distanceOn(date), ageOn(date), today.crosses, today.wall);
        }

        private Ahead exact(LocalDate date) {
            return Ahead.of(forecast, date).orElseThrow();
        }
    }
}
