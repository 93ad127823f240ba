package knollfield.core.engine;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The workshop's book for one family of engines. Codes within it are unique and every reference leads somewhere.
 *
 * @param code stable key of the family, such as {@code CAL-16}
 * @param crankFit keyed or friction-held crank sprocket
 * @param reference how the timing is proven
 * @param pins names of the pins, bars and clips this family's timing needs, as counted in and out
 * @param pinOutBeforeTurns tensioner's own pin: pulled before the two turns, or after the first
 * @param mountInTheWay the engine must be carried because a mount comes off
 * @param moveOver small parts that go from old to new, such as washers and spacers
 * @param blankingPlugs openings to close again after locking; 0 for none
 * @param coolantLitres filling, zero or more
 * @param repair engine repair after a failure
 * @param cautions short warnings of this family, shown where they apply
 */
public record EngineFamily(
        String code,
        String name,
        Drive drive,
        Interference interference,
        CrankFit crankFit,
        ReferenceMethod reference,
        List<String> pins,
        TensionerKind tensioner,
        boolean pinOutBeforeTurns,
        boolean mountInTheWay,
        List<String> moveOver,
        int blankingPlugs,
        double coolantLitres,
        BeltPath path,
        List<Item> items,
        List<AccessStep> accessSteps,
        List<Joint> joints,
        RepairEstimate repair,
        List<String> cautions) {

    public EngineFamily {
        pins = List.copyOf(pins);
        moveOver = List.copyOf(moveOver);
        items = List.copyOf(items);
        accessSteps = List.copyOf(accessSteps);
        joints = List.copyOf(joints);
        cautions = List.copyOf(cautions);
        unique(code, "item", items.stream().map(Item::code).toList());
        Set<String> stepCodes = unique(
                code, "access step", accessSteps.stream().map(AccessStep::code).toList());
        Set<String> jointCodes =
                unique(code, "joint", joints.stream().map(Joint::code).toList());
        for (Item item : items) {
            allKnown(code, "item " + item.code(), item.accessSteps(), stepCodes);
        }
        for (AccessStep step : accessSteps) {
            allKnown(code, "access step " + step.code(), step.requires(), stepCodes);
            allKnown(code, "access step " + step.code(), step.opens(), jointCodes);
        }
        noCircle(code, accessSteps);
        long drives = items.stream().filter(i -> i.kind().isTheDrive()).count();
        if (drives != 1) {
            throw new IllegalArgumentException(
                    "family %s needs exactly one belt or chain item, not %d".formatted(code, drives));
        }
        if (reference == ReferenceMethod.PINS && pins.isEmpty()) {
            throw new IllegalArgumentException("family %s is timed by pins and names none".formatted(code));
        }
        if (blankingPlugs < 0 || !(coolantLitres >= 0)) {
            throw new IllegalArgumentException(
                    "family %s: blanking plugs and coolant must be zero or more".formatted(code));
        }
    }

    /** The belt or chain. */
    public Item driveItem() {
        return items.stream().filter(i -> i.kind().isTheDrive()).findFirst().orElseThrow();
    }

    public Optional<Item> item(String itemCode) {
        return items.stream().filter(i -> i.code().equals(itemCode)).findFirst();
    }

    public Optional<AccessStep> accessStep(String stepCode) {
        return accessSteps.stream().filter(s -> s.code().equals(stepCode)).findFirst();
    }

    public Optional<Joint> joint(String jointCode) {
        return joints.stream().filter(j -> j.code().equals(jointCode)).findFirst();
    }

    private static Set<String> unique(String family, String what, List<String> codes) {
        Set<String> seen = new HashSet<>();
        for (String c : codes) {
            if (!seen.add(c)) {
                throw new IllegalArgumentException("family %s has two of %s %s".formatted(family, what, c));
            }
        }
        return seen;
    }

    private static void allKnown(String family, String who, List<String> references, Set<String> known) {
        for (String r : references) {
            if (!known.contains(r)) {
                throw new IllegalArgumentException(
                        "family %s: %s refers to %s, which is not there".formatted(family, who, r));
            }
        }
    }

    private static void noCircle(String family, List<AccessStep> steps) {
        Map<String, List<String>> requires = new HashMap<>();
        steps.forEach(s -> requires.put(s.code(), s.requires()));
        Set<String> settled = new HashSet<>();
        for (AccessStep s : steps) {
            visit(family, s.code(), requires, new HashSet<>(), settled);
        }
    }

    private static void visit(
            String family, String step, Map<String, List<String>> requires, Set<String> open, Set<String> settled) {
        if (settled.contains(step)) {
            return;
        }
        if (!open.add(step)) {
            throw new IllegalArgumentException("family %s: access step %s needs itself".formatted(family, step));
        }
        requires.getOrDefault(step, List.of()).forEach(r -> visit(family, r, requires, open, settled));
        open.remove(step);
        settled.add(step);
    }
}
