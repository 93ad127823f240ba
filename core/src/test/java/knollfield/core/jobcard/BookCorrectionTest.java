package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.engine.build.Build;
import knollfield.core.jobcard.BookCorrection.Difference;
import knollfield.core.units.Torque;
import org.junit.jupiter.api.Test;

/** A card under way, and what a later version of its book would ask for. */
class BookCorrectionTest {

    private static final EngineFamily FAMILY = RoutedCardTest.family("e02");

    private static CardPlan begun() {
        return CardGenerator.generate(FAMILY, Set.of(), Set.of("belt", "tens"));
    }

    private static EngineFamily with(Build build) {
        return FAMILY.with(build);
    }

    private static Build build() {
        return FAMILY.build().orElseThrow();
    }

    @Test
    void theSameBookDiffersInNothing() {
        assertThat(BookCorrection.of(begun(), FAMILY)).isEmpty();
    }

    @Test
    void anotherFigureIsSaidWithBothAndLeadsToItsStep() {
        EngineFamily corrected =
                with(build().with(Map.of("crank", new TorqueSpec(new Torque(140), OptionalInt.of(75), "corrected"))));

        assertThat(BookCorrection.of(begun(), corrected)).singleElement().satisfies(d -> {
            assertThat(d.step()).contains("tighten:crank:1");
            assertThat(d.words())
                    .isEqualTo("Crank bolt to torque: 120 N·m + 90° on this card, 140 N·m + 75° in the book now.");
            assertThat(d.isFigure()).isTrue();
        });
    }

    @Test
    void aFigureThatThisCardDoesNotAskForIsNoDifferenceOfIt() {
        CardPlan belt = CardGenerator.generate(FAMILY, Set.of(), Set.of("abelt"));
        EngineFamily corrected =
                with(build().with(Map.of("crank", new TorqueSpec(new Torque(140), OptionalInt.of(75), "corrected"))));

        assertThat(BookCorrection.of(belt, corrected)).isEmpty();
    }

    @Test
    void aBookThatGivesNoCardAnyMoreSaysSo() {
        EngineFamily lessTold = new EngineFamily(
                FAMILY.code(),
                FAMILY.name(),
                FAMILY.drive(),
                FAMILY.interference(),
                FAMILY.crankFit(),
                FAMILY.reference(),
                FAMILY.pins(),
                FAMILY.tensioner(),
                FAMILY.pinOutBeforeTurns(),
                FAMILY.mountInTheWay(),
                FAMILY.moveOver(),
                FAMILY.blankingPlugs(),
                FAMILY.coolantLitres(),
                FAMILY.path(),
                FAMILY.items().stream().filter(i -> !i.code().equals("tens")).toList(),
                FAMILY.accessSteps(),
                FAMILY.joints(),
                FAMILY.repair(),
                FAMILY.cautions(),
                FAMILY.handling(),
                FAMILY.variants(),
                FAMILY.tools(),
                FAMILY.kits(),
                FAMILY.build());
        assertThat(BookCorrection.of(begun(), lessTold))
                .extracting(Difference::step, Difference::isFigure)
                .containsExactly(org.assertj.core.groups.Tuple.tuple(Optional.empty(), false));
    }

    @Test
    void aCardThatIsAListIsComparedWithTheListOfTheCorrectedBook() {
        EngineFamily family = Books.friction();
        CardPlan begun = Books.listed(family, Set.of(), Books.USUAL);
        EngineFamily corrected = Books.family(
                family.tensioner(),
                family.crankFit(),
                family.reference(),
                family.handling().acceptance(),
                Optional.of(new TorqueSpec(new Torque(99), OptionalInt.of(90), "corrected")));

        assertThat(BookCorrection.of(begun, corrected))
                .singleElement()
                .satisfies(d -> assertThat(d.words()).contains("130 N·m + 90° on this card, 99 N·m + 90°"));
    }
}
