package knollfield.core.route;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import knollfield.core.engine.work.Operation;

/**
 * A job laid in one line.
 *
 * @param placed in working order
 * @param arrows all that bind it
 */
public record Line(List<Placed> placed, List<Arrow> arrows) {
    public Line {
        placed = List.copyOf(placed);
        arrows = List.copyOf(arrows);
    }

    public List<Operation> operations() {
        return placed.stream().map(Placed::operation).toList();
    }

    /** What could be done once {@code done} are: every arrow that leads to it comes from one of them. */
    public List<Operation> ready(Set<Operation> done) {
        Map<Operation, Set<Operation>> needs = new HashMap<>();
        arrows.forEach(
                a -> needs.computeIfAbsent(a.then(), o -> new HashSet<>()).add(a.first()));
        return operations().stream()
                .filter(o -> !done.contains(o))
                .filter(o -> done.containsAll(needs.getOrDefault(o, Set.of())))
                .toList();
    }
}
