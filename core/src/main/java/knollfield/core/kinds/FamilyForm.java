package knollfield.core.kinds;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.core.clock.Limit;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Kit;
import knollfield.core.engine.Part;
import knollfield.core.engine.RepairEstimate;
import knollfield.core.engine.Schedule;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Fluid;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Position;
import knollfield.core.engine.grow.GrownBuild;
import knollfield.core.units.DistanceUnit;
import knollfield.core.units.Torque;

/**
 * What one page asks of a new family: what a due date and a safe card need. It is begun from a kind, whose example
 * figures are left out, or from a family on file; what is not answered stays not on file ({@link
 * knollfield.core.engine.BookGaps}).
 *
 * @param origin where limits and tightening figures come from; empty where none is given
 * @param repair engine repair after a failure, minor units; empty: not on file
 */
public record FamilyForm(
        String code,
        String name,
        Interference interference,
        String origin,
        List<LoopLine> loops,
        List<ItemLine> items,
        List<StepLine> steps,
        List<JointLine> joints,
        List<FluidLine> fluids,
        List<LookLine> looks,
        List<PositionLine> positions,
        Optional<RepairEstimate> repair) {

    /**
     * A belt or chain.
     *
     * @param counted {@code teeth} or {@code links}
     * @param teeth above zero; empty: not answered
     */
    public record LoopLine(String code, String name, String counted, OptionalInt teeth) {}

    /**
     * What the job sells.
     *
     * @param included false where this family is not sold it
     * @param number the part's number; empty: none yet, and the family's own short name stands for it
     * @param priceMinor price of one piece, minor units; empty: not on file
     * @param normal km and months; both empty: no limit of its own
     * @param severe the same under hard use
     */
    public record ItemLine(
            String code,
            String name,
            ItemKind kind,
            boolean included,
            String number,
            OptionalLong priceMinor,
            Limits normal,
            Limits severe) {}

    /** A limit as answered; both may be open. */
    public record Limits(OptionalInt km, OptionalInt months) {
        static final Limits NONE = new Limits(OptionalInt.empty(), OptionalInt.empty());

        Optional<Limit> limit() {
            return km.isEmpty() && months.isEmpty() ? Optional.empty() : Optional.of(new Limit(km, months));
        }

        static Limits of(Optional<Limit> limit) {
            return limit.map(l -> new Limits(l.km(), l.months())).orElse(NONE);
        }
    }

    /** A piece of work and its book minutes. */
    public record StepLine(String code, String title, int minutes) {}

    /**
     * A joint.
     *
     * @param torqueNm empty: not on file
     * @param angleDegrees turned on after the torque; empty for none
     * @param oneTime its fasteners are new each time
     */
    public record JointLine(
            String code,
            String name,
            int bolts,
            OptionalDouble torqueNm,
            OptionalInt angleDegrees,
            boolean critical,
            boolean oneTime) {}

    /** A filling; empty litres: not on file. */
    public record FluidLine(String code, String name, OptionalDouble litres) {}

    /**
     * What is judged by a figure: the tension's window, a gap, a clearance.
     *
     * @param window the tension's own window, without which no tension is proven
     * @param unit as printed after the figure
     * @param low least good value; with {@code high} empty: no figure judges it
     */
    public record LookLine(
            String code, String name, boolean window, String unit, OptionalDouble low, OptionalDouble high) {}

    /**
     * A position of the crank, asked for where the work knows several.
     *
     * @param degrees in the running way from where the engine counts, 0 to 719; empty: not answered
     */
    public record PositionLine(String code, String name, OptionalInt degrees) {}

    public FamilyForm {
        looks = List.copyOf(looks);
        positions = List.copyOf(positions);
        loops = List.copyOf(loops);
        items = List.copyOf(items);
        steps = List.copyOf(steps);
        joints = List.copyOf(joints);
        fluids = List.copyOf(fluids);
    }

    /** What a family is begun from. */
    public static final class Base {
        private final EngineFamily family;
        private final Build build;
        private final boolean example;

        private Base(EngineFamily family, boolean example) {
            this.family = family;
            this.build = family.build().orElseThrow();
            this.example = example;
        }
    }

    /**
     * Begun from a kind; its figures are examples, so none of them is taken over but book minutes.
     *
     * @throws IllegalArgumentException where an extra does not fit the kind
     */
    public static Base like(Kind kind, Set<Extra> extras) {
        Build build = kind.build();
        for (Extra e : Extra.values()) {
            if (extras.contains(e)) {
                build = e.on(build);
            }
        }
        Kind extended = new Kind(kind.code(), kind.name(), build);
        EngineFamily drawn = KindFamily.of(
                extended, "NEW", "", Interference.UNKNOWN, Optional.empty(), new RepairEstimate(0, 0, 0), 0);
        return new Base(drawn.with(drawn.build().orElseThrow().unmeasured()).undrawn(), true);
    }

    /** Begun from a family on file, with all its figures. */
    public static Base copyOf(EngineFamily family) {
        return new Base(GrownBuild.grown(family), false);
    }

    /** The page as it is first shown. */
    public static FamilyForm of(Base base) {
        EngineFamily f = base.family;
        boolean example = base.example;
        return new FamilyForm(
                "",
                "",
                f.interference(),
                "",
                base.build.loops().stream()
                        .map(l -> new LoopLine(
                                l.code(),
                                l.name(),
                                l.kind().counted(),
                                example ? OptionalInt.empty() : OptionalInt.of(l.teeth())))
                        .toList(),
                f.items().stream().map(i -> line(i, example)).toList(),
                f.accessSteps().stream()
                        .map(s -> new StepLine(s.code(), s.title(), s.minutes()))
                        .toList(),
                f.joints().stream().map(j -> line(j, example)).toList(),
                base.build.fluids().stream()
                        .map(x -> new FluidLine(
                                x.code(),
                                x.name(),
                                example || x.litres() == 0 ? OptionalDouble.empty() : OptionalDouble.of(x.litres())))
                        .toList(),
                base.build.looks().stream()
                        .filter(Look::hasFigure)
                        .map(k -> new LookLine(
                                k.code(),
                                k.name(),
                                k.kind() == Look.Kind.WINDOW,
                                k.unit(),
                                figure(k.low(), example),
                                figure(k.high(), example)))
                        .toList(),
                base.build.positions().size() < 2
                        ? List.of()
                        : base.build.positions().stream()
                                .map(p -> new PositionLine(
                                        p.code(),
                                        p.name(),
                                        example ? OptionalInt.empty() : OptionalInt.of(p.degrees())))
                                .toList(),
                example ? Optional.empty() : Optional.of(f.repair()));
    }

    private static OptionalDouble figure(Optional<Double> figure, boolean example) {
        return figure.isEmpty() || example ? OptionalDouble.empty() : OptionalDouble.of(figure.get());
    }

    private static ItemLine line(Item i, boolean example) {
        Optional<Schedule> schedule = i.schedule();
        return new ItemLine(
                i.code(),
                i.name(),
                i.kind(),
                true,
                example ? "" : i.part().number(),
                example || i.part().priceMinor() == 0
                        ? OptionalLong.empty()
                        : OptionalLong.of(i.part().priceMinor()),
                Limits.of(schedule.map(Schedule::normal)),
                Limits.of(schedule.flatMap(Schedule::severe)));
    }

    private static JointLine line(knollfield.core.engine.Joint j, boolean example) {
        Optional<TorqueSpec> torque = example ? Optional.empty() : j.torque();
        return new JointLine(
                j.code(),
                j.name(),
                j.bolts(),
                torque.map(t -> OptionalDouble.of(t.torque().newtonMetres())).orElse(OptionalDouble.empty()),
                torque.map(TorqueSpec::angleDegrees).orElse(OptionalInt.empty()),
                j.critical(),
                !j.oneTimeParts().isEmpty());
    }

    /**
     * The family these answers give. Lines that are missing keep what the base has; lines the base does not have are
     * left aside.
     *
     * @throws knollfield.core.engine.BookFault.Broken where the answers contradict each other
     */
    public EngineFamily onto(Base base) {
        FamilyForm shown = of(base);
        Set<String> left =
                items.stream().filter(i -> !i.included()).map(ItemLine::code).collect(Collectors.toSet());
        Map<String, JointLine> shownJoints = byCode(shown.joints, JointLine::code);
        Map<String, JointLine> changed = byCode(
                joints.stream()
                        .filter(line -> base.example || !line.equals(shownJoints.get(line.code())))
                        .toList(),
                JointLine::code);
        Build build = base.build
                .with(
                        loops(base),
                        base.build.assemblies(),
                        base.build.joints().stream()
                                .map(j -> Optional.ofNullable(changed.get(j.code()))
                                        .map(line -> j.figured(line.bolts(), line.critical(), figure(line)))
                                        .orElse(j))
                                .toList(),
                        fluids(base),
                        base.build.renews().stream()
                                .filter(r -> !left.contains(r.item()))
                                .toList())
                .at(positions(base), looks(base));
        return base.family.begun(
                code,
                name,
                interference,
                build,
                base.family.items().stream()
                        .filter(i -> !left.contains(i.code()))
                        .map(i -> item(i, base, shown))
                        .toList(),
                steps(base),
                base.family.joints().stream()
                        .map(j -> Optional.ofNullable(changed.get(j.code()))
                                .map(line -> j.figured(line.bolts(), line.critical(), figure(line), oneTimeParts(j)))
                                .orElse(j))
                        .toList(),
                base.family.kits().stream()
                        .map(k -> new Kit(
                                k.number(),
                                k.name(),
                                k.items().stream()
                                        .filter(i -> !left.contains(i))
                                        .toList(),
                                k.leavesOut(),
                                k.priceMinor()))
                        .filter(k -> !k.items().isEmpty())
                        .toList(),
                repair.orElse(new RepairEstimate(0, 0, 0)));
    }

    private List<Loop> loops(Base base) {
        Map<String, LoopLine> lines = byCode(loops, LoopLine::code);
        return base.build.loops().stream()
                .map(l -> Optional.ofNullable(lines.get(l.code()))
                        .filter(line -> line.teeth().isPresent())
                        .map(line -> l.ofTeeth(line.teeth().getAsInt()))
                        .orElse(l))
                .toList();
    }

    private List<Look> looks(Base base) {
        Map<String, LookLine> lines = byCode(looks, LookLine::code);
        return base.build.looks().stream()
                .map(k -> Optional.ofNullable(lines.get(k.code()))
                        .map(line -> k.within(boxed(line.low()), boxed(line.high())))
                        .orElse(base.example ? k.within(Optional.empty(), Optional.empty()) : k))
                .toList();
    }

    private static Optional<Double> boxed(OptionalDouble figure) {
        return figure.isPresent() ? Optional.of(figure.getAsDouble()) : Optional.empty();
    }

    private List<Position> positions(Base base) {
        Map<String, PositionLine> lines = byCode(positions, PositionLine::code);
        return base.build.positions().stream()
                .map(p -> Optional.ofNullable(lines.get(p.code()))
                        .filter(line -> line.degrees().isPresent())
                        .map(line -> p.at(line.degrees().getAsInt()))
                        .orElse(p))
                .toList();
    }

    private List<Fluid> fluids(Base base) {
        Map<String, FluidLine> lines = byCode(fluids, FluidLine::code);
        return base.build.fluids().stream()
                .map(f -> Optional.ofNullable(lines.get(f.code()))
                        .map(line -> f.of(line.litres().orElse(0)))
                        .orElse(base.example ? f.of(0) : f))
                .toList();
    }

    private List<AccessStep> steps(Base base) {
        Map<String, StepLine> lines = byCode(steps, StepLine::code);
        return base.family.accessSteps().stream()
                .map(s -> Optional.ofNullable(lines.get(s.code()))
                        .map(line -> s.taking(line.minutes()))
                        .orElse(s))
                .toList();
    }

    private Item item(Item i, Base base, FamilyForm shown) {
        ItemLine line = byCode(items, ItemLine::code).get(i.code());
        if (line == null) {
            return base.example ? i.with(ownPart(i, 0)) : i;
        }
        boolean sameLimits = !base.example
                && shown.items.stream()
                        .anyMatch(before -> before.code().equals(i.code())
                                && line.normal().equals(before.normal())
                                && line.severe().equals(before.severe()));
        Part part = line.number().isBlank()
                ? ownPart(i, line.priceMinor().orElse(0))
                : new Part(
                        line.number().strip(),
                        i.part().name(),
                        i.part().quantity(),
                        line.priceMinor().orElse(0));
        return i.with(part, sameLimits ? i.schedule() : schedule(line));
    }

    private Optional<Schedule> schedule(ItemLine line) {
        return line.normal()
                .limit()
                .map(normal -> new Schedule(normal, line.severe().limit(), originOr(), DistanceUnit.KM));
    }

    /** A part without a number yet goes by the family's own short name for it. */
    private Part ownPart(Item i, long priceMinor) {
        return new Part(
                "%s-%s".formatted(code, i.code().toUpperCase(Locale.ROOT)),
                i.part().name(),
                i.part().quantity(),
                priceMinor);
    }

    private List<Part> oneTimeParts(knollfield.core.engine.Joint j) {
        return j.oneTimeParts().stream()
                .map(p -> new Part(
                        p.number().replaceFirst("^KF-NEW-", code + "-"), p.name(), p.quantity(), p.priceMinor()))
                .toList();
    }

    private Optional<TorqueSpec> figure(JointLine line) {
        return line.torqueNm().isPresent()
                ? Optional.of(
                        new TorqueSpec(new Torque(line.torqueNm().getAsDouble()), line.angleDegrees(), originOr()))
                : Optional.empty();
    }

    private String originOr() {
        return origin.isBlank() ? "origin not written down" : origin.strip();
    }

    private static <T> Map<String, T> byCode(List<T> lines, Function<T, String> code) {
        return lines.stream().collect(Collectors.toMap(code, l -> l, (a, b) -> b));
    }
}
