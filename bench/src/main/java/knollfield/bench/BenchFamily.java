package knollfield.bench;

import java.util.List;
import java.util.Optional;
import knollfield.core.clock.Limit;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.BeltPath;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Part;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.ReferenceMethod;
import knollfield.core.engine.RepairEstimate;
import knollfield.core.engine.Schedule;
import knollfield.core.engine.TensionerKind;
import knollfield.core.units.DistanceUnit;

/** Invented belt engines for measuring. */
public final class BenchFamily {

    private BenchFamily() {}

    /** An engine with a belt and {@code items} − 1 idlers, all of these limits. */
    public static EngineFamily of(int items, Interference interference, Limit normal, Limit severe) {
        Schedule schedule = new Schedule(normal, Optional.of(severe), "bench", DistanceUnit.KM);
        List<Item> list = new java.util.ArrayList<>();
        for (int i = 0; i < items; i++) {
            list.add(new Item(
                    "item" + i,
                    i == 0 ? ItemKind.TIMING_BELT : ItemKind.IDLER,
                    "Item " + i,
                    new Part("P" + i, "part", 1, 100),
                    Optional.of(schedule),
                    List.of("step"),
                    true));
        }
        return new EngineFamily(
                "BENCH",
                "Bench",
                Drive.BELT,
                interference,
                CrankFit.KEYED,
                ReferenceMethod.MARKS,
                List.of(),
                TensionerKind.SPRING_PIN,
                true,
                false,
                List.of(),
                0,
                0,
                new BeltPath(
                        120,
                        true,
                        List.of(
                                new Pulley("crank", "Crank", Pulley.Role.CRANK, 0, 0, 20, 30, false, true),
                                new Pulley("cam", "Cam", Pulley.Role.CAM, 0, 200, 40, 60, false, true))),
                list,
                List.of(new AccessStep("step", "Step", 10, List.of(), Optional.empty(), List.of(), 0)),
                List.of(),
                new RepairEstimate(1, 2, 3),
                List.of());
    }
}
