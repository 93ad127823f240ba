package knollfield.app.importing;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import knollfield.app.importing.ImportLines.Action;
import knollfield.app.importing.ImportLines.Line;
import knollfield.app.importing.Understanding.Existing;
import knollfield.app.importing.Understanding.Said;
import knollfield.app.problem.Checks;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.TooMany;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.Cells;
import knollfield.core.units.DistanceUnit;
import org.apache.commons.csv.CSVFormat;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** Lists as people have them: looked at first, then taken; the whole of one can be taken back. */
@RestController
@RequestMapping("/api/imports")
class ImportController {

    private static final int SHOWN = 200;
    private static final int SAMPLES = 3;

    private static final Duration PATIENCE = Duration.ofMinutes(1);

    private final ReentrantLock turn = new ReentrantLock(true);
    private final ListWriter writer;
    private final CurrentPerson current;
    private final Importer imports;
    private final JsonMapper json;

    ImportController(Importer imports, JsonMapper json, ListWriter writer, CurrentPerson current) {
        this.writer = writer;
        this.current = current;
        this.imports = imports;
        this.json = json;
    }

    record FieldView(ImportField field, String words, boolean needed) {}

    /**
     * A list as it is understood.
     *
     * @param separator empty for a spreadsheet
     * @param headerRow line of the file that names the columns; 0 for none
     * @param samples first lines of the list, by column
     * @param columns column of each field, from 0
     * @param style missing where the list proves none
     * @param order missing where the list proves none; the day is then taken to stand first
     * @param missing fields that need a column before the list is read
     * @param lines those with a problem, and the first of the others
     */
    record Preview(
            ImportKind kind,
            boolean spreadsheet,
            String encoding,
            String separator,
            long headerRow,
            List<String> headings,
            List<List<String>> samples,
            Map<ImportField, Integer> columns,
            Spelling.@Nullable NumberStyle style,
            Spelling.@Nullable DateOrder order,
            DistanceUnit unit,
            LocalDate readOn,
            String usageClass,
            Existing existing,
            List<FieldView> fields,
            List<FieldView> missing,
            List<Line> lines,
            int total,
            int good,
            int bad,
            Map<Action, Integer> actions) {}

    /** @param count lines that were taken; {@code left} are on file, {@code bad} were refused */
    record Imported(ImportKind kind, @Nullable Long batch, int count, int made, int changed, int left, int bad) {}

    record BatchView(long id, String kind, String fileName, Instant at, String by, int made, int changed) {}

    /** @param body settings as the page sends them, with columns by their headings */
    record MappingIn(@Nullable String name, @Nullable String body) {}

    /**
     * Reads a list and changes nothing.
     *
     * @param as what is said of it, as JSON ({@code Said}); missing: all of it is found out
     */
    @PostMapping("/preview")
    Preview preview(@RequestBody(required = false) byte @Nullable [] body, @RequestParam @Nullable String as) {
        Importer.Read read = imports.read(bytes(body), said(as));
        Understanding u = read.as();
        List<FieldView> missing = Importer.missing(u, read.existing()).stream()
                .map(f -> view(u, f))
                .toList();
        List<Line> lines = read.lines();
        List<Line> shown = new ArrayList<>(lines.stream()
                .filter(l -> l.action() == Action.BAD)
                .limit(SHOWN)
                .toList());
        shown.addAll(lines.stream()
                .filter(l -> l.action() != Action.BAD)
                .limit(SHOWN)
                .toList());
        shown.sort(java.util.Comparator.comparingLong(Line::line));
        Map<Action, Integer> actions = new LinkedHashMap<>();
        for (Action a : Action.values()) {
            actions.put(a, read.count(a));
        }
        int bad = read.count(Action.BAD);
        return new Preview(
                u.kind(),
                u.layout().spreadsheet(),
                u.layout().encoding(),
                u.layout().spreadsheet() ? "" : String.valueOf(u.layout().separator()),
                u.headerRow(),
                u.headings(),
                read.rows().stream()
                        .limit(SAMPLES)
                        .map(r -> r.cells().stream().map(Sheet.Cell::text).toList())
                        .toList(),
                u.columns(),
                u.style().orElse(null),
                u.order().orElse(null),
                u.unit(),
                u.readOn(),
                u.usageClass(),
                read.existing(),
                u.kind().fields().stream().map(f -> view(u, f)).toList(),
                missing,
                shown,
                lines.size(),
                lines.size() - bad,
                bad,
                actions);
    }

    private static FieldView view(Understanding u, ImportField f) {
        return new FieldView(f, f.words(), u.kind().needed().contains(f));
    }

    /** Takes a list in; all of it, or its good lines where that is said. */
    /** One list after the other: each is judged by what those before it brought. */
    private <T> T inTurn(Supplier<T> deed) {
        try {
            if (!turn.tryLock(PATIENCE.toSeconds(), TimeUnit.SECONDS)) {
                throw new TooMany("Other lists are being taken in.", PATIENCE);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new TooMany("Other lists are being taken in.", PATIENCE);
        }
        try {
            return deed.get();
        } finally {
            turn.unlock();
        }
    }

    @PostMapping
    Imported take(
            @RequestBody(required = false) byte @Nullable [] body,
            @RequestParam @Nullable String as,
            @RequestParam @Nullable String name) {
        Importer.Taken t = inTurn(() -> imports.take(bytes(body), said(as), Objects.requireNonNullElse(name, "")));
        return new Imported(
                t.kind(),
                t.batch().isPresent() ? t.batch().getAsLong() : null,
                t.made() + t.changed(),
                t.made(),
                t.changed(),
                t.left(),
                t.bad());
    }

    /** The lines that cannot be taken, as a list to mend and take again, each with what is wrong. */
    @PostMapping("/bad-lines")
    ResponseEntity<byte[]> badLines(
            @RequestBody(required = false) byte @Nullable [] body, @RequestParam @Nullable String as) {
        Importer.Read read = imports.read(bytes(body), said(as));
        List<List<String>> rows = new ArrayList<>();
        List<String> header = new ArrayList<>(read.as().headings());
        header.add("what is wrong");
        rows.add(header);
        Map<Long, Line> bad = read.lines().stream()
                .filter(l -> l.action() == Action.BAD)
                .collect(Collectors.toMap(Line::line, l -> l));
        read.rows().stream().filter(r -> bad.containsKey(r.line())).forEach(r -> {
            List<String> row = new ArrayList<>();
            for (int i = 0; i < read.as().headings().size(); i++) {
                row.add(r.cell(i).text());
            }
            row.add(Objects.requireNonNull(bad.get(r.line())).problems().stream()
                    .map(p -> "%s: %s".formatted(p.column(), p.detail()))
                    .collect(Collectors.joining(" ")));
            rows.add(row);
        });
        return csv("lines-to-mend.csv", rows);
    }

    /** An empty list of a kind, with its columns and a line that shows how they are filled. */
    @GetMapping("/template")
    ResponseEntity<byte[]> template(@RequestParam ImportKind kind) {
        return csv(
                kind.words() + ".csv",
                List.of(
                        kind.fields().stream().map(ImportField::words).toList(),
                        kind.fields().stream().map(ImportField::example).toList()));
    }

    /** What is on file, in the form of the template. */
    @GetMapping("/list")
    ResponseEntity<byte[]> list(@RequestParam ImportKind kind) {
        if (kind == ImportKind.PEOPLE && !current.get().isManager()) {
            throw new AccessDeniedException("people are the manager's");
        }
        return csv(kind.words() + "-on-file.csv", writer.of(kind));
    }

    private static ResponseEntity<byte[]> csv(String name, List<List<String>> rows) {
        // with the mark by which spreadsheets know UTF-8
        String text = "\ufeff"
                + rows.stream().map(r -> Cells.line(CSVFormat.RFC4180, r)).collect(Collectors.joining("\r\n"))
                + "\r\n";
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("text/csv;charset=UTF-8"))
                .header("Content-Disposition", "attachment; filename=\"%s\"".formatted(name))
                .body(text.getBytes(StandardCharsets.UTF_8));
    }

    @GetMapping
    List<BatchView> taken() {
        return imports.taken().stream()
                .map(b -> new BatchView(b.id(), b.kind().words(), b.fileName(), b.at(), b.by(), b.made(), b.changed()))
                .toList();
    }

    /** How far the import of whoever asks is. */
    @GetMapping("/progress")
    Importer.Progress progress() {
        return imports.progress();
    }

    @PostMapping("/{id}/take-back")
    List<BatchView> takeBack(@PathVariable long id) {
        imports.takeBack(id);
        return taken();
    }

    @GetMapping("/mappings")
    List<ImportRepository.Mapping> mappings() {
        return imports.mappings();
    }

    @PutMapping("/mappings")
    List<ImportRepository.Mapping> keep(@RequestBody MappingIn m) {
        String body = Objects.requireNonNullElse(m.body(), "");
        new Checks()
                .text(m.name(), 60, "/name", "A name")
                .that(body.length() <= 10_000, "/body", "The mapping is too long.")
                .orThrow();
        imports.keep(
                new ImportRepository.Mapping(Objects.requireNonNull(m.name()).strip(), body));
        return imports.mappings();
    }

    @DeleteMapping("/mappings/{name}")
    List<ImportRepository.Mapping> forget(@PathVariable String name) {
        imports.forgetMapping(name);
        return imports.mappings();
    }

    private static byte[] bytes(byte @Nullable [] body) {
        return body == null ? new byte[0] : body;
    }

    private Said said(@Nullable String as) {
        try {
            return Optional.ofNullable(as)
                    .filter(a -> !a.isBlank())
                    .map(a -> json.readValue(a, Said.class))
                    .orElse(Said.nothing());
        } catch (JacksonException e) {
            throw new InvalidInput("/as", "What is said of the list cannot be read.");
        }
    }
}
