package knollfield.app.vehicle;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.app.log.Made;
import knollfield.app.shared.Folded;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Owners, their numbers, and which vehicles went from one to another. */
@Repository
class OwnerRepository {

    private static final String SELECT = """
            SELECT o.id, o.name, o.kind, o.address, o.email, o.prefers, o.language, o.may_write, o.speakers, o.version,
                   p.number, p.label
            FROM owner o
            LEFT JOIN owner_phone p ON p.owner_id = o.id
            """;

    private final JdbcClient jdbc;
    private final Made made;
    private final JsonMapper json;

    OwnerRepository(JdbcClient jdbc, Made made, JsonMapper json) {
        this.json = json;
        this.jdbc = jdbc;
        this.made = made;
    }

    Optional<Owner> find(long id) {
        return gathered(jdbc.sql(SELECT + " WHERE o.id = :id AND o.merged_into IS NULL ORDER BY p.place")
                        .param("id", id)
                        .query(OwnerRepository::row)
                        .list())
                .stream()
                .findFirst();
    }

    /** Those whose vehicles are another's now too, for whoever asks by an old number. */
    Optional<Long> mergedInto(long id) {
        return jdbc.sql("SELECT merged_into FROM owner WHERE id = :id AND merged_into IS NOT NULL")
                .param("id", id)
                .query(Long.class)
                .optional();
    }

    /** Those of {@code ids}, by name. */
    List<Owner> of(Collection<Long> ids) {
        return ids.isEmpty()
                ? List.of()
                // joined, however many they are: each of thousands would be compared with all others
                : gathered(jdbc.sql("""
                                SELECT o.id, o.name, o.kind, o.address, o.email, o.prefers, o.language, o.may_write, o.speakers,
                                       o.version, p.number, p.label
                                FROM UNNEST(CAST(:ids AS BIGINT ARRAY)) AS w (id)
                                JOIN owner o ON o.id = w.id
                                LEFT JOIN owner_phone p ON p.owner_id = o.id
                                ORDER BY LOWER(o.name), o.id, p.place
                                """)
                        .param("ids", ids.toArray(Long[]::new))
                        .query(OwnerRepository::row)
                        .list());
    }

    /** What an owner is found by. */
    private record Named(long id, String words) {}

    /**
     * Numbers of the owners, by name, whose name, e-mail and address hold each of {@code words}, or who have a telephone number
     * that {@code digits} is part of, or that {@code digits} with a country before it ends in.
     *
     * @param words as {@link Folded} has them; none finds everybody
     * @param digits without the zeros in front; empty where no number is asked for
     */
    List<Long> matching(List<String> words, String digits) {
        Set<Long> byNumber = digits.isEmpty() ? Set.of() : withNumber(digits);
        return jdbc
                .sql("""
                        SELECT id, name || ' ' || email || ' ' || address AS words
                        FROM owner
                        WHERE merged_into IS NULL
                        ORDER BY LOWER(name), id
                        """)
                .query((rs, row) -> new Named(rs.getLong("id"), Folded.of(rs.getString("words"))))
                .list()
                .stream()
                .filter(o -> words.stream().allMatch(o.words()::contains) || byNumber.contains(o.id()))
                .map(Named::id)
                .toList();
    }

    private Set<Long> withNumber(String digits) {
        return new HashSet<>(jdbc.sql("""
                        SELECT DISTINCT p.owner_id FROM owner_phone p
                        WHERE LOCATE(:digits, p.digits) > 0
                           OR (LENGTH(TRIM(LEADING '0' FROM p.digits)) >= :least
                               AND RIGHT(:digits, LENGTH(TRIM(LEADING '0' FROM p.digits)))
                                   = TRIM(LEADING '0' FROM p.digits))
                        """)
                .param("digits", digits)
                .param("least", PhoneNumber.SUBSCRIBER)
                .query(Long.class)
                .list());
    }

    /** Numbers of other owners of the same name, or with one of the same telephone numbers. */
    List<Long> alike(long owner) {
        return jdbc.sql("""
                        SELECT o.id
                        FROM owner o
                        WHERE o.id <> :owner AND o.merged_into IS NULL
                          AND (LOWER(TRIM(o.name)) = (SELECT LOWER(TRIM(name)) FROM owner WHERE id = :owner)
                               OR o.id IN (SELECT p.owner_id FROM owner_phone p
                                           JOIN owner_phone own ON own.digits = p.digits AND own.owner_id = :owner))
                        ORDER BY LOWER(o.name), o.id
                        """).param("owner", owner).query(Long.class).list();
    }

    private record Row(Owner owner, Optional<Owner.Phone> phone) {}

    private static Row row(ResultSet rs, int row) throws SQLException {
        String number = rs.getString("number");
        return new Row(
                new Owner(
                        rs.getLong("id"),
                        rs.getString("name"),
                        Owner.Kind.valueOf(rs.getString("kind")),
                        rs.getString("address"),
                        rs.getString("email"),
                        Owner.Prefers.valueOf(rs.getString("prefers")),
                        rs.getString("language"),
                        rs.getBoolean("may_write"),
                        List.of(),
                        rs.getString("speakers").lines().toList(),
                        rs.getInt("version")),
                number == null ? Optional.empty() : Optional.of(new Owner.Phone(number, rs.getString("label"))));
    }

    /** Rows of one owner, which stand beside each other, made one. */
    private static List<Owner> gathered(List<Row> rows) {
        List<Owner> owners = new ArrayList<>();
        List<Owner.Phone> phones = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            Owner o = rows.get(i).owner();
            rows.get(i).phone().ifPresent(phones::add);
            if (i + 1 == rows.size() || rows.get(i + 1).owner().id() != o.id()) {
                owners.add(o.with(phones));
                phones.clear();
            }
        }
        return owners;
    }

    /** An owner of that name who has that number; where it is none, one of that name who has none. */
    Optional<Long> named(String name, String phone) {
        String digits = PhoneNumber.digits(phone);
        String number = digits.isEmpty()
                ? "NOT EXISTS (SELECT 1 FROM owner_phone p WHERE p.owner_id = o.id)"
                : "EXISTS (SELECT 1 FROM owner_phone p WHERE p.owner_id = o.id AND p.digits = :digits)";
        return jdbc.sql("""
                        SELECT o.id
                        FROM owner o
                        WHERE o.name_key = :name AND o.merged_into IS NULL AND %s
                        ORDER BY o.id
                        FETCH FIRST 1 ROW ONLY
                        """.formatted(number))
                .param("name", name.strip().toLowerCase(Locale.ROOT))
                .param("digits", digits)
                .query(Long.class)
                .optional();
    }

    long add(Owner owner) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO owner (name, kind, address, email, prefers, language, may_write, speakers, version)
                        VALUES (:name, :kind, :address, :email, :prefers, :language, :write, :speakers, 1)
                        """).params(fields(owner)).update(key, "id");
        long id = Objects.requireNonNull(key.getKeyAs(Long.class));
        made.row(Made.Table.OWNER, id);
        setPhones(id, owner.phones());
        return id;
    }

    /** False where the version is no longer the current one. */
    boolean update(Owner owner) {
        int changed = jdbc.sql("""
                        UPDATE owner
                        SET name = :name, kind = :kind, address = :address, email = :email, prefers = :prefers,
                            language = :language, may_write = :write, speakers = :speakers, version = version + 1
                        WHERE id = :id AND version = :version AND merged_into IS NULL
                        """)
                .params(fields(owner))
                .param("id", owner.id())
                .param("version", owner.version())
                .update();
        if (changed == 1) {
            setPhones(owner.id(), owner.phones());
        }
        return changed == 1;
    }

    private static Map<String, Object> fields(Owner o) {
        Map<String, Object> fields = new HashMap<>();
        fields.put("name", o.name());
        fields.put("kind", o.kind().name());
        fields.put("address", o.address());
        fields.put("email", o.email());
        fields.put("prefers", o.prefers().name());
        fields.put("language", o.language());
        fields.put("write", o.mayWrite());
        fields.put("speakers", String.join("\n", o.speakers()));
        return fields;
    }

    private void setPhones(long id, List<Owner.Phone> phones) {
        jdbc.sql("DELETE FROM owner_phone WHERE owner_id = :id").param("id", id).update();
        for (int i = 0; i < phones.size(); i++) {
            jdbc.sql("""
                            INSERT INTO owner_phone (owner_id, place, number, label, digits)
                            VALUES (:id, :place, :number, :label, :digits)
                            """)
                    .param("id", id)
                    .param("place", i)
                    .param("number", phones.get(i).number())
                    .param("label", phones.get(i).label())
                    .param("digits", PhoneNumber.digits(phones.get(i).number()))
                    .update();
        }
    }

    List<Long> vehicles(long owner) {
        return jdbc.sql("SELECT id FROM vehicle WHERE owner_id = :owner ORDER BY id")
                .param("owner", owner)
                .query(Long.class)
                .list();
    }

    /** Gives vehicles of {@code from} to {@code to}; how many went. */
    int give(Collection<Long> vehicles, long from, long to) {
        if (vehicles.isEmpty()) {
            return 0;
        }
        return jdbc.sql("""
                        UPDATE vehicle SET owner_id = :to, version = version + 1
                        WHERE owner_id = :from AND id IN (:vehicles)
                        """)
                .param("to", to)
                .param("from", from)
                .param("vehicles", vehicles)
                .update();
    }

    /** Marks {@code owner} as another now, or as himself again where {@code into} is empty. */
    void merged(long owner, Optional<Long> into) {
        jdbc.sql("UPDATE owner SET merged_into = :into, version = version + 1 WHERE id = :owner")
                .param("into", into.orElse(null))
                .param("owner", owner)
                .update();
    }

    void remember(
            Instant at,
            String by,
            OwnerChange.What what,
            long from,
            long to,
            List<Long> vehicles,
            Optional<Owner> toBefore) {
        jdbc.sql("""
                        INSERT INTO owner_change (at, made_by, what, from_owner, to_owner, vehicles, to_before)
                        VALUES (:at, :by, :what, :from, :to, :vehicles, :before)
                        """)
                .param("before", toBefore.map(json::writeValueAsString).orElse(null))
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("by", by)
                .param("what", what.name())
                .param("from", from)
                .param("to", to)
                .param("vehicles", vehicles.stream().map(String::valueOf).collect(Collectors.joining(",")))
                .update();
    }

    /** What was merged with or split from an owner and can be undone, newest first. */
    List<OwnerChange> changes(long owner) {
        return jdbc.sql("""
                        SELECT c.id, c.at, c.made_by, c.what, c.from_owner, f.name AS from_name, c.to_owner,
                               t.name AS to_name, c.vehicles, c.to_before
                        FROM owner_change c
                        JOIN owner f ON f.id = c.from_owner
                        JOIN owner t ON t.id = c.to_owner
                        WHERE NOT c.undone AND (c.from_owner = :owner OR c.to_owner = :owner)
                        ORDER BY c.id DESC
                        """)
                .param("owner", owner)
                .query((rs, row) -> new OwnerChange(
                        rs.getLong("id"),
                        rs.getObject("at", OffsetDateTime.class).toInstant(),
                        rs.getString("made_by"),
                        OwnerChange.What.valueOf(rs.getString("what")),
                        rs.getLong("from_owner"),
                        rs.getString("from_name"),
                        rs.getLong("to_owner"),
                        rs.getString("to_name"),
                        Arrays.stream(rs.getString("vehicles").split(","))
                                .filter(v -> !v.isEmpty())
                                .map(Long::valueOf)
                                .toList(),
                        Optional.ofNullable(rs.getString("to_before")).map(o -> json.readValue(o, Owner.class))))
                .list();
    }

    /** False where it was undone already. */
    boolean undone(long change) {
        return jdbc.sql("UPDATE owner_change SET undone = TRUE WHERE id = :id AND NOT undone")
                        .param("id", change)
                        .update()
                == 1;
    }

    /** Counts the version up; false where it is no longer the current one. */
    boolean touch(long owner, int version) {
        return jdbc.sql("UPDATE owner SET version = version + 1 WHERE id = :id AND version = :version")
                        .param("id", owner)
                        .param("version", version)
                        .update()
                == 1;
    }
}
