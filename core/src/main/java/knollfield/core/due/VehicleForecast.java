package knollfield.core.due;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import knollfield.core.odometer.Projection;
import knollfield.core.odometer.ReadingChain;

/**
 * When a vehicle's timing drive is due, and why.
 *
 * @param status the worst of its items; an unknown history counts for the belt or chain itself only
 * @param actBy earliest over its items
 * @param deciding the item that decides, or the drive where none calls for anything; empty without a book
 * @param reasons in the order one would say them
 */
public record VehicleForecast(
        LocalDate today,
        Status status,
        Optional<LocalDate> actBy,
        Optional<ItemForecast> deciding,
        List<ItemForecast> items,
        ReadingChain readings,
        Projection projection,
        List<Reason> reasons) {

    public VehicleForecast {
        items = List.copyOf(items);
        reasons = List.copyOf(reasons);
    }

    public Optional<ItemForecast> item(String code) {
        return items.stream().filter(i -> i.item().code().equals(code)).findFirst();
    }
}
