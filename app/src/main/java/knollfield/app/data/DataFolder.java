package knollfield.app.data;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Objects;

/**
 * Where a workshop's data lie: the files beside each other that begin with the same name.
 *
 * @param base path without an ending, such as {@code data/workshop}
 */
public record DataFolder(Path base) {

    /** What H2 adds to the name of a database. */
    static final String DATABASE = ".mv.db";

    public DataFolder {
        base = base.toAbsolutePath().normalize();
    }

    public Path database() {
        return beside(DATABASE);
    }

    /** The database's own password. */
    Path key() {
        return beside(".key");
    }

    /** Which database is ours, and how far it has come. */
    Path mark() {
        return beside(".mark");
    }

    /** Which process has it open, and where that answers. */
    Path running() {
        return beside(".running");
    }

    /** Stands while the demo is being made; what it made is begun anew. */
    public Path filling() {
        return beside(".filling");
    }

    /** Where backups go that nobody has named a place for. */
    public Path backups() {
        return beside("-backups");
    }

    public Path folder() {
        return Objects.requireNonNull(base.getParent());
    }

    /** The same folder with another name in front, for a copy that is worked on. */
    DataFolder copy(String ending) {
        return new DataFolder(beside(ending));
    }

    private Path beside(String ending) {
        return base.resolveSibling(base.getFileName() + ending);
    }

    /** Only who runs the server may read it, where the file system knows of that. */
    static void ownerOnly(Path file) {
        try {
            Files.setPosixFilePermissions(
                    file, PosixFilePermissions.fromString(Files.isDirectory(file) ? "rwx------" : "rw-------"));
        } catch (UnsupportedOperationException e) {
            // a file system without owners; the folder's own rights hold
            return;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Brings a file to the disk, its name too. */
    static void toDisk(Path file) throws IOException {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
            channel.force(true);
        }
        folderToDisk(Objects.requireNonNull(file.toAbsolutePath().getParent()));
    }

    private static void folderToDisk(Path folder) {
        try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
            channel.force(true);
        } catch (IOException e) {
            // not every system opens folders; there the name is as safe as it gets
            return;
        }
    }

    /** Puts a file in another's place, whole or not at all. */
    static void swapIn(Path from, Path to) throws IOException {
        toDisk(from);
        try {
            Files.move(from, to, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } catch (AtomicMoveNotSupportedException e) {
            Files.move(from, to, StandardCopyOption.REPLACE_EXISTING);
        }
        folderToDisk(Objects.requireNonNull(to.toAbsolutePath().getParent()));
    }

    /** Writes a small file, whole or not at all, for its owner only. */
    static void write(Path file, String text) throws IOException {
        Path next = file.resolveSibling(file.getFileName() + ".next");
        Files.writeString(next, text);
        ownerOnly(next);
        swapIn(next, file);
    }
}
