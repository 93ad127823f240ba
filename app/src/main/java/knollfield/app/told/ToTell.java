package knollfield.app.told;

import java.time.Instant;
import java.time.LocalDateTime;
import java.util.Optional;

/**
 * An owner who counts on a time that no longer stands.
 *
 * @param promised the time the owner knows
 * @param movedTo the time that stands now; empty where there is none
 */
record ToTell(
        long id,
        long jobId,
        long vehicleId,
        Instant madeAt,
        String madeBy,
        LocalDateTime promised,
        Optional<LocalDateTime> movedTo,
        int version) {}
