package knollfield.core.jobcard;

import java.util.List;
import java.util.Optional;
import java.util.Set;

/** What marks that are not true point at, before the old belt comes off (procedure.md, B10; trade practice). */
final class MarksAdvice {

    private static final String CRANK = "crank";

    private MarksAdvice() {}

    static Optional<String> of(List<String> references, Set<String> notTrue) {
        List<String> others = references.stream().filter(r -> !r.equals(CRANK)).toList();
        if (notTrue.contains(CRANK)) {
            return Optional.of("Bring the crank to its mark first, running way; then look at the others.");
        }
        if (!others.isEmpty() && notTrue.containsAll(others)) {
            return Optional.of("Crank right, all others opposite: one more crank turn.");
        }
        return Optional.of("At 2 : 1 the marks are true together, every second turn. One true and one not: found out of"
                + " time.");
    }
}
