package knollfield.core.engine.build;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.engine.BookFault;

/** What forbids a build, each fault with its pointer into it. */
final class BuildChecks {

    private final List<BookFault> faults = new ArrayList<>();
    /** Kind of thing by code. */
    private final Map<String, String> kinds = new HashMap<>();

    private BuildChecks() {}

    static List<BookFault> faults(
            List<Shaft> shafts,
            List<Wheel> wheels,
            List<Loop> loops,
            List<Position> positions,
            List<Hardware> hardware,
            List<Reference> references,
            List<Assembly> assemblies,
            List<Joint> joints,
            List<Opening> openings,
            List<Fluid> fluids,
            List<Look> looks,
            List<Turner> turners,
            List<Build.Renews> renews,
            List<Caution> cautions) {
        BuildChecks checks = new BuildChecks();
        checks.know("shafts", shafts.stream().map(Shaft::code).toList());
        checks.know("loops", loops.stream().map(Loop::code).toList());
        checks.know("positions", positions.stream().map(Position::code).toList(), "loops");
        checks.know("hardware", hardware.stream().map(Hardware::code).toList());
        checks.know("assemblies", assemblies.stream().map(Assembly::code).toList());
        checks.know("openings", openings.stream().map(Opening::code).toList());
        checks.know("fluids", fluids.stream().map(Fluid::code).toList());
        checks.know("looks", looks.stream().map(Look::code).toList());
        // a wheel that comes off is an assembly too, a joint bears its part's name, a pin is its own reference
        checks.know("wheels", wheels.stream().map(Wheel::code).toList(), "assemblies");
        checks.know("joints", joints.stream().map(Joint::code).toList(), "assemblies", "wheels", "shafts");
        checks.know("references", references.stream().map(Reference::code).toList(), "hardware", "positions");
        checks.know("turners", turners.stream().map(Turner::code).toList(), "assemblies", "joints", "wheels", "shafts");
        Set<String> parts =
                codes(assemblies.stream().map(Assembly::code), loops.stream().map(Loop::code));
        Set<String> positionCodes = codes(positions.stream().map(Position::code));
        Set<String> shaftCodes = codes(shafts.stream().map(Shaft::code));
        Set<String> wheelCodes = codes(wheels.stream().map(Wheel::code));
        Set<String> jointCodes = codes(joints.stream().map(Joint::code));
        Set<String> hardwareCodes = codes(hardware.stream().map(Hardware::code));
        Set<String> loopCodes = codes(loops.stream().map(Loop::code));
        Set<String> assemblyCodes = codes(assemblies.stream().map(Assembly::code));
        Set<String> fluidCodes = codes(fluids.stream().map(Fluid::code));
        if (shafts.stream().filter(s -> s.role() == Shaft.Role.CRANK).count() != 1) {
            checks.fault("/shafts", "an engine has exactly one crank");
        }
        if (loops.isEmpty() || loops.size() > 6) {
            checks.fault("/loops", "an engine has one to six loops, not %d".formatted(loops.size()));
        }
        for (int i = 0; i < shafts.size(); i++) {
            checks.known("/shafts/%d/freeAt".formatted(i), shafts.get(i).freeAt(), positionCodes, "position");
        }
        for (int i = 0; i < wheels.size(); i++) {
            Wheel w = wheels.get(i);
            checks.known("/wheels/%d/shaft".formatted(i), List.of(w.shaft()), shaftCodes, "shaft");
            checks.known("/wheels/%d/joint".formatted(i), list(w.joint()), jointCodes, "joint");
            if (w.fit() != Wheel.Fit.KEYED && w.joint().isEmpty()) {
                checks.fault(
                        "/wheels/%d/joint".formatted(i),
                        "wheel %s is not keyed; the joint that makes it fast is missing".formatted(w.name()));
            }
        }
        for (int i = 0; i < loops.size(); i++) {
            Loop l = loops.get(i);
            String at = "/loops/" + i;
            checks.known(at + "/before", l.before(), parts, "part or loop");
            checks.known(at + "/position", List.of(l.position()), positionCodes, "position");
            checks.known(at + "/shafts", l.shafts(), shaftCodes, "shaft");
            Set<String> runs = new HashSet<>(wheelCodes);
            runs.addAll(assemblyCodes);
            checks.known(at + "/wheels", l.wheels(), runs, "wheel or part");
            checks.known(at + "/slackenFirst", l.slackenFirst(), jointCodes, "joint");
            checks.known(at + "/windows", l.windows(), codes(looks.stream().map(Look::code)), "look");
            checks.known(
                    at + "/tensioner/part",
                    l.tensioner().map(t -> List.of(t.part())).orElse(List.of()),
                    assemblyCodes,
                    "part");
            checks.known(
                    at + "/tensioner/pin",
                    l.tensioner().flatMap(Loop.Tensioner::pin).map(List::of).orElse(List.of()),
                    hardwareCodes,
                    "pin");
            if (l.tensioner()
                    .filter(t -> t.letGo() == Loop.LetGo.PIN_PULLED && t.pin().isEmpty())
                    .isPresent()) {
                checks.fault(at + "/tensioner/pin", "a tensioner let go by its pin needs that pin in the register");
            }
        }
        for (int i = 0; i < hardware.size(); i++) {
            Hardware h = hardware.get(i);
            String at = "/hardware/" + i;
            checks.known(at + "/loops", h.loops(), loopCodes, "loop");
            checks.known(at + "/off", h.off(), assemblyCodes, "part");
            checks.known(at + "/position", list(h.position()), positionCodes, "position");
            Set<String> held = new HashSet<>(shaftCodes);
            held.addAll(wheelCodes);
            held.addAll(assemblyCodes);
            held.addAll(loopCodes);
            checks.known(at + "/holds", h.holds(), held, "shaft, wheel or part");
        }
        for (int i = 0; i < references.size(); i++) {
            Reference r = references.get(i);
            String at = "/references/" + i;
            checks.known(at + "/loops", r.loops(), loopCodes, "loop");
            checks.known(at + "/position", List.of(r.position()), positionCodes, "position");
            checks.known(at + "/off", r.off(), assemblyCodes, "part");
            checks.known(at + "/on", r.on(), assemblyCodes, "part");
            checks.known(at + "/hardware", list(r.hardware()), hardwareCodes, "pin");
        }
        for (int i = 0; i < assemblies.size(); i++) {
            Assembly a = assemblies.get(i);
            checks.known("/assemblies/%d/before".formatted(i), a.before(), parts, "part or loop");
            checks.known("/assemblies/%d/letsOut".formatted(i), a.letsOut(), fluidCodes, "fluid");
            for (int k = 0; k < a.moveOver().size(); k++) {
                checks.known(
                        "/assemblies/%d/moveOver/%d/goesOnWith".formatted(i, k),
                        list(a.moveOver().get(k).goesOnWith()),
                        assemblyCodes,
                        "part");
            }
        }
        for (int i = 0; i < joints.size(); i++) {
            Joint j = joints.get(i);
            String at = "/joints/" + i;
            Set<String> held = new HashSet<>(assemblyCodes);
            held.addAll(wheelCodes);
            checks.known(at + "/holds", j.holds(), held, "part or wheel");
            checks.known(at + "/holders", j.holders(), hardwareCodes, "hardware");
            checks.known(at + "/pinned", j.pinned(), hardwareCodes, "hardware");
            checks.known(at + "/reachedPast", j.reachedPast(), parts, "part or loop");
            checks.known(at + "/hiddenBy", j.hiddenBy(), parts, "part or loop");
            checks.known(at + "/loop", list(j.loop()), loopCodes, "loop");
            for (int k = 0; k < j.stages().size(); k++) {
                Joint.Stage s = j.stages().get(k);
                checks.known(at + "/stages/%d/tightFirst".formatted(k), s.tightFirst(), jointCodes, "joint");
                if (s.until().compareTo(s.from()) < 0) {
                    checks.fault(
                            at + "/stages/%d/until".formatted(k),
                            "joint %s, stage %d: it is to be done after %s and before %s"
                                    .formatted(
                                            j.name(),
                                            k + 1,
                                            s.from().name().toLowerCase(java.util.Locale.ROOT),
                                            s.until().name().toLowerCase(java.util.Locale.ROOT)));
                }
            }
        }
        for (int i = 0; i < openings.size(); i++) {
            checks.known(
                    "/openings/%d/openedBy".formatted(i),
                    List.of(openings.get(i).openedBy()),
                    assemblyCodes,
                    "part");
        }
        for (int i = 0; i < looks.size(); i++) {
            Look l = looks.get(i);
            checks.known("/looks/%d/loop".formatted(i), list(l.loop()), loopCodes, "loop");
            checks.known("/looks/%d/off".formatted(i), l.off(), assemblyCodes, "part");
            checks.known("/looks/%d/on".formatted(i), l.on(), assemblyCodes, "part");
        }
        Set<String> turnable = new HashSet<>(assemblyCodes);
        turnable.addAll(jointCodes);
        for (int i = 0; i < turners.size(); i++) {
            checks.known("/turners/%d/thing".formatted(i), list(turners.get(i).thing()), turnable, "part or joint");
        }
        if (turners.isEmpty()) {
            checks.fault("/turners", "the book does not say what the crank is turned by");
        }
        Set<String> renewable = new HashSet<>(turnable);
        renewable.addAll(loopCodes);
        renewable.addAll(fluidCodes);
        joints.forEach(j -> j.fasteners().ifPresent(renewable::add));
        for (int i = 0; i < renews.size(); i++) {
            checks.known(
                    "/renews/%d/things".formatted(i), renews.get(i).things(), renewable, "loop, part, joint or fluid");
        }
        for (int i = 0; i < cautions.size(); i++) {
            if (!checks.kinds.containsKey(cautions.get(i).thing())) {
                checks.fault(
                        "/cautions/%d/thing".formatted(i),
                        "there is no %s".formatted(cautions.get(i).thing()));
            }
        }
        checks.noCircle(loops, assemblies);
        return checks.faults;
    }

    private void know(String list, List<String> codes, String... mayShareWith) {
        Set<String> own = new HashSet<>();
        for (int i = 0; i < codes.size(); i++) {
            String code = codes.get(i);
            String other = kinds.get(code);
            if (!own.add(code) || (other != null && !List.of(mayShareWith).contains(other))) {
                fault("/%s/%d/code".formatted(list, i), "the code %s is used twice".formatted(code));
            }
            kinds.putIfAbsent(code, list);
        }
    }

    private void known(String at, Collection<String> named, Set<String> there, String what) {
        for (String code : named) {
            if (!there.contains(code)) {
                fault(at, "there is no %s %s".formatted(what, code));
            }
        }
    }

    /** What lies before what must not run in a circle. */
    private void noCircle(List<Loop> loops, List<Assembly> assemblies) {
        Map<String, List<String>> before = new LinkedHashMap<>();
        Map<String, String> places = new HashMap<>();
        for (int i = 0; i < loops.size(); i++) {
            before.put(loops.get(i).code(), loops.get(i).before());
            places.put(loops.get(i).code(), "/loops/%d/before".formatted(i));
        }
        for (int i = 0; i < assemblies.size(); i++) {
            before.put(assemblies.get(i).code(), assemblies.get(i).before());
            places.put(assemblies.get(i).code(), "/assemblies/%d/before".formatted(i));
        }
        for (String start : before.keySet()) {
            Deque<String> open = new ArrayDeque<>(before.getOrDefault(start, List.of()));
            Set<String> seen = new LinkedHashSet<>();
            while (!open.isEmpty()) {
                String next = open.pop();
                if (next.equals(start)) {
                    fault(
                            places.getOrDefault(start, ""),
                            "%s lies before itself, by way of %s".formatted(start, String.join(", ", seen)));
                    return;
                }
                if (seen.add(next)) {
                    open.addAll(before.getOrDefault(next, List.of()));
                }
            }
        }
    }

    private void fault(String at, String words) {
        faults.add(new BookFault(at, words));
    }

    private static List<String> list(Optional<String> code) {
        return code.map(List::of).orElse(List.of());
    }

    @SafeVarargs
    private static Set<String> codes(Stream<String>... streams) {
        Set<String> all = new HashSet<>();
        for (Stream<String> s : streams) {
            s.forEach(all::add);
        }
        return all;
    }
}
