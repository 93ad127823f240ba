package knollfield.core.engine.build;

import java.math.BigInteger;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import knollfield.core.engine.BookFault;
import knollfield.core.engine.TimingGeometry;
import knollfield.core.engine.TorqueSpec;

/**
 * How an engine is built. Codes are unique across all lists, and every code that is named exists ({@link BuildChecks}).
 *
 * @param renews what each item of the job renews
 * @param turners what the crank is turned by; one of them is enough
 * @param turnedBackDegrees how far it may be turned back; 0: never
 * @param clockwise running way, seen on the drive's side
 * @param leftMeans what left and right mean on this engine
 * @param dryStart a start of seconds is allowed; empty: it is not
 */
public record Build(
        List<Shaft> shafts,
        List<Wheel> wheels,
        List<Loop> loops,
        List<Position> positions,
        List<Hardware> hardware,
        List<Reference> references,
        List<Assembly> assemblies,
        List<Joint> joints,
        List<Opening> openings,
        List<Fluid> fluids,
        List<Look> looks,
        List<Turner> turners,
        List<Renews> renews,
        List<OwnOrder> orders,
        List<Caution> cautions,
        int turnedBackDegrees,
        boolean clockwise,
        String leftMeans,
        Optional<DryStart> dryStart) {

    /**
     * What an item renews.
     *
     * @param item code of the item
     * @param things codes of loops, assemblies, joints (their fasteners) and fluids
     */
    public record Renews(String item, List<String> things) {
        public Renews {
            things = List.copyOf(things);
        }
    }

    /** @throws BookFault.Broken with every fault and its place */
    public Build {
        shafts = List.copyOf(shafts);
        wheels = List.copyOf(wheels);
        loops = List.copyOf(loops);
        positions = List.copyOf(positions);
        hardware = List.copyOf(hardware);
        references = List.copyOf(references);
        assemblies = List.copyOf(assemblies);
        joints = List.copyOf(joints);
        openings = List.copyOf(openings);
        fluids = List.copyOf(fluids);
        looks = List.copyOf(looks);
        turners = List.copyOf(turners);
        renews = List.copyOf(renews);
        orders = List.copyOf(orders);
        cautions = List.copyOf(cautions);
        List<BookFault> faults = BuildChecks.faults(
                shafts,
                wheels,
                loops,
                positions,
                hardware,
                references,
                assemblies,
                joints,
                openings,
                fluids,
                looks,
                turners,
                renews,
                cautions);
        if (turnedBackDegrees < 0 || turnedBackDegrees > 180) {
            faults.add(new BookFault(
                    "/turnedBackDegrees", "an engine is turned back by 0 to 180 degrees, not " + turnedBackDegrees));
        }
        if (!faults.isEmpty()) {
            throw new BookFault.Broken(faults);
        }
    }

    /** Codes of the things that {@code item} renews; empty where the book names none. */
    public List<String> things(String item) {
        return renews.stream()
                .filter(r -> r.item().equals(item))
                .findFirst()
                .map(Renews::things)
                .orElse(List.of());
    }

    /** This build with other loops. */
    public Build with(List<Loop> other) {
        return with(other, assemblies, hardware, references, joints, fluids, looks, renews);
    }

    /** This build timed by other hardware and references. */
    public Build timedBy(
            List<Hardware> otherHardware,
            List<Reference> otherReferences,
            List<Joint> otherJoints,
            List<Look> otherLooks) {
        return with(loops, assemblies, otherHardware, otherReferences, otherJoints, fluids, otherLooks, renews);
    }

    /** This build with other tightening figures, by joint code. */
    public Build with(Map<String, TorqueSpec> torques) {
        List<Joint> other = joints.stream()
                .map(j ->
                        Optional.ofNullable(torques.get(j.code())).map(j::with).orElse(j))
                .toList();
        return with(loops, assemblies, hardware, references, other, fluids, looks, renews);
    }

    /**
     * This build without what was measured on one engine: drawings, counts between wheels, play, float, how far it may be
     * turned back. What orders the work stays; joints, looks, positions and fluids keep their figures.
     */
    public Build unmeasured() {
        return new Build(
                shafts,
                wheels.stream().map(Wheel::unmeasured).toList(),
                loops.stream().map(Loop::unmeasured).toList(),
                positions,
                hardware.stream().map(Hardware::unmeasured).toList(),
                references,
                assemblies,
                joints,
                openings,
                fluids,
                looks,
                turners,
                renews,
                orders,
                cautions,
                0,
                clockwise,
                leftMeans,
                dryStart);
    }

    /** This build with its crank positions and looks at other figures. */
    public Build at(List<Position> otherPositions, List<Look> otherLooks) {
        return new Build(
                shafts,
                wheels,
                loops,
                otherPositions,
                hardware,
                references,
                assemblies,
                joints,
                openings,
                fluids,
                otherLooks,
                turners,
                renews,
                orders,
                cautions,
                turnedBackDegrees,
                clockwise,
                leftMeans,
                dryStart);
    }

    /** This build with other parts, fluids and items. */
    public Build with(
            List<Loop> otherLoops,
            List<Assembly> otherAssemblies,
            List<Joint> otherJoints,
            List<Fluid> otherFluids,
            List<Renews> otherRenews) {
        return with(otherLoops, otherAssemblies, hardware, references, otherJoints, otherFluids, looks, otherRenews);
    }

    private Build with(
            List<Loop> otherLoops,
            List<Assembly> otherAssemblies,
            List<Hardware> otherHardware,
            List<Reference> otherReferences,
            List<Joint> otherJoints,
            List<Fluid> otherFluids,
            List<Look> otherLooks,
            List<Renews> otherRenews) {
        return new Build(
                shafts,
                wheels,
                otherLoops,
                positions,
                otherHardware,
                otherReferences,
                otherAssemblies,
                otherJoints,
                openings,
                otherFluids,
                otherLooks,
                turners,
                otherRenews,
                orders,
                cautions,
                turnedBackDegrees,
                clockwise,
                leftMeans,
                dryStart);
    }

    /**
     * Crank turns after which paint on every loop, and every wheel mark, line up again: the least common multiple over the
     * loops ({@link TimingGeometry#markReturn}).
     *
     * @return empty where a loop has no drawing on file
     */
    public OptionalInt turnsUntilPaintReturns() {
        long turns = 1;
        for (Loop l : loops) {
            if (l.drawing().isEmpty()) {
                return OptionalInt.empty();
            }
            long own = l.drawing().get().turnsUntilPaintReturns();
            turns = turns
                    / BigInteger.valueOf(turns).gcd(BigInteger.valueOf(own)).longValueExact()
                    * own;
        }
        return OptionalInt.of(Math.toIntExact(turns));
    }
}
