package knollfield.app.setup;

import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import knollfield.app.problem.Checks;
import knollfield.app.settings.Assumptions;
import knollfield.app.settings.Timings;
import knollfield.app.settings.Workshop;
import knollfield.core.bundle.School;
import knollfield.core.due.Policy;
import knollfield.core.risk.Consequence;
import knollfield.core.risk.WearModel;
import org.jspecify.annotations.Nullable;

/**
 * The workshop's figures as they are to be; what is left out stays as it is. Shares run from 0 to 1; money is in minor units
 * of the currency.
 *
 * @param stranding in the currency itself, as are {@code visit} and the assumptions of the same name
 */
record WorkshopChange(
        Timings.Kind policy,
        double earlyShare,
        @Nullable Integer fixedKm,
        @Nullable Integer fixedMonths,
        double riskInterference,
        double riskOther,
        int horizonDays,
        Policy.UnknownRule unknownRule,
        boolean statedCounts,
        long labourRateMinor,
        long recoveryMinor,
        long dayOffRoadMinor,
        int daysOffRoad,
        double shareFailedAtLimits,
        double wearShape,
        @Nullable School school,
        School.@Nullable Seals seals,
        @Nullable Double stranding,
        @Nullable Double visit,
        @Nullable Double visitsPerYear,
        int version) {

    /**
     * {@code before} with these figures.
     *
     * @throws knollfield.app.problem.InvalidInput where one is out of its range
     */
    Workshop on(Workshop before, String by, Instant at) {
        check();
        Assumptions assumptions = before.assumptions();
        for (Map.Entry<String, Double> e : amounts().entrySet()) {
            assumptions = assumptions.with(e.getKey(), e.getValue());
        }
        return new Workshop(
                before.name(),
                before.currency(),
                new Policy(
                        Timings.of(policy, earlyShare, fixedKm, fixedMonths),
                        riskInterference,
                        riskOther,
                        horizonDays,
                        unknownRule,
                        statedCounts,
                        before.policy().found()),
                labourRateMinor,
                new Consequence.Costs(recoveryMinor, dayOffRoadMinor, daysOffRoad),
                new WearModel(shareFailedAtLimits, wearShape),
                Optional.ofNullable(school).orElse(before.school()),
                Optional.ofNullable(seals).orElse(before.seals()),
                assumptions,
                version,
                by,
                at);
    }

    /** Assumptions that go with the policy, by name. */
    Map<String, Double> amounts() {
        Map<String, Double> amounts = new HashMap<>();
        put(amounts, Assumptions.STRANDING, stranding);
        put(amounts, Assumptions.VISIT, visit);
        put(amounts, Assumptions.VISITS, visitsPerYear);
        return amounts;
    }

    private static void put(Map<String, Double> amounts, String name, @Nullable Double amount) {
        if (amount != null) {
            amounts.put(name, amount);
        }
    }

    private void check() {
        Timings.check(
                        new Checks(),
                        policy,
                        earlyShare,
                        fixedKm,
                        fixedMonths,
                        new Timings.Pointers("/earlyShare", "/fixedKm", "/fixedMonths"))
                .that(chance(riskInterference), "/riskInterference", "The chance must lie between 0.01 and 99.99 %.")
                .that(chance(riskOther), "/riskOther", "The chance must lie between 0.01 and 99.99 %.")
                .that(horizonDays >= 1 && horizonDays <= 730, "/horizonDays", "The horizon must be 1 to 730 days.")
                .that(money(labourRateMinor), "/labourRateMinor", "The rate must be 0 to 1,000,000.")
                .that(money(recoveryMinor), "/recoveryMinor", "The cost must be 0 to 1,000,000.")
                .that(money(dayOffRoadMinor), "/dayOffRoadMinor", "The cost must be 0 to 1,000,000.")
                .that(daysOffRoad >= 0 && daysOffRoad <= 365, "/daysOffRoad", "The days must be 0 to 365.")
                .that(
                        chance(shareFailedAtLimits),
                        "/shareFailedAtLimits",
                        "The share must lie between 0.01 and 99.99 %.")
                .that(wearShape >= 1 && wearShape <= 20, "/wearShape", "The shape must be 1 to 20.")
                .that(within(stranding, 1_000_000), "/stranding", "It must be 0 to 1,000,000.")
                .that(within(visit, 100_000), "/visit", "It must be 0 to 100,000.")
                .that(within(visitsPerYear, 52), "/visitsPerYear", "It must be 0 to 52 a year.")
                .orThrow();
    }

    private static boolean chance(double share) {
        return share >= 0.0001 && share <= 0.9999;
    }

    private static boolean money(long minor) {
        return minor >= 0 && minor <= 100_000_000;
    }

    private static boolean within(@Nullable Double amount, double most) {
        return amount == null || (amount >= 0 && amount <= most);
    }
}
