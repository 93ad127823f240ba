package knollfield.app.importing;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import knollfield.app.problem.InvalidInput;
import knollfield.app.shared.Cells;
import org.apache.commons.csv.CSVException;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ExcelReaderException;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;

/** Reads a file as people have it: text in any usual encoding and with any usual separator, or a spreadsheet. */
final class SheetReader {

    /** More than a workshop has of anything; a longer file is split. */
    static final int MOST_ROWS = 20_000;

    private static final List<Character> SEPARATORS = List.of(';', '\t', ',', '|');
    private static final Charset WESTERN = Charset.forName("windows-1252");
    private static final int SAMPLE = 60;

    private SheetReader() {}

    /**
     * @param encoding name of a character set; empty: found out
     * @param separator empty: found out
     * @throws InvalidInput where it is no list at all
     */
    static Sheet read(byte[] bytes, Optional<String> encoding, Optional<Character> separator) {
        if (bytes.length == 0) {
            throw new InvalidInput("/file", "The file is empty.");
        }
        if (bytes.length > 3 && bytes[0] == 'P' && bytes[1] == 'K' && bytes[2] == 3) {
            return spreadsheet(bytes);
        }
        Charset charset = encoding.map(SheetReader::charset).orElseGet(() -> charset(bytes));
        String text = text(bytes, charset);
        if (text.isBlank()) {
            throw new InvalidInput("/file", "The file is empty.");
        }
        if (text.indexOf('\0') >= 0) {
            throw new InvalidInput("/file", "The file is not text; save the list as CSV or as an .xlsx spreadsheet.");
        }
        char parted = separator.orElseGet(() -> separator(text));
        if (!SEPARATORS.contains(parted)) {
            throw new InvalidInput("/separator", "Cells are parted by a semicolon, comma, tab or bar.");
        }
        return new Sheet(new Sheet.Layout(false, charset.name(), parted), rows(text, parted, MOST_ROWS + 1));
    }

    private static Charset charset(String name) {
        try {
            return Charset.forName(name);
        } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
            throw new InvalidInput("/encoding", "\"%s\" is not an encoding known here.".formatted(name));
        }
    }

    /** By its mark, by its zeros, else UTF-8 where that can be read, else what Western Windows writes. */
    private static Charset charset(byte[] b) {
        if (b.length > 1 && b[0] == (byte) 0xFF && b[1] == (byte) 0xFE) {
            return StandardCharsets.UTF_16LE;
        }
        if (b.length > 1 && b[0] == (byte) 0xFE && b[1] == (byte) 0xFF) {
            return StandardCharsets.UTF_16BE;
        }
        int even = 0;
        int odd = 0;
        int sample = Math.min(b.length, 2_000) & ~1;
        for (int i = 0; i < sample; i += 2) {
            even += b[i] == 0 ? 1 : 0;
            odd += b[i + 1] == 0 ? 1 : 0;
        }
        if (odd > sample / 5 && even < sample / 50 + 1) {
            return StandardCharsets.UTF_16LE;
        }
        if (even > sample / 5 && odd < sample / 50 + 1) {
            return StandardCharsets.UTF_16BE;
        }
        try {
            StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(b));
            return StandardCharsets.UTF_8;
        } catch (CharacterCodingException e) {
            return WESTERN;
        }
    }

    private static String text(byte[] bytes, Charset charset) {
        String text = new String(bytes, charset);
        return text.startsWith("\ufeff") ? text.substring(1) : text;
    }

    /** The separator by which the first lines have the most cells in the same number. */
    private static char separator(String text) {
        return SEPARATORS.stream()
                .max(Comparator.comparingLong(s -> evenness(text, s)))
                .orElse(',');
    }

    private static long evenness(String text, char separator) {
        List<Sheet.Row> rows;
        try {
            rows = rows(text, separator, SAMPLE);
        } catch (InvalidInput e) {
            return 0;
        }
        int most = rows.stream().mapToInt(r -> r.cells().size()).max().orElse(1);
        long even = rows.stream().filter(r -> r.cells().size() == most).count();
        return most < 2 ? 0 : even * 1_000 / rows.size() * 100 + most;
    }

    private static List<Sheet.Row> rows(String text, char separator, int most) {
        CSVFormat format = CSVFormat.DEFAULT
                .builder()
                .setDelimiter(separator)
                .setIgnoreEmptyLines(false)
                .setTrailingData(true)
                .setLenientEof(true)
                .get();
        List<Sheet.Row> rows = new ArrayList<>();
        try (CSVParser parser = CSVParser.parse(text, format)) {
            long line = 1;
            for (CSVRecord r : parser) {
                List<Sheet.Cell> cells =
                        r.stream().map(Cells::plain).map(Sheet.Cell::of).toList();
                if (cells.stream().anyMatch(c -> !c.isEmpty())) {
                    rows.add(new Sheet.Row(line, cells));
                }
                if (rows.size() >= most) {
                    break;
                }
                line = parser.getCurrentLineNumber() + 1;
            }
            return rows;
        } catch (CSVException | UncheckedIOException e) {
            throw new InvalidInput("/file", "The file cannot be read as a list: " + e.getMessage());
        } catch (IOException e) {
            throw new InvalidInput("/file", "The file cannot be read as a list: " + e.getMessage());
        }
    }

    private static Sheet spreadsheet(byte[] bytes) {
        List<Sheet.Row> rows = new ArrayList<>();
        try (ReadableWorkbook book =
                        new ReadableWorkbook(new ByteArrayInputStream(bytes), new ReadingOptions(true, false));
                Stream<org.dhatim.fastexcel.reader.Row> read =
                        book.getFirstSheet().openStream()) {
            read.limit(MOST_ROWS + 1L).forEach(r -> {
                List<Sheet.Cell> cells = new ArrayList<>();
                for (int i = 0; i < r.getCellCount(); i++) {
                    cells.add(r.getOptionalCell(i).map(SheetReader::cell).orElse(Sheet.Cell.EMPTY));
                }
                if (cells.stream().anyMatch(c -> !c.isEmpty())) {
                    rows.add(new Sheet.Row(r.getRowNum(), cells));
                }
            });
        } catch (IOException | ExcelReaderException | UncheckedIOException e) {
            throw new InvalidInput("/file", "The spreadsheet cannot be read: " + e.getMessage());
        }
        if (rows.isEmpty()) {
            throw new InvalidInput("/file", "The first sheet of the file is empty.");
        }
        return new Sheet(new Sheet.Layout(true, "", ' '), rows);
    }

    private static Sheet.Cell cell(org.dhatim.fastexcel.reader.Cell c) {
        if (c.getType() == CellType.NUMBER && isDay(c.getDataFormatString())) {
            LocalDate day = c.asDate().toLocalDate();
            return new Sheet.Cell(day.toString(), Optional.empty(), Optional.of(day));
        }
        if (c.getType() == CellType.NUMBER) {
            BigDecimal number = c.asNumber().stripTrailingZeros();
            return new Sheet.Cell(number.toPlainString(), Optional.of(number), Optional.empty());
        }
        return Sheet.Cell.of(Optional.ofNullable(c.getText()).orElse(""));
    }

    /** Formats of days have days or years in them, outside what is quoted or in brackets. */
    private static boolean isDay(@org.jspecify.annotations.Nullable String format) {
        return format != null
                && format.toLowerCase(java.util.Locale.ROOT)
                        .replaceAll("\"[^\"]*\"|\\[[^\\]]*\\]|\\\\.|general", "")
                        .matches(".*[dy].*");
    }
}
