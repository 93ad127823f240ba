package knollfield.app.data;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.LinkedHashMap;
import java.util.Map;
import org.flywaydb.core.Flyway;

/** An H2 database file, opened by itself: before the server runs on it, or as a copy that is tried. */
final class Database {

    static final String USER = "knollfield";

    /** H2's own files of what it did are off: they would hold data, and grow. */
    private static final String SETTINGS = ";DB_CLOSE_ON_EXIT=FALSE;TRACE_LEVEL_FILE=0";

    /** H2's code for a wrong user or password. */
    static final int WRONG_PASSWORD = 28000;

    /** H2's codes for a file that another process, or another part of this one, has open. */
    private static final int IN_USE = 90020;

    private Database() {}

    /** @param base path without an ending */
    static String url(Path base) {
        return "jdbc:h2:file:" + base + SETTINGS;
    }

    static Connection open(DataFolder folder, String password) throws SQLException {
        return DriverManager.getConnection(url(folder.base()) + ";IFEXISTS=TRUE", USER, password);
    }

    static boolean inUse(SQLException e) {
        return e.getErrorCode() == IN_USE;
    }

    /** Begins a database with this password. */
    static void create(DataFolder folder, String password) throws SQLException {
        DriverManager.getConnection(url(folder.base()), USER, password).close();
    }

    /** True where the schema is ours, whatever its version. */
    static boolean ours(Connection connection) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery("""
                        SELECT COUNT(*) FROM information_schema.tables
                        WHERE LOWER(table_name) IN ('flyway_schema_history', 'person', 'vehicle', 'reading')
                        """)) {
            return found.next() && found.getInt(1) == 4;
        }
    }

    /** True where nothing has been made in it. */
    static boolean empty(Connection connection) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery(
                        "SELECT COUNT(*) FROM information_schema.tables WHERE table_schema = 'PUBLIC'")) {
            return found.next() && found.getInt(1) == 0;
        }
    }

    private static Flyway flyway(DataFolder folder, String password) {
        return Flyway.configure()
                .dataSource(url(folder.base()) + ";IFEXISTS=TRUE", USER, password)
                .load();
    }

    /** Whether the schema lacks changes that this version brings. */
    static boolean behind(DataFolder folder, String password) {
        return flyway(folder, password).info().pending().length > 0;
    }

    /** Whether the schema has changes that this version does not know. */
    static boolean ahead(DataFolder folder, String password) {
        Flyway flyway = flyway(folder, password);
        int newest = java.util.Arrays.stream(flyway.info().all())
                .filter(i -> !i.getState().name().startsWith("FUTURE"))
                .map(i -> i.getVersion())
                .filter(java.util.Objects::nonNull)
                .mapToInt(v -> v.getMajor().intValue())
                .max()
                .orElse(0);
        int applied = java.util.Arrays.stream(flyway.info().applied())
                .map(i -> i.getVersion())
                .filter(java.util.Objects::nonNull)
                .mapToInt(v -> v.getMajor().intValue())
                .max()
                .orElse(0);
        return applied > newest;
    }

    static void migrate(DataFolder folder, String password) {
        flyway(folder, password).migrate();
    }

    static void setPassword(Connection connection, String password) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            // H2 takes no parameter here; a key has letters and digits only
            statement.execute("ALTER USER " + USER + " SET PASSWORD '" + password.replace("'", "''") + "'");
        }
    }

    /** How many times the file has been written to; it only rises, and a file that lost its end is behind. */
    static long written(Connection connection) throws SQLException {
        return setting(connection, "info.CURRENT_VERSION");
    }

    /** How much of the file is data of now, per cent. */
    static long filledPercent(Connection connection) throws SQLException {
        return setting(connection, "info.CHUNKS_FILL_RATE");
    }

    private static long setting(Connection connection, String name) throws SQLException {
        try (PreparedStatement statement = connection.prepareStatement(
                "SELECT setting_value FROM information_schema.settings WHERE setting_name = ?")) {
            statement.setString(1, name);
            try (ResultSet found = statement.executeQuery()) {
                return found.next() ? found.getLong(1) : 0;
            }
        }
    }

    /**
     * Reads every row there is.
     *
     * @return rows by table
     */
    static Map<String, Long> readAll(Connection connection) throws SQLException {
        Map<String, Long> rows = new LinkedHashMap<>();
        try (Statement names = connection.createStatement();
                ResultSet table = names.executeQuery("""
                        SELECT table_name FROM information_schema.tables
                        WHERE table_schema = 'PUBLIC' AND table_type = 'BASE TABLE' ORDER BY table_name
                        """)) {
            while (table.next()) {
                String name = table.getString(1);
                try (Statement statement = connection.createStatement();
                        ResultSet all = statement.executeQuery("SELECT * FROM \"" + name + "\"")) {
                    long count = 0;
                    while (all.next()) {
                        count++;
                    }
                    rows.put(name.toLowerCase(java.util.Locale.ROOT), count);
                }
            }
        }
        return rows;
    }

    /** Closes it with nothing in the file that is not data. */
    static void compact(Connection connection) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            statement.execute("SHUTDOWN COMPACT");
        }
    }
}
