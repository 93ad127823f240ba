package knollfield.core.engine;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.engine.build.Build;

/**
 * The workshop's book for one family of engines. Codes within it are unique and every reference leads somewhere
 * ({@link BookChecks}).
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
 * @param path the belt or chain as drawn; empty where no drawing is on file: then no run or length is computed
 * @param repair engine repair after a failure
 * @param cautions short warnings of this family, shown where they apply
 * @param variants points to settle for each vehicle
 * @param kits what is sold together
 * @param build how the engine is built, from which its cards are worked out; empty for a book that does not say yet
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
        Optional<BeltPath> path,
        List<Item> items,
        List<AccessStep> accessSteps,
        List<Joint> joints,
        RepairEstimate repair,
        List<String> cautions,
        Handling handling,
        List<Variant> variants,
        ToolSet tools,
        List<Kit> kits,
        Optional<Build> build) {

    public EngineFamily {
        pins = List.copyOf(pins);
        moveOver = List.copyOf(moveOver);
        items = List.copyOf(items);
        accessSteps = List.copyOf(accessSteps);
        joints = List.copyOf(joints);
        cautions = List.copyOf(cautions);
        variants = List.copyOf(variants);
        kits = List.copyOf(kits);
        List<BookFault> faults =
                BookChecks.faults(reference, pins, path, items, accessSteps, joints, handling, variants, kits);
        if (path.isEmpty() && build.isEmpty()) {
            faults.add(new BookFault("/path", "a book that does not say how the engine is built needs its path"));
        }
        if (blankingPlugs < 0) {
            faults.add(new BookFault("/blankingPlugs", "blanking plugs must be zero or more"));
        }
        if (!(coolantLitres >= 0)) {
            faults.add(new BookFault("/coolantLitres", "coolant must be zero or more litres"));
        }
        if (!faults.isEmpty()) {
            throw new BookFault.Broken(faults);
        }
    }

    /** A family of whose build nothing is written down yet. */
    public EngineFamily(
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
            List<String> cautions,
            Handling handling,
            List<Variant> variants,
            ToolSet tools,
            List<Kit> kits) {
        this(
                code,
                name,
                drive,
                interference,
                crankFit,
                reference,
                pins,
                tensioner,
                pinOutBeforeTurns,
                mountInTheWay,
                moveOver,
                blankingPlugs,
                coolantLitres,
                Optional.of(path),
                items,
                accessSteps,
                joints,
                repair,
                cautions,
                handling,
                variants,
                tools,
                kits,
                Optional.empty());
    }

    /** This family with its build. */
    public EngineFamily with(Build other) {
        return with(items, joints, Optional.of(other));
    }

    /** This family without its drawing. */
    public EngineFamily undrawn() {
        return changed(
                code, name, interference, Optional.empty(), items, accessSteps, joints, repair, tools, kits, build);
    }

    /** A new family begun from this one. A drawing whose teeth no longer fit is left out. */
    public EngineFamily begun(
            String newCode,
            String newName,
            Interference newInterference,
            Build newBuild,
            List<Item> newItems,
            List<AccessStep> newSteps,
            List<Joint> newJoints,
            List<Kit> newKits,
            RepairEstimate newRepair) {
        boolean fits =
                path.map(p -> p.teeth() == newBuild.loops().get(0).teeth()).orElse(false);
        ToolSet set =
                tools.name().equals("Set for " + name) ? new ToolSet("Set for " + newName, tools.pieces()) : tools;
        return changed(
                newCode,
                newName,
                newInterference,
                fits ? path : Optional.empty(),
                newItems,
                newSteps,
                newJoints,
                newRepair,
                set,
                newKits,
                Optional.of(newBuild));
    }

    private EngineFamily with(List<Item> newItems, List<Joint> newJoints, Optional<Build> newBuild) {
        return changed(code, name, interference, path, newItems, accessSteps, newJoints, repair, tools, kits, newBuild);
    }

    private EngineFamily changed(
            String newCode,
            String newName,
            Interference newInterference,
            Optional<BeltPath> newPath,
            List<Item> newItems,
            List<AccessStep> newSteps,
            List<Joint> newJoints,
            RepairEstimate newRepair,
            ToolSet newTools,
            List<Kit> newKits,
            Optional<Build> newBuild) {
        return new EngineFamily(
                newCode,
                newName,
                drive,
                newInterference,
                crankFit,
                reference,
                pins,
                tensioner,
                pinOutBeforeTurns,
                mountInTheWay,
                moveOver,
                blankingPlugs,
                coolantLitres,
                newPath,
                newItems,
                newSteps,
                newJoints,
                newRepair,
                cautions,
                handling,
                variants,
                newTools,
                newKits,
                newBuild);
    }

    /** A family of whose handling, variants and tools nothing is written down yet. */
    public EngineFamily(
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
        this(
                code,
                name,
                drive,
                interference,
                crankFit,
                reference,
                pins,
                tensioner,
                pinOutBeforeTurns,
                mountInTheWay,
                moveOver,
                blankingPlugs,
                coolantLitres,
                path,
                items,
                accessSteps,
                joints,
                repair,
                cautions,
                Handling.careful(),
                List.of(),
                ToolSet.none(),
                List.of());
    }

    /** The belt or chain; of several, the first. */
    public Item driveItem() {
        return items.stream().filter(i -> i.kind().isTheDrive()).findFirst().orElseThrow();
    }

    /** Codes of every belt and chain; an engine may have one for each bank. */
    public Set<String> driveItems() {
        return items.stream()
                .filter(i -> i.kind().isTheDrive())
                .map(Item::code)
                .collect(Collectors.toUnmodifiableSet());
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

    /** What stands, but should be looked at before work is planned on it: contradictions in print, gaps. */
    public List<BookFault> remarks() {
        return BookChecks.remarks(joints, variants);
    }

    /**
     * The book as it applies once variants are settled. Variants that are not in {@code settled} leave it as it is.
     *
     * @param settled choice code by variant code
     */
    public EngineFamily settled(Map<String, String> settled) {
        if (variants.stream().noneMatch(v -> settled.containsKey(v.code()))) {
            return this;
        }
        List<Item> newItems = new ArrayList<>(items);
        List<Joint> newJoints = new ArrayList<>(joints);
        Map<String, TorqueSpec> torques = new HashMap<>();
        for (Variant variant : variants) {
            Optional.ofNullable(settled.get(variant.code()))
                    .flatMap(variant::choice)
                    .ifPresent(choice -> {
                        newItems.replaceAll(
                                i -> Optional.ofNullable(choice.parts().get(i.code()))
                                        .map(i::with)
                                        .orElse(i));
                        torques.putAll(choice.torques());
                        newJoints.replaceAll(
                                j -> Optional.ofNullable(choice.torques().get(j.code()))
                                        .map(j::with)
                                        .orElse(j));
                    });
        }
        return with(newItems, newJoints, build.map(b -> b.with(torques)));
    }
}
