package knollfield.app.month;

import java.util.List;
import knollfield.app.month.MonthViews.SignedView;
import knollfield.app.shared.Cells;

/** The jobs of a month as CSV (RFC 4180), money in whole units of the currency. */
final class MonthCsv {

    private MonthCsv() {}

    /** @param digits of the currency's minor unit, zero or more */
    static String write(List<SignedView> jobs, int digits) {
        return Cells.list(csv -> {
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
                        Cells.money(v.estimatedMinor(), digits),
                        Cells.money(v.takenMinor(), digits),
                        v.againId(),
                        v.againWhy());
            }
        });
    }
}
