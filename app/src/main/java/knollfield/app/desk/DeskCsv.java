package knollfield.app.desk;

import java.util.Currency;
import java.util.List;
import java.util.Locale;
import knollfield.app.shared.Cells;

/** The Desk's list as CSV (RFC 4180), money in whole units of the currency. */
final class DeskCsv {

    private DeskCsv() {}

    static String write(List<DeskRow> rows, String currency) {
        int digits = Currency.getInstance(currency).getDefaultFractionDigits();
        return Cells.list(csv -> {
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
                        Cells.money(r.exposurePerWeekMinor(), digits),
                        r.nextStepWords());
            }
        });
    }
}
