package knollfield.app.hours;

import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Function;
import java.util.stream.Stream;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.due.JobStage;
import knollfield.core.plan.Ruler;
import knollfield.core.plan.WorkHours;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;

/**
 * When work is done here. A technician works as the workshop does, on the own days; whoever has own hours works by those.
 * Hours that a placed job needs, from its start to its end, cannot be
 * taken away from under it.
 */
@Service
public class Hours {

    /** Vehicles named in a refusal; a longer list would hide the rest of the sentence. */
    private static final int NAMED = 5;

    private final HoursRepository repository;
    private final People people;
    private final Jobs jobs;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final ApplicationEventPublisher events;
    /** Asked for at every look at the board, so it is not read anew each time. */
    private final AtomicReference<@Nullable Opening> known = new AtomicReference<>();

    Hours(
            HoursRepository repository,
            People people,
            Jobs jobs,
            CurrentPerson current,
            WorkshopClock clock,
            ApplicationEventPublisher events) {
        this.repository = repository;
        this.people = people;
        this.jobs = jobs;
        this.current = current;
        this.clock = clock;
        this.events = events;
    }

    /** When the workshop works, as somebody last changed it. */
    public record Opening(WorkHours hours, int version, String changedBy) {}

    /** The hours have changed. */
    public record HoursChanged() {}

    public Opening opening() {
        Opening opening = known.get();
        if (opening == null) {
            opening = repository.read();
            known.set(opening);
        }
        return opening;
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    void forget(HoursChanged event) {
        known.set(null);
    }

    /** When {@code person} works. */
    public WorkHours of(Person person) {
        return of(person, opening().hours());
    }

    private static WorkHours of(Person person, WorkHours workshop) {
        return person.hours().orElseGet(() -> workshop.on(person.workingDays()));
    }

    /** The half-hours of the board's days: those in which the workshop or one of its technicians works. */
    public List<LocalTime> times() {
        return Ruler.times(Stream.concat(
                        Stream.of(opening().hours()),
                        people.technicians().stream().map(this::of))
                .toList());
    }

    /**
     * Changes when the workshop works.
     *
     * @throws InvalidInput where a placed job would lie outside, or end later
     * @throws Conflict where somebody else changed it first
     */
    @Transactional
    public void change(WorkHours next, int version) {
        new Checks()
                .that(!next.byDay().isEmpty(), "/hours", "A workshop that never works can promise nothing.")
                .orThrow();
        refuseWhere(p -> of(p, next), "/hours");
        if (!repository.update(next, version, current.get().name())) {
            throw new Conflict("%s changed the hours first. Yours were not saved."
                    .formatted(repository.read().changedBy()));
        }
        events.publishEvent(new HoursChanged());
    }

    /**
     * Refuses a person's new days or hours where a job placed with that person would lie outside.
     *
     * @throws InvalidInput then, naming the vehicles
     */
    public void check(Person changed) {
        refuseWhere(p -> p.id() == changed.id() ? of(changed) : of(p), "/workingDays");
    }

    private void refuseWhere(Function<Person, WorkHours> next, String pointer) {
        List<Person> technicians = people.technicians();
        List<String> outside = jobs.open().stream()
                .filter(j -> j.stage() != JobStage.UNDER_WAY)
                .filter(j -> j.booking()
                        .filter(b -> b.end().isAfter(clock.now()))
                        .flatMap(b -> technician(technicians, b)
                                .filter(p -> !of(p).areKeptBy(
                                                next.apply(p),
                                                b.start(),
                                                b.end(),
                                                jobs.outline(j).minutes())))
                        .isPresent())
                .map(j -> jobs.state(j).vehicle().registration())
                .distinct()
                .sorted()
                .toList();
        if (!outside.isEmpty()) {
            throw new InvalidInput(
                    pointer,
                    "On the board outside these hours: %s%s. Give %s another place first."
                            .formatted(
                                    String.join(", ", outside.subList(0, Math.min(NAMED, outside.size()))),
                                    outside.size() > NAMED ? " and %d more".formatted(outside.size() - NAMED) : "",
                                    outside.size() == 1 ? "it" : "them"));
        }
    }

    private static Optional<Person> technician(List<Person> technicians, Job.Booking booking) {
        return technicians.stream()
                .filter(p -> p.id() == booking.technicianId())
                .findFirst();
    }
}
