package knollfield.core.kinds;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.BeltPath;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Handling;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.LoopLayout;
import knollfield.core.engine.Part;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.ReferenceMethod;
import knollfield.core.engine.RepairEstimate;
import knollfield.core.engine.Schedule;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.ToolSet;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Shaft;
import knollfield.core.engine.build.Wheel;
import knollfield.core.units.Torque;

/** A whole book begun from a kind: items, minutes, parts and a drawing to be written over by the workshop. */
public final class KindFamily {

    private static final String ORIGIN = "example of the kind, to be checked";
    private static final double BELT_PITCH_MM = 9.525;
    private static final double CHAIN_PITCH_MM = 8;
    private static final int CRANK_TEETH = 24;
    private static final int LOOP_MINUTES = 120;
    private static final double BANK_MM = 130;

    private final String code;
    private final String name;
    private final Build build;
    private final Interference interference;
    private final Optional<Schedule> schedule;
    private final RepairEstimate repair;
    private final long priceMinor;

    private KindFamily(
            Kind kind,
            String code,
            String name,
            Interference interference,
            Optional<Schedule> schedule,
            RepairEstimate repair,
            long priceMinor) {
        this.code = code;
        this.name = name;
        this.build = drawn(kind.build());
        this.interference = interference;
        this.schedule = schedule;
        this.repair = repair;
        this.priceMinor = priceMinor;
    }

    /**
     * @param schedule limits of the belt or chain and of what it turns; empty where the book has none
     * @param priceMinor of the belt or chain, minor units; other parts stand in a usual proportion to it
     */
    public static EngineFamily of(
            Kind kind,
            String code,
            String name,
            Interference interference,
            Optional<Schedule> schedule,
            RepairEstimate repair,
            long priceMinor) {
        return new KindFamily(kind, code, name, interference, schedule, repair, priceMinor).family();
    }

    private EngineFamily family() {
        Loop loop = build.loops().get(0);
        boolean friction =
                build.wheels().stream().anyMatch(w -> w.shaft().equals("crank") && w.fit() == Wheel.Fit.FRICTION);
        List<String> pins = build.hardware().stream()
                .filter(Hardware::slidesIn)
                .map(Hardware::name)
                .toList();
        return new EngineFamily(
                code,
                name,
                loop.kind(),
                interference,
                friction ? CrankFit.FRICTION_HELD : CrankFit.KEYED,
                pins.isEmpty() ? ReferenceMethod.MARKS : ReferenceMethod.PINS,
                pins,
                loop.tensioner().map(Loop.Tensioner::kind).orElse(TensionerKind.SPRING_PIN),
                true,
                build.assemblies().stream().anyMatch(Assembly::carriesEngine),
                List.of(),
                0,
                build.fluids().stream()
                        .filter(f -> f.code().equals("coolant"))
                        .mapToDouble(f -> f.litres())
                        .sum(),
                Optional.of(path(loop)),
                items(),
                steps(),
                build.joints().stream().map(this::joint).toList(),
                repair,
                List.of(),
                Handling.careful(),
                List.of(),
                tools(),
                List.of(),
                Optional.of(build));
    }

    private List<Item> items() {
        List<Item> items = new ArrayList<>();
        for (Build.Renews r : build.renews()) {
            ItemKind kind = kind(r.things());
            items.add(item(r.item(), kind, name(r), r.things()));
        }
        if (items.stream().noneMatch(i -> i.kind().isTheDrive())) {
            Loop loop = build.loops().get(0);
            items.add(
                    0,
                    item(
                            "drive",
                            loop.kind() == Drive.CHAIN ? ItemKind.TIMING_CHAIN : ItemKind.TIMING_BELT,
                            loop.name(),
                            List.of(loop.code())));
        }
        return items;
    }

    private Item item(String itemCode, ItemKind kind, String itemName, List<String> things) {
        long price = Math.max(100, Math.round(priceMinor * share(kind)));
        boolean driven = things.stream()
                .anyMatch(t -> build.loops().stream()
                        .anyMatch(l -> l.code().equals(t)
                                || l.wheels().contains(t)
                                || l.tensioner().filter(x -> x.part().equals(t)).isPresent()));
        return new Item(
                itemCode,
                kind,
                itemName,
                new Part("KF-%s-%s".formatted(code, itemCode.toUpperCase(java.util.Locale.ROOT)), itemName, 1, price),
                driven ? schedule : Optional.empty(),
                things.stream().map(this::stepOf).distinct().toList(),
                driven);
    }

    private static double share(ItemKind kind) {
        return switch (kind) {
            case TIMING_BELT, TIMING_CHAIN -> 1.0;
            case TENSIONER -> 1.1;
            case IDLER, GUIDE -> 0.5;
            case WATER_PUMP -> 0.9;
            case DAMPER -> 2.2;
            case ENGINE_MOUNT -> 1.6;
            default -> 0.35;
        };
    }

    private ItemKind kind(List<String> things) {
        String first = things.get(0);
        if (build.loops().stream().anyMatch(l -> l.code().equals(first))) {
            return build.loops().get(0).kind() == Drive.CHAIN ? ItemKind.TIMING_CHAIN : ItemKind.TIMING_BELT;
        }
        if (build.fluids().stream().anyMatch(f -> f.code().equals(first))) {
            return first.equals("oil") ? ItemKind.OIL : ItemKind.COOLANT;
        }
        boolean fasteners = build.joints().stream()
                .anyMatch(j -> j.fasteners().filter(first::equals).isPresent());
        if (fasteners) {
            return ItemKind.FASTENER;
        }
        return build.assemblies().stream()
                .filter(a -> a.code().equals(first))
                .findFirst()
                .map(a -> switch (a.kind()) {
                    case TENSIONER -> ItemKind.TENSIONER;
                    case IDLER -> ItemKind.IDLER;
                    case GUIDE, ARM -> ItemKind.GUIDE;
                    case PUMP -> ItemKind.WATER_PUMP;
                    case ACCESSORY_DRIVE -> ItemKind.AUXILIARY_BELT;
                    case PULLEY -> ItemKind.DAMPER;
                    case MOUNT -> ItemKind.ENGINE_MOUNT;
                    case FILTER -> ItemKind.OIL;
                    case STRAINER -> ItemKind.STRAINER;
                    case SEAL -> ItemKind.CAM_SEAL;
                    case ROCKER_COVER -> ItemKind.COVER_GASKET;
                    default -> ItemKind.GASKET;
                })
                .orElse(ItemKind.FASTENER);
    }

    private String name(Build.Renews r) {
        String first = r.things().get(0);
        String own = build.loops().stream()
                .filter(l -> l.code().equals(first))
                .map(Loop::name)
                .findFirst()
                .or(() -> build.fluids().stream()
                        .filter(f -> f.code().equals(first))
                        .map(f -> f.name())
                        .findFirst())
                .or(() -> build.joints().stream()
                        .filter(j -> j.fasteners().filter(first::equals).isPresent())
                        .map(Joint::name)
                        .findFirst())
                .or(() -> build.assemblies().stream()
                        .filter(a -> a.code().equals(first))
                        .map(Assembly::name)
                        .findFirst())
                .orElse(r.item());
        if (r.things().contains("oil")) {
            return "Engine oil and filter";
        }
        return r.things().size() > 1 && kind(r.things()) == ItemKind.GUIDE ? "Guides and arm" : own;
    }

    private List<AccessStep> steps() {
        List<AccessStep> steps = new ArrayList<>();
        Set<String> ordered = new LinkedHashSet<>();
        build.assemblies().forEach(a -> collect(a.code(), ordered));
        build.loops().forEach(l -> collect(l.code(), ordered));
        for (String thing : ordered) {
            build.assemblies().stream()
                    .filter(a -> a.code().equals(thing))
                    .findFirst()
                    .ifPresent(a -> steps.add(new AccessStep(
                            a.code(),
                            a.name() + " off and on",
                            minutes(a),
                            a.before(),
                            a.equipment(),
                            build.joints().stream()
                                    .filter(j -> j.holds().contains(a.code()))
                                    .map(Joint::code)
                                    .toList(),
                            a.carriesEngine() ? 15 : 0)));
            build.loops().stream()
                    .filter(l -> l.code().equals(thing))
                    .findFirst()
                    .ifPresent(l -> steps.add(new AccessStep(
                            l.code(),
                            l.name() + ": time, off and on, turn twice",
                            LOOP_MINUTES,
                            l.before(),
                            Optional.empty(),
                            List.of(),
                            0)));
        }
        build.fluids()
                .forEach(f -> steps.add(new AccessStep(
                        "fill-" + f.code(), f.name() + " out and in", 25, List.of(), Optional.empty(), List.of(), 0)));
        build.joints().stream()
                .filter(j -> ordered.stream().noneMatch(j.holds()::contains))
                .forEach(j -> steps.add(new AccessStep(
                        "joint-" + j.code(), j.name(), 10, List.of(), Optional.empty(), List.of(j.code()), 0)));
        return steps;
    }

    /** What lies before a thing stands before it in the list. */
    private void collect(String thing, Set<String> into) {
        if (into.contains(thing)) {
            return;
        }
        build.assemblies().stream()
                .filter(a -> a.code().equals(thing))
                .forEach(a -> a.before().forEach(b -> collect(b, into)));
        build.loops().stream()
                .filter(l -> l.code().equals(thing))
                .forEach(l -> l.before().forEach(b -> collect(b, into)));
        into.add(thing);
    }

    private String stepOf(String thing) {
        boolean part = build.assemblies().stream().anyMatch(a -> a.code().equals(thing))
                || build.loops().stream().anyMatch(l -> l.code().equals(thing));
        if (part) {
            return thing;
        }
        if (build.fluids().stream().anyMatch(f -> f.code().equals(thing))) {
            return "fill-" + thing;
        }
        return build.joints().stream()
                .filter(j -> j.fasteners().filter(thing::equals).isPresent()
                        || j.code().equals(thing))
                .findFirst()
                .map(j -> j.holds().stream()
                        .filter(h -> build.assemblies().stream()
                                .anyMatch(a -> a.code().equals(h)))
                        .findFirst()
                        .orElse("joint-" + j.code()))
                .orElseThrow();
    }

    private static int minutes(Assembly a) {
        return switch (a.kind()) {
            case ACCESSORY_DRIVE -> 15;
            case PLUG -> 5;
            case PULLEY -> 30;
            case SUMP, FRONT_COVER -> 60;
            case MOUNT -> 40;
            case ACCESSORY -> 25;
            case PUMP -> 35;
            default -> 18;
        };
    }

    private knollfield.core.engine.Joint joint(Joint j) {
        Optional<Torque> torque =
                j.stages().stream().flatMap(s -> s.torque().stream()).findFirst();
        OptionalInt angle =
                j.stages().stream().flatMapToInt(s -> s.angleDegrees().stream()).findFirst();
        boolean wet = j.holds().stream()
                .anyMatch(h -> build.assemblies().stream()
                        .anyMatch(a -> a.code().equals(h) && a.letsOut().contains("coolant")));
        boolean first = j.stages().stream().anyMatch(s -> s.until() == Joint.Moment.TURNED)
                && build.wheels().stream()
                        .anyMatch(w -> w.fit() != Wheel.Fit.KEYED
                                && w.joint().filter(j.code()::equals).isPresent());
        return new knollfield.core.engine.Joint(
                j.code(),
                j.name(),
                first
                        ? knollfield.core.engine.Joint.Stage.CRANK_BEFORE_TURNS
                        : knollfield.core.engine.Joint.Stage.CLOSE_UP,
                j.bolts(),
                torque.map(t -> new TorqueSpec(t, angle, ORIGIN)),
                j.critical(),
                j.fasteners().isPresent()
                        ? List.of(new Part(
                                "KF-%s-B-%s".formatted(code, j.code().toUpperCase(java.util.Locale.ROOT)),
                                j.name(),
                                j.bolts(),
                                Math.max(100, priceMinor / 12)))
                        : List.of(),
                wet);
    }

    private ToolSet tools() {
        return new ToolSet(
                "Set for " + name,
                build.hardware().stream()
                        .filter(h -> h.kind() != Hardware.Kind.TENSIONER_PIN)
                        .map(h -> new ToolSet.Piece(
                                h.name(),
                                1,
                                h.kind() == Hardware.Kind.SUPPORT
                                        ? "carries the engine"
                                        : "holds what it is named for"))
                        .toList());
    }

    /** The build with each loop drawn, banks unfolded side by side. */
    private static Build drawn(Build build) {
        List<Loop> loops = new ArrayList<>();
        for (int i = 0; i < build.loops().size(); i++) {
            Loop l = build.loops().get(i);
            loops.add(l.drawn(path(build, l, BANK_MM * (2 * i - build.loops().size() + 1))));
        }
        return build.with(loops);
    }

    private BeltPath path(Loop loop) {
        return loop.drawing().orElseThrow();
    }

    /** The crank below, its cams in a row above, a belt's tensioner beside; the bank stands {@code aside} of the crank. */
    private static BeltPath path(Build build, Loop loop, double aside) {
        double pitch = loop.kind() == Drive.CHAIN ? CHAIN_PITCH_MM : BELT_PITCH_MM;
        double r = CRANK_TEETH * pitch / (2 * Math.PI);
        List<Pulley> pulleys = new ArrayList<>();
        pulleys.add(new Pulley("crank", "Crank", Pulley.Role.CRANK, 0, 0, CRANK_TEETH, r, false, true));
        if (loop.kind() != Drive.CHAIN) {
            pulleys.add(new Pulley("tensioner", "Tensioner", Pulley.Role.TENSIONER, -98, 128, 0, 28, true, false));
        }
        List<Shaft> cams = build.shafts().stream()
                .filter(s -> s.role() == Shaft.Role.CAM && loop.shafts().contains(s.code()))
                .toList();
        for (int i = 0; i < cams.size(); i++) {
            double x = aside + (cams.size() == 1 ? 0 : -100.0 * (cams.size() - 1) + 200.0 * i);
            pulleys.add(new Pulley(
                    cams.get(i).code(),
                    cams.get(i).name(),
                    Pulley.Role.CAM,
                    x,
                    // those between the outer ones stand higher, so that the loop goes over all of them
                    290 + 60 * bulge(i, cams.size()),
                    2 * CRANK_TEETH,
                    2 * r,
                    false,
                    true));
        }
        return LoopLayout.fitted(new BeltPath(loop.teeth(), build.clockwise(), pulleys));
    }

    /** 0 at both ends of a row, 1 in its middle. */
    private static double bulge(int place, int row) {
        double along = row < 2 ? 1 : 2.0 * place / (row - 1) - 1;
        return 1 - along * along;
    }
}
