package knollfield.app.vehicle;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.app.engine.FamilyRules;
import knollfield.app.problem.Checks;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleViews.Conditions;
import knollfield.app.vehicle.VehicleViews.NewReading;
import knollfield.app.vehicle.VehicleViews.OwnTiming;
import knollfield.app.vehicle.VehicleViews.ReadingMark;
import knollfield.app.vehicle.VehicleViews.Recorded;
import knollfield.app.vehicle.VehicleViews.StateChange;
import knollfield.app.vehicle.VehicleViews.Stored;
import knollfield.app.vehicle.VehicleViews.VehicleDetails;
import knollfield.app.vehicle.VehicleViews.Version;
import knollfield.core.due.Policy;
import knollfield.core.due.UseState;
import knollfield.core.matching.FamilyRule;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Adding a vehicle and changing one. */
@RestController
@RequestMapping("/api/vehicles")
class VehicleController {

    /** Characters of a paper's number, or a name. */
    private final VehicleService vehicles;

    private final VehicleForm form;
    private final FamilyRules rules;
    private final WorkshopClock clock;

    VehicleController(VehicleService vehicles, VehicleForm form, FamilyRules rules, WorkshopClock clock) {
        this.vehicles = vehicles;
        this.form = form;
        this.rules = rules;
        this.clock = clock;
    }

    @PostMapping
    Stored add(@RequestBody VehicleDetails d) {
        Vehicle typed = form.vehicle(d, Optional.empty());
        Set<String> fitting = typed.familyCode().isPresent()
                ? Set.of()
                : rules.families(new FamilyRule.Described(
                        typed.makeModel(),
                        typed.engine(),
                        typed.firstRegistered().getYear()));
        Vehicle vehicle = fitting.size() == 1
                ? typed.described(typed.engine(), fitting.stream().findFirst())
                : typed;
        List<String> said = new ArrayList<>(VehicleViews.warnings(vehicle));
        if (fitting.size() == 1) {
            said.add("Its engine family is %s, by your matching rules."
                    .formatted(fitting.iterator().next()));
        } else if (fitting.size() > 1) {
            said.add("Your matching rules give it several engine families: %s. It was filed without one."
                    .formatted(String.join(", ", fitting)));
        }
        return new Stored(vehicles.add(vehicle, "added by hand"), said);
    }

    @GetMapping("/{id}/details")
    VehicleDetails details(@PathVariable long id) {
        return VehicleViews.details(vehicles.get(id));
    }

    @PutMapping("/{id}/details")
    Stored change(@PathVariable long id, @RequestBody VehicleDetails d) {
        Vehicle vehicle = form.vehicle(d, Optional.of(vehicles.get(id)));
        vehicles.change(vehicle, "details");
        return new Stored(id, VehicleViews.warnings(vehicle));
    }

    /** What looks odd about a VIN as it is typed; empty where nothing does. */
    @GetMapping("/vin-warning")
    List<String> vinWarning(@RequestParam String vin) {
        return VinWarning.of(vin).stream().toList();
    }

    @PostMapping("/{id}/readings")
    Recorded addReading(@PathVariable long id, @RequestBody NewReading r) {
        return new Recorded(vehicles.addReading(id, r.date(), r.value(), r.unit(), r.source(), r.insist()));
    }

    @PutMapping("/{id}/readings/{readingId}/mark")
    void markReading(@PathVariable long id, @PathVariable long readingId, @RequestBody ReadingMark mark) {
        vehicles.markReading(id, readingId, mark.wrong(), mark.version());
    }

    @PostMapping("/{id}/readings/{readingId}/replacement")
    void replaceOdometer(@PathVariable long id, @PathVariable long readingId, @RequestBody Version body) {
        vehicles.replaceOdometer(id, readingId, body.version());
    }

    @DeleteMapping("/{id}/readings/{readingId}/replacement")
    void undoReplacement(@PathVariable long id, @PathVariable long readingId, @RequestParam int version) {
        vehicles.undoReplacement(id, readingId, version);
    }

    @PutMapping("/{id}/conditions")
    void setConditions(@PathVariable long id, @RequestBody Conditions body) {
        vehicles.setConditions(id, body.conditions(), body.version());
    }

    @PutMapping("/{id}/state")
    void setState(@PathVariable long id, @RequestBody StateChange body) {
        LocalDate since = body.since();
        boolean inUse = body.state() == UseState.Kind.IN_USE;
        new Checks()
                .that(inUse || since != null, "/since", "Since when?")
                .that(since == null || !since.isAfter(clock.today()), "/since", "That day lies in the future.")
                .orThrow();
        UseState state = inUse ? UseState.inUse() : new UseState(body.state(), Optional.ofNullable(since));
        Vehicle v = vehicles.get(id);
        vehicles.change(v.with(state, v.idleHoursPerYear(), v.own(), body.version()), "state");
    }

    @PutMapping("/{id}/own-timing")
    void setOwnTiming(@PathVariable long id, @RequestBody OwnTiming body) {
        Vehicle v = vehicles.get(id);
        Optional<Policy.Own> own = Optional.ofNullable(body.kind()).map(body::toOwn);
        vehicles.change(v.with(v.state(), v.idleHoursPerYear(), own, body.version()), "own timing");
    }
}
