package knollfield.app.find;

import java.time.LocalDate;
import java.util.List;
import knollfield.app.due.VehicleState;
import knollfield.core.due.JobStage;
import knollfield.core.due.Status;
import org.jspecify.annotations.Nullable;

/** What is found, as it is shown. */
final class FindViews {

    private FindViews() {}

    record FoundVehicle(
            long vehicleId,
            String registration,
            String makeModel,
            String ownerName,
            Status statusCode,
            String status,
            @Nullable LocalDate actBy) {}

    record FoundOwner(long id, String name, @Nullable String phone, int vehicles) {}

    record FoundFamily(String code, String name, int vehicles) {}

    record FoundJob(long id, String registration, String makeModel, JobStage stage) {}

    /**
     * @param total vehicles found, of which {@code vehicles} are a part
     * @param owners at most twenty, as families and jobs; for whoever may open an owner's page
     */
    record Found(
            int total,
            List<FoundVehicle> vehicles,
            List<FoundOwner> owners,
            List<FoundFamily> families,
            List<FoundJob> jobs) {}

    static FoundVehicle vehicle(VehicleState s) {
        boolean planned = s.vehicle().state().planned();
        return new FoundVehicle(
                s.vehicle().id(),
                s.vehicle().registration(),
                s.vehicle().makeModel(),
                s.vehicle().ownerName(),
                s.forecast().status(),
                planned
                        ? s.forecast().statusWords()
                        : s.vehicle().state().kind().words(),
                planned ? s.forecast().actBy().orElse(null) : null);
    }
}
