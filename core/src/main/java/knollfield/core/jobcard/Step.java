package knollfield.core.jobcard;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;

/**
 * One step of a card.
 *
 * @param caution what can hurt someone or the engine here, short
 * @param notes what helps to do it right: tools, hidden bolts, threads, faces; may be empty
 * @param gate the gate this step helps to open
 * @param provesTiming true for steps that lose their worth when the engine is found out of time or stops hard
 * @param serves code of the item this step fits; it waits where the owner has not agreed to that item yet
 * @param operations what is done here, in order; empty on cards of the older layout
 * @param why why it stands here, in one sentence; empty where nothing binds it
 * @param after codes of the steps that come before it by the book or a law; what is not among them may wait
 */
public record Step(
        String code,
        String title,
        Optional<String> caution,
        List<String> notes,
        Task task,
        Optional<GateKind> gate,
        boolean provesTiming,
        Optional<String> serves,
        List<Operation> operations,
        Optional<String> why,
        List<String> after) {

    private static final Set<GateKind> TIMING = Set.of(
            GateKind.PINS_OUT,
            GateKind.REFERENCES_TRUE,
            GateKind.REFERENCE_FOUND,
            GateKind.CAMS_HELD,
            GateKind.TENSIONER_SET,
            GateKind.TENSION_IN_WINDOW);

    public Step {
        after = List.copyOf(after);
        notes = List.copyOf(notes);
        operations = List.copyOf(operations);
    }

    /** It may follow the next day, as a recheck (rules.md section 9). */
    public boolean mayFollow() {
        return gate.filter(g -> g == GateKind.COOLANT_LEVEL).isPresent();
    }

    /** It reads the references after the turns. */
    public boolean provesReferences() {
        return gate.filter(g -> g == GateKind.REFERENCES_TRUE).isPresent();
    }

    /** It belongs to finding, holding, setting or proving the timing. */
    public boolean isOfTiming() {
        return task instanceof Task.Turn
                || task instanceof Task.TrueMarks
                || gate.filter(TIMING::contains).isPresent()
                || code.startsWith("pins");
    }

    /** It does joints up. */
    public boolean isOfJoints() {
        return task instanceof Task.Tighten
                || task instanceof Task.Passes
                || code.startsWith("torque-")
                || code.startsWith(RoutedSteps.FELT)
                || operations.stream().anyMatch(o -> o.verb() == Verb.TIGHTEN);
    }

    /** It gets out the stub of what broke off. */
    public boolean repairs() {
        return operations.stream().anyMatch(o -> o.verb() == Verb.REPAIR);
    }

    /** The parts of the job are gone through here, line by line. */
    public boolean goesThroughParts() {
        return code.equals("parts");
    }

    /** The tools are gone through here, piece by piece. */
    public boolean goesThroughTools() {
        return code.equals("tools");
    }

    /** Small parts go over to a new part. */
    public boolean movesOver() {
        return gate.filter(g -> g == GateKind.MOVED_OVER).isPresent();
    }

    static Step of(String code, String title, Task task) {
        return new Step(
                code,
                title,
                Optional.empty(),
                List.of(),
                task,
                Optional.empty(),
                false,
                Optional.empty(),
                List.of(),
                Optional.empty(),
                List.of());
    }

    Step caution(String words) {
        return new Step(
                code, title, Optional.of(words), notes, task, gate, provesTiming, serves, operations, why, after);
    }

    Step notes(List<String> words) {
        return new Step(code, title, caution, words, task, gate, provesTiming, serves, operations, why, after);
    }

    Step gate(GateKind kind) {
        return new Step(
                code, title, caution, notes, task, Optional.of(kind), provesTiming, serves, operations, why, after);
    }

    /** This step, done again whenever the timing is set again. */
    Step proving() {
        return new Step(code, title, caution, notes, task, gate, true, serves, operations, why, after);
    }

    Step serving(String item) {
        return new Step(
                code, title, caution, notes, task, gate, provesTiming, Optional.of(item), operations, why, after);
    }

    Step doing(List<Operation> done, Optional<String> because) {
        return new Step(code, title, caution, notes, task, gate, provesTiming, serves, done, because, after);
    }

    Step after(List<String> steps) {
        return new Step(code, title, caution, notes, task, gate, provesTiming, serves, operations, why, steps);
    }
}
