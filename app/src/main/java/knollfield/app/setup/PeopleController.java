package knollfield.app.setup;

import java.time.DayOfWeek;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import knollfield.app.hours.Hours;
import knollfield.app.hours.HoursView;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.security.PersonRepository;
import knollfield.app.security.Role;
import knollfield.core.engine.Drive;
import knollfield.core.plan.WorkHours;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The people of the workshop; the manager's alone. */
@RestController
@RequestMapping("/api/setup")
class PeopleController {

    private final People people;
    private final PersonRepository repository;
    private final Hours hours;

    PeopleController(People people, PersonRepository repository, Hours hours) {
        this.people = people;
        this.repository = repository;
        this.hours = hours;
    }

    /**
     * @param hours own ones of a technician, all seven days; null: as the workshop works, on the working days
     * @param hasPassword false for one who came with a list and cannot sign in yet
     */
    record PersonView(
            long id,
            String signIn,
            String name,
            Role role,
            @Nullable Long fleetId,
            Set<Drive> skills,
            Set<DayOfWeek> workingDays,
            @Nullable List<HoursView.DayHours> hours,
            boolean active,
            boolean hasPassword,
            int version) {}

    record NewPerson(
            String signIn,
            String name,
            Role role,
            @Nullable Long fleetId,
            Set<Drive> skills,
            Set<DayOfWeek> workingDays,
            @Nullable List<HoursView.DayHours> hours,
            String password) {}

    record PersonChange(
            String name,
            Role role,
            @Nullable Long fleetId,
            Set<Drive> skills,
            Set<DayOfWeek> workingDays,
            @Nullable List<HoursView.DayHours> hours,
            boolean active,
            int version) {}

    record NewPassword(@Nullable String password) {}

    @GetMapping("/people")
    List<PersonView> people() {
        Set<Long> without = people.withoutPassword();
        return repository.all().stream()
                .map(p -> view(p, !without.contains(p.id())))
                .toList();
    }

    @PostMapping("/people")
    List<PersonView> addPerson(@RequestBody NewPerson p) {
        people.add(
                p.signIn(),
                p.name(),
                p.role(),
                Optional.ofNullable(p.fleetId()),
                p.skills(),
                p.workingDays(),
                hours(p.hours()),
                p.password());
        return people();
    }

    @PutMapping("/people/{id}")
    List<PersonView> changePerson(@PathVariable long id, @RequestBody PersonChange p) {
        Person changed = new Person(
                id,
                "",
                p.name(),
                p.role(),
                Optional.ofNullable(p.fleetId()),
                p.skills(),
                p.workingDays(),
                hours(p.hours()),
                p.active(),
                p.version());
        hours.check(changed);
        people.change(changed);
        return people();
    }

    /** A new password for somebody who forgot theirs. */
    @PutMapping("/people/{id}/password")
    List<PersonView> newPassword(@PathVariable long id, @RequestBody NewPassword p) {
        people.newPassword(id, Objects.requireNonNullElse(p.password(), ""));
        return people();
    }

    /** Signs somebody out on every device, such as one that was lost. */
    @PostMapping("/people/{id}/sign-out")
    List<PersonView> signOut(@PathVariable long id) {
        people.signOutEverywhere(id);
        return people();
    }

    private static PersonView view(Person p, boolean hasPassword) {
        return new PersonView(
                p.id(),
                p.signIn(),
                p.name(),
                p.role(),
                p.fleetId().orElse(null),
                p.skills(),
                p.workingDays(),
                p.hours().map(HoursView::of).orElse(null),
                p.active(),
                hasPassword,
                p.version());
    }

    private static Optional<WorkHours> hours(@Nullable List<HoursView.DayHours> hours) {
        Optional<WorkHours> own = Optional.ofNullable(hours).map(h -> HoursView.read(h, "/hours"));
        if (own.filter(h -> h.byDay().isEmpty()).isPresent()) {
            throw new InvalidInput("/hours", "Own hours need at least one day; or choose the workshop's.");
        }
        return own;
    }
}
