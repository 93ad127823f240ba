package knollfield.app.documents;

import java.time.LocalDate;
import java.util.List;
import knollfield.core.estimate.Estimate;

/**
 * What stands on an estimate.
 *
 * @param plain sentences for the owner
 */
public record EstimateSheet(
        String workshop,
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
