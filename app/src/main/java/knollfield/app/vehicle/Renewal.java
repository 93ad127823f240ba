package knollfield.app.vehicle;

import java.time.LocalDate;
import java.util.Optional;
import knollfield.core.clock.ClockStart;

/**
 * An item renewed.
 *
 * @param part what was fitted; may be empty
 * @param batch as printed on it; empty where nobody read it
 * @param proof paper a documented one rests on, or who saw it; empty for one of ours
 * @param betterPart it was the part without the known weakness
 * @param jobId the job that did it, where it was one of ours
 */
public record Renewal(
        String itemCode,
        LocalDate date,
        int km,
        ClockStart.Grade grade,
        String part,
        String batch,
        String proof,
        boolean betterPart,
        Optional<Long> jobId,
        String enteredBy) {

    /** Whose batch nobody read. */
    public Renewal(
            String itemCode,
            LocalDate date,
            int km,
            ClockStart.Grade grade,
            String part,
            boolean betterPart,
            Optional<Long> jobId,
            String enteredBy) {
        this(itemCode, date, km, grade, part, "", "", betterPart, jobId, enteredBy);
    }

    /** One of our own jobs. */
    public Renewal(
            String itemCode,
            LocalDate date,
            int km,
            ClockStart.Grade grade,
            String part,
            String batch,
            boolean betterPart,
            Optional<Long> jobId,
            String enteredBy) {
        this(itemCode, date, km, grade, part, batch, "", betterPart, jobId, enteredBy);
    }
}
