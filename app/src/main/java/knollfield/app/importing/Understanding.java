package knollfield.app.importing;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import knollfield.core.identity.Vin;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;

/**
 * How a list is understood: found out, or said.
 *
 * @param headerRow line of the file that names the columns; 0 for none
 * @param headings of the columns, as they stand there, or their letters
 * @param columns column of each field, from 0
 * @param style empty: the list proves none
 * @param order empty: the list proves none, and a date that could be two is a problem
 * @param unit of odometers that do not say theirs
 * @param readOn day of odometers that do not say theirs
 * @param usageClass code of the class of vehicles that do not say theirs
 */
record Understanding(
        ImportKind kind,
        Sheet.Layout layout,
        long headerRow,
        List<String> headings,
        Map<ImportField, Integer> columns,
        Optional<Spelling.NumberStyle> style,
        Optional<Spelling.DateOrder> order,
        DistanceUnit unit,
        LocalDate readOn,
        String usageClass) {

    /**
     * What somebody said of a list; what is null is found out.
     *
     * @param columns column of each field from 0; a field that is not named has none. Null: found out
     * @param existing what becomes of vehicles and parts that are on file
     * @param takeGood take the good lines where some are bad; else all or nothing
     */
    record Said(
            @Nullable ImportKind kind,
            @Nullable String encoding,
            @Nullable String separator,
            @Nullable Long headerRow,
            @Nullable Map<ImportField, @Nullable Integer> columns,
            Spelling.@Nullable NumberStyle style,
            Spelling.@Nullable DateOrder order,
            @Nullable DistanceUnit unit,
            @Nullable LocalDate readOn,
            @Nullable String usageClass,
            @Nullable Existing existing,
            @Nullable Boolean takeGood) {
        static Said nothing() {
            return new Said(null, null, null, null, null, null, null, null, null, null, null, null);
        }
    }

    /** What becomes of a line whose vehicle or part is on file. */
    enum Existing {
        SKIP,
        UPDATE
    }

    private static final Set<ImportField> NUMBERS =
            Set.of(ImportField.ODOMETER, ImportField.BELT_RENEWED_ODOMETER, ImportField.PRICE, ImportField.LIFE);
    private static final Set<ImportField> DATES = Set.of(
            ImportField.FIRST_REGISTERED, ImportField.ODOMETER_DATE, ImportField.BELT_RENEWED_ON, ImportField.DATE);
    private static final double LIKE_ENOUGH = 0.6;
    private static final int HEADER_WITHIN = 15;
    private static final int SAMPLE = 400;

    /** @param usageClass class of vehicles that do not say theirs, where nobody said it */
    static Understanding of(Sheet sheet, Said said, LocalDate today, String usageClass) {
        int header = headerIndex(sheet, said);
        int columnsThere = header >= 0
                ? sheet.rows().get(header).cells().size()
                : sheet.rows().stream().mapToInt(r -> r.cells().size()).max().orElse(0);
        List<String> headings = IntStream.range(0, columnsThere)
                .mapToObj(i -> header < 0 || sheet.rows().get(header).cell(i).isEmpty()
                        ? letter(i)
                        : sheet.rows().get(header).cell(i).text())
                .toList();
        List<Sheet.Row> body =
                sheet.rows().subList(header + 1, Math.min(sheet.rows().size(), header + 1 + SAMPLE));
        ImportKind kind = Optional.ofNullable(said.kind()).orElseGet(() -> kind(headings, body));
        Map<ImportField, Integer> columns = Optional.ofNullable(said.columns())
                .map(c -> {
                    Map<ImportField, Integer> of = new EnumMap<>(ImportField.class);
                    c.forEach((field, column) -> {
                        if (column != null && kind.fields().contains(field) && column >= 0 && column < columnsThere) {
                            of.put(field, column);
                        }
                    });
                    return of;
                })
                .orElseGet(() -> guess(kind, headings, body));
        List<String> numbers = cells(body, columns, NUMBERS);
        Optional<Spelling.DateOrder> order =
                Optional.ofNullable(said.order()).or(() -> Spelling.order(cells(body, columns, DATES)));
        return new Understanding(
                kind,
                sheet.layout(),
                header < 0 ? 0 : sheet.rows().get(header).line(),
                headings,
                Map.copyOf(columns),
                Optional.ofNullable(said.style()).or(() -> Spelling.style(numbers)),
                order,
                Optional.ofNullable(said.unit()).orElseGet(() -> unit(headings, columns, order)),
                Optional.ofNullable(said.readOn()).orElse(today),
                Optional.ofNullable(said.usageClass()).orElse(usageClass));
    }

    private static List<String> cells(List<Sheet.Row> body, Map<ImportField, Integer> columns, Set<ImportField> of) {
        return columns.entrySet().stream()
                .filter(e -> of.contains(e.getKey()))
                .flatMap(e -> body.stream().map(r -> r.cell(e.getValue())))
                .filter(c -> c.number().isEmpty() && c.day().isEmpty() && !c.isEmpty())
                .map(Sheet.Cell::text)
                .toList();
    }

    private static int headerIndex(Sheet sheet, Said said) {
        if (said.headerRow() != null) {
            long line = said.headerRow();
            return IntStream.range(0, sheet.rows().size())
                    .filter(i -> sheet.rows().get(i).line() == line)
                    .findFirst()
                    .orElse(-1);
        }
        int best = -1;
        double most = 0;
        for (int i = 0; i < Math.min(HEADER_WITHIN, sheet.rows().size()); i++) {
            double named = sheet.rows().get(i).cells().stream()
                    .mapToDouble(c -> Stream.of(ImportField.values())
                            .mapToDouble(f -> f.likeness(c.text()))
                            .max()
                            .orElse(0))
                    .filter(l -> l >= LIKE_ENOUGH)
                    .sum();
            if (named > most) {
                most = named;
                best = i;
            }
        }
        // a heading of one word that happens to stand in a cell is none
        if (most >= 1.5 || best < 0) {
            return best;
        }
        boolean data = sheet.rows().get(0).cells().stream()
                .anyMatch(c -> c.number().isPresent()
                        || Spelling.looksLikeDate(c.text())
                        || (!c.isEmpty() && Spelling.looksLikeNumber(c.text())));
        return data ? -1 : best;
    }

    /** The kind whose fields name most of the columns, and whose needed fields are among them. */
    private static ImportKind kind(List<String> headings, List<Sheet.Row> body) {
        return Stream.of(ImportKind.values())
                .max(Comparator.comparingDouble(k -> {
                    Map<ImportField, Integer> columns = guess(k, headings, body);
                    double needed =
                            k.needed().stream().filter(columns::containsKey).count()
                                    * 1.0
                                    / k.needed().size();
                    return needed * 4 + 10.0 * columns.size() / Math.max(1, headings.size());
                }))
                .orElse(ImportKind.VEHICLES);
    }

    /** Headings first, the likest first; then what the cells themselves show. */
    private static Map<ImportField, Integer> guess(ImportKind kind, List<String> headings, List<Sheet.Row> body) {
        record Pair(ImportField field, int column, double likeness) {}
        List<Pair> pairs = new ArrayList<>();
        for (ImportField f : kind.fields()) {
            for (int i = 0; i < headings.size(); i++) {
                double likeness = f.likeness(headings.get(i));
                if (likeness >= LIKE_ENOUGH) {
                    pairs.add(new Pair(f, i, likeness));
                }
            }
        }
        pairs.sort(Comparator.comparingDouble(Pair::likeness).reversed());
        Map<ImportField, Integer> columns = new EnumMap<>(ImportField.class);
        Set<Integer> taken = new HashSet<>();
        for (Pair p : pairs) {
            if (!columns.containsKey(p.field()) && taken.add(p.column())) {
                columns.put(p.field(), p.column());
            }
        }
        if (columns.containsKey(ImportField.MAKE) && !columns.containsKey(ImportField.MAKE_MODEL)) {
            columns.put(ImportField.MAKE_MODEL, columns.remove(ImportField.MAKE));
        }
        for (int i = 0; i < headings.size(); i++) {
            if (!taken.contains(i)) {
                int column = i;
                byContents(body.stream()
                                .map(r -> r.cell(column))
                                .filter(c -> !c.isEmpty())
                                .toList())
                        .filter(f -> kind.fields().contains(f) && !columns.containsKey(f))
                        .ifPresent(f -> {
                            columns.put(f, column);
                            taken.add(column);
                        });
            }
        }
        return columns;
    }

    private static Optional<ImportField> byContents(List<Sheet.Cell> cells) {
        if (cells.isEmpty()) {
            return Optional.empty();
        }
        long vins = cells.stream()
                .filter(c -> c.text().length() == 17 && Vin.of(c.text()).isPresent())
                .count();
        long plates = cells.stream()
                .map(Sheet.Cell::text)
                .filter(t -> t.length() <= 12
                        && t.matches("(?=.*\\d)(?=.*\\p{Lu})[\\p{Lu}\\d -]{4,12}")
                        && !Spelling.looksLikeNumber(t))
                .distinct()
                .count();
        if (vins * 10 >= cells.size() * 8L) {
            return Optional.of(ImportField.VIN);
        }
        return plates * 10 >= cells.size() * 9L ? Optional.of(ImportField.REGISTRATION) : Optional.empty();
    }

    /** Miles where the odometer's heading says so, or calls it mileage in a list whose dates begin with the month. */
    private static DistanceUnit unit(
            List<String> headings, Map<ImportField, Integer> columns, Optional<Spelling.DateOrder> order) {
        String heading = Optional.ofNullable(columns.get(ImportField.ODOMETER))
                .map(headings::get)
                .orElse("")
                .toLowerCase(Locale.ROOT);
        boolean miles = heading.matches(".*\\b(miles?|mi)\\b.*")
                || (heading.contains("mileage") && order.equals(Optional.of(Spelling.DateOrder.MONTH_FIRST)));
        return miles && !heading.contains("km") ? DistanceUnit.MILES : DistanceUnit.KM;
    }

    /** The letter a spreadsheet gives a column. */
    private static String letter(int column) {
        String rest = String.valueOf((char) ('A' + column % 26));
        return column < 26 ? "Column " + rest : "Column " + (char) ('A' + column / 26 - 1) + rest;
    }
}
