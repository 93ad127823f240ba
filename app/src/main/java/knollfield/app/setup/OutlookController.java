package knollfield.app.setup;

import java.util.List;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.outlook.Outlook;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What a policy means before it is kept; the manager's alone. */
@RestController
@RequestMapping("/api/setup/workshop/outlook")
class OutlookController {

    private final Outlooks outlooks;
    private final WorkshopSettings settings;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    OutlookController(Outlooks outlooks, WorkshopSettings settings, CurrentPerson current, WorkshopClock clock) {
        this.outlooks = outlooks;
        this.settings = settings;
        this.current = current;
        this.clock = clock;
    }

    /**
     * A year once every drive has been renewed under a policy.
     *
     * @param jobs planned ones, those at visits too
     * @param atVisits those done while the vehicle is in for other work
     * @param pastTheBook those done past a limit of the book
     * @param costMinor of jobs and breakdowns by their bills, minor units
     */
    record YearView(
            double breakdowns, double jobs, double atVisits, double pastTheBook, double costMinor, double hours) {
        static YearView of(Outlook o) {
            return new YearView(o.breakdowns(), o.jobs(), o.atVisits(), o.pastTheBook(), o.costMinor(), o.hours());
        }
    }

    /** @param amount share of the limits, or price of a stranding in the currency itself */
    record FrontierPoint(double amount, YearView year) {
        static FrontierPoint of(Outlooks.Point p) {
            return new FrontierPoint(p.amount(), YearView.of(p.year()));
        }
    }

    /**
     * The proposed policy among others.
     *
     * @param vehicles it is for
     * @param reckoned how many of them were, spread over all
     * @param leftOut vehicles in use that have no limits to wear by
     * @param early acting at shares of the limits
     * @param careful acting on the cheapest day, by the price of a stranding
     */
    record FrontierView(
            int vehicles,
            int reckoned,
            int leftOut,
            List<FrontierPoint> early,
            List<FrontierPoint> careful,
            YearView now,
            YearView proposed,
            String currency) {}

    /** Changes nothing. */
    @PostMapping
    FrontierView outlook(@RequestBody WorkshopChange c) {
        Outlooks.Frontier f = outlooks.of(c.on(settings.get(), current.get().name(), clock.instant()));
        return new FrontierView(
                f.vehicles(),
                f.reckoned(),
                f.leftOut(),
                f.early().stream().map(FrontierPoint::of).toList(),
                f.careful().stream().map(FrontierPoint::of).toList(),
                YearView.of(f.now()),
                YearView.of(f.proposed()),
                settings.get().currency());
    }
}
