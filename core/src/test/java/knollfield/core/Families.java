package knollfield.core;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;
import knollfield.core.clock.Limit;
import knollfield.core.engine.AccessStep;
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
import knollfield.core.engine.Part;
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

/** Invented engine families that tests of core share. */
public final class Families {

    private Families() {}

    /** A keyed-crank belt engine, timed by pins, book 120,000 km or 72 months, 70,000 km or 60 months in dust. */
    public static EngineFamily belt(TensionerKind tensioner, boolean pinOutBeforeTurns) {
        return belt(tensioner, pinOutBeforeTurns, CrankFit.KEYED, Interference.YES);
    }

    public static EngineFamily belt(
            TensionerKind tensioner, boolean pinOutBeforeTurns, CrankFit crankFit, Interference interference) {
        return belt(
                tensioner,
                pinOutBeforeTurns,
                crankFit,
                interference,
                ReferenceMethod.PINS,
                Handling.careful(),
                List.of(),
                Optional.of(new TorqueSpec(new Torque(130), OptionalInt.of(90), "the test's own book")));
    }

    /** What cards differ by. @param crank empty where the book has no torque for the crank bolt */
    public static EngineFamily belt(
            TensionerKind tensioner,
            boolean pinOutBeforeTurns,
            CrankFit crankFit,
            Interference interference,
            ReferenceMethod reference,
            Handling handling,
            List<Variant> variants,
            Optional<TorqueSpec> crank) {
        Schedule belt = new Schedule(
                Limit.of(120_000, 72), Optional.of(Limit.of(70_000, 60)), "the test's own book", DistanceUnit.KM);
        return new EngineFamily(
                "TEST-B",
                "Test belt 1.6",
                Drive.BELT,
                interference,
                crankFit,
                reference,
                reference == ReferenceMethod.PINS ? List.of("crank pin", "inlet pin", "exhaust pin") : List.of(),
                tensioner,
                pinOutBeforeTurns,
                true,
                List.of("spacer"),
                1,
                5.5,
                new BeltPath(
                        145,
                        true,
                        List.of(
                                new Pulley("crank", "Crank", Role.CRANK, 0, 0, 24, 36, false, true),
                                new Pulley("tens", "Tensioner", Role.TENSIONER, -60, 80, 0, 30, true, false),
                                new Pulley("inlet", "Inlet cam", Role.CAM, -60, 260, 48, 73, false, true),
                                new Pulley("exhaust", "Exhaust cam", Role.CAM, 90, 260, 48, 73, false, true),
                                new Pulley("pump", "Water pump", Role.WATER_PUMP, 70, 60, 20, 31, false, false))),
                List.of(
                        new Item(
                                "belt",
                                ItemKind.TIMING_BELT,
                                "Timing belt",
                                part("K-1", 4_500),
                                Optional.of(belt),
                                List.of("belt"),
                                true),
                        new Item(
                                "tensioner",
                                ItemKind.TENSIONER,
                                "Tensioner",
                                part("K-2", 3_900),
                                Optional.of(belt),
                                List.of("tensioner"),
                                true),
                        new Item(
                                "pump",
                                ItemKind.WATER_PUMP,
                                "Water pump",
                                part("K-3", 3_200),
                                Optional.of(belt),
                                List.of("pump"),
                                true),
                        new Item(
                                "camseal",
                                ItemKind.CAM_SEAL,
                                "Cam seals",
                                part("K-4", 900),
                                Optional.empty(),
                                List.of("camseal"),
                                false),
                        new Item(
                                "coolant",
                                ItemKind.COOLANT,
                                "Coolant",
                                part("K-5", 2_400),
                                Optional.empty(),
                                List.of("fill"),
                                false)),
                List.of(
                        step("covers", 300 - 60, List.of(), List.of("crank", "mount")),
                        // By rules.md section 5 and procedure.md, 5.0 h + 0.4 h + 0.4 h
                        new AccessStep(
                                "aircon",
                                "Compressor aside",
                                24,
                                List.of(),
                                Optional.of("air conditioning"),
                                List.of(),
                                0),
                        new AccessStep(
                                "steering",
                                "Top steering pump off",
                                24,
                                List.of(),
                                Optional.of("top steering pump"),
                                List.of(),
                                0),
                        step("belt", 60, List.of("covers", "aircon", "steering"), List.of()),
                        step("tensioner", 6, List.of("belt"), List.of("tensbolt")),
                        step("pump", 40, List.of("belt", "drain"), List.of("pumpface")),
                        step("drain", 10, List.of(), List.of()),
                        step("camseal", 25, List.of("belt"), List.of()),
                        step("fill", 15, List.of(), List.of())),
                List.of(
                        new Joint(
                                "crank",
                                "Crank bolt",
                                crankFit == CrankFit.FRICTION_HELD ? Stage.CRANK_BEFORE_TURNS : Stage.FINAL,
                                1,
                                crank,
                                true,
                                List.of(part("F-crank", 250)),
                                false),
                        joint("mount", "Engine mount", Stage.CLOSE_UP, 45, OptionalInt.empty(), false, false),
                        joint(
                                "tensbolt",
                                "Tensioner plate",
                                Stage.IDLERS_AND_TENSIONER,
                                6,
                                OptionalInt.empty(),
                                true,
                                false),
                        joint("pumpface", "Pump to block", Stage.PUMP_AND_SEALS, 9, OptionalInt.empty(), false, true)),
                new RepairEstimate(180_000, 290_000, 480_000),
                List.of(),
                handling,
                variants,
                ToolSet.none(),
                List.of());
    }

    /** A single-row chain engine with an inspection interval by distance only. */
    public static EngineFamily chain() {
        return chain(Handling.careful(), "front");
    }

    /** @param tensionerStep the access step that leads to the tensioner: {@code front} or {@code cover} */
    public static EngineFamily chain(Handling handling, String tensionerStep) {
        return chain(handling, tensionerStep, Stage.FINAL);
    }

    /** @param camBolt when the bolt of the cam sprocket is done up */
    public static EngineFamily chain(Handling handling, String tensionerStep, Stage camBolt) {
        return new EngineFamily(
                "TEST-C",
                "Test chain 2.2",
                Drive.CHAIN,
                Interference.YES,
                CrankFit.KEYED,
                ReferenceMethod.MARKS,
                List.of(),
                TensionerKind.CHAIN_RATCHET,
                true,
                false,
                List.of(),
                0,
                0,
                new BeltPath(
                        120,
                        true,
                        List.of(
                                new Pulley("crank", "Crank", Role.CRANK, 0, 0, 20, 30, false, true),
                                new Pulley("inlet", "Inlet cam", Role.CAM, -70, 250, 40, 60, false, true),
                                new Pulley("exhaust", "Exhaust cam", Role.CAM, 70, 250, 40, 60, false, true))),
                List.of(
                        new Item(
                                "chain",
                                ItemKind.TIMING_CHAIN,
                                "Timing chain",
                                part("C-1", 9_800),
                                Optional.of(new Schedule(
                                        Limit.ofKm(160_000), Optional.empty(), "the test's own book", DistanceUnit.KM)),
                                List.of("front"),
                                true),
                        new Item(
                                "tensioner",
                                ItemKind.TENSIONER,
                                "Chain tensioner",
                                part("C-2", 4_100),
                                Optional.empty(),
                                List.of(tensionerStep),
                                true),
                        new Item(
                                "guides",
                                ItemKind.GUIDE,
                                "Guides",
                                part("C-3", 3_000),
                                Optional.empty(),
                                List.of("guides"),
                                true)),
                List.of(
                        step("cover", 60, List.of(), List.of()),
                        step("front", 360, List.of(), List.of("cambolt")),
                        step("guides", 20, List.of("front"), List.of())),
                List.of(joint("cambolt", "Cam sprocket bolt", camBolt, 29.8, OptionalInt.of(100), true, false)),
                new RepairEstimate(200_000, 350_000, 500_000),
                List.of(),
                handling,
                List.of(),
                ToolSet.none(),
                List.of());
    }

    /** {@code family} with {@code more} items behind its own. */
    public static EngineFamily with(EngineFamily family, Item... more) {
        return withItems(
                family, Stream.concat(family.items().stream(), Stream.of(more)).toList());
    }

    /** {@code family} with other items in place of its own. */
    public static EngineFamily withItems(EngineFamily family, List<Item> items) {
        return new EngineFamily(
                family.code(),
                family.name(),
                family.drive(),
                family.interference(),
                family.crankFit(),
                family.reference(),
                family.pins(),
                family.tensioner(),
                family.pinOutBeforeTurns(),
                family.mountInTheWay(),
                family.moveOver(),
                family.blankingPlugs(),
                family.coolantLitres(),
                family.path().orElseThrow(),
                items,
                family.accessSteps(),
                family.joints(),
                family.repair(),
                family.cautions());
    }

    private static Part part(String number, long price) {
        return new Part(number, number, 1, price);
    }

    private static AccessStep step(String code, int minutes, List<String> requires, List<String> opens) {
        return new AccessStep(code, code, minutes, requires, Optional.empty(), opens, 0);
    }

    private static Joint joint(
            String code,
            String name,
            Stage stage,
            double newtonMetres,
            OptionalInt angle,
            boolean critical,
            boolean wet) {
        return new Joint(
                code,
                name,
                stage,
                1,
                Optional.of(new TorqueSpec(new Torque(newtonMetres), angle, "the test's own book")),
                critical,
                List.of(new Part("F-" + code, name + " fastener", 1, 250)),
                wet);
    }
}
