package knollfield.core.jobcard;

import java.time.Instant;

/**
 * An event with who and when.
 *
 * @param seq 1 for a card's first event, rising by one
 * @param by name as printed on the record
 * @param manager true where that person may open gates
 */
public record CardEntry(long seq, Instant at, String by, boolean manager, CardEvent event) {}
