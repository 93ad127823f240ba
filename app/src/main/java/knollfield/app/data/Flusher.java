package knollfield.app.data;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessResourceFailureException;

/**
 * Brings what was committed to the disk before anybody is told that it was: against a power cut, which takes what the
 * system still holds. Those who commit at the same time share one go, so that many at once cost little more than one.
 */
final class Flusher implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(Flusher.class);

    /** Writes what was committed and waits until the device has it (H2, CHECKPOINT SYNC). */
    private static final String SYNC = "CHECKPOINT SYNC";

    private final DataSource dataSource;
    private final String sync;
    private final Thread thread;
    private long asked;
    private long done;
    private long failed;
    private boolean closed;

    /** @param dataSource of connections that nobody who commits can hold ({@link DataConfig#beside}) */
    Flusher(DataSource dataSource) {
        this(dataSource, SYNC);
    }

    /** @param sync statement that returns when all that was committed before it is on the disk */
    Flusher(DataSource dataSource, String sync) {
        this.dataSource = dataSource;
        this.sync = sync;
        this.thread = new Thread(this::run, "to-disk");
        this.thread.setDaemon(true);
        this.thread.start();
    }

    /**
     * Waits until all that was committed before is on the disk.
     *
     * @throws DataAccessResourceFailureException where the disk did not take it
     */
    synchronized void toDisk() {
        asked++;
        long mine = asked;
        notifyAll();
        boolean interrupted = false;
        while (done < mine && failed < mine && !closed) {
            try {
                wait();
            } catch (InterruptedException e) {
                // a change is answered when it is safe, not before
                interrupted = true;
            }
        }
        if (interrupted) {
            Thread.currentThread().interrupt();
        }
        if (done < mine) {
            throw new DataAccessResourceFailureException("the disk did not take what was saved");
        }
    }

    private void run() {
        for (long upTo = next(); upTo > 0; upTo = next()) {
            boolean good = sync();
            synchronized (this) {
                if (good) {
                    done = upTo;
                } else {
                    failed = upTo;
                }
                notifyAll();
            }
        }
    }

    /** What is asked for, once something is; zero at the end. */
    private synchronized long next() {
        while (asked == Math.max(done, failed) && !closed) {
            try {
                wait();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return 0;
            }
        }
        return closed ? 0 : asked;
    }

    private boolean sync() {
        try (Connection connection = dataSource.getConnection();
                Statement statement = connection.createStatement()) {
            statement.execute(sync);
            return true;
        } catch (SQLException e) {
            LOG.error("the disk did not take what was saved", e);
            return false;
        }
    }

    /** Returns when nothing of it holds the file any more. */
    @Override
    public void close() {
        synchronized (this) {
            closed = true;
            notifyAll();
        }
        try {
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
