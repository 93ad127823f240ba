package knollfield.app.month;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.List;
import knollfield.app.month.MonthViews.SignedView;
import knollfield.app.shared.Cells;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;

/** The jobs of a month as CSV (RFC 4180), money in whole units of the currency. */
final class MonthCsv {

    private MonthCsv() {}

    /** @param digits of the currency's minor unit, zero or more */
    static String write(List<SignedView> jobs, int digits) {
        StringBuilder out = new StringBuilder();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            Cells.print(
                    csv,
                    "job",
                    "done_on",
                    "registration",
                    "make_model",
                    "owner",
                    "fleet",
                    "engine_family",
                    "person",
                    "odometer_km",
                    "in_time",
                    "minutes_by_the_book",
                    "minutes_taken",
                    "estimated_before_tax",
                    "taken_before_tax",
                    "done_again_by_job",
                    "why_again");
            for (SignedView v : jobs) {
                Cells.print(
                        csv,
                        v.jobId(),
                        v.on(),
                        v.registration(),
                        v.makeModel(),
                        v.ownerName(),
                        v.fleetName(),
                        v.familyCode(),
                        v.person(),
                        v.km(),
                        v.timelinessWords(),
                        v.bookMinutes(),
                        v.takenMinutes(),
                        amount(v.estimatedMinor(), digits),
                        amount(v.takenMinor(), digits),
                        v.againId(),
                        v.againWhy());
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toString();
    }

    private static @Nullable BigDecimal amount(@Nullable Long minor, int digits) {
        return minor == null ? null : BigDecimal.valueOf(minor, digits);
    }
}
