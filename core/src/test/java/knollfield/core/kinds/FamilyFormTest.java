package knollfield.core.kinds;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.core.engine.BookGaps;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.RepairEstimate;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.work.Verb;
import knollfield.core.jobcard.BookProof;
import knollfield.core.jobcard.CardPlan;
import knollfield.core.jobcard.Step;
import knollfield.core.kinds.FamilyForm.JointLine;
import knollfield.core.kinds.FamilyForm.Limits;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** A family written down on one page, begun from a kind or from another family. */
class FamilyFormTest {

    private static final Limits LIMITS = new Limits(OptionalInt.of(95_000), OptionalInt.of(84));

    static Stream<Kind> kinds() {
        return Kinds.all().stream();
    }

    /** A chain that is held and not renewed (e11) is an item without a card; Proof says so. */
    private static List<BookProof.Purpose> purposes(EngineFamily family) {
        return BookProof.of(family).stream()
                .filter(p -> p.items().stream()
                        .noneMatch(i -> family.build().orElseThrow().things(i).isEmpty()))
                .toList();
    }

    @ParameterizedTest
    @MethodSource("kinds")
    void everyPurposeOfAKindIsProvenBeforeASingleFigureIsKnown(Kind kind) {
        for (Set<Extra> extras : offered(kind)) {
            EngineFamily family = answered(kind, extras, f -> f);

            assertThat(purposes(family))
                    .as("%s with %s", kind.code(), extras)
                    .allSatisfy(p -> assertThat(p.breaches()).as(p.name()).isEmpty());
            assertThat(family.joints())
                    .as("no example figure is taken over")
                    .allSatisfy(j -> assertThat(j.torque()).isEmpty());
            assertThat(family.build().orElseThrow().joints().stream()
                            .flatMap(j -> j.stages().stream())
                            .flatMap(s -> s.torque().stream()))
                    .isEmpty();
            assertThat(family.items()).allSatisfy(i -> assertThat(i.schedule()).isEmpty());
            assertThat(family.path()).as("nor its drawing").isEmpty();
            Build build = family.build().orElseThrow();
            assertThat(build.looks()).as("nor a window").noneMatch(Look::hasFigure);
            assertThat(build.hardware()).as("nor play").allMatch(h -> h.playDegrees() == 0);
            assertThat(build.wheels()).as("nor float").allMatch(w -> w.floatDegrees() == 0);
            assertThat(build.loops())
                    .as("nor counts")
                    .allMatch(l -> l.countBetween().isEmpty());
            assertThat(build.turnedBackDegrees()).as("nor leave to turn back").isZero();
            assertThat(build.fluids()).allMatch(x -> x.litres() == 0);
        }
    }

    /** No extra, each by itself, and all of them. */
    private static List<Set<Extra>> offered(Kind kind) {
        Set<Extra> all = EnumSet.noneOf(Extra.class);
        for (Extra e : Extra.values()) {
            if (e.fits(kind.build())) {
                all.add(e);
            }
        }
        List<Set<Extra>> sets = new ArrayList<>(List.of(Set.of(), all));
        all.forEach(e -> sets.add(Set.of(e)));
        return sets;
    }

    @ParameterizedTest
    @MethodSource("kinds")
    void itStaysProvenWithEveryFigureAnsweredAndWithoutWhatIsNotSold(Kind kind) {
        EngineFamily family = answered(
                kind,
                Set.of(),
                f -> new FamilyForm(
                        f.code(),
                        f.name(),
                        Interference.YES,
                        "own book, page 3",
                        f.loops().stream()
                                .map(l -> new FamilyForm.LoopLine(l.code(), l.name(), l.counted(), OptionalInt.of(119)))
                                .toList(),
                        f.items().stream()
                                .map(i -> new FamilyForm.ItemLine(
                                        i.code(),
                                        i.name(),
                                        i.kind(),
                                        i.kind() != ItemKind.AUXILIARY_BELT,
                                        "W-" + i.code(),
                                        OptionalLong.of(4_200),
                                        LIMITS,
                                        Limits.NONE))
                                .toList(),
                        f.steps(),
                        f.joints().stream()
                                .map(j -> new JointLine(
                                        j.code(),
                                        j.name(),
                                        j.bolts(),
                                        OptionalDouble.of(33),
                                        OptionalInt.of(45),
                                        true,
                                        false))
                                .toList(),
                        f.fluids().stream()
                                .map(x -> new FamilyForm.FluidLine(x.code(), x.name(), OptionalDouble.of(5.5)))
                                .toList(),
                        f.looks().stream()
                                .map(k -> new FamilyForm.LookLine(
                                        k.code(),
                                        k.name(),
                                        k.window(),
                                        k.unit(),
                                        OptionalDouble.of(11),
                                        OptionalDouble.of(12)))
                                .toList(),
                        f.positions().stream()
                                .map(p -> new FamilyForm.PositionLine(
                                        p.code(),
                                        p.name(),
                                        OptionalInt.of(100 + 200 * f.positions().indexOf(p))))
                                .toList(),
                        Optional.of(new RepairEstimate(100, 200, 300))));

        assertThat(purposes(family))
                .allSatisfy(p -> assertThat(p.breaches()).as(p.name()).isEmpty());
        assertThat(BookGaps.of(family))
                .singleElement()
                .satisfies(g -> assertThat(g.what()).isEqualTo("Drawing"));
        assertThat(family.items()).noneMatch(i -> i.kind() == ItemKind.AUXILIARY_BELT);
        assertThat(family.driveItem().schedule().orElseThrow().normal().km()).hasValue(95_000);
        assertThat(family.driveItem().schedule().orElseThrow().origin()).isEqualTo("own book, page 3");
        assertThat(family.build().orElseThrow().loops())
                .allSatisfy(l -> assertThat(l.teeth()).isEqualTo(119));
        assertThat(family.build().orElseThrow().looks())
                .filteredOn(Look::hasFigure)
                .allSatisfy(k -> assertThat(k.low()).contains(11.0));
        assertThat(family.build().orElseThrow().looks().stream()
                        .filter(Look::hasFigure)
                        .count())
                .as("every figure the kind judges by is asked for")
                .isEqualTo(kind.build().looks().stream().filter(Look::hasFigure).count());
        if (kind.build().positions().size() > 1) {
            assertThat(family.build().orElseThrow().positions().stream().map(p -> p.degrees()))
                    .containsExactly(100, 300);
        }
        assertThat(family.build().orElseThrow().joints()).allSatisfy(j -> {
            assertThat(j.stages().stream().flatMap(s -> s.torque().stream()))
                    .singleElement()
                    .satisfies(t -> assertThat(t.newtonMetres()).isEqualTo(33));
            Joint.Stage last = j.stages().get(j.stages().size() - 1);
            assertThat(last.angleDegrees()).hasValue(45);
        });
    }

    @Test
    void gapsSayWhatEachBlocks() {
        EngineFamily family = answered(Kinds.kind("e01").orElseThrow(), Set.of(Extra.WATER_PUMP), f -> f);

        assertThat(BookGaps.of(family).stream().map(BookGaps.Gap::what))
                .anySatisfy(w -> assertThat(w).isEqualTo("Limits of timing belt"))
                .anySatisfy(w -> assertThat(w).startsWith("Torque of ").contains("tensioner nut"))
                .anySatisfy(w -> assertThat(w).isEqualTo("Quantity of coolant"))
                .anySatisfy(w -> assertThat(w).startsWith("Price of timing belt"))
                .anySatisfy(w -> assertThat(w).isEqualTo("Interference"));
    }

    @Test
    void aFamilyBegunFromAnotherKeepsItsFiguresAndChangesWhatIsAnswered() {
        EngineFamily known = answered(Kinds.kind("e12").orElseThrow(), Set.of(), f -> with(f, "pump", 12.0));
        FamilyForm.Base base = FamilyForm.copyOf(known);
        FamilyForm form = FamilyForm.of(base);
        FamilyForm answers = with(
                new FamilyForm(
                        "Q-2",
                        "Second",
                        Interference.NO,
                        "",
                        form.loops(),
                        form.items(),
                        form.steps(),
                        form.joints(),
                        form.fluids(),
                        form.looks(),
                        form.positions(),
                        form.repair()),
                "mount",
                70.0);

        EngineFamily second = answers.onto(base);

        assertThat(second.code()).isEqualTo("Q-2");
        assertThat(second.interference()).isEqualTo(Interference.NO);
        assertThat(second.joint("pump")).isEqualTo(known.joint("pump"));
        assertThat(second.joint("mount")
                        .orElseThrow()
                        .torque()
                        .orElseThrow()
                        .torque()
                        .newtonMetres())
                .isEqualTo(70);
        assertThat(second.build().orElseThrow().assemblies())
                .isEqualTo(known.build().orElseThrow().assemblies());
        assertThat(second.items().stream().map(i -> i.code()).collect(Collectors.toSet()))
                .isEqualTo(known.items().stream().map(i -> i.code()).collect(Collectors.toSet()));
    }

    private static FamilyForm with(FamilyForm f, String joint, double newtonMetres) {
        return new FamilyForm(
                f.code(),
                f.name(),
                f.interference(),
                f.origin(),
                f.loops(),
                f.items(),
                f.steps(),
                f.joints().stream()
                        .map(j -> j.code().equals(joint)
                                ? new JointLine(
                                        j.code(),
                                        j.name(),
                                        j.bolts(),
                                        OptionalDouble.of(newtonMetres),
                                        j.angleDegrees(),
                                        j.critical(),
                                        j.oneTime())
                                : j)
                        .toList(),
                f.fluids(),
                f.looks(),
                f.positions(),
                f.repair());
    }

    private static EngineFamily answered(Kind kind, Set<Extra> extras, UnaryOperator<FamilyForm> answers) {
        FamilyForm.Base base = FamilyForm.like(kind, extras);
        FamilyForm shown = FamilyForm.of(base);
        return answers.apply(new FamilyForm(
                        "Q-1",
                        "Workshop's own",
                        shown.interference(),
                        shown.origin(),
                        shown.loops(),
                        shown.items(),
                        shown.steps(),
                        shown.joints(),
                        shown.fluids(),
                        shown.looks(),
                        shown.positions(),
                        shown.repair()))
                .onto(base);
    }

    @ParameterizedTest
    @MethodSource("kinds")
    void whatIsDoneUpByFeelIsNotedInATouchAndNothingElse(Kind kind) {
        EngineFamily family = answered(kind, Set.of(), f -> f);
        for (BookProof.Purpose purpose : purposes(family)) {
            CardPlan plan = purpose.card().orElseThrow();
            List<Step> felt = plan.steps().stream()
                    .filter(s -> s.title().startsWith("By feel, noted: "))
                    .toList();
            String named = felt.stream().map(Step::title).collect(Collectors.joining(", ")) + ",";
            for (Joint j : family.build().orElseThrow().joints()) {
                boolean last = plan.steps().stream()
                        .flatMap(s -> s.operations().stream())
                        .anyMatch(o -> o.verb() == Verb.TIGHTEN
                                && o.thing().equals(j.code())
                                && o.stage() == j.stages().size());
                boolean byFeel = last
                        && !j.critical()
                        && j.stages().get(j.stages().size() - 1).torque().isEmpty()
                        && j.stages().get(j.stages().size() - 1).angleDegrees().isEmpty();
                String name = j.name().substring(0, 1).toLowerCase(java.util.Locale.ROOT)
                        + j.name().substring(1);
                assertThat(named.contains(" " + name + ","))
                        .as("%s, %s: %s in %s", kind.code(), purpose.name(), j.name(), named)
                        .isEqualTo(byFeel);
            }
            assertThat(felt).allSatisfy(s -> assertThat(s.isOfJoints()).isTrue());
        }
    }
}
