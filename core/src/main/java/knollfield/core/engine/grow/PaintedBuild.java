package knollfield.core.engine.grow;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Shaft;

/**
 * The book of an engine whose timing pins are not at hand: own paint on each timed shaft proves in their place, and the
 * teeth between the marks are counted, old against new. What holds a shaft that would spring is needed all the same.
 */
public final class PaintedBuild {

    private PaintedBuild() {}

    /** {@code build} timed by own paint; the same where no pin of it finds the timing. */
    public static Build of(Build build) {
        Set<String> pins = build.hardware().stream()
                .filter(Hardware::slidesIn)
                .map(Hardware::code)
                .collect(Collectors.toSet());
        if (pins.isEmpty()) {
            return build;
        }
        return build.timedBy(
                hardware(build, pins),
                references(build, pins),
                build.joints().stream().map(j -> j.withoutPins(pins)).toList(),
                looks(build, pins));
    }

    /** What is left, and a clamp for shafts that would move by themselves and that only a pin held. */
    private static List<Hardware> hardware(Build build, Set<String> pins) {
        List<Hardware> left = new ArrayList<>(
                build.hardware().stream().filter(h -> !pins.contains(h.code())).toList());
        for (Loop loop : build.loops()) {
            List<String> loose = build.shafts().stream()
                    .filter(s -> s.whenFree() != Shaft.WhenFree.STAYS
                            && loop.shafts().contains(s.code()))
                    .map(Shaft::code)
                    .filter(s -> left.stream()
                            .noneMatch(h ->
                                    h.loops().contains(loop.code()) && h.holds().contains(s)))
                    .toList();
            if (!loose.isEmpty()) {
                left.add(new Hardware(
                        "clamp-" + loop.code(),
                        "Clamp or wrench that holds the shafts",
                        Hardware.Kind.CLAMP,
                        List.of(loop.code()),
                        loose,
                        Optional.empty(),
                        false,
                        List.of(),
                        Hardware.InBefore.TENSION_OFF,
                        false,
                        false,
                        0));
            }
        }
        return left;
    }

    private static List<Reference> references(Build build, Set<String> pins) {
        List<Reference> references = new ArrayList<>(build.references().stream()
                .filter(r -> r.hardware().filter(pins::contains).isEmpty())
                .toList());
        for (Hardware pin : build.hardware()) {
            if (!pins.contains(pin.code())) {
                continue;
            }
            for (Loop loop : build.loops()) {
                if (!pin.loops().contains(loop.code())) {
                    continue;
                }
                for (Shaft shaft : build.shafts()) {
                    String code = "paint-" + loop.code() + "-" + shaft.code();
                    boolean there = references.stream().anyMatch(r -> r.code().equals(code));
                    if (!there && pin.holds().contains(shaft.code())) {
                        references.add(paint(code, shaft, loop, pin));
                    }
                }
            }
        }
        return references;
    }

    private static Reference paint(String code, Shaft shaft, Loop loop, Hardware pin) {
        return new Reference(
                code,
                "Own paint, %s to casing".formatted(shaft.name().toLowerCase(java.util.Locale.ROOT)),
                List.of(loop.code()),
                "",
                pin.position().orElse(loop.position()),
                List.of(),
                List.of(),
                true,
                pin.expectedBack() ? Reference.Trust.BEFORE_AND_AFTER : Reference.Trust.BEFORE,
                0,
                Optional.empty());
    }

    private static List<Look> looks(Build build, Set<String> pins) {
        List<Look> looks = new ArrayList<>(build.looks());
        for (Loop loop : build.loops()) {
            boolean counted = looks.stream()
                    .anyMatch(l -> l.kind() == Look.Kind.COUNT
                            && l.loop().filter(loop.code()::equals).isPresent());
            boolean pinned = build.hardware().stream()
                    .anyMatch(h -> pins.contains(h.code()) && h.loops().contains(loop.code()));
            if (pinned && !counted) {
                String what = loop.kind().isBelt() ? "teeth" : "links";
                looks.add(new Look(
                        "count-" + loop.code(),
                        "%s between the paint marks, old against new"
                                .formatted(loop.kind().isBelt() ? "Teeth" : "Links"),
                        Look.Kind.COUNT,
                        Optional.of(loop.code()),
                        List.of(),
                        List.of(),
                        Optional.empty(),
                        Optional.empty(),
                        what));
            }
        }
        return looks;
    }
}
