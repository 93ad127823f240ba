package knollfield.app.desk;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import knollfield.app.shared.Cells;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;

/** The Desk's list as CSV (RFC 4180), money in whole units of the currency. */
final class DeskCsv {

    private DeskCsv() {}

    static String write(List<DeskRow> rows, String currency) {
        StringBuilder out = new StringBuilder();
        int digits = Currency.getInstance(currency).getDefaultFractionDigits();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            Cells.print(
                    csv,
                    "registration",
                    "owner",
                    "phone",
                    "fleet",
                    "make_model",
                    "drive",
                    "interference",
                    "status",
                    "act_by",
                    "note",
                    "recheck",
                    "waits",
                    "exposure_per_week_" + currency.toLowerCase(Locale.ROOT),
                    "next_step");
            for (DeskRow r : rows) {
                Cells.print(
                        csv,
                        r.registration(),
                        r.ownerName(),
                        r.ownerPhone(),
                        r.fleet(),
                        r.makeModel(),
                        r.drive() == null ? "" : r.drive().words(),
                        r.interference() == null ? "" : r.interference().name().toLowerCase(Locale.ROOT),
                        r.status().words(),
                        r.actBy(),
                        r.note(),
                        r.recheck(),
                        r.waits(),
                        money(r.exposurePerWeekMinor(), digits),
                        r.nextStepWords());
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toString();
    }

    private static @Nullable BigDecimal money(@Nullable Long minor, int digits) {
        return minor == null ? null : BigDecimal.valueOf(minor, digits);
    }
}
