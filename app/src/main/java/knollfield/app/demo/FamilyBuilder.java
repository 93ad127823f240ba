package knollfield.app.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import knollfield.core.clock.Limit;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.Assembly;
import knollfield.core.engine.BeltPath;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Handling;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Joint;
import knollfield.core.engine.Joint.Stage;
import knollfield.core.engine.Kit;
import knollfield.core.engine.LoopLayout;
import knollfield.core.engine.Part;
import knollfield.core.engine.PrintedTorque;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.Pulley.Role;
import knollfield.core.engine.ReferenceMethod;
import knollfield.core.engine.RepairEstimate;
import knollfield.core.engine.Schedule;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.ToolSet;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.engine.Variant;
import knollfield.core.units.DistanceUnit;
import knollfield.core.units.Torque;
import knollfield.core.units.TorqueUnit;
import org.jspecify.annotations.Nullable;

/** Writes one invented family of Skerrow, from what differs between families. */
final class FamilyBuilder {

    private static final String ORIGIN = "Skerrow demo book";
    private static final double BELT_PITCH_MM = 9.525;
    private static final double CHAIN_PITCH_MM = 8;

    private final String code;
    private final String name;
    private final Drive drive;
    private final List<Item> items = new ArrayList<>();
    private final List<AccessStep> steps = new ArrayList<>();
    private final List<Joint> joints = new ArrayList<>();
    private final List<String> pins = new ArrayList<>();
    private final List<String> moveOver = new ArrayList<>();
    private final List<String> cautions = new ArrayList<>();
    private Interference interference = Interference.YES;
    private CrankFit crankFit = CrankFit.KEYED;
    private ReferenceMethod reference = ReferenceMethod.PINS;
    private TensionerKind tensioner = TensionerKind.SPRING_PIN;
    private boolean pinOutFirst = true;
    private boolean mount = true;
    private int plugs;
    private double coolantLitres = 5.5;
    private @Nullable BeltPath path;
    private Optional<Schedule> schedule = Optional.empty();
    private RepairEstimate repair = new RepairEstimate(180_000, 290_000, 480_000);
    private long kitPrice = 6_500;
    private final List<String> unreliable = new ArrayList<>();
    private final List<Variant> variants = new ArrayList<>();
    private List<Double> crankBolts = List.of();
    private List<PrintedTorque> printed = List.of();
    private boolean coverMissing;
    private boolean pumpInHalves;
    private int turnBack;
    private boolean tensionerReachable;
    private final List<Handling.Clearance> clearances = new ArrayList<>();

    FamilyBuilder(String code, String name, Drive drive) {
        this.code = code;
        this.name = name;
        this.drive = drive;
    }

    FamilyBuilder interference(Interference value) {
        interference = value;
        return this;
    }

    FamilyBuilder friction() {
        crankFit = CrankFit.FRICTION_HELD;
        return this;
    }

    FamilyBuilder pins(String... names) {
        pins.addAll(List.of(names));
        return this;
    }

    FamilyBuilder marks() {
        reference = ReferenceMethod.MARKS;
        return this;
    }

    FamilyBuilder tensioner(TensionerKind kind, boolean pinOutBeforeTurns) {
        tensioner = kind;
        pinOutFirst = pinOutBeforeTurns;
        return this;
    }

    FamilyBuilder noMount() {
        mount = false;
        return this;
    }

    FamilyBuilder moveOver(String... parts) {
        moveOver.addAll(List.of(parts));
        return this;
    }

    FamilyBuilder plugs(int count) {
        plugs = count;
        return this;
    }

    FamilyBuilder caution(String words) {
        cautions.add(words);
        return this;
    }

    FamilyBuilder repair(long likelyMinor) {
        repair = new RepairEstimate(likelyMinor * 2 / 3, likelyMinor, likelyMinor * 5 / 3);
        return this;
    }

    FamilyBuilder turnBack(int degrees) {
        turnBack = degrees;
        return this;
    }

    FamilyBuilder unreliable(String mark) {
        unreliable.add(mark);
        return this;
    }

    /** The crank bolt comes in two sizes, and the vehicle must be looked at to know which. */
    FamilyBuilder twoCrankBolts(double small, double large) {
        crankBolts = List.of(small, large);
        return this;
    }

    /** The crank bolt's torque as the demo's print has it, in two units that need not agree. */
    FamilyBuilder printed(String newtonMetres, String poundFeet) {
        printed = List.of(
                new PrintedTorque(newtonMetres, TorqueUnit.NEWTON_METRE),
                new PrintedTorque(poundFeet, TorqueUnit.POUND_FOOT));
        return this;
    }

    FamilyBuilder coverTorqueMissing() {
        coverMissing = true;
        return this;
    }

    FamilyBuilder pumpInHalves() {
        pumpInHalves = true;
        return this;
    }

    /** The tensioner can be renewed with the belt on its wheels. */
    FamilyBuilder tensionerReachable() {
        tensionerReachable = true;
        return this;
    }

    FamilyBuilder clearance(String valves, double lowMm, double highMm) {
        clearances.add(new Handling.Clearance(valves, lowMm, highMm));
        return this;
    }

    FamilyBuilder kit(long priceMinor) {
        kitPrice = priceMinor;
        return this;
    }

    FamilyBuilder limits(Limit normal, @Nullable Limit severe) {
        schedule = Optional.of(new Schedule(normal, Optional.ofNullable(severe), ORIGIN, DistanceUnit.KM));
        return this;
    }

    /** Two cams in line, a pump driven by the belt, an idler on its back. */
    FamilyBuilder inline(int beltTeeth, int crankTeeth) {
        double r = radius(crankTeeth, BELT_PITCH_MM);
        path = LoopLayout.fitted(new BeltPath(
                beltTeeth,
                true,
                List.of(
                        new Pulley("crank", "Crank", Role.CRANK, 0, 0, crankTeeth, r, false, true),
                        new Pulley("tensioner", "Tensioner", Role.TENSIONER, -98, 128, 0, 28, true, false),
                        new Pulley("inlet", "Inlet cam", Role.CAM, -100, 270, 2 * crankTeeth, 2 * r, false, true),
                        new Pulley("exhaust", "Exhaust cam", Role.CAM, 100, 270, 2 * crankTeeth, 2 * r, false, true),
                        new Pulley("idler", "Idler", Role.IDLER, 150, 150, 0, 24, true, false),
                        new Pulley(
                                "pump",
                                "Water pump",
                                Role.WATER_PUMP,
                                104,
                                74,
                                20,
                                radius(20, BELT_PITCH_MM),
                                false,
                                false))));
        return this;
    }

    /** One cam and a fuel pump that is timed with it. */
    FamilyBuilder diesel(int beltTeeth, int crankTeeth) {
        double r = radius(crankTeeth, BELT_PITCH_MM);
        path = LoopLayout.fitted(new BeltPath(
                beltTeeth,
                true,
                List.of(
                        new Pulley("crank", "Crank", Role.CRANK, 0, 0, crankTeeth, r, false, true),
                        new Pulley("tensioner", "Tensioner", Role.TENSIONER, -98, 118, 0, 28, true, false),
                        new Pulley(
                                "fuelpump", "Fuel pump", Role.FUEL_PUMP, -120, 235, 2 * crankTeeth, 2 * r, false, true),
                        new Pulley("cam", "Cam", Role.CAM, 60, 290, 2 * crankTeeth, 2 * r, false, true),
                        new Pulley("idler", "Idler", Role.IDLER, 142, 150, 0, 24, true, false),
                        new Pulley(
                                "pump",
                                "Water pump",
                                Role.WATER_PUMP,
                                104,
                                74,
                                20,
                                radius(20, BELT_PITCH_MM),
                                false,
                                false))));
        return this;
    }

    /** Two banks, four cams. */
    FamilyBuilder vee(int beltTeeth, int crankTeeth) {
        double r = radius(crankTeeth, BELT_PITCH_MM);
        path = LoopLayout.fitted(new BeltPath(
                beltTeeth,
                true,
                List.of(
                        new Pulley("crank", "Crank", Role.CRANK, 0, 0, crankTeeth, r, false, true),
                        new Pulley("tensioner", "Tensioner", Role.TENSIONER, -120, 60, 0, 26, true, false),
                        new Pulley("li", "Left inlet cam", Role.CAM, -190, 180, 2 * crankTeeth, 2 * r, false, true),
                        new Pulley("pump", "Water pump", Role.WATER_PUMP, -60, 190, 0, 34, true, false),
                        new Pulley("ri", "Right inlet cam", Role.CAM, 90, 270, 2 * crankTeeth, 2 * r, false, true),
                        new Pulley("re", "Right exhaust cam", Role.CAM, 220, 170, 2 * crankTeeth, 2 * r, false, true),
                        new Pulley("idler", "Idler", Role.IDLER, 110, 60, 0, 26, true, false))));
        return this;
    }

    /** A chain over two cams. */
    FamilyBuilder chain(int links, int crankTeeth) {
        double r = radius(crankTeeth, CHAIN_PITCH_MM);
        path = LoopLayout.fitted(new BeltPath(
                links,
                true,
                List.of(
                        new Pulley("crank", "Crank", Role.CRANK, 0, 0, crankTeeth, r, false, true),
                        new Pulley("inlet", "Inlet cam", Role.CAM, -80, 250, 2 * crankTeeth, 2 * r, false, true),
                        new Pulley("exhaust", "Exhaust cam", Role.CAM, 80, 250, 2 * crankTeeth, 2 * r, false, true))));
        return this;
    }

    private static double radius(int teeth, double pitch) {
        return teeth * pitch / (2 * Math.PI);
    }

    /**
     * Items, steps and joints of a belt engine.
     *
     * @param openMinutes book minutes to have the belt in the hand
     * @param pumpOnBelt the belt turns the water pump
     */
    EngineFamily belt(int openMinutes, boolean pumpOnBelt, double crankNm, @Nullable Integer crankAngle) {
        step("shields", "Wheel and shields off", 20, List.of(), List.of());
        equipment("aircon", "Compressor aside", 24, "air conditioning");
        equipment("steering", "Top steering pump off", 24, "top steering pump");
        steps.add(new AccessStep(
                "mount",
                mount ? "Engine carried, mount off" : "Upper cover free",
                mount ? 40 : 10,
                List.of("shields"),
                Optional.empty(),
                mount ? List.of("mount") : List.of(),
                mount ? 15 : 0));
        step("pulley", "Crank bolt and pulley off", 30, List.of("shields"), List.of("crank"));
        step(
                "covers",
                "Covers off",
                openMinutes - 160,
                List.of("mount", "pulley", "aircon", "steering"),
                List.of("cover"));
        step("belt", "Time, release, belt off and on, turn twice", 70, List.of("covers"), List.of());
        step("tensioner", "Tensioner fitted", 6, List.of(tensionerReachable ? "covers" : "belt"), List.of("tensioner"));
        step("idler", "Idler fitted", 6, List.of("belt"), List.of("idler"));
        step("drain", "Coolant out", 12, List.of("shields"), List.of());
        step("pump", "Water pump off and on", 36, List.of("belt", "drain"), List.of("pump"));
        step("camseal", "Cam sprockets off, seals renewed", 45, List.of("belt"), List.of("camsprocket"));
        step("crankseal", "Crank sprocket off, seal renewed", 18, List.of("belt"), List.of());
        step("fill", "Coolant in, bled", 20, List.of(), List.of());
        step("auxbelt", "Accessory belt off and on", 8, List.of("shields"), List.of());

        item("belt", ItemKind.TIMING_BELT, "Timing belt", kitPrice * 6 / 10, schedule, true, "belt");
        item("tensioner", ItemKind.TENSIONER, "Tensioner", kitPrice * 7 / 10, schedule, true, "tensioner");
        item("idler", ItemKind.IDLER, "Idler", kitPrice * 3 / 10, schedule, true, "idler");
        item("pump", ItemKind.WATER_PUMP, "Water pump", 3_200, schedule, pumpOnBelt, "pump");
        if (pumpInHalves) {
            Part half = new Part("KF-" + code + "-4F", "Water pump, front half", 1, 1_900);
            items.add(new Item(
                    "pumpfront",
                    ItemKind.WATER_PUMP,
                    "Water pump, front half",
                    half,
                    schedule,
                    List.of("pump"),
                    pumpOnBelt,
                    Optional.empty(),
                    Optional.of("pump")));
        }
        item("camseal", ItemKind.CAM_SEAL, "Cam seals", 1_100, Optional.empty(), false, "camseal");
        item("crankseal", ItemKind.CRANK_SEAL, "Crank seal", 900, Optional.empty(), false, "crankseal");
        item("auxbelt", ItemKind.AUXILIARY_BELT, "Accessory belt", 1_900, Optional.empty(), false, "auxbelt");
        item("damper", ItemKind.DAMPER, "Crank damper", 8_900, Optional.empty(), false, "pulley");
        item("coolant", ItemKind.COOLANT, "Coolant", 2_400, Optional.empty(), false, "fill");

        joint("pump", "Pump to block", Stage.PUMP_AND_SEALS, 5, 9, null, false, true, "Pump gasket", 450);
        joint("idler", "Idler bolt", Stage.IDLERS_AND_TENSIONER, 1, 45, null, false, false, null, 0);
        joint("tensioner", "Tensioner plate", Stage.IDLERS_AND_TENSIONER, 2, 6, null, true, false, null, 0);
        joint(
                "crank",
                "Crank bolt",
                crankFit == CrankFit.FRICTION_HELD ? Stage.CRANK_BEFORE_TURNS : Stage.FINAL,
                1,
                crankNm,
                crankAngle,
                true,
                false,
                "Crank bolt",
                780);
        joint("camsprocket", "Cam sprocket bolts", Stage.FINAL, 2, 29.8, 100, true, false, "Cam sprocket bolts", 640);
        joint("cover", "Cover bolts", Stage.CLOSE_UP, 9, 8.5, null, false, false, null, 0);
        refine();
        if (mount) {
            joint("mount", "Engine mount", Stage.CLOSE_UP, 3, 65, null, false, false, "Mount bolts", 540);
        }
        return build();
    }

    /** Items, steps and joints of a chain engine with its covers at the front. */
    EngineFamily chainDrive(int openMinutes) {
        step("shields", "Wheel and shields off", 20, List.of(), List.of());
        equipment("aircon", "Compressor aside", 24, "air conditioning");
        step(
                "front",
                "Sump, front cover and cam cover off",
                openMinutes,
                List.of("shields", "aircon"),
                List.of("frontcover", "crank"));
        step("chain", "Cams held, chain off and on, turn 720°", 90, List.of("front"), List.of("camsprocket"));
        step("tensioner", "Chain tensioner fitted and armed", 10, List.of("front"), List.of("tensioner"));
        step("guides", "Guides and arm fitted", 25, List.of("front"), List.of());
        step("oil", "Oil and filter", 15, List.of(), List.of());

        item("chain", ItemKind.TIMING_CHAIN, "Timing chain", kitPrice, schedule, true, "chain");
        item("tensioner", ItemKind.TENSIONER, "Chain tensioner", 4_900, Optional.empty(), true, "tensioner");
        item("guides", ItemKind.GUIDE, "Guides and arm", 5_600, Optional.empty(), true, "guides");
        item("oil", ItemKind.OIL, "Engine oil and filter", 4_200, Optional.empty(), false, "oil");

        joint(
                "tensioner",
                "Chain tensioner body",
                Stage.IDLERS_AND_TENSIONER,
                1,
                74.6,
                null,
                true,
                false,
                "Sealing ring",
                120);
        joint("camsprocket", "Cam sprocket bolts", Stage.FINAL, 2, 29.8, 100, true, false, "Cam sprocket bolts", 640);
        joint("crank", "Crank bolt", Stage.FINAL, 1, 150, 90, true, false, "Crank bolt", 780);
        joint("frontcover", "Front cover", Stage.CLOSE_UP, 18, 9, null, false, false, "Front cover gasket", 1_650);
        return build();
    }

    /** What sets this family's joints apart: printed figures, bolts by length, figures nobody has written down. */
    private void refine() {
        joints.replaceAll(j -> switch (j.code()) {
            case "crank" ->
                new Joint(
                        j.code(),
                        j.name(),
                        j.stage(),
                        j.bolts(),
                        j.torque().map(t -> new TorqueSpec(t.torque(), t.angleDegrees(), t.origin(), printed)),
                        j.critical(),
                        j.oneTimeParts(),
                        false,
                        new Assembly(
                                false, Optional.of("thin wall only"), List.of(), Assembly.Face.NO_SEAL, false, true));
            case "cover" ->
                new Joint(
                        j.code(),
                        j.name(),
                        j.stage(),
                        j.bolts(),
                        coverMissing ? Optional.empty() : j.torque(),
                        j.critical(),
                        j.oneTimeParts(),
                        false,
                        new Assembly(
                                false,
                                Optional.empty(),
                                List.of(new Assembly.Bolts(6, 25), new Assembly.Bolts(3, 40)),
                                Assembly.Face.DRY,
                                false,
                                false));
            case "pump" ->
                new Joint(
                        j.code(),
                        j.name(),
                        j.stage(),
                        j.bolts(),
                        j.torque(),
                        j.critical(),
                        j.oneTimeParts(),
                        true,
                        new Assembly(false, Optional.empty(), List.of(), Assembly.Face.GASKET, false, true));
            default -> j;
        });
        if (!crankBolts.isEmpty()) {
            variants.add(new Variant(
                    "crankbolt",
                    "Crank bolt",
                    "Measure the head: 17 mm or 19 mm across flats.",
                    List.of(
                            bolt("m12", "17 mm head", crankBolts.get(0)),
                            bolt("m14", "19 mm head", crankBolts.get(1)))));
        }
    }

    private static Variant.Choice bolt(String choice, String words, double newtonMetres) {
        return new Variant.Choice(
                choice,
                words,
                Map.of("crank", new TorqueSpec(new Torque(newtonMetres), OptionalInt.of(90), ORIGIN)),
                Map.of());
    }

    private EngineFamily build() {
        return new EngineFamily(
                code,
                name,
                drive,
                interference,
                crankFit,
                reference,
                pins,
                tensioner,
                pinOutFirst,
                mount,
                moveOver,
                plugs,
                drive == Drive.CHAIN ? 0 : coolantLitres,
                java.util.Objects.requireNonNull(path),
                items,
                steps,
                joints,
                repair,
                cautions,
                handling(),
                variants,
                tools(),
                kits());
    }

    private Handling handling() {
        boolean chain = drive == Drive.CHAIN;
        return new Handling(
                turnBack == 0 ? OptionalInt.empty() : OptionalInt.of(turnBack),
                chain
                        ? "crank key at 12 o'clock, lobes of the first cylinder free"
                        : "first piston a quarter turn before the top",
                unreliable,
                interference == Interference.NO ? Handling.Cams.STAY : Handling.Cams.SPRING,
                reference == ReferenceMethod.MARKS ? Optional.of("a wrench on the hexagon") : Optional.empty(),
                crankFit == CrankFit.FRICTION_HELD ? Handling.CamSprockets.FLOATING : Handling.CamSprockets.KEYED,
                hasFuelPump() ? Handling.PumpTiming.RE_ENTERS_ITS_PIN : Handling.PumpTiming.NO_TIMED_PUMP,
                "as seated in the vehicle",
                Optional.empty(),
                crankFit == CrankFit.FRICTION_HELD
                        ? Handling.BoltsFinal.AFTER_TENSIONING
                        : Handling.BoltsFinal.AFTER_THE_TURNS,
                chain ? Handling.BoltsFinal.WHEN_ALL_SITS : Handling.BoltsFinal.AT_ONCE,
                chain ? Optional.empty() : Optional.of("tensioner"),
                !chain && plugs > 0,
                switch (tensioner) {
                    case SPRING_PIN -> "swing back, pin, fit; the pin comes out " + order();
                    case HYDRAULIC_PIN -> "compress slowly, pin, fit; the pin comes out " + order();
                    case ECCENTRIC_POINTER -> "turn the eccentric until the pointer stands in its window, then torque";
                    case TORQUE_TOOL -> "turn the square with its torque tool, hold, then torque the nut";
                    case TEETH_ON -> "turn on by three teeth of the cam sprocket, then torque";
                    case TWIST -> "set until the longest run turns by a quarter, then torque";
                    case FREQUENCY -> "set until the free run swings in its window, then torque";
                    case CHAIN_RATCHET -> "fit, then press until the ratchet lets go with a click";
                },
                tensioner == TensionerKind.ECCENTRIC_POINTER
                        ? "pointer in the window, up to 5 mm past centre"
                        : "no slack left",
                chain ? 4.5 : 0,
                acceptance(),
                Optional.empty(),
                clearances);
    }

    private Optional<Handling.Acceptance> acceptance() {
        return switch (tensioner) {
            case ECCENTRIC_POINTER ->
                Optional.of(new Handling.Acceptance(Handling.Quantity.POINTER_MM, 0, 5, Optional.empty()));
            case FREQUENCY ->
                Optional.of(new Handling.Acceptance(
                        Handling.Quantity.FREQUENCY_HZ, 80, 90, Optional.of(new Handling.FreeRun(0.16, 0.12))));
            case TWIST ->
                Optional.of(new Handling.Acceptance(Handling.Quantity.TWIST_DEGREES, 80, 100, Optional.empty()));
            default -> Optional.empty();
        };
    }

    private String order() {
        return pinOutFirst ? "before the two turns" : "after the first turn";
    }

    private boolean hasFuelPump() {
        return java.util.Objects.requireNonNull(path).pulleys().stream().anyMatch(p -> p.role() == Role.FUEL_PUMP);
    }

    private ToolSet tools() {
        List<ToolSet.Piece> pieces = new ArrayList<>();
        pins.forEach(p -> pieces.add(new ToolSet.Piece(p, 1, "holds the " + p.replaceAll(" (pin|bar)$", ""))));
        if (drive == Drive.CHAIN) {
            pieces.add(new ToolSet.Piece("cam clamp", 2, "holds both cams"));
        }
        pieces.add(new ToolSet.Piece("crank holder", 1, "holds the crank while its bolt is undone"));
        return new ToolSet("Skerrow set for " + name, pieces);
    }

    private List<Kit> kits() {
        if (drive == Drive.CHAIN) {
            return List.of();
        }
        long price = items.stream()
                .filter(i -> List.of("belt", "tensioner", "idler").contains(i.code()))
                .mapToLong(i -> i.part().totalMinor())
                .sum();
        return List.of(new Kit(
                "KF-" + code + "-KIT",
                "Belt kit " + name,
                List.of("belt", "tensioner", "idler"),
                "crank bolt, water pump and coolant",
                price * 9 / 10));
    }

    private void step(String stepCode, String title, int minutes, List<String> requires, List<String> opens) {
        steps.add(new AccessStep(stepCode, title, minutes, requires, Optional.empty(), opens, 0));
    }

    private void equipment(String stepCode, String title, int minutes, String equipment) {
        steps.add(new AccessStep(stepCode, title, minutes, List.of("shields"), Optional.of(equipment), List.of(), 0));
    }

    private void item(
            String itemCode,
            ItemKind kind,
            String itemName,
            long price,
            Optional<Schedule> limits,
            boolean driven,
            String step) {
        Part part = new Part("KF-" + code + "-" + (items.size() + 1), itemName, 1, price);
        items.add(new Item(itemCode, kind, itemName, part, limits, List.of(step), driven));
    }

    private void joint(
            String jointCode,
            String jointName,
            Stage stage,
            int bolts,
            double newtonMetres,
            @Nullable Integer angle,
            boolean critical,
            boolean wet,
            @Nullable String partName,
            long price) {
        List<Part> parts = partName == null
                ? List.of()
                : List.of(new Part("KF-" + code + "-J" + (joints.size() + 1), partName, 1, price));
        joints.add(new Joint(
                jointCode,
                jointName,
                stage,
                bolts,
                Optional.of(new TorqueSpec(
                        new Torque(newtonMetres), angle == null ? OptionalInt.empty() : OptionalInt.of(angle), ORIGIN)),
                critical,
                parts,
                wet));
    }
}
