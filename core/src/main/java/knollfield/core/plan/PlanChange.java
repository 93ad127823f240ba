package knollfield.core.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/** One job that stands elsewhere in one plan than in another; empty where it has no place. */
public record PlanChange(long jobId, Optional<Place> from, Optional<Place> to) {

    /** What differs between two plans, in the order of the case's jobs; what the case pins to its place does not move. */
    public static List<PlanChange> between(PlanCase plan, Map<Long, Place> before, Map<Long, Place> after) {
        List<PlanChange> changes = new ArrayList<>();
        for (PlanJob job : plan.jobs()) {
            Optional<Place> from = Optional.ofNullable(before.get(job.id()));
            Optional<Place> to = Optional.ofNullable(after.get(job.id()));
            if (!from.equals(to) && !(job.pin() instanceof PlanJob.Pin.AtPlace)) {
                changes.add(new PlanChange(job.id(), from, to));
            }
        }
        return changes;
    }

    /**
     * For each change the jobs that stand in its way as the board is, and that other changes move out of it; a change whose
     * way is clear by itself is not in the map.
     */
    public static Map<Long, Set<Long>> needs(PlanCase plan, Map<Long, Place> before, List<PlanChange> changes) {
        Board board = Board.lay(plan, before);
        Set<Long> moving = changes.stream().map(PlanChange::jobId).collect(Collectors.toSet());
        Map<Long, Set<Long>> needs = new HashMap<>();
        for (PlanChange change : changes) {
            change.to()
                    .map(place -> board.broken(change.jobId(), place).stream()
                            .flatMap(b -> b.inTheWay().stream())
                            .filter(moving::contains)
                            .collect(Collectors.toCollection(TreeSet::new)))
                    .filter(inTheWay -> !inTheWay.isEmpty())
                    .ifPresent(inTheWay -> needs.put(change.jobId(), inTheWay));
        }
        return needs;
    }
}
