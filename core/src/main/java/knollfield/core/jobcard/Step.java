package knollfield.core.jobcard;

import java.util.List;
import java.util.Optional;
import knollfield.core.engine.work.Operation;

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
        Optional<String> why) {

    public Step {
        notes = List.copyOf(notes);
        operations = List.copyOf(operations);
    }

    /** It may follow the next day, as a recheck (rules.md section 9). */
    public boolean mayFollow() {
        return gate.filter(g -> g == GateKind.COOLANT_LEVEL).isPresent();
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
                Optional.empty());
    }

    Step caution(String words) {
        return new Step(code, title, Optional.of(words), notes, task, gate, provesTiming, serves, operations, why);
    }

    Step notes(List<String> words) {
        return new Step(code, title, caution, words, task, gate, provesTiming, serves, operations, why);
    }

    Step gate(GateKind kind) {
        return new Step(code, title, caution, notes, task, Optional.of(kind), provesTiming, serves, operations, why);
    }

    /** This step, done again whenever the timing is set again. */
    Step proving() {
        return new Step(code, title, caution, notes, task, gate, true, serves, operations, why);
    }

    Step serving(String item) {
        return new Step(code, title, caution, notes, task, gate, provesTiming, Optional.of(item), operations, why);
    }

    Step doing(List<Operation> done, Optional<String> because) {
        return new Step(code, title, caution, notes, task, gate, provesTiming, serves, done, because);
    }
}
