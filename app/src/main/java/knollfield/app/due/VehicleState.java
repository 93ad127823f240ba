package knollfield.app.due;

import java.util.Optional;
import java.util.OptionalLong;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.core.bundle.Bundle;
import knollfield.core.due.VehicleForecast;
import knollfield.core.risk.Consequence;

/**
 * A vehicle and how it stands today.
 *
 * @param usual the job that would be done by the rules alone; empty without an engine family
 * @param plannedMinor what that job costs, minor units
 * @param consequence what a failure costs; empty without an engine family
 * @param exposurePerWeekMinor exposure of waiting seven days; empty where it is not known
 */
public record VehicleState(
        VehicleHistory history,
        VehicleForecast forecast,
        Optional<Bundle> usual,
        long plannedMinor,
        Optional<Consequence> consequence,
        OptionalLong exposurePerWeekMinor) {}
