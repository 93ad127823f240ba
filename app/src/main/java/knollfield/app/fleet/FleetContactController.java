package knollfield.app.fleet;

import java.util.List;
import java.util.Objects;
import knollfield.app.problem.NotFound;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.FleetContact;
import knollfield.app.vehicle.Fleets;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Who else speaks for a fleet. */
@RestController
@RequestMapping("/api/fleets/{id}/contacts")
class FleetContactController {

    private final FleetDoor door;
    private final Fleets fleets;

    FleetContactController(FleetDoor door, Fleets fleets) {
        this.door = door;
        this.fleets = fleets;
    }

    /** @param version of the fleet */
    record FleetContacts(List<FleetContact> contacts, int version) {}

    record FleetContactIn(
            @Nullable String name,
            @Nullable String role,
            @Nullable String phone,
            @Nullable String email) {}

    record FleetContactsIn(@Nullable List<FleetContactIn> contacts, int version) {}

    @GetMapping
    FleetContacts get(@PathVariable long id) {
        return door.seen().stream()
                .filter(f -> f.id() == id)
                .findFirst()
                .map(Fleet::version)
                .map(v -> new FleetContacts(fleets.contacts(id), v))
                .orElseThrow(() -> new NotFound("There is no fleet %d, or it is not yours to see.".formatted(id)));
    }

    @PutMapping
    FleetContacts keep(@PathVariable long id, @RequestBody FleetContactsIn in) {
        fleets.keepContacts(
                id,
                Objects.requireNonNullElse(in.contacts(), List.<FleetContactIn>of()).stream()
                        .map(c -> new FleetContact(text(c.name()), text(c.role()), text(c.phone()), text(c.email())))
                        .toList(),
                in.version());
        return get(id);
    }

    private static String text(@Nullable String value) {
        return Objects.requireNonNullElse(value, "").strip();
    }
}
