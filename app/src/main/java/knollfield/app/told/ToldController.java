package knollfield.app.told;

import java.time.Instant;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import knollfield.app.outbox.Channel;
import knollfield.app.outbox.Outbox;
import knollfield.app.problem.Checks;
import knollfield.app.vehicle.Owners;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Owners to be told, for the Desk. */
@RestController
@RequestMapping("/api/told")
class ToldController {

    private final Told told;
    private final VehicleService vehicles;
    private final Owners owners;
    private final Outbox outbox;

    ToldController(Told told, VehicleService vehicles, Owners owners, Outbox outbox) {
        this.owners = owners;
        this.outbox = outbox;
        this.told = told;
        this.vehicles = vehicles;
    }

    /**
     * @param promised the time the owner knows; null where it is about the price
     * @param movedTo the time that stands now; null where there is none
     * @param words what it is about, where that is no time
     * @param by who changed it
     * @param ways in which a message can be written
     */
    record ToTellView(
            long id,
            ToTell.What what,
            long jobId,
            long vehicleId,
            String registration,
            String makeModel,
            String ownerName,
            String ownerPhone,
            @Nullable LocalDateTime promised,
            @Nullable LocalDateTime movedTo,
            String words,
            String by,
            Instant at,
            List<WriteBy> ways,
            int version) {}

    record WriteBy(Channel channel, String words) {}

    /** @param channel a message is written by this way; null where somebody has told it */
    record ToldIn(
            Told.@Nullable How how,
            @Nullable Channel channel,
            @Nullable String note,
            int version) {}

    @GetMapping
    List<ToTellView> open() {
        return told.open().stream()
                .map(t -> {
                    Vehicle v = vehicles.get(t.vehicleId());
                    return new ToTellView(
                            t.id(),
                            t.what(),
                            t.jobId(),
                            t.vehicleId(),
                            v.registration(),
                            v.makeModel(),
                            v.ownerName(),
                            v.ownerPhone(),
                            t.promised().orElse(null),
                            t.movedTo().orElse(null),
                            t.words(),
                            t.madeBy(),
                            t.madeAt(),
                            v.ownerId()
                                    .map(owners::get)
                                    .filter(o -> o.mayWrite() && t.what() != ToTell.What.PRICE)
                                    .map(o -> outbox.ways(o).stream()
                                            .map(w -> new WriteBy(w, w.words()))
                                            .toList())
                                    .orElse(List.of()),
                            t.version());
                })
                .toList();
    }

    @PostMapping("/{id}")
    List<ToTellView> tell(@PathVariable long id, @RequestBody ToldIn in) {
        new Checks()
                .that(in.how() != null, "/how", "By phone, by message or in person?")
                .orThrow();
        told.tell(
                id,
                in.version(),
                Objects.requireNonNull(in.how()),
                Optional.ofNullable(in.channel()),
                Objects.requireNonNullElse(in.note(), ""));
        return open();
    }
}
