package knollfield.app.outbox;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/** The folder beside the data where messages are written that nobody else carries. */
@Component
class Folder {

    private final Path folder;

    Folder(@Value("${knollfield.data:./data/workshop}") String data) {
        this.folder = Path.of(data).toAbsolutePath().normalize().resolveSibling("outbox");
    }

    Path path() {
        return folder;
    }

    /**
     * Writes a file whole or not at all; written again under the same name, there is still one.
     *
     * @throws NotTaken where there is no room, or no right to write
     */
    Path write(String name, byte[] bytes) throws NotTaken {
        Path file = folder.resolve(name);
        Path half = folder.resolve(name + ".part");
        try {
            Files.createDirectories(folder);
            try (FileChannel out = FileChannel.open(
                    half, StandardOpenOption.CREATE, StandardOpenOption.WRITE, StandardOpenOption.TRUNCATE_EXISTING)) {
                ByteBuffer rest = ByteBuffer.wrap(bytes);
                while (rest.hasRemaining()) {
                    out.write(rest);
                }
                out.force(true);
            }
            return Files.move(half, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException | UncheckedIOException e) {
            throw new NotTaken("The folder %s cannot be written: %s".formatted(folder, e.getMessage()), true);
        }
    }
}
