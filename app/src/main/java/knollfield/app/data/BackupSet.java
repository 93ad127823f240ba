package knollfield.app.data;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import net.lingala.zip4j.ZipFile;
import net.lingala.zip4j.exception.ZipException;
import net.lingala.zip4j.model.FileHeader;
import net.lingala.zip4j.model.ZipParameters;
import net.lingala.zip4j.model.enums.AesKeyStrength;
import net.lingala.zip4j.model.enums.EncryptionMethod;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * A backup: one zip file with the database and what it should be, so that it can be told from a damaged one. Before it gets
 * its name it has been opened, read through, and read back from the zip. With a passphrase it is encrypted (AES-256 as zip
 * programs know it).
 */
final class BackupSet {

    private static final String ABOUT = "about.json";
    private static final String NAME = "workshop";
    private static final String DATABASE = NAME + DataFolder.DATABASE;
    /** Characters of the seal: a SHA-256, hexadecimal. */
    private static final int SEAL = 64;

    private static final JsonMapper JSON = JsonMapper.builder().build();

    private BackupSet() {}

    /**
     * What a backup should be.
     *
     * @param form {@value Mark#FORM}
     * @param schema version of the schema
     * @param sha256 of the database file, hexadecimal
     * @param rows by table
     */
    record About(String form, String schema, Instant made, String sha256, Map<String, Long> rows) {}

    /** Backs up a database that nobody has open. */
    static About ofClosed(DataFolder folder, String password, Path target) {
        try (Connection connection = Database.open(folder, password)) {
            return of(connection, password, Optional.empty(), target);
        } catch (SQLException e) {
            throw new CannotStart("The data could not be backed up: %s".formatted(e.getMessage()), e);
        }
    }

    /**
     * Backs up a database that is open, as it is at one moment, while others go on writing.
     *
     * @param passphrase encrypts it; empty: it is not
     * @throws CannotStart where it cannot be made; there is no file then
     */
    static About of(Connection connection, String password, Optional<String> passphrase, Path target) {
        try (WorkFolder work =
                WorkFolder.in(Objects.requireNonNull(target.toAbsolutePath().getParent()))) {
            DataFolder copy = new DataFolder(work.resolve(NAME));
            copy(connection, work.resolve("raw.zip"), copy.database());
            About about;
            try (Connection tried = Database.open(copy, password)) {
                // the key stays where it is; whoever takes the backup in gives it one of its own
                Database.setPassword(tried, "");
                about = new About(
                        Mark.FORM,
                        schema(tried),
                        Instant.now().truncatedTo(ChronoUnit.SECONDS),
                        "",
                        Database.readAll(tried));
                Database.compact(tried);
            }
            about = new About(about.form(), about.schema(), about.made(), sha256(copy.database()), about.rows());
            Files.writeString(
                    work.resolve(ABOUT), JSON.writerWithDefaultPrettyPrinter().writeValueAsString(about));
            Path made = work.resolve("made.zip");
            pack(made, passphrase, work.resolve(ABOUT), copy.database());
            seal(made);
            Path again = Files.createDirectory(work.resolve("again"));
            unpack(made, passphrase, again);
            if (!sha256(again.resolve(DATABASE)).equals(about.sha256())) {
                throw new CannotStart("The backup could not be read back as it was written; is the disk in order?");
            }
            DataFolder.ownerOnly(made);
            DataFolder.swapIn(made, target);
            return about;
        } catch (IOException | SQLException e) {
            throw new CannotStart("The backup %s could not be made: %s".formatted(target, reason(e)), e);
        }
    }

    private static String reason(Exception e) {
        return Objects.requireNonNullElse(e.getMessage(), e.getClass().getSimpleName())
                .lines()
                .findFirst()
                .orElse("");
    }

    /** H2 copies the file as it is at one moment; its own zip holds that and nothing else. */
    private static void copy(Connection connection, Path raw, Path database) throws SQLException, IOException {
        try (Statement statement = connection.createStatement()) {
            statement.execute("BACKUP TO '" + raw.toString().replace("'", "''") + "'");
        }
        try (ZipInputStream zip = new ZipInputStream(Files.newInputStream(raw), StandardCharsets.UTF_8)) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                if (entry.getName().endsWith(DataFolder.DATABASE)) {
                    Files.copy(zip, database);
                }
            }
        }
        Files.delete(raw);
    }

    private static String schema(Connection connection) throws SQLException {
        try (Statement statement = connection.createStatement();
                var found = statement.executeQuery("""
                        SELECT "version" FROM "flyway_schema_history" WHERE "success" ORDER BY "installed_rank" DESC
                        FETCH FIRST ROW ONLY
                        """)) {
            return found.next() ? found.getString(1) : "";
        }
    }

    private static void pack(Path zip, Optional<String> passphrase, Path... files) throws IOException {
        try (ZipFile packed = open(zip, passphrase)) {
            ZipParameters how = new ZipParameters();
            if (passphrase.isPresent()) {
                how.setEncryptFiles(true);
                how.setEncryptionMethod(EncryptionMethod.AES);
                how.setAesKeyStrength(AesKeyStrength.KEY_STRENGTH_256);
            }
            for (Path file : files) {
                packed.addFile(file.toFile(), how);
            }
            // room for the seal; zip programs show it as the archive's comment
            packed.setComment("0".repeat(SEAL));
        }
    }

    /**
     * Writes the seal at the end: the SHA-256 of every byte before it. A zip's own checksums leave out its headers, where a
     * broken byte may go unseen.
     */
    static void seal(Path zip) throws IOException {
        try (RandomAccessFile file = new RandomAccessFile(zip.toFile(), "rw")) {
            file.seek(file.length() - SEAL);
            file.writeBytes(sealOf(zip));
        }
    }

    private static boolean sealed(Path zip) throws IOException {
        if (Files.size(zip) < SEAL) {
            return false;
        }
        byte[] seal = new byte[SEAL];
        try (RandomAccessFile file = new RandomAccessFile(zip.toFile(), "r")) {
            file.seek(file.length() - SEAL);
            file.readFully(seal);
        }
        return new String(seal, StandardCharsets.ISO_8859_1).equals(sealOf(zip));
    }

    private static String sealOf(Path zip) throws IOException {
        return sha256(zip, Files.size(zip) - SEAL);
    }

    private static ZipFile open(Path zip, Optional<String> passphrase) {
        return new ZipFile(zip.toFile(), passphrase.map(String::toCharArray).orElse(null));
    }

    /** Only the two files a backup has, whatever else may be in it. */
    private static void unpack(Path zip, Optional<String> passphrase, Path into) throws IOException {
        try (ZipFile packed = open(zip, passphrase)) {
            for (String name : List.of(ABOUT, DATABASE)) {
                FileHeader header = packed.getFileHeader(name);
                if (header == null) {
                    throw new CannotStart("%s is not a backup of Knollfield: it has no %s.".formatted(zip, name));
                }
                if (header.isEncrypted() && passphrase.isEmpty()) {
                    throw new CannotStart(
                            "%s is encrypted; give its passphrase: KNOLLFIELD_PASSPHRASE=… ./knollfield restore FILE"
                                    .formatted(zip));
                }
                try (InputStream in = packed.getInputStream(header);
                        OutputStream out = Files.newOutputStream(into.resolve(name))) {
                    in.transferTo(out);
                }
            }
        }
    }

    /**
     * Takes a backup in: looks at all of it first, then puts it in the place of what is there, which is kept beside it.
     *
     * @return what was taken in
     * @throws CannotStart where it is damaged or none, or the data are open; nothing has been changed then
     */
    static About restore(Path zip, Optional<String> passphrase, DataFolder folder, String stamp) {
        try {
            if (!Files.isReadable(zip)) {
                throw new CannotStart("There is no file %s that may be read.".formatted(zip));
            }
            Files.createDirectories(folder.folder());
            shut(folder);
            try (WorkFolder work = WorkFolder.in(folder.folder())) {
                About about = tried(zip, passphrase, work.path());
                DataFolder copy = new DataFolder(work.resolve(NAME));
                DataFolder kept = folder.copy("-before-restore-" + stamp);
                if (Files.exists(folder.database())) {
                    Files.copy(folder.database(), kept.database(), StandardCopyOption.REPLACE_EXISTING);
                    if (Files.exists(folder.key())) {
                        Files.copy(folder.key(), kept.key(), StandardCopyOption.REPLACE_EXISTING);
                    }
                    DataFolder.toDisk(kept.database());
                }
                DataFolder.ownerOnly(copy.database());
                // without its mark a file is looked at as one that comes from elsewhere, and gets this folder's key
                Files.deleteIfExists(folder.mark());
                DataFolder.swapIn(copy.database(), folder.database());
                return about;
            }
        } catch (IOException e) {
            throw new CannotStart("%s could not be taken in: %s".formatted(zip, reason(e)), e);
        }
    }

    /** Unpacks a backup and tries it: whole, ours, and with every row it says it has. */
    static About tried(Path zip, Optional<String> passphrase, Path work) {
        String damaged = "%s is damaged; take an older backup.".formatted(zip);
        try {
            if (!sealed(zip)) {
                throw new CannotStart(
                        "%s is damaged, or not a backup of Knollfield; take an older backup.".formatted(zip));
            }
            unpack(zip, passphrase, work);
            About about = JSON.readValue(Files.readString(work.resolve(ABOUT)), About.class);
            if (!Mark.FORM.equals(about.form())
                    || !sha256(work.resolve(DATABASE)).equals(about.sha256())) {
                throw new CannotStart(damaged);
            }
            try (Connection connection = Database.open(new DataFolder(work.resolve(NAME)), "")) {
                if (!Database.readAll(connection).equals(about.rows())) {
                    throw new CannotStart(damaged);
                }
            }
            return about;
        } catch (ZipException e) {
            if (e.getType() == ZipException.Type.WRONG_PASSWORD) {
                throw new CannotStart("This is not the passphrase of %s.".formatted(zip), e);
            }
            throw new CannotStart("%s is damaged, or not a backup of Knollfield.".formatted(zip), e);
        } catch (IOException | JacksonException | SQLException e) {
            throw new CannotStart(damaged, e);
        }
    }

    /** Lets only who finds the data closed go on. */
    private static void shut(DataFolder folder) {
        if (!Files.exists(folder.database())) {
            return;
        }
        try (java.nio.channels.FileChannel channel =
                        java.nio.channels.FileChannel.open(folder.database(), java.nio.file.StandardOpenOption.WRITE);
                java.nio.channels.FileLock lock = channel.tryLock()) {
            if (lock == null) {
                throw new CannotStart("Knollfield is running on these data; stop it first, then restore.");
            }
        } catch (java.nio.channels.OverlappingFileLockException e) {
            throw new CannotStart("Knollfield is running on these data; stop it first, then restore.", e);
        } catch (IOException e) {
            throw new CannotStart("%s may not be written.".formatted(folder.database()), e);
        }
    }

    private static String sha256(Path file) throws IOException {
        return sha256(file, Files.size(file));
    }

    /** Of the first bytes of a file, hexadecimal. */
    private static String sha256(Path file, long bytes) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            byte[] buffer = new byte[1 << 16];
            for (long left = bytes; left > 0; ) {
                int read = in.read(buffer, 0, (int) Math.min(buffer.length, left));
                if (read < 0) {
                    break;
                }
                digest.update(buffer, 0, read);
                left -= read;
            }
            return HexFormat.of().formatHex(digest.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every JDK has SHA-256", e);
        }
    }
}
