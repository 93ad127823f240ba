package knollfield.app.security;

import java.time.DayOfWeek;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.core.engine.Drive;
import knollfield.core.plan.WorkHours;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Accounts: who they are and what they may do. */
@Service
public class People {

    private static final int MIN_PASSWORD = 8;
    private static final int MAX_PASSWORD_BYTES = 72; // what BCrypt reads; more would be cut off silently

    /** Stands where somebody has no password yet; no password is hashed to it. */
    public static final String NO_PASSWORD = "{bcrypt}none";

    private final PersonRepository people;
    private final PasswordEncoder passwords;

    People(PersonRepository people, PasswordEncoder passwords) {
        this.people = people;
        this.passwords = passwords;
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
        password(check(name, role, fleetId).text(signIn, 60, "/signIn", "The sign-in name"), password)
                .orThrow();
        if (people.findBySignIn(signIn.strip()).isPresent()) {
            throw new InvalidInput("/signIn", "\"%s\" is taken; choose another sign-in name.".formatted(signIn));
        }
        Person person = new Person(
                0, signIn.strip(), name.strip(), role, fleetId, skills, days(workingDays, hours), hours, true, 1);
        people.add(person, hash(password));
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

    /** Accounts that have no password yet. */
    public Set<Long> withoutPassword() {
        return people.withPasswordHash(NO_PASSWORD);
    }

    /**
     * Gives somebody a new password, as a manager does for who forgot theirs; whoever is signed in with the old one is
     * signed out.
     *
     * @throws InvalidInput for a password that is too short or too long
     */
    @Transactional
    public void newPassword(long id, String password) {
        password(new Checks(), password).orThrow();
        if (!people.updatePassword(id, hash(password), Sessions.now())) {
            throw new NotFound("There is no person " + id + ".");
        }
    }

    /** Signs somebody out on every device. */
    @Transactional
    public void signOutEverywhere(long id) {
        if (!people.signOut(id, Sessions.now())) {
            throw new NotFound("There is no person " + id + ".");
        }
    }

    /**
     * Changes one's own password; every other device is signed out.
     *
     * @throws InvalidInput where {@code current} is not the one so far, or the new one is too short or too long
     */
    @Transactional
    public void ownPassword(long id, String current, String password) {
        boolean right = people.findPasswordHash(id)
                .filter(hash -> passwords.matches(current, hash))
                .isPresent();
        if (!right) {
            throw new InvalidInput("/current", "This is not your password so far.");
        }
        newPassword(id, password);
    }

    /** Own hours say on which days, so that both never differ. */
    private static Set<DayOfWeek> days(Set<DayOfWeek> days, Optional<WorkHours> hours) {
        return hours.map(h -> h.byDay().keySet()).orElse(days);
    }

    private String hash(String password) {
        return java.util.Objects.requireNonNull(passwords.encode(password));
    }

    private static Checks password(Checks checks, String password) {
        return checks.that(
                        password.length() >= MIN_PASSWORD,
                        "/password",
                        "A password needs at least %d characters.".formatted(MIN_PASSWORD))
                .that(
                        password.getBytes(java.nio.charset.StandardCharsets.UTF_8).length <= MAX_PASSWORD_BYTES,
                        "/password",
                        "A password may have at most %d bytes.".formatted(MAX_PASSWORD_BYTES));
    }

    /**
     * Changes an account.
     *
     * @throws Conflict where somebody else changed it first
     */
    @Transactional
    public void change(Person person) {
        check(person.name(), person.role(), person.fleetId()).orThrow();
        Person before =
                people.find(person.id()).orElseThrow(() -> new NotFound("There is no person " + person.id() + "."));
        boolean lastManager =
                people.all().stream().filter(p -> p.active() && p.isManager()).count() == 1;
        if (before.active() && before.isManager() && lastManager && !(person.active() && person.isManager())) {
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
                    .formatted(before.name(), before.role(), before.active() ? "active" : "switched off"));
        }
    }

    /** The first manager's account, while there is nobody yet. */
    @Transactional
    public void addFirstManager(String signIn, String name, String password) {
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
