package knollfield.core.engine.grow;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;

/** What the access steps of a first book are: the loop's own, a part that comes off, or a fluid let out. */
final class Steps {

    private static final Set<String> FLUID_WORDS = Set.of("coolant", "drain", "drained", "antifreeze");

    private final EngineFamily family;
    private final Map<String, List<Item>> owners = new LinkedHashMap<>();
    /** Codes of the things a step opens or takes off, by step. */
    private final Map<String, List<String>> things = new LinkedHashMap<>();
    /** Code of the loop by drive item. */
    final Map<String, String> loops = new LinkedHashMap<>();

    Steps(EngineFamily family, Codes codes) {
        this.family = family;
        for (Item item : family.items()) {
            for (String step : own(item)) {
                owners.computeIfAbsent(step, s -> new ArrayList<>()).add(item);
            }
            if (item.kind().isTheDrive()) {
                loops.put(item.code(), codes.own(item.code()));
            }
        }
    }

    /** Steps of an item that are its own fitting: those that none of its other steps needs first. */
    List<String> own(Item item) {
        Set<String> needed = new HashSet<>();
        item.accessSteps().forEach(s -> needed.addAll(required(s)));
        List<String> own =
                item.accessSteps().stream().filter(s -> !needed.contains(s)).toList();
        return own.isEmpty() && !item.accessSteps().isEmpty()
                ? List.of(item.accessSteps().get(item.accessSteps().size() - 1))
                : own;
    }

    /** Codes of all steps that {@code step} needs first, however far ahead. */
    private Set<String> required(String step) {
        Set<String> all = new LinkedHashSet<>();
        List<String> open = new ArrayList<>(requires(step));
        while (!open.isEmpty()) {
            String next = open.remove(open.size() - 1);
            if (all.add(next)) {
                open.addAll(requires(next));
            }
        }
        return all;
    }

    private List<String> requires(String step) {
        return family.accessStep(step).map(AccessStep::requires).orElse(List.of());
    }

    /** Items whose own fitting {@code step} is. */
    List<Item> owners(String step) {
        return owners.getOrDefault(step, List.of());
    }

    /** True for the step that takes the belt or chain off and on. */
    boolean isLoop(AccessStep step) {
        return owners(step.code()).stream().anyMatch(i -> i.kind().isTheDrive());
    }

    /** True for a step that only lets a fluid out or in. */
    boolean isFluid(AccessStep step) {
        if (!step.opens().isEmpty() || step.equipment().isPresent()) {
            return false;
        }
        List<Item> own = owners(step.code());
        if (!own.isEmpty()) {
            return own.stream().allMatch(i -> i.kind() == ItemKind.COOLANT || i.kind() == ItemKind.OIL);
        }
        List<AccessStep> next = family.accessSteps().stream()
                .filter(s -> s.requires().contains(step.code()))
                .toList();
        // a shield in front of the pump has no joint either: the words decide
        return next.stream().allMatch(this::wet)
                && Codes.shared(Codes.words(step.code() + " " + step.title(), Set.of()), FLUID_WORDS) > 0;
    }

    private boolean wet(AccessStep step) {
        return step.opens().stream()
                        .flatMap(j -> family.joint(j).stream())
                        .anyMatch(knollfield.core.engine.Joint::holdsCoolant)
                || owners(step.code()).stream()
                        .anyMatch(i -> i.kind() == ItemKind.WATER_PUMP || i.kind() == ItemKind.THERMOSTAT);
    }

    /** Says that {@code step} takes off, or opens, {@code thing}. */
    void takesOff(String step, String thing) {
        things.computeIfAbsent(step, s -> new ArrayList<>()).add(thing);
    }

    List<String> takenOff(String step) {
        return List.copyOf(things.getOrDefault(step, List.of()));
    }

    /** Codes of what lies before the things of {@code step}; a step without a thing hands on what lies before it. */
    List<String> before(AccessStep step) {
        Set<String> before = new LinkedHashSet<>();
        for (String required : step.requires()) {
            List<String> there = things.getOrDefault(required, List.of());
            if (there.isEmpty()) {
                family.accessStep(required).ifPresent(r -> before.addAll(before(r)));
            } else {
                before.addAll(there);
            }
        }
        return List.copyOf(before);
    }
}
