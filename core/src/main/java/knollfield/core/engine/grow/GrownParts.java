package knollfield.core.engine.grow;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Assembly.Kind;

/** Access steps as parts that come off and go back, and which joint holds which. */
final class GrownParts {

    private static final Set<String> FILLERS =
            Set.of("off", "on", "and", "aside", "free", "away", "out", "removed", "fitted", "renewed", "armed");

    /** A part while what lies before it is still being found. */
    private static final class Part {
        private final String code;
        private final String name;
        private final Kind kind;
        private final Set<String> before = new LinkedHashSet<>();
        private Optional<String> equipment = Optional.empty();
        private boolean under;
        private boolean wet;
        private final List<Assembly.SmallPart> moveOver = new ArrayList<>();
        private Set<String> words = Set.of();

        private Part(String code, String name, Kind kind) {
            this.code = code;
            this.name = name;
            this.kind = kind;
        }
    }

    final GrownBuild.Fluids fluids;
    private final EngineFamily family;
    private final Codes codes;
    private final Steps steps;
    private final Map<String, Part> parts = new LinkedHashMap<>();
    private final Map<String, Set<String>> partsOf = new LinkedHashMap<>();
    private final Map<String, Set<String>> holds = new LinkedHashMap<>();
    private final Set<String> slackened = new LinkedHashSet<>();
    /** What lies before the loops and no step names. */
    private final Set<String> loopFronts = new LinkedHashSet<>();

    private boolean mounted;

    GrownParts(EngineFamily family, Codes codes, Steps steps, GrownBuild.Fluids fluids) {
        this.family = family;
        this.codes = codes;
        this.steps = steps;
        this.fluids = fluids;
        family.accessSteps().forEach(this::comesOff);
        family.accessSteps().forEach(this::liesBehind);
        family.items().forEach(this::withoutSteps);
        mountNobodyNames();
        accessoryBelt();
        goesOver();
    }

    // --- what comes off

    private void comesOff(AccessStep step) {
        if (steps.isFluid(step)) {
            return;
        }
        List<Item> own = steps.owners(step.code()).stream()
                .filter(i -> i.kind() != ItemKind.COOLANT
                        && i.kind() != ItemKind.FASTENER
                        && !i.kind().isTheDrive())
                .toList();
        List<Part> made = new ArrayList<>();
        if (steps.isLoop(step)) {
            steps.owners(step.code()).stream()
                    .flatMap(i -> Optional.ofNullable(steps.loops.get(i.code())).stream())
                    .forEach(loop -> steps.takesOff(step.code(), loop));
        } else if (own.isEmpty() || own.stream().anyMatch(i -> isBehind(i.kind()))) {
            made.addAll(fronts(step, own));
        }
        for (Item item : own) {
            made.add(partOf(item, step, made));
        }
        boolean wet = step.opens().stream()
                .flatMap(j -> family.joint(j).stream())
                .anyMatch(knollfield.core.engine.Joint::holdsCoolant);
        for (Part p : made) {
            p.equipment = step.equipment();
            p.under |= p.kind == Kind.PULLEY
                    || (step.requires().isEmpty() && step.equipment().isEmpty());
            p.wet |= wet && p.kind != Kind.WHEEL && p.kind != Kind.SEAL;
            if (!steps.isLoop(step)) {
                steps.takesOff(step.code(), p.code);
            }
        }
        step.opens()
                .forEach(joint -> assign(joint, step, made.stream().distinct().toList()));
    }

    /**
     * What a seal or gasket lies behind, or what the step itself takes off, last; before it the mount and the pulley where
     * the step opens their joints and is called after something else.
     */
    private List<Part> fronts(AccessStep step, List<Item> own) {
        Set<String> words = Codes.words(step.title() + " " + step.code(), Set.of());
        // a part that an item is keeps the item's code
        String code = own.stream().anyMatch(i -> i.code().equals(step.code())) ? step.code() + "-front" : step.code();
        List<Part> fronts = new ArrayList<>();
        boolean mount = family.mountInTheWay() && !mounted && (words.contains("mount") || opens(step, "mount"));
        mounted |= mount;
        boolean pulley = words.contains("pulley") || words.contains("damper");
        boolean crank = opens(step, "crank");
        Part last;
        if (own.stream().anyMatch(i -> i.kind() == ItemKind.CAM_SEAL)) {
            last = add(code, "Cam wheels", Kind.WHEEL);
        } else if (own.stream().anyMatch(i -> i.kind() == ItemKind.CRANK_SEAL)) {
            last = add(code, "Crank wheel", Kind.WHEEL);
        } else if (step.equipment().isPresent()) {
            last = add(code, stripped(step.title()), Kind.ACCESSORY);
        } else if (mount && words.contains("mount")) {
            return List.of(add(code, "Engine mount", Kind.MOUNT));
        } else if (pulley || (crank && words.contains("crank"))) {
            return List.of(add(code, "Crank pulley", Kind.PULLEY));
        } else {
            // a wheel and its shields are cleared away before anything is opened
            boolean cleared = step.requires().isEmpty() && step.opens().isEmpty() && !words.contains("cover");
            last = add(code, stripped(step.title()), cleared ? Kind.ACCESSORY : coverKind(words));
            if (mount) {
                fronts.add(add("mount", "Engine mount", Kind.MOUNT));
            }
            if (crank) {
                fronts.add(add("pulley", "Crank pulley", Kind.PULLEY));
            }
            fronts.forEach(f -> last.before.add(f.code));
        }
        fronts.add(last);
        return fronts;
    }

    private boolean opens(AccessStep step, String word) {
        return step.opens().stream()
                .flatMap(j -> family.joint(j).stream())
                .anyMatch(j -> Codes.words(j.name() + " " + j.code(), Set.of()).contains(word));
    }

    private static Kind coverKind(Set<String> words) {
        boolean cover = words.contains("cover");
        if (words.contains("sump") || (words.contains("front") && cover)) {
            return Kind.FRONT_COVER;
        }
        boolean valves = words.contains("rocker") || (cover && (words.contains("valve") || words.contains("cam")));
        return valves ? Kind.ROCKER_COVER : Kind.COVER;
    }

    private Part partOf(Item item, AccessStep step, List<Part> made) {
        Optional<Part> whole =
                item.halfOf().flatMap(w -> partsOf(w).stream().findFirst()).map(parts::get);
        Part part;
        if (whole.isPresent()) {
            part = whole.get();
        } else {
            part = add(item.code(), item.name(), kind(item.kind()));
            if (isBehind(item.kind())) {
                made.stream()
                        .filter(p -> p.kind != Kind.SEAL)
                        .reduce((a, b) -> b)
                        .ifPresent(front -> part.before.add(front.code));
            }
            part.wet = item.kind() == ItemKind.WATER_PUMP || item.kind() == ItemKind.THERMOSTAT;
        }
        part.words = Codes.words(item.name() + " " + item.code() + " " + step.code(), Set.of());
        partsOf.computeIfAbsent(item.code(), i -> new LinkedHashSet<>()).add(part.code);
        return part;
    }

    private Part add(String wanted, String name, Kind kind) {
        Part part = new Part(codes.part(wanted), name, kind);
        part.words = Codes.words(name + " " + wanted, Set.of());
        parts.put(part.code, part);
        return part;
    }

    private static boolean isBehind(ItemKind kind) {
        return switch (kind) {
            case CAM_SEAL, CRANK_SEAL, GASKET, COVER_GASKET -> true;
            default -> false;
        };
    }

    private static Kind kind(ItemKind kind) {
        return switch (kind) {
            case TENSIONER -> Kind.TENSIONER;
            case IDLER -> Kind.IDLER;
            case GUIDE -> Kind.GUIDE;
            case WATER_PUMP -> Kind.PUMP;
            case CAM_SEAL, CRANK_SEAL, GASKET, COVER_GASKET -> Kind.SEAL;
            case AUXILIARY_BELT -> Kind.ACCESSORY_DRIVE;
            case ACCESSORY_TENSIONER -> Kind.ACCESSORY;
            case DAMPER -> Kind.PULLEY;
            case ENGINE_MOUNT -> Kind.MOUNT;
            case OIL -> Kind.FILTER;
            case STRAINER -> Kind.STRAINER;
            case CAM_ACTUATOR -> Kind.WHEEL;
            case THERMOSTAT, TIMING_BELT, TIMING_CHAIN, COOLANT, COOLANT_PIPE, FASTENER -> Kind.OTHER;
        };
    }

    private static String stripped(String title) {
        List<String> words = new ArrayList<>(List.of(title.split(" ")));
        while (words.size() > 1 && FILLERS.contains(words.get(words.size() - 1).toLowerCase(java.util.Locale.ROOT))) {
            words.remove(words.size() - 1);
        }
        return String.join(" ", words);
    }

    // --- what lies before what

    private void liesBehind(AccessStep step) {
        boolean loop = steps.isLoop(step);
        for (Item item : steps.owners(step.code())) {
            for (String code : partsOf(item.code())) {
                Part part = Objects.requireNonNull(parts.get(code));
                if (loop) {
                    part.before.addAll(steps.loops.values());
                } else if (part.kind != Kind.SEAL) {
                    part.before.addAll(steps.before(step));
                }
            }
        }
        steps.takenOff(step.code()).stream()
                .flatMap(c -> Optional.ofNullable(parts.get(c)).stream())
                .filter(p -> p.kind != Kind.SEAL)
                .forEach(p -> p.before.addAll(steps.before(step)));
        parts.values().forEach(p -> p.before.remove(p.code));
    }

    /** An item without a step of its own lies behind the loop where the loop turns it, and is free otherwise. */
    private void withoutSteps(Item item) {
        boolean fluid = item.kind() == ItemKind.COOLANT || item.kind() == ItemKind.OIL;
        if (item.kind().isTheDrive()
                || fluid
                || item.kind() == ItemKind.FASTENER
                || !partsOf(item.code()).isEmpty()) {
            return;
        }
        Part part = add(item.code(), item.name(), kind(item.kind()));
        if (item.drivenByTimingDrive() || item.kind().carriesTheDrive()) {
            part.before.addAll(steps.loops.values());
        }
        partsOf.computeIfAbsent(item.code(), i -> new LinkedHashSet<>()).add(part.code);
    }

    private void mountNobodyNames() {
        if (family.mountInTheWay() && parts.values().stream().noneMatch(p -> p.kind == Kind.MOUNT)) {
            Part mount = add("mount", "Engine mount", Kind.MOUNT);
            loopFronts.add(mount.code);
        }
    }

    /** An accessory belt runs over the crank's pulley, whether the book says so or not. */
    private void accessoryBelt() {
        for (String pulley : all(Kind.PULLEY)) {
            for (String belt : all(Kind.ACCESSORY_DRIVE)) {
                if (!inFrontOf(belt).contains(pulley)) {
                    before(pulley).add(belt);
                }
            }
        }
    }

    private void goesOver() {
        for (String name : family.moveOver()) {
            Set<String> said = Codes.words(name, Set.of());
            parts.values().stream()
                    .filter(p -> p.kind == Kind.TENSIONER || p.kind == Kind.IDLER || p.kind == Kind.PUMP)
                    .max((a, b) -> Integer.compare(
                            Codes.shared(a.words, said) * 2 + (a.kind == Kind.TENSIONER ? 1 : 0),
                            Codes.shared(b.words, said) * 2 + (b.kind == Kind.TENSIONER ? 1 : 0)))
                    .ifPresent(p -> p.moveOver.add(
                            new Assembly.SmallPart(codes.own(p.code + "-small"), name, "as it sat on the old one")));
        }
    }

    // --- which joint holds which

    private void assign(String joint, AccessStep step, List<Part> made) {
        Set<String> held = holds.computeIfAbsent(joint, j -> new LinkedHashSet<>());
        List<Part> could = made.stream()
                .filter(p -> p.kind != Kind.SEAL || made.size() == 1)
                .toList();
        List<Part> named = could;
        if (could.size() > 1 || steps.isLoop(step)) {
            named = byName(joint, could);
        }
        if (named.isEmpty() && steps.isLoop(step)) {
            slackened.add(joint);
        }
        (named.isEmpty() && !steps.isLoop(step) ? could : named).forEach(p -> held.add(p.code));
    }

    private List<Part> byName(String joint, List<Part> could) {
        Set<String> said = family.joint(joint)
                .map(j -> Codes.words(j.name() + " " + j.code(), Set.of("bolt", "nut", "to")))
                .orElse(Set.of());
        int most =
                could.stream().mapToInt(p -> Codes.shared(p.words, said)).max().orElse(0);
        return most == 0
                ? List.of()
                : could.stream()
                        .filter(p -> Codes.shared(p.words, said) == most)
                        .toList();
    }

    // --- what others ask

    /** Codes of the parts that stand for an item. */
    List<String> partsOf(String item) {
        return List.copyOf(partsOf.getOrDefault(item, Set.of()));
    }

    /** Codes of the parts a joint holds. */
    Set<String> held(String joint) {
        return holds.getOrDefault(joint, Set.of());
    }

    /** Joints that the loop's own step opens and that hold no part. */
    Set<String> slackened() {
        return slackened;
    }

    boolean is(String part, Kind kind) {
        return Optional.ofNullable(parts.get(part)).filter(p -> p.kind == kind).isPresent();
    }

    List<String> all(Kind kind) {
        return parts.values().stream()
                .filter(p -> p.kind == kind)
                .map(p -> p.code)
                .toList();
    }

    /** A part that the first book did not name. */
    String extra(String wanted, String name, Kind kind, List<String> before) {
        Part part = add(wanted, name, kind);
        part.before.addAll(before);
        return part.code;
    }

    /** What lies before a loop. */
    List<String> beforeLoop(Item drive) {
        Set<String> before = new LinkedHashSet<>(loopFronts);
        for (String step : steps.own(drive)) {
            family.accessStep(step).ifPresent(s -> before.addAll(steps.before(s)));
        }
        before.removeAll(steps.loops.values());
        return List.copyOf(before);
    }

    /** Codes of all that lies before {@code part}, however far in front. */
    Set<String> inFrontOf(String part) {
        Set<String> all = new LinkedHashSet<>();
        List<String> open = new ArrayList<>(before(part));
        while (!open.isEmpty()) {
            String next = open.remove(open.size() - 1);
            if (all.add(next)) {
                open.addAll(before(next));
            }
        }
        return all;
    }

    private Set<String> before(String part) {
        return Optional.ofNullable(parts.get(part)).map(p -> p.before).orElseGet(LinkedHashSet::new);
    }

    /** True for a part that comes off only once a loop is off. */
    boolean isBehindLoop(String part) {
        return inFrontOf(part).stream().anyMatch(steps.loops.values()::contains);
    }

    /** Puts a part in front of a loop that it does not wait for. */
    void notBehind(String part, Set<String> loops) {
        Optional.ofNullable(parts.get(part)).ifPresent(p -> p.before.removeAll(loops));
    }

    List<String> coversBefore(List<String> codesBefore) {
        return codesBefore.stream()
                .filter(c -> is(c, Kind.COVER) || is(c, Kind.FRONT_COVER) || is(c, Kind.ROCKER_COVER))
                .toList();
    }

    /** What hides the valves: a rocker cover where one is named, else the covers before the loop. */
    List<String> valveCovers(List<String> beforeLoop) {
        List<String> rocker = all(Kind.ROCKER_COVER);
        return rocker.isEmpty() ? coversBefore(beforeLoop) : rocker;
    }

    /** Codes of the fasteners an item sells: of the joints its steps open, those of its name first. */
    List<String> fastenersOf(Item item) {
        Set<String> said = Codes.words(item.name() + " " + item.part().name(), Set.of("bolt", "new"));
        List<knollfield.core.engine.Joint> could = steps.own(item).stream()
                .flatMap(s -> family.accessStep(s).stream())
                .flatMap(s -> s.opens().stream())
                .flatMap(j -> family.joint(j).stream())
                .toList();
        if (could.isEmpty()) {
            could = family.joints();
        }
        List<knollfield.core.engine.Joint> named = could.stream()
                .filter(j -> Codes.shared(Codes.words(j.name() + " " + j.code(), Set.of("bolt")), said) > 0)
                .toList();
        return (named.isEmpty() && !steps.own(item).isEmpty() ? could : named)
                .stream().map(GrownParts::fasteners).toList();
    }

    private static String fasteners(knollfield.core.engine.Joint joint) {
        return joint.oneTimeParts().isEmpty() ? joint.code() : joint.code() + "-new";
    }

    List<Assembly> assemblies() {
        Set<String> letsOilOut = new LinkedHashSet<>();
        if (family.handling().oilLitres() > 0 && family.drive() != Drive.BELT) {
            letsOilOut.addAll(coversBefore(beforeLoop(family.driveItem())));
        }
        return parts.values().stream()
                .map(p -> new Assembly(
                        p.code,
                        p.name,
                        p.kind,
                        List.copyOf(p.before),
                        p.equipment,
                        p.kind == Kind.MOUNT,
                        p.under,
                        p.wet
                                ? List.of(fluids.coolant())
                                : letsOilOut.contains(p.code) ? List.of(fluids.oil()) : List.of(),
                        false,
                        Optional.empty(),
                        p.moveOver,
                        Optional.empty()))
                .toList();
    }
}
