package knollfield.app.data;

import java.io.IOException;
import java.io.PrintStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Clock;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** {@code backup FILE} and {@code restore FILE}: what is done to the data without opening the workshop. */
public final class Commands {

    /** Holds the passphrase of a backup; not an argument, which everybody on the machine could read. */
    private static final String PASSPHRASE = "KNOLLFIELD_PASSPHRASE";

    private static final String DATA = "--knollfield.data=";
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyy-MM-dd-HHmmss", Locale.ROOT);
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private Commands() {}

    /** Whether these arguments ask for something else than the server. */
    public static boolean asked(String... args) {
        return args.length > 0 && List.of("backup", "restore").contains(args[0]);
    }

    /** Does it. */
    public static void run(PrintStream out, String... args) {
        List<String> names =
                Arrays.stream(args).skip(1).filter(a -> !a.startsWith("--")).toList();
        if (names.size() != 1) {
            throw new CannotStart("Name one file: ./knollfield %s FILE".formatted(args[0]));
        }
        DataFolder folder = new DataFolder(Arrays.stream(args)
                .filter(a -> a.startsWith(DATA))
                .map(a -> Path.of(a.substring(DATA.length())))
                .findFirst()
                .orElse(Path.of("data", "workshop")));
        Path file = Path.of(names.get(0)).toAbsolutePath().normalize();
        Optional<String> passphrase =
                Optional.ofNullable(System.getenv(PASSPHRASE)).filter(p -> !p.isEmpty());
        long rows;
        if (args[0].equals("restore")) {
            BackupSet.About about = BackupSet.restore(
                    file,
                    passphrase,
                    folder,
                    LocalDateTime.now(Clock.systemDefaultZone()).format(STAMP));
            rows = sum(about.rows());
            out.printf(
                    Locale.ROOT,
                    "Restored %s, made %s: %,d rows in %d tables. What was there is kept beside it.%n",
                    file,
                    about.made(),
                    rows,
                    about.rows().size());
        } else {
            Map<String, Long> made = backup(folder, passphrase, file);
            out.printf(
                    Locale.ROOT,
                    "Backed up to %s: %,d rows in %d tables, opened and read back.%n",
                    file,
                    sum(made),
                    made.size());
        }
    }

    private static long sum(Map<String, Long> rows) {
        return rows.values().stream().mapToLong(Long::longValue).sum();
    }

    private static Map<String, Long> backup(DataFolder folder, Optional<String> passphrase, Path file) {
        if (!Files.exists(folder.database())) {
            throw new CannotStart("There are no data in %s.".formatted(folder.folder()));
        }
        try {
            String key =
                    Files.exists(folder.key()) ? Files.readString(folder.key()).strip() : "";
            Optional<Mark> mark = Mark.read(folder.mark());
            if (mark.isPresent() && !mark.get().fits(folder.database())) {
                throw new CannotStart(
                        "The data file %s is not as Knollfield left it; a backup of it would be worth nothing."
                                .formatted(folder.database()));
            }
            try (Connection connection = Database.open(folder, key)) {
                if (mark.isPresent()) {
                    Mark.running(mark.get().written()).write(folder.mark());
                }
                return BackupSet.of(connection, key, passphrase, file).rows();
            } catch (SQLException e) {
                if (!Database.inUse(e)) {
                    throw new CannotStart(
                            "The data file %s does not open: %s".formatted(folder.database(), e.getMessage()), e);
                }
            }
            return asked(folder, key, passphrase, file);
        } catch (IOException e) {
            throw new CannotStart("The data in %s cannot be read: %s".formatted(folder.folder(), e.getMessage()), e);
        }
    }

    /** Has the server that runs make it. */
    private static Map<String, Long> asked(DataFolder folder, String key, Optional<String> passphrase, Path file)
            throws IOException {
        Running running = Running.of(folder)
                .orElseThrow(() -> new CannotStart(
                        "Something has the data in %s open, and it is no Knollfield.".formatted(folder.folder())));
        var body = JSON.createObjectNode().put("file", file.toString());
        passphrase.ifPresent(p -> body.put("passphrase", p));
        HttpRequest request = HttpRequest.newBuilder(URI.create(running.address() + "/api/control/backup"))
                .header("Authorization", "Bearer " + key)
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(body.toString()))
                .build();
        try {
            HttpResponse<String> answer =
                    HttpClient.newHttpClient().send(request, HttpResponse.BodyHandlers.ofString());
            JsonNode json = JSON.readTree(answer.body());
            if (answer.statusCode() != 200) {
                throw new CannotStart(json.path("detail").asString("The server did not make the backup."));
            }
            Map<String, Long> rows = new java.util.LinkedHashMap<>();
            json.path("rows")
                    .properties()
                    .forEach(r -> rows.put(r.getKey(), r.getValue().asLong()));
            return rows;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CannotStart("Stopped before the backup was made.", e);
        }
    }
}
