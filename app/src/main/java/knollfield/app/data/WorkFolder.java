package knollfield.app.data;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.stream.Stream;

/** A hidden folder in which a backup is made or looked at; its name has the process, so one left behind by a kill is known. */
record WorkFolder(Path path) implements AutoCloseable {

    private static final String NAME = ".knollfield-";

    /** Longer than a backup takes. */
    private static final Duration OLD = Duration.ofHours(6);

    /** Makes one, and clears those of processes that are gone. */
    static WorkFolder in(Path folder) throws IOException {
        Files.createDirectories(folder);
        clearLeft(folder, false);
        Path made =
                Files.createTempDirectory(folder, NAME + ProcessHandle.current().pid() + "-");
        DataFolder.ownerOnly(made);
        return new WorkFolder(made);
    }

    /**
     * Clears what killed processes left in a folder.
     *
     * @param starting the folder is this server's alone, and it has made none yet: one of its number is an older process's
     */
    static void clearLeft(Path folder, boolean starting) throws IOException {
        if (!Files.isDirectory(folder)) {
            return;
        }
        try (DirectoryStream<Path> all = Files.newDirectoryStream(folder, NAME + "*")) {
            for (Path left : all) {
                long process = process(left);
                boolean own = process == ProcessHandle.current().pid();
                // a folder of backups may be another machine's too, whose processes are not known here
                boolean old = starting
                        || Files.getLastModifiedTime(left)
                                .toInstant()
                                .isBefore(Instant.now().minus(OLD));
                if (old && (own ? starting : ProcessHandle.of(process).isEmpty())) {
                    clear(left);
                }
            }
        }
    }

    /** The process that made it; -1, which none has, for a name that was not made here. */
    private static long process(Path folder) {
        String rest = folder.getFileName().toString().substring(NAME.length());
        int end = rest.indexOf('-');
        return end > 0 && rest.substring(0, end).chars().allMatch(Character::isDigit)
                ? Long.parseLong(rest.substring(0, end))
                : -1;
    }

    Path resolve(String name) {
        return path.resolve(name);
    }

    @Override
    public void close() {
        clear(path);
    }

    private static void clear(Path folder) {
        try (Stream<Path> files = Files.walk(folder)) {
            files.sorted(Comparator.reverseOrder()).forEach(f -> f.toFile().delete());
        } catch (IOException e) {
            // a hidden folder of its own name that nothing reads; the next start tries again
            return;
        }
    }
}
