package knollfield.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** One job that stands elsewhere in one plan than in another; empty where it has no place. */
public record PlanChange(long jobId, Optional<Place> from, Optional<Place> to) {

    /** What differs between two plans, in the order of the case's jobs. */
    public static List<PlanChange> between(PlanCase plan, Map<Long, Place> before, Map<Long, Place> after) {
        List<PlanChange> changes = new ArrayList<>();
        for (PlanJob job : plan.jobs()) {
            Optional<Place> from = Optional.ofNullable(before.get(job.id()));
            Optional<Place> to = Optional.ofNullable(after.get(job.id()));
            if (!from.equals(to)) {
                changes.add(new PlanChange(job.id(), from, to));
            }
        }
        return changes;
    }
}
