package knollfield.core.jobcard;

import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * A generated job card, before anybody has touched it.
 *
 * @param bookMinutes union of the access steps of the job
 * @param turnsUntilPaintReturns crank turns after which paint marks on the belt line up again
 */
public record CardPlan(List<Phase> phases, int bookMinutes, int turnsUntilPaintReturns) {

    public CardPlan {
        phases = List.copyOf(phases);
        Set<String> codes = new HashSet<>();
        phases.stream().flatMap(p -> p.steps().stream()).forEach(s -> {
            if (!codes.add(s.code())) {
                throw new IllegalArgumentException("a card has two steps " + s.code());
            }
        });
    }

    /** All steps in working order. */
    public List<Step> steps() {
        return phases.stream().flatMap(p -> p.steps().stream()).toList();
    }

    public Optional<Step> step(String code) {
        return steps().stream().filter(s -> s.code().equals(code)).findFirst();
    }

    public Optional<Phase> phase(String code) {
        return phases.stream().filter(p -> p.code().equals(code)).findFirst();
    }

    /** The gates of this card with the position of the last step that feeds each; what comes after waits for it. */
    public Map<GateKind, Integer> gatePositions() {
        Map<GateKind, Integer> positions = new EnumMap<>(GateKind.class);
        List<Step> all = steps();
        for (int i = 0; i < all.size(); i++) {
            int position = i;
            all.get(i).gate().ifPresent(g -> positions.put(g, position));
        }
        return positions;
    }

    /** Steps that feed {@code gate}, in working order. */
    public List<Step> feeding(GateKind gate) {
        return steps().stream()
                .filter(s -> s.gate().filter(g -> g == gate).isPresent())
                .toList();
    }
}
