package knollfield.app.fleet;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import knollfield.app.due.VehicleState;
import knollfield.app.problem.NotFound;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Cells;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.BroughtForward;
import knollfield.core.due.Status;
import knollfield.core.fleet.Coming;
import knollfield.core.fleet.FleetMonths;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The place Fleets: each fleet by month. A fleet's contact sees the own one alone. */
@RestController
@RequestMapping("/api/fleets")
class FleetPlaceController {

    private final FleetPlans plans;
    private final FleetLevels levels;
    private final FleetWords sentences;
    private final VehicleService vehicles;
    private final FleetDoor door;
    private final WorkshopSettings settings;
    private final WorkshopClock clock;

    FleetPlaceController(
            FleetPlans plans,
            FleetLevels levels,
            FleetWords sentences,
            VehicleService vehicles,
            FleetDoor door,
            WorkshopSettings settings,
            WorkshopClock clock) {
        this.plans = plans;
        this.levels = levels;
        this.sentences = sentences;
        this.vehicles = vehicles;
        this.door = door;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * What jobs come to, money in minor units before tax.
     *
     * @param planned of the vehicles those whose job has a place on the board
     */
    record SumView(
            int vehicles, int planned, long minutes, long lowMinor, long likelyMinor, long highMinor, int offRoadDays) {

        static SumView of(FleetMonths.Sum s) {
            return new SumView(
                    s.vehicles(),
                    s.planned(),
                    s.minutes(),
                    s.money().low(),
                    s.money().likely(),
                    s.money().high(),
                    s.offRoadDays());
        }
    }

    /**
     * @param month its first day
     * @param reachedEarly vehicles with a limit behind them at its end with a chance of 10 % at least, were nothing done
     * @param spare vehicle-days that can be spared in it
     * @param over more vehicle-days fall into it than can be spared
     */
    record FleetMonthView(
            LocalDate month,
            SumView sum,
            int reachedEarly,
            int reachedMedian,
            int reachedLate,
            int spare,
            boolean over,
            List<Long> vehicleIds) {}

    /**
     * @param day the day it counts on; null where nothing calls for it
     * @param dueNow waits today already
     * @param forwardFrom the act-by day before it was brought forward to level the months; null where it was not
     */
    record FleetVehicleView(
            long vehicleId,
            String registration,
            String makeModel,
            Status status,
            String statusWords,
            @Nullable LocalDate actBy,
            @Nullable LocalDate early,
            @Nullable LocalDate median,
            @Nullable LocalDate late,
            @Nullable LocalDate day,
            boolean dueNow,
            @Nullable LocalDate forwardFrom,
            @Nullable LocalDate plannedOn,
            int minutes,
            long lowMinor,
            long likelyMinor,
            long highMinor,
            int offRoadDays) {}

    /** @param year the next twelve months */
    record FleetRow(long id, String name, int vehicles, int offRoadCap, SumView year, int dueNow, int monthsOver) {}

    /**
     * @param words the picture in words
     * @param vehicles every vehicle in use, soonest first; those without a day last
     * @param taxShare of the money before tax
     */
    record FleetPage(
            long id,
            String name,
            String contactName,
            String phone,
            int offRoadCap,
            double taxShare,
            List<String> words,
            SumView year,
            int doneThisMonth,
            List<FleetMonthView> months,
            List<FleetVehicleView> vehicles,
            int beyond,
            int without) {}

    @GetMapping
    List<FleetRow> all() {
        return door.seen().stream()
                .map(plans::of)
                .map(p -> new FleetRow(
                        p.fleet().id(),
                        p.fleet().name(),
                        p.states().size(),
                        p.fleet().offRoadCap(),
                        SumView.of(p.months().first(FleetPlans.YEAR)),
                        dueNow(p),
                        (int) p.months().months().stream()
                                .filter(FleetMonths.Month::isOver)
                                .count()))
                .toList();
    }

    @GetMapping("/{id}")
    FleetPage page(@PathVariable long id) {
        FleetPlans.Plan p = door.plan(id);
        Workshop workshop = settings.get();
        double tax = workshop.rates(1, 0).taxShare();
        return new FleetPage(
                p.fleet().id(),
                p.fleet().name(),
                p.fleet().contactName(),
                p.fleet().phone(),
                p.fleet().offRoadCap(),
                tax,
                sentences.of(p, clock.today(), workshop.currency(), tax),
                SumView.of(p.months().first(FleetPlans.YEAR)),
                p.doneThisMonth(),
                p.months().months().stream()
                        .map(m -> new FleetMonthView(
                                m.month().atDay(1),
                                SumView.of(m.sum()),
                                m.reachedEarly(),
                                m.reachedMedian(),
                                m.reachedLate(),
                                m.spare(),
                                m.isOver(),
                                m.comes().stream().map(Coming::vehicleId).toList()))
                        .toList(),
                FleetDoor.inOrder(p).stream().map(c -> vehicle(c, p)).toList(),
                p.months().beyond().size(),
                p.months().without().size());
    }

    /** The vehicles of {@link #page} as CSV (RFC 4180), a line each. */
    @GetMapping(value = "/{id}/months.csv", produces = "text/csv")
    ResponseEntity<String> csv(@PathVariable long id) throws IOException {
        FleetPlans.Plan p = door.plan(id);
        int digits = settings.get().currencyDigits();
        StringBuilder text = new StringBuilder();
        try (CSVPrinter csv = new CSVPrinter(
                text,
                CSVFormat.RFC4180
                        .builder()
                        .setHeader(
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
                                "days_off_the_road")
                        .get())) {
            for (Coming c : FleetDoor.inOrder(p)) {
                FleetVehicleView v = vehicle(c, p);
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
                        BigDecimal.valueOf(v.lowMinor(), digits),
                        BigDecimal.valueOf(v.likelyMinor(), digits),
                        BigDecimal.valueOf(v.highMinor(), digits),
                        v.offRoadDays());
            }
        }
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        "attachment; filename=\"fleet-%d-%s.csv\"".formatted(id, clock.today()))
                .body(text.toString());
    }

    /**
     * @param costMinor what bringing it forward gives away, before tax
     * @param from first day of the month it stands in
     * @param to first day of the month to bring it forward to
     */
    record LevelMove(
            long vehicleId,
            String registration,
            String makeModel,
            Status status,
            String statusWords,
            LocalDate from,
            LocalDate to,
            int minutes,
            int offRoadDays,
            long costMinor) {}

    /** @param spare vehicle-days the fleet can spare in the month */
    record LevelMonth(LocalDate month, int spare, int daysLeft, int daysLevel, long minutesLeft, long minutesLevel) {}

    /**
     * @param words what it comes to
     * @param hours of the workshop a month that were counted; null where none were
     * @param costMinor of all moves
     * @param leastMinor no plan with as little above the room is known to cost less than this
     * @param best no plan is better
     */
    record LevelView(
            List<String> words,
            List<LevelMove> moves,
            List<LevelMonth> months,
            @Nullable Integer hours,
            long costMinor,
            long leastMinor,
            boolean best) {}

    record LevelAccepted(List<FleetLevels.Accepted> moves) {}

    /**
     * Which vehicles to bring forward so that no month passes what the fleet can spare, nor {@code hours} of the workshop.
     *
     * @param hours a month that the fleet may take; none: not counted
     */
    @GetMapping("/{id}/level")
    LevelView level(@PathVariable long id, @RequestParam(required = false) @Nullable Integer hours) {
        FleetPlans.Plan p = door.plan(id);
        FleetLevels.Level level = levels.of(p, hours == null ? OptionalInt.empty() : OptionalInt.of(hours));
        return new LevelView(
                sentences.ofLevel(level, settings.get().currency()),
                level.moves().stream().map(m -> move(m, p)).toList(),
                level.loads().stream()
                        .map(l -> new LevelMonth(
                                l.month().atDay(1),
                                l.spare(),
                                l.daysLeft(),
                                l.daysLevel(),
                                l.minutesLeft(),
                                l.minutesLevel()))
                        .toList(),
                hours,
                level.result().costMinor(),
                level.result().leastMinor(),
                level.result().isBest());
    }

    /** Brings vehicles forward; the fleet as it stands then. */
    @PostMapping("/{id}/level")
    FleetPage bringForward(@PathVariable long id, @RequestBody LevelAccepted accepted) {
        levels.bringForward(door.plan(id), accepted.moves());
        return page(id);
    }

    /** Leaves a vehicle in its own month again; the fleet as it stands then. */
    @DeleteMapping("/{id}/level/{vehicle}")
    FleetPage leave(@PathVariable long id, @PathVariable long vehicle) {
        if (!door.plan(id).states().containsKey(vehicle)) {
            throw new NotFound("The fleet has no such vehicle.");
        }
        vehicles.leaveInItsMonth(vehicle);
        return page(id);
    }

    private static LevelMove move(FleetLevels.Move m, FleetPlans.Plan p) {
        VehicleState s = Objects.requireNonNull(p.states().get(m.coming().vehicleId()));
        return new LevelMove(
                s.vehicle().id(),
                s.vehicle().registration(),
                s.vehicle().makeModel(),
                s.forecast().status(),
                s.forecast().statusWords(),
                m.from().atDay(1),
                m.to().atDay(1),
                m.coming().minutes(),
                m.coming().offRoadDays(),
                m.costMinor());
    }

    /** While it holds: once renewed, a vehicle stands where its clocks have it. */
    private static Optional<LocalDate> forwardFrom(VehicleState s) {
        return s.history()
                .forward()
                .filter(f -> s.forecast().actBy().equals(Optional.of(f.month().atEndOfMonth())))
                .map(BroughtForward::from);
    }

    private int dueNow(FleetPlans.Plan p) {
        return (int) FleetDoor.inOrder(p).stream()
                .filter(c -> c.isDueNow(clock.today()))
                .count();
    }

    private FleetVehicleView vehicle(Coming c, FleetPlans.Plan p) {
        VehicleState s = Objects.requireNonNull(p.states().get(c.vehicleId()));
        return new FleetVehicleView(
                c.vehicleId(),
                s.vehicle().registration(),
                s.vehicle().makeModel(),
                c.status(),
                s.forecast().statusWords(),
                c.actBy().orElse(null),
                c.early().orElse(null),
                c.median().orElse(null),
                c.late().orElse(null),
                c.day(clock.today()).orElse(null),
                c.isDueNow(clock.today()),
                forwardFrom(s).orElse(null),
                c.plannedOn().orElse(null),
                c.minutes(),
                c.money().low(),
                c.money().likely(),
                c.money().high(),
                c.offRoadDays());
    }
}
