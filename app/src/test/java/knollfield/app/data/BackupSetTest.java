package knollfield.app.data;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import net.lingala.zip4j.ZipFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A backup is the same data again, table by table; a damaged one is known for it and changes nothing. */
class BackupSetTest {

    @TempDir
    Path place;

    static Path of(DataFolder folder, String password, Path target) throws SQLException {
        try (Connection connection =
                DriverManager.getConnection(Database.url(folder.base()), Database.USER, password)) {
            BackupSet.of(connection, password, Optional.empty(), target);
        }
        return target;
    }

    private static void write(Connection c, String who) throws SQLException {
        try (Statement s = c.createStatement()) {
            s.execute(
                    "INSERT INTO setup_change (at, by_name, what, before_text, after_text) VALUES (NOW(), '%s', 'one of a pair', '', '')"
                            .formatted(who));
            s.execute(
                    "INSERT INTO setup_change (at, by_name, what, before_text, after_text) VALUES (NOW(), '%s', 'the other', '', '')"
                            .formatted(who));
        }
        c.commit();
    }

    @Test
    void whileTwentyWriteABackupIsOneMomentAndRestoresTheSameTableByTable() throws Exception {
        DataFolder folder = new DataFolder(place.resolve("data/workshop"));
        DataFile.Ready ready = new DataFile(folder).ready();
        AtomicBoolean stop = new AtomicBoolean();
        ExecutorService writers = Executors.newFixedThreadPool(20);
        List<Future<?>> all = new ArrayList<>();
        Path target = place.resolve("backup.zip");
        BackupSet.About about;
        try {
            for (int w = 0; w < 20; w++) {
                String who = "writer " + w;
                all.add(writers.submit(() -> {
                    try (Connection c = DriverManager.getConnection(ready.url(), Database.USER, ready.password())) {
                        c.setAutoCommit(false);
                        while (!stop.get()) {
                            write(c, who);
                        }
                    }
                    return null;
                }));
            }
            try (Connection c = DriverManager.getConnection(ready.url(), Database.USER, ready.password())) {
                while (count(c) < 400) {
                    Thread.sleep(5);
                }
                about = BackupSet.of(c, ready.password(), Optional.empty(), target);
            }
        } finally {
            stop.set(true);
            writers.shutdown();
        }
        for (Future<?> w : all) {
            w.get();
        }
        assertThat(about.rows().get("setup_change")).isGreaterThanOrEqualTo(400).isEven();

        DataFolder other = new DataFolder(place.resolve("other/workshop"));
        BackupSet.restore(target, Optional.empty(), other, "x");
        DataFile.Ready restored = new DataFile(other).ready();
        try (Connection c = DriverManager.getConnection(restored.url(), Database.USER, restored.password())) {
            assertThat(Database.readAll(c)).isEqualTo(about.rows());
            try (Statement s = c.createStatement();
                    var halves = s.executeQuery("""
                            SELECT by_name FROM setup_change GROUP BY by_name
                            HAVING SUM(CASE WHEN what = 'the other' THEN 1 ELSE 0 END) * 2 <> COUNT(*)
                            """)) {
                assertThat(halves.next()).as("half a transaction").isFalse();
            }
        }
    }

    private static long count(Connection c) throws SQLException {
        try (Statement s = c.createStatement();
                var r = s.executeQuery("SELECT COUNT(*) FROM setup_change")) {
            return r.next() ? r.getLong(1) : 0;
        }
    }

    @Test
    void aDamagedOneIsRefusedWhereverTheDamageIsAndChangesNothing() throws Exception {
        DataFolder folder = new DataFolder(place.resolve("data/workshop"));
        DataFile.Ready ready = new DataFile(folder).ready();
        Path good = of(folder, ready.password(), place.resolve("good.zip"));
        byte[] before = Files.readAllBytes(folder.database());
        long size = Files.size(good);
        // byte 10 is the time of a file in the zip's own header, which no checksum of the zip covers
        for (long at : new long[] {10, size / 50, size * 3 / 10, size * 6 / 10, size * 9 / 10, size - 70, size - 1}) {
            Path bad = Files.copy(good, place.resolve("bad-%d.zip".formatted(at)));
            try (RandomAccessFile file = new RandomAccessFile(bad.toFile(), "rw")) {
                file.seek(at);
                int was = file.read();
                file.seek(at);
                file.write(was ^ 0xFF);
            }
            assertThatThrownBy(() -> BackupSet.restore(bad, Optional.empty(), folder, "x"))
                    .as("damage at " + at)
                    .isInstanceOf(CannotStart.class)
                    .hasMessageContaining("damaged");
        }
        Path half = place.resolve("half.zip");
        Files.write(half, java.util.Arrays.copyOf(Files.readAllBytes(good), (int) size / 2));
        assertThatThrownBy(() -> BackupSet.restore(half, Optional.empty(), folder, "x"))
                .isInstanceOf(CannotStart.class);
        assertThatThrownBy(() -> BackupSet.restore(place.resolve("none.zip"), Optional.empty(), folder, "x"))
                .hasMessageContaining("no file");
        assertThat(Files.readAllBytes(folder.database())).isEqualTo(before);
    }

    @Test
    void aDatabaseThatIsNotTheOneItSaysIsRefused() throws Exception {
        DataFolder folder = new DataFolder(place.resolve("data/workshop"));
        DataFile.Ready ready = new DataFile(folder).ready();
        Path good = of(folder, ready.password(), place.resolve("good.zip"));
        Path about = place.resolve("about.json");
        try (ZipFile zip = new ZipFile(good.toFile())) {
            zip.extractFile("about.json", place.toString());
            Files.writeString(about, Files.readString(about).replaceFirst("\"person\" : \\d+", "\"person\" : 7"));
            zip.addFile(about.toFile());
        }
        BackupSet.seal(good);
        assertThatThrownBy(() -> BackupSet.restore(good, Optional.empty(), folder, "x"))
                .hasMessageContaining("damaged");
    }

    @Test
    void anEncryptedOneOpensWithItsPassphraseAlone() throws IOException, SQLException {
        DataFolder folder = new DataFolder(place.resolve("data/workshop"));
        DataFile.Ready ready = new DataFile(folder).ready();
        Path target = place.resolve("secret.zip");
        Map<String, Long> rows;
        try (Connection c = DriverManager.getConnection(ready.url(), Database.USER, ready.password())) {
            rows = BackupSet.of(c, ready.password(), Optional.of("four words in a row"), target)
                    .rows();
        }
        assertThat(new String(Files.readAllBytes(target), java.nio.charset.StandardCharsets.ISO_8859_1))
                .doesNotContain("flyway", "CREATE TABLE", "\"form\"");
        DataFolder other = new DataFolder(place.resolve("other/workshop"));
        assertThatThrownBy(() -> BackupSet.restore(target, Optional.empty(), other, "x"))
                .hasMessageContaining("KNOLLFIELD_PASSPHRASE");
        assertThatThrownBy(() -> BackupSet.restore(target, Optional.of("four words in a Row"), other, "x"))
                .hasMessageContaining("not the passphrase");
        assertThat(BackupSet.restore(target, Optional.of("four words in a row"), other, "x")
                        .rows())
                .isEqualTo(rows);
    }
}
