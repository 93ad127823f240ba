package knollfield.app.desk;

import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.due.Forecasts;
import knollfield.app.due.MoveView;
import knollfield.app.due.VehicleQuery;
import knollfield.app.due.VehicleState;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.Person;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.FindingEffect;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.JobStage;
import knollfield.core.due.NextStep;
import knollfield.core.due.Standing;
import knollfield.core.due.Status;
import knollfield.core.due.Urgency;
import knollfield.core.due.UseState;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Limit;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The Desk's list and the find box. */
@RestController
@RequestMapping("/api")
class DeskController {

    private static final int MAX_PAGE = 200;
    private static final int MOVES = 100;

    private final DeskList list;
    private final Forecasts forecasts;
    private final Jobs jobs;
    private final VehicleService vehicles;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final WorkshopSettings settings;
    private final Words words;

    DeskController(
            DeskList list,
            Forecasts forecasts,
            Jobs jobs,
            VehicleService vehicles,
            CurrentPerson current,
            WorkshopClock clock,
            WorkshopSettings settings,
            Words words) {
        this.list = list;
        this.forecasts = forecasts;
        this.jobs = jobs;
        this.vehicles = vehicles;
        this.current = current;
        this.clock = clock;
        this.settings = settings;
        this.words = words;
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

    /**
     * @param exposurePerHourMinor exposure of a week for each hour of the usual job
     * @param aside why and until when it is out of today's list
     * @param recheck what is to be looked at again today
     * @param waits what its job at the bench waits for
     * @param whileHere not due, but worth doing on a visit for other work
     * @param state null for a vehicle in use
     */
    record DeskRow(
            long vehicleId,
            String registration,
            String ownerName,
            String ownerPhone,
            @Nullable String fleet,
            String makeModel,
            @Nullable Drive drive,
            @Nullable Interference interference,
            Status status,
            String statusWords,
            @Nullable LocalDate actBy,
            String note,
            @Nullable Long exposurePerWeekMinor,
            @Nullable Long exposurePerHourMinor,
            LifeStrip life,
            NextStep nextStep,
            String nextStepWords,
            boolean callBack,
            @Nullable String recheck,
            @Nullable String waits,
            boolean whileHere,
            @Nullable String aside,
            @Nullable String state,
            @Nullable Long jobId) {}

    /**
     * @param count vehicles of this status that the filter lets through
     */
    record Group(Status status, String words, int count) {}

    /**
     * What stands together in the list; rows stand in the order of the sections.
     *
     * @param status where all of it is of one
     * @param listed how many rows
     */
    record Section(String words, @Nullable Status status, int listed) {}

    /** Vehicles that the last turn of the day, or a changed assumption, moved. */
    /** @param why what moved them, in words */
    record MovedView(Instant at, String why, int count) {}

    /**
     * @param toDecide vehicles that the filter lets through and that call for a decision today
     * @param whileHere vehicles that are not due but worth doing on a visit for other work
     * @param total vehicles of the whole list, of which {@code rows} is a page from {@code offset} on
     * @param nextActBy the next act-by date of vehicles that need nothing yet
     * @param unjudged vehicles that cannot be judged as they are
     * @param figuresOf since when the figures stand, where computing them anew has failed
     */
    record DeskView(
            LocalDate today,
            int vehicles,
            int toDecide,
            int total,
            int offset,
            int aside,
            int callBacks,
            int rechecks,
            int whileHere,
            List<Group> groups,
            List<Section> sections,
            List<DeskRow> rows,
            @Nullable LocalDate nextActBy,
            int nextActByVehicles,
            @Nullable MovedView moved,
            List<UnjudgedRow> unjudged,
            @Nullable Instant figuresOf) {}

    /**
     * A vehicle that is judged without a part of what is on file of it.
     *
     * @param why a clause
     */
    record UnjudgedRow(long vehicleId, String registration, String why) {}

    record FleetView(long id, String name) {}

    record Found(long vehicleId, String registration, String makeModel, String ownerName, String status) {}

    /**
     * What needs a decision, worst first.
     *
     * @param status only these; none given: all but clear
     * @param aside only the vehicles that are set aside
     * @param only those with a call promised for today, with a recheck due, or worth doing on a visit
     */
    @GetMapping("/desk")
    DeskView desk(
            @ParameterObject VehicleQuery query,
            @RequestParam(required = false) @Nullable Set<Status> status,
            @RequestParam(required = false, defaultValue = "false") boolean aside,
            @RequestParam(required = false, defaultValue = "ALL") DeskList.Only only,
            @RequestParam(required = false, defaultValue = "EXPOSURE") DeskList.Order order,
            @RequestParam(required = false, defaultValue = "0") int offset,
            @RequestParam(required = false, defaultValue = "100") int limit) {
        Map<Long, Job> open = openJobs();
        DeskList.Chosen chosen = choose(query, status, aside, only, order, open);
        Optional<Map.Entry<LocalDate, Integer>> next =
                chosen.next().entrySet().stream().findFirst();
        return new DeskView(
                clock.today(),
                chosen.planned(),
                chosen.counts().entrySet().stream()
                        .filter(c -> Urgency.of(c.getKey()).isToBeDecided())
                        .mapToInt(Map.Entry::getValue)
                        .sum(),
                chosen.listed().size(),
                offset,
                chosen.aside(),
                chosen.callBacks(),
                chosen.rechecksDue(),
                chosen.whileHere(),
                Arrays.stream(Status.values())
                        .map(s -> new Group(s, s.words(), chosen.counts().getOrDefault(s, 0)))
                        .toList(),
                sections(chosen),
                chosen.listed().stream()
                        .skip(Math.max(0, offset))
                        .limit(Math.min(Math.max(0, limit), MAX_PAGE))
                        .map(s -> row(s, open, chosen.rechecks()))
                        .toList(),
                next.map(Map.Entry::getKey).orElse(null),
                next.map(Map.Entry::getValue).orElse(0),
                forecasts
                        .moves()
                        .map(m -> new MovedView(
                                m.at(), m.why().words(), visible(m.list()).size()))
                        .filter(m -> m.count() > 0)
                        .orElse(null),
                unjudged(),
                forecasts.oldSince().orElse(null));
    }

    private List<UnjudgedRow> unjudged() {
        Person person = current.get();
        return forecasts.all().stream()
                .filter(v -> v.unjudged().isPresent() && vehicles.maySee(person, v.vehicle()))
                .map(v -> new UnjudgedRow(
                        v.vehicle().id(),
                        v.vehicle().registration(),
                        v.unjudged().orElseThrow().words()))
                .sorted(Comparator.comparing(UnjudgedRow::registration))
                .toList();
    }

    /** The whole list as CSV (RFC 4180), in the order shown. */
    @GetMapping(value = "/desk/list.csv", produces = "text/csv")
    ResponseEntity<String> csv(
            @ParameterObject VehicleQuery query,
            @RequestParam(required = false) @Nullable Set<Status> status,
            @RequestParam(required = false, defaultValue = "false") boolean aside,
            @RequestParam(required = false, defaultValue = "ALL") DeskList.Only only,
            @RequestParam(required = false, defaultValue = "EXPOSURE") DeskList.Order order) {
        Workshop workshop = settings.get();
        Map<Long, Job> open = openJobs();
        DeskList.Chosen chosen = choose(query, status, aside, only, order, open);
        String text = DeskCsv.write(
                chosen.listed().stream()
                        .map(s -> row(s, open, chosen.rechecks()))
                        .toList(),
                workshop.currency());
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", java.nio.charset.StandardCharsets.UTF_8))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        "attachment; filename=\"desk-%s.csv\"".formatted(clock.today()))
                .body(text);
    }

    /** The vehicles that the last turn of the day, or a changed assumption, moved; worst first, at most a hundred. */
    @GetMapping("/desk/moves")
    List<MoveView> moves() {
        return forecasts.moves().map(m -> visible(m.list())).orElse(List.of()).stream()
                .limit(MOVES)
                .map(MoveView::of)
                .toList();
    }

    @GetMapping("/desk/fleets")
    List<FleetView> fleets() {
        Person person = current.get();
        return vehicles.fleets().stream()
                .filter(f -> person.fleetId().isEmpty() || person.fleetId().get() == f.id())
                .map(f -> new FleetView(f.id(), f.name()))
                .toList();
    }

    private DeskList.Chosen choose(
            VehicleQuery query,
            @Nullable Set<Status> status,
            boolean aside,
            DeskList.Only only,
            DeskList.Order order,
            Map<Long, Job> open) {
        Set<Long> inWork = open.values().stream()
                .filter(DeskController::renews)
                .map(Job::vehicleId)
                .collect(Collectors.toSet());
        return list.choose(
                current.get(),
                query.filter(),
                Optional.ofNullable(status).orElse(Set.of()),
                aside,
                only,
                order,
                inWork);
    }

    private static boolean renews(Job job) {
        return !job.scope().isInspection();
    }

    private static List<Section> sections(DeskList.Chosen chosen) {
        Map<Status, Integer> listed = chosen.listedCounts();
        if (chosen.order() == DeskList.Order.STATUS) {
            return Arrays.stream(Status.values())
                    .filter(listed::containsKey)
                    .map(s -> new Section(s.words(), s, listed.getOrDefault(s, 0)))
                    .toList();
        }
        return Arrays.stream(Urgency.values())
                .map(u -> {
                    List<Status> of = Arrays.stream(Status.values())
                            .filter(s -> Urgency.of(s) == u)
                            .toList();
                    int rows =
                            of.stream().mapToInt(s -> listed.getOrDefault(s, 0)).sum();
                    return new Section(u.words(), of.size() == 1 ? of.get(0) : null, rows);
                })
                .filter(s -> s.listed() > 0)
                .toList();
    }

    private List<Forecasts.Move> visible(List<Forecasts.Move> moves) {
        Person person = current.get();
        return moves.stream()
                .filter(m -> m.after().vehicle().state().planned())
                .filter(m -> vehicles.maySee(person, m.after().vehicle()))
                .toList();
    }

    private Map<Long, Job> openJobs() {
        return jobs.current(0).stream()
                .filter(j -> j.stage().isOpen())
                .collect(Collectors.toMap(Job::vehicleId, Function.identity(), (a, b) -> a));
    }

    private DeskRow row(VehicleState state, Map<Long, Job> openJobs, Map<Long, String> rechecks) {
        Vehicle v = state.vehicle();
        Optional<Job> open = Optional.ofNullable(openJobs.get(v.id()));
        Optional<String> recheck = Optional.ofNullable(rechecks.get(v.id()));
        NextStep next = NextStep.of(
                state.forecast(),
                open.map(Job::stage),
                state.callBack(),
                recheck.isPresent(),
                open.filter(Job::awaitsOwner).isPresent());
        return new DeskRow(
                v.id(),
                v.registration(),
                v.ownerName(),
                v.ownerPhone(),
                v.fleet().map(Fleet::name).orElse(null),
                v.makeModel(),
                state.family().map(EngineFamily::drive).orElse(null),
                state.family().map(EngineFamily::interference).orElse(null),
                state.forecast().status(),
                state.forecast().statusWords(),
                state.forecast().actBy().orElse(null),
                note(state, open),
                state.exposurePerWeekMinor().isPresent()
                        ? state.exposurePerWeekMinor().getAsLong()
                        : null,
                state.exposurePerHour().map(Math::round).orElse(null),
                life(state),
                next,
                current.get().isOutside() ? next.wordsForOwner() : next.words(),
                state.callBack(),
                recheck.orElse(null),
                open.map(Job::waits).filter(w -> !w.isEmpty()).orElse(null),
                state.whileHere().isPresent()
                        && open.filter(DeskController::renews).isEmpty(),
                state.aside()
                        .map(a -> "%s until %s".formatted(a.why().words(), words.day(a.until())))
                        .orElse(null),
                v.state().kind() == UseState.Kind.IN_USE
                        ? null
                        : v.state().kind().words(),
                open.map(Job::id).orElse(null));
    }

    /** What the row says in a few words. */
    private String note(VehicleState state, Optional<Job> open) {
        Set<ItemKind> unknown = state.forecast().unknownBeside().stream()
                .map(i -> i.item().kind())
                .collect(Collectors.toCollection(TreeSet::new));
        Status status = state.forecast().status();
        boolean calm = status.isAhead() && !state.callBack();
        return calm && !unknown.isEmpty() && open.flatMap(Job::booking).isEmpty()
                ? unknown.stream().map(DeskController::part).collect(Collectors.joining(", ")) + " not known"
                : shortNote(state, open);
    }

    private static String part(ItemKind kind) {
        return kind == ItemKind.WATER_PUMP
                ? "pump"
                : kind.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    private String shortNote(VehicleState state, Optional<Job> open) {
        if (open.map(Job::stage).filter(s -> s == JobStage.UNDER_WAY).isPresent()) {
            return "at the bench";
        }
        Optional<Job.Booking> booking = open.flatMap(Job::booking);
        if (booking.isPresent()) {
            return (booking.get().promised() ? "promised " : "planned ")
                    + booking.get().start().toLocalDate().getDayOfMonth() + " "
                    + booking.get().start().getMonth().getDisplayName(java.time.format.TextStyle.SHORT, Locale.UK);
        }
        if (state.callBack()) {
            return "call promised";
        }
        LocalDate today = clock.today();
        return switch (state.forecast().status()) {
            case STOP -> "do not run";
            case OVERDUE -> "limit " + days(Standing.daysOver(state.forecast())) + " ago";
            case UNKNOWN_HISTORY -> "no record";
            case NO_BOOK -> state.forecast().noInterval() ? "no interval" : "engine not known";
            case ACT_NOW ->
                Standing.found(state.forecast(), FindingEffect.Call.ACT_NOW)
                        .or(() -> Standing.found(state.forecast(), FindingEffect.Call.ACT_SOON))
                        .orElse("due now");
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
        return new LifeStrip(
                share(state.forecast().usedKm(item.start().orElseThrow(), today), limit.km()),
                share(state.forecast().usedKm(item.start().orElseThrow(), soon), limit.km()),
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
}
