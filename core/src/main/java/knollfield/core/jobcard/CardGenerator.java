package knollfield.core.jobcard;

import java.util.Set;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.grow.GrownBuild;

/**
 * Makes a job card from the family's book, the vehicle's equipment and the items of the job (procedure.md). A step is
 * there only where this job has it.
 */
public final class CardGenerator {

    /** Minutes an inspection is begun with where nobody says otherwise. Common practice, no source. */
    public static final int USUAL_INSPECTION_MINUTES = 45;

    private CardGenerator() {}

    /**
     * The card for renewing {@code items}, with every variant settled.
     *
     * @throws IllegalArgumentException for an item code the family does not know, or none
     */
    public static CardPlan generate(EngineFamily family, Set<String> equipment, Set<String> items) {
        Set<String> all =
                family.variants().stream().map(v -> v.code()).collect(java.util.stream.Collectors.toUnmodifiableSet());
        return generate(new CardBasis(family, equipment, all, CardScope.of(items)));
    }

    /**
     * The card for {@code basis}, worked out from how the engine is built; for a book that does not say so itself, from
     * what its steps and joints tell of it ({@link GrownBuild}).
     *
     * @throws IllegalArgumentException for an item code the family does not know
     * @throws CardNotProven where the book contradicts itself, or the card it gives breaks a law
     */
    public static CardPlan generate(CardBasis basis) {
        return laid(basis, CardPlan.Layout.ROUTED, Progress.none());
    }

    /**
     * The card of an inspection, nothing opened.
     *
     * @param basis without items
     * @param minutes of one technician, above zero
     */
    public static CardPlan inspection(CardBasis basis, int minutes) {
        if (!basis.scope().items().isEmpty() || minutes < 1) {
            throw new IllegalArgumentException("an inspection renews nothing and takes time");
        }
        return InspectionCard.of(basis, minutes);
    }

    /**
     * The card as {@code layout} lays it; the old ones for cards begun so, and for those alone.
     *
     * @param layout any but an inspection, see {@link #inspection}
     * @param progress how far a worked-out card is already
     * @throws IllegalArgumentException for an item code the family does not know
     * @throws CardNotProven as {@link #generate(CardBasis)}
     */
    public static CardPlan laid(CardBasis basis, CardPlan.Layout layout, Progress progress) {
        if (layout == CardPlan.Layout.ROUTED || layout == CardPlan.Layout.ROUTED_AT_FIRST) {
            CardBasis grown = new CardBasis(
                    GrownBuild.grown(basis.family()), basis.equipment(), basis.settledBefore(), basis.scope());
            return RoutedCard.of(grown, layout, progress);
        }
        CardSteps card = new CardSteps(basis, layout);
        if (basis.family().drive() == Drive.CHAIN) {
            new ChainCard(card).write();
        } else {
            new BeltCard(card).write();
        }
        return card.plan();
    }
}
