package knollfield.app.importing;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import knollfield.app.importing.ImportLines.Action;
import knollfield.app.importing.ImportLines.Line;
import knollfield.app.importing.ImportViews.FieldView;
import knollfield.app.importing.ImportViews.Preview;
import knollfield.app.importing.Understanding.Existing;
import knollfield.app.importing.Understanding.Said;
import knollfield.app.problem.InvalidInput;
import knollfield.app.shared.Cells;
import knollfield.core.units.DistanceUnit;
import org.apache.commons.csv.CSVFormat;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** An import, as it is shown and asked for. */
final class ImportViews {

    private static final int SHOWN = 200;
    private static final int SAMPLES = 3;

    private ImportViews() {}

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

    static FieldView view(Understanding u, ImportField f) {
        return new FieldView(f, f.words(), u.kind().needed().contains(f));
    }

    static ResponseEntity<byte[]> csv(String name, List<List<String>> rows) {
        // with the mark by which spreadsheets know UTF-8
        String text = "\ufeff"
                + rows.stream().map(r -> Cells.line(CSVFormat.RFC4180, r)).collect(Collectors.joining("\r\n"))
                + "\r\n";
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("text/csv;charset=UTF-8"))
                .header("Content-Disposition", "attachment; filename=\"%s\"".formatted(name))
                .body(text.getBytes(StandardCharsets.UTF_8));
    }

    static byte[] bytes(byte @Nullable [] body) {
        return body == null ? new byte[0] : body;
    }

    /** A list as it is understood, before it is taken: bad lines first among those shown. */
    static Preview preview(Importer.Read read) {
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

    /** The lines that cannot be taken, each with what is wrong; headings first. */
    static List<List<String>> badLines(Importer.Read read) {
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
        return rows;
    }

    /** @param as what is said of a list, as JSON; nothing: all of it is found out */
    static Said said(@Nullable String as, JsonMapper json) {
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
