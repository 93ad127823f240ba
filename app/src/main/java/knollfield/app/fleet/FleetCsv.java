package knollfield.app.fleet;

import java.util.List;
import knollfield.app.fleet.FleetPlaceViews.FleetVehicleView;
import knollfield.app.shared.Cells;

/** A fleet's vehicles by their months as CSV (RFC 4180), money in whole units of the currency. */
final class FleetCsv {

    private FleetCsv() {}

    /** @param digits of the currency's minor unit, zero or more */
    static String write(List<FleetVehicleView> vehicles, int digits) {
        return Cells.list(csv -> {
            Cells.print(
                    csv,
                    "month",
                    "registration",
                    "make_model",
                    "status",
                    "act_by",
                    "limit_10_percent",
                    "limit_50_percent",
                    "limit_90_percent",
                    "planned_on",
                    "minutes",
                    "low_before_tax",
                    "likely_before_tax",
                    "high_before_tax",
                    "days_off_the_road");
            for (FleetVehicleView v : vehicles) {
                Cells.print(
                        csv,
                        v.day() == null
                                ? ""
                                : v.day().withDayOfMonth(1).toString().substring(0, 7),
                        v.registration(),
                        v.makeModel(),
                        v.statusWords(),
                        v.actBy(),
                        v.early(),
                        v.median(),
                        v.late(),
                        v.plannedOn(),
                        v.minutes(),
                        Cells.money(v.lowMinor(), digits),
                        Cells.money(v.likelyMinor(), digits),
                        Cells.money(v.highMinor(), digits),
                        v.offRoadDays());
            }
        });
    }
}
