package knollfield.app.transfer;

import java.io.InputStream;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Whole tables as text, out and in; every value as the database writes it and reads it again. */
@Repository
class TransferRepository {

    private final JdbcClient jdbc;

    TransferRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Tables of the application, without the one that keeps the schema's own history. */
    List<String> tables() {
        return jdbc.sql("""
                        SELECT LOWER(table_name) FROM information_schema.tables
                        WHERE table_schema = 'PUBLIC' AND table_name NOT LIKE 'flyway%' ORDER BY table_name
                        """).query(String.class).list();
    }

    /** The newest migration that this database has had. */
    String schema() {
        return jdbc.sql("""
                        SELECT "version" FROM "flyway_schema_history" WHERE "success"
                        ORDER BY "installed_rank" DESC FETCH FIRST 1 ROW ONLY
                        """).query(String.class).single();
    }

    /** Columns of a table in their order, without {@code apart} and those that follow from others. */
    List<String> columns(String table, List<String> apart) {
        return jdbc.sql("""
                        SELECT LOWER(column_name) FROM information_schema.columns
                        WHERE table_schema = 'PUBLIC' AND LOWER(table_name) = :table AND is_generated = 'NEVER'
                        ORDER BY ordinal_position
                        """).param("table", table).query(String.class).list().stream()
                .filter(c -> !apart.contains(c))
                .toList();
    }

    int count(String table) {
        return jdbc.sql("SELECT COUNT(*) FROM " + table).query(Integer.class).single();
    }

    /** Each row's values as text, in the order of the table's key; null where there is none. */
    void rows(String table, List<String> columns, Consumer<List<@Nullable String>> row) {
        String selected =
                columns.stream().map(c -> "CAST(" + c + " AS VARCHAR)").collect(Collectors.joining(", "));
        jdbc
                .sql("SELECT " + selected + " FROM " + table + " ORDER BY " + key(table))
                .query((rs, n) -> texts(rs))
                .stream()
                .forEach(row);
    }

    private static List<@Nullable String> texts(ResultSet rs) throws SQLException {
        ResultSetMetaData meta = rs.getMetaData();
        List<@Nullable String> values = new ArrayList<>();
        for (int i = 1; i <= meta.getColumnCount(); i++) {
            values.add(rs.getString(i));
        }
        return values;
    }

    private String key(String table) {
        return String.join(
                ", ", jdbc.sql("""
                        SELECT LOWER(k.column_name)
                        FROM information_schema.key_column_usage k
                        JOIN information_schema.table_constraints c ON c.constraint_name = k.constraint_name
                        WHERE c.constraint_type = 'PRIMARY KEY' AND LOWER(c.table_name) = :table
                        ORDER BY k.ordinal_position
                        """).param("table", table).query(String.class).list());
    }

    /** Books of engine families, each with its code and version. */
    void books(BiConsumer<String, String> book) {
        jdbc
                .sql("SELECT code, version, body FROM engine_family ORDER BY code, version")
                .query((rs, n) -> Map.entry(rs.getString("code") + ".v" + rs.getInt("version"), rs.getString("body")))
                .stream()
                .forEach(e -> book.accept(e.getKey(), e.getValue()));
    }

    /** Pictures, one after the other, by their id. */
    void photos(BiConsumer<Long, byte[]> photo) {
        jdbc.sql("SELECT id FROM photo ORDER BY id")
                .query(Long.class)
                .list()
                .forEach(id -> photo.accept(
                        id,
                        jdbc.sql("SELECT bytes FROM photo WHERE id = :id")
                                .param("id", id)
                                .query((rs, n) -> rs.getBytes("bytes"))
                                .single()));
    }

    void empty(String table) {
        jdbc.sql("DELETE FROM " + table).update();
    }

    /** Puts one row back; the database reads each text as its column's type. */
    void insert(String table, List<String> columns, List<@Nullable String> values) {
        JdbcClient.StatementSpec spec = jdbc.sql("INSERT INTO %s (%s) VALUES (%s)"
                .formatted(
                        table,
                        String.join(", ", columns),
                        IntStream.range(0, columns.size()).mapToObj(i -> "?").collect(Collectors.joining(", "))));
        for (String value : values) {
            spec = spec.param(value);
        }
        spec.update();
    }

    /** Puts one row back whose column {@code more} has {@code bytes}. */
    void insert(String table, List<String> columns, List<@Nullable String> values, String more, InputStream bytes) {
        List<String> all = new ArrayList<>(columns);
        all.add(more);
        JdbcClient.StatementSpec spec = jdbc.sql("INSERT INTO %s (%s) VALUES (%s)"
                .formatted(
                        table,
                        String.join(", ", all),
                        IntStream.range(0, all.size()).mapToObj(i -> "?").collect(Collectors.joining(", "))));
        for (String value : values) {
            spec = spec.param(value);
        }
        spec.param(bytes).update();
    }

    /** Tables that number their rows themselves go on after the highest number that came. */
    void numberOn(String table) {
        boolean numbers =
                jdbc.sql("""
                        SELECT COUNT(*) FROM information_schema.columns
                        WHERE LOWER(table_name) = :table AND is_identity = 'YES'
                        """).param("table", table).query(Integer.class).single() > 0;
        if (numbers) {
            long next = jdbc.sql("SELECT COALESCE(MAX(id), 0) + 1 FROM " + table)
                    .query(Long.class)
                    .single();
            jdbc.sql("ALTER TABLE %s ALTER COLUMN id RESTART WITH %d".formatted(table, next))
                    .update();
        }
    }

    /** What was on its way out is sent by the workshop it was written in, not once more from here. */
    void holdBack() {
        jdbc.sql("""
                        UPDATE outbox_message SET state = 'TAKEN_BACK', failure = 'left to the workshop it came from'
                        WHERE state NOT IN ('SENT', 'TAKEN_BACK')
                        """).update();
    }

    /** Password hashes by sign-in name, which never leave the workshop. */
    Map<String, String> passwords() {
        return jdbc
                .sql("SELECT LOWER(sign_in) AS who, password_hash FROM person")
                .query((rs, n) -> Map.entry(rs.getString("who"), rs.getString("password_hash")))
                .list()
                .stream()
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
    }

    void setPassword(String signIn, String hash) {
        jdbc.sql("UPDATE person SET password_hash = :hash WHERE LOWER(sign_in) = LOWER(:who)")
                .param("hash", hash)
                .param("who", signIn)
                .update();
    }

    /** Ends every session: its number may be another person's now. */
    void signEverybodyOut(Instant at) {
        jdbc.sql("UPDATE person SET signed_out_at = :at")
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update();
    }

    List<Long> vehicles() {
        return jdbc.sql("SELECT id FROM vehicle").query(Long.class).list();
    }
}
