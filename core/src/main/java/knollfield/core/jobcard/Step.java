package knollfield.core.jobcard;

import java.util.List;
import java.util.Optional;

/**
 * One step of a card.
 *
 * @param caution what can hurt someone or the engine here, short
 * @param notes what helps to do it right: tools, hidden bolts, threads, faces; may be empty
 * @param gate the gate this step helps to open
 * @param provesTiming true for steps that lose their worth when the engine is found out of time or stops hard
 * @param serves code of the item this step fits; it waits where the owner has not agreed to that item yet
 */
public record Step(
        String code,
        String title,
        Optional<String> caution,
        List<String> notes,
        Task task,
        Optional<GateKind> gate,
        boolean provesTiming,
        Optional<String> serves) {

    public Step {
        notes = List.copyOf(notes);
    }

    /** It may follow the next day, as a recheck (rules.md section 9). */
    public boolean mayFollow() {
        return gate.filter(g -> g == GateKind.COOLANT_LEVEL).isPresent();
    }

    static Step of(String code, String title, Task task) {
        return new Step(code, title, Optional.empty(), List.of(), task, Optional.empty(), false, Optional.empty());
    }

    Step caution(String words) {
        return new Step(code, title, Optional.of(words), notes, task, gate, provesTiming, serves);
    }

    Step notes(List<String> words) {
        return new Step(code, title, caution, words, task, gate, provesTiming, serves);
    }

    Step gate(GateKind kind) {
        return new Step(code, title, caution, notes, task, Optional.of(kind), provesTiming, serves);
    }

    /** This step, done again whenever the timing is set again. */
    Step proving() {
        return new Step(code, title, caution, notes, task, gate, true, serves);
    }

    Step serving(String item) {
        return new Step(code, title, caution, notes, task, gate, provesTiming, Optional.of(item));
    }
}
