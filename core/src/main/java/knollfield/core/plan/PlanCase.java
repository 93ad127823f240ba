package knollfield.core.plan;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** What there is to plan: the workshop and its jobs. */
public record PlanCase(Shop shop, List<PlanJob> jobs) {

    public PlanCase {
        jobs = List.copyOf(jobs);
        if (jobs.stream().map(PlanJob::id).collect(Collectors.toSet()).size() != jobs.size()) {
            throw new IllegalArgumentException("a job is listed twice");
        }
        for (PlanJob job : jobs) {
            if (shop.toolSet(job.toolSet()).isEmpty()) {
                throw new IllegalArgumentException(
                        "%s needs tool set %s, which the workshop does not list".formatted(job.name(), job.toolSet()));
            }
            if (job.fleetId().isPresent()
                    && shop.fleet(job.fleetId().getAsLong()).isEmpty()) {
                throw new IllegalArgumentException("%s is of an unknown fleet, %d"
                        .formatted(job.name(), job.fleetId().getAsLong()));
            }
        }
    }

    public PlanJob job(long id) {
        return jobs.stream()
                .filter(j -> j.id() == id)
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("there is no job %d to plan".formatted(id)));
    }

    /** The places people know. */
    public Map<Long, Place> known() {
        Map<Long, Place> known = new HashMap<>();
        jobs.forEach(j -> j.known().ifPresent(p -> known.put(j.id(), p)));
        return Map.copyOf(known);
    }

    /** This case with one job replaced by another of the same id. */
    public PlanCase with(PlanJob changed) {
        return new PlanCase(
                shop,
                jobs.stream().map(j -> j.id() == changed.id() ? changed : j).toList());
    }
}
