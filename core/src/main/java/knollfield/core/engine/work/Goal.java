package knollfield.core.engine.work;

import java.util.Set;

/**
 * What a job is for.
 *
 * @param things codes of what is renewed: loops, assemblies, fasteners, fluids
 */
public record Goal(Set<String> things) {
    public Goal {
        things = Set.copyOf(things);
    }

    public boolean renews(String thing) {
        return things.contains(thing);
    }
}
