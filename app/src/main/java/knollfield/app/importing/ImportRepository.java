package knollfield.app.importing;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import knollfield.app.security.People;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** What imports made and changed, and mappings kept by name. */
@Repository
class ImportRepository {

    /** The key column of each table an import touches; no other name gets into a statement. */
    private static final Map<String, String> KEYS = Map.of(
            "VEHICLE",
            "id",
            "READING",
            "id",
            "RENEWAL",
            "id",
            "VEHICLE_LOG",
            "id",
            "FLEET",
            "id",
            "OWNER",
            "id",
            "PART",
            "number",
            "PERSON",
            "sign_in");

    private final JdbcClient jdbc;
    /** One that writes what is null too: a column that was empty is put back empty. */
    private final JsonMapper json = JsonMapper.builder().build();

    ImportRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** @param made rows of vehicles, parts, readings or renewals it added */
    record Batch(long id, ImportKind kind, String fileName, Instant at, String by, int made, int changed) {}

    /** @param before the row as it was, where it was changed; empty where it was made */
    record Touched(String table, String key, OptionalInt versionAfter, Optional<String> before) {}

    long add(ImportKind kind, String fileName, Instant at, String by, int made, int changed) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO import_batch (kind, file_name, at, by_name, made, changed)
                        VALUES (:kind, :file, :at, :by, :made, :changed)
                        """)
                .param("kind", kind.name())
                .param("file", fileName)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("by", by)
                .param("made", made)
                .param("changed", changed)
                .update(key, "id");
        return Objects.requireNonNull(key.getKeyAs(Long.class));
    }

    void addRow(long batch, int seq, Touched row) {
        jdbc.sql("""
                        INSERT INTO import_row (batch_id, seq, what, row_key, version_after, before_body)
                        VALUES (:batch, :seq, :what, :key, :version, :before)
                        """)
                .param("batch", batch)
                .param("seq", seq)
                .param("what", row.table())
                .param("key", row.key())
                .param(
                        "version",
                        row.versionAfter().isPresent() ? row.versionAfter().getAsInt() : null)
                .param("before", row.before().orElse(null))
                .update();
    }

    List<Batch> batches() {
        return jdbc.sql("""
                        SELECT id, kind, file_name, at, by_name, made, changed
                        FROM import_batch
                        ORDER BY id DESC
                        FETCH FIRST 50 ROWS ONLY
                        """)
                .query((rs, row) -> new Batch(
                        rs.getLong("id"),
                        ImportKind.valueOf(rs.getString("kind")),
                        rs.getString("file_name"),
                        rs.getObject("at", OffsetDateTime.class).toInstant(),
                        rs.getString("by_name"),
                        rs.getInt("made"),
                        rs.getInt("changed")))
                .list();
    }

    /** Rows of an import, those touched last first. */
    List<Touched> rows(long batch) {
        return jdbc.sql("""
                        SELECT what, row_key, version_after, before_body
                        FROM import_row
                        WHERE batch_id = :batch
                        ORDER BY seq DESC
                        """)
                .param("batch", batch)
                .query((rs, row) -> {
                    Integer version = rs.getObject("version_after", Integer.class);
                    return new Touched(
                            rs.getString("what"),
                            rs.getString("row_key"),
                            version == null ? OptionalInt.empty() : OptionalInt.of(version),
                            Optional.ofNullable(rs.getString("before_body")));
                })
                .list();
    }

    void forget(long batch) {
        jdbc.sql("DELETE FROM import_row WHERE batch_id = :batch")
                .param("batch", batch)
                .update();
        jdbc.sql("DELETE FROM import_batch WHERE id = :batch")
                .param("batch", batch)
                .update();
    }

    /** A row as it stands, column by column. */
    Optional<String> body(String table, String key) {
        return jdbc
                .sql("SELECT * FROM %s WHERE %s = :key".formatted(checked(table), KEYS.get(table)))
                .param("key", key)
                .query()
                .listOfRows()
                .stream()
                .findFirst()
                .map(row -> {
                    Map<String, @Nullable Object> plain = new LinkedHashMap<>();
                    // what signs somebody in is in no other place
                    row.remove("PASSWORD_HASH");
                    row.forEach((column, value) -> plain.put(
                            column,
                            value == null || value instanceof Number || value instanceof Boolean
                                    ? value
                                    : value.toString()));
                    return json.writeValueAsString(plain);
                });
    }

    /**
     * Puts a row back as it was; its columns are those it was read with.
     *
     * @param owner number of the record of an owner's name and telephone, which stood on the vehicle itself in older imports
     */
    @SuppressWarnings("unchecked")
    void restore(Touched row, BiFunction<String, String, Optional<Long>> owner) {
        Map<String, @Nullable Object> before = json.readValue(row.before().orElseThrow(), Map.class);
        Object name = before.remove("OWNER_NAME");
        Object phone = before.remove("OWNER_PHONE");
        if (name != null && phone != null) {
            before.put(
                    "OWNER_ID", owner.apply(name.toString(), phone.toString()).orElse(null));
        }
        String set = before.keySet().stream()
                .filter(c -> c.matches("[A-Za-z_]+"))
                .map(c -> "%s = :%s".formatted(c, c.toLowerCase(Locale.ROOT)))
                .collect(Collectors.joining(", "));
        JdbcClient.StatementSpec sql = jdbc.sql(
                "UPDATE %s SET %s WHERE %s = :own_key".formatted(checked(row.table()), set, KEYS.get(row.table())));
        for (Map.Entry<String, @Nullable Object> e : before.entrySet()) {
            sql = sql.param(e.getKey().toLowerCase(Locale.ROOT), e.getValue());
        }
        sql.param("own_key", row.key()).update();
    }

    void delete(Touched row) {
        jdbc.sql("DELETE FROM %s WHERE %s = :key".formatted(checked(row.table()), KEYS.get(row.table())))
                .param("key", row.key())
                .update();
    }

    /** Deletes an owner whom nothing needs and nobody has touched. */
    void deleteOwner(Touched row) {
        jdbc.sql("""
                        DELETE FROM owner o
                        WHERE o.id = :key AND o.version = 1
                          AND NOT EXISTS (SELECT 1 FROM vehicle v WHERE v.owner_id = o.id)
                          AND NOT EXISTS (SELECT 1 FROM owner_change c WHERE c.from_owner = o.id OR c.to_owner = o.id)
                        """).param("key", row.key()).update();
    }

    OptionalInt version(String table, String key) {
        return jdbc.sql("SELECT version FROM %s WHERE %s = :key".formatted(checked(table), KEYS.get(table)))
                .param("key", key)
                .query(Integer.class)
                .optional()
                .map(OptionalInt::of)
                .orElse(OptionalInt.empty());
    }

    private static String checked(String table) {
        if (!KEYS.containsKey(table)) {
            throw new IllegalArgumentException("no import touches " + table);
        }
        return table;
    }

    /** What happened to a vehicle since, that would be lost with it; empty where nothing did. */
    Optional<String> restsOnVehicle(long id, List<String> ownReadings, List<String> ownRenewals) {
        Map<String, String> uses = new LinkedHashMap<>();
        uses.put("SELECT COUNT(*) FROM job WHERE vehicle_id = :id", "a job");
        uses.put("SELECT COUNT(*) FROM evidence WHERE vehicle_id = :id", "something found");
        uses.put("SELECT COUNT(*) FROM trip WHERE vehicle_id = :id", "a known trip");
        uses.put("SELECT COUNT(*) FROM call_note WHERE vehicle_id = :id", "a call");
        uses.put("SELECT COUNT(*) FROM standing_decline WHERE vehicle_id = :id", "a decline");
        for (Map.Entry<String, String> use : uses.entrySet()) {
            if (jdbc.sql(use.getKey()).param("id", id).query(Integer.class).single() > 0) {
                return Optional.of(use.getValue());
            }
        }
        if (others("reading", id, ownReadings)) {
            return Optional.of("another reading");
        }
        return others("renewal", id, ownRenewals) ? Optional.of("another renewal") : Optional.empty();
    }

    private boolean others(String table, long vehicle, List<String> own) {
        return jdbc
                .sql("SELECT id FROM %s WHERE vehicle_id = :vehicle".formatted(table))
                .param("vehicle", vehicle)
                .query(String.class)
                .list()
                .stream()
                .anyMatch(id -> !own.contains(id));
    }

    /** Vehicles that these readings and renewals belong to. */
    Set<Long> vehiclesOf(List<String> readings, List<String> renewals) {
        Set<Long> vehicles = new HashSet<>();
        Map.of("reading", readings, "renewal", renewals).forEach((table, ids) -> {
            Set<String> wanted = Set.copyOf(ids);
            jdbc.sql("SELECT id, vehicle_id FROM " + table)
                    .query((rs, row) -> wanted.contains(rs.getString("id")) && vehicles.add(rs.getLong("vehicle_id")))
                    .list();
        });
        return vehicles;
    }

    /** Number of the fleet of that very name, given up or not. */
    Optional<String> fleet(String name) {
        return jdbc.sql("SELECT id FROM fleet WHERE name = :name")
                .param("name", name)
                .query(String.class)
                .optional();
    }

    /** True where somebody can sign in, or has work, an absence or a view of their own. */
    boolean isPersonUsed(String signIn) {
        return jdbc.sql("""
                                SELECT COUNT(*) FROM person p
                                WHERE p.sign_in = :who
                                  AND (p.password_hash <> :none
                                       OR EXISTS (SELECT 1 FROM job j WHERE j.technician_id = p.id)
                                       OR EXISTS (SELECT 1 FROM no_show n WHERE n.technician_id = p.id)
                                       OR EXISTS (SELECT 1 FROM absence a WHERE a.person_id = p.id)
                                       OR EXISTS (SELECT 1 FROM saved_view v WHERE v.person_id = p.id)
                                       OR EXISTS (SELECT 1 FROM board_change b WHERE b.person_id = p.id))
                                """)
                        .param("who", signIn)
                        .param("none", People.NO_PASSWORD)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    /** True where a fleet has vehicles beside {@code own}, or people sign in for it. */
    boolean isFleetUsed(long fleet, List<String> own) {
        boolean people = jdbc.sql("SELECT COUNT(*) FROM person WHERE fleet_id = :fleet")
                        .param("fleet", fleet)
                        .query(Integer.class)
                        .single()
                > 0;
        return people
                || jdbc
                        .sql("SELECT id FROM vehicle WHERE fleet_id = :fleet")
                        .param("fleet", fleet)
                        .query(String.class)
                        .list()
                        .stream()
                        .anyMatch(id -> !own.contains(id));
    }

    /** True where one of these readings marks a new odometer. */
    boolean isReadingUsed(List<String> readings) {
        Set<String> wanted = Set.copyOf(readings);
        return jdbc.sql("SELECT reading_id FROM odometer_replacement").query(String.class).list().stream()
                .anyMatch(wanted::contains);
    }

    /** Day and kilometres of every reading, by vehicle, as keys to compare with. */
    List<String> readingKeys() {
        return jdbc.sql("SELECT vehicle_id, read_on, km FROM reading WHERE NOT marked_wrong")
                .query((rs, row) ->
                        readingKey(rs.getLong("vehicle_id"), String.valueOf(rs.getDate("read_on")), rs.getInt("km")))
                .list();
    }

    static String readingKey(long vehicle, String day, int km) {
        return vehicle + "|" + day + "|" + km;
    }

    List<String> renewalKeys() {
        return jdbc.sql("SELECT vehicle_id, item_code, renewed_on, km FROM renewal")
                .query((rs, row) -> renewalKey(
                        rs.getLong("vehicle_id"),
                        rs.getString("item_code"),
                        String.valueOf(rs.getDate("renewed_on")),
                        rs.getInt("km")))
                .list();
    }

    static String renewalKey(long vehicle, String item, String day, int km) {
        return vehicle + "|" + item + "|" + day + "|" + km;
    }

    /** @param body settings as the page sends them, with columns by their headings */
    record Mapping(String name, String body) {}

    List<Mapping> mappings() {
        return jdbc.sql("SELECT name, body FROM import_mapping ORDER BY name")
                .query((rs, row) -> new Mapping(rs.getString("name"), rs.getString("body")))
                .list();
    }

    void keepMapping(Mapping m) {
        jdbc.sql("MERGE INTO import_mapping (name, body) KEY (name) VALUES (:name, :body)")
                .param("name", m.name())
                .param("body", m.body())
                .update();
    }

    void forgetMapping(String name) {
        jdbc.sql("DELETE FROM import_mapping WHERE name = :name")
                .param("name", name)
                .update();
    }
}
