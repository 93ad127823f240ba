package knollfield.core.risk;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Collection;
import java.util.Optional;
import java.util.Set;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.Evidence;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.VehicleForecast;
import knollfield.core.units.Years;

/**
 * What is given away by renewing before the act-by day: W(act-by) − W(d) of rules.md section 4, the days that a set would still
 * have served at what a fresh one costs a day, less the risk that they would have had. Where that rule does not apply, the share
 * of the job's price that the days are of the life until the act-by day.
 */
public final class EarlyRenewal {

    private final LocalDate actBy;
    private final double perDayMinor;
    private final double beyondTheJob;
    private final Optional<DriveHazard.Wear> wear;

    private EarlyRenewal(LocalDate actBy, double perDayMinor, double beyondTheJob, Optional<DriveHazard.Wear> wear) {
        this.actBy = actBy;
        this.perDayMinor = perDayMinor;
        this.beyondTheJob = beyondTheJob;
        this.wear = wear;
    }

    /**
     * Of a vehicle; empty where it has no act-by day, or its job has no price.
     *
     * @param forecast as it is judged
     * @param strandingMinor the workshop's price of a stranding, minor units
     * @param renewed codes of the items the planned job renews
     */
    public static Optional<EarlyRenewal> of(
            VehicleForecast forecast,
            LocalDate firstRegistered,
            Collection<Evidence> evidence,
            WearModels wear,
            Exposure.Stake stake,
            long strandingMinor,
            Set<String> renewed) {
        Optional<LocalDate> actBy = forecast.actBy();
        if (actBy.isEmpty() || stake.plannedJobMinor() <= 0) {
            return Optional.empty();
        }
        LocalDate last = actBy.get().isBefore(forecast.today()) ? forecast.today() : actBy.get();
        MarginalRule.Costs costs = new MarginalRule.Costs(
                stake.plannedJobMinor(), stake.consequence().likely(), strandingMinor);
        Optional<DriveHazard> hazard = DriveHazard.of(forecast, firstRegistered, evidence, wear);
        Optional<Double> perDay = hazard.flatMap(
                h -> MarginalRule.of(h, renewed, costs, forecast.today(), last).perDayMinor());
        if (perDay.isPresent()) {
            return Optional.of(
                    new EarlyRenewal(last, perDay.get(), costs.beyondTheJob(), hazard.map(h -> h.wear(renewed))));
        }
        LocalDate began = forecast.deciding()
                .flatMap(ItemForecast::start)
                .map(ClockStart::date)
                .orElse(firstRegistered);
        double life = Math.max(Years.DAYS, ChronoUnit.DAYS.between(began, last));
        return Optional.of(new EarlyRenewal(last, stake.plannedJobMinor() / life, 0, Optional.empty()));
    }

    /** What renewing on {@code day} gives away, minor units; zero from the act-by day on, and where it gives nothing away. */
    public double minor(LocalDate day) {
        if (!day.isBefore(actBy)) {
            return 0;
        }
        double risk =
                wear.map(w -> beyondTheJob * (w.until(actBy) - w.until(day))).orElse(0.0);
        return Math.max(0, perDayMinor * ChronoUnit.DAYS.between(day, actBy) - risk);
    }
}
