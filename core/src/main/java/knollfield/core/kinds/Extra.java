package knollfield.core.kinds;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.engine.Drive;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Fluid;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Wheel;

/** What an engine has behind its belt beside what its kind has; begun with, when a family is written down. */
public enum Extra {
    /** A coolant pump that the belt turns. */
    WATER_PUMP("Water pump, turned by the belt", "water-pump", "Water pump", Assembly.Kind.PUMP),
    /** A smooth wheel the belt runs over. */
    IDLER("Idler", "idler", "Idler", Assembly.Kind.IDLER),
    /** A second one. */
    SECOND_IDLER("Second idler", "idler2", "Second idler", Assembly.Kind.IDLER),
    /** Seal of the crank, behind its keyed wheel. */
    CRANK_SEAL("Crank seal", "crank-seal", "Crank seal", Assembly.Kind.SEAL);

    private static final String COOLANT = "coolant";

    private final String words;
    private final String code;
    private final String partName;
    private final Assembly.Kind kind;

    Extra(String words, String code, String partName, Assembly.Kind kind) {
        this.words = words;
        this.code = code;
        this.partName = partName;
        this.kind = kind;
    }

    /** As it is offered. */
    public String words() {
        return words;
    }

    /** True where {@code build} can have it: a dry belt, and no part of that code yet. */
    public boolean fits(Build build) {
        boolean taken = build.assemblies().stream()
                .anyMatch(a -> a.code().equals(code) || (this == WATER_PUMP && a.kind() == Assembly.Kind.PUMP));
        boolean hasIdler = build.assemblies().stream().anyMatch(a -> a.kind() == Assembly.Kind.IDLER);
        return build.loops().get(0).kind() == Drive.BELT
                && !taken
                && (this != IDLER || !hasIdler)
                && (this != CRANK_SEAL || keyedCrankWheel(build).isPresent());
    }

    /** {@code build} with it: behind the belt, with a joint of its own, and renewed as an item. */
    public Build on(Build build) {
        if (!fits(build)) {
            throw new IllegalArgumentException("%s does not fit this build".formatted(words));
        }
        Loop loop = build.loops().get(0);
        List<Assembly> assemblies = new ArrayList<>(build.assemblies());
        List<Joint> joints = new ArrayList<>(build.joints());
        List<Fluid> fluids = new ArrayList<>(build.fluids());
        List<Build.Renews> renews = new ArrayList<>(build.renews());
        List<String> over = new ArrayList<>(loop.wheels());
        Set<String> letsOut = new LinkedHashSet<>();
        List<String> before = new ArrayList<>(List.of(loop.code()));
        if (this == WATER_PUMP) {
            letsOut.add(COOLANT);
            if (fluids.stream().noneMatch(f -> f.code().equals(COOLANT))) {
                fluids.add(new Fluid(COOLANT, "Coolant", 0, "Hot coolant scalds; it poisons animals.", false, true));
            }
            if (renews.stream().noneMatch(r -> r.things().contains(COOLANT))) {
                renews.add(new Build.Renews(COOLANT, List.of(COOLANT)));
            }
        }
        if (this == CRANK_SEAL) {
            Wheel wheel = keyedCrankWheel(build).orElseThrow();
            if (assemblies.stream().noneMatch(a -> a.code().equals(wheel.code()))) {
                assemblies.add(part(wheel.code(), wheel.name(), Assembly.Kind.WHEEL, before, Set.of()));
            }
            before = List.of(wheel.code());
        } else {
            // the last wheel stays the last, the first the first
            over.add(Math.max(1, over.size() - 1), code);
        }
        assemblies.add(part(code, partName, kind, before, letsOut));
        if (this != CRANK_SEAL) {
            joints.add(joint(loop));
        }
        renews.add(new Build.Renews(code, List.of(code)));
        List<Loop> loops = new ArrayList<>(build.loops());
        loops.set(0, loop.over(over));
        return build.with(loops, assemblies, joints, fluids, renews);
    }

    private static Optional<Wheel> keyedCrankWheel(Build build) {
        return build.wheels().stream()
                .filter(w -> w.shaft().equals("crank")
                        && w.fit() == Wheel.Fit.KEYED
                        && w.joint().isEmpty())
                .findFirst();
    }

    private Joint joint(Loop loop) {
        return new Joint(
                code,
                partName,
                List.of(code),
                this == WATER_PUMP ? 4 : 1,
                List.of(new Joint.Stage(
                        Optional.empty(), OptionalInt.empty(), 1, Joint.Moment.FITTED, Joint.Moment.RAN, List.of())),
                true,
                Optional.empty(),
                Joint.HeldBy.NOTHING,
                List.of(),
                List.of(),
                List.of(),
                // its bolts are done up before the belt lies over it
                List.of(loop.code()),
                Optional.empty(),
                Joint.Undoing.plain());
    }

    private static Assembly part(
            String code, String name, Assembly.Kind kind, List<String> before, Set<String> letsOut) {
        return new Assembly(
                code,
                name,
                kind,
                before,
                Optional.empty(),
                false,
                false,
                List.copyOf(letsOut),
                false,
                Optional.empty(),
                List.of(),
                Optional.empty());
    }
}
