package knollfield.app.month;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.aftercare.StoredRecheck;
import knollfield.app.breakdown.Breakdown;
import knollfield.app.fleet.FleetPlans;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.Person;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Cells;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.completion.Became;
import knollfield.core.completion.Timeliness;
import knollfield.core.completion.WorkDone;
import knollfield.core.fleet.FleetMonths;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
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
     * A signed job; money in minor units before tax.
     *
     * @param timeliness null for work that renews no belt or chain
     * @param againId number of the job that does it again
     */
    record SignedView(
            long jobId,
            long vehicleId,
            String registration,
            String makeModel,
            String ownerName,
            @Nullable Long fleetId,
            @Nullable String fleetName,
            String familyCode,
            String familyName,
            @Nullable Long personId,
            @Nullable String person,
            LocalDate on,
            int km,
            boolean inspection,
            @Nullable Timeliness timeliness,
            @Nullable String timelinessWords,
            int bookMinutes,
            @Nullable Integer takenMinutes,
            @Nullable Long estimatedMinor,
            @Nullable Long takenMinor,
            @Nullable Long againId,
            @Nullable String againWhy) {}

    record TimelinessView(Timeliness timeliness, String words, int jobs) {}

    /**
     * Hours of the jobs whose hours are on file.
     *
     * @param jobs all of them
     * @param counted those whose hours are on file
     * @param takenToBook ratio of the two; null where one of them is not known
     */
    record HoursOf(
            String code,
            String name,
            int jobs,
            int counted,
            int bookMinutes,
            int takenMinutes,
            @Nullable Double takenToBook) {}

    /**
     * Money of the jobs that have both an estimate and what they took; minor units before tax.
     *
     * @param left jobs that lack one of them
     * @param differenceMinor above zero where they cost more than estimated
     */
    record MonthMoney(int jobs, int left, long estimatedMinor, long takenMinor, long differenceMinor) {}

    record NoView(
            long vehicleId,
            String registration,
            @Nullable Long jobId,
            String what,
            LocalDate on,
            String by,
            String told,
            Became became,
            String becameWords) {}

    /** @param late open past its day, or looked at after it */
    record MonthRecheckView(
            long vehicleId,
            String registration,
            long jobId,
            String what,
            LocalDate due,
            @Nullable LocalDate doneOn,
            @Nullable String result,
            boolean late) {}

    record MonthBreakdownView(
            long vehicleId,
            String registration,
            LocalDate on,
            String what,
            boolean declined,
            @Nullable Long costMinor) {}

    record ComingVehicle(long vehicleId, String registration) {}

    record ComingMonthView(
            LocalDate month, List<ComingVehicle> vehicles, int planned, long minutes, long likelyMinor) {}

    /**
     * @param month its first day
     * @param over the month has ended
     * @param words what it came to
     * @param timeliness of renewals, each kind with its count
     * @param coming this month from today on and the next ones, over all vehicles
     */
    record MonthView(
            LocalDate month,
            boolean over,
            List<String> words,
            List<SignedView> jobs,
            List<TimelinessView> timeliness,
            List<HoursOf> byFamily,
            List<HoursOf> byPerson,
            MonthMoney money,
            List<NoView> noes,
            List<MonthRecheckView> rechecks,
            List<MonthBreakdownView> breakdowns,
            List<ComingMonthView> coming) {}

    /** @param perDayMinor exposure of that day, minor units */
    record CarriedDay(LocalDate on, double perDayMinor) {}

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
        YearMonth m = read(month);
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
                jobs.stream().map(MonthController::view).toList(),
                timeliness(sums),
                hours(jobs, s -> s.family().code(), s -> s.family().name()),
                hours(
                        jobs,
                        s -> s.by().map(p -> Long.toString(p.id())).orElse(""),
                        s -> s.by().map(Person::name).orElse("never on the board")),
                money(sums),
                noes.stream().map(MonthController::view).toList(),
                rechecks.stream().map(r -> view(r, name(named, r.vehicleId()))).toList(),
                broken.stream()
                        .map(b -> new MonthBreakdownView(
                                b.vehicleId(),
                                name(named, b.vehicleId()),
                                b.on(),
                                b.what(),
                                b.declined(),
                                b.costMinor().isPresent() ? b.costMinor().getAsLong() : null))
                        .toList(),
                plans.ofAll(AHEAD).months().stream().map(c -> view(c, named)).toList());
    }

    /** What waiting exposed the workshop's vehicles to, day by day; worked out on the way, and so asked for by itself. */
    @GetMapping("/exposure")
    List<CarriedDay> exposure(@RequestParam(required = false) @Nullable String month) {
        return books.carried(read(month)).stream()
                .map(c -> new CarriedDay(c.on(), c.perDayMinor()))
                .toList();
    }

    /** The jobs of {@link #month} as CSV (RFC 4180), a line each. */
    @GetMapping(value = "/jobs.csv", produces = "text/csv")
    ResponseEntity<String> csv(
            @RequestParam(required = false) @Nullable String month,
            @RequestParam(required = false) @Nullable Long fleet,
            @RequestParam(required = false) @Nullable String family,
            @RequestParam(required = false) @Nullable Long person)
            throws IOException {
        YearMonth m = read(month);
        int digits = settings.get().currencyDigits();
        StringBuilder text = new StringBuilder();
        try (CSVPrinter csv = new CSVPrinter(
                text,
                CSVFormat.RFC4180
                        .builder()
                        .setHeader(
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
                                "why_again")
                        .get())) {
            for (MonthBooks.Signed s : filtered(m, fleet, family, person)) {
                SignedView v = view(s);
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
        }
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"jobs-%s.csv\"".formatted(m))
                .body(text.toString());
    }

    private static @Nullable BigDecimal amount(@Nullable Long minor, int digits) {
        return minor == null ? null : BigDecimal.valueOf(minor, digits);
    }

    private YearMonth read(@Nullable String month) {
        YearMonth now = YearMonth.from(clock.today());
        if (month == null || month.isBlank()) {
            return now;
        }
        YearMonth asked;
        try {
            asked = YearMonth.parse(month.strip());
        } catch (DateTimeException e) {
            throw new InvalidInput("/month", "A month is written like %s.".formatted(now));
        }
        if (asked.isAfter(now)) {
            throw new InvalidInput("/month", "That month has not begun.");
        }
        return asked;
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

    private static String name(Map<Long, Vehicle> named, long vehicle) {
        return Optional.ofNullable(named.get(vehicle))
                .map(Vehicle::registration)
                .orElse("");
    }

    private static List<TimelinessView> timeliness(WorkDone.Sums sums) {
        return Arrays.stream(Timeliness.values())
                .map(t -> new TimelinessView(t, t.words(), sums.of(t)))
                .toList();
    }

    private static List<HoursOf> hours(
            List<MonthBooks.Signed> jobs,
            Function<MonthBooks.Signed, String> code,
            Function<MonthBooks.Signed, String> name) {
        Map<String, List<MonthBooks.Signed>> by = jobs.stream().collect(Collectors.groupingBy(code));
        return by.entrySet().stream()
                .map(e -> hours(e.getKey(), name.apply(e.getValue().get(0)), MonthBooks.sums(e.getValue())))
                .sorted(Comparator.comparing(HoursOf::jobs).reversed().thenComparing(HoursOf::name))
                .toList();
    }

    private static HoursOf hours(String code, String name, WorkDone.Sums s) {
        return new HoursOf(
                code,
                name,
                s.jobs(),
                s.counted(),
                s.bookMinutes(),
                s.takenMinutes(),
                s.takenToBook().orElse(null));
    }

    private static MonthMoney money(WorkDone.Sums s) {
        return new MonthMoney(
                s.compared(),
                s.jobs() - s.compared(),
                s.estimatedMinor(),
                s.comparedMinor(),
                s.comparedMinor() - s.estimatedMinor());
    }

    private static SignedView view(MonthBooks.Signed s) {
        Vehicle v = s.state().vehicle();
        WorkDone w = s.work();
        return new SignedView(
                s.job().id(),
                v.id(),
                v.registration(),
                v.makeModel(),
                v.ownerName(),
                v.fleet().map(f -> f.id()).orElse(null),
                v.fleet().map(f -> f.name()).orElse(null),
                s.family().code(),
                s.family().name(),
                s.by().map(Person::id).orElse(null),
                s.by().map(Person::name).orElse(null),
                s.on(),
                s.job().done().orElseThrow().km(),
                s.job().scope().isInspection(),
                w.timeliness().orElse(null),
                w.timeliness().map(Timeliness::words).orElse(null),
                w.bookMinutes(),
                w.spent().map(WorkDone.Spent::minutes).orElse(null),
                w.estimatedMinor().isPresent() ? w.estimatedMinor().getAsLong() : null,
                w.spent().map(WorkDone.Spent::costMinor).orElse(null),
                s.again().map(j -> j.id()).orElse(null),
                s.again().map(j -> j.rework().orElseThrow().reason()).orElse(null));
    }

    private static NoView view(MonthBooks.No n) {
        return new NoView(
                n.state().vehicle().id(),
                n.state().vehicle().registration(),
                n.job().orElse(null),
                n.what(),
                n.on(),
                n.by(),
                n.told(),
                n.became(),
                n.became().words());
    }

    private MonthRecheckView view(StoredRecheck r, String registration) {
        Optional<LocalDate> done = r.done().map(d -> d.on());
        return new MonthRecheckView(
                r.vehicleId(),
                registration,
                r.jobId(),
                r.what(),
                r.due(),
                done.orElse(null),
                r.done().map(d -> d.result()).orElse(null),
                done.orElse(clock.today()).isAfter(r.due()));
    }

    private static ComingMonthView view(FleetMonths.Month m, Map<Long, Vehicle> named) {
        FleetMonths.Sum sum = m.sum();
        return new ComingMonthView(
                m.month().atDay(1),
                m.comes().stream()
                        .map(c -> new ComingVehicle(c.vehicleId(), name(named, c.vehicleId())))
                        .toList(),
                sum.planned(),
                sum.minutes(),
                sum.money().likely());
    }
}
