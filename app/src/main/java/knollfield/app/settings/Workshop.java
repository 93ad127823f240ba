package knollfield.app.settings;

import java.time.Instant;
import knollfield.core.due.Policy;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.risk.Consequence;
import knollfield.core.risk.WearModel;
import knollfield.core.risk.WearModels;

/**
 * The workshop's own figures.
 *
 * @param currency ISO 4217
 * @param labourRateMinor an hour of labour, minor units
 * @param wear of items whose kind has no wear of its own
 * @param assumptions those changed from the usual
 */
public record Workshop(
        String name,
        String currency,
        Policy policy,
        long labourRateMinor,
        Consequence.Costs costs,
        WearModel wear,
        Assumptions assumptions,
        int version,
        String changedBy,
        Instant changedAt) {

    public OdometerAssumptions odometer() {
        return assumptions.odometer();
    }

    public WearModels wearModels() {
        return assumptions.wear(wear);
    }

    /** These figures with other assumptions, as {@code by} sets them at {@code at}. */
    public Workshop with(Assumptions others, int readVersion, String by, Instant at) {
        return new Workshop(
                name, currency, withFound(others), labourRateMinor, costs, wear, others, readVersion, by, at);
    }

    private Policy withFound(Assumptions others) {
        return new Policy(
                policy.timing(),
                policy.riskInterference(),
                policy.riskOther(),
                policy.horizonDays(),
                policy.unknownRule(),
                policy.statedCounts(),
                others.found());
    }
}
