package knollfield.app.aftercare;

import java.time.LocalDate;
import java.util.Optional;

/**
 * Something found beside a job that somebody should see to.
 *
 * @param jobId the job it was found at; empty for one of a recall without a job of ours
 * @param closed empty until it is settled
 */
public record FollowUp(
        long id,
        long vehicleId,
        Optional<Long> jobId,
        String what,
        boolean urgent,
        LocalDate notedOn,
        String notedBy,
        Optional<Closed> closed,
        int version) {}
