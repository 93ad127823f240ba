package knollfield.app.vehicle;

import java.time.LocalDate;
import java.util.Optional;
import knollfield.core.due.Evidence;

/**
 * Something found, and how it ended.
 *
 * @param source who or what found it, such as "workshop" or "fault-code reader"
 */
public record StoredEvidence(
        long id,
        Evidence evidence,
        String source,
        String note,
        Optional<LocalDate> endedOn,
        Optional<String> endedWhy,
        String enteredBy) {}
