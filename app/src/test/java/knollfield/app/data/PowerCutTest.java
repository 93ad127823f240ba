package knollfield.app.data;

import static org.assertj.core.api.Assertions.assertThat;

import com.zaxxer.hikari.HikariDataSource;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.h2.store.fs.FileBase;
import org.h2.store.fs.FilePath;
import org.h2.store.fs.FilePathWrapper;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * What was answered is on the disk: after a power cut, which keeps what was brought to the device and any part of what was not.
 * The cut is made beneath the database, where it writes its file; {@code bench/power-cut.sh} makes it on a device.
 */
class PowerCutTest {

    private static final int WRITERS = 8;
    private static final int ANSWERED = 120;

    @TempDir
    Path place;

    @BeforeAll
    static void device() {
        FilePath.register(new Cuttable());
    }

    @Test
    void nothingThatWasAnsweredIsLost() throws Exception {
        for (int cut = 0; cut < 4; cut++) {
            round(place.resolve("cut" + cut), new Random(cut));
        }
    }

    /** Ten connections, and as many that commit at the same moment, each holding one until the disk has it. */
    @Test
    void asManyAsThereAreConnectionsMayCommitAtOnce() throws Exception {
        Path base = place.resolve("crowd");
        try (HikariDataSource pool = DataConfig.pool("jdbc:h2:file:" + base, "");
                Flusher flusher = new Flusher(DataConfig.beside(pool))) {
            TransactionTemplate transaction =
                    new TransactionTemplate(new Commits(pool, flusher, new Disk(new DataFolder(base), 0, 0)));
            JdbcClient jdbc = JdbcClient.create(pool);
            transaction.executeWithoutResult(
                    t -> jdbc.sql("CREATE TABLE note (id INT PRIMARY KEY)").update());
            int crowd = pool.getMaximumPoolSize();
            CyclicBarrier together = new CyclicBarrier(crowd);
            ExecutorService writers = Executors.newFixedThreadPool(crowd);
            List<Future<?>> writes = new ArrayList<>();
            for (int i = 0; i < crowd; i++) {
                int id = i;
                writes.add(writers.submit(() -> transaction.executeWithoutResult(t -> {
                    jdbc.sql("INSERT INTO note VALUES (:id)").param("id", id).update();
                    await(together);
                })));
            }
            writers.shutdown();
            for (Future<?> write : writes) {
                // it waited half a minute for a connection that all of them held
                write.get(20, TimeUnit.SECONDS);
            }
            assertThat(jdbc.sql("SELECT COUNT(*) FROM note")
                            .query(Integer.class)
                            .single())
                    .isEqualTo(crowd);
        }
    }

    private static void await(CyclicBarrier barrier) {
        try {
            barrier.await(10, TimeUnit.SECONDS);
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    /** Writes beside each other, cuts, opens what is left, and holds it against what was answered. */
    private static void round(Path base, Random random) throws Exception {
        Cuttable.pending.clear();
        Set<Integer> answered = ConcurrentHashMap.newKeySet();
        Path left = base.resolveSibling(base.getFileName() + "-left");
        try (HikariDataSource pool = DataConfig.pool("jdbc:h2:cut:" + base, "")) {
            Flusher flusher = new Flusher(DataConfig.beside(pool));
            TransactionTemplate transaction =
                    new TransactionTemplate(new Commits(pool, flusher, new Disk(new DataFolder(base), 0, 0)));
            JdbcClient jdbc = JdbcClient.create(pool);
            transaction.executeWithoutResult(t -> jdbc.sql("CREATE TABLE note (id INT PRIMARY KEY, words VARCHAR(200))")
                    .update());
            AtomicBoolean cut = new AtomicBoolean();
            AtomicInteger next = new AtomicInteger();
            List<Thread> writers = new ArrayList<>();
            for (int w = 0; w < WRITERS; w++) {
                Thread writer = new Thread(() -> {
                    while (!cut.get()) {
                        int id = next.incrementAndGet();
                        transaction.executeWithoutResult(t -> jdbc.sql("INSERT INTO note VALUES (:id, :words)")
                                .param("id", id)
                                .param("words", "w".repeat(id % 200))
                                .update());
                        answered.add(id);
                    }
                });
                writers.add(writer);
                writer.start();
            }
            while (answered.size() < ANSWERED) {
                Thread.sleep(1);
            }
            Set<Integer> before;
            synchronized (Cuttable.pending) {
                before = new HashSet<>(answered);
                Cuttable.leave(Path.of(base + ".mv.db"), Path.of(left + ".mv.db"), random);
            }
            cut.set(true);
            for (Thread writer : writers) {
                writer.join();
            }
            flusher.close();
            assertThat(lost(left, before)).as("answered and gone").isEmpty();
        }
    }

    private static Set<Integer> lost(Path left, Set<Integer> answered) throws SQLException {
        Set<Integer> lost = new HashSet<>(answered);
        try (Connection c = DriverManager.getConnection("jdbc:h2:file:" + left, Database.USER, "");
                Statement s = c.createStatement();
                var found = s.executeQuery("SELECT id FROM note")) {
            while (found.next()) {
                lost.remove(found.getInt(1));
            }
        }
        return lost;
    }

    /** A file system that knows what was written since the last time it was brought to the device. */
    public static final class Cuttable extends FilePathWrapper {

        /** What the device need not have yet, in the order it was written. */
        private static final List<Write> pending = new CopyOnWriteArrayList<>();

        private record Write(long at, byte[] bytes) {}

        @Override
        public String getScheme() {
            return "cut";
        }

        @Override
        public FileChannel open(String mode) throws IOException {
            return new Channel(getBase().open(mode), Path.of(getBase().toString()));
        }

        /** What a cut now leaves: all that was brought to the device, and any of the rest. */
        static void leave(Path file, Path to, Random random) throws IOException {
            Files.copy(file.resolveSibling(file.getFileName() + ".device"), to);
            try (FileChannel out = FileChannel.open(to, java.nio.file.StandardOpenOption.WRITE)) {
                for (Write w : pending) {
                    if (random.nextBoolean()) {
                        out.write(ByteBuffer.wrap(w.bytes()), w.at());
                    }
                }
            }
        }

        private static final class Channel extends FileBase {
            private final FileChannel inner;
            private final FileChannel device;
            private long position;

            Channel(FileChannel inner, Path file) throws IOException {
                this.inner = inner;
                this.device = FileChannel.open(
                        file.resolveSibling(file.getFileName() + ".device"),
                        java.nio.file.StandardOpenOption.CREATE,
                        java.nio.file.StandardOpenOption.WRITE);
            }

            @Override
            public int write(ByteBuffer from, long at) throws IOException {
                byte[] bytes = new byte[from.remaining()];
                from.duplicate().get(bytes);
                synchronized (pending) {
                    pending.add(new Write(at, bytes));
                    return inner.write(from, at);
                }
            }

            @Override
            public void force(boolean metaData) throws IOException {
                synchronized (pending) {
                    for (Write w : pending) {
                        device.write(ByteBuffer.wrap(w.bytes()), w.at());
                    }
                    pending.clear();
                }
            }

            @Override
            public int read(ByteBuffer into, long at) throws IOException {
                return inner.read(into, at);
            }

            @Override
            public int read(ByteBuffer into) throws IOException {
                int read = inner.read(into, position);
                position += Math.max(read, 0);
                return read;
            }

            @Override
            public int write(ByteBuffer from) throws IOException {
                int written = write(from, position);
                position += written;
                return written;
            }

            @Override
            public long position() {
                return position;
            }

            @Override
            public FileChannel position(long next) {
                position = next;
                return this;
            }

            @Override
            public long size() throws IOException {
                return inner.size();
            }

            @Override
            public FileChannel truncate(long size) throws IOException {
                inner.truncate(size);
                return this;
            }

            @Override
            public FileLock tryLock(long from, long size, boolean shared) throws IOException {
                return inner.tryLock(from, size, shared);
            }

            @Override
            protected void implCloseChannel() throws IOException {
                inner.close();
                device.close();
            }
        }
    }
}
