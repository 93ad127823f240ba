package knollfield.core.jobcard;

import java.util.Optional;

/**
 * One step of a card.
 *
 * @param caution what can hurt someone or the engine here, short
 * @param gate the gate this step helps to open
 * @param provesTiming true for steps that lose their worth when the engine is found out of time or stops hard
 */
public record Step(
        String code,
        String title,
        Optional<String> caution,
        Task task,
        Optional<GateKind> gate,
        boolean provesTiming) {}
