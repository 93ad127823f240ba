package knollfield.app.standins;

import java.util.List;
import java.util.Optional;
import knollfield.app.problem.Conflict;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.Evidence;
import knollfield.core.due.FaultCode;
import org.jspecify.annotations.Nullable;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;

/** Reads a vehicle's fault codes; what speaks of the timing drive becomes evidence. */
@RestController
class FaultCodeController {

    private final FaultCodeReader reader;
    private final Outside outside;
    private final VehicleService vehicles;
    private final WorkshopClock clock;

    FaultCodeController(FaultCodeReader reader, Outside outside, VehicleService vehicles, WorkshopClock clock) {
        this.reader = reader;
        this.outside = outside;
        this.vehicles = vehicles;
        this.clock = clock;
    }

    /** @param meaning null for a code that does not speak of the timing drive */
    record CodeRead(String code, @Nullable String meaning, boolean recorded) {}

    /** @param simulated a stand-in said them */
    record CodesRead(List<CodeRead> codes, boolean simulated) {}

    /** What a stand-in says is marked simulated and never makes anything due. A code that is on file as open evidence already is not recorded twice. */
    @PostMapping("/api/vehicles/{id}/fault-codes")
    @Transactional
    CodesRead read(@PathVariable long id) {
        if (!outside.get().faultCodes()) {
            throw new Conflict("No fault-code reader is connected. Note what yours said as evidence, by hand.");
        }
        Vehicle vehicle = vehicles.get(id);
        List<String> notes = vehicles.history(vehicle).evidence().stream()
                .filter(e -> e.endedOn().isEmpty())
                .map(e -> e.note())
                .toList();
        return new CodesRead(
                reader.read(vehicle).stream()
                        .map(code -> {
                            Optional<FaultCode> known = FaultCode.of(code);
                            boolean isNew = known.isPresent() && notes.stream().noneMatch(n -> n.startsWith(code));
                            if (isNew) {
                                vehicles.addEvidence(
                                        id,
                                        new Evidence(
                                                known.get().evidence(),
                                                clock.today(),
                                                Evidence.Confidence.SIMULATED,
                                                Optional.empty()),
                                        "fault-code reader, simulated",
                                        code + ", " + known.get().meaning());
                            }
                            return new CodeRead(
                                    code, known.map(FaultCode::meaning).orElse(null), isNew);
                        })
                        .toList(),
                true);
    }
}
