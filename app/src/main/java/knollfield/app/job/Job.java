package knollfield.app.job;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.due.JobStage;
import knollfield.core.jobcard.CardEvent;

/**
 * A job on a vehicle.
 *
 * @param familyVersion the version of the book it was built on
 * @param items what is renewed, fixed at check-in; empty before
 * @param booking its place on the board
 * @param actual what it took in the end; empty until somebody has said it
 * @param rework the signed job this one does again
 * @param waits what it waits for at the bench, in words; empty where nothing keeps it
 */
public record Job(
        long id,
        long vehicleId,
        String familyCode,
        int familyVersion,
        JobStage stage,
        JobScope scope,
        Set<String> items,
        Optional<Booking> booking,
        Wishes wishes,
        Optional<Done> done,
        Optional<Actual> actual,
        Optional<Rework> rework,
        String waits,
        int version) {

    /**
     * A place on the board.
     *
     * @param promised the owner has been told; it stays unless somebody moves it on purpose
     */
    public record Booking(long technicianId, long bayId, LocalDateTime start, LocalDateTime end, boolean promised) {}

    /**
     * When the owner can bring the vehicle.
     *
     * @param days of the week; empty where any will do
     */
    public record Wishes(Optional<LocalDate> notBefore, Set<DayOfWeek> days) {
        public static Wishes none() {
            return new Wishes(Optional.empty(), Set.of());
        }
    }

    /** What completion left: the day, the odometer, and what the label says. */
    public record Done(LocalDate on, int km, Optional<LocalDate> nextDueOn, OptionalInt nextDueKm) {}

    /** @param of number of the job that comes back */
    public record Rework(long of, String reason) {}

    /** Minutes worked and parts used, minor units before tax. */
    public record Actual(int minutes, long partsMinor) {}

    /** True where belt or chain is renewed, and it is no mere look. */
    public boolean renews() {
        return !scope.isInspection();
    }

    /** At the bench, what was added or decided there waits for the owner. */
    public boolean awaitsOwner() {
        return stage == JobStage.UNDER_WAY && waits.contains(CardEvent.PauseReason.OWNER.words());
    }

    public Job with(JobStage other, Optional<Booking> place) {
        return new Job(
                id,
                vehicleId,
                familyCode,
                familyVersion,
                other,
                scope,
                items,
                place,
                wishes,
                done,
                actual,
                rework,
                waits,
                version);
    }

    public Job with(JobStage other, Done completed) {
        return new Job(
                id,
                vehicleId,
                familyCode,
                familyVersion,
                other,
                scope,
                items,
                booking,
                wishes,
                Optional.of(completed),
                actual,
                rework,
                waits,
                version);
    }

    public Job with(JobScope other) {
        return new Job(
                id,
                vehicleId,
                familyCode,
                familyVersion,
                stage,
                other,
                items,
                booking,
                wishes,
                done,
                actual,
                rework,
                waits,
                version);
    }

    public Job with(Set<String> renewed) {
        return new Job(
                id,
                vehicleId,
                familyCode,
                familyVersion,
                stage,
                scope,
                renewed,
                booking,
                wishes,
                done,
                actual,
                rework,
                waits,
                version);
    }

    /** This job built on another version of its family's book. */
    public Job onBook(int other) {
        return new Job(
                id,
                vehicleId,
                familyCode,
                other,
                stage,
                scope,
                items,
                booking,
                wishes,
                done,
                actual,
                rework,
                waits,
                version);
    }

    public Job with(Wishes other) {
        return new Job(
                id,
                vehicleId,
                familyCode,
                familyVersion,
                stage,
                scope,
                items,
                booking,
                other,
                done,
                actual,
                rework,
                waits,
                version);
    }

    public Job with(Actual what) {
        return new Job(
                id,
                vehicleId,
                familyCode,
                familyVersion,
                stage,
                scope,
                items,
                booking,
                wishes,
                done,
                Optional.of(what),
                rework,
                waits,
                version);
    }
}
