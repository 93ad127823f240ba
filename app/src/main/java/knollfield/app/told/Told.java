package knollfield.app.told;

import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import knollfield.app.estimate.Estimates;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs.JobLasts;
import knollfield.app.job.Jobs.JobPlaced;
import knollfield.app.letters.Letters;
import knollfield.app.log.VehicleLog;
import knollfield.app.outbox.Channel;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Owner;
import knollfield.app.vehicle.Owners;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Owners who must be told that what they count on no longer stands: the time it comes in, the time it is ready, the price they
 * agreed to. Whatever changes one of them leaves one line a job, which says what the owner knows and what stands now; back at what
 * the owner knows, it is gone.
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
    private final WorkshopSettings settings;
    private final Words words;

    Told(
            ToldRepository repository,
            VehicleLog log,
            CurrentPerson current,
            WorkshopClock clock,
            VehicleService vehicles,
            Owners owners,
            Letters letters,
            WorkshopSettings settings,
            Words words) {
        this.settings = settings;
        this.words = words;
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
        Optional<ToTell> line = repository.openOf(e.jobId(), ToTell.What.PROMISE);
        if (line.isPresent()) {
            if (now.equals(line.get().promised())) {
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
                        ToTell.What.PROMISE,
                        e.jobId(),
                        e.vehicleId(),
                        clock.instant(),
                        current.get().name(),
                        Optional.of(known),
                        now,
                        ""));
    }

    /** It takes longer, and the owner counts on the time it was to be ready; sooner needs no telling. */
    @EventListener
    void lasts(JobLasts e) {
        Optional<ToTell> line = repository.openOf(e.jobId(), ToTell.What.READY);
        LocalDateTime known = line.flatMap(ToTell::promised).orElse(e.before());
        if (!e.after().isAfter(known)) {
            line.ifPresent(l -> repository.forget(l.id()));
        } else if (line.isPresent()) {
            repository.movedTo(line.get().id(), Optional.of(e.after()));
        } else {
            repository.add(
                    ToTell.What.READY,
                    e.jobId(),
                    e.vehicleId(),
                    clock.instant(),
                    current.get().name(),
                    Optional.of(known),
                    Optional.of(e.after()),
                    "");
        }
    }

    /** It costs more than the owner agreed to. */
    @EventListener
    void priced(Estimates.Priced e) {
        Optional<ToTell> line = repository.openOf(e.jobId(), ToTell.What.PRICE);
        if (!e.isDearer()) {
            line.ifPresent(l -> repository.forget(l.id()));
            return;
        }
        String currency = settings.get().currency();
        String said = "agreed at %s, now %s with tax"
                .formatted(words.money(e.agreedMinor(), currency), words.money(e.nowMinor(), currency));
        if (line.isPresent()) {
            repository.words(line.get().id(), said);
        } else {
            repository.add(
                    ToTell.What.PRICE,
                    e.jobId(),
                    e.vehicleId(),
                    clock.instant(),
                    current.get().name(),
                    Optional.empty(),
                    Optional.empty(),
                    said);
        }
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
            LocalDateTime before = line.promised()
                    .orElseThrow(
                            () -> new InvalidInput("/channel", "A new price is sent with its estimate, from the job."));
            if (line.what() == ToTell.What.READY) {
                letters.ready(owner, channel, vehicle, before, line.movedTo().orElse(before));
            } else {
                letters.promise(owner, channel, vehicle, before, line.movedTo());
            }
        });
        log.write(
                line.vehicleId(),
                "owner told " + how.words(),
                line.promised()
                        .map(t -> (line.what() == ToTell.What.READY ? "ready " : "promised ") + TIME.format(t))
                        .orElse("price"),
                line.movedTo()
                                .map(t -> "now " + TIME.format(t))
                                .orElse(line.words().isEmpty() ? "no time any more" : line.words())
                        + (note.isBlank() ? "" : ": " + note.strip()));
    }

    private static Conflict meanwhile() {
        return new Conflict("Somebody has told the owner meanwhile, or the time has changed again. Look once more.");
    }
}
