package knollfield.app.settings;

import java.util.Map;
import java.util.concurrent.atomic.AtomicReference;
import knollfield.app.problem.Conflict;
import knollfield.core.odometer.UsageClass;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;

/** Reads and changes the workshop's figures. */
@Service
public class WorkshopSettings {

    private final WorkshopRepository repository;
    private final ApplicationEventPublisher events;
    private final AtomicReference<@Nullable Workshop> kept = new AtomicReference<>();

    WorkshopSettings(WorkshopRepository repository, ApplicationEventPublisher events) {
        this.repository = repository;
        this.events = events;
    }

    /** The figures everything rests on have changed. */
    public record SettingsChanged() {}

    public Workshop get() {
        Workshop current = kept.get();
        if (current == null) {
            current = repository.get();
            kept.set(current);
        }
        return current;
    }

    public Map<String, UsageClass> usageClasses() {
        return repository.usageClasses();
    }

    /**
     * Replaces the figures; {@code workshop.version()} is the one they were read with.
     *
     * @throws Conflict where somebody else changed them first
     */
    @Transactional
    public void change(Workshop workshop) {
        if (!repository.update(workshop)) {
            Workshop now = repository.get();
            throw new Conflict("%s changed these figures at %s; load them again, then change yours."
                    .formatted(now.changedBy(), now.changedAt()));
        }
        events.publishEvent(new SettingsChanged());
    }

    /** Before anyone else listens, so that they read the new figures. */
    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    @org.springframework.core.annotation.Order(0)
    void forget(SettingsChanged event) {
        kept.set(null);
    }
}
