package knollfield.app.aftercare;

import java.time.LocalDate;
import java.util.List;
import java.util.function.UnaryOperator;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.vehicle.VehicleService;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Rechecks and follow-ups of one vehicle. */
@RestController
@RequestMapping("/api/vehicles/{id}/aftercare")
class AftercareController {

    private final Aftercare aftercare;
    private final VehicleService vehicles;
    private final CurrentPerson current;

    AftercareController(Aftercare aftercare, VehicleService vehicles, CurrentPerson current) {
        this.aftercare = aftercare;
        this.vehicles = vehicles;
        this.current = current;
    }

    record ClosedView(LocalDate on, String by, String result) {
        static @Nullable ClosedView of(java.util.Optional<Closed> c, UnaryOperator<String> names) {
            return c.map(x -> new ClosedView(x.on(), names.apply(x.by()), x.result()))
                    .orElse(null);
        }
    }

    record RecheckView(
            long id,
            long jobId,
            String what,
            LocalDate due,
            @Nullable ClosedView done,
            int version) {}

    /** @param jobId the job it was found at; null for one of a recall without a job of ours */
    record FollowUpView(
            long id,
            @Nullable Long jobId,
            String what,
            boolean urgent,
            LocalDate notedOn,
            String notedBy,
            @Nullable ClosedView closed,
            int version) {}

    record AftercareView(List<RecheckView> rechecks, List<FollowUpView> followUps) {}

    /** @param version as it was read */
    record SettledIn(String result, int version) {}

    @GetMapping
    AftercareView get(@PathVariable long id) {
        if (!vehicles.maySee(current.get(), vehicles.get(id))) {
            throw new NotFound("There is no vehicle " + id + ".");
        }
        UnaryOperator<String> names = current.names();
        return new AftercareView(
                aftercare.rechecks(id).stream()
                        .map(r -> new RecheckView(
                                r.id(), r.jobId(), r.what(), r.due(), ClosedView.of(r.done(), names), r.version()))
                        .toList(),
                // what is to follow up is the house's own note
                aftercare.followUps(id).stream()
                        .filter(f -> !current.get().isOutside())
                        .map(f -> new FollowUpView(
                                f.id(),
                                f.jobId().orElse(null),
                                f.what(),
                                f.urgent(),
                                f.notedOn(),
                                f.notedBy(),
                                ClosedView.of(f.closed(), names),
                                f.version()))
                        .toList());
    }

    @PostMapping("/rechecks/{recheck}/done")
    AftercareView rechecked(@PathVariable long id, @PathVariable long recheck, @RequestBody SettledIn body) {
        aftercare.rechecked(id, recheck, body.result(), body.version());
        return get(id);
    }

    @PostMapping("/follow-ups/{followUp}/settled")
    AftercareView settled(@PathVariable long id, @PathVariable long followUp, @RequestBody SettledIn body) {
        aftercare.settled(id, followUp, body.result(), body.version());
        return get(id);
    }
}
