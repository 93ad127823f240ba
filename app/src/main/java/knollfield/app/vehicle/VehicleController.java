package knollfield.app.vehicle;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Optional;
import java.util.Set;
import knollfield.app.problem.Checks;
import knollfield.app.security.CurrentPerson;
import knollfield.core.due.ClockStart;
import knollfield.core.due.Condition;
import knollfield.core.due.EvidenceKind;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Changes to one vehicle. */
@RestController
@RequestMapping("/api/vehicles/{id}")
class VehicleController {

    private final VehicleService vehicles;
    private final CurrentPerson current;

    VehicleController(VehicleService vehicles, CurrentPerson current) {
        this.vehicles = vehicles;
        this.current = current;
    }

    record NewReading(LocalDate date, BigDecimal value, DistanceUnit unit, ReadingSource source, boolean insist) {}

    record Recorded(long id) {}

    record ReadingMark(boolean wrong, int version) {}

    record Conditions(Set<Condition> conditions, int version) {}

    record NewRenewal(
            String item,
            LocalDate date,
            int km,
            ClockStart.Grade grade,
            @Nullable String part,
            boolean countsAsReading,
            ReadingSource source) {}

    record NewEvidence(
            EvidenceKind kind, LocalDate found, @Nullable String note) {}

    record Withdrawal(String why) {}

    @PostMapping("/readings")
    Recorded addReading(@PathVariable long id, @RequestBody NewReading r) {
        return new Recorded(vehicles.addReading(id, r.date(), r.value(), r.unit(), r.source(), r.insist()));
    }

    @PutMapping("/readings/{readingId}/mark")
    void markReading(@PathVariable long id, @PathVariable long readingId, @RequestBody ReadingMark mark) {
        vehicles.markReading(id, readingId, mark.wrong(), mark.version());
    }

    @PutMapping("/conditions")
    void setConditions(@PathVariable long id, @RequestBody Conditions body) {
        vehicles.setConditions(id, body.conditions(), body.version());
    }

    @PostMapping("/renewals")
    void addRenewal(@PathVariable long id, @RequestBody NewRenewal r) {
        new Checks().text(r.item(), 30, "/item", "The item").orThrow();
        Renewal renewal = new Renewal(
                r.item(),
                r.date(),
                r.km(),
                r.grade(),
                Optional.ofNullable(r.part()).orElse(""),
                Optional.empty(),
                current.get().name());
        vehicles.addRenewal(id, renewal, r.countsAsReading(), r.source());
    }

    @PostMapping("/evidence")
    void addEvidence(@PathVariable long id, @RequestBody NewEvidence e) {
        vehicles.addEvidence(
                id,
                e.kind(),
                e.found(),
                Optional.ofNullable(e.note()).orElse("").strip());
    }

    @PostMapping("/evidence/{evidenceId}/withdrawal")
    void withdrawEvidence(@PathVariable long id, @PathVariable long evidenceId, @RequestBody Withdrawal body) {
        vehicles.withdrawEvidence(id, evidenceId, body.why());
    }
}
