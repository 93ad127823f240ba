package knollfield.app.away;

import java.time.LocalDate;
import java.util.Optional;

/**
 * Something that is not there.
 *
 * @param technicianId for {@link Kind#TECHNICIAN} only
 * @param bayId for {@link Kind#BAY} only
 * @param familyCode for {@link Kind#TOOL_SET} only: one copy of the family's set
 * @param from first day
 * @param to last day, not before {@code from}
 */
public record Absence(
        long id,
        Kind kind,
        Optional<Long> technicianId,
        Optional<Long> bayId,
        Optional<String> familyCode,
        LocalDate from,
        LocalDate to,
        String why,
        String enteredBy) {

    /** What is away. */
    public enum Kind {
        WORKSHOP,
        TECHNICIAN,
        BAY,
        TOOL_SET,
        FERRY
    }

    public boolean covers(LocalDate day) {
        return !day.isBefore(from) && !day.isAfter(to);
    }
}
