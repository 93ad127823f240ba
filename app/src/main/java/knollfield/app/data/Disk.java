package knollfield.app.data;

import java.io.IOException;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.Path;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * The room there is for data. A change is refused while less than a reserve is left, so that the database itself never meets
 * a full disk: then it would have to be opened anew.
 */
@Component
public class Disk {

    private final Path folder;
    private final long reserveBytes;
    private final long lowBytes;

    Disk(
            DataFolder folder,
            @Value("${knollfield.disk.reserve-mb:20}") long reserveMb,
            @Value("${knollfield.disk.low-mb:1000}") long lowMb) {
        this.folder = folder.folder();
        this.reserveBytes = reserveMb * 1_000_000;
        this.lowBytes = Math.max(lowMb, 2 * reserveMb) * 1_000_000;
    }

    /** Bytes there is room for; as many as there are where nobody can tell. */
    public long left() {
        try {
            FileStore store = Files.getFileStore(Files.exists(folder) ? folder : Path.of("."));
            return store.getUsableSpace();
        } catch (IOException e) {
            return Long.MAX_VALUE;
        }
    }

    /** Whether nothing more is saved. */
    boolean full() {
        return left() < reserveBytes;
    }

    /** Whether somebody should make room soon. */
    public boolean low() {
        return left() < lowBytes;
    }

    /**
     * Lets a change go on where there is room for it.
     *
     * @throws DiskFull otherwise
     */
    void check() {
        long left = left();
        if (left < reserveBytes) {
            throw new DiskFull(
                    "The disk is full: %d MB are left where the data lie (%s). Nothing was saved. Make room; then it goes on by itself."
                            .formatted(left / 1_000_000, folder));
        }
    }
}
