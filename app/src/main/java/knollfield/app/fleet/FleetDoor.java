package knollfield.app.fleet;

import java.util.ArrayList;
import java.util.List;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.fleet.Coming;
import org.springframework.stereotype.Component;

/** Which fleets whoever asks may see: a contact the own one alone. */
@Component
class FleetDoor {

    private final FleetPlans plans;
    private final VehicleService vehicles;
    private final CurrentPerson current;

    FleetDoor(FleetPlans plans, VehicleService vehicles, CurrentPerson current) {
        this.plans = plans;
        this.vehicles = vehicles;
        this.current = current;
    }

    List<Fleet> seen() {
        VehicleService.View view = VehicleService.View.of(current.get());
        return vehicles.fleets().stream().filter(view::includes).toList();
    }

    /** @throws NotFound where it is not there, or another's: nobody learns which */
    FleetPlans.Plan plan(long id) {
        return seen().stream()
                .filter(f -> f.id() == id)
                .findFirst()
                .map(plans::of)
                .orElseThrow(() -> new NotFound("There is no fleet %d, or it is not yours to see.".formatted(id)));
    }

    /** Every vehicle in use, soonest first; those without a day last. */
    static List<Coming> inOrder(FleetPlans.Plan p) {
        List<Coming> all = new ArrayList<>();
        p.months().months().forEach(m -> all.addAll(m.comes()));
        all.addAll(p.months().beyond());
        all.addAll(p.months().without());
        return all;
    }
}
