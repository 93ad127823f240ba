package knollfield.core.due;

import java.time.LocalDate;
import java.util.Optional;
import java.util.OptionalDouble;
import knollfield.core.clock.LimitClock;
import knollfield.core.due.ItemForecast.Binding;

/**
 * How far the item that decides has come, and how far it will have come at the horizon: shares of its limits used, zero or
 * more, 1 = at the limit; the distance by the median.
 *
 * @param distance today; empty without a distance limit
 * @param distanceSoon at the horizon
 * @param age today; empty without an age limit
 * @param ageSoon at the horizon
 */
public record LifeStrip(
        OptionalDouble distance,
        OptionalDouble distanceSoon,
        OptionalDouble age,
        OptionalDouble ageSoon,
        Binding binding) {

    private static final LifeStrip NOT_KNOWN = new LifeStrip(
            OptionalDouble.empty(),
            OptionalDouble.empty(),
            OptionalDouble.empty(),
            OptionalDouble.empty(),
            Binding.NONE);

    /**
     * Of a vehicle as it is judged; all empty where nobody knows when the item began, or it has no limit.
     *
     * @param horizonDays from the forecast's day on, zero or more
     */
    public static LifeStrip of(VehicleForecast forecast, int horizonDays) {
        Optional<ItemForecast> deciding = forecast.deciding();
        if (deciding.isEmpty()
                || deciding.get().start().isEmpty()
                || deciding.get().limit().isEmpty()) {
            return NOT_KNOWN;
        }
        ItemForecast item = deciding.get();
        LimitClock clock = new LimitClock(item.start().get(), item.limit().get());
        LocalDate today = forecast.today();
        LocalDate soon = today.plusDays(horizonDays);
        return new LifeStrip(
                clock.distanceUsed(forecast.usedKm(clock.start(), today)),
                clock.distanceUsed(forecast.usedKm(clock.start(), soon)),
                clock.ageUsed(today),
                clock.ageUsed(soon),
                item.binding());
    }
}
