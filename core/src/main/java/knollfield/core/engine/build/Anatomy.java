package knollfield.core.engine.build;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/**
 * A build as it stands on one vehicle, looked up by code: what its equipment has not got is not there.
 */
public final class Anatomy {

    private final Build build;
    private final Map<String, Shaft> shafts;
    private final Map<String, Wheel> wheels;
    private final Map<String, Loop> loops;
    private final Map<String, Position> positions;
    private final Map<String, Hardware> hardware;
    private final Map<String, Reference> references;
    private final Map<String, Assembly> assemblies;
    private final Map<String, Joint> joints;
    private final Map<String, Opening> openings;
    private final Map<String, Fluid> fluids;
    private final Map<String, Look> looks;
    private final Map<String, Turner> turners;
    private final Map<String, Set<String>> inFront = new HashMap<>();
    private final Map<String, List<Joint>> jointsOf = new HashMap<>();
    private final Map<String, Set<String>> hiders = new HashMap<>();

    /** @param equipment what the vehicle has */
    public Anatomy(Build build, Collection<String> equipment) {
        this.build = build;
        this.shafts = byCode(build.shafts(), Shaft::code);
        this.wheels = byCode(build.wheels(), Wheel::code);
        this.loops = byCode(build.loops(), Loop::code);
        this.positions = byCode(build.positions(), Position::code);
        this.hardware = byCode(build.hardware(), Hardware::code);
        this.references = byCode(build.references(), Reference::code);
        this.assemblies = byCode(
                build.assemblies().stream()
                        .filter(a -> a.equipment().map(equipment::contains).orElse(true))
                        .toList(),
                Assembly::code);
        this.joints = byCode(
                build.joints().stream()
                        .filter(j -> j.holds().isEmpty()
                                || j.holds().stream().anyMatch(h -> assemblies.containsKey(h) || wheels.containsKey(h)))
                        .toList(),
                Joint::code);
        this.openings = byCode(build.openings(), Opening::code);
        this.fluids = byCode(build.fluids(), Fluid::code);
        this.looks = byCode(build.looks(), Look::code);
        this.turners = byCode(build.turners(), Turner::code);
        for (Joint j : joints.values()) {
            for (String held : j.holds()) {
                jointsOf.computeIfAbsent(held, h -> new ArrayList<>()).add(j);
            }
        }
        loops.keySet().forEach(this::collectInFront);
        assemblies.keySet().forEach(this::collectInFront);
        joints.values().forEach(j -> hiders.put(j.code(), hidersOf(j)));
    }

    /** A build on a vehicle with nothing special. */
    public Anatomy(Build build) {
        this(
                build,
                build.assemblies().stream().flatMap(a -> a.equipment().stream()).toList());
    }

    public Build build() {
        return build;
    }

    public Optional<Shaft> shaft(String code) {
        return Optional.ofNullable(shafts.get(code));
    }

    public Optional<Wheel> wheel(String code) {
        return Optional.ofNullable(wheels.get(code));
    }

    public Optional<Loop> loop(String code) {
        return Optional.ofNullable(loops.get(code));
    }

    public Optional<Position> position(String code) {
        return Optional.ofNullable(positions.get(code));
    }

    public Optional<Hardware> hardware(String code) {
        return Optional.ofNullable(hardware.get(code));
    }

    public Optional<Reference> reference(String code) {
        return Optional.ofNullable(references.get(code));
    }

    /** Where what falls into the engine is found: its sumps. */
    public List<Assembly> catchesPieces() {
        return assemblies().stream().filter(a -> a.kind() == Assembly.Kind.SUMP).toList();
    }

    public Optional<Assembly> assembly(String code) {
        return Optional.ofNullable(assemblies.get(code));
    }

    public Optional<Joint> joint(String code) {
        return Optional.ofNullable(joints.get(code));
    }

    public Optional<Opening> opening(String code) {
        return Optional.ofNullable(openings.get(code));
    }

    public Optional<Fluid> fluid(String code) {
        return Optional.ofNullable(fluids.get(code));
    }

    public Optional<Look> look(String code) {
        return Optional.ofNullable(looks.get(code));
    }

    public Optional<Turner> turner(String code) {
        return Optional.ofNullable(turners.get(code));
    }

    public Collection<Loop> loops() {
        return loops.values();
    }

    public Collection<Wheel> wheels() {
        return wheels.values();
    }

    public Collection<Assembly> assemblies() {
        return assemblies.values();
    }

    public Collection<Joint> joints() {
        return joints.values();
    }

    public Collection<Hardware> hardware() {
        return hardware.values();
    }

    public Collection<Reference> references() {
        return references.values();
    }

    public Collection<Opening> openings() {
        return openings.values();
    }

    public Collection<Fluid> fluids() {
        return fluids.values();
    }

    public Collection<Look> looks() {
        return looks.values();
    }

    public Collection<Turner> turners() {
        return turners.values();
    }

    /** Joints that hold an assembly or a wheel, in the book's order. */
    public List<Joint> jointsOf(String held) {
        return jointsOf.getOrDefault(held, List.of());
    }

    /** Codes of what lies directly before a loop or an assembly, and is there. */
    public List<String> before(String thing) {
        List<String> named = loops.containsKey(thing)
                ? loops.get(thing).before()
                : Optional.ofNullable(assemblies.get(thing))
                        .map(Assembly::before)
                        .orElse(List.of());
        return named.stream()
                .filter(c -> loops.containsKey(c) || assemblies.containsKey(c))
                .toList();
    }

    /** Codes of all that lies before a loop or an assembly, however far in front. */
    public Set<String> inFrontOf(String thing) {
        return inFront.getOrDefault(thing, Set.of());
    }

    /** Codes of what hides the bolts of {@code joint} while it is on. */
    public Set<String> hiders(String joint) {
        return hiders.getOrDefault(joint, Set.of());
    }

    /** Joints that {@code thing} hides while it is on. */
    public List<Joint> hiddenBehind(String thing) {
        return joints.values().stream()
                .filter(j -> hiders(j.code()).contains(thing))
                .toList();
    }

    /** The loop that runs over a wheel or part. */
    public Optional<Loop> loopOver(String wheelOrPart) {
        return loops.values().stream()
                .filter(l -> l.wheels().contains(wheelOrPart)
                        || l.tensioner()
                                .filter(t -> t.part().equals(wheelOrPart))
                                .isPresent())
                .findFirst();
    }

    /** The wheel that {@code joint} makes fast, where it makes one fast that is not keyed. */
    public List<Wheel> madeFastBy(String joint) {
        return wheels.values().stream()
                .filter(w -> w.fit() != Wheel.Fit.KEYED
                        && w.joint().filter(joint::equals).isPresent())
                .toList();
    }

    private Set<String> hidersOf(Joint joint) {
        Set<String> all = new LinkedHashSet<>();
        for (String held : joint.holds()) {
            for (String front : inFrontOf(held)) {
                Assembly a = assemblies.get(front);
                if (a != null && a.kind().hides() && !joint.holds().contains(front)) {
                    all.add(front);
                }
            }
        }
        joint.hiddenBy().stream()
                .filter(h -> loops.containsKey(h) || assemblies.containsKey(h))
                .forEach(all::add);
        // what is reached past a part is reached past all that lies before that part too
        joint.reachedPast().forEach(past -> {
            all.remove(past);
            all.removeAll(inFrontOf(past));
        });
        return all;
    }

    private Set<String> collectInFront(String thing) {
        Set<String> known = inFront.get(thing);
        if (known != null) {
            return known;
        }
        Set<String> all = new LinkedHashSet<>();
        Deque<String> open = new ArrayDeque<>(namedBefore(thing));
        while (!open.isEmpty()) {
            String next = open.poll();
            if (!next.equals(thing) && all.add(next)) {
                open.addAll(namedBefore(next));
            }
        }
        // what this vehicle has not got hides nothing, but what lies before it still does
        all.removeIf(c -> !loops.containsKey(c) && !assemblies.containsKey(c));
        inFront.put(thing, all);
        return all;
    }

    private List<String> namedBefore(String thing) {
        Loop loop = loops.get(thing);
        if (loop != null) {
            return loop.before();
        }
        return build.assemblies().stream()
                .filter(a -> a.code().equals(thing))
                .findFirst()
                .map(Assembly::before)
                .orElse(List.of());
    }

    private static <T> Map<String, T> byCode(List<T> all, Function<T, String> code) {
        Map<String, T> map = new LinkedHashMap<>();
        all.forEach(t -> map.put(code.apply(t), t));
        return map;
    }
}
