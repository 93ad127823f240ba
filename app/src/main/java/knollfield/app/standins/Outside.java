package knollfield.app.standins;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicReference;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.security.CurrentPerson;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;

/**
 * What lies outside the workshop: devices, a supplier, deliveries. None is connected until somebody says so; what can be
 * chosen is a stand-in for trying out, whose words are marked simulated wherever they show.
 */
@Service
public class Outside {

    private static final Set<DayOfWeek> WORKING =
            Set.of(DayOfWeek.MONDAY, DayOfWeek.TUESDAY, DayOfWeek.WEDNESDAY, DayOfWeek.THURSDAY, DayOfWeek.FRIDAY);

    private final OutsideRepository repository;
    private final CurrentPerson current;
    private final ApplicationEventPublisher events;
    /** Asked for at every day of a plan, so it is not read anew each time. */
    private final AtomicReference<@Nullable State> known = new AtomicReference<>();

    /** What the meter's stand-in last said, by job: the same figure entered is not measured. */
    private final Map<Long, Double> said = new ConcurrentHashMap<>();

    Outside(OutsideRepository repository, CurrentPerson current, ApplicationEventPublisher events) {
        this.events = events;
        this.repository = repository;
        this.current = current;
    }

    /**
     * @param faultCodes a stand-in answers for the fault-code reader; false: not connected
     * @param beltMeter the same for the belt-frequency meter
     * @param parts the same for the parts supplier
     * @param deliveryName what a delivery is called, such as {@code delivery}
     * @param deliveryDays days of the week parts come; empty: any working day
     * @param cutOff what is ordered later in the day counts as ordered on the next; empty: any time will do
     */
    public record State(
            boolean faultCodes,
            boolean beltMeter,
            boolean parts,
            String deliveryName,
            Set<DayOfWeek> deliveryDays,
            Optional<LocalTime> cutOff,
            int version) {}

    /** What is connected has changed. */
    public record OutsideChanged() {}

    public State get() {
        State state = known.get();
        if (state == null) {
            state = repository.read();
            known.set(state);
        }
        return state;
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    void forget(OutsideChanged event) {
        known.set(null);
    }

    /** @throws Conflict where somebody else changed it first */
    @Transactional
    public void change(State next) {
        new Checks()
                .text(next.deliveryName(), 30, "/deliveryName", "What a delivery is called")
                .orThrow();
        if (!repository.update(next, current.get().name())) {
            throw new Conflict("Somebody else changed what is connected. Yours was not saved.");
        }
        events.publishEvent(new OutsideChanged());
    }

    /** True where deliveries usually reach the workshop on {@code day}. */
    boolean deliversOn(LocalDate day) {
        Set<DayOfWeek> days = get().deliveryDays();
        return (days.isEmpty() ? WORKING : days).contains(day.getDayOfWeek());
    }

    /** The first delivery after the day something is sent. */
    LocalDate deliveryAfter(LocalDate sent) {
        Set<DayOfWeek> set = get().deliveryDays();
        Set<DayOfWeek> days = set.isEmpty() ? WORKING : set;
        LocalDate day = sent.plusDays(1);
        while (!days.contains(day.getDayOfWeek())) {
            day = day.plusDays(1);
        }
        return day;
    }

    /** Notes that the meter's stand-in said {@code hertz} for a job. */
    public void simulated(long jobId, double hertz) {
        said.put(jobId, hertz);
    }

    /** True for a figure that the meter's stand-in last said for a job. */
    public boolean isSimulated(long jobId, double figure) {
        return Double.valueOf(figure).equals(said.get(jobId));
    }
}
