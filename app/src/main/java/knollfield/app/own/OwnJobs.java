package knollfield.app.own;

import java.util.List;
import knollfield.app.board.Boards;
import knollfield.app.due.Forecasts;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.problem.Checks;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.estimate.Consent;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Jobs on a contact's own vehicles, and what the contact answers. */
@Service
class OwnJobs {

    private static final int DAYS_SHOWN = 30;

    private final Jobs jobs;
    private final Forecasts forecasts;
    private final OwnAnswers answers;
    private final Boards boards;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    OwnJobs(
            Jobs jobs,
            Forecasts forecasts,
            OwnAnswers answers,
            Boards boards,
            CurrentPerson current,
            WorkshopClock clock) {
        this.jobs = jobs;
        this.forecasts = forecasts;
        this.answers = answers;
        this.boards = boards;
        this.current = current;
        this.clock = clock;
    }

    /** Open ones and those done lately, those that wait for an answer first. */
    List<Job> all() {
        return jobs.current(DAYS_SHOWN).stream().filter(this::isOwn).toList();
    }

    private boolean isOwn(Job job) {
        return forecasts
                .find(job.vehicleId())
                .filter(s -> VehicleService.View.of(current.get()).includes(s.vehicle()))
                .isPresent();
    }

    /** @throws NotFound where it is not there, or another fleet's: nobody learns which */
    Job get(long id) {
        return jobs.find(id)
                .filter(this::isOwn)
                .orElseThrow(() -> new NotFound("There is no job %d, or it is not yours to see.".formatted(id)));
    }

    /**
     * The contact's answer to an estimate, all lines at once.
     *
     * @param number of the estimate that was seen
     * @param agree codes of lines
     * @param leave likewise
     * @param refused the whole job is refused
     * @throws knollfield.app.problem.Conflict where a newer estimate was made meanwhile
     */
    @Transactional
    public void answer(long jobId, int number, List<String> agree, List<String> leave, boolean refused) {
        jobs.lockBoard();
        answers.note(
                get(jobId),
                new OwnAnswers.Answer(
                        number, agree, leave, refused, current.get().name(), Consent.How.OWN_PLACE, true));
    }

    /** When the vehicle can be spared. */
    @Transactional
    public void wish(long jobId, Job.Wishes wishes, int version) {
        Job job = get(jobId);
        new Checks()
                .that(
                        wishes.notBefore()
                                .filter(d -> d.isBefore(clock.today()))
                                .isEmpty(),
                        "/notBefore",
                        "That day has passed.")
                .orThrow();
        boards.wish(job.id(), wishes, version);
    }
}
