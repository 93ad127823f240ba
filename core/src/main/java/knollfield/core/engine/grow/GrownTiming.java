package knollfield.core.engine.grow;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.engine.BeltPath;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Handling;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.Ratio;
import knollfield.core.engine.ReferenceMethod;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.TimingGeometry;
import knollfield.core.engine.build.Assembly.Kind;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Position;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Shaft;
import knollfield.core.engine.build.Wheel;

/** Shafts, wheels, loops, and what proves and holds the timing, as a first book's path, pins and handling tell them. */
final class GrownTiming {

    /** Words of a pin's name that say what it is, not where it goes. */
    private static final Set<String> TOOLS = Set.of("pin", "bar", "clip", "clamp", "lock", "tool", "plate", "timing");

    /** How far a floating wheel turns in its slots where nothing is on file. */
    private static final int FLOAT_DEGREES = 8;

    /** One loop to be. */
    private record Strand(String code, Item item, List<String> shafts, String position, String bank, boolean drawn) {}

    private final EngineFamily family;
    private final Codes codes;
    private final Steps steps;
    private final GrownParts parts;
    private final String crank;
    private final String crankWheel;
    /** Timed shafts by the code of their pulley, and the wheels on them. */
    private final Map<String, Shaft> shafts = new LinkedHashMap<>();

    /** Wheels by the code of their shaft. */
    private final Map<String, String> wheels = new LinkedHashMap<>();

    private final List<Position> positions = new ArrayList<>();
    private final List<Strand> strands = new ArrayList<>();
    private final List<Hardware> hardware = new ArrayList<>();
    private final List<Reference> references = new ArrayList<>();
    private final List<Look> windows = new ArrayList<>();
    private final Map<String, String> tensioners = new LinkedHashMap<>();
    private final Optional<String> frictionJoint;
    private final String lock;
    private Optional<String> floatJoint = Optional.empty();

    GrownTiming(EngineFamily family, Codes codes, Steps steps, GrownParts parts) {
        this.family = family;
        this.codes = codes;
        this.steps = steps;
        this.parts = parts;
        this.crank = codes.part("crank");
        this.crankWheel = codes.part("crankw");
        this.lock = codes.own("crank-lock");
        this.frictionJoint = family.crankFit() == CrankFit.FRICTION_HELD ? Optional.of(crankJoint()) : Optional.empty();
        shaftsAndWheels();
        strands();
        strands.forEach(this::tensioner);
        blankingPlugs();
        holding();
        proving();
    }

    // --- shafts and wheels

    private void shaftsAndWheels() {
        Shaft.WhenFree free = switch (family.handling().cams()) {
            case STAY -> Shaft.WhenFree.STAYS;
            case SPRING -> Shaft.WhenFree.SPRINGS;
            case ROLL -> Shaft.WhenFree.ROLLS;
        };
        for (Pulley p : family.path().orElseThrow().pulleys()) {
            boolean pump = p.role() == Pulley.Role.FUEL_PUMP
                    && (p.marked() || family.handling().pumpTiming() != Handling.PumpTiming.NO_TIMED_PUMP);
            if (p.role() == Pulley.Role.CAM) {
                shaft(
                        p.code(),
                        p.name(),
                        Shaft.Role.CAM,
                        family.path().orElseThrow().turnsPerCrankTurn(p),
                        free,
                        "");
            } else if (pump) {
                Ratio ratio = family.path().orElseThrow().turnsPerCrankTurn(p);
                shaft(p.code(), p.name(), Shaft.Role.INJECTION_PUMP, ratio, Shaft.WhenFree.STAYS, "");
            }
        }
    }

    private void shaft(String pulley, String name, Shaft.Role role, Ratio ratio, Shaft.WhenFree free, String bank) {
        String code = codes.part(pulley);
        boolean banks = family.handling().otherBank().isPresent();
        shafts.put(pulley, new Shaft(code, name, role, ratio, bank, free, banks, List.of(), 0));
        wheels.put(code, codes.part(code + "w"));
    }

    private String wheelOf(String shaft) {
        return Objects.requireNonNull(wheels.get(shaft));
    }

    List<Shaft> shafts() {
        List<Shaft> all = new ArrayList<>();
        all.add(new Shaft(crank, "Crank", Shaft.Role.CRANK, Ratio.ONE, "", Shaft.WhenFree.STAYS, false, List.of(), 0));
        all.addAll(shafts.values());
        return all;
    }

    private boolean floats(Shaft shaft) {
        return shaft.role() == Shaft.Role.CAM && family.handling().camSprockets() == Handling.CamSprockets.FLOATING;
    }

    List<Wheel> wheels() {
        List<Wheel> all = new ArrayList<>();
        all.add(new Wheel(
                crankWheel,
                "Crank wheel",
                crank,
                frictionJoint.isPresent() ? Wheel.Fit.FRICTION : Wheel.Fit.KEYED,
                0,
                frictionJoint));
        for (Shaft s : shafts.values()) {
            boolean floating = floats(s);
            all.add(new Wheel(
                    wheelOf(s.code()),
                    s.name() + " wheel",
                    s.code(),
                    floating ? Wheel.Fit.FLOATING : Wheel.Fit.KEYED,
                    floating ? FLOAT_DEGREES : 0,
                    floating ? Optional.of(floatJoint()) : Optional.empty()));
        }
        return all;
    }

    /** The joint that makes a crank wheel fast that is held by friction; one the book does not have is not on file. */
    private String crankJoint() {
        return family.joints().stream()
                .filter(j -> j.stage() == knollfield.core.engine.Joint.Stage.CRANK_BEFORE_TURNS)
                .filter(j -> Codes.words(j.name() + " " + j.code(), Set.of()).contains("crank"))
                .findFirst()
                .or(() -> family.joints().stream()
                        .filter(j -> j.stage() == knollfield.core.engine.Joint.Stage.CRANK_BEFORE_TURNS)
                        .findFirst())
                .or(() -> family.joints().stream()
                        .filter(j -> j.critical()
                                && Codes.words(j.name() + " " + j.code(), Set.of())
                                        .contains("crank"))
                        .findFirst())
                .map(knollfield.core.engine.Joint::code)
                .orElseGet(() -> codes.part("crankbolt"));
    }

    /** The joint that makes floating cam wheels fast. */
    String floatJoint() {
        if (floatJoint.isEmpty()) {
            floatJoint = Optional.of(camJoint().orElseGet(() -> codes.part("camwheels-bolts")));
        }
        return floatJoint.get();
    }

    boolean hasFloatingWheels() {
        return shafts.values().stream().anyMatch(this::floats);
    }

    /** The joint of the cam wheels, by what it holds or by its name. */
    Optional<String> camJoint() {
        return family.joints().stream()
                .filter(j -> parts.held(j.code()).stream().anyMatch(p -> parts.is(p, Kind.WHEEL))
                        || parts.slackened().contains(j.code()))
                .filter(j -> Codes.words(j.name() + " " + j.code(), Set.of()).stream()
                        .anyMatch(w -> w.startsWith("cam")))
                .map(knollfield.core.engine.Joint::code)
                .findFirst();
    }

    Optional<String> frictionJoint() {
        return frictionJoint;
    }

    String crankWheel() {
        return crankWheel;
    }

    List<String> camWheels() {
        return shafts.values().stream()
                .filter(s -> s.role() == Shaft.Role.CAM)
                .map(s -> wheelOf(s.code()))
                .toList();
    }

    String crankLock() {
        return lock;
    }

    // --- loops

    private void strands() {
        String timed = position("timed", "Timing position", 0);
        List<Item> drives =
                family.items().stream().filter(i -> i.kind().isTheDrive()).toList();
        List<String> all = shafts.values().stream().map(Shaft::code).toList();
        if (family.handling().otherBank().isPresent()) {
            banks(family.handling().otherBank().get(), drives, all, timed);
        } else if (drives.size() == 1) {
            strands.add(new Strand(loopOf(drives.get(0)), drives.get(0), all, timed, "", true));
        } else {
            for (int i = 0; i < drives.size(); i++) {
                List<String> own = share(all, drives, i);
                strands.add(new Strand(loopOf(drives.get(i)), drives.get(i), own, timed, "", own.size() == all.size()));
            }
        }
    }

    private String position(String wanted, String name, int degrees) {
        String code = codes.own(wanted);
        positions.add(new Position(code, name, degrees, ""));
        return code;
    }

    private String loopOf(Item drive) {
        return Objects.requireNonNull(steps.loops.get(drive.code()));
    }

    /** Two loops, each at its own position of the crank; of the second one's cams nothing else is on file. */
    private void banks(Handling.OtherBank other, List<Item> drives, List<String> all, String timed) {
        int onTo = other.onDegrees() % Position.CYCLE;
        String there = onTo == 0 ? timed : position("timed-other", "Position of the " + lower(other.name()), onTo);
        strands.add(new Strand(loopOf(drives.get(0)), drives.get(0), all, timed, "", true));
        String cam = "other-cam";
        shaft(
                cam,
                "Cams of the " + lower(other.name()),
                Shaft.Role.CAM,
                new Ratio(1, 2),
                Shaft.WhenFree.STAYS,
                other.name());
        Item second = drives.size() > 1 ? drives.get(1) : drives.get(0);
        String code = drives.size() > 1 ? loopOf(second) : codes.own(second.code() + "-other");
        strands.add(new Strand(
                code, second, List.of(Objects.requireNonNull(shafts.get(cam)).code()), there, other.name(), false));
    }

    /** The shafts of one of several loops: those its name names, else its share in running order. */
    private List<String> share(List<String> all, List<Item> drives, int at) {
        Set<String> said = Codes.words(drives.get(at).name(), Set.of("timing", "belt", "chain", "bank"));
        List<String> named = shafts.values().stream()
                .filter(s -> Codes.shared(Codes.words(s.name(), Set.of("cam")), said) > 0)
                .map(Shaft::code)
                .toList();
        if (!named.isEmpty()) {
            return named;
        }
        int from = all.size() * at / drives.size();
        int to = Math.max(from + 1, all.size() * (at + 1) / drives.size());
        return all.subList(from, Math.min(to, all.size()));
    }

    List<String> loopsOf(Item drive) {
        return strands.stream()
                .filter(s -> s.item().equals(drive))
                .map(Strand::code)
                .toList();
    }

    List<String> loopCodes() {
        return strands.stream().map(Strand::code).toList();
    }

    private void tensioner(Strand strand) {
        List<String> there = parts.all(Kind.TENSIONER).stream()
                .filter(t -> !tensioners.containsValue(t))
                .toList();
        String part = there.isEmpty()
                ? parts.extra(
                        "tensioner" + (strand.bank().isEmpty() ? "" : "-other"),
                        "Tensioner" + (strand.bank().isEmpty() ? "" : ", " + lower(strand.bank())),
                        Kind.TENSIONER,
                        isChain() ? parts.beforeLoop(strand.item()) : loopCodes())
                : there.get(0);
        tensioners.put(strand.code(), part);
        if (isChain()) {
            parts.notBehind(part, Set.copyOf(loopCodes()));
        }
    }

    private boolean isChain() {
        return family.drive() == Drive.CHAIN;
    }

    /** Codes of the tensioners, one for each loop. */
    Set<String> tensionerParts() {
        return new LinkedHashSet<>(tensioners.values());
    }

    List<Loop> loops(List<knollfield.core.engine.build.Joint> joints) {
        List<Loop> loops = new ArrayList<>();
        for (Strand strand : strands) {
            String part = Objects.requireNonNull(tensioners.get(strand.code()));
            Set<String> before = new LinkedHashSet<>(parts.beforeLoop(strand.item()));
            if (isChain()) {
                // a chain comes off once its tensioner is out, and its guides stand in front of it, unless the book
                // says
                // that they wait for the chain
                Stream.of(part).filter(t -> !parts.isBehindLoop(t)).forEach(before::add);
                parts.all(Kind.GUIDE).stream()
                        .filter(g -> !parts.isBehindLoop(g))
                        .forEach(before::add);
                // one loop lies before the next
                loops.stream().map(Loop::code).forEach(before::add);
            } else if (!parts.isBehindLoop(part)) {
                before.add(part);
            }
            List<String> shaftCodes = new ArrayList<>(List.of(crank));
            shaftCodes.addAll(strand.shafts());
            loops.add(new Loop(
                    strand.code(),
                    strand.bank().isEmpty()
                            ? strand.item().name()
                            : strand.item().name() + ", " + lower(strand.bank()),
                    family.drive(),
                    family.path().orElseThrow().teeth(),
                    List.copyOf(before),
                    strand.position(),
                    shaftCodes,
                    wheelsOf(strand),
                    Loop.LastWheel.SLID_OVER,
                    Optional.of(tensionerOf(strand, part)),
                    parts.isBehindLoop(part) ? Loop.LetOff.RELEASED : Loop.LetOff.TENSIONER_OFF,
                    slackenFirst(part, joints, strand.equals(strands.get(0))),
                    List.of(),
                    strand.equals(strands.get(0))
                            ? windows.stream().map(Look::code).toList()
                            : List.of(),
                    strand.drawn() ? family.path() : Optional.<BeltPath>empty()));
        }
        return loops;
    }

    private Loop.Tensioner tensionerOf(Strand strand, String part) {
        TensionerKind kind = family.tensioner();
        Optional<String> pin = hardware.stream()
                .filter(h ->
                        h.kind() == Hardware.Kind.TENSIONER_PIN && h.loops().contains(strand.code()))
                .map(Hardware::code)
                .findFirst();
        Loop.LetGo letGo = kind.hasPin()
                ? Loop.LetGo.PIN_PULLED
                : kind == TensionerKind.CHAIN_RATCHET ? Loop.LetGo.PRESSED : Loop.LetGo.SET;
        return new Loop.Tensioner(
                part, kind, letGo, pin, kind.hasPin() && !family.pinOutBeforeTurns(), GrownJoints.isSetAgain(kind));
    }

    /** @param first the first loop; with it is undone what no loop is named for */
    private List<String> slackenFirst(
            String tensioner, List<knollfield.core.engine.build.Joint> joints, boolean first) {
        Set<String> slack = new LinkedHashSet<>();
        for (knollfield.core.engine.build.Joint j : joints) {
            boolean set = GrownBuild.isSet(family.tensioner()) && j.holds().contains(tensioner);
            boolean floating = hasFloatingWheels() && j.code().equals(floatJoint());
            boolean friction = frictionJoint.filter(j.code()::equals).isPresent();
            boolean undone = first && (floating || parts.slackened().contains(j.code()));
            if (!friction && (set || undone)) {
                slack.add(j.code());
            }
        }
        return List.copyOf(slack);
    }

    /** Wheels and parts in laying order; a smooth wheel that is no part of the book stays where it is. */
    private List<String> wheelsOf(Strand strand) {
        Set<String> order = new LinkedHashSet<>();
        if (!strand.drawn()) {
            order.add(crankWheel);
            strand.shafts().forEach(s -> order.add(wheelOf(s)));
            return List.copyOf(order);
        }
        Optional<String> last = Optional.empty();
        for (Pulley p : TimingGeometry.layingOn(family.path().orElseThrow())) {
            Optional<String> there = passed(p, strand);
            there.ifPresent(order::add);
            if (family.handling().lastWheel().filter(p.code()::equals).isPresent()) {
                last = there;
            }
        }
        last.ifPresent(l -> {
            order.remove(l);
            order.add(l);
        });
        return List.copyOf(order);
    }

    private Optional<String> passed(Pulley p, Strand strand) {
        return switch (p.role()) {
            case CRANK -> Optional.of(crankWheel);
            case CAM, FUEL_PUMP -> Optional.ofNullable(shafts.get(p.code())).map(s -> wheelOf(s.code()));
            case TENSIONER -> Optional.ofNullable(tensioners.get(strand.code()));
            case IDLER -> behind(p, ItemKind.IDLER);
            case WATER_PUMP -> behind(p, ItemKind.WATER_PUMP);
        };
    }

    /** The part that a smooth wheel or the pump's wheel is, by its name, where it lies behind the loop. */
    private Optional<String> behind(Pulley pulley, ItemKind kind) {
        Set<String> said = Codes.words(pulley.name() + " " + pulley.code(), Set.of());
        return family.items().stream()
                .filter(i -> i.kind() == kind)
                .max((a, b) -> Integer.compare(
                        Codes.shared(Codes.words(a.name() + " " + a.code(), Set.of()), said),
                        Codes.shared(Codes.words(b.name() + " " + b.code(), Set.of()), said)))
                .flatMap(i -> parts.partsOf(i.code()).stream().findFirst())
                .filter(parts::isBehindLoop);
    }

    // --- what holds and what proves

    /** Parts that are on again before the turns, because a crank wheel held by friction is made fast through them. */
    List<String> backBeforeTurns() {
        Set<String> through = new LinkedHashSet<>();
        frictionJoint.ifPresent(j -> through.addAll(parts.held(j)));
        return strands.stream()
                .flatMap(s -> parts.beforeLoop(s.item()).stream())
                .distinct()
                .filter(c -> through.contains(c) || parts.inFrontOf(c).stream().anyMatch(through::contains))
                .toList();
    }

    /** Parts that are off while the timing is read: the covers, but none that is on again before the turns. */
    private List<String> offToRead(Strand strand) {
        List<String> back = backBeforeTurns();
        return parts.beforeLoop(strand.item()).stream()
                .filter(c -> !back.contains(c))
                .filter(c -> !parts.is(c, Kind.MOUNT) && !parts.is(c, Kind.ACCESSORY))
                .toList();
    }

    private void blankingPlugs() {
        if (family.blankingPlugs() > 0 && family.reference() == ReferenceMethod.PINS) {
            parts.extra(
                    "plugs",
                    family.blankingPlugs() == 1
                            ? "Blanking plug of the pin's hole"
                            : "Blanking plugs of the pins' holes, %d".formatted(family.blankingPlugs()),
                    Kind.PLUG,
                    List.of());
        }
    }

    private void holding() {
        for (Strand strand : strands) {
            String part = Objects.requireNonNull(tensioners.get(strand.code()));
            if (family.tensioner().hasPin()) {
                hardware(
                        codes.own("tensioner-pin"),
                        "Tensioner's own pin",
                        Hardware.Kind.TENSIONER_PIN,
                        strand,
                        List.of(part),
                        Hardware.InBefore.LOOP_OFF,
                        List.of());
            }
            if (!parts.isBehindLoop(part)) {
                held(strand);
            }
        }
        if (!parts.all(Kind.MOUNT).isEmpty()) {
            hardware.add(new Hardware(
                    codes.own("support"),
                    "Load spreader under the engine",
                    Hardware.Kind.SUPPORT,
                    List.of(),
                    List.of(),
                    Optional.empty(),
                    false,
                    List.of(),
                    Hardware.InBefore.JOINT,
                    false,
                    false,
                    0));
        }
        frictionJoint.ifPresent(j -> hardware.add(new Hardware(
                lock,
                "Lock that takes the crank bolt's torque",
                Hardware.Kind.RING_GEAR_LOCK,
                List.of(),
                List.of(crank),
                Optional.empty(),
                true,
                List.of(),
                Hardware.InBefore.JOINT,
                false,
                false,
                0)));
    }

    /** A loop that can stay on its wheels while its tensioner comes off is tied, and marked across. */
    private void held(Strand strand) {
        List<String> off = offToRead(strand);
        hardware(
                codes.own("tie"),
                "Ties that hold the %s on its wheels".formatted(isChain() ? "chain" : "belt"),
                Hardware.Kind.TIE,
                strand,
                List.of(strand.code()),
                Hardware.InBefore.TENSION_OFF,
                off);
        references.add(new Reference(
                codes.own("across"),
                "Own marks across %s and wheels".formatted(isChain() ? "chain" : "belt"),
                List.of(strand.code()),
                "",
                strand.position(),
                off,
                List.of(),
                true,
                Reference.Trust.WHILE_HELD,
                0,
                Optional.empty()));
    }

    private void hardware(
            String code,
            String name,
            Hardware.Kind kind,
            Strand strand,
            List<String> holds,
            Hardware.InBefore before,
            List<String> off) {
        hardware.add(new Hardware(
                code,
                name,
                kind,
                List.of(strand.code()),
                holds,
                Optional.empty(),
                false,
                off,
                before,
                false,
                false,
                0));
    }

    private void proving() {
        Set<String> proven = new LinkedHashSet<>();
        Strand first = strands.get(0);
        boolean pins = family.reference() == ReferenceMethod.PINS;
        Set<String> heldByPins = new LinkedHashSet<>();
        for (String name : family.pins()) {
            Set<String> held = heldBy(name, heldByPins);
            heldByPins.addAll(held);
            if (pins && !isClip(name)) {
                pin(name, held, first);
                proven.addAll(held);
            } else {
                hardware(
                        codes.own(slug(name)),
                        name(name),
                        Hardware.Kind.CLAMP,
                        first,
                        List.copyOf(held),
                        Hardware.InBefore.TENSION_OFF,
                        offToRead(first));
            }
        }
        camsHeld(heldByPins);
        for (Strand strand : strands) {
            marks(strand, proven);
        }
        family.handling()
                .unreliableMarks()
                .forEach(words -> references.add(
                        mark(codes.own("untrusted"), name(words), first, Reference.Trust.NEVER, false, List.of())));
        window(first);
    }

    private static boolean isClip(String name) {
        return !Codes.words(name, Set.of()).stream()
                .filter(w -> w.equals("clip") || w.equals("clamp") || w.equals("tie"))
                .toList()
                .isEmpty();
    }

    /** Shafts that a pin of that name goes into: those whose names it shares a word with, else the next without a pin. */
    private Set<String> heldBy(String pin, Set<String> alreadyHeld) {
        Set<String> said = Codes.words(pin, TOOLS);
        Map<String, Integer> shared = new LinkedHashMap<>();
        shafts().forEach(s ->
                shared.put(s.code(), Codes.shared(Codes.words(s.name() + " " + s.code(), Set.of()), said)));
        int most = shared.values().stream().mapToInt(Integer::intValue).max().orElse(0);
        Set<String> held = new LinkedHashSet<>();
        if (most > 0) {
            shared.forEach((code, n) -> {
                if (n == most) {
                    held.add(code);
                }
            });
            return held;
        }
        shared.keySet().stream()
                .filter(s -> !alreadyHeld.contains(s))
                .findFirst()
                .ifPresentOrElse(held::add, () -> held.add(crank));
        return held;
    }

    private void pin(String name, Set<String> held, Strand strand) {
        boolean pump = held.stream()
                .anyMatch(h -> shafts.values().stream()
                        .anyMatch(s -> s.code().equals(h) && s.role() == Shaft.Role.INJECTION_PUMP));
        boolean back = !(pump && family.handling().pumpTiming() == Handling.PumpTiming.NOT_EXPECTED_BACK);
        List<String> off = new ArrayList<>(parts.all(Kind.PLUG));
        off.addAll(offToRead(strand));
        String code = codes.own(slug(name));
        boolean bar = Codes.words(name, Set.of()).contains("bar");
        hardware.add(new Hardware(
                code,
                name(name),
                bar ? Hardware.Kind.BAR : Hardware.Kind.PIN,
                List.of(strand.code()),
                List.copyOf(held),
                Optional.of(strand.position()),
                false,
                off,
                Hardware.InBefore.LOOP_OFF,
                back,
                true,
                0));
        references.add(new Reference(
                code,
                name(name),
                List.of(strand.code()),
                "the hole it slides into",
                strand.position(),
                off,
                List.of(),
                false,
                back ? Reference.Trust.BEFORE_AND_AFTER : Reference.Trust.BEFORE,
                0,
                Optional.of(code)));
    }

    /** Cams that spring or roll are held by something before any slack is let in. */
    private void camsHeld(Set<String> heldByPins) {
        for (Strand strand : strands) {
            List<String> loose = shafts.values().stream()
                    .filter(s -> strand.shafts().contains(s.code()) && s.whenFree() != Shaft.WhenFree.STAYS)
                    .map(Shaft::code)
                    .filter(s -> !heldByPins.contains(s))
                    .toList();
            if (!loose.isEmpty()
                    || (family.handling().camsHeldBy().isPresent()
                            && strand.bank().isEmpty())) {
                hardware(
                        codes.own("cams-held"),
                        name(family.handling().camsHeldBy().orElse("what holds the cams")),
                        Hardware.Kind.CLAMP,
                        strand,
                        loose.isEmpty() ? strand.shafts() : loose,
                        Hardware.InBefore.TENSION_OFF,
                        offToRead(strand));
            }
        }
    }

    /** Marks of what no pin proves; own paint where the book has no other reference. */
    private void marks(Strand strand, Set<String> proven) {
        boolean paint = family.reference() == ReferenceMethod.PAINT;
        List<String> untrusted = family.handling().unreliableMarks();
        int made = 0;
        if (strand.drawn()) {
            for (Pulley p : family.path().orElseThrow().pulleys()) {
                String shaft = p.role() == Pulley.Role.CRANK
                        ? crank
                        : Optional.ofNullable(shafts.get(p.code()))
                                .map(Shaft::code)
                                .orElse("");
                boolean timed = !shaft.isEmpty() && (p.marked() || paint);
                if (!timed || proven.contains(shaft) || !strand.shafts().contains(shaft) && !shaft.equals(crank)) {
                    continue;
                }
                boolean never = untrusted.contains(p.name()) || untrusted.contains(p.code());
                String what = paint ? "Own paint, %s to casing".formatted(lower(p.name())) : p.name() + " mark";
                references.add(mark(
                        codes.own(p.code() + "-mark"),
                        what,
                        strand,
                        never ? Reference.Trust.NEVER : Reference.Trust.BEFORE_AND_AFTER,
                        paint,
                        offToRead(strand)));
                made += never ? 0 : 1;
            }
        }
        boolean byPins = strand.drawn() && !proven.isEmpty();
        if (made == 0 && !byPins) {
            references.add(mark(
                    codes.own(strand.code() + "-marks"),
                    strand.bank().isEmpty() ? "Timing marks" : "Timing marks, " + lower(strand.bank()),
                    strand,
                    Reference.Trust.BEFORE_AND_AFTER,
                    paint,
                    offToRead(strand)));
        }
    }

    private static Reference mark(
            String code, String name, Strand strand, Reference.Trust trust, boolean own, List<String> off) {
        return new Reference(
                code,
                name,
                List.of(strand.code()),
                "",
                strand.position(),
                off,
                List.of(),
                own,
                trust,
                0,
                Optional.empty());
    }

    private void window(Strand strand) {
        Optional<Handling.Acceptance> measured = family.handling().acceptance();
        boolean looked = switch (family.tensioner()) {
            case ECCENTRIC_POINTER, TWIST, FREQUENCY -> true;
            default -> false;
        };
        if (measured.isEmpty() && !looked) {
            return;
        }
        String words = family.handling().tensionerWindow();
        String name = measured.map(a -> switch (a.quantity()) {
                    case POINTER_MM -> "Pointer in its window";
                    case TWIST_DEGREES -> "Twist of the longest free run";
                    case FREQUENCY_HZ -> "Frequency of the free run, engine cold";
                    case TOOL_TORQUE_NM -> "Tension read with the torque tool";
                })
                .orElse("Tension as the book has it" + (words.isBlank() ? "" : ": " + words));
        windows.add(new Look(
                codes.own("window"),
                name,
                Look.Kind.WINDOW,
                Optional.of(strand.code()),
                offToRead(strand),
                List.of(),
                measured.map(Handling.Acceptance::low),
                measured.map(Handling.Acceptance::high),
                measured.map(a -> a.quantity().unit()).orElse("")));
    }

    List<Position> positions() {
        return List.copyOf(positions);
    }

    List<Hardware> hardware() {
        return List.copyOf(hardware);
    }

    /** Codes of the timing pins that are in while a wheel that can turn on its shaft is undone or made fast. */
    List<String> pins() {
        return hardware.stream().filter(Hardware::slidesIn).map(Hardware::code).toList();
    }

    List<Reference> references() {
        return List.copyOf(references);
    }

    List<Look> windows() {
        return List.copyOf(windows);
    }

    private static String name(String words) {
        return words.isEmpty() ? words : words.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + words.substring(1);
    }

    private static String lower(String words) {
        return words.isEmpty() ? words : words.substring(0, 1).toLowerCase(java.util.Locale.ROOT) + words.substring(1);
    }

    private static String slug(String words) {
        String slug = words.toLowerCase(java.util.Locale.ROOT)
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-|-$", "");
        return slug.isEmpty() ? "pin" : slug;
    }
}
