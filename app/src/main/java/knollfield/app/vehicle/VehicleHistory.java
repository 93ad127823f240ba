package knollfield.app.vehicle;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.BroughtForward;
import knollfield.core.due.Evidence;
import knollfield.core.due.SetAside;
import knollfield.core.due.VehicleFacts;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.UsageClass;

/** A vehicle and all that has happened to it; each list oldest first. */
public record VehicleHistory(
        Vehicle vehicle,
        List<StoredReading> readings,
        List<Renewal> renewals,
        List<StoredEvidence> evidence,
        List<StoredTrip> trips,
        List<OdometerReplacement> replacements,
        List<CallNote> calls,
        List<StandingDecline> declines,
        Optional<BroughtForward> forward) {

    public VehicleHistory {
        readings = List.copyOf(readings);
        renewals = List.copyOf(renewals);
        evidence = List.copyOf(evidence);
        trips = List.copyOf(trips);
        replacements = List.copyOf(replacements);
        calls = List.copyOf(calls);
        declines = List.copyOf(declines);
    }

    /** A vehicle about which nothing has been said. */
    public VehicleHistory(
            Vehicle vehicle,
            List<StoredReading> readings,
            List<Renewal> renewals,
            List<StoredEvidence> evidence,
            List<StoredTrip> trips) {
        this(vehicle, readings, renewals, evidence, trips, List.of(), List.of(), List.of(), Optional.empty());
    }

    /** The same of a vehicle of {@code fleet}. */
    public VehicleHistory of(Fleet fleet) {
        return new VehicleHistory(
                vehicle.of(fleet), readings, renewals, evidence, trips, replacements, calls, declines, forward);
    }

    /** What core needs to judge it. */
    public VehicleFacts facts(UsageClass usage) {
        Map<String, ClockStart> starts = new HashMap<>();
        Map<String, LocalDate> latest = new HashMap<>();
        Set<String> better = new HashSet<>();
        List<Reading> counted = new ArrayList<>(readings.size() + renewals.size());
        for (StoredReading r : readings) {
            if (!r.markedWrong()) {
                counted.add(r.toCore(offsetOf(r)));
            }
        }
        for (Renewal r : renewals) {
            ClockStart start = start(r);
            LocalDate known = latest.get(r.itemCode());
            if (known == null || !r.date().isBefore(known)) {
                latest.put(r.itemCode(), r.date());
                starts.put(r.itemCode(), start);
            }
            start.reading()
                    .filter(s -> !has(counted, s) && !isMarkedWrong(r.date(), r.km()))
                    .ifPresent(counted::add);
            if (r.betterPart()) {
                better.add(r.itemCode());
            }
        }
        return new VehicleFacts(
                vehicle.firstRegistered(),
                vehicle.cameWithReading(),
                counted,
                starts,
                vehicle.conditions(),
                openEvidence(),
                usage,
                trips.stream()
                        .filter(t -> t.cancelledOn().isEmpty())
                        .map(StoredTrip::trip)
                        .toList(),
                new VehicleFacts.Special(
                        vehicle.state(), vehicle.idleHoursPerYear(), vehicle.own(), vehicle.beltDateCode(), better));
    }

    /** As {@link List#contains}, which compares every part of every reading: of a feed's thousands few show this distance. */
    private static boolean has(List<Reading> readings, Reading wanted) {
        for (Reading r : readings) {
            if (r.km() == wanted.km() && r.equals(wanted)) {
                return true;
            }
        }
        return false;
    }

    /** Where the clocks of a renewed item begin, in km since new whatever odometer showed them. */
    public ClockStart start(Renewal r) {
        return new ClockStart(r.date(), Math.min(Reading.MAX_KM, r.km() + offsetOn(r.date())), r.grade());
    }

    private boolean isMarkedWrong(LocalDate date, int km) {
        return readings.stream().anyMatch(r -> r.markedWrong() && r.date().equals(date) && r.km() == km);
    }

    /** What the odometer shown on {@code date} lacks of the distance since new, km. */
    public int offsetOn(LocalDate date) {
        int offset = 0;
        for (OdometerReplacement r : replacements) {
            if (!r.replacedOn().isAfter(date)) {
                offset += r.offsetKm();
            }
        }
        return offset;
    }

    /** The same for one reading: on the day of a replacement the old odometer may have been read before it went out. */
    private int offsetOf(StoredReading reading) {
        int offset = 0;
        for (OdometerReplacement r : replacements) {
            boolean before = r.replacedOn().isBefore(reading.date());
            boolean sameDay = r.replacedOn().equals(reading.date()) && reading.id() >= r.readingId();
            if (before || sameDay) {
                offset += r.offsetKm();
            }
        }
        return offset;
    }

    /**
     * What was on file on {@code day}, in the morning: renewals of that day and later ones have not been made, and evidence that
     * has ended since is open.
     */
    public VehicleHistory on(LocalDate day) {
        return new VehicleHistory(
                vehicle,
                readings.stream().filter(r -> !r.date().isAfter(day)).toList(),
                renewals.stream().filter(r -> r.date().isBefore(day)).toList(),
                evidence.stream()
                        .filter(e -> !e.evidence().found().isAfter(day))
                        .filter(e -> e.endedOn().filter(d -> d.isBefore(day)).isEmpty())
                        .map(e -> new StoredEvidence(
                                e.id(),
                                e.evidence(),
                                e.source(),
                                e.note(),
                                Optional.empty(),
                                Optional.empty(),
                                e.enteredBy()))
                        .toList(),
                trips,
                replacements,
                calls,
                declines,
                forward);
    }

    /** Evidence that has not ended. */
    public List<Evidence> openEvidence() {
        return evidence.stream()
                .filter(e -> e.endedOn().isEmpty())
                .map(StoredEvidence::evidence)
                .toList();
    }

    /** What the owner wants for now; a later call takes the place of an earlier one. */
    public List<SetAside.Wish> wishes() {
        List<SetAside.Wish> wishes = new ArrayList<>();
        if (!calls.isEmpty()) {
            CallNote last = calls.get(calls.size() - 1);
            last.askAgainOn()
                    .ifPresent(again -> wishes.add(new SetAside.Wish(SetAside.Why.ASK_AGAIN, last.spokenOn(), again)));
        }
        for (StandingDecline d : declines) {
            if (d.withdrawnOn().isEmpty()) {
                wishes.add(new SetAside.Wish(SetAside.Why.DECLINED, d.declinedOn(), d.until()));
            }
        }
        return wishes;
    }
}
