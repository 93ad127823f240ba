package knollfield.app.settings;

import java.time.Instant;
import knollfield.core.due.Policy;
import knollfield.core.risk.Consequence;
import knollfield.core.risk.WearModel;

/**
 * The workshop's own figures.
 *
 * @param currency ISO 4217
 * @param labourRateMinor an hour of labour, minor units
 */
public record Workshop(
        String name,
        String currency,
        Policy policy,
        long labourRateMinor,
        Consequence.Costs costs,
        WearModel wear,
        int version,
        String changedBy,
        Instant changedAt) {}
