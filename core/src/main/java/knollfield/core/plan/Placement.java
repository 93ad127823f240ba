package knollfield.core.plan;

import java.time.LocalDateTime;

/**
 * A job's place on the board; technician, bay, vehicle and tool set are held from start to end, nights included.
 *
 * @param end after {@code start}
 */
public record Placement(long jobId, long technicianId, long bayId, LocalDateTime start, LocalDateTime end) {

    public Placement {
        if (!end.isAfter(start)) {
            throw new IllegalArgumentException("a placement ends (%s) after it starts (%s)".formatted(end, start));
        }
    }

    boolean overlaps(Placement other) {
        return start.isBefore(other.end) && other.start.isBefore(end);
    }
}
