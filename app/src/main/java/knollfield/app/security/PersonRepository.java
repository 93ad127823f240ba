package knollfield.app.security;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.engine.Drive;
import knollfield.core.plan.WorkHours;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** People on file. */
@Repository
public class PersonRepository {

    private static final String COLUMNS =
            "id, sign_in, name, role, fleet_id, skills, working_days, hours, active, version";

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

    /** A fleet's name. */
    Optional<String> fleet(long id) {
        return jdbc.sql("SELECT name FROM fleet WHERE id = :id")
                .param("id", id)
                .query(String.class)
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

    /** When somebody's sessions were ended last; empty where never. */
    Optional<Instant> findSignedOutAt(long id) {
        return jdbc.sql("SELECT signed_out_at FROM person WHERE id = :id AND signed_out_at IS NOT NULL")
                .param("id", id)
                .query(OffsetDateTime.class)
                .optional()
                .map(OffsetDateTime::toInstant);
    }

    /** Ends the sessions begun before {@code at}; false where there is no such person. */
    boolean signOut(long id, Instant at) {
        return jdbc.sql("UPDATE person SET signed_out_at = :at WHERE id = :id")
                        .param("at", at.atOffset(ZoneOffset.UTC))
                        .param("id", id)
                        .update()
                == 1;
    }

    /** False where there is no such person. */
    boolean updatePassword(long id, String hash, Instant at) {
        return jdbc.sql("UPDATE person SET password_hash = :hash, signed_out_at = :at WHERE id = :id")
                        .param("hash", hash)
                        .param("at", at.atOffset(ZoneOffset.UTC))
                        .param("id", id)
                        .update()
                == 1;
    }

    /** Accounts whose password is kept as {@code hash}. */
    Set<Long> withPasswordHash(String hash) {
        return Set.copyOf(jdbc.sql("SELECT id FROM person WHERE password_hash = :hash")
                .param("hash", hash)
                .query(Long.class)
                .list());
    }

    /**
     * Managers who can sign in, kept from changing until this transaction ends: of two who take the role from each other,
     * the second waits and then sees what the first has done.
     */
    Set<Long> lockManagers() {
        return Set.copyOf(jdbc.sql("""
                        SELECT id FROM person
                        WHERE role = 'MANAGER' AND active AND password_hash <> :none
                        FOR UPDATE
                        """)
                .param("none", People.NO_PASSWORD)
                .query(Long.class)
                .list());
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
                            (sign_in, name, role, password_hash, fleet_id, skills, working_days, hours, active, version)
                        VALUES
                            (:signIn, :name, :role, :hash, :fleet, :skills, :days, :hours, :active, 1)
                        """)
                .param("signIn", person.signIn())
                .param("name", person.name())
                .param("role", person.role().name())
                .param("hash", passwordHash)
                .param("fleet", person.fleetId().orElse(null))
                .param("skills", join(person.skills()))
                .param("days", join(person.workingDays()))
                .param("hours", person.hours().map(WorkHours::write).orElse(""))
                .param("active", person.active())
                .update();
    }

    /** False where the version is no longer the current one. */
    boolean update(Person person) {
        return jdbc.sql("""
                                UPDATE person
                                SET name = :name, role = :role, fleet_id = :fleet, skills = :skills,
                                    working_days = :days, hours = :hours, active = :active, version = version + 1
                                WHERE id = :id AND version = :version
                                """)
                        .param("name", person.name())
                        .param("role", person.role().name())
                        .param("fleet", person.fleetId().orElse(null))
                        .param("skills", join(person.skills()))
                        .param("days", join(person.workingDays()))
                        .param("hours", person.hours().map(WorkHours::write).orElse(""))
                        .param("active", person.active())
                        .param("id", person.id())
                        .param("version", person.version())
                        .update()
                == 1;
    }

    void addChange(String name, String before, String after, String by, Instant at) {
        jdbc.sql("""
                        INSERT INTO person_change (at, by_name, name, before_text, after_text)
                        VALUES (:at, :by, :name, :before, :after)
                        """)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("by", by)
                .param("name", name)
                .param("before", before)
                .param("after", after)
                .update();
    }

    List<People.Change> changes(int most) {
        return jdbc.sql("""
                        SELECT at, by_name, name, before_text, after_text
                        FROM person_change
                        ORDER BY id DESC
                        FETCH FIRST :most ROWS ONLY
                        """)
                .param("most", most)
                .query((rs, row) -> new People.Change(
                        rs.getObject("at", OffsetDateTime.class).toInstant(),
                        rs.getString("by_name"),
                        rs.getString("name"),
                        rs.getString("before_text"),
                        rs.getString("after_text")))
                .list();
    }

    /** The shared secret of somebody's second factor, Base32; empty where there is none. */
    Optional<String> findSecondFactor(long id) {
        return jdbc.sql("SELECT second_factor FROM person WHERE id = :id AND second_factor IS NOT NULL")
                .param("id", id)
                .query(String.class)
                .optional();
    }

    void updateSecondFactor(long id, Optional<String> secret) {
        jdbc.sql("UPDATE person SET second_factor = :secret, second_factor_step = 0 WHERE id = :id")
                .param("secret", secret.orElse(null))
                .param("id", id)
                .update();
    }

    /** Notes that a code of this time step was used; false where one of it or of a later step was already. */
    boolean useSecondFactor(long id, long step) {
        return jdbc.sql("UPDATE person SET second_factor_step = :step WHERE id = :id AND second_factor_step < :step")
                        .param("step", step)
                        .param("id", id)
                        .update()
                == 1;
    }

    /** People who sign in with a second factor. */
    Set<Long> withSecondFactor() {
        return Set.copyOf(jdbc.sql("SELECT id FROM person WHERE second_factor IS NOT NULL")
                .query(Long.class)
                .list());
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
                Optional.of(rs.getString("hours")).filter(h -> !h.isEmpty()).map(WorkHours::read),
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
