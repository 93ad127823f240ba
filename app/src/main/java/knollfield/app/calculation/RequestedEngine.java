package knollfield.app.calculation;

import java.util.List;
import java.util.Optional;
import knollfield.app.problem.Checks;
import knollfield.app.settings.Timings;
import knollfield.core.clock.Limit;
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
import org.jspecify.annotations.Nullable;

/** An engine as far as a forecast needs it; exactly one of the items is the belt or chain. */
record RequestedEngine(Drive drive, Interference interference, List<ItemIn> items) {

    record LimitIn(@Nullable Integer km, @Nullable Integer months) {

        private boolean positive() {
            return (km == null || km > 0) && (months == null || months > 0);
        }

        private Limit core() {
            return new Limit(Timings.optional(km), Timings.optional(months));
        }
    }

    record ItemIn(
            String code,
            String name,
            ItemKind kind,
            @Nullable LimitIn normal,
            @Nullable LimitIn severe,
            @Nullable String weakness) {

        private void check(String at, Checks checks) {
            if (normal == null) {
                // a chain, say, that the book has no interval for
                checks.that(severe == null, at + "/severe", "Limits for hard use stand beside the normal ones.");
                return;
            }
            checks.that(normal.positive(), at + "/normal", "A limit is above zero.")
                    .that(severe == null || severe.positive(), at + "/severe", "A limit is above zero.")
                    .that(
                            normal.km() != null || normal.months() != null,
                            at + "/normal",
                            "A limit needs a distance, an age, or both.");
            if (severe != null && normal.positive() && severe.positive()) {
                checks.that(
                        severe.core().isWithin(normal.core()), at + "/severe", "Hard use never has the larger limit.");
            }
        }

        private Item core() {
            return new Item(
                    code,
                    kind,
                    name,
                    new Part("", name, 1, 0),
                    Optional.ofNullable(normal)
                            .map(n -> new Schedule(
                                    n.core(),
                                    Optional.ofNullable(severe).map(LimitIn::core),
                                    "as given",
                                    DistanceUnit.KM)),
                    List.of(),
                    true,
                    Optional.ofNullable(weakness),
                    Optional.empty());
        }
    }

    /** The family, empty where something is wrong with it, which is then noted under {@code at}. */
    Optional<EngineFamily> family(String at, Checks checks) {
        int before = checks.problems().size();
        long drives = items.stream().filter(i -> i.kind().isTheDrive()).count();
        checks.that(drives == 1, at + "/items", "Exactly one item is the belt or chain, not %d.".formatted(drives));
        checks.that(
                items.stream().map(ItemIn::code).distinct().count() == items.size(),
                at + "/items",
                "Every item needs a code of its own.");
        for (int i = 0; i < items.size(); i++) {
            items.get(i).check(at + "/items/" + i, checks);
        }
        return checks.problems().size() == before ? Optional.of(core()) : Optional.empty();
    }

    /** A forecast looks at nothing but items and limits, so the loop is the plainest one there is. */
    private EngineFamily core() {
        BeltPath loop = new BeltPath(
                60,
                true,
                List.of(
                        new Pulley("crank", "Crank", Pulley.Role.CRANK, 0, 0, 20, 30, false, true),
                        new Pulley("cam", "Cam", Pulley.Role.CAM, 0, 200, 40, 60, false, true)));
        return new EngineFamily(
                "REQUEST",
                "as given",
                drive,
                interference,
                CrankFit.KEYED,
                ReferenceMethod.MARKS,
                List.of(),
                drive == Drive.CHAIN ? TensionerKind.CHAIN_RATCHET : TensionerKind.SPRING_PIN,
                false,
                false,
                List.of(),
                0,
                0,
                loop,
                items.stream().map(ItemIn::core).toList(),
                List.of(),
                List.of(),
                new RepairEstimate(0, 0, 0),
                List.of());
    }
}
