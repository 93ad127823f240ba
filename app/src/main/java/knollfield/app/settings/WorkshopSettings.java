package knollfield.app.settings;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Collectors;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.core.odometer.UsageClass;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;

/** Reads and changes the workshop's figures. */
@Service
public class WorkshopSettings {

    private static final int CHANGES = 60;

    private final WorkshopRepository repository;
    private final ApplicationEventPublisher events;
    private final AtomicReference<@Nullable Workshop> kept = new AtomicReference<>();
    private final AtomicReference<@Nullable Map<String, UsageClass>> keptClasses = new AtomicReference<>();

    WorkshopSettings(WorkshopRepository repository, ApplicationEventPublisher events) {
        this.repository = repository;
        this.events = events;
    }

    /** The figures everything rests on have changed. */
    public record SettingsChanged() {}

    /** Who changed something last, and when. */
    public record Changed(String by, Instant at) {}

    /** A line of Setup's own log. */
    public record Change(Instant at, String by, String what, String before, String after) {}

    public Workshop get() {
        Workshop current = kept.get();
        if (current == null) {
            current = repository.get();
            kept.set(current);
        }
        return current;
    }

    /** Usage classes by code, as the workshop assumes them. */
    public Map<String, UsageClass> usageClasses() {
        Map<String, UsageClass> current = keptClasses.get();
        if (current == null) {
            current = usageClasses(get().assumptions());
            keptClasses.set(current);
        }
        return current;
    }

    /** Usage classes as they would be under other assumptions. */
    public Map<String, UsageClass> usageClasses(Assumptions assumptions) {
        return repository.usageClasses().values().stream()
                .map(assumptions::usage)
                .collect(Collectors.toMap(UsageClass::code, c -> c));
    }

    /** Every assumption there is, as it stands where nobody has changed it. */
    public List<Assumption> catalogue() {
        return Assumptions.catalogue(repository.usageClasses().values(), get().wear());
    }

    public Map<String, Changed> assumptionChanges() {
        return repository.assumptionChanges();
    }

    /** Setup's own log, newest first. */
    public List<Change> changes() {
        return repository.changes(CHANGES);
    }

    /**
     * Replaces the figures; {@code workshop.version()} is the one they were read with.
     *
     * @throws Conflict where somebody else changed them first
     */
    @Transactional
    public void change(Workshop workshop) {
        Workshop before = get();
        if (!repository.update(workshop)) {
            Workshop now = repository.get();
            throw new Conflict("%s changed these figures at %s; load them again, then change yours."
                    .formatted(now.changedBy(), now.changedAt()));
        }
        Map<String, String> was = WorkshopWords.figures(before);
        WorkshopWords.figures(workshop).forEach((what, after) -> {
            String old = was.getOrDefault(what, "");
            if (!after.equals(old)) {
                repository.addChange(what, old, after, workshop.changedBy(), workshop.changedAt());
            }
        });
        events.publishEvent(new SettingsChanged());
    }

    /** Renames the workshop, or has it count in another currency; figures of the policy stay as they are. */
    @Transactional
    public void named(String name, String currency, String by, Instant at) {
        Workshop w = get();
        if (!w.name().equals(name) || !w.currency().equals(currency)) {
            change(w.named(name, currency, by, at));
        }
    }

    /**
     * Sets assumptions by name; {@code version} is the one they were read with.
     *
     * @throws InvalidInput where one is not known, or an amount is out of its range
     */
    @Transactional
    public void assume(Map<String, Double> amounts, int version, String by, Instant at) {
        change(get().with(checked(amounts), version, by, at), amounts);
    }

    /**
     * Replaces the figures and sets assumptions by name with them.
     *
     * @param workshop holds the amounts already
     */
    @Transactional
    public void change(Workshop workshop, Map<String, Double> amounts) {
        Workshop before = get();
        Map<String, Assumption> known = catalogue().stream().collect(Collectors.toMap(Assumption::name, a -> a));
        amounts.forEach((name, amount) -> {
            Assumption a = known.get(name);
            if (a == null) {
                return;
            }
            double old = before.assumptions().value(name).orElse(a.usual());
            if (old != amount) {
                repository.setAssumption(name, amount, workshop.changedBy(), workshop.changedAt());
                repository.addChange(
                        a.words(),
                        a.written(old, before.currency()),
                        a.written(amount, workshop.currency()),
                        workshop.changedBy(),
                        workshop.changedAt());
            }
        });
        change(workshop);
    }

    /** The assumptions as they would be with these amounts set. */
    public Assumptions checked(Map<String, Double> amounts) {
        Map<String, Assumption> known = catalogue().stream().collect(Collectors.toMap(Assumption::name, a -> a));
        List<FieldProblem> problems = new ArrayList<>();
        Assumptions next = get().assumptions();
        for (Map.Entry<String, Double> e : amounts.entrySet()) {
            Assumption a = known.get(e.getKey());
            double amount = e.getValue();
            String pointer = "/amounts/" + e.getKey();
            if (a == null) {
                problems.add(new FieldProblem(pointer, "There is no such assumption."));
            } else if (!(amount >= a.min() && amount <= a.max())) {
                problems.add(new FieldProblem(
                        pointer,
                        "Must be %s to %s.".formatted(a.figure(a.min()), a.written(a.max(), get().currency()))));
            } else if (a.whole() && amount != Math.rint(amount)) {
                problems.add(new FieldProblem(pointer, "Must be a whole number."));
            } else {
                next = next.with(e.getKey(), amount);
            }
        }
        if (!problems.isEmpty()) {
            throw new InvalidInput(problems);
        }
        return next;
    }

    /** Before anyone else listens, so that they read the new figures. */
    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    @Order(0)
    void forget(SettingsChanged event) {
        kept.set(null);
        keptClasses.set(null);
    }
}
