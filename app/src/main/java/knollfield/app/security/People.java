package knollfield.app.security;

import java.time.DayOfWeek;
import java.time.Instant;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.engine.Drive;
import knollfield.core.plan.WorkHours;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Accounts: who they are and what they may do. */
@Service
public class People {

    private static final int CHANGES = 40;

    /** Stands where somebody has no password yet; no password is hashed to it. */
    public static final String NO_PASSWORD = "{bcrypt}none";

    private final PersonRepository people;
    private final PasswordEncoder passwords;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final String nobodysHash;

    People(PersonRepository people, PasswordEncoder passwords, CurrentPerson current, WorkshopClock clock) {
        this.people = people;
        this.passwords = passwords;
        this.current = current;
        this.clock = clock;
        this.nobodysHash = hash(UUID.randomUUID().toString());
    }

    /**
     * Whose sign-in name and password these are; empty where they do not belong together, or the account is switched off.
     * It takes as long for a name that is not on file, so that nobody learns which names are.
     */
    public Optional<Person> withPassword(String signIn, String password) {
        Optional<Person> person = people.findBySignIn(signIn.strip()).filter(Person::active);
        Optional<String> hash =
                person.flatMap(p -> people.findPasswordHash(p.id())).filter(h -> !h.equals(NO_PASSWORD));
        boolean same = passwords.matches(password, hash.orElse(nobodysHash));
        return person.filter(p -> same && hash.isPresent());
    }

    /**
     * Adds an account.
     *
     * @throws InvalidInput for a missing field, a short password or a sign-in already taken
     */
    @Transactional
    public void add(
            String signIn,
            String name,
            Role role,
            Optional<Long> fleetId,
            Set<Drive> skills,
            Set<DayOfWeek> workingDays,
            Optional<WorkHours> hours,
            String password) {
        Passwords.check(
                        check(name, role, fleetId).text(signIn, 60, "/signIn", "The sign-in name"),
                        password,
                        List.of(signIn, name))
                .orThrow();
        if (people.findBySignIn(signIn.strip()).isPresent()) {
            throw new InvalidInput("/signIn", "\"%s\" is taken; choose another sign-in name.".formatted(signIn));
        }
        Person person = new Person(
                0, signIn.strip(), name.strip(), role, fleetId, skills, days(workingDays, hours), hours, true, 1);
        people.add(person, hash(password));
        note(person.name(), "", words(person));
    }

    /**
     * Adds an account that nobody can sign in with until a manager gives it a password, as from a list.
     *
     * @throws InvalidInput as {@link #add} does, the password aside
     */
    @Transactional
    public void invite(Person person) {
        invitable(person).orThrow();
        people.add(person, NO_PASSWORD);
        note(person.name(), "", words(person) + ", no password yet");
    }

    /** What keeps an account from being invited. */
    public Checks invitable(Person person) {
        return check(person.name(), person.role(), person.fleetId())
                .text(person.signIn(), 60, "/signIn", "The sign-in name")
                .that(
                        people.findBySignIn(person.signIn().strip()).isEmpty(),
                        "/signIn",
                        "\"%s\" is taken.".formatted(person.signIn()));
    }

    /** Everybody on file, those switched off too. */
    public List<Person> all() {
        return people.all();
    }

    /**
     * What was changed of an account.
     *
     * @param before empty for a new one
     */
    public record Change(Instant at, String by, String name, String before, String after) {}

    /** The newest changes of accounts, newest first. */
    public List<Change> changes() {
        return people.changes(CHANGES);
    }

    /** Accounts that have no password yet. */
    public Set<Long> withoutPassword() {
        return people.withPasswordHash(NO_PASSWORD);
    }

    /**
     * Gives somebody a new password, as a manager does for who forgot theirs; whoever is signed in with the old one is
     * signed out.
     *
     * @throws InvalidInput for a password that is too short, too long or easily guessed
     */
    @Transactional
    public void newPassword(long id, String password) {
        Person person = existing(id);
        Passwords.check(new Checks(), password, List.of(person.signIn(), person.name()))
                .orThrow();
        people.updatePassword(id, hash(password), Sessions.now());
        note(person.name(), "password", "a new one");
    }

    /** Signs somebody out on every device. */
    @Transactional
    public void signOutEverywhere(long id) {
        Person person = existing(id);
        people.signOut(id, Sessions.now());
        note(person.name(), "sessions", "ended on every device");
    }

    private Person existing(long id) {
        return people.find(id).orElseThrow(() -> new NotFound("There is no person " + id + "."));
    }

    private void note(String name, String before, String after) {
        String by = current.nameOrNone();
        people.addChange(name, before, after, by.isEmpty() ? name : by, clock.instant());
    }

    private String words(Person p) {
        return p.role().words()
                + p.fleetId().flatMap(people::fleet).map(f -> " of " + f).orElse("")
                + (p.active() ? "" : ", switched off");
    }

    /**
     * Changes one's own password; every other device is signed out.
     *
     * @throws InvalidInput where {@code current} is not the one so far, or the new one is too short or too long
     */
    @Transactional
    public void ownPassword(long id, String current, String password) {
        checkOwn(id, current);
        newPassword(id, password);
    }

    /**
     * Lets only who knows the account's password go on.
     *
     * @throws InvalidInput at {@code /current} otherwise
     */
    public void checkOwn(long id, String current) {
        boolean right = people.findPasswordHash(id)
                .filter(hash -> passwords.matches(current, hash))
                .isPresent();
        if (!right) {
            throw new InvalidInput("/current", "This is not your password so far.");
        }
    }

    /**
     * Lets somebody go on whose account asks for no second factor, or who has its code; a code goes once.
     *
     * @throws InvalidInput at {@code /code} otherwise
     */
    @Transactional
    public void checkSecondFactor(long id, Optional<String> code) {
        Optional<String> secret = people.findSecondFactor(id);
        if (secret.isEmpty()) {
            return;
        }
        String entered = code.orElseThrow(
                () -> new InvalidInput("/code", "Enter the six digits that your second device shows now."));
        boolean good = SecondFactor.step(secret.get(), entered, clock.instant())
                .filter(step -> people.useSecondFactor(id, step))
                .isPresent();
        if (!good) {
            throw new InvalidInput("/code", "These are not the digits of now; wait for the next ones.");
        }
    }

    /**
     * Asks for a second factor from now on.
     *
     * @param secret as the second device has it
     * @param code what the device shows, so that nobody locks herself out with one that does not work
     * @throws InvalidInput at {@code /code} where it is not what the device should show
     */
    @Transactional
    public void secondFactor(long id, String secret, String code) {
        Person person = existing(id);
        if (SecondFactor.step(secret, code, clock.instant()).isEmpty()) {
            throw new InvalidInput("/code", "These are not the digits of now; is the device's clock right?");
        }
        people.updateSecondFactor(id, Optional.of(secret));
        note(person.name(), "no second factor", "signs in with a second factor");
    }

    /** Asks for no second factor any more, such as when the device is lost; sessions end. */
    @Transactional
    public void noSecondFactor(long id) {
        Person person = existing(id);
        people.updateSecondFactor(id, Optional.empty());
        people.signOut(id, Sessions.now());
        note(person.name(), "signs in with a second factor", "no second factor");
    }

    /** Accounts that sign in with a second factor. */
    public Set<Long> withSecondFactor() {
        return people.withSecondFactor();
    }

    /** Own hours say on which days, so that both never differ. */
    private static Set<DayOfWeek> days(Set<DayOfWeek> days, Optional<WorkHours> hours) {
        return hours.map(h -> h.byDay().keySet()).orElse(days);
    }

    private String hash(String password) {
        return java.util.Objects.requireNonNull(passwords.encode(password));
    }

    /**
     * Changes an account.
     *
     * @throws Conflict where somebody else changed it first
     */
    @Transactional
    public void change(Person person) {
        check(person.name(), person.role(), person.fleetId()).orThrow();
        Set<Long> managers = people.lockManagers();
        Person before = existing(person.id());
        if (managers.equals(Set.of(person.id())) && !(person.active() && person.isManager())) {
            throw new InvalidInput("/role", "The last manager must stay one, or nobody could change anything.");
        }
        Person next = new Person(
                person.id(),
                person.signIn(),
                person.name().strip(),
                person.role(),
                person.fleetId(),
                person.skills(),
                days(person.workingDays(), person.hours()),
                person.hours(),
                person.active(),
                person.version());
        if (!people.update(next)) {
            throw new Conflict("%s was changed by somebody else; now: %s, %s."
                    .formatted(before.name(), before.role().words(), before.active() ? "active" : "switched off"));
        }
        if (!words(before).equals(words(next)) || !before.name().equals(next.name())) {
            note(
                    before.name(),
                    words(before),
                    (before.name().equals(next.name()) ? "" : next.name() + ", ") + words(next));
        }
    }

    /** The first manager's account, while there is nobody yet. */
    @Transactional
    public synchronized void addFirstManager(String signIn, String name, String password) {
        if (!people.isEmpty()) {
            throw new Conflict("The manager's account is already there; sign in.");
        }
        add(
                signIn,
                name,
                Role.MANAGER,
                Optional.empty(),
                Set.of(),
                EnumSet.noneOf(DayOfWeek.class),
                Optional.empty(),
                password);
    }

    public boolean nobodyYet() {
        return people.isEmpty();
    }

    /** Technicians who work here, by name. */
    public List<Person> technicians() {
        return people.all().stream()
                .filter(p -> p.active() && p.role() == Role.TECHNICIAN)
                .toList();
    }

    private static Checks check(String name, Role role, Optional<Long> fleetId) {
        return new Checks()
                .text(name, 120, "/name", "The name")
                .that(
                        (role == Role.FLEET_CONTACT) == fleetId.isPresent(),
                        "/fleetId",
                        "A fleet contact needs a fleet, and nobody else has one.");
    }
}
