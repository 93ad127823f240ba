package knollfield.core.engine;

import java.util.List;
import java.util.OptionalInt;
import knollfield.core.units.Torque;

/**
 * A joint's tightening figure.
 *
 * @param angleDegrees further turn after the torque, more than zero where present
 * @param origin where the figure comes from
 * @param printed as it stands in print, in one unit or in two; empty where only the figure is known
 */
public record TorqueSpec(Torque torque, OptionalInt angleDegrees, String origin, List<PrintedTorque> printed) {

    public TorqueSpec {
        printed = List.copyOf(printed);
        if (angleDegrees.orElse(1) <= 0) {
            throw new IllegalArgumentException("a tightening angle must be above zero, not " + angleDegrees.orElse(0));
        }
        if (printed.size() > 2) {
            throw new IllegalArgumentException(
                    "a torque is printed in one unit or in two, not %d".formatted(printed.size()));
        }
    }

    public TorqueSpec(Torque torque, OptionalInt angleDegrees, String origin) {
        this(torque, angleDegrees, origin, List.of());
    }
}
