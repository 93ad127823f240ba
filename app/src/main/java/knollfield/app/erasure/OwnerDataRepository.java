package knollfield.app.erasure;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/**
 * Everything that is kept of one owner, wherever it stands: rows of the owner, of the owner's vehicles and of their jobs.
 * Tables are found by what their columns are called, so that one that comes later is found too.
 */
@Repository
class OwnerDataRepository {

    /** How a table's rows hang on an owner, by the name of a column. */
    private static final Map<String, String> BY = Map.of(
            "owner_id", "owner_id = :owner",
            "vehicle_id", "vehicle_id IN (SELECT id FROM vehicle WHERE owner_id = :owner)",
            "job_id",
                    "job_id IN (SELECT j.id FROM job j JOIN vehicle v ON v.id = j.vehicle_id WHERE v.owner_id = :owner)");

    /** The same for one vehicle. */
    private static final Map<String, String> FORMER = Map.of(
            "vehicle_id", "vehicle_id = :owner", "job_id", "job_id IN (SELECT id FROM job WHERE vehicle_id = :owner)");

    /** The owner, and those who were found to be the same. */
    private static final String SAME = "(SELECT id FROM owner WHERE id = :owner OR merged_into = :owner)";

    /** Signed and sealed, it stays as it was signed. */
    private static final Set<String> SEALED = Set.of("job_record");

    /** Not about the owner, though a job's. */
    private static final Set<String> OTHER = Set.of("card_plan", "photo");

    private final JdbcClient jdbc;

    OwnerDataRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * A table and how its rows hang on an owner.
     *
     * @param texts columns that hold text
     */
    private record Table(String name, String where, List<String> texts, List<String> columns) {}

    private List<Table> tables() {
        Map<String, Map<String, String>> columns = new LinkedHashMap<>();
        jdbc.sql("""
                        SELECT LOWER(c.table_name) AS t, LOWER(c.column_name) AS n, c.data_type AS d
                        FROM information_schema.columns c
                        JOIN information_schema.tables t ON t.table_schema = c.table_schema AND t.table_name = c.table_name
                        WHERE c.table_schema = 'PUBLIC' AND t.table_type = 'BASE TABLE'
                        ORDER BY c.table_name, c.ordinal_position
                        """)
                .query((rs, row) -> columns.computeIfAbsent(rs.getString("t"), t -> new LinkedHashMap<>())
                        .put(rs.getString("n"), rs.getString("d")))
                .list();
        List<Table> tables = new ArrayList<>();
        tables.add(table("owner", "id = :owner", columns.getOrDefault("owner", Map.of())));
        tables.add(table("vehicle", "owner_id = :owner", columns.getOrDefault("vehicle", Map.of())));
        columns.forEach((name, of) -> {
            if (name.equals("owner") || name.equals("vehicle") || OTHER.contains(name)) {
                return;
            }
            for (String by : List.of("owner_id", "vehicle_id", "job_id")) {
                if (of.containsKey(by)) {
                    tables.add(table(name, BY.getOrDefault(by, ""), of));
                    return;
                }
            }
        });
        return tables;
    }

    private static Table table(String name, String where, Map<String, String> columns) {
        return new Table(
                name,
                where,
                columns.entrySet().stream()
                        .filter(c -> c.getValue().startsWith("CHARACTER"))
                        .map(Map.Entry::getKey)
                        .toList(),
                columns.entrySet().stream()
                        .filter(c -> !c.getValue().startsWith("BINARY"))
                        .map(Map.Entry::getKey)
                        .filter(c -> !c.contains("hash"))
                        .toList());
    }

    /** All of it, row by row, by table. */
    Map<String, List<Map<String, Object>>> copy(long owner) {
        Map<String, List<Map<String, Object>>> copy = new LinkedHashMap<>();
        for (Table t : tables()) {
            String selected = String.join(
                    ", ",
                    t.columns().stream()
                            .map(c -> "CAST(" + c + " AS VARCHAR) AS " + c)
                            .toList());
            List<Map<String, Object>> rows = jdbc.sql(
                            "SELECT " + selected + " FROM " + t.name() + " WHERE " + t.where())
                    .param("owner", owner)
                    .query()
                    .listOfRows();
            if (!rows.isEmpty()) {
                copy.put(t.name(), rows.stream().map(OwnerDataRepository::small).toList());
            }
        }
        return copy;
    }

    private static Map<String, Object> small(Map<String, Object> row) {
        Map<String, Object> small = new LinkedHashMap<>();
        row.forEach((name, value) -> {
            if (value != null) {
                small.put(name.toLowerCase(Locale.ROOT), value);
            }
        });
        return small;
    }

    /** Puts {@code instead} in the place of a text, wherever it stands in what hangs on the owner. */
    void replace(long owner, String text, String instead) {
        for (Table t : tables()) {
            replace(t, t.where(), owner, text, instead);
        }
    }

    /** The same in what hangs on a vehicle that was the owner's once. */
    void replaceAtFormer(long vehicle, String text, String instead) {
        for (Table t : tables()) {
            FORMER.entrySet().stream()
                    .filter(by -> t.columns().contains(by.getKey()))
                    .findFirst()
                    .ifPresent(by -> replace(t, by.getValue(), vehicle, text, instead));
        }
    }

    /** @param of the number that {@code where} asks for */
    private void replace(Table t, String where, long of, String text, String instead) {
        if (SEALED.contains(t.name())) {
            return;
        }
        for (String column : t.texts()) {
            jdbc.sql("UPDATE %s SET %s = REPLACE(%s, :text, :instead) WHERE %s AND LOCATE(:text, %s) > 0"
                            .formatted(t.name(), column, column, where, column))
                    .param("text", text)
                    .param("instead", instead)
                    .param("owner", of)
                    .update();
        }
    }

    /** What a vehicle's log says was so before a day. */
    record Before(long vehicle, LocalDate day, String what, String text) {}

    /** Changes in which a name stood before, of vehicles that are not the owner's. */
    List<Before> elsewhere(long owner, String name) {
        return jdbc.sql("""
                        SELECT vehicle_id, CAST(at AS DATE) AS until_day, what, before_text
                        FROM vehicle_log
                        WHERE LOCATE(:name, before_text) > 0
                          AND vehicle_id NOT IN (SELECT id FROM vehicle WHERE owner_id = :owner)
                        ORDER BY id
                        """)
                .param("owner", owner)
                .param("name", name)
                .query((rs, row) -> new Before(
                        rs.getLong("vehicle_id"),
                        rs.getDate("until_day").toLocalDate(),
                        rs.getString("what"),
                        rs.getString("before_text")))
                .list();
    }

    /** Empties what was said by whom on a vehicle up to a day. */
    void emptyAtFormer(long vehicle, LocalDate until, String instead) {
        for (String statement : List.of(
                "UPDATE call_note SET spoke_with = :instead, note = '', ask_again_on = NULL WHERE vehicle_id = :vehicle AND spoken_on <= :until",
                "UPDATE standing_decline SET declined_by = :instead WHERE vehicle_id = :vehicle AND declined_on <= :until",
                "UPDATE vehicle_log SET what = 'call', after_text = '' WHERE vehicle_id = :vehicle AND what LIKE 'call with %' AND CAST(at AS DATE) <= :until",
                "UPDATE vehicle_log SET what = 'declined by ' || :instead WHERE vehicle_id = :vehicle AND what LIKE 'declined by %' AND CAST(at AS DATE) <= :until")) {
            var asked = jdbc.sql(statement).param("vehicle", vehicle).param("until", until);
            (statement.contains(":instead") ? asked.param("instead", instead) : asked).update();
        }
    }

    /** Empties what was said and written to the owner, and every address; the vehicles' own record stays. */
    void empty(long owner, String instead) {
        String ofVehicles = BY.getOrDefault("vehicle_id", "");
        String ofJobs = BY.getOrDefault("job_id", "");
        for (String statement : List.of(
                "DELETE FROM owner_phone WHERE owner_id IN " + SAME,
                "UPDATE owner SET name = :instead, address = '', email = '', language = '', speakers = '', may_write = FALSE, version = version + 1 WHERE id IN "
                        + SAME,
                // what a merge or split could be taken back to
                "UPDATE owner_change SET undone = TRUE, to_before = NULL WHERE from_owner IN " + SAME
                        + " OR to_owner IN " + SAME,
                "UPDATE call_note SET spoke_with = :instead, note = '', ask_again_on = NULL WHERE " + ofVehicles,
                "UPDATE standing_decline SET declined_by = :instead WHERE " + ofVehicles,
                "UPDATE vehicle_log SET what = 'call', after_text = '' WHERE what LIKE 'call with %' AND " + ofVehicles,
                "UPDATE vehicle_log SET what = 'declined by ' || :instead WHERE what LIKE 'declined by %' AND "
                        + ofVehicles,
                "UPDATE consent SET said_by = :instead WHERE " + ofJobs,
                "UPDATE outbox_message SET to_name = :instead, to_place = '', subject = '', body = '' WHERE owner_id = :owner",
                "UPDATE owner_link SET revoked_at = CURRENT_TIMESTAMP WHERE revoked_at IS NULL AND " + ofJobs)) {
            var asked = jdbc.sql(statement).param("owner", owner);
            (statement.contains(":instead") ? asked.param("instead", instead) : asked).update();
        }
    }

    /** Numbers of the owner's vehicles. */
    List<Long> vehicles(long owner) {
        return jdbc.sql("SELECT id FROM vehicle WHERE owner_id = :owner ORDER BY id")
                .param("owner", owner)
                .query(Long.class)
                .list();
    }
}
