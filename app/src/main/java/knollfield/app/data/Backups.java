package knollfield.app.data;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.sql.DataSource;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.shared.WorkshopClock;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Backs the data up while the workshop works: by a plan, or now. */
@Service
public class Backups {

    private static final Logger LOG = LoggerFactory.getLogger(Backups.class);
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyy-MM-dd-HHmmss", Locale.ROOT);
    private static final Pattern NAME =
            Pattern.compile("(knollfield|before-upgrade)-\\d{4}-\\d\\d-\\d\\d-\\d{6}\\.zip");
    private static final Pattern OWN = Pattern.compile("knollfield-.*");
    private static final int SHORTEST_PASSPHRASE = 12;
    private static final int LONGEST_FAILURE = 600;

    private final DataFolder data;
    private final OpenData open;
    private final DataSource dataSource;
    private final BackupPlanRepository plans;
    private final WorkshopClock clock;
    private final TransactionTemplate transaction;

    Backups(
            DataFolder data,
            OpenData open,
            DataSource dataSource,
            BackupPlanRepository plans,
            WorkshopClock clock,
            TransactionTemplate transaction) {
        this.data = data;
        this.open = open;
        this.dataSource = dataSource;
        this.plans = plans;
        this.clock = clock;
        this.transaction = transaction;
    }

    /**
     * A backup that is there.
     *
     * @param bytes its size
     */
    public record Made(String name, Instant at, long bytes) {}

    BackupPlan plan() {
        return plans.get();
    }

    /** Why the last one by the plan went wrong; empty where it did not. */
    public Optional<String> failure() {
        return plans.get().failure();
    }

    /**
     * Changes the plan.
     *
     * @throws InvalidInput where a figure is out of its range, or backups cannot be put in the folder
     * @throws Conflict where somebody else changed it first
     */
    void change(BackupPlan plan) {
        new Checks()
                .that(plan.hour() >= 0 && plan.hour() <= 23, "/hour", "The hour is 0 to 23.")
                .that(plan.keep() >= 1 && plan.keep() <= 400, "/keep", "Keep 1 to 400 of them.")
                .that(
                        plan.passphrase()
                                .filter(p -> p.length() < SHORTEST_PASSPHRASE)
                                .isEmpty(),
                        "/passphrase",
                        "A passphrase needs at least %d characters.".formatted(SHORTEST_PASSPHRASE))
                .that(
                        plan.passphrase().filter(p -> p.length() > 200).isEmpty(),
                        "/passphrase",
                        "A passphrase has at most 200 characters.")
                .orThrow();
        if (!plan.folder().isBlank()) {
            checkFolder(plan.folder());
        }
        transaction.executeWithoutResult(t -> {
            if (!plans.update(plan)) {
                throw new Conflict("Somebody else changed when backups are made; load again.");
            }
        });
    }

    private static void checkFolder(String folder) {
        try {
            Path path = Path.of(folder);
            if (!path.isAbsolute()) {
                throw new InvalidInput("/folder", "Name the whole path, from the root of the disk on.");
            }
            Files.createDirectories(path);
            Files.delete(Files.createTempFile(path, ".tried-", ""));
        } catch (InvalidPathException e) {
            throw new InvalidInput("/folder", "This is no path.");
        } catch (IOException | SecurityException e) {
            throw new InvalidInput("/folder", "Nothing can be written there: %s.".formatted(e.getMessage()));
        }
    }

    /** Where the plan puts them. */
    Path folder() {
        String folder = plans.get().folder();
        return folder.isBlank() ? data.backups() : Path.of(folder);
    }

    /** Those that are there, the newest first. */
    List<Made> made() {
        Path folder = folder();
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (Stream<Path> files = Files.list(folder)) {
            return files.filter(f -> NAME.matcher(f.getFileName().toString()).matches())
                    .map(Backups::made)
                    .sorted(Comparator.comparing(Made::at).reversed())
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Made made(Path file) {
        try {
            return new Made(
                    file.getFileName().toString(),
                    Files.getLastModifiedTime(file).toInstant(),
                    Files.size(file));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** One of them. */
    Path file(String name) {
        if (made().stream().noneMatch(m -> m.name().equals(name))) {
            throw new NotFound("There is no backup of this name.");
        }
        return folder().resolve(name);
    }

    /** Makes one now, where the plan puts them; the oldest beyond those that are kept go. */
    void now() {
        BackupPlan plan = plans.get();
        Path folder = folder();
        Path target = folder.resolve("knollfield-%s.zip".formatted(STAMP.format(clock.now())));
        to(target, plan.passphrase());
        made().stream()
                .filter(m -> OWN.matcher(m.name()).matches())
                .skip(plan.keep())
                .forEach(m -> {
                    try {
                        Files.delete(folder.resolve(m.name()));
                    } catch (IOException e) {
                        LOG.warn("the old backup {} could not be deleted", m.name(), e);
                    }
                });
    }

    /**
     * Makes one.
     *
     * @return rows by table
     * @throws CannotStart where it cannot be made
     */
    synchronized Map<String, Long> to(Path target, Optional<String> passphrase) {
        try (Connection connection = dataSource.getConnection()) {
            return BackupSet.of(connection, open.password(), passphrase, target).rows();
        } catch (SQLException e) {
            throw new CannotStart("The data could not be backed up: %s".formatted(e.getMessage()), e);
        }
    }

    @Scheduled(fixedDelay = 60_000, initialDelay = 60_000)
    void byPlan() {
        if (!plans.get().due(clock.instant(), clock.zone())) {
            return;
        }
        Optional<String> failure = Optional.empty();
        try {
            now();
        } catch (CannotStart e) {
            LOG.error("{}", e.sentence());
            failure = Optional.of(e.sentence());
        }
        Optional<String> words = failure.map(f -> f.substring(0, Math.min(f.length(), LONGEST_FAILURE)));
        transaction.executeWithoutResult(t -> plans.tried(clock.instant(), words));
    }
}
