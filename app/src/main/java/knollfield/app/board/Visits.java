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
import knollfield.core.engine.EngineFamily;
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

    /** What brings a visit about. */
    enum Occasion {
        HERE("here for this job"),
        FLEET("same fleet"),
        TOOL_SET("same tool set");

        private final String words;

        Occasion(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }
    }

    /** A vehicle whose renewal pays on a visit, and what brings the visit about. */
    record Visit(VehicleState state, Occasion occasion) {}

    /**
     * The job's vehicle itself where it is in for something else, others of its fleet, which may come on the same day, and
     * others whose work takes the tool set that is out then; in this order, and of each those first whose waiting saves
     * least. Not what has a job already, nor what its owner has set aside.
     */
    List<Visit> worthDoingWith(Job job, int most) {
        VehicleState here = jobs.state(job);
        Set<Long> inWork = jobs.open().stream().map(Job::vehicleId).collect(Collectors.toSet());
        return forecasts.all().stream()
                .filter(s -> s.whileHere().isPresent()
                        && s.aside().isEmpty()
                        && s.vehicle().state().planned())
                .flatMap(s -> occasion(job, here, s, inWork).map(o -> new Visit(s, o)).stream())
                .sorted(Comparator.comparing(Visit::occasion)
                        .thenComparingLong(v -> v.state()
                                .whileHere()
                                .map(Careful.WhileHere::gainMinor)
                                .orElse(0L))
                        .thenComparing(v -> v.state().vehicle().registration()))
                .limit(most)
                .toList();
    }

    private static Optional<Occasion> occasion(Job job, VehicleState here, VehicleState other, Set<Long> inWork) {
        if (other.vehicle().id() == job.vehicleId()) {
            return job.scope().isInspection() ? Optional.of(Occasion.HERE) : Optional.empty();
        }
        if (inWork.contains(other.vehicle().id())) {
            return Optional.empty();
        }
        Optional<Long> fleet = here.vehicle().fleet().map(Fleet::id);
        if (fleet.isPresent() && other.vehicle().fleet().map(Fleet::id).equals(fleet)) {
            return Optional.of(Occasion.FLEET);
        }
        // a tool set belongs to its engine family; an inspection takes none
        return !job.scope().isInspection()
                        && here.family().isPresent()
                        && other.family()
                                .map(EngineFamily::code)
                                .equals(here.family().map(EngineFamily::code))
                ? Optional.of(Occasion.TOOL_SET)
                : Optional.empty();
    }
}
