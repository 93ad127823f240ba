package knollfield.app.vehicle;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * Vehicles that went from one owner to another because two records were one owner, or one record was two.
 *
 * @param vehicles numbers of the vehicles that went
 * @param toBefore what was on file of the owner who stayed, before a merge; empty for a split
 */
public record OwnerChange(
        long id,
        Instant at,
        String by,
        What what,
        long fromId,
        String fromName,
        long toId,
        String toName,
        List<Long> vehicles,
        Optional<Owner> toBefore) {

    public OwnerChange {
        vehicles = List.copyOf(vehicles);
    }

    public enum What {
        /** The first is the second: all his vehicles went, and his record is put away. */
        MERGED,
        /** Some vehicles of the first are the second's. */
        SPLIT
    }
}
