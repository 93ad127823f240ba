package knollfield.app.desk;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.Person;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Registration;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.JobStage;
import knollfield.core.due.NextStep;
import knollfield.core.due.Standing;
import knollfield.core.due.Status;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Limit;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The Desk's list and the find box. */
@RestController
@RequestMapping("/api")
class DeskController {

    private static final int FOUND = 8;
    private static final int MAX_PAGE = 200;

    private final Forecasts forecasts;
    private final EngineBook book;
    private final Jobs jobs;
    private final VehicleService vehicles;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final WorkshopSettings settings;

    DeskController(
            Forecasts forecasts,
            EngineBook book,
            Jobs jobs,
            VehicleService vehicles,
            CurrentPerson current,
            WorkshopClock clock,
            WorkshopSettings settings) {
        this.forecasts = forecasts;
        this.book = book;
        this.jobs = jobs;
        this.vehicles = vehicles;
        this.current = current;
        this.clock = clock;
        this.settings = settings;
    }

    /**
     * Shares of the limits used, 1 = at the limit.
     *
     * @param distanceSoon the same at the horizon, by the median
     */
    record LifeStrip(
            @Nullable Double distance,
            @Nullable Double distanceSoon,
            @Nullable Double age,
            @Nullable Double ageSoon,
            ItemForecast.Binding binding) {}

    record DeskRow(
            long vehicleId,
            String registration,
            String ownerName,
            @Nullable String fleet,
            String makeModel,
            @Nullable Drive drive,
            @Nullable Interference interference,
            Status status,
            @Nullable LocalDate actBy,
            String note,
            @Nullable Long exposurePerWeekMinor,
            LifeStrip life,
            NextStep nextStep,
            String nextStepWords,
            @Nullable Long jobId) {}

    record Group(Status status, String words, int count) {}

    record DeskView(
            LocalDate today,
            int vehicles,
            int total,
            int offset,
            List<Group> groups,
            List<DeskRow> rows,
            @Nullable LocalDate nextActBy) {}

    record FleetView(long id, String name) {}

    record Found(long vehicleId, String registration, String makeModel, String ownerName, String status) {}

    /**
     * What needs a decision, worst first: by status, then by exposure.
     *
     * @param status only these; none given: all but clear
     * @param q words that registration, owner, make and model, VIN or phone contain
     */
    @GetMapping("/desk")
    DeskView desk(
            @RequestParam(required = false) @Nullable List<Status> status,
            @RequestParam(required = false) @Nullable Long fleet,
            @RequestParam(required = false) @Nullable Drive drive,
            @RequestParam(required = false, defaultValue = "") String q,
            @RequestParam(required = false, defaultValue = "0") int offset,
            @RequestParam(required = false, defaultValue = "100") int limit) {
        Person person = current.get();
        List<VehicleState> mine = forecasts.all().stream()
                .filter(s -> vehicles.maySee(person, s.history().vehicle()))
                .toList();
        List<VehicleState> asked = mine.stream()
                .filter(s -> fleet == null
                        || s.history()
                                .vehicle()
                                .fleet()
                                .map(Fleet::id)
                                .filter(fleet::equals)
                                .isPresent())
                .filter(s -> drive == null
                        || family(s)
                                .map(EngineFamily::drive)
                                .filter(drive::equals)
                                .isPresent())
                .filter(s -> matches(s.history().vehicle(), q))
                .toList();
        Map<Status, Long> counts =
                asked.stream().collect(Collectors.groupingBy(s -> s.forecast().status(), Collectors.counting()));
        List<VehicleState> listed = asked.stream()
                .filter(s -> status == null || status.isEmpty()
                        ? !q.isBlank() || s.forecast().status() != Status.CLEAR
                        : status.contains(s.forecast().status()))
                .sorted(Comparator.comparing((VehicleState s) -> s.forecast().status())
                        .thenComparing(s -> -s.exposurePerWeekMinor().orElse(0))
                        .thenComparing(s -> s.forecast().actBy().orElse(LocalDate.MAX))
                        .thenComparing(s -> s.history().vehicle().registration()))
                .toList();
        Map<Long, Job> open = jobs.current(0).stream()
                .filter(j -> j.stage().isOpen())
                .collect(Collectors.toMap(Job::vehicleId, Function.identity(), (a, b) -> a));
        return new DeskView(
                clock.today(),
                mine.size(),
                listed.size(),
                offset,
                Arrays.stream(Status.values())
                        .map(s -> new Group(
                                s, s.words(), counts.getOrDefault(s, 0L).intValue()))
                        .toList(),
                listed.stream()
                        .skip(Math.max(0, offset))
                        .limit(Math.min(Math.max(0, limit), MAX_PAGE))
                        .map(s -> row(
                                s,
                                Optional.ofNullable(
                                        open.get(s.history().vehicle().id()))))
                        .toList(),
                mine.stream()
                        .filter(s -> s.forecast().status() == Status.CLEAR)
                        .flatMap(s -> s.forecast().actBy().stream())
                        .min(Comparator.naturalOrder())
                        .orElse(null));
    }

    @GetMapping("/desk/fleets")
    List<FleetView> fleets() {
        Person person = current.get();
        return vehicles.fleets().stream()
                .filter(f -> person.fleetId().isEmpty() || person.fleetId().get() == f.id())
                .map(f -> new FleetView(f.id(), f.name()))
                .toList();
    }

    /** Vehicles by registration, owner, VIN or phone; at most eight. */
    @GetMapping("/find")
    List<Found> find(@RequestParam String q) {
        if (q.isBlank()) {
            return List.of();
        }
        Person person = current.get();
        String key = Registration.key(q);
        return forecasts.all().stream()
                .filter(s -> vehicles.maySee(person, s.history().vehicle()))
                .filter(s -> matches(s.history().vehicle(), q))
                .sorted(Comparator.comparing((VehicleState s) -> !Registration.key(
                                        s.history().vehicle().registration())
                                .startsWith(key))
                        .thenComparing(s -> s.history().vehicle().registration()))
                .limit(FOUND)
                .map(s -> new Found(
                        s.history().vehicle().id(),
                        s.history().vehicle().registration(),
                        s.history().vehicle().makeModel(),
                        s.history().vehicle().ownerName(),
                        s.forecast().status().words()))
                .toList();
    }

    private DeskRow row(VehicleState state, Optional<Job> open) {
        Vehicle v = state.history().vehicle();
        Optional<EngineFamily> family = family(state);
        NextStep next = NextStep.of(state.forecast().status(), open.map(Job::stage));
        return new DeskRow(
                v.id(),
                v.registration(),
                v.ownerName(),
                v.fleet().map(Fleet::name).orElse(null),
                v.makeModel(),
                family.map(EngineFamily::drive).orElse(null),
                family.map(EngineFamily::interference).orElse(null),
                state.forecast().status(),
                state.forecast().actBy().orElse(null),
                note(state, open),
                state.exposurePerWeekMinor().isPresent()
                        ? state.exposurePerWeekMinor().getAsLong()
                        : null,
                life(state),
                next,
                next.words(),
                open.map(Job::id).orElse(null));
    }

    private String note(VehicleState state, Optional<Job> open) {
        if (open.map(Job::stage).filter(s -> s == JobStage.UNDER_WAY).isPresent()) {
            return "at the bench";
        }
        Optional<Job.Booking> booking = open.flatMap(Job::booking);
        if (booking.isPresent()) {
            return "promised " + booking.get().start().toLocalDate().getDayOfMonth() + " "
                    + booking.get().start().getMonth().getDisplayName(java.time.format.TextStyle.SHORT, Locale.UK);
        }
        LocalDate today = clock.today();
        return switch (state.forecast().status()) {
            case STOP -> "do not run";
            case OVERDUE -> days(Standing.daysOver(state.forecast())) + " over";
            case UNKNOWN_HISTORY -> "no record";
            case NO_BOOK -> "inspect";
            case ACT_NOW ->
                state.history().openEvidence().isEmpty()
                        ? "due now"
                        : state.history().openEvidence().get(0).kind().words();
            case COMING, CLEAR ->
                state.forecast()
                        .actBy()
                        .map(d -> days(ChronoUnit.DAYS.between(today, d)))
                        .orElse("");
        };
    }

    private static String days(long days) {
        return days + (days == 1 ? " day" : " days");
    }

    private LifeStrip life(VehicleState state) {
        Optional<ItemForecast> deciding = state.forecast().deciding();
        if (deciding.isEmpty()
                || deciding.get().start().isEmpty()
                || deciding.get().limit().isEmpty()) {
            return new LifeStrip(null, null, null, null, ItemForecast.Binding.NONE);
        }
        ItemForecast item = deciding.get();
        Limit limit = item.limit().orElseThrow();
        LocalDate today = clock.today();
        LocalDate soon = today.plusDays(settings.get().policy().horizonDays());
        LocalDate start = item.start().orElseThrow().date();
        int startKm = item.start().orElseThrow().km();
        return new LifeStrip(
                share(state.forecast().projection().medianKm(today) - startKm, limit.km()),
                share(state.forecast().projection().medianKm(soon) - startKm, limit.km()),
                item.age().map(a -> ageShare(start, a.date(), today)).orElse(null),
                item.age().map(a -> ageShare(start, a.date(), soon)).orElse(null),
                item.binding());
    }

    private static @Nullable Double share(double km, OptionalInt limit) {
        return limit.isPresent() ? Math.max(0, km / limit.getAsInt()) : null;
    }

    private static double ageShare(LocalDate start, LocalDate limit, LocalDate day) {
        return (double) ChronoUnit.DAYS.between(start, day) / Math.max(1, ChronoUnit.DAYS.between(start, limit));
    }

    private Optional<EngineFamily> family(VehicleState state) {
        return state.history().vehicle().familyCode().flatMap(book::find).map(f -> f.family());
    }

    private static boolean matches(Vehicle v, String q) {
        if (q.isBlank()) {
            return true;
        }
        String words = q.strip().toLowerCase(Locale.ROOT);
        String key = Registration.key(q);
        String digits = q.replaceAll("\\D", "");
        return (!key.isEmpty() && Registration.key(v.registration()).contains(key))
                || v.ownerName().toLowerCase(Locale.ROOT).contains(words)
                || v.makeModel().toLowerCase(Locale.ROOT).contains(words)
                || v.vin()
                        .filter(vin -> vin.toLowerCase(Locale.ROOT).contains(words))
                        .isPresent()
                || (digits.length() >= 4 && v.ownerPhone().replaceAll("\\D", "").contains(digits));
    }
}
