package knollfield.core.jobcard;

import java.time.Instant;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * What a step was answered with.
 *
 * @param words the answer as printed on the record
 * @param good whether it satisfies the step
 * @param figure what was counted or measured, in the unit of its words; empty where the answer is no figure
 * @param hint what a bad answer points at, where trade experience knows
 * @param deviation it was accepted with a reason though it is not as the book has it
 */
public record Answer(
        String words,
        boolean good,
        String by,
        Instant at,
        long seq,
        OptionalDouble figure,
        Optional<String> hint,
        boolean deviation) {}
