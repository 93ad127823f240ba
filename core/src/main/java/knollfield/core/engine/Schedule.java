package knollfield.core.engine;

import java.util.Optional;
import knollfield.core.clock.Limit;
import knollfield.core.units.DistanceUnit;

/**
 * An item's limits in the family's book.
 *
 * @param severe limits under hard use; none of them above the normal ones; empty where the book has none
 * @param origin where the figures come from, such as "workshop's own book, page 12"
 * @param printedUnit the unit they were printed in
 */
public record Schedule(Limit normal, Optional<Limit> severe, String origin, DistanceUnit printedUnit) {

    public Schedule {
        if (severe.isPresent() && !severe.get().isWithin(normal)) {
            throw new IllegalArgumentException(
                    "the severe limits (%s) must not exceed the normal ones (%s)".formatted(severe.get(), normal));
        }
    }
}
