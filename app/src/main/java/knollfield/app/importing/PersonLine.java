package knollfield.app.importing;

import java.time.DayOfWeek;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.app.security.Person;
import knollfield.app.security.Role;
import knollfield.app.vehicle.Fleet;
import knollfield.core.engine.Drive;
import org.jspecify.annotations.Nullable;

/** A line of a list of people. */
final class PersonLine {

    private PersonLine() {}

    /**
     * The person a line names; what it leaves empty is as on file, and for a new one a technician for belts from Monday to
     * Friday (planning assumption).
     *
     * @param known the account on file with the line's sign-in name
     * @param fleets by their names in small letters
     */
    static Person read(ImportLines.Reader r, Optional<Person> known, Map<String, Fleet> fleets) {
        String name = r.needed(ImportField.PERSON, 120);
        String signIn = r.needed(ImportField.SIGN_IN, 60);
        Role role =
                r.set(ImportField.ROLE, PersonLine::role, "manager, front desk, technician or fleet contact").stream()
                        .findFirst()
                        .or(() -> known.map(Person::role))
                        .orElse(Role.TECHNICIAN);
        String fleetName = r.text(ImportField.FLEET, 80);
        Optional<Fleet> fleet = Optional.ofNullable(fleets.get(fleetName.toLowerCase(Locale.ROOT)));
        if (!fleetName.isEmpty() && fleet.isEmpty()) {
            r.problem(ImportField.FLEET, "There is no fleet \"%s\".".formatted(fleetName));
        }
        Set<Drive> skills = r.set(ImportField.SKILLS, PersonLine::drive, "belt, belt in oil or chain");
        Set<DayOfWeek> days = r.set(ImportField.WORKING_DAYS, PersonLine::weekday, "a day of the week, such as Mon");
        boolean technician = role == Role.TECHNICIAN;
        Optional<Person> before = known.filter(k -> k.role() == role);
        return new Person(
                known.map(Person::id).orElse(0L),
                known.map(Person::signIn).orElse(signIn),
                name,
                role,
                role == Role.FLEET_CONTACT
                        ? fleet.map(Fleet::id).or(() -> known.flatMap(Person::fleetId))
                        : Optional.empty(),
                technician ? skills(skills, before) : Set.of(),
                technician ? days(days, before) : Set.of(),
                days.isEmpty() ? before.flatMap(Person::hours) : Optional.empty(),
                known.map(Person::active).orElse(true),
                known.map(Person::version).orElse(1));
    }

    private static Set<Drive> skills(Set<Drive> said, Optional<Person> before) {
        return said.isEmpty() ? before.map(Person::skills).orElse(Set.of(Drive.BELT)) : said;
    }

    private static Set<DayOfWeek> days(Set<DayOfWeek> said, Optional<Person> before) {
        return said.isEmpty()
                ? before.map(Person::workingDays).orElse(EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY))
                : said;
    }

    private static @Nullable Role role(String name) {
        return Arrays.stream(Role.values())
                .filter(x -> x.name().replace('_', ' ').equalsIgnoreCase(ImportField.plain(name)))
                .findFirst()
                .orElse(null);
    }

    private static @Nullable Drive drive(String name) {
        return Arrays.stream(Drive.values())
                .filter(d -> d.words().equals(name) || d.name().equalsIgnoreCase(name))
                .findFirst()
                .orElse(null);
    }

    /** A day by its whole name or its first three letters. */
    private static @Nullable DayOfWeek weekday(String name) {
        return Arrays.stream(DayOfWeek.values())
                .filter(d ->
                        name.length() >= 3 && d.name().toLowerCase(Locale.ROOT).startsWith(name))
                .findFirst()
                .orElse(null);
    }
}
