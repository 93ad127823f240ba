package knollfield.app.vehicle;

import java.time.DayOfWeek;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Fleets: who they are, how many vehicles they can spare, and on which days. */
@Service
public class Fleets {

    private static final int MOST = 999;
    private static final int MOST_CONTACTS = 20;

    private final VehicleRepository repository;
    private final FleetContactRepository contacts;
    private final ApplicationEventPublisher events;

    Fleets(VehicleRepository repository, FleetContactRepository contacts, ApplicationEventPublisher events) {
        this.repository = repository;
        this.contacts = contacts;
        this.events = events;
    }

    public List<Fleet> all() {
        return repository.fleets();
    }

    /** @throws InvalidInput for a name that is missing, too long or taken, and a figure out of range */
    @Transactional
    public void add(Fleet fleet) {
        repository.addFleet(checked(fleet));
    }

    /** @throws Conflict where somebody else changed it first */
    @Transactional
    public void change(Fleet fleet) {
        existing(fleet.id());
        save(checked(fleet), true);
    }

    /**
     * Changes how a fleet lends its vehicles.
     *
     * @param cap vehicles that may be off the road on one day
     * @param days of the week on which they can be in the workshop; empty where any will do
     * @throws Conflict where somebody else changed it first
     */
    @Transactional
    public void lends(long id, int cap, Set<DayOfWeek> days, int version) {
        new Checks()
                .that(cap >= 0 && cap <= MOST, "/cap", "Must be 0 to 999 vehicles.")
                .orThrow();
        Fleet f = existing(id);
        save(new Fleet(id, f.name(), cap, f.contactName(), f.phone(), days, version), true);
    }

    /** Who speaks for a fleet beside the contact that stands with it. */
    public List<FleetContact> contacts(long id) {
        return contacts.of(existing(id).id());
    }

    /**
     * Keeps who else speaks for a fleet.
     *
     * @param version of the fleet
     * @throws InvalidInput for a contact without a name or a way to be reached, with its place in the list
     * @throws Conflict where somebody else changed the fleet first
     */
    @Transactional
    public void keepContacts(long id, List<FleetContact> all, int version) {
        Checks checks =
                new Checks().that(all.size() <= MOST_CONTACTS, "/contacts", "At most %d.".formatted(MOST_CONTACTS));
        for (int i = 0; i < all.size(); i++) {
            FleetContact c = all.get(i);
            String at = "/contacts/" + i;
            checks.text(c.name(), 120, at + "/name", "The name")
                    .that(c.role().length() <= 60, at + "/role", "At most 60 characters.")
                    .that(c.phone().length() <= 40, at + "/phone", "At most 40 characters.")
                    .that(
                            c.email().isEmpty()
                                    || c.email().matches("[^@\\s]+@[^@\\s]+")
                                            && c.email().length() <= 200,
                            at + "/email",
                            "An address for letters has an @, such as desk@fleet.example.")
                    .that(
                            !c.phone().isEmpty() || !c.email().isEmpty(),
                            at + "/phone",
                            "A number or an e-mail address: how is this one reached?");
        }
        checks.orThrow();
        Fleet f = existing(id);
        save(new Fleet(id, f.name(), f.offRoadCap(), f.contactName(), f.phone(), f.days(), version), true);
        contacts.replace(id, all);
    }

    /** @throws InvalidInput while vehicles belong to it or people sign in for it */
    @Transactional
    public void giveUp(long id, int version) {
        Fleet fleet = existing(id);
        int users = repository.users(id);
        if (users > 0) {
            throw new InvalidInput(
                    "/id",
                    "%s still has %d %s; give them another owner first."
                            .formatted(
                                    fleet.name(), users, users == 1 ? "vehicle or contact" : "vehicles and contacts"));
        }
        save(
                new Fleet(
                        id,
                        fleet.name(),
                        fleet.offRoadCap(),
                        fleet.contactName(),
                        fleet.phone(),
                        fleet.days(),
                        version),
                false);
    }

    private Fleet existing(long id) {
        return repository.fleets().stream()
                .filter(f -> f.id() == id)
                .findFirst()
                .orElseThrow(() -> new NotFound("There is no fleet " + id + "."));
    }

    private void save(Fleet fleet, boolean active) {
        if (!repository.updateFleet(fleet, active)) {
            throw new Conflict("%s was changed by somebody else. Yours was not saved.".formatted(fleet.name()));
        }
        events.publishEvent(new FleetChanged(fleet.id()));
    }

    private Fleet checked(Fleet f) {
        new Checks()
                .text(f.name(), 80, "/name", "The name of the fleet")
                .that(f.contactName().length() <= 120, "/contactName", "At most 120 characters.")
                .that(f.phone().length() <= 40, "/phone", "At most 40 characters.")
                .that(
                        f.offRoadCap() >= 0 && f.offRoadCap() <= MOST,
                        "/offRoadCap",
                        "Vehicles it can spare at once: 0 to 999.")
                .orThrow();
        String key = f.name().strip().toLowerCase(Locale.ROOT);
        boolean taken = repository.fleets().stream()
                .anyMatch(o ->
                        o.id() != f.id() && o.name().toLowerCase(Locale.ROOT).equals(key));
        if (taken) {
            throw new InvalidInput(
                    "/name",
                    "There is a fleet \"%s\" already.".formatted(f.name().strip()));
        }
        return new Fleet(
                f.id(),
                f.name().strip(),
                f.offRoadCap(),
                f.contactName().strip(),
                f.phone().strip(),
                f.days(),
                f.version());
    }
}
