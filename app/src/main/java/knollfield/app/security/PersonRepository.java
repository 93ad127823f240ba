package knollfield.app.security;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.DayOfWeek;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.engine.Drive;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** People on file. */
@Repository
public class PersonRepository {

    private static final String COLUMNS = "id, sign_in, name, role, fleet_id, skills, working_days, active, version";

    private final JdbcClient jdbc;

    PersonRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    public Optional<Person> find(long id) {
        return jdbc.sql("SELECT " + COLUMNS + " FROM person WHERE id = :id")
                .param("id", id)
                .query(PersonRepository::person)
                .optional();
    }

    Optional<Person> findBySignIn(String signIn) {
        return jdbc.sql("SELECT " + COLUMNS + " FROM person WHERE LOWER(sign_in) = LOWER(:signIn)")
                .param("signIn", signIn)
                .query(PersonRepository::person)
                .optional();
    }

    Optional<String> findPasswordHash(long id) {
        return jdbc.sql("SELECT password_hash FROM person WHERE id = :id")
                .param("id", id)
                .query(String.class)
                .optional();
    }

    /** False where there is no such person. */
    boolean updatePassword(long id, String hash) {
        return jdbc.sql("UPDATE person SET password_hash = :hash WHERE id = :id")
                        .param("hash", hash)
                        .param("id", id)
                        .update()
                == 1;
    }

    /** All people, by name. */
    public List<Person> all() {
        return jdbc.sql("SELECT " + COLUMNS + " FROM person ORDER BY name")
                .query(PersonRepository::person)
                .list();
    }

    /** True where nobody has an account yet. */
    boolean isEmpty() {
        return jdbc.sql("SELECT COUNT(*) FROM person").query(Long.class).single() == 0;
    }

    void add(Person person, String passwordHash) {
        jdbc.sql("""
                        INSERT INTO person
                            (sign_in, name, role, password_hash, fleet_id, skills, working_days, active, version)
                        VALUES
                            (:signIn, :name, :role, :hash, :fleet, :skills, :days, :active, 1)
                        """)
                .param("signIn", person.signIn())
                .param("name", person.name())
                .param("role", person.role().name())
                .param("hash", passwordHash)
                .param("fleet", person.fleetId().orElse(null))
                .param("skills", join(person.skills()))
                .param("days", join(person.workingDays()))
                .param("active", person.active())
                .update();
    }

    /** False where the version is no longer the current one. */
    boolean update(Person person) {
        return jdbc.sql("""
                                UPDATE person
                                SET name = :name, role = :role, fleet_id = :fleet, skills = :skills,
                                    working_days = :days, active = :active, version = version + 1
                                WHERE id = :id AND version = :version
                                """)
                        .param("name", person.name())
                        .param("role", person.role().name())
                        .param("fleet", person.fleetId().orElse(null))
                        .param("skills", join(person.skills()))
                        .param("days", join(person.workingDays()))
                        .param("active", person.active())
                        .param("id", person.id())
                        .param("version", person.version())
                        .update()
                == 1;
    }

    private static Person person(ResultSet rs, int row) throws SQLException {
        return new Person(
                rs.getLong("id"),
                rs.getString("sign_in"),
                rs.getString("name"),
                Role.valueOf(rs.getString("role")),
                Optional.ofNullable(rs.getObject("fleet_id", Long.class)),
                split(rs.getString("skills"), Drive.class),
                split(rs.getString("working_days"), DayOfWeek.class),
                rs.getBoolean("active"),
                rs.getInt("version"));
    }

    private static String join(Set<? extends Enum<?>> values) {
        return values.stream().sorted().map(Enum::name).collect(Collectors.joining(","));
    }

    private static <E extends Enum<E>> Set<E> split(String text, Class<E> type) {
        return Arrays.stream(text.split(","))
                .filter(s -> !s.isEmpty())
                .map(s -> Enum.valueOf(type, s))
                .collect(Collectors.toUnmodifiableSet());
    }
}
