package knollfield.app.documents;

import java.time.LocalDate;
import java.util.List;
import knollfield.core.estimate.Estimate;

/**
 * What stands on an estimate.
 *
 * @param letterhead what stands under the workshop's name, line by line; may be empty
 * @param plain sentences for the owner
 */
public record EstimateSheet(
        String workshop,
        List<String> letterhead,
        String currency,
        long job,
        int number,
        LocalDate madeOn,
        LocalDate validUntil,
        String registration,
        String makeModel,
        String owner,
        Estimate estimate,
        List<String> plain,
        String madeBy) {}
