package knollfield.app.shared;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.Arrays;
import java.util.Collection;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;

/**
 * Cells of lists that go out. A spreadsheet takes a text that begins with one of a few signs for a formula, and works it out
 * where it is opened (OWASP, CSV Injection); so such a text goes out behind an apostrophe, and comes back in without it.
 */
public final class Cells {

    private static final String SIGNS = "=+-@\t\r'";

    private Cells() {}

    /** Prints a row whose texts no spreadsheet takes for formulas. */
    public static void print(CSVPrinter csv, @Nullable Object... cells) throws IOException {
        csv.printRecord(Arrays.stream(cells).map(Cells::safe));
    }

    /** The same of a list. */
    public static void print(CSVPrinter csv, Collection<? extends @Nullable Object> cells) throws IOException {
        csv.printRecord(cells.stream().map(Cells::safe));
    }

    /** A row as one text. */
    public static String line(CSVFormat format, Collection<String> cells) {
        return format.format(cells.stream().map(Cells::safe).toArray());
    }

    private static @Nullable Object safe(@Nullable Object cell) {
        return cell instanceof String text && begins(text, 0) ? "'" + text : cell;
    }

    /** Writes the rows of a list. */
    @FunctionalInterface
    public interface Rows {
        void print(CSVPrinter csv) throws IOException;
    }

    /** A list as one text (RFC 4180). */
    public static String list(Rows rows) {
        StringBuilder out = new StringBuilder();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            rows.print(csv);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toString();
    }

    /** An amount in whole units of its currency, which has {@code digits} behind the point; nothing where there is none. */
    public static @Nullable BigDecimal money(@Nullable Long minor, int digits) {
        return minor == null ? null : BigDecimal.valueOf(minor, digits);
    }

    /** A text as it was before it went out. */
    public static String plain(String text) {
        return text.startsWith("'") && begins(text, 1) ? text.substring(1) : text;
    }

    private static boolean begins(String text, int at) {
        return text.length() > at && SIGNS.indexOf(text.charAt(at)) >= 0;
    }
}
