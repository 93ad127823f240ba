package knollfield.app.settings;

import java.time.Instant;
import java.util.Currency;
import knollfield.core.bundle.School;
import knollfield.core.due.Policy;
import knollfield.core.estimate.EstimateRates;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.plan.Shop;
import knollfield.core.risk.Careful;
import knollfield.core.risk.Consequence;
import knollfield.core.risk.WearModel;
import knollfield.core.risk.WearModels;

/**
 * The workshop's own figures.
 *
 * @param currency ISO 4217
 * @param labourRateMinor an hour of labour, minor units
 * @param school how it decides what goes in beside what must
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
        School school,
        School.Seals seals,
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

    /** These figures under another name or in another currency, as {@code by} sets them at {@code at}. */
    Workshop named(String otherName, String otherCurrency, String by, Instant at) {
        return new Workshop(
                otherName,
                otherCurrency,
                policy,
                labourRateMinor,
                costs,
                wear,
                school,
                seals,
                assumptions,
                version,
                by,
                at);
    }

    /** These figures with other assumptions, as {@code by} sets them at {@code at}. */
    public Workshop with(Assumptions others, int readVersion, String by, Instant at) {
        return new Workshop(
                name,
                currency,
                withFound(others),
                labourRateMinor,
                costs,
                wear,
                school,
                seals,
                others,
                readVersion,
                by,
                at);
    }

    /** These figures with other wear, as {@code by} sets it at {@code at}. */
    public Workshop with(WearModel otherWear, int readVersion, String by, Instant at) {
        return new Workshop(
                name,
                currency,
                policy,
                labourRateMinor,
                costs,
                otherWear,
                school,
                seals,
                assumptions,
                readVersion,
                by,
                at);
    }

    /** What estimates are made by, for a family the workshop needs {@code timeFactor} of the book's time for. */
    public EstimateRates rates(double timeFactor, long toolHireMinor) {
        return assumptions.rates(labourRateMinor, minorPerUnit(), timeFactor, toolHireMinor);
    }

    /** What the cheapest day to act is weighed by. */
    public Careful careful() {
        return assumptions.careful(minorPerUnit());
    }

    /** What a plan is weighed by. */
    public Shop.Prices planPrices() {
        return assumptions.planPrices(minorPerUnit());
    }

    /** Minor units to one of the currency. */
    public double minorPerUnit() {
        return Math.pow(10, currencyDigits());
    }

    /** Digits after the point of the currency's amounts, by ISO 4217. */
    public int currencyDigits() {
        return Currency.getInstance(currency).getDefaultFractionDigits();
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
