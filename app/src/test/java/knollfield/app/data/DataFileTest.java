package knollfield.app.data;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A data file is opened when it is whole and ours, and otherwise refused in a sentence that says what to do. */
class DataFileTest {

    @TempDir
    Path place;

    private DataFolder folder;

    @BeforeEach
    void name() {
        folder = new DataFolder(place.resolve("data/workshop"));
    }

    private DataFile.Ready ready() {
        return new DataFile(folder).ready();
    }

    /** As a server does that is closed in order. */
    private void workAndClose(String statement) throws SQLException, IOException {
        DataFile.Ready ready = ready();
        long written;
        try (Connection connection = DriverManager.getConnection(ready.url(), Database.USER, ready.password());
                Statement s = connection.createStatement()) {
            s.execute(statement);
            s.execute("CHECKPOINT SYNC");
            written = Database.written(connection);
        }
        Mark.closed(written, folder.database()).write(folder.mark());
    }

    private static final String WORK =
            "INSERT INTO setup_change (at, by_name, what, before_text, after_text) SELECT NOW(), 'x', 'y', '', RANDOM_UUID() FROM SYSTEM_RANGE(1, 500)";

    private void refused(String... words) {
        assertThatThrownBy(this::ready)
                .isInstanceOf(CannotStart.class)
                .extracting(e -> ((CannotStart) e).sentence())
                .asString()
                .contains(words)
                .doesNotContain("Exception", "\n");
    }

    @Test
    void aNewOneIsItsOwnersAloneAndHasAPasswordOfItsOwn() throws IOException {
        DataFile.Ready ready = ready();
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(folder.database())))
                .isEqualTo("rw-------");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(folder.key())))
                .isEqualTo("rw-------");
        assertThat(ready.password()).hasSizeGreaterThan(40);
        assertThatThrownBy(() -> Database.open(folder, "").close()).hasMessageContaining("password");
        assertThat(Database.behind(folder, ready.password())).isFalse();
    }

    @Test
    void whatIsThereIsOpenedAgainAsItWas() throws SQLException, IOException {
        workAndClose(WORK);
        DataFile.Ready again = ready();
        try (Connection connection = DriverManager.getConnection(again.url(), Database.USER, again.password())) {
            assertThat(Database.readAll(connection)).containsEntry("setup_change", 500L);
        }
    }

    @Test
    void oneThatIsGoneEmptyCutOrOverwrittenIsNeverOpenedAsNew() throws SQLException, IOException {
        workAndClose(WORK);
        Path whole = Files.copy(folder.database(), place.resolve("whole"));

        Files.delete(folder.database());
        refused("is gone", "./knollfield restore FILE");
        assertThat(folder.database()).doesNotExist();

        Files.createFile(folder.database());
        refused("is empty", "./knollfield restore FILE");

        Files.copy(whole, folder.database(), StandardCopyOption.REPLACE_EXISTING);
        try (FileChannel file = FileChannel.open(folder.database(), StandardOpenOption.WRITE)) {
            file.truncate(file.size() / 2);
        }
        refused("not as Knollfield left it");

        Files.writeString(folder.database(), "x".repeat(40_000));
        refused("not as Knollfield left it");
        Files.delete(folder.mark());
        refused("damaged or not a database");

        Files.copy(whole, folder.database(), StandardCopyOption.REPLACE_EXISTING);
        ready();
    }

    @Test
    void afterACrashOneThatLostItsEndOrIsAnOldCopyIsKnownForIt() throws SQLException, IOException {
        workAndClose(WORK);
        Path old = Files.copy(folder.database(), place.resolve("old"));
        DataFile.Ready ready = ready();
        try (Connection connection = DriverManager.getConnection(ready.url(), Database.USER, ready.password());
                Statement s = connection.createStatement()) {
            for (int i = 0; i < 40; i++) {
                s.execute(WORK);
                s.execute("CHECKPOINT SYNC");
            }
            Mark.running(Database.written(connection)).write(folder.mark());
        }
        Path now = Files.copy(folder.database(), place.resolve("now"));
        Files.copy(old, folder.database(), StandardCopyOption.REPLACE_EXISTING);
        refused("is older than when it was last used");

        Files.copy(now, folder.database(), StandardCopyOption.REPLACE_EXISTING);
        try (FileChannel file = FileChannel.open(folder.database(), StandardOpenOption.WRITE)) {
            file.truncate(file.size() / 2);
        }
        refused("./knollfield restore FILE");
    }

    @Test
    void anotherProgramsDatabaseAndAnotherFoldersKeyAreRefused() throws SQLException, IOException {
        Files.createDirectories(folder.folder());
        try (Connection c = DriverManager.getConnection(Database.url(folder.base()), Database.USER, "");
                Statement s = c.createStatement()) {
            s.execute("CREATE TABLE recipe (id INT)");
        }
        byte[] before = Files.readAllBytes(folder.database());
        refused("none of Knollfield's", "KNOLLFIELD_DATA");
        assertThat(folder.mark()).doesNotExist();
        assertThat(before.length).isPositive();

        Files.delete(folder.database());
        Files.delete(folder.key());
        workAndClose(WORK);
        Files.writeString(folder.key(), "anothers");
        refused("does not open with the key");
    }

    @Test
    void twoServersDoNotShareIt() throws SQLException {
        DataFile.Ready ready = ready();
        try (Connection connection = DriverManager.getConnection(ready.url(), Database.USER, ready.password())) {
            assertThat(connection.isValid(1)).isTrue();
            // a second opening within one process is shared by H2; another process meets the lock on the file
            assertThatThrownBy(() -> BackupSet.restore(
                            BackupSetTest.of(folder, ready.password(), place.resolve("b.zip")),
                            java.util.Optional.empty(),
                            folder,
                            "x"))
                    .hasMessageContaining("stop it first");
        }
    }

    @Test
    void aDatabaseFromBeforeIsBackedUpThenBroughtUpToThisVersion() throws SQLException, IOException {
        Files.createDirectories(folder.folder());
        Flyway.configure()
                .dataSource(Database.url(folder.base()), Database.USER, "")
                .target("18")
                .load()
                .migrate();
        try (Connection c = Database.open(folder, "");
                Statement s = c.createStatement()) {
            s.execute("INSERT INTO fleet (name, off_road_cap, contact_name, phone) VALUES ('Busses', 1, 'A', '1')");
        }
        DataFile.Ready ready = ready();
        try (Connection c = DriverManager.getConnection(ready.url(), Database.USER, ready.password())) {
            assertThat(Database.readAll(c)).containsEntry("fleet", 1L).containsKey("person_change");
        }
        try (var backups = Files.list(folder.backups())) {
            Path backup = backups.findFirst().orElseThrow();
            assertThat(BackupSet.tried(backup, java.util.Optional.empty(), Files.createTempDirectory(place, "t"))
                            .schema())
                    .isEqualTo("18");
        }
    }

    @Test
    void whatAKillLeftBehindIsClearedAway() throws IOException, SQLException {
        workAndClose(WORK);
        for (String rest : new String[] {".upgrading", ".beginning", ".compacting"}) {
            Files.write(folder.copy(rest).database(), "half".getBytes(StandardCharsets.UTF_8));
        }
        // no process has a number above 2^22, or below 1
        Path left = Files.createDirectories(folder.folder().resolve(".knollfield-99999999-restore"));
        Files.writeString(left.resolve("workshop.mv.db"), "half");
        Path another = Files.createDirectories(folder.folder().resolve(".knollfield-1-somebody-elses"));
        ready();
        assertThat(left).doesNotExist();
        assertThat(another).exists();
        assertThat(folder.copy(".upgrading").database()).doesNotExist();
        assertThat(folder.copy(".beginning").database()).doesNotExist();
        assertThat(folder.copy(".compacting").database()).doesNotExist();
    }
}
