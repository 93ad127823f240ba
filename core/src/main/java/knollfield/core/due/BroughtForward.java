package knollfield.core.due;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Optional;
import knollfield.core.explain.Fact;

/**
 * A job that somebody has brought forward to a month before its own, so that a fleet's months come out level.
 *
 * @param month in which it is to be done
 * @param from the act-by day it had then
 */
public record BroughtForward(YearMonth month, LocalDate from) {

    /** Days by which the act-by day may move away before the drive must have been renewed in between. */
    private static final int RENEWED_AFTER_DAYS = 366;

    /** True where it still moves a job that would be acted on by {@code actBy}. */
    public boolean holds(LocalDate actBy) {
        return month.atEndOfMonth().isBefore(actBy) && actBy.isBefore(from.plusDays(RENEWED_AFTER_DAYS));
    }

    /** {@code forecast} acted on by the end of the month, where that still is earlier than its own day. */
    public VehicleForecast on(VehicleForecast forecast, int horizonDays) {
        Optional<LocalDate> actBy = forecast.actBy().filter(this::holds);
        return actBy.isEmpty() || !forecast.status().isAhead()
                ? forecast
                : forecast.actedOnBy(
                        month.atEndOfMonth(),
                        horizonDays,
                        Reason.of(
                                Reason.Topic.POLICY,
                                "Brought forward from {0} to {1}, so that the fleet's months come out level.",
                                new Fact.Day(actBy.get()),
                                new Fact.Day(month.atEndOfMonth())));
    }
}
