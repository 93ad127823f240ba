package knollfield.core.jobcard;

import java.util.Set;
import knollfield.core.engine.EngineFamily;

/**
 * What a card is generated from.
 *
 * @param family the book, as of the version the job was built on
 * @param equipment what the vehicle has
 * @param settledBefore codes of the variants that were settled before the card was begun
 */
public record CardBasis(EngineFamily family, Set<String> equipment, Set<String> settledBefore, CardScope scope) {

    public CardBasis {
        equipment = Set.copyOf(equipment);
        settledBefore = Set.copyOf(settledBefore);
    }

    CardBasis with(CardScope other) {
        return new CardBasis(family, equipment, settledBefore, other);
    }
}
