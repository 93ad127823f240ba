package knollfield.app.breakdown;

import java.time.LocalDate;
import java.util.Optional;
import java.util.OptionalLong;

/**
 * A timing drive that failed on the road or in the yard.
 *
 * @param itemCode what let go, by its code in the engine's book; empty where the engine has no book
 * @param km odometer then
 * @param costMinor what it came to, minor units; empty where nobody knows yet
 * @param declined the owner had declined the work when it happened
 */
public record Breakdown(
        long id,
        long vehicleId,
        String itemCode,
        LocalDate on,
        int km,
        String what,
        OptionalLong costMinor,
        boolean declined,
        String enteredBy,
        Optional<Withdrawn> withdrawn) {

    /** It was noted in error. */
    public record Withdrawn(LocalDate on, String why) {}

    public boolean stands() {
        return withdrawn.isEmpty();
    }
}
