package knollfield.core.engine;

import java.util.List;
import java.util.Optional;

/**
 * Something held by bolts or sealed by a face.
 *
 * @param stage when in the job it is tightened
 * @param bolts number of bolts, one or more
 * @param torque empty means "not on file", which blocks the sign-off of a critical joint
 * @param critical measured with a wrench, never felt
 * @param oneTimeParts fasteners, gaskets and O-rings that are new whenever the joint has been opened
 * @param holdsCoolant opening it drains coolant
 * @param assembly threads, sockets, lengths and faces
 */
public record Joint(
        String code,
        String name,
        Stage stage,
        int bolts,
        Optional<TorqueSpec> torque,
        boolean critical,
        List<Part> oneTimeParts,
        boolean holdsCoolant,
        Assembly assembly) {

    /** Where in the working order a joint is tightened. */
    public enum Stage {
        PUMP_AND_SEALS,
        IDLERS_AND_TENSIONER,
        CRANK_BEFORE_TURNS,
        FINAL,
        CLOSE_UP
    }

    public Joint {
        oneTimeParts = List.copyOf(oneTimeParts);
        if (bolts < 1) {
            throw new IllegalArgumentException("joint %s needs at least one bolt".formatted(code));
        }
        int counted =
                assembly.lengths().stream().mapToInt(Assembly.Bolts::count).sum();
        if (counted != 0 && counted != bolts) {
            throw new IllegalArgumentException(
                    "joint %s has %d bolts, but %d by length".formatted(code, bolts, counted));
        }
    }

    /** A joint with nothing special about it. */
    public Joint(
            String code,
            String name,
            Stage stage,
            int bolts,
            Optional<TorqueSpec> torque,
            boolean critical,
            List<Part> oneTimeParts,
            boolean holdsCoolant) {
        this(code, name, stage, bolts, torque, critical, oneTimeParts, holdsCoolant, Assembly.plain());
    }

    /** This joint with another tightening figure. */
    Joint with(TorqueSpec other) {
        return new Joint(code, name, stage, bolts, Optional.of(other), critical, oneTimeParts, holdsCoolant, assembly);
    }

    /** This joint with other figures, and its one-time fasteners under other numbers. */
    public Joint figured(int otherBolts, boolean isCritical, Optional<TorqueSpec> figure, List<Part> fasteners) {
        return new Joint(
                code,
                name,
                stage,
                otherBolts,
                figure,
                isCritical,
                fasteners,
                holdsCoolant,
                otherBolts == bolts ? assembly : assembly.ofOneLength());
    }
}
