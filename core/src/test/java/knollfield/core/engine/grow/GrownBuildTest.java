package knollfield.core.engine.grow;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import knollfield.core.Families;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.BookFault;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Handling;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.ReferenceMethod;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Wheel;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;
import knollfield.core.jobcard.CardBasis;
import knollfield.core.jobcard.CardGenerator;
import knollfield.core.jobcard.CardNotProven;
import knollfield.core.jobcard.CardPlan;
import knollfield.core.jobcard.CardScope;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Books of schema version 1 as books that say how the engine is built; their cards are worked out and proven. */
class GrownBuildTest {

    /** Common practice, no source: these are tight before they are let go; the others are set and then made tight. */
    private static final Set<TensionerKind> LETS_GO =
            Set.of(TensionerKind.SPRING_PIN, TensionerKind.HYDRAULIC_PIN, TensionerKind.CHAIN_RATCHET);

    /** The book with some of its steps needing others first, as far as that does not run in a circle. */
    private static EngineFamily tangled(EngineFamily f, Random random) {
        EngineFamily tangled = f;
        for (int i = 0; i < 3; i++) {
            String one =
                    f.accessSteps().get(random.nextInt(f.accessSteps().size())).code();
            String other =
                    f.accessSteps().get(random.nextInt(f.accessSteps().size())).code();
            try {
                tangled = requiring(tangled, x -> x, s -> s.code().equals(one) ? needing(s, other) : s);
            } catch (BookFault.Broken circle) {
                continue;
            }
        }
        return tangled;
    }

    private static AccessStep needing(AccessStep s, String other) {
        List<String> requires = new ArrayList<>(s.requires());
        requires.add(other);
        return new AccessStep(
                s.code(),
                s.title(),
                s.minutes(),
                requires.stream().distinct().toList(),
                s.equipment(),
                s.opens(),
                s.helperMinutes());
    }

    private static EngineFamily requiring(EngineFamily f, UnaryOperator<Item> item, UnaryOperator<AccessStep> step) {
        return new EngineFamily(
                f.code(),
                f.name(),
                f.drive(),
                f.interference(),
                f.crankFit(),
                f.reference(),
                f.pins(),
                f.tensioner(),
                f.pinOutBeforeTurns(),
                f.mountInTheWay(),
                f.moveOver(),
                f.blankingPlugs(),
                f.coolantLitres(),
                f.path().orElseThrow(),
                f.items().stream().map(item).toList(),
                f.accessSteps().stream().map(step).toList(),
                f.joints(),
                f.repair(),
                f.cautions(),
                f.handling(),
                f.variants(),
                f.tools(),
                f.kits());
    }

    static Stream<Integer> seeds() {
        return IntStream.range(0, 400).boxed();
    }

    /** Nobody wrote these books for it: whatever they say, a card is proven or the law that fails is named. */
    @ParameterizedTest
    @MethodSource("seeds")
    void aBookOfVersionOneGivesAProvenCard(int seed) {
        Random random = new Random(seed);
        EngineFamily family = RandomBooks.any(random);
        Set<String> items = RandomBooks.someItems(family, random);

        CardPlan card = CardGenerator.generate(new CardBasis(
                family,
                random.nextBoolean() ? Set.of("air conditioning") : Set.of(),
                Set.of(),
                CardScope.of(items).paint(random.nextInt(5) == 0)));

        assertThat(card.layout()).isEqualTo(CardPlan.Layout.ROUTED);
        assertThat(card.step("start:engine")).isPresent();
    }

    /** Steps may need each other in ways nobody foresaw: then a law or the book is named, and the book is still read. */
    @ParameterizedTest
    @MethodSource("seeds")
    void aTangledBookIsReadAndGivesAProvenCardOrNamesWhatForbidsIt(int seed) {
        Random random = new Random(seed);
        EngineFamily family =
                tangled(random.nextBoolean() ? RandomBooks.chain(random) : RandomBooks.belt(random), random);
        assertThat(GrownBuild.grown(family).items()).isEqualTo(family.items());
        CardBasis basis =
                new CardBasis(family, Set.of(), Set.of(), CardScope.of(RandomBooks.someItems(family, random)));
        try {
            assertThat(CardGenerator.generate(basis).step("start:engine")).isPresent();
        } catch (CardNotProven e) {
            assertThat(e.breaches()).isNotEmpty();
        }
    }

    @Test
    void growsTheSameBuildEachTime() {
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true);

        assertThat(GrownBuild.of(family)).isEqualTo(GrownBuild.of(family));
    }

    @Test
    void keepsWhatVersionOneSaidAndOnlyAddsHowItIsBuilt() {
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true);
        EngineFamily grown = GrownBuild.grown(family);

        assertThat(grown.items()).isEqualTo(family.items());
        assertThat(grown.accessSteps()).isEqualTo(family.accessSteps());
        assertThat(grown.joints()).isEqualTo(family.joints());
        assertThat(grown.handling()).isEqualTo(family.handling());
        assertThat(family.build()).isEmpty();
        assertThat(GrownBuild.grown(grown)).isSameAs(grown);
    }

    @Test
    void eachPinFindsTheShaftThatItIsNamedAfter() {
        Build build = GrownBuild.of(Families.belt(TensionerKind.SPRING_PIN, true));

        assertThat(build.hardware().stream().filter(Hardware::slidesIn).map(h -> h.name() + " " + h.holds()))
                .containsExactly("Crank pin [crank]", "Inlet pin [inlet]", "Exhaust pin [exhaust]");
        assertThat(build.references().stream().map(Reference::name))
                .containsExactly("Crank pin", "Inlet pin", "Exhaust pin");
    }

    @Test
    void aWheelHeldByFrictionIsMadeFastAgainstALockWithItsPinsInBeforeTheTurns() {
        EngineFamily family =
                Families.belt(TensionerKind.ECCENTRIC_POINTER, true, CrankFit.FRICTION_HELD, Interference.YES);
        Build build = GrownBuild.of(family);
        Joint crank = joint(build, "crank");

        assertThat(build.wheels().stream().filter(w -> w.fit() == Wheel.Fit.FRICTION))
                .singleElement()
                .satisfies(w -> assertThat(w.joint()).contains("crank"));
        assertThat(crank.heldBy()).isEqualTo(Joint.HeldBy.HARDWARE);
        assertThat(crank.pinned()).hasSize(3);
        assertThat(crank.stages())
                .hasSize(2)
                .allSatisfy(s -> assertThat(s.until()).isEqualTo(Joint.Moment.TURNED));
        List<String> steps = CardGenerator.generate(family, Set.of(), Set.of("belt")).steps().stream()
                .map(s -> s.code())
                .toList();
        assertThat(steps.indexOf("tighten:crank:1"))
                .isGreaterThan(steps.indexOf("set-in:crank-pin"))
                .isLessThan(steps.indexOf("turn:engine.1"));
    }

    @Test
    void theDamperOfACrankHeldByFrictionIsNotLeftUndone() {
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true, CrankFit.FRICTION_HELD, Interference.YES);

        // the covers' step opens the crank bolt: whatever takes it off asks its torque
        CardPlan card = CardGenerator.generate(family, Set.of(), Set.of("camseal"));

        assertThat(card.steps().stream().map(s -> s.code())).contains("tighten:crank:1");
    }

    @ParameterizedTest
    @EnumSource(TensionerKind.class)
    void aTensionerThatIsSetIsTightBeforeTheTurnsAndOneThatLetsGoBeforeItDoes(TensionerKind kind) {
        Build build = GrownBuild.of(Families.belt(kind, true));
        Joint.Stage first = joint(build, "tensbolt").stages().get(0);

        assertThat(first.until()).isEqualTo(GrownBuild.isSet(kind) ? Joint.Moment.TURNED : Joint.Moment.TENSIONED);
    }

    @Test
    void aStepThatOpensTheMountAndTheCrankBoltTakesOffBothBesideItsOwnPart() {
        Build build = GrownBuild.of(Families.belt(TensionerKind.SPRING_PIN, true));

        assertThat(build.assemblies().stream().map(a -> a.name()).collect(Collectors.toSet()))
                .contains("covers", "Engine mount", "Crank pulley");
        assertThat(joint(build, "mount").holds()).containsExactly("mount");
        assertThat(joint(build, "crank").holds()).containsExactly("pulley");
    }

    @Test
    void twoBanksBecomeTwoLoopsAtTheirOwnPositions() {
        Handling h = Handling.careful();
        EngineFamily family = Families.chain(
                new Handling(
                        h.turningBackDegrees(),
                        "",
                        List.of(),
                        Handling.Cams.STAY,
                        Optional.empty(),
                        h.camSprockets(),
                        h.pumpTiming(),
                        "",
                        Optional.empty(),
                        h.sprocketBolts(),
                        h.guideBolts(),
                        Optional.empty(),
                        false,
                        "",
                        "",
                        5,
                        Optional.empty(),
                        Optional.of(new Handling.OtherBank("Right bank", 600, 120)),
                        List.of()),
                "front");
        Build build = GrownBuild.of(family);

        assertThat(build.loops()).hasSize(2);
        assertThat(build.positions().stream().map(p -> p.degrees())).containsExactly(0, 600);
        assertThat(build.things("chain"))
                .isEqualTo(build.loops().stream().map(l -> l.code()).toList());
        CardPlan card = CardGenerator.generate(family, Set.of(), Set.of("chain", "tensioner"));
        List<String> steps = card.steps().stream().map(s -> s.code()).toList();
        String second = build.loops().get(1).code();
        assertThat(steps).contains("lay:chain", "lay:" + second);
    }

    @Test
    void aTorqueNobodyWroteDownIsAskedForAndNotGuessed() {
        EngineFamily family = Families.belt(
                TensionerKind.SPRING_PIN,
                true,
                CrankFit.FRICTION_HELD,
                Interference.YES,
                ReferenceMethod.PINS,
                Handling.careful(),
                List.of(),
                Optional.empty());

        assertThat(joint(GrownBuild.of(family), "crank").stages())
                .singleElement()
                .satisfies(s -> assertThat(s.torque()).isEmpty());
    }

    @Test
    void paintProvesWhereThePinsAreNotAtHand() {
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true);
        CardPlan card = CardGenerator.generate(new CardBasis(
                family,
                Set.of(),
                Set.of(),
                CardScope.of(Set.of("belt", "tensioner")).paint(true)));

        List<String> steps = card.steps().stream().map(s -> s.code()).toList();
        assertThat(steps).noneMatch(s -> s.startsWith("set-in:crank-pin"));
        assertThat(steps).contains("measure:count-belt");
        assertThat(card.steps().stream().map(s -> s.title()).toList()).anyMatch(t -> t.contains("own paint, crank"));
    }

    @Test
    void anItemThatNoStepLeadsToIsStillTakenOffAndFitted() {
        EngineFamily family = requiring(
                Families.belt(TensionerKind.SPRING_PIN, true),
                i -> i.code().equals("camseal")
                        ? new Item(i.code(), i.kind(), i.name(), i.part(), i.schedule(), List.of(), true)
                        : i,
                s -> s);

        List<Operation> done = CardGenerator.generate(family, Set.of(), Set.of("camseal")).steps().stream()
                .flatMap(s -> s.operations().stream())
                .toList();

        assertThat(done)
                .contains(
                        Operation.of(Verb.LOOP_OFF, "belt"),
                        Operation.of(
                                Verb.FIT,
                                GrownBuild.of(family).things("camseal").get(0)),
                        Operation.of(Verb.LAY, "belt"));
    }

    private static Joint joint(Build build, String code) {
        return build.joints().stream()
                .filter(j -> j.code().equals(code))
                .findFirst()
                .orElseThrow();
    }
}
