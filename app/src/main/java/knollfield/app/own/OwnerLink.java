package knollfield.app.own;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Optional;

/**
 * A private address at which an owner answers one estimate.
 *
 * @param validUntil the last day on which it can be answered
 * @param usedAt when it was answered; then it has ended
 */
record OwnerLink(
        long id,
        long jobId,
        int estimateNumber,
        Instant madeAt,
        String madeBy,
        LocalDate validUntil,
        Optional<Instant> usedAt,
        Optional<Instant> revokedAt) {

    /** Why it opens nothing. */
    enum Ended {
        ANSWERED("answered"),
        TAKEN_BACK("taken back"),
        OVER("its time is over");

        private final String words;

        Ended(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }
    }

    /** Empty while it can be answered. */
    Optional<Ended> ended(LocalDate today) {
        if (usedAt.isPresent()) {
            return Optional.of(Ended.ANSWERED);
        }
        if (revokedAt.isPresent()) {
            return Optional.of(Ended.TAKEN_BACK);
        }
        return validUntil.isBefore(today) ? Optional.of(Ended.OVER) : Optional.empty();
    }
}
