package knollfield.core.engine.grow;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.core.engine.BookFault;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Handling;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.ReferenceMethod;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Caution;
import knollfield.core.engine.build.Fluid;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Opening;
import knollfield.core.engine.build.Turner;

/**
 * How an engine is built, as far as a book of schema version 1 tells (docs/route.md, "Books of version 1"). Steps become
 * parts that come off, what a step requires lies before it, joints keep their codes and figures, pins and marks become
 * references. Two equal books give equal builds.
 */
public final class GrownBuild {

    private final EngineFamily family;
    private final Codes codes;
    private final GrownParts parts;
    private final GrownTiming timing;

    private GrownBuild(EngineFamily family) {
        this.family = family;
        this.codes = new Codes(
                new LinkedHashSet<>(family.joints().stream().map(j -> j.code()).toList()));
        Fluids fluids = new Fluids(codes.own("coolant"), codes.own("oil"));
        Steps steps = new Steps(family, codes);
        this.parts = new GrownParts(family, codes, steps, fluids);
        this.timing = new GrownTiming(family, codes, steps, parts);
    }

    /** Codes of the two fluids a first book knows. */
    record Fluids(String coolant, String oil) {}

    /**
     * {@code family} with a build: its own, or the one its first book tells; without one where that contradicts itself, so
     * that such a book is read all the same and only its cards are refused.
     */
    public static EngineFamily grown(EngineFamily family) {
        if (family.build().isPresent()) {
            return family;
        }
        try {
            return family.with(of(family));
        } catch (BookFault.Broken e) {
            return family;
        }
    }

    /**
     * The build that the steps, joints and timing of {@code family} tell.
     *
     * @throws BookFault.Broken where they contradict each other
     */
    public static Build of(EngineFamily family) {
        return new GrownBuild(family).build();
    }

    private Build build() {
        List<Joint> joints = new GrownJoints(family, parts, timing).all();
        List<Loop> loops = timing.loops(joints);
        List<Assembly> assemblies = parts.assemblies();
        List<Fluid> fluids = fluids(assemblies);
        Handling handling = family.handling();
        return new Build(
                timing.shafts(),
                timing.wheels(),
                loops,
                timing.positions(),
                timing.hardware(),
                timing.references(),
                assemblies,
                joints,
                openings(loops),
                fluids,
                looks(loops),
                List.of(turner(joints)),
                renews(loops, fluids),
                List.of(),
                cautions(loops, joints),
                handling.turningBackDegrees().orElse(0),
                family.path().orElseThrow().clockwise(),
                handling.leftMeans(),
                Optional.empty());
    }

    private List<Fluid> fluids(List<Assembly> assemblies) {
        List<Fluid> fluids = new ArrayList<>();
        String coolant = parts.fluids.coolant();
        boolean wet = family.coolantLitres() > 0
                || assemblies.stream().anyMatch(a -> a.letsOut().contains(coolant))
                || family.items().stream().anyMatch(i -> i.kind() == ItemKind.COOLANT);
        if (wet) {
            fluids.add(new Fluid(
                    coolant,
                    "Coolant",
                    family.coolantLitres(),
                    "Hot coolant scalds; it poisons animals.",
                    false,
                    true));
        }
        boolean oil =
                family.handling().oilLitres() > 0 || family.items().stream().anyMatch(i -> i.kind() == ItemKind.OIL);
        if (oil) {
            fluids.add(new Fluid(
                    parts.fluids.oil(), "Engine oil", family.handling().oilLitres(), "", true, true));
        }
        return fluids;
    }

    /** Behind the last cover of a chain lies the open engine. */
    private List<Opening> openings(List<Loop> loops) {
        Set<String> covers = new LinkedHashSet<>();
        loops.stream()
                .filter(l -> l.kind() == Drive.CHAIN)
                .flatMap(l -> parts.coversBefore(l.before()).stream())
                .forEach(covers::add);
        return covers.stream()
                .map(c -> new Opening(codes.own(c + "-opening"), "the open engine", c))
                .toList();
    }

    private List<Look> looks(List<Loop> loops) {
        List<Look> looks = new ArrayList<>(timing.windows());
        List<String> off = parts.valveCovers(loops.get(0).before());
        for (Handling.Clearance c : family.handling().clearances()) {
            looks.add(new Look(
                    codes.own("clearance-" + (looks.size() + 1)),
                    "Valve clearances, cold: " + c.valve(),
                    Look.Kind.CLEARANCE,
                    Optional.empty(),
                    off,
                    List.of(),
                    Optional.of(c.lowMm()),
                    Optional.of(c.highMm()),
                    "mm"));
        }
        if (family.reference() == ReferenceMethod.PAINT) {
            looks.add(new Look(
                    codes.own("count"),
                    "Between the paint marks, old against new: "
                            + loops.get(0).kind().counted(),
                    Look.Kind.COUNT,
                    Optional.of(loops.get(0).code()),
                    List.of(),
                    List.of(),
                    Optional.empty(),
                    Optional.empty(),
                    loops.get(0).kind().counted()));
        }
        return looks;
    }

    /** A wheel held by friction is not turned by a bolt that is slack. */
    private Turner turner(List<Joint> joints) {
        String code = codes.own("turner");
        return timing.frictionJoint()
                .filter(crank -> joints.stream().anyMatch(j -> j.code().equals(crank)))
                .map(crank -> new Turner(code, "the crank bolt", Turner.Kind.JOINT, Optional.of(crank)))
                .orElseGet(() -> new Turner(code, "the crank", Turner.Kind.STAYS, Optional.empty()));
    }

    private List<Build.Renews> renews(List<Loop> loops, List<Fluid> fluids) {
        List<Build.Renews> renews = new ArrayList<>();
        for (Item item : family.items()) {
            List<String> things = switch (item.kind()) {
                case TIMING_BELT, TIMING_CHAIN -> timing.loopsOf(item);
                case COOLANT -> List.of(parts.fluids.coolant());
                case OIL -> oil(item);
                case FASTENER -> parts.fastenersOf(item);
                default -> parts.partsOf(item.code());
            };
            renews.add(new Build.Renews(item.code(), things));
        }
        return renews;
    }

    private List<String> oil(Item item) {
        List<String> things = new ArrayList<>(parts.partsOf(item.code()));
        things.add(parts.fluids.oil());
        return things;
    }

    /** A warning that names the crank stands on its bolt, any other on the loop. */
    private List<Caution> cautions(List<Loop> loops, List<Joint> joints) {
        List<Caution> cautions = new ArrayList<>();
        for (String words : family.cautions()) {
            Set<String> said = Codes.words(words, Set.of());
            String thing = joints.stream()
                    .filter(j -> j.critical() && said.contains("bolt"))
                    .filter(j -> Codes.shared(Codes.words(j.name(), Set.of("bolt")), said) > 0)
                    .map(Joint::code)
                    .findFirst()
                    .orElse(loops.get(0).code());
            cautions.add(new Caution(thing, words));
        }
        return cautions;
    }

    /** True for a tensioner that is set and then made tight, false for one that lets go by itself. */
    static boolean isSet(TensionerKind kind) {
        return !kind.hasPin() && kind != TensionerKind.CHAIN_RATCHET;
    }
}
