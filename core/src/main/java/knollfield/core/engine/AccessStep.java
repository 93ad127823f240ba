package knollfield.core.engine;

import java.util.List;
import java.util.Optional;

/**
 * A piece of work that leads to an item, or fits it.
 *
 * @param minutes book minutes of one technician, zero or more
 * @param requires codes of the steps that must be done before
 * @param equipment the step is only needed where the vehicle has this equipment, such as {@code air conditioning}
 * @param opens codes of the joints this step undoes
 * @param helperMinutes minutes during which a second person is needed, zero or more
 */
public record AccessStep(
        String code,
        String title,
        int minutes,
        List<String> requires,
        Optional<String> equipment,
        List<String> opens,
        int helperMinutes) {

    public AccessStep {
        requires = List.copyOf(requires);
        opens = List.copyOf(opens);
        if (minutes < 0 || helperMinutes < 0) {
            throw new IllegalArgumentException("access step %s: minutes must be zero or more".formatted(code));
        }
    }

    /** This step with other book minutes. */
    public AccessStep taking(int otherMinutes) {
        return new AccessStep(code, title, otherMinutes, requires, equipment, opens, helperMinutes);
    }
}
