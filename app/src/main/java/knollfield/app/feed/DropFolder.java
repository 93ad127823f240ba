package knollfield.app.feed;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import knollfield.app.problem.InvalidInput;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Files that somebody, or a program, drops into a feed's folder beside the data: CSV with a row of heads (RFC 4180). A file
 * that was read goes to {@code done}, with what was refused in a text beside it; one that cannot be read goes to
 * {@code refused}. Read twice, a file changes nothing.
 */
@Component
class DropFolder {

    private static final Logger LOG = LoggerFactory.getLogger(DropFolder.class);
    /** A file that is still being written is left alone. */
    private static final Duration SETTLED = Duration.ofSeconds(2);

    private static final long MOST_BYTES = 5_000_000;

    private static final List<String> VEHICLE = List.of("registration", "vehicle", "vin", "plate");
    private static final List<String> AT = List.of("at", "date", "time", "timestamp");
    private static final List<String> VALUE = List.of("value", "odometer", "reading", "km", "mi", "miles");
    private static final List<String> UNIT = List.of("unit");

    private final Feeds feeds;
    private final Path root;

    DropFolder(Feeds feeds, @Value("${knollfield.data:./data/workshop}") String data) {
        this.feeds = feeds;
        this.root = Path.of(data).toAbsolutePath().normalize().resolveSibling("readings");
    }

    Path of(Feed feed) {
        String name = feed.name().toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "-");
        return root.resolve("%d-%s".formatted(feed.id(), name));
    }

    /** Reads whatever lies there. */
    @Scheduled(fixedDelay = 5_000, initialDelay = 5_000)
    synchronized void look() {
        for (Feed feed : feeds.all()) {
            try {
                Path folder = Files.createDirectories(of(feed));
                try (Stream<Path> files = Files.list(folder)) {
                    files.filter(Files::isRegularFile)
                            .filter(f -> !f.getFileName().toString().startsWith("."))
                            .sorted()
                            .forEach(f -> read(feed, f));
                }
            } catch (IOException e) {
                LOG.warn("The folder of the feed {} cannot be read: {}", feed.name(), e.getMessage());
            }
        }
    }

    private void read(Feed feed, Path file) {
        try {
            if (Files.getLastModifiedTime(file)
                    .toInstant()
                    .isAfter(Instant.now().minus(SETTLED))) {
                return;
            }
            String why;
            try {
                Feed.Received received = feeds.receive(feed, lines(file));
                why = received.refused().isEmpty() ? "" : words(received);
                put(file, "done", why);
            } catch (InvalidInput e) {
                put(file, "refused", String.valueOf(e.getMessage()));
            }
        } catch (IOException e) {
            LOG.warn("{} cannot be read: {}", file, e.getMessage());
        }
    }

    private static String words(Feed.Received r) {
        StringBuilder words = new StringBuilder("%d taken, %d known, %d refused:\n"
                .formatted(r.taken(), r.known(), r.refused().size()));
        r.refused().forEach(f -> words.append("row %d, %s: %s\n".formatted(f.line() + 2, f.vehicle(), f.why())));
        return words.toString();
    }

    private static List<Feed.Line> lines(Path file) throws IOException {
        if (Files.size(file) > MOST_BYTES) {
            throw new InvalidInput("/file", "The file is larger than %d MB.".formatted(MOST_BYTES / 1_000_000));
        }
        String text = Files.readString(file, StandardCharsets.UTF_8).replace("\uFEFF", "");
        char comma = text.lines().findFirst().orElse("").contains(";") ? ';' : ',';
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setDelimiter(comma)
                .setHeader()
                .setSkipHeaderRecord(true)
                .setIgnoreEmptyLines(true)
                .setTrim(true)
                .get();
        List<Feed.Line> lines = new ArrayList<>();
        try (CSVParser parser = CSVParser.parse(text, format)) {
            Map<String, String> heads = new TreeMap<>();
            parser.getHeaderNames().forEach(h -> heads.put(h.toLowerCase(Locale.ROOT), h));
            List<String> vehicle = heads(heads, VEHICLE);
            String value = head(heads, VALUE);
            if (vehicle.isEmpty() || value.isEmpty()) {
                throw new InvalidInput(
                        "/file", "The first row must name the columns: registration, date, value and unit.");
            }
            String at = head(heads, AT);
            String unit = head(heads, UNIT);
            String usual = value.toLowerCase(Locale.ROOT).startsWith("mi") ? "mi" : "km";
            for (CSVRecord r : parser) {
                String said = cell(r, unit);
                String named = vehicle.stream()
                        .map(h -> cell(r, h))
                        .filter(v -> !v.isEmpty())
                        .findFirst()
                        .orElse("");
                lines.add(new Feed.Line(named, cell(r, at), cell(r, value), said.isEmpty() ? usual : said));
            }
            return lines;
        } catch (IllegalArgumentException | java.io.UncheckedIOException e) {
            throw new InvalidInput("/file", "The file is no table of readings: " + e.getMessage());
        }
    }

    private static List<String> heads(Map<String, String> heads, List<String> names) {
        return names.stream()
                .filter(heads::containsKey)
                .map(n -> String.valueOf(heads.get(n)))
                .toList();
    }

    private static String head(Map<String, String> heads, List<String> names) {
        return heads(heads, names).stream().findFirst().orElse("");
    }

    private static String cell(CSVRecord r, String head) {
        return !head.isEmpty() && r.isSet(head) ? r.get(head) : "";
    }

    private static void put(Path file, String where, String why) throws IOException {
        Path folder = Files.createDirectories(file.resolveSibling(where));
        Path kept = folder.resolve(file.getFileName());
        Files.move(file, kept, StandardCopyOption.REPLACE_EXISTING);
        if (!why.isEmpty()) {
            Files.writeString(folder.resolve(file.getFileName() + ".why.txt"), why);
        }
    }
}
