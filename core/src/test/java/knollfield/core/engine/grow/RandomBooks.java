package knollfield.core.engine.grow;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Handling;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.ReferenceMethod;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.units.Torque;

/** Books of schema version 1 that nobody wrote: every kind of drive, hold and order, in other words, with steps left out. */
public final class RandomBooks {

    static final TorqueSpec CRANK = new TorqueSpec(new Torque(130), OptionalInt.of(90), "the test's own book");

    private static Handling handling(Random random) {
        Handling careful = Handling.careful();
        Handling.Cams cams = pick(random, Handling.Cams.values());
        return new Handling(
                random.nextBoolean() ? OptionalInt.of(10) : OptionalInt.empty(),
                "a quarter turn before the top",
                random.nextBoolean() ? List.of("the arrow on the cover") : List.of(),
                cams,
                random.nextBoolean() ? Optional.of("a wrench on the hexagon") : Optional.empty(),
                pick(random, Handling.CamSprockets.values()),
                pick(random, Handling.PumpTiming.values()),
                "as seated",
                Optional.empty(),
                pick(random, Handling.BoltsFinal.values()),
                pick(random, Handling.BoltsFinal.values()),
                random.nextBoolean() ? Optional.of("crank") : Optional.empty(),
                random.nextBoolean(),
                "",
                "",
                0,
                careful.acceptance(),
                Optional.empty(),
                random.nextInt(4) == 0 ? List.of(new Handling.Clearance("Inlet valves", 0.15, 0.18)) : List.of());
    }

    private static <T> T pick(Random random, T[] all) {
        return all[random.nextInt(all.length)];
    }

    static EngineFamily belt(Random random) {
        return Families.belt(
                pick(random, TensionerKind.values()),
                random.nextBoolean(),
                pick(random, CrankFit.values()),
                Interference.YES,
                pick(random, ReferenceMethod.values()),
                handling(random),
                List.of(),
                random.nextInt(5) == 0 ? Optional.empty() : Optional.of(CRANK));
    }

    static EngineFamily chain(Random random) {
        return Families.chain(
                handling(random),
                random.nextBoolean() ? "front" : "cover",
                pick(random, knollfield.core.engine.Joint.Stage.values()));
    }

    /** The same book in other words: codes that other things bear too, titles that say nothing, steps left out. */
    static EngineFamily scrambled(EngineFamily f, Random random) {
        List<String> names = new ArrayList<>(List.of(
                "belt", "crank", "coolant", "oil", "timed", "7", "cam", "turner", "window", "pulley", "mount",
                "across"));
        Collections.shuffle(names, random);
        Map<String, String> codes = new HashMap<>();
        f.accessSteps()
                .forEach(s ->
                        codes.put(s.code(), random.nextBoolean() ? names.get(codes.size()) : "step " + codes.size()));
        boolean silent = random.nextBoolean();
        List<AccessStep> steps = f.accessSteps().stream()
                .map(s -> new AccessStep(
                        Objects.requireNonNull(codes.get(s.code())),
                        silent ? "Arbeit " + codes.get(s.code()) : s.title(),
                        s.minutes(),
                        s.requires().stream().map(codes::get).toList(),
                        s.equipment(),
                        s.opens().stream().filter(j -> random.nextInt(6) > 0).toList(),
                        s.helperMinutes()))
                .toList();
        List<Item> items = f.items().stream()
                .map(i -> new Item(
                        i.code(),
                        i.kind(),
                        silent ? "Teil " + i.code() : i.name(),
                        i.part(),
                        i.schedule(),
                        i.accessSteps().stream().map(codes::get).toList(),
                        i.drivenByTimingDrive()))
                .toList();
        return new EngineFamily(
                f.code(),
                f.name(),
                f.drive(),
                f.interference(),
                f.crankFit(),
                f.reference(),
                silent && f.reference() == ReferenceMethod.PINS ? List.of("P1", "P2") : f.pins(),
                f.tensioner(),
                f.pinOutBeforeTurns(),
                random.nextBoolean(),
                f.moveOver(),
                f.blankingPlugs(),
                f.coolantLitres(),
                f.path().orElseThrow(),
                items,
                steps,
                f.joints(),
                f.repair(),
                List.of("Mind the crank bolt", "Wrong oil swells it"),
                f.handling(),
                f.variants(),
                f.tools(),
                f.kits());
    }

    /** Some of a family's items, at least one. */
    public static Set<String> someItems(EngineFamily family, Random random) {
        List<String> all =
                new ArrayList<>(family.items().stream().map(Item::code).toList());
        Collections.shuffle(all, random);
        return Set.copyOf(all.subList(0, 1 + random.nextInt(all.size())));
    }

    /** A belt book, or now and then a chain's. */
    public static EngineFamily any(Random random) {
        return scrambled(random.nextInt(4) == 0 ? chain(random) : belt(random), random);
    }

    private RandomBooks() {}
}
