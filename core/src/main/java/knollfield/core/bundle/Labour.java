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
        Map<String, List<String>> ways = new LinkedHashMap<>();
        for (String code : items) {
            Item item = family.item(code)
                    .orElseThrow(() ->
                            new IllegalArgumentException("family %s has no item %s".formatted(family.code(), code)));
            ways.put(code, item.accessSteps());
        }
        return union(family.accessSteps(), equipment, ways);
    }

    /**
     * The same without a family.
     *
     * @param book all steps there are, in working order
     * @param ways codes of the steps that lead to each item, by item code
     * @throws IllegalArgumentException for a step code that is not in {@code book}
     */
    public static Labour union(List<AccessStep> book, Set<String> equipment, Map<String, List<String>> ways) {
        Map<String, AccessStep> byCode = new LinkedHashMap<>();
        book.forEach(s -> byCode.put(s.code(), s));
        Map<String, Set<String>> neededBy = new LinkedHashMap<>();
        ways.forEach((item, steps) -> {
            Set<String> visited = new LinkedHashSet<>();
            steps.forEach(s -> collect(byCode, equipment, s, visited));
            visited.forEach(
                    s -> neededBy.computeIfAbsent(s, c -> new TreeSet<>()).add(item));
        });
        List<SharedStep> union = new ArrayList<>();
        for (AccessStep step : book) {
            Set<String> who = neededBy.get(step.code());
            if (who != null) {
                union.add(new SharedStep(step, who));
            }
        }
        return new Labour(union);
    }

    /** Minutes of one technician, zero or more. */
    public int minutes() {
        return steps.stream().mapToInt(s -> s.step().minutes()).sum();
    }

    /** Minutes of the steps that more than one item needs. */
    public int sharedMinutes() {
        return steps.stream()
                .filter(s -> s.neededBy().size() > 1)
                .mapToInt(s -> s.step().minutes())
                .sum();
    }

    /** Minutes of the steps that {@code item} needs alone. */
    public int ownMinutes(String item) {
        return steps.stream()
                .filter(s -> s.neededBy().equals(Set.of(item)))
                .mapToInt(s -> s.step().minutes())
                .sum();
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

    private static void collect(Map<String, AccessStep> book, Set<String> equipment, String code, Set<String> into) {
        AccessStep step = book.get(code);
        if (step == null) {
            throw new IllegalArgumentException("there is no access step " + code);
        }
        if (into.contains(code)
                || step.equipment().filter(e -> !equipment.contains(e)).isPresent()) {
            return;
        }
        step.requires().forEach(r -> collect(book, equipment, r, into));
        into.add(code);
    }
}
