package knollfield.app.log;

import java.time.Instant;
import java.util.List;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Writes and reads vehicles' logs. */
@Service
public class VehicleLog {

    private final VehicleLogRepository repository;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    VehicleLog(VehicleLogRepository repository, CurrentPerson current, WorkshopClock clock) {
        this.repository = repository;
        this.current = current;
        this.clock = clock;
    }

    /** A line of a log; {@code before} and {@code after} may be empty. */
    public record Line(Instant at, String by, String what, String before, String after) {}

    /** Adds a line within the transaction of the change it tells of. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void write(long vehicleId, String what, String before, String after) {
        repository.add(vehicleId, new Line(clock.instant(), current.get().name(), what, cut(before), cut(after)));
    }

    /** Newest first, at most {@code most}. */
    public List<Line> newest(long vehicleId, int most) {
        return repository.newest(vehicleId, most);
    }

    private static String cut(String text) {
        return text.length() <= 400 ? text : text.substring(0, 399) + "…";
    }
}
