package knollfield.app.own;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Set;
import knollfield.app.job.Job;
import org.jspecify.annotations.Nullable;

/** A technician’s own jobs, as they are shown. */
final class OwnJobsViews {

    private OwnJobsViews() {}

    /**
     * Money in minor units before tax.
     *
     * @param mayLeave it can be left here; otherwise the workshop has to be asked
     * @param warning what leaving it means
     * @param stateWords how it stands
     */
    record OwnLine(
            String code,
            String name,
            long lowMinor,
            long likelyMinor,
            long highMinor,
            boolean mayLeave,
            String warning,
            boolean open,
            String stateWords) {}

    /**
     * @param othersMinor what belongs to the job and is not chosen: opening and closing, and what it uses up
     * @param refusal what refusing the whole job means
     * @param expired it was valid until a day that has passed
     */
    record OwnEstimate(
            int number,
            LocalDate madeOn,
            LocalDate validUntil,
            boolean expired,
            List<OwnLine> lines,
            long othersMinor,
            long netMinor,
            long totalMinor,
            List<String> plain,
            String refusal,
            boolean mayRefuse) {}

    /**
     * A job.
     *
     * @param stateWords how far it is, in words for whoever sent the vehicle
     * @param from the time it is promised for; null where none is
     * @param mayWish its days can still be asked for
     */
    record OwnJob(
            long jobId,
            long vehicleId,
            String registration,
            String makeModel,
            String stateWords,
            @Nullable LocalDateTime from,
            @Nullable LocalDateTime to,
            @Nullable LocalDate doneOn,
            boolean mayWish,
            @Nullable LocalDate notBefore,
            Set<DayOfWeek> days,
            int version,
            int open,
            @Nullable OwnEstimate estimate) {}

    record OwnAnswerIn(
            int number,
            @Nullable List<String> agree,
            @Nullable List<String> leave,
            @Nullable Boolean refused) {}

    record OwnWishIn(
            @Nullable LocalDate notBefore, @Nullable Set<DayOfWeek> days, int version) {}

    static String words(Job job) {
        return switch (job.stage()) {
            case DRAFT -> "a day is sought";
            case PLANNED -> job.booking().filter(Job.Booking::promised).isPresent() ? "comes in" : "a day is sought";
            case UNDER_WAY -> "in the workshop";
            case DONE -> "done";
            case CANCELLED -> "given up";
        };
    }
}
