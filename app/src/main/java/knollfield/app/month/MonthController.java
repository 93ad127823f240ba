package knollfield.app.month;

import java.nio.charset.StandardCharsets;
import java.time.YearMonth;
import java.util.List;
import java.util.Map;
import knollfield.app.aftercare.StoredRecheck;
import knollfield.app.breakdown.Breakdown;
import knollfield.app.fleet.FleetPlans;
import knollfield.app.month.MonthViews.CarriedDay;
import knollfield.app.month.MonthViews.MonthBreakdownView;
import knollfield.app.month.MonthViews.MonthView;
import knollfield.app.month.MonthViews.SignedView;
import knollfield.app.security.Person;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.completion.WorkDone;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What a month came to. */
@RestController
@RequestMapping("/api/month")
class MonthController {

    private static final int AHEAD = 6;

    private final MonthBooks books;
    private final MonthWords sentences;
    private final FleetPlans plans;
    private final WorkshopSettings settings;
    private final WorkshopClock clock;

    MonthController(
            MonthBooks books, MonthWords sentences, FleetPlans plans, WorkshopSettings settings, WorkshopClock clock) {
        this.books = books;
        this.sentences = sentences;
        this.plans = plans;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * What a month came to.
     *
     * @param month such as 2026-11; none: this one
     * @param fleet number of a fleet whose jobs alone are counted
     * @param family code of an engine family, likewise
     * @param person number of a person, likewise
     */
    @GetMapping
    MonthView month(
            @RequestParam(required = false) @Nullable String month,
            @RequestParam(required = false) @Nullable Long fleet,
            @RequestParam(required = false) @Nullable String family,
            @RequestParam(required = false) @Nullable Long person) {
        YearMonth m = MonthViews.read(month, clock.today());
        List<MonthBooks.Signed> jobs = filtered(m, fleet, family, person);
        WorkDone.Sums sums = MonthBooks.sums(jobs);
        Map<Long, Vehicle> named = books.named();
        List<MonthBooks.No> noes = books.noes(m);
        List<StoredRecheck> rechecks = books.rechecks(m);
        List<Breakdown> broken = books.broken(m);
        return new MonthView(
                m.atDay(1),
                m.isBefore(YearMonth.from(clock.today())),
                sentences.of(m, jobs, noes, rechecks, broken, settings.get().currency()),
                jobs.stream().map(MonthViews::view).toList(),
                MonthViews.timeliness(sums),
                MonthViews.hours(jobs, s -> s.family().code(), s -> s.family().name()),
                MonthViews.hours(
                        jobs,
                        s -> s.by().map(p -> Long.toString(p.id())).orElse(""),
                        s -> s.by().map(Person::name).orElse("never on the board")),
                MonthViews.money(sums),
                noes.stream().map(MonthViews::view).toList(),
                rechecks.stream()
                        .map(r -> MonthViews.view(r, MonthViews.name(named, r.vehicleId()), clock.today()))
                        .toList(),
                broken.stream()
                        .map(b -> new MonthBreakdownView(
                                b.vehicleId(),
                                MonthViews.name(named, b.vehicleId()),
                                b.on(),
                                b.what(),
                                b.declined(),
                                b.costMinor().isPresent() ? b.costMinor().getAsLong() : null))
                        .toList(),
                plans.ofAll(AHEAD).months().stream()
                        .map(c -> MonthViews.view(c, named))
                        .toList());
    }

    /** What waiting exposed the workshop's vehicles to, day by day; worked out on the way, and so asked for by itself. */
    @GetMapping("/exposure")
    List<CarriedDay> exposure(@RequestParam(required = false) @Nullable String month) {
        return books.carried(MonthViews.read(month, clock.today())).stream()
                .map(c -> new CarriedDay(c.on(), c.perDayMinor()))
                .toList();
    }

    /** The jobs of {@link #month} as CSV (RFC 4180), a line each. */
    @GetMapping(value = "/jobs.csv", produces = "text/csv")
    ResponseEntity<String> csv(
            @RequestParam(required = false) @Nullable String month,
            @RequestParam(required = false) @Nullable Long fleet,
            @RequestParam(required = false) @Nullable String family,
            @RequestParam(required = false) @Nullable Long person) {
        YearMonth m = MonthViews.read(month, clock.today());
        List<SignedView> jobs = filtered(m, fleet, family, person).stream()
                .map(MonthViews::view)
                .toList();
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"jobs-%s.csv\"".formatted(m))
                .body(MonthCsv.write(jobs, settings.get().currencyDigits()));
    }

    private List<MonthBooks.Signed> filtered(
            YearMonth month, @Nullable Long fleet, @Nullable String family, @Nullable Long person) {
        return books.signed(month).stream()
                .filter(s -> fleet == null
                        || s.state()
                                .vehicle()
                                .fleet()
                                .filter(f -> f.id() == fleet)
                                .isPresent())
                .filter(s -> family == null || s.family().code().equals(family))
                .filter(s ->
                        person == null || s.by().filter(p -> p.id() == person).isPresent())
                .toList();
    }
}
