package knollfield.app.setup;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import knollfield.app.hours.Hours;
import knollfield.app.hours.HoursView;
import knollfield.app.security.Devices;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.security.PersonRepository;
import knollfield.app.setup.PeopleViews.NewPassword;
import knollfield.app.setup.PeopleViews.NewPerson;
import knollfield.app.setup.PeopleViews.PersonChange;
import knollfield.app.setup.PeopleViews.PersonChangeLine;
import knollfield.app.setup.PeopleViews.PersonDevice;
import knollfield.app.setup.PeopleViews.PersonView;
import org.springframework.web.bind.annotation.DeleteMapping;
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
    private final Devices devices;

    PeopleController(People people, PersonRepository repository, Hours hours, Devices devices) {
        this.people = people;
        this.repository = repository;
        this.hours = hours;
        this.devices = devices;
    }

    @GetMapping("/people")
    List<PersonView> people() {
        Set<Long> without = people.withoutPassword();
        Set<Long> factors = people.withSecondFactor();
        return repository.all().stream()
                .map(p -> view(p, !without.contains(p.id()), factors.contains(p.id())))
                .toList();
    }

    /** What was changed of accounts, newest first. */
    @GetMapping("/people/changes")
    List<PersonChangeLine> changes() {
        return people.changes().stream()
                .map(c -> new PersonChangeLine(c.at(), c.by(), c.name(), c.before(), c.after()))
                .toList();
    }

    /** Ends one session of somebody. */
    @DeleteMapping("/people/{id}/devices/{key}")
    List<PersonView> endDevice(@PathVariable long id, @PathVariable UUID key) {
        devices.end(id, key);
        return people();
    }

    /** Lets somebody in without the second factor, whose device is lost. */
    @DeleteMapping("/people/{id}/second-factor")
    List<PersonView> noSecondFactor(@PathVariable long id) {
        people.noSecondFactor(id);
        return people();
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
                PeopleViews.hours(p.hours()),
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
                PeopleViews.hours(p.hours()),
                p.active(),
                p.version());
        hours.check(changed);
        people.change(changed);
        return people();
    }

    /** A new password for somebody who forgot theirs. */
    @PutMapping("/people/{id}/password")
    List<PersonView> newPassword(@PathVariable long id, @RequestBody NewPassword p) {
        people.newPassword(id, p.password());
        return people();
    }

    /** Signs somebody out on every device, such as one that was lost. */
    @PostMapping("/people/{id}/sign-out")
    List<PersonView> signOut(@PathVariable long id) {
        people.signOutEverywhere(id);
        return people();
    }

    private PersonView view(Person p, boolean hasPassword, boolean secondFactor) {
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
                secondFactor,
                devices.of(p.id()).stream()
                        .map(d -> new PersonDevice(d.key(), d.since(), d.place(), d.kind()))
                        .toList(),
                p.version());
    }
}
