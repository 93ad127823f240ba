package knollfield.app.data;

import java.io.IOException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Clock;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import knollfield.app.shared.Secret;
import org.flywaydb.core.api.FlywayException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Makes a workshop's database ready to be opened: begins a new one, or looks at the one that is there, and brings it to this
 * version's schema. Whatever changes a whole file is done to a copy, which takes the file's place at once; so the server may
 * be killed at any moment, and starts again.
 */
public final class DataFile {

    private static final Logger LOG = LoggerFactory.getLogger(DataFile.class);
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyy-MM-dd-HHmmss", Locale.ROOT);

    /** Above it, a file that is mostly space of things past is written anew at the start. */
    private static final long LARGE_BYTES = 64_000_000;

    private static final int WELL_FILLED_PERCENT = 40;

    private final DataFolder folder;

    DataFile(DataFolder folder) {
        this.folder = folder;
    }

    /** @param password the database's own */
    record Ready(String url, String password, long written) {}

    /**
     * Makes it ready.
     *
     * @throws CannotStart where it must not be opened; nothing has been changed then
     */
    Ready ready() {
        try {
            Files.createDirectories(folder.folder());
            if (!Files.isWritable(folder.folder())) {
                throw new CannotStart("Knollfield may not write in %s; give the user it runs as the right to."
                        .formatted(folder.folder()));
            }
            Files.deleteIfExists(folder.copy(".upgrading").database());
            Files.deleteIfExists(folder.copy(".beginning").database());
            Files.deleteIfExists(folder.copy(".compacting").database());
            WorkFolder.clearLeft(folder.folder(), true);
            WorkFolder.clearLeft(folder.backups(), true);
            if (Files.exists(folder.filling())) {
                LOG.info("The demo was not finished; it is made anew.");
                Files.deleteIfExists(folder.database());
                Files.deleteIfExists(folder.mark());
                Files.deleteIfExists(folder.filling());
            }
            String password = password();
            Optional<Mark> mark = Mark.read(folder.mark());
            if (!Files.exists(folder.database())) {
                if (mark.isPresent()) {
                    throw new CannotStart("The data file %s is gone. Put back a backup: ./knollfield restore FILE"
                            .formatted(folder.database()));
                }
                begin(password);
            } else {
                check(mark, password);
                upgrade(password);
                compactIfWorthIt(password);
            }
            return finish(password);
        } catch (FileSystemException e) {
            throw new CannotStart(
                    "Knollfield cannot use %s: %s."
                            .formatted(
                                    e.getFile(),
                                    Objects.requireNonNullElse(e.getReason(), "it may not be read or written")),
                    e);
        } catch (IOException e) {
            throw new CannotStart(
                    "Knollfield cannot use its data in %s: %s.".formatted(folder.folder(), e.getMessage()), e);
        }
    }

    private String password() throws IOException {
        if (Files.exists(folder.key())) {
            return Files.readString(folder.key()).strip();
        }
        String made = Secret.make();
        DataFolder.write(folder.key(), made + "\n");
        return made;
    }

    private void begin(String password) throws IOException {
        DataFolder next = folder.copy(".beginning");
        try {
            Database.create(next, password);
        } catch (SQLException e) {
            throw unusable(e);
        }
        Database.migrate(next, password);
        DataFolder.ownerOnly(next.database());
        DataFolder.swapIn(next.database(), folder.database());
    }

    private void check(Optional<Mark> mark, String password) throws IOException {
        Path file = folder.database();
        String restore = " Put back a backup: ./knollfield restore FILE";
        if (Files.size(file) == 0) {
            throw new CannotStart("The data file %s is empty.%s".formatted(file, restore));
        }
        if (mark.isPresent() && !mark.get().fits(file)) {
            throw new CannotStart(
                    "The data file %s is not as Knollfield left it: something has cut, changed or replaced it.%s (Where you put it there on purpose, delete %s and start again.)"
                            .formatted(file, restore, folder.mark()));
        }
        if (mark.isPresent() && mark.get().closed()) {
            // opening it changes the file, whatever comes then
            Mark.running(mark.get().written()).write(folder.mark());
        }
        try (Connection connection = connect(password)) {
            if (!Database.ours(connection)) {
                if (mark.isEmpty() && Database.empty(connection)) {
                    throw new CannotStart(
                            "The data file %s has nothing in it; delete it and start again.".formatted(file));
                }
                throw new CannotStart(
                        "The data file %s is a database, but none of Knollfield's; name another folder: KNOLLFIELD_DATA=dir"
                                .formatted(file));
            }
            boolean crashed = mark.filter(m -> !m.closed()).isPresent();
            if (mark.isPresent() && Database.written(connection) < mark.get().written()) {
                throw new CannotStart(
                        "The data file %s is older than when it was last used: its end is missing, or an old copy took its place.%s"
                                .formatted(file, restore));
            }
            if (crashed) {
                Database.readAll(connection);
            }
        } catch (SQLException e) {
            throw unusable(e);
        }
        if (Database.ahead(folder, password)) {
            throw new CannotStart(
                    "The data in %s were made by a newer Knollfield; start that version, or put back a backup of this one."
                            .formatted(folder.folder()));
        }
    }

    /** Opens it with its password; one from before it had a password gets it. */
    private Connection connect(String password) throws SQLException {
        try {
            return Database.open(folder, password);
        } catch (SQLException e) {
            if (e.getErrorCode() != Database.WRONG_PASSWORD) {
                throw e;
            }
        }
        try {
            Connection connection = Database.open(folder, "");
            if (Database.ours(connection)) {
                Database.setPassword(connection, password);
            }
            return connection;
        } catch (SQLException e) {
            if (e.getErrorCode() == Database.WRONG_PASSWORD) {
                throw new CannotStart(
                        "The data file %s does not open with the key in %s: it is another database's, or the key is. Put back both from where they lay together, or a backup: ./knollfield restore FILE"
                                .formatted(folder.database(), folder.key()),
                        e);
            }
            throw e;
        }
    }

    private CannotStart unusable(SQLException e) {
        if (Database.inUse(e)) {
            String who = Running.of(folder)
                    .map(r -> " (process %d, port %d)".formatted(r.process(), r.port()))
                    .orElse("");
            return new CannotStart(
                    "Another Knollfield has the data in %s open%s; stop it first.".formatted(folder.folder(), who), e);
        }
        LOG.debug("not usable", e);
        return new CannotStart(
                "The data file %s is damaged or not a database. Put back a backup: ./knollfield restore FILE"
                        .formatted(folder.database()),
                e);
    }

    private void upgrade(String password) throws IOException {
        if (!Database.behind(folder, password)) {
            return;
        }
        String name = "before-upgrade-%s.zip"
                .formatted(LocalDateTime.now(Clock.systemDefaultZone()).format(STAMP));
        Files.createDirectories(folder.backups());
        DataFolder.ownerOnly(folder.backups());
        LOG.info(
                "New version: the data are backed up to {} and brought up to it.",
                folder.backups().resolve(name));
        BackupSet.ofClosed(folder, password, folder.backups().resolve(name));
        DataFolder next = folder.copy(".upgrading");
        Files.copy(folder.database(), next.database(), StandardCopyOption.REPLACE_EXISTING);
        try {
            Database.migrate(next, password);
        } catch (FlywayException e) {
            throw new CannotStart(
                    "The data could not be brought up to this version; they are as they were. Go on with the version before, and send its maker this: %s"
                            .formatted(e.getMessage()),
                    e);
        }
        DataFolder.ownerOnly(next.database());
        Files.deleteIfExists(folder.mark());
        DataFolder.swapIn(next.database(), folder.database());
    }

    private void compactIfWorthIt(String password) throws IOException {
        if (Files.size(folder.database()) < LARGE_BYTES) {
            return;
        }
        try (Connection connection = Database.open(folder, password)) {
            if (Database.filledPercent(connection) >= WELL_FILLED_PERCENT) {
                return;
            }
        } catch (SQLException e) {
            throw unusable(e);
        }
        DataFolder next = folder.copy(".compacting");
        Files.copy(folder.database(), next.database(), StandardCopyOption.REPLACE_EXISTING);
        try (Connection connection = Database.open(next, password)) {
            Database.compact(connection);
        } catch (SQLException e) {
            throw unusable(e);
        }
        LOG.info(
                "The data file was {} MB, most of it space of things past; it is {} MB now.",
                Files.size(folder.database()) / 1_000_000,
                Files.size(next.database()) / 1_000_000);
        DataFolder.ownerOnly(next.database());
        Files.deleteIfExists(folder.mark());
        DataFolder.swapIn(next.database(), folder.database());
    }

    private Ready finish(String password) throws IOException {
        DataFolder.ownerOnly(folder.database());
        long written;
        try (Connection connection = Database.open(folder, password)) {
            written = Database.written(connection);
        } catch (SQLException e) {
            throw unusable(e);
        }
        Mark.running(written).write(folder.mark());
        return new Ready(Database.url(folder.base()), password, written);
    }
}
