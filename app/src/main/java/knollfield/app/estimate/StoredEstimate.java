package knollfield.app.estimate;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import knollfield.core.estimate.Estimate;

/**
 * An estimate as it was given; never changed afterwards.
 *
 * @param number counts a job's estimates from 1
 * @param jobVersion the job's version it was made of
 * @param plain sentences for the owner: what is uncovered, why it costs that much, what waiting costs
 */
public record StoredEstimate(
        long id,
        long jobId,
        int number,
        LocalDate madeOn,
        LocalDate validUntil,
        int jobVersion,
        String madeBy,
        Instant madeAt,
        Estimate estimate,
        List<String> plain) {

    public StoredEstimate {
        plain = List.copyOf(plain);
    }
}
