package knollfield.app.told;

import java.time.Instant;
import java.time.LocalDateTime;
import java.util.Optional;

/**
 * An owner who counts on what no longer stands.
 *
 * @param promised the time the owner knows; empty where it is about money
 * @param movedTo the time that stands now; empty where there is none
 * @param words what it is about, where that is no time
 */
record ToTell(
        long id,
        What what,
        long jobId,
        long vehicleId,
        Instant madeAt,
        String madeBy,
        Optional<LocalDateTime> promised,
        Optional<LocalDateTime> movedTo,
        String words,
        int version) {

    /** What the owner counts on. */
    enum What {
        /** the time it comes in */
        PROMISE,
        /** the time it is ready */
        READY,
        /** the price that was agreed to */
        PRICE
    }
}
