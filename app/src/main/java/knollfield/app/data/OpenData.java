package knollfield.app.data;

import com.zaxxer.hikari.HikariDataSource;
import java.io.IOException;
import java.nio.file.Files;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;

/** The database as it is open, with the mark beside it kept up. */
public class OpenData implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(OpenData.class);

    private final Optional<DataFolder> folder;
    private final String password;
    private final HikariDataSource pool;
    private long marked;

    private OpenData(Optional<DataFolder> folder, String url, String password, long written) {
        this.folder = folder;
        this.password = password;
        this.marked = written;
        this.pool = DataConfig.pool(url, password);
    }

    static OpenData of(DataFolder folder) {
        DataFile.Ready ready = new DataFile(folder).ready();
        return new OpenData(Optional.of(folder), ready.url(), ready.password(), ready.written());
    }

    static OpenData inMemory(String name) {
        return new OpenData(Optional.empty(), "jdbc:h2:mem:" + name, "", 0);
    }

    HikariDataSource pool() {
        return pool;
    }

    /** Whether anything stays when it is closed. */
    boolean kept() {
        return folder.isPresent();
    }

    String password() {
        return password;
    }

    /** Notes beside the file how far it has come, so that one that loses its end is known for it. */
    @Scheduled(fixedDelay = 5_000)
    void mark() {
        if (folder.isEmpty()) {
            return;
        }
        try (Connection connection = pool.getConnection()) {
            long written = Database.written(connection);
            connection.rollback();
            if (written > marked) {
                Mark.running(written).write(folder.get().mark());
                marked = written;
            }
        } catch (SQLException | IOException e) {
            LOG.warn("how far the data have come could not be noted", e);
        }
    }

    /** Closes the file in order, and notes how it was left. */
    @Override
    public void close() {
        mark();
        pool.close();
        if (folder.isEmpty()) {
            return;
        }
        try {
            DataFolder.toDisk(folder.get().database());
            Mark.closed(marked, folder.get().database()).write(folder.get().mark());
            Files.deleteIfExists(folder.get().running());
        } catch (IOException e) {
            LOG.warn("how the data were left could not be noted", e);
        }
    }
}
