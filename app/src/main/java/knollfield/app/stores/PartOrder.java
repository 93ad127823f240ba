package knollfield.app.stores;

import java.time.LocalDate;
import java.util.Optional;

/**
 * Parts ordered from the supplier.
 *
 * @param priceMinor of all pieces, minor units
 * @param arrives as promised when it was ordered
 */
record PartOrder(
        long id,
        String part,
        int pieces,
        long priceMinor,
        LocalDate orderedOn,
        LocalDate arrives,
        Optional<LocalDate> arrivedOn,
        Optional<LocalDate> cancelledOn,
        String orderedBy,
        int version) {

    boolean isOpen() {
        return arrivedOn.isEmpty() && cancelledOn.isEmpty();
    }
}
