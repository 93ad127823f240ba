package knollfield.core.jobcard;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.engine.build.Joint;

/** What a step asks for. */
public sealed interface Task {

    /** Done or not; ticked with the others of its phase in one touch. */
    record Tick() implements Task {}

    /** A confirmation that a gate rests on; ticked on its own. */
    record Confirm() implements Task {}

    /**
     * A look with a result.
     *
     * @param results possible results, at least two, the usual one first
     * @param says what a result means as evidence, by result
     * @param bad results with which the step is not settled
     */
    record Inspect(List<String> results, Map<String, EvidenceKind> says, Set<String> bad) implements Task {
        public Inspect {
            results = List.copyOf(results);
            says = Map.copyOf(says);
            bad = Set.copyOf(bad);
        }

        /** True where more than one thing may be found at once; the usual result stands alone. */
        public boolean takesSeveral() {
            return Set.copyOf(says.values()).size() > 1;
        }

        /** The results of {@code event} in the step's order; empty where they are none of this look. */
        List<String> chosen(CardEvent.Inspected event) {
            List<String> chosen = results.stream()
                    .filter(r -> r.equals(event.result()) || event.also().contains(r))
                    .toList();
            boolean known = chosen.contains(event.result()) && chosen.containsAll(event.also());
            boolean several = takesSeveral() && !chosen.contains(results.get(0));
            return known && (chosen.size() == 1 || several) ? chosen : List.of();
        }
    }

    /**
     * A choice the person takes; every option settles the step.
     *
     * @param what a choice changes on the card
     */
    record Choose(List<Option> options, Changes what) implements Task {
        public Choose {
            options = List.copyOf(options);
        }

        /** @param needsReason the choice departs from the usual way and is recorded with words */
        public record Option(String code, String words, boolean needsReason) {}

        /** What of the card depends on a choice. */
        public enum Changes {
            NOTHING,
            VARIANT,
            REFERENCE,
            REFITTED,
            /** Nothing of the card; it is what an inspection comes to, and the reason belongs to it. */
            ENDING
        }

        Optional<Option> option(String code) {
            return options.stream().filter(o -> o.code().equals(code)).findFirst();
        }
    }

    /**
     * A count that must come out.
     *
     * @param expected zero or more
     */
    record Count(String what, int expected) implements Task {}

    /**
     * Points of which every one must hold.
     *
     * @param right how one that holds is called, such as {@code new}
     * @param wrong how one that does not is called, such as {@code refitted old}
     */
    record Check(List<String> points, String right, String wrong) implements Task {
        public Check {
            points = List.copyOf(points);
        }
    }

    /**
     * A figure to be read off an instrument.
     *
     * @param unit as printed after the figure
     * @param low least good value
     * @param high greatest good value
     * @param usual offered with one touch; empty where it must be read each time
     * @param kind what it is measured with, so that the screen can offer the calculator for it
     */
    record Measure(String unit, double low, double high, Optional<Double> usual, Kind kind) implements Task {

        /** Where the book has no greatest good value. */
        public static final double NO_LIMIT = 9_999;

        /** There is a least good value and no greatest one. */
        public boolean isOpen() {
            return high >= NO_LIMIT;
        }

        /** What is measured. */
        public enum Kind {
            POINTER,
            TWIST,
            FREQUENCY,
            TOOL_TORQUE,
            COOLANT_OUT,
            COOLANT_IN,
            CLEARANCE,
            GAP,
            ANGLE
        }
    }

    /**
     * Teeth counted on each run, old belt against new.
     *
     * @param runs names of the runs between toothed wheels, in running order
     * @param total teeth of the belt; the runs and the teeth on the wheels add up to it
     */
    record Runs(List<String> runs, int total) implements Task {
        public Runs {
            runs = List.copyOf(runs);
        }
    }

    /**
     * Teeth or links from mark to mark, on the old one and on the new one, each counted twice.
     *
     * @param spans from which mark to which, right round; at least one
     * @param total teeth or links there are; the spans add up to it
     * @param counted what is counted, such as "teeth"
     */
    record MarkToMark(List<String> spans, int total, String counted) implements Task {
        public MarkToMark {
            spans = List.copyOf(spans);
        }
    }

    /**
     * A bolt pattern gone over several times; one touch each.
     *
     * @param by the order of the book; empty where it does not say, and on cards begun before it could
     * @param bolts in the pattern, two or more
     * @param passes how often
     */
    record Passes(String joint, int bolts, int passes, Optional<TorqueSpec> spec, Optional<Joint.BoltOrder> by)
            implements Task {

        /** The bolts in the order they are tightened: by the book, else crosswise from the first. */
        public List<Integer> order() {
            return by.map(o -> BoltPattern.of(bolts, o)).orElseGet(() -> BoltPattern.crosswise(bolts));
        }
    }

    /**
     * A torque to be entered.
     *
     * @param jointCode of the joint in the book
     * @param bolts how many bolts the joint has
     * @param spec the book's value; empty: not on file
     */
    record Tighten(String joint, String jointCode, int bolts, Optional<TorqueSpec> spec) implements Task {}

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
