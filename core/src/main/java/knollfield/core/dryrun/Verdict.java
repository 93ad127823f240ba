package knollfield.core.dryrun;

import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import knollfield.core.engine.work.Breach;
import knollfield.core.engine.work.Law;

/**
 * What a dry run came to.
 *
 * @param breaches every law broken, in the order it was met; empty: proven
 */
public record Verdict(List<Breach> breaches) {
    public Verdict {
        breaches = List.copyOf(breaches);
    }

    public boolean passes() {
        return breaches.isEmpty();
    }

    /** The laws broken, by number. */
    public Set<Law> laws() {
        Set<Law> all = new TreeSet<>();
        breaches.forEach(b -> all.addAll(b.laws()));
        return all;
    }
}
