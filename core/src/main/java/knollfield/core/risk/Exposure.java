package knollfield.core.risk;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Collection;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import knollfield.core.due.ClockStart;
import knollfield.core.due.Evidence;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.Limit;
import knollfield.core.odometer.Projection;

/** What waiting may cost (rules.md section 4). */
public final class Exposure {

    /** Hazard factors of several findings multiply, at most to this. */
    private static final int MAX_HAZARD_FACTOR = 10;

    private Exposure() {}

    /**
     * Exposure of waiting from today to {@code until}, minor units: the chance that an item that carries the drive fails,
     * times what a failure costs beyond the planned job. Empty where no item has limits: then it is not known.
     *
     * <p>An item whose renewal nobody knows is taken to be as old as the vehicle.
     */
    public static OptionalLong ofWaiting(
            VehicleForecast forecast,
            LocalDate firstRegistered,
            Collection<Evidence> evidence,
            WearModel wear,
            Consequence consequence,
            long plannedJobMinor,
            LocalDate until) {
        int factor = Math.min(
                MAX_HAZARD_FACTOR,
                evidence.stream().mapToInt(e -> e.kind().hazardFactor()).reduce(1, (a, b) -> a * b));
        double survives = 1;
        boolean known = false;
        for (ItemForecast item : forecast.items()) {
            if (!item.item().kind().carriesTheDrive() || item.limit().isEmpty() || item.inspection()) {
                continue;
            }
            known = true;
            ClockStart start = item.start()
                    .orElseGet(() -> new ClockStart(firstRegistered, 0, ClockStart.Grade.FIRST_REGISTRATION));
            Limit limit = item.limit().get();
            double then = hazard(wear, start, limit, forecast.projection(), forecast.today());
            double later = hazard(wear, start, limit, forecast.projection(), until);
            // evidence speaks about the belt; the other items wear as they did
            survives *=
                    1 - WearModel.chanceBetween(then, later, item.item().kind().isTheDrive() ? factor : 1);
        }
        if (!known) {
            return OptionalLong.empty();
        }
        long atStake = Math.max(0, consequence.likely() - plannedJobMinor);
        return OptionalLong.of(Math.round((1 - survives) * atStake));
    }

    private static double hazard(WearModel wear, ClockStart start, Limit limit, Projection projection, LocalDate day) {
        OptionalDouble distance = OptionalDouble.empty();
        if (limit.km().isPresent()) {
            double used = Math.max(0, projection.medianKm(day) - start.km());
            distance = OptionalDouble.of(used / limit.km().getAsInt());
        }
        OptionalDouble age = OptionalDouble.empty();
        if (limit.months().isPresent()) {
            LocalDate end = start.date().plusMonths(limit.months().getAsInt());
            double span = ChronoUnit.DAYS.between(start.date(), end);
            age = OptionalDouble.of(Math.max(0, ChronoUnit.DAYS.between(start.date(), day)) / span);
        }
        return wear.cumulativeHazard(distance, age);
    }
}
