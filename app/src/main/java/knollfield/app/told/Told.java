package knollfield.app.told;

import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs.JobPlaced;
import knollfield.app.letters.Letters;
import knollfield.app.log.VehicleLog;
import knollfield.app.outbox.Channel;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Owner;
import knollfield.app.vehicle.Owners;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Owners who must be told that their promise no longer stands. Whatever moves or takes back a promise leaves one line a job, which
 * says the time the owner knows and the one that stands now; moved back to the time the owner knows, it is gone.
 */
@Service
class Told {

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.UK);

    private final ToldRepository repository;
    private final VehicleLog log;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final VehicleService vehicles;
    private final Owners owners;
    private final Letters letters;

    Told(
            ToldRepository repository,
            VehicleLog log,
            CurrentPerson current,
            WorkshopClock clock,
            VehicleService vehicles,
            Owners owners,
            Letters letters) {
        this.vehicles = vehicles;
        this.owners = owners;
        this.letters = letters;
        this.repository = repository;
        this.log = log;
        this.current = current;
        this.clock = clock;
    }

    /** How an owner was told. */
    enum How {
        PHONE("by phone"),
        MESSAGE("by message"),
        IN_PERSON("in person");

        private final String words;

        How(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }
    }

    List<ToTell> open() {
        return repository.open();
    }

    /** Within the change of the board. */
    @EventListener
    void placed(JobPlaced e) {
        Optional<LocalDateTime> now = e.after().map(Job.Booking::start);
        Optional<ToTell> line = repository.openOf(e.jobId());
        if (line.isPresent()) {
            if (now.equals(Optional.of(line.get().promised()))) {
                repository.forget(line.get().id());
            } else {
                repository.movedTo(line.get().id(), now);
            }
            return;
        }
        e.before()
                .filter(Job.Booking::promised)
                .map(Job.Booking::start)
                .filter(known -> !now.equals(Optional.of(known)))
                // who did not come knows that the time is over
                .filter(known -> known.isAfter(clock.now()))
                .ifPresent(known -> repository.add(
                        e.jobId(), e.vehicleId(), clock.instant(), current.get().name(), known, now));
    }

    /**
     * Notes that the owner knows.
     *
     * @param written a message is written by this way; empty where somebody has told it
     * @throws Conflict where somebody has told meanwhile, or the time has changed again
     */
    @Transactional
    void tell(long id, int version, How how, Optional<Channel> written, String note) {
        new Checks()
                .that(note.length() <= 400, "/note", "The note is longer than 400 characters.")
                .orThrow();
        ToTell line = repository.find(id).orElseThrow(Told::meanwhile);
        if (!repository.told(id, version, clock.instant(), current.get().name(), how.name(), note.strip())) {
            throw meanwhile();
        }
        written.ifPresent(channel -> {
            Vehicle vehicle = vehicles.get(line.vehicleId());
            Owner owner = vehicle.ownerId()
                    .map(owners::get)
                    .orElseThrow(() -> new InvalidInput("/channel", "Nobody is on file to write to."));
            letters.promise(owner, channel, vehicle, line.promised(), line.movedTo());
        });
        log.write(
                line.vehicleId(),
                "owner told " + how.words(),
                "promised " + TIME.format(line.promised()),
                line.movedTo().map(t -> "now " + TIME.format(t)).orElse("no time any more")
                        + (note.isBlank() ? "" : ": " + note.strip()));
    }

    private static Conflict meanwhile() {
        return new Conflict("Somebody has told the owner meanwhile, or the time has changed again. Look once more.");
    }
}
