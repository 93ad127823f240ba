package knollfield.core.engine;

import java.util.OptionalInt;
import knollfield.core.units.Torque;

/**
 * A joint's tightening figure.
 *
 * @param angleDegrees further turn after the torque, more than zero where present
 * @param origin where the figure comes from
 */
public record TorqueSpec(Torque torque, OptionalInt angleDegrees, String origin) {

    public TorqueSpec {
        if (angleDegrees.orElse(1) <= 0) {
            throw new IllegalArgumentException("a tightening angle must be above zero, not " + angleDegrees);
        }
    }
}
