package knollfield.app.vehicle;

import java.time.DayOfWeek;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The fleets of the workshop; the manager's alone. */
@RestController
@RequestMapping("/api/setup/fleets")
class FleetController {

    private final Fleets fleets;

    FleetController(Fleets fleets) {
        this.fleets = fleets;
    }

    /**
     * @param offRoadCap vehicles that may be off the road on one day
     * @param days of the week on which they can be in the workshop; empty where any will do
     */
    record NewFleet(
            @Nullable String name,
            int offRoadCap,
            @Nullable String contactName,
            @Nullable String phone,
            @Nullable Set<DayOfWeek> days) {}

    record FleetChange(
            @Nullable String name,
            int offRoadCap,
            @Nullable String contactName,
            @Nullable String phone,
            @Nullable Set<DayOfWeek> days,
            int version) {}

    @GetMapping
    List<Fleet> all() {
        return fleets.all();
    }

    @PostMapping
    List<Fleet> add(@RequestBody NewFleet f) {
        fleets.add(fleet(0, f.name(), f.offRoadCap(), f.contactName(), f.phone(), f.days(), 0));
        return fleets.all();
    }

    @PutMapping("/{id}")
    List<Fleet> change(@PathVariable long id, @RequestBody FleetChange f) {
        fleets.change(fleet(id, f.name(), f.offRoadCap(), f.contactName(), f.phone(), f.days(), f.version()));
        return fleets.all();
    }

    /** Gives a fleet up that nothing belongs to any more. */
    @DeleteMapping("/{id}")
    List<Fleet> giveUp(@PathVariable long id, @RequestParam int version) {
        fleets.giveUp(id, version);
        return fleets.all();
    }

    private static Fleet fleet(
            long id,
            @Nullable String name,
            int cap,
            @Nullable String contact,
            @Nullable String phone,
            @Nullable Set<DayOfWeek> days,
            int version) {
        return new Fleet(
                id,
                Objects.requireNonNullElse(name, ""),
                cap,
                Objects.requireNonNullElse(contact, ""),
                Objects.requireNonNullElse(phone, ""),
                Objects.requireNonNullElse(days, Set.of()),
                version);
    }
}
