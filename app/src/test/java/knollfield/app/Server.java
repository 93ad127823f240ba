package knollfield.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import knollfield.app.data.WithoutSync;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.ExtensionContext.Namespace;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.datasource.DriverManagerDataSource;

/**
 * Starts the real application on a free port with a new H2 file, once for each kind of data, and stops it after the last
 * test. Spring's own test support needs a later JUnit.
 */
public final class Server implements BeforeAllCallback {

    public static final String FIRST_RUN_CODE = "12345678";
    public static final String DEMO_PASSWORD = "skerrow-demo";

    private static final Path DISK = Path.of(System.getProperty("java.io.tmpdir"));

    /** Bytes that data of all tests together never fill. */
    private static final long ROOM = 2_000_000_000;

    private static final AtomicInteger FRESH = new AtomicInteger();

    private final boolean demo;
    private final String key;
    private Running running;

    private final List<String> more;

    private Server(boolean demo, String key, String... more) {
        this.demo = demo;
        this.key = key;
        this.more = List.of(more);
    }

    /** The workshop's own data: nobody there yet but what {@link #beforeAll} adds, the manager {@code ines}. */
    public static Server empty() {
        return new Server(false, "empty");
    }

    /**
     * An empty workshop that no other test class touches.
     *
     * @param more arguments it is started with
     */
    public static Server fresh(String... more) {
        return new Server(false, "fresh-" + FRESH.incrementAndGet(), more);
    }

    /** The island of Skerrow. */
    public static Server demo() {
        return new Server(true, "demo");
    }

    /** An island of Skerrow that no other test class touches. */
    public static Server freshDemo() {
        return new Server(true, "fresh-" + FRESH.incrementAndGet());
    }

    private record Running(ConfigurableApplicationContext context, Path folder, String address)
            implements ExtensionContext.Store.CloseableResource {

        @Override
        public void close() throws IOException {
            context.close();
            try (Stream<Path> files = Files.walk(folder)) {
                files.sorted(Comparator.reverseOrder()).forEach(f -> f.toFile().delete());
            }
        }
    }

    @Override
    public void beforeAll(ExtensionContext context) {
        running = context.getRoot()
                .getStore(Namespace.create(Server.class))
                .getOrComputeIfAbsent("server-" + key, k -> start(), Running.class);
    }

    /**
     * Where the data of tests lie that are not about the disk: in memory where there is room, as a change that is brought to a
     * disk takes its time there.
     */
    private static Path place() throws IOException {
        Path memory = Path.of("/dev/shm");
        return Files.isWritable(memory) && Files.getFileStore(memory).getUsableSpace() > ROOM ? memory : DISK;
    }

    private Running start() {
        try {
            Path folder = Files.createTempDirectory(more.isEmpty() ? place() : DISK, "knollfield");
            List<String> arguments = new ArrayList<>(List.of(
                    "--server.port=0",
                    "--knollfield.data=" + folder.resolve("data"),
                    "--knollfield.first-run-code=" + FIRST_RUN_CODE));
            arguments.addAll(more);
            List<Class<?>> sources = new ArrayList<>(List.of(KnollfieldApplication.class));
            if (more.isEmpty()) {
                sources.add(WithoutSync.class);
                sources.add(QuickPasswords.class);
                // long enough to see that a plan is worked out; how good one gets is for bench
                arguments.add("--knollfield.planner.seconds=4");
                arguments.add("--spring.main.allow-bean-definition-overriding=true");
            }
            if (demo) {
                arguments.add("--knollfield.demo=true");
            }
            ConfigurableApplicationContext context =
                    SpringApplication.run(sources.toArray(Class[]::new), arguments.toArray(String[]::new));
            int port = ((WebServerApplicationContext) context).getWebServer().getPort();
            Running started = new Running(context, folder, "http://localhost:" + port);
            if (!demo) {
                new Client(started.address())
                        .post("/api/first-run", """
                                {"code": "%s", "signIn": "ines", "name": "Ines Carrow", "password": "%s"}
                                """.formatted(FIRST_RUN_CODE, DEMO_PASSWORD))
                        .ok();
            }
            return started;
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Such as http://localhost:41234. */
    public String address() {
        return running.address();
    }

    public <T> T bean(Class<T> type) {
        return running.context().getBean(type);
    }

    /** The database beside the server: what is changed by it is committed at once. */
    public JdbcClient jdbc() {
        try {
            Path base = running.folder().resolve("data");
            return JdbcClient.create(new DriverManagerDataSource(
                    "jdbc:h2:file:" + base + ";DB_CLOSE_ON_EXIT=FALSE;TRACE_LEVEL_FILE=0",
                    "knollfield",
                    Files.readString(base.resolveSibling("data.key")).strip()));
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Where its data lie. */
    public Path folder() {
        return running.folder();
    }

    /** A new client, signed in. */
    public Client as(String signIn) {
        return new Client(address()).signIn(signIn, DEMO_PASSWORD);
    }

    /** A new client that nobody has signed in with. */
    public Client stranger() {
        return new Client(address());
    }
}
