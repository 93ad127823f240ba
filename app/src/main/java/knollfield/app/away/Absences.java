package knollfield.app.away;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import knollfield.app.engine.EngineBook;
import knollfield.app.problem.Checks;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.People;
import knollfield.app.shared.WorkshopClock;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Who and what is away. */
@Service
public class Absences {

    private static final int LONGEST_DAYS = 366;

    private final AbsenceRepository repository;
    private final People people;
    private final EngineBook book;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    Absences(AbsenceRepository repository, People people, EngineBook book, CurrentPerson current, WorkshopClock clock) {
        this.repository = repository;
        this.people = people;
        this.book = book;
        this.current = current;
        this.clock = clock;
    }

    /** In force on {@code from} or later, by their first day. */
    public List<Absence> endingFrom(LocalDate from) {
        return repository.endingFrom(from);
    }

    /**
     * An absence nobody has entered yet, with every field checked.
     *
     * @throws InvalidInput where it cannot be
     */
    public Absence of(
            Absence.Kind kind,
            @Nullable Long technicianId,
            @Nullable Long bayId,
            @Nullable String familyCode,
            LocalDate from,
            LocalDate to,
            String why) {
        Checks checks = new Checks()
                .that(!to.isBefore(from), "/to", "The last day lies before the first.")
                .that(!to.isBefore(clock.today()), "/to", "That is over already.")
                .that(!to.isAfter(from.plusDays(LONGEST_DAYS)), "/to", "More than a year is not an absence.")
                .that(why.length() <= 120, "/why", "The reason is longer than 120 characters.");
        switch (kind) {
            case TECHNICIAN ->
                checks.that(
                        technicianId != null && people.technicians().stream().anyMatch(p -> p.id() == technicianId),
                        "/technicianId",
                        "Choose a technician.");
            case BAY -> checks.that(bayId != null, "/bayId", "Choose a bay.");
            case TOOL_SET ->
                checks.that(
                        familyCode != null && book.find(familyCode).isPresent(), "/familyCode", "Choose a tool set.");
            case WORKSHOP, FERRY -> {}
        }
        checks.orThrow();
        return new Absence(
                0,
                kind,
                kind == Absence.Kind.TECHNICIAN ? Optional.ofNullable(technicianId) : Optional.empty(),
                kind == Absence.Kind.BAY ? Optional.ofNullable(bayId) : Optional.empty(),
                kind == Absence.Kind.TOOL_SET ? Optional.ofNullable(familyCode) : Optional.empty(),
                from,
                to,
                why.strip(),
                current.get().name());
    }

    @Transactional
    public long add(Absence absence) {
        return repository.add(absence, clock.instant());
    }

    /** Takes an absence back, which was a mistake or ends sooner. */
    @Transactional
    public void withdraw(long id) {
        if (!repository.withdraw(id, clock.instant())) {
            throw new NotFound("There is no such absence in force.");
        }
    }
}
