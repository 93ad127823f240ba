package knollfield.core.jobcard;

import java.util.List;
import java.util.Optional;
import knollfield.core.engine.TorqueSpec;

/** What a step asks for. */
public sealed interface Task {

    /** Done or not; ticked with the others of its phase in one touch. */
    record Tick() implements Task {}

    /** A confirmation that a gate rests on; ticked on its own. */
    record Confirm() implements Task {}

    /**
     * A look with a result.
     *
     * @param results possible results, at least two
     */
    record Inspect(List<String> results) implements Task {
        public Inspect {
            results = List.copyOf(results);
        }
    }

    /**
     * A count that must come out.
     *
     * @param expected zero or more
     */
    record Count(String what, int expected) implements Task {}

    /**
     * A torque to be entered.
     *
     * @param bolts how many bolts the joint has
     * @param spec the book's value; empty: not on file
     */
    record Tighten(String joint, int bolts, Optional<TorqueSpec> spec) implements Task {}

    /**
     * One full crank turn by hand, in running direction.
     *
     * @param number 1 or 2
     */
    record Turn(int number) implements Task {}

    /** Every one of these references must be true at once. */
    record TrueMarks(List<String> references) implements Task {
        public TrueMarks {
            references = List.copyOf(references);
        }
    }
}
