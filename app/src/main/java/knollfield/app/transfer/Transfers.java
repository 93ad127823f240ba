package knollfield.app.transfer;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import knollfield.app.engine.EngineBook;
import knollfield.app.hours.Hours;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.People;
import knollfield.app.settings.Houses;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Cells;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.standins.Outside;
import knollfield.app.vehicle.VehiclesChanged;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import org.apache.commons.csv.QuoteMode;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Everything the workshop has as one file: a folder, zipped, with a CSV document for each table (RFC 4180), a JSON document
 * for each engine's book, and the pictures. It goes into an empty workshop of the same version and is the same there.
 * Passwords and private addresses stay where they are.
 */
@Service
class Transfers {

    /**
     * Tables, each after those its rows rest on. Whatever the schema has must be here or in {@link #STAYS}; a test holds
     * the two against the database.
     */
    static final List<String> TABLES = List.of(
            "workshop",
            "house",
            "opening",
            "outside",
            "assumption",
            "setup_change",
            "fleet",
            "person",
            "person_change",
            "saved_view",
            "usage_class",
            "engine_family",
            "family_rule",
            "tool_copy",
            "part",
            "stock",
            "part_order",
            "bay",
            "absence",
            "owner",
            "owner_phone",
            "owner_change",
            "vehicle",
            "reading",
            "odometer_replacement",
            "trip",
            "job",
            "renewal",
            "evidence",
            "breakdown",
            "call_note",
            "standing_decline",
            "vehicle_forward",
            "estimate",
            "consent",
            "agreed_price",
            "no_show",
            "to_tell",
            "board_change",
            "calendar_entry",
            "paper_copy",
            "fleet_contact",
            "letter_rule",
            "letter_words",
            "mail_server",
            "outbox_message",
            "outbox_vehicle",
            "card_event",
            "card_plan",
            "photo",
            "job_record",
            "recheck",
            "follow_up",
            "vehicle_log",
            "practice_result",
            "import_batch",
            "import_row",
            "import_mapping");

    /** What opens a calendar to whoever has it is made anew. */
    static final Set<String> STAYS =
            Set.of("calendar_feed", "owner_link", "reading_feed", "reading_refused", "backup_plan", "done_request");

    /** Columns that have a document of their own, or never leave. */
    private static final Map<String, List<String>> APART = Map.of(
            "person", List.of("password_hash", "signed_out_at", "second_factor", "second_factor_step"),
            "engine_family", List.of("body"),
            "photo", List.of("bytes"),
            "mail_server", List.of("password"));

    /** What a new workshop has of its own accord, and an export replaces. */
    private static final Set<String> FIRST = Set.of(
            "workshop",
            "house",
            "opening",
            "outside",
            "usage_class",
            "person",
            "person_change",
            "letter_rule",
            "mail_server");

    /** Told by the quotes: an empty text from none at all. */
    private static final CSVFormat CSV = CSVFormat.RFC4180
            .builder()
            .setQuoteMode(QuoteMode.ALL_NON_NULL)
            .setNullString("")
            .get();

    private final TransferRepository repository;
    private final ApplicationEventPublisher events;
    private final WorkshopClock clock;
    private final JsonMapper json;

    Transfers(TransferRepository repository, ApplicationEventPublisher events, WorkshopClock clock, JsonMapper json) {
        this.repository = repository;
        this.events = events;
        this.clock = clock;
        this.json = json;
    }

    /**
     * Writes everything to a file.
     *
     * @return rows by table
     */
    @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
    public Map<String, Integer> write(Path to) throws IOException {
        Map<String, Integer> counts = new LinkedHashMap<>();
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(to), StandardCharsets.UTF_8)) {
            for (String table : TABLES) {
                counts.put(table, table(zip, table));
            }
            repository.books((name, body) -> entry(zip, "engines/" + fileName(name) + ".json", bytes(body)));
            repository.photos((id, picture) -> entry(zip, "photos/" + id + ".jpg", picture));
            ObjectNode about = json.createObjectNode();
            about.put("form", "knollfield").put("schema", repository.schema());
            about.put("made", clock.instant().truncatedTo(ChronoUnit.SECONDS).toString());
            ObjectNode rows = about.putObject("rows");
            counts.forEach(rows::put);
            entry(zip, "about.json", bytes(about.toPrettyString()));
            entry(zip, "README.txt", bytes(README));
        }
        return counts;
    }

    private static final String README = """
            Everything of a workshop, to keep or to put into an empty one (Setup, Everything as files).

            about.json      which version wrote it, when, and how many rows each table has
            tables/*.csv    UTF-8, commas, quotes as RFC 4180 has them; a value without quotes is none at all
            engines/*.json  the book of each engine family, each version of it
            photos/*.jpg    pictures by their number in tables/photo.csv

            Distances are km, money is in hundredths of the currency, times carry their zone.
            Passwords are not in it: after taking it in, a manager gives everybody a new one.
            """;

    private int table(ZipOutputStream zip, String table) throws IOException {
        List<String> columns = repository.columns(table, APART.getOrDefault(table, List.of()));
        zip.putNextEntry(new ZipEntry("tables/" + table + ".csv"));
        Writer writer = new OutputStreamWriter(zip, StandardCharsets.UTF_8);
        CSVPrinter printer = new CSVPrinter(writer, CSV);
        printer.printRecord(columns);
        int[] count = {0};
        repository.rows(table, columns, row -> {
            try {
                Cells.print(printer, row);
                count[0]++;
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
        writer.flush();
        zip.closeEntry();
        return count[0];
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** A family's code may have signs that a file's name cannot. */
    private static String fileName(String code) {
        return URLEncoder.encode(code, StandardCharsets.UTF_8);
    }

    private static void entry(ZipOutputStream zip, String name, byte[] bytes) {
        try {
            zip.putNextEntry(new ZipEntry(name));
            zip.write(bytes);
            zip.closeEntry();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Puts a written file into this workshop, which must be empty; all of it or nothing. Afterwards everybody signs in
     * anew: whoever has the sign-in name of an account that was here with its password, all others once a manager has
     * given them one.
     *
     * @param signIn of the manager who takes it in, and keeps an account
     * @return rows by table
     * @throws InvalidInput where the workshop is not empty, or the file is not whole, not ours, or of another version
     */
    @Transactional
    public Map<String, Integer> read(Path from, String signIn) {
        List<String> full = TABLES.stream()
                .filter(t -> !FIRST.contains(t) && !t.equals("setup_change") && !t.equals("assumption"))
                .filter(t -> repository.count(t) > 0)
                .collect(Collectors.toCollection(ArrayList::new));
        if (repository.count("person") > 1) {
            full.add("people beside you");
        }
        if (!full.isEmpty()) {
            throw new InvalidInput(
                    "/file",
                    "This workshop is not empty (%s); everything of another goes into an empty one only."
                            .formatted(String.join(", ", full).replace('_', ' ')));
        }
        Map<String, String> passwords = repository.passwords();
        List<List<@Nullable String>> own = new ArrayList<>();
        List<String> people = repository.columns("person", APART.getOrDefault("person", List.of()));
        repository.rows("person", people, own::add);
        Map<String, Integer> counts = new LinkedHashMap<>();
        try (ZipFile zip = new ZipFile(from.toFile(), StandardCharsets.UTF_8)) {
            JsonNode about = about(zip);
            List<String> backwards = new ArrayList<>(TABLES);
            Collections.reverse(backwards);
            backwards.forEach(repository::empty);
            for (String table : TABLES) {
                int rows = take(zip, table);
                int said = about.path("rows").path(table).asInt(-1);
                if (said != rows) {
                    throw new InvalidInput(
                            "/file",
                            "tables/%s.csv has %d rows where the file says it has %d; it is not whole."
                                    .formatted(table, rows, said));
                }
                counts.put(table, rows);
                if (table.equals("person")) {
                    keepTheManager(people, own, signIn);
                    passwords.forEach(repository::setPassword);
                }
                repository.numberOn(table);
            }
            repository.holdBack();
        } catch (IOException e) {
            throw new InvalidInput("/file", "This is no file of a whole workshop: %s.".formatted(e.getMessage()));
        } catch (DataAccessException e) {
            throw new InvalidInput(
                    "/file",
                    "A value in the file does not fit: %s. Nothing was taken in."
                            .formatted(e.getMostSpecificCause().getMessage()));
        }
        repository.signEverybodyOut(Instant.now().truncatedTo(ChronoUnit.MICROS));
        events.publishEvent(new WorkshopSettings.SettingsChanged());
        events.publishEvent(new Houses.HouseChanged());
        events.publishEvent(new Hours.HoursChanged());
        events.publishEvent(new Outside.OutsideChanged());
        events.publishEvent(new EngineBook.BooksReplaced());
        events.publishEvent(new VehiclesChanged(new HashSet<>(repository.vehicles())));
        return counts;
    }

    private JsonNode about(ZipFile zip) throws IOException {
        JsonNode about;
        try {
            about = json.readTree(content(zip, "about.json"));
        } catch (JacksonException e) {
            throw new InvalidInput(
                    "/file", "about.json of the file cannot be read: %s.".formatted(e.getOriginalMessage()));
        }
        String schema = about.path("schema").asString("");
        if (!about.path("form").asString("").equals("knollfield")) {
            throw new InvalidInput("/file", "about.json says that this was not written by Knollfield.");
        }
        if (!schema.equals(repository.schema())) {
            throw new InvalidInput(
                    "/file",
                    "The file is of version %s, this workshop of version %s; write it anew with the same version."
                            .formatted(schema, repository.schema()));
        }
        return about;
    }

    private static byte[] content(ZipFile zip, String name) throws IOException {
        ZipEntry entry = zip.getEntry(name);
        if (entry == null) {
            throw new InvalidInput("/file", "%s is missing in the file.".formatted(name));
        }
        try (InputStream in = zip.getInputStream(entry)) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            in.transferTo(out);
            return out.toByteArray();
        }
    }

    private int take(ZipFile zip, String table) throws IOException {
        int rows = 0;
        List<String> expected = repository.columns(table, APART.getOrDefault(table, List.of()));
        try (CSVParser parser =
                CSVParser.parse(new String(content(zip, "tables/" + table + ".csv"), StandardCharsets.UTF_8), CSV)) {
            for (CSVRecord record : parser) {
                if (record.getRecordNumber() == 1) {
                    if (!record.toList().equals(expected)) {
                        throw new InvalidInput(
                                "/file",
                                "tables/%s.csv has the columns %s; this version has %s."
                                        .formatted(table, record.toList(), expected));
                    }
                    continue;
                }
                if (record.size() != expected.size()) {
                    throw new InvalidInput(
                            "/file",
                            "tables/%s.csv, line %d: %d values where there are %d columns."
                                    .formatted(table, parser.getCurrentLineNumber(), record.size(), expected.size()));
                }
                put(
                        zip,
                        table,
                        expected,
                        record.stream()
                                .map(v -> v == null ? null : Cells.plain(v))
                                .collect(Collectors.toCollection(ArrayList::new)));
                rows++;
            }
        }
        return rows;
    }

    private void put(ZipFile zip, String table, List<String> columns, List<@Nullable String> values)
            throws IOException {
        List<String> all = new ArrayList<>(columns);
        List<@Nullable String> more = new ArrayList<>(values);
        switch (table) {
            case "person" -> {
                all.add("password_hash");
                more.add(People.NO_PASSWORD);
                repository.insert(table, all, more);
            }
            case "engine_family" -> {
                String name = values.get(columns.indexOf("code")) + ".v" + values.get(columns.indexOf("version"));
                all.add("body");
                more.add(new String(content(zip, "engines/" + fileName(name) + ".json"), StandardCharsets.UTF_8));
                repository.insert(table, all, more);
            }
            case "photo" -> {
                ZipEntry picture = zip.getEntry("photos/" + values.get(columns.indexOf("id")) + ".jpg");
                if (picture == null) {
                    throw new InvalidInput("/file", "A picture that photo.csv names is missing in the file.");
                }
                try (InputStream in = zip.getInputStream(picture)) {
                    repository.insert(table, columns, values, "bytes", in);
                }
            }
            default -> repository.insert(table, columns, values);
        }
    }

    /** Whoever takes it in must get in again: with the account of that name in the file, or else with the own one. */
    private void keepTheManager(List<String> columns, List<List<@Nullable String>> own, String signIn) {
        int at = columns.indexOf("sign_in");
        Set<String> there = new HashSet<>();
        repository.rows(
                "person",
                List.of("sign_in"),
                r -> there.add(String.valueOf(r.get(0)).toLowerCase(Locale.ROOT)));
        if (there.contains(signIn.toLowerCase(Locale.ROOT))) {
            return;
        }
        repository.numberOn("person");
        own.stream().filter(r -> signIn.equals(r.get(at))).findFirst().ifPresent(r -> {
            List<String> all = new ArrayList<>(columns);
            List<@Nullable String> values = new ArrayList<>(r);
            values.remove(all.indexOf("id"));
            all.remove("id");
            all.add("password_hash");
            values.add(People.NO_PASSWORD);
            repository.insert("person", all, values);
        });
    }
}
