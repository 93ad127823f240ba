package knollfield.core.engine;

import java.util.List;
import java.util.Optional;

/**
 * Something the family lets one renew.
 *
 * @param code key within the family, such as {@code belt}
 * @param schedule the book's limits; empty where the book has none of its own
 * @param accessSteps codes of the steps that lead to it and of its own fitting
 * @param drivenByTimingDrive true for a pump or idler that the belt or chain itself turns
 * @param weakness a part known to fail early, in a few words; the item is due until renewed with the better part
 * @param halfOf code of the whole this is the front half of; renewed alone, only with the original maker's part, and the
 *     whole keeps its clocks
 */
public record Item(
        String code,
        ItemKind kind,
        String name,
        Part part,
        Optional<Schedule> schedule,
        List<String> accessSteps,
        boolean drivenByTimingDrive,
        Optional<String> weakness,
        Optional<String> halfOf) {

    public Item {
        accessSteps = List.copyOf(accessSteps);
    }

    /** True where its failure takes the timing drive with it; a pump that the drive does not turn is none of them. */
    public boolean takesTheDrive() {
        return kind.carriesTheDrive() && halfOf.isEmpty() && (kind != ItemKind.WATER_PUMP || drivenByTimingDrive);
    }

    /** This item as another part. */
    public Item with(Part other) {
        return with(other, schedule);
    }

    /** This item as another part, with other limits. */
    public Item with(Part other, Optional<Schedule> limits) {
        return new Item(code, kind, name, other, limits, accessSteps, drivenByTimingDrive, weakness, halfOf);
    }

    /** An item without a known weakness. */
    public Item(
            String code,
            ItemKind kind,
            String name,
            Part part,
            Optional<Schedule> schedule,
            List<String> accessSteps,
            boolean drivenByTimingDrive) {
        this(code, kind, name, part, schedule, accessSteps, drivenByTimingDrive, Optional.empty(), Optional.empty());
    }
}
