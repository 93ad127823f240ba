package knollfield.core.jobcard;

import java.util.List;

/**
 * A phase of the work, named as the workshop names it.
 *
 * @param code its place in procedure.md, such as B22
 * @param steps in working order, at least one
 */
public record Phase(String code, String title, List<Step> steps) {

    public Phase {
        steps = List.copyOf(steps);
    }
}
