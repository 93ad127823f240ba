package knollfield.app.vehicle;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import knollfield.core.due.ClockStart;
import knollfield.core.due.Evidence;
import knollfield.core.due.VehicleFacts;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.UsageClass;

/** A vehicle and all that has happened to it; each list oldest first. */
public record VehicleHistory(
        Vehicle vehicle,
        List<StoredReading> readings,
        List<Renewal> renewals,
        List<StoredEvidence> evidence,
        List<KnownTrip> trips) {

    public VehicleHistory {
        readings = List.copyOf(readings);
        renewals = List.copyOf(renewals);
        evidence = List.copyOf(evidence);
        trips = List.copyOf(trips);
    }

    /** What core needs to judge it. */
    public VehicleFacts facts(UsageClass usage) {
        Map<String, ClockStart> starts = new HashMap<>();
        renewals.stream()
                .sorted(Comparator.comparing(Renewal::date))
                .forEach(r -> starts.put(r.itemCode(), new ClockStart(r.date(), r.km(), r.grade())));
        return new VehicleFacts(
                vehicle.firstRegistered(),
                vehicle.cameWithReading(),
                readings.stream()
                        .filter(r -> !r.markedWrong())
                        .map(StoredReading::toCore)
                        .toList(),
                starts,
                vehicle.conditions(),
                openEvidence(),
                usage,
                trips);
    }

    /** Evidence that has not ended. */
    public List<Evidence> openEvidence() {
        return evidence.stream()
                .filter(e -> e.endedOn().isEmpty())
                .map(e -> new Evidence(e.kind(), e.found()))
                .toList();
    }
}
