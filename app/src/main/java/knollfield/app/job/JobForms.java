package knollfield.app.job;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.app.job.JobForms.BayView;
import knollfield.app.job.JobForms.JobRow;
import knollfield.app.job.JobForms.PlacedJob;
import knollfield.app.job.JobForms.TechnicianView;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.bundle.Decision;
import knollfield.core.bundle.School;
import knollfield.core.due.JobStage;
import knollfield.core.engine.Drive;
import org.jspecify.annotations.Nullable;

/** Jobs in a list and on the week, and what is asked of one. */
final class JobForms {

    private JobForms() {}

    /**
     * @param inspection nothing is opened; null for every other job
     * @param inspectionMinutes so long one looks; null as usual
     */
    record NewJob(
            long vehicleId,
            @Nullable Boolean inspection,
            @Nullable Integer inspectionMinutes) {}

    record InspectionTimeIn(int minutes, int version) {}

    record Created(long id) {}

    /**
     * How the job is to be built; what is left out is as the workshop has it.
     *
     * @param decisions by item code
     * @param parts catalogue numbers by item code
     * @param variants choice by variant code
     * @param version the job's, as it was read
     */
    record ScopeIn(
            Set<String> purpose,
            @Nullable School school,
            School.@Nullable Seals seals,
            @Nullable LocalDate keptUntil,
            Map<String, JobViews.DecisionIn> decisions,
            Map<String, String> parts,
            Set<String> ownerSupplied,
            Map<String, String> variants,
            long toolHireMinor,
            int version) {

        JobScope toScope() {
            Map<String, Decision> decided = new HashMap<>();
            decisions.forEach((item, d) -> decided.put(
                    item,
                    new Decision(
                            d.in(),
                            Optional.ofNullable(d.reason()).orElse("").strip(),
                            Optional.ofNullable(d.inspection()).orElse("").strip())));
            return new JobScope(
                    purpose,
                    Optional.ofNullable(school),
                    Optional.ofNullable(seals),
                    Optional.ofNullable(keptUntil),
                    decided,
                    parts,
                    ownerSupplied,
                    variants,
                    toolHireMinor,
                    OptionalInt.empty());
        }
    }

    record ActualIn(int minutes, long partsMinor, int version) {}

    record JobRow(
            long id,
            long vehicleId,
            String registration,
            String makeModel,
            String ownerName,
            JobStage stage,
            JobViews.@Nullable BookingView booking,
            String waits,
            boolean inspection,
            @Nullable Long reworkOf,
            @Nullable LocalDate completedOn) {}

    /** @param items codes of what is opened again; empty: the belt or chain */
    record ReworkIn(Set<String> items, String reason) {}

    record TechnicianView(long id, String name, Set<Drive> skills, Set<java.time.DayOfWeek> workingDays) {}

    record BayView(long id, String name, String note, int liftClass) {}

    record PlacedJob(
            long jobId,
            String registration,
            long technicianId,
            long bayId,
            LocalDateTime start,
            LocalDateTime end,
            JobStage stage) {}

    record WeekView(
            LocalDate from,
            List<LocalDate> days,
            List<TechnicianView> technicians,
            List<BayView> bays,
            List<PlacedJob> jobs) {}

    static JobRow row(Job j, Vehicle v, JobViews.@Nullable BookingView booking) {
        return new JobRow(
                j.id(),
                v.id(),
                v.registration(),
                v.makeModel(),
                v.ownerName(),
                j.stage(),
                booking,
                j.waits(),
                j.scope().isInspection(),
                j.rework().map(Job.Rework::of).orElse(null),
                j.done().map(Job.Done::on).orElse(null));
    }
}
