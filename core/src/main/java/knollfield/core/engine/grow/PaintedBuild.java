package knollfield.core.engine.grow;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
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

    private final Build build;
    private final Set<String> pins;
    private final Codes codes;

    private PaintedBuild(Build build, Set<String> pins) {
        this.build = build;
        this.pins = pins;
        this.codes = new Codes(taken(build));
    }

    /** {@code build} timed by own paint; the same where no pin of it finds the timing. */
    public static Build of(Build build) {
        Set<String> pins = build.hardware().stream()
                .filter(Hardware::slidesIn)
                .map(Hardware::code)
                .collect(Collectors.toSet());
        if (pins.isEmpty()) {
            return build;
        }
        return new PaintedBuild(build, pins).painted();
    }

    private Build painted() {
        return build.timedBy(
                hardware(),
                references(),
                build.joints().stream().map(j -> j.withoutPins(pins)).toList(),
                looks());
    }

    /** Codes that may not be used again. */
    private static Set<String> taken(Build build) {
        return Stream.of(
                        build.shafts().stream().map(Shaft::code),
                        build.wheels().stream().map(w -> w.code()),
                        build.loops().stream().map(Loop::code),
                        build.positions().stream().map(p -> p.code()),
                        build.hardware().stream().map(Hardware::code),
                        build.references().stream().map(Reference::code),
                        build.assemblies().stream().map(x -> x.code()),
                        build.joints().stream().map(j -> j.code()),
                        build.openings().stream().map(o -> o.code()),
                        build.fluids().stream().map(f -> f.code()),
                        build.looks().stream().map(Look::code),
                        build.turners().stream().map(t -> t.code()))
                .flatMap(c -> c)
                .collect(Collectors.toSet());
    }

    /** What is left, and a clamp for shafts that would move by themselves and that only a pin held. */
    private List<Hardware> hardware() {
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
                        codes.own("clamp-" + loop.code()),
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

    private List<Reference> references() {
        List<Reference> references = new ArrayList<>(build.references().stream()
                .filter(r -> r.hardware().filter(pins::contains).isEmpty())
                .toList());
        for (Loop loop : build.loops()) {
            for (Shaft shaft : build.shafts()) {
                build.hardware().stream()
                        .filter(h -> pins.contains(h.code())
                                && h.loops().contains(loop.code())
                                && h.holds().contains(shaft.code()))
                        .findFirst()
                        .ifPresent(pin -> references.add(
                                paint(codes.own("paint-" + loop.code() + "-" + shaft.code()), shaft, loop, pin)));
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

    private List<Look> looks() {
        List<Look> looks = new ArrayList<>(build.looks());
        for (Loop loop : build.loops()) {
            boolean counted = looks.stream()
                    .anyMatch(l -> l.kind() == Look.Kind.COUNT
                            && l.loop().filter(loop.code()::equals).isPresent());
            boolean pinned = build.hardware().stream()
                    .anyMatch(h -> pins.contains(h.code()) && h.loops().contains(loop.code()));
            if (pinned && !counted) {
                String what = loop.kind().counted();
                looks.add(new Look(
                        codes.own("count-" + loop.code()),
                        "Between the paint marks, old against new: " + what,
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
