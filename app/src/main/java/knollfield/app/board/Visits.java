package knollfield.app.board;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.vehicle.Fleet;
import knollfield.core.risk.Careful;
import org.springframework.stereotype.Service;

/** Which renewals that are not due pay on a visit that a job brings about. */
@Service
class Visits {

    private final Forecasts forecasts;
    private final Jobs jobs;

    Visits(Forecasts forecasts, Jobs jobs) {
        this.forecasts = forecasts;
        this.jobs = jobs;
    }

    /**
     * The job's vehicle itself where it is in for something else, and others of its fleet, which may come on the same day;
     * those first whose waiting saves least. Not what has a job already, nor what its owner has set aside.
     */
    List<VehicleState> worthDoingWith(Job job, int most) {
        Optional<Long> fleet = jobs.state(job).vehicle().fleet().map(Fleet::id);
        Set<Long> inWork = jobs.open().stream().map(Job::vehicleId).collect(Collectors.toSet());
        return forecasts.all().stream()
                .filter(s -> s.whileHere().isPresent()
                        && s.aside().isEmpty()
                        && s.vehicle().state().planned())
                .filter(s -> s.vehicle().id() == job.vehicleId()
                        ? job.scope().isInspection()
                        : fleet.isPresent()
                                && s.vehicle().fleet().map(Fleet::id).equals(fleet)
                                && !inWork.contains(s.vehicle().id()))
                .sorted(Comparator.comparingLong((VehicleState s) ->
                                s.whileHere().map(Careful.WhileHere::gainMinor).orElse(0L))
                        .thenComparing(s -> s.vehicle().registration()))
                .limit(most)
                .toList();
    }
}
