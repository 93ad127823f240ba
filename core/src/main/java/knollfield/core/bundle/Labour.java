package knollfield.core.bundle;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.Joint;

/**
 * Labour of a set of items: the union of the access steps they need, each counted once (rules.md section 5).
 *
 * @param steps in working order, each after those it requires
 */
public record Labour(List<SharedStep> steps) {

    /**
     * A step of the union.
     *
     * @param neededBy codes of the items of the set that need it, sorted
     */
    public record SharedStep(AccessStep step, Set<String> neededBy) {}

    public Labour {
        steps = List.copyOf(steps);
    }

    /**
     * Union of the steps that {@code items} need on a vehicle with {@code equipment}. A step for equipment the vehicle
     * has not got takes no time and leads nowhere.
     *
     * @throws IllegalArgumentException for an item code the family does not know
     */
    public static Labour of(EngineFamily family, Set<String> equipment, Collection<String> items) {
        Map<String, Set<String>> neededBy = new LinkedHashMap<>();
        List<AccessStep> order = new ArrayList<>();
        for (String code : items) {
            Item item = family.item(code)
                    .orElseThrow(() ->
                            new IllegalArgumentException("family %s has no item %s".formatted(family.code(), code)));
            Set<String> visited = new LinkedHashSet<>();
            item.accessSteps().forEach(s -> collect(family, equipment, s, visited));
            for (String stepCode : visited) {
                neededBy.computeIfAbsent(stepCode, c -> {
                            order.add(family.accessStep(c).orElseThrow());
                            return new TreeSet<>();
                        })
                        .add(code);
            }
        }
        return new Labour(inBookOrder(family, order, neededBy));
    }

    /** Minutes of one technician, zero or more. */
    public int minutes() {
        return steps.stream().mapToInt(s -> s.step().minutes()).sum();
    }

    /** Minutes during which a second person is needed. */
    public int helperMinutes() {
        return steps.stream().mapToInt(s -> s.step().helperMinutes()).sum();
    }

    /** Joints that the steps open, in the book's order. */
    public List<Joint> opened(EngineFamily family) {
        Set<String> codes = new LinkedHashSet<>();
        steps.forEach(s -> codes.addAll(s.step().opens()));
        return family.joints().stream().filter(j -> codes.contains(j.code())).toList();
    }

    /** Minutes that {@code item} adds to {@code others}, or would take away from them together. */
    public static int marginalMinutes(
            EngineFamily family, Set<String> equipment, Collection<String> others, String item) {
        Set<String> without = new LinkedHashSet<>(others);
        without.remove(item);
        Set<String> with = new LinkedHashSet<>(without);
        with.add(item);
        return of(family, equipment, with).minutes()
                - of(family, equipment, without).minutes();
    }

    private static void collect(EngineFamily family, Set<String> equipment, String code, Set<String> into) {
        AccessStep step = family.accessStep(code).orElseThrow();
        if (into.contains(code)
                || step.equipment().filter(e -> !equipment.contains(e)).isPresent()) {
            return;
        }
        step.requires().forEach(r -> collect(family, equipment, r, into));
        into.add(code);
    }

    private static List<SharedStep> inBookOrder(
            EngineFamily family, List<AccessStep> union, Map<String, Set<String>> neededBy) {
        return family.accessSteps().stream()
                .filter(union::contains)
                .map(s -> new SharedStep(s, neededBy.getOrDefault(s.code(), Set.of())))
                .toList();
    }
}
