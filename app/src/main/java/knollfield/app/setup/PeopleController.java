package knollfield.app.setup;

import java.time.DayOfWeek;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.security.PersonRepository;
import knollfield.app.security.Role;
import knollfield.core.engine.Drive;
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

    PeopleController(People people, PersonRepository repository) {
        this.people = people;
        this.repository = repository;
    }

    record PersonView(
            long id,
            String signIn,
            String name,
            Role role,
            @Nullable Long fleetId,
            Set<Drive> skills,
            Set<DayOfWeek> workingDays,
            boolean active,
            int version) {}

    record NewPerson(
            String signIn,
            String name,
            Role role,
            @Nullable Long fleetId,
            Set<Drive> skills,
            Set<DayOfWeek> workingDays,
            String password) {}

    record PersonChange(
            String name,
            Role role,
            @Nullable Long fleetId,
            Set<Drive> skills,
            Set<DayOfWeek> workingDays,
            boolean active,
            int version) {}

    record NewPassword(@Nullable String password) {}

    @GetMapping("/people")
    List<PersonView> people() {
        return repository.all().stream().map(PeopleController::view).toList();
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
                p.password());
        return people();
    }

    @PutMapping("/people/{id}")
    List<PersonView> changePerson(@PathVariable long id, @RequestBody PersonChange p) {
        people.change(new Person(
                id,
                "",
                p.name(),
                p.role(),
                Optional.ofNullable(p.fleetId()),
                p.skills(),
                p.workingDays(),
                p.active(),
                p.version()));
        return people();
    }

    /** A new password for somebody who forgot theirs. */
    @PutMapping("/people/{id}/password")
    List<PersonView> newPassword(@PathVariable long id, @RequestBody NewPassword p) {
        people.newPassword(id, Objects.requireNonNullElse(p.password(), ""));
        return people();
    }

    private static PersonView view(Person p) {
        return new PersonView(
                p.id(),
                p.signIn(),
                p.name(),
                p.role(),
                p.fleetId().orElse(null),
                p.skills(),
                p.workingDays(),
                p.active(),
                p.version());
    }
}
