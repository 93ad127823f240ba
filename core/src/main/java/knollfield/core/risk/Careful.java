package knollfield.core.risk;

import java.time.LocalDate;
import java.util.Optional;
import java.util.Set;
import knollfield.core.due.Policy;
import knollfield.core.due.Reason;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.explain.Fact;

/**
 * The policy <i>careful</i>: a vehicle is acted on by its cheapest day, never past the book's (rules.md sections 2 and 4).
 *
 * @param strandingMinor what the workshop would pay beyond the bills so that nobody stands by the road, minor units
 * @param visitMinor what it saves to renew while the vehicle is in the workshop anyway, minor units
 */
public record Careful(long strandingMinor, long visitMinor) {

    public Careful {
        if (strandingMinor < 0 || visitMinor < 0) {
            throw new IllegalArgumentException(
                    "prices must be zero or more, not %d and %d".formatted(strandingMinor, visitMinor));
        }
    }

    /**
     * What renewing on a visit for other work would do, where it is not due.
     *
     * @param gainMinor what waiting until its day saves, minor units, zero or more
     * @param visitMinor what the visit saves, not less
     */
    public record WhileHere(long gainMinor, long visitMinor) {}

    /** @param whileHere where renewing on a visit is worth doing */
    public record Judged(VehicleForecast forecast, Optional<WhileHere> whileHere) {
        private static Judged asItIs(VehicleForecast forecast) {
            return new Judged(forecast, Optional.empty());
        }
    }

    /**
     * {@code forecast} as this policy has it; as it is where the policy in force is another, or where it is judged by
     * something else than a day of the book that lies ahead.
     *
     * @param forecast judged at the book limits
     * @param renewed codes of the items the planned job renews
     */
    public Judged judged(
            VehicleForecast forecast,
            VehicleFacts vehicle,
            Policy policy,
            WearModels wear,
            Exposure.Stake stake,
            Set<String> renewed) {
        boolean aDayAhead = forecast.status().isAhead()
                && forecast.actBy().filter(d -> d.isAfter(forecast.today())).isPresent();
        if (!(policy.inForce(vehicle).timing() instanceof Policy.Timing.Careful)
                || !aDayAhead
                || stake.plannedJobMinor() <= 0) {
            return Judged.asItIs(forecast);
        }
        Optional<DriveHazard> hazard = DriveHazard.of(forecast, vehicle.firstRegistered(), vehicle.evidence(), wear);
        if (hazard.isEmpty()) {
            return Judged.asItIs(forecast);
        }
        LocalDate book = forecast.actBy().get();
        MarginalRule rule = MarginalRule.of(
                hazard.get(),
                renewed,
                new MarginalRule.Costs(
                        stake.plannedJobMinor(), stake.consequence().likely(), strandingMinor),
                forecast.today(),
                book);
        if (rule.perDayMinor().isEmpty()) {
            return Judged.asItIs(forecast.because(Reason.of(
                    Reason.Topic.POLICY,
                    "Careful: no day before the limit costs less, so the day of the book stands.")));
        }
        Fact saved = new Fact.Money(Math.round(rule.perDayMinor().get()));
        Fact stranding = new Fact.Money(strandingMinor);
        VehicleForecast judged = rule.actBy().isBefore(book)
                ? forecast.actedOnBy(
                        rule.actBy(),
                        policy.horizonDays(),
                        Reason.of(
                                Reason.Topic.POLICY,
                                "Careful: {0} costs least. From then on a day more risks more than the {1} it saves, with a stranding at {2} beyond its bills.",
                                new Fact.Day(rule.actBy()),
                                saved,
                                stranding))
                : forecast.because(Reason.of(
                        Reason.Topic.POLICY,
                        "Careful: up to the limit a day more saves {0} and risks less, with a stranding at {1} beyond its bills, so the day of the book stands.",
                        saved,
                        stranding));
        if (!rule.isWorthDoingWhileHere(forecast.today(), visitMinor)) {
            return Judged.asItIs(judged);
        }
        WhileHere here = new WhileHere(Math.round(rule.gainMinor()), visitMinor);
        return new Judged(
                judged.because(Reason.of(
                        Reason.Topic.POLICY,
                        "Not due, but worth doing while it is here: waiting saves {0}, the visit {1}.",
                        new Fact.Money(here.gainMinor()),
                        new Fact.Money(visitMinor))),
                Optional.of(here));
    }
}
