package knollfield.core.jobcard;

import java.util.Set;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;

/**
 * Makes a job card from the family's book, the vehicle's equipment and the items of the job (procedure.md). A step is
 * there only where this job has it.
 */
public final class CardGenerator {

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
     * The card for {@code basis}.
     *
     * @throws IllegalArgumentException for an item code the family does not know
     * @throws CardNotProven where the book contradicts itself, or the card it gives breaks a law
     */
    public static CardPlan generate(CardBasis basis) {
        if (basis.family().build().isPresent()) {
            return RoutedCard.of(basis);
        }
        return listed(basis, true);
    }

    /**
     * The card as it was made for one begun before plans were kept; for those cards alone.
     *
     * @throws IllegalArgumentException for an item code the family does not know
     */
    public static CardPlan asBegunBefore(CardBasis basis) {
        return listed(basis, false);
    }

    private static CardPlan listed(CardBasis basis, boolean closes) {
        CardSteps card = new CardSteps(basis, closes);
        if (basis.family().drive() == Drive.CHAIN) {
            new ChainCard(card).write();
        } else {
            new BeltCard(card).write();
        }
        return card.plan();
    }
}
