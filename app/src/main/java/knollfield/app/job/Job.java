package knollfield.app.job;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.due.JobStage;

/**
 * A job on a vehicle.
 *
 * @param familyVersion the version of the book it was built on
 * @param chosen offered items the manager took in
 * @param items what is renewed, fixed at check-in; empty before
 * @param booking its place on the board
 */
public record Job(
        long id,
        long vehicleId,
        String familyCode,
        int familyVersion,
        JobStage stage,
        Set<String> chosen,
        Set<String> items,
        Optional<Booking> booking,
        Optional<Done> done,
        int version) {

    /** A place on the board. */
    public record Booking(long technicianId, long bayId, LocalDateTime start, LocalDateTime end) {}

    /** What completion left: the day, the odometer, and what the label says. */
    public record Done(LocalDate on, int km, Optional<LocalDate> nextDueOn, OptionalInt nextDueKm) {}
}
