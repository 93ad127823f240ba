package knollfield.core.risk;

import java.util.Map;
import knollfield.core.engine.ItemKind;

/**
 * The wear assumed of each kind of item; planning assumptions.
 *
 * @param usual for kinds that have none of their own
 * @param also what else the chance of a failure is reckoned with
 */
public record WearModels(WearModel usual, Map<ItemKind, WearModel> byKind, RiskAssumptions also) {

    public WearModels {
        byKind = Map.copyOf(byKind);
    }

    /** The same for all kinds. */
    public static WearModels all(WearModel model) {
        return new WearModels(model, Map.of(), RiskAssumptions.defaults());
    }

    public WearModel of(ItemKind kind) {
        return byKind.getOrDefault(kind, usual);
    }
}
