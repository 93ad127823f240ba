package knollfield.core.jobcard;

import java.time.Instant;

/**
 * What a step was answered with.
 *
 * @param words the answer as printed on the record
 * @param good whether it satisfies the step
 */
public record Answer(String words, boolean good, String by, Instant at, long seq) {}
