package knollfield.app.vehicle;

import java.util.Optional;
import knollfield.app.engine.EngineBook;
import knollfield.app.problem.Checks;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleViews.NewCall;
import knollfield.app.vehicle.VehicleViews.NewDecline;
import knollfield.app.vehicle.VehicleViews.NewEvidence;
import knollfield.app.vehicle.VehicleViews.NewRenewal;
import knollfield.app.vehicle.VehicleViews.NewTrip;
import knollfield.app.vehicle.VehicleViews.Withdrawal;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.Evidence;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.ReadingSource;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What is noted of a vehicle: renewals, findings, trips, calls and what its owner declined. */
@RestController
@RequestMapping("/api/vehicles")
class VehicleNotesController {

    private static final int SHORTEST_PROOF = 3;

    private final VehicleService vehicles;
    private final EngineBook book;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    VehicleNotesController(VehicleService vehicles, EngineBook book, CurrentPerson current, WorkshopClock clock) {
        this.vehicles = vehicles;
        this.book = book;
        this.current = current;
        this.clock = clock;
    }

    @PostMapping("/{id}/renewals")
    void addRenewal(@PathVariable long id, @RequestBody NewRenewal r) {
        String proof = Optional.ofNullable(r.proof()).orElse("").strip();
        new Checks()
                .text(r.item(), 30, "/item", "The item")
                .that(r.km() >= 0, "/km", "The odometer must be zero or more.")
                .that(
                        r.grade() == ClockStart.Grade.STATED || proof.length() >= SHORTEST_PROOF,
                        "/proof",
                        "Documented by what? The number of the paper, or who saw it. Where there is none, the owner states it.")
                .that(proof.length() <= 120, "/proof", "The proof has at most 120 characters.")
                .orThrow();
        Renewal renewal = new Renewal(
                r.item(),
                r.date(),
                r.km(),
                r.grade(),
                Optional.ofNullable(r.part()).orElse(""),
                "",
                proof,
                Boolean.TRUE.equals(r.betterPart()),
                Optional.empty(),
                current.get().name());
        ReadingSource source = Optional.ofNullable(r.source())
                .orElse(r.grade() == ClockStart.Grade.STATED ? ReadingSource.CUSTOMER : ReadingSource.CERTIFICATE);
        vehicles.addRenewal(id, renewal, r.countsAsReading(), source);
    }

    @PostMapping("/{id}/evidence")
    void addEvidence(@PathVariable long id, @RequestBody NewEvidence e) {
        Optional<String> item = Optional.ofNullable(e.item()).filter(i -> !i.isBlank());
        item.ifPresent(code -> new Checks()
                .that(
                        vehicles.get(id)
                                .familyCode()
                                .flatMap(book::find)
                                .flatMap(f -> f.family().item(code))
                                .isPresent(),
                        "/item",
                        "This engine has no item \"%s\".".formatted(code))
                .orThrow());
        vehicles.addEvidence(
                id,
                new Evidence(
                        e.kind(),
                        e.found(),
                        Optional.ofNullable(e.confidence()).orElse(Evidence.Confidence.SEEN),
                        item),
                "workshop",
                Optional.ofNullable(e.note()).orElse("").strip());
    }

    @PostMapping("/{id}/evidence/{evidenceId}/withdrawal")
    void withdrawEvidence(@PathVariable long id, @PathVariable long evidenceId, @RequestBody Withdrawal body) {
        vehicles.withdrawEvidence(id, evidenceId, body.why());
    }

    @PostMapping("/{id}/trips")
    void addTrip(@PathVariable long id, @RequestBody NewTrip t) {
        new Checks()
                .that(!t.to().isBefore(t.from()), "/to", "The trip ends before it starts.")
                .that(t.to().isAfter(clock.today()), "/to", "A known trip lies ahead; this one is over.")
                .that(
                        t.extraKm() > 0 && t.extraKm() <= 200_000,
                        "/extraKm",
                        "The extra distance must be 1 to 200,000 km.")
                .orThrow();
        vehicles.addTrip(id, new KnownTrip(t.from(), t.to(), t.extraKm()));
    }

    @DeleteMapping("/{id}/trips/{tripId}")
    void cancelTrip(@PathVariable long id, @PathVariable long tripId) {
        vehicles.cancelTrip(id, tripId);
    }

    @PostMapping("/{id}/calls")
    void addCall(@PathVariable long id, @RequestBody NewCall c) {
        vehicles.addCall(id, c.spokeWith(), c.note(), Optional.ofNullable(c.askAgainOn()));
    }

    @PostMapping("/{id}/declines")
    void addDecline(@PathVariable long id, @RequestBody NewDecline d) {
        vehicles.addDecline(id, d.declinedBy(), d.told(), d.until());
    }

    @PostMapping("/{id}/declines/{declineId}/withdrawal")
    void withdrawDecline(@PathVariable long id, @PathVariable long declineId) {
        vehicles.withdrawDecline(id, declineId);
    }
}
