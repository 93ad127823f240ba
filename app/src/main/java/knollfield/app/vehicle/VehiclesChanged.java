package knollfield.app.vehicle;

import java.util.Set;

/** What many forecasts rest on has changed at once, as by a list; some of the vehicles may be gone. */
public record VehiclesChanged(Set<Long> vehicleIds) {
    public VehiclesChanged {
        vehicleIds = Set.copyOf(vehicleIds);
    }
}
