package knollfield.app.vehicle;

import java.time.LocalDate;
import java.util.Optional;
import knollfield.core.due.ClockStart;

/**
 * An item renewed.
 *
 * @param part what was fitted; may be empty
 * @param jobId the job that did it, where it was one of ours
 */
public record Renewal(
        String itemCode,
        LocalDate date,
        int km,
        ClockStart.Grade grade,
        String part,
        Optional<Long> jobId,
        String enteredBy) {}
