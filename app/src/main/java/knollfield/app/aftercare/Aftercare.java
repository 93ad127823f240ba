package knollfield.app.aftercare;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import knollfield.app.log.VehicleLog;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.completion.Recheck;
import knollfield.core.jobcard.CardEvent.SideFinding;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Rechecks and follow-ups: left by a signature, settled by a person. */
@Service
public class Aftercare {

    private final AftercareRepository repository;
    private final VehicleLog log;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    Aftercare(AftercareRepository repository, VehicleLog log, CurrentPerson current, WorkshopClock clock) {
        this.repository = repository;
        this.log = log;
        this.current = current;
        this.clock = clock;
    }

    /** Keeps what a signed card leaves; called within the signature's transaction. */
    @Transactional
    public void leave(long vehicleId, long jobId, List<Recheck> rechecks, List<SideFinding> found) {
        for (Recheck r : rechecks) {
            repository.addRecheck(vehicleId, jobId, r.what(), r.due());
            log.write(vehicleId, "recheck asked", "", "%s, on %s".formatted(r.what(), Words.DAY.format(r.due())));
        }
        for (SideFinding f : found) {
            repository.addFollowUp(
                    vehicleId,
                    jobId,
                    f.words().strip(),
                    f.urgent(),
                    clock.today(),
                    current.get().name());
            log.write(vehicleId, "follow-up", "", f.words().strip());
        }
    }

    /**
     * A follow-up that no card left, such as one of a recall; the same one that is open already is not made again.
     *
     * @param jobId the job it speaks of
     * @return whether it was made
     */
    @Transactional
    public boolean followUp(long vehicleId, Optional<Long> jobId, String what, boolean urgent) {
        boolean open = followUps(vehicleId).stream()
                .anyMatch(f -> f.closed().isEmpty() && f.what().equals(what.strip()));
        if (!open) {
            repository.addFollowUp(
                    vehicleId,
                    jobId.orElse(null),
                    what.strip(),
                    urgent,
                    clock.today(),
                    current.get().name());
            log.write(vehicleId, "follow-up", "", what.strip());
        }
        return !open;
    }

    public List<StoredRecheck> rechecks(long vehicleId) {
        return repository.rechecks(vehicleId);
    }

    public List<FollowUp> followUps(long vehicleId) {
        return repository.followUps(vehicleId);
    }

    /** What is to be looked at today or was before, in words by vehicle. */
    public Map<Long, String> dueToday() {
        Map<Long, String> due = new TreeMap<>();
        LocalDate today = clock.today();
        repository.due(today).forEach(r -> due.merge(r.vehicleId(), r.what(), (a, b) -> a + "; " + b));
        return due;
    }

    /**
     * Notes what a recheck has shown.
     *
     * @throws knollfield.app.problem.InvalidInput without a result
     * @throws Conflict where somebody has settled it meanwhile
     */
    @Transactional
    public void rechecked(long vehicleId, long id, String result, int version) {
        words(result);
        if (!repository.closeRecheck(id, vehicleId, clock.today(), current.get().name(), result.strip(), version)) {
            throw settledMeanwhile("recheck");
        }
        log.write(vehicleId, "rechecked", "", result.strip());
    }

    /** Settles a follow-up, as {@link #rechecked}. */
    @Transactional
    public void settled(long vehicleId, long id, String result, int version) {
        words(result);
        if (!repository.closeFollowUp(
                id, vehicleId, clock.today(), current.get().name(), result.strip(), version)) {
            throw settledMeanwhile("follow-up");
        }
        log.write(vehicleId, "follow-up settled", "", result.strip());
    }

    private static void words(String result) {
        new Checks().text(result, 400, "/result", "What came of it").orThrow();
    }

    private static Conflict settledMeanwhile(String what) {
        return new Conflict("This %s is settled already. Yours was not saved.".formatted(what));
    }

    /** Rechecks due from one day to another, both included. */
    public List<StoredRecheck> dueBetween(LocalDate from, LocalDate to) {
        return repository.dueBetween(from, to);
    }
}
