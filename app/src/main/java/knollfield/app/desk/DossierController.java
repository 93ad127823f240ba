package knollfield.app.desk;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.log.VehicleLog;
import knollfield.app.problem.NotFound;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.StoredReading;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.ClockStart;
import knollfield.core.due.Condition;
import knollfield.core.due.DueWindow;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.JobStage;
import knollfield.core.due.NextStep;
import knollfield.core.due.Standing;
import knollfield.core.due.Status;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Limit;
import knollfield.core.odometer.ReadingChain.Rejected;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.RejectReason;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** One vehicle: how it stands, why, and what has happened to it. */
@RestController
@RequestMapping("/api/vehicles/{id}")
class DossierController {

    private static final int LOG_LINES = 40;

    private final Forecasts forecasts;
    private final VehicleService vehicles;
    private final EngineBook book;
    private final Jobs jobs;
    private final VehicleLog log;
    private final WorkshopSettings settings;
    private final Words words;

    DossierController(
            Forecasts forecasts,
            VehicleService vehicles,
            EngineBook book,
            Jobs jobs,
            VehicleLog log,
            WorkshopSettings settings,
            Words words) {
        this.forecasts = forecasts;
        this.vehicles = vehicles;
        this.book = book;
        this.jobs = jobs;
        this.log = log;
        this.settings = settings;
        this.words = words;
    }

    record LimitView(@Nullable Integer km, @Nullable Integer months) {}

    record PointView(LocalDate date, double months, double km, double odometerKm) {}

    record RejectedView(PointView point, String reason) {}

    record BandView(LocalDate date, double months, double lowKm, double medianKm, double highKm) {}

    record CrossingView(
            ItemForecast.Binding wall,
            @Nullable LocalDate from,
            LocalDate median,
            @Nullable LocalDate to,
            boolean corner) {}

    record WindowView(
            String item,
            LocalDate start,
            int startKm,
            boolean known,
            boolean severe,
            @Nullable LimitView limit,
            @Nullable LimitView other,
            double spanMonths,
            double spanKm,
            List<PointView> track,
            List<RejectedView> rejected,
            List<BandView> fan,
            PointView today,
            @Nullable CrossingView crossing) {}

    record ReasonView(String topic, String text) {}

    record ItemView(
            String code,
            String name,
            Status status,
            String statusWords,
            boolean inspection,
            @Nullable LocalDate renewedOn,
            @Nullable Integer renewedKm,
            @Nullable String grade,
            @Nullable Integer limitKm,
            @Nullable Double usedKm,
            @Nullable Integer limitMonths,
            @Nullable Long usedMonths,
            ItemForecast.Binding binding,
            @Nullable LocalDate actBy) {}

    record ReadingView(
            long id,
            LocalDate date,
            int km,
            BigDecimal writtenValue,
            DistanceUnit writtenUnit,
            ReadingSource source,
            String sourceWords,
            boolean markedWrong,
            @Nullable String rejected,
            String enteredBy) {}

    record EvidenceView(
            long id,
            EvidenceKind kind,
            String words,
            LocalDate found,
            String note,
            @Nullable LocalDate endedOn,
            @Nullable String endedWhy,
            String enteredBy) {}

    record JobRef(
            long id,
            JobStage stage,
            @Nullable LocalDate completedOn,
            @Nullable Integer completedKm) {}

    record LogView(Instant at, String by, String what, String before, String after) {}

    record ConditionView(Condition code, String words, boolean applies) {}

    record CostView(long lowMinor, long likelyMinor, long highMinor) {}

    record DossierView(
            long id,
            int version,
            String registration,
            @Nullable String vin,
            String makeModel,
            @Nullable String family,
            @Nullable Interference interference,
            String ownerName,
            String ownerPhone,
            @Nullable String fleet,
            LocalDate firstRegistered,
            Status status,
            String statusWords,
            String sentence,
            @Nullable LocalDate actBy,
            NextStep nextStep,
            @Nullable Long openJobId,
            @Nullable Long exposurePerWeekMinor,
            @Nullable CostView ifItGoes,
            @Nullable WindowView window,
            List<ReasonView> reasons,
            List<ItemView> items,
            List<ReadingView> readings,
            List<EvidenceView> evidence,
            List<ConditionView> conditions,
            List<JobRef> jobs,
            List<LogView> log) {}

    @GetMapping
    DossierView get(@PathVariable long id) {
        Vehicle v = vehicles.get(id);
        VehicleState state = forecasts.find(id).orElseThrow(() -> new NotFound("There is no vehicle " + id + "."));
        VehicleForecast f = state.forecast();
        Workshop workshop = settings.get();
        Optional<EngineFamily> family = v.familyCode().flatMap(book::find).map(x -> x.family());
        List<Job> all = jobs.ofVehicle(id);
        Optional<Job> open = all.stream().filter(j -> j.stage().isOpen()).findFirst();
        return new DossierView(
                v.id(),
                v.version(),
                v.registration(),
                v.vin().orElse(null),
                v.makeModel(),
                family.map(EngineFamily::name).orElse(null),
                family.map(EngineFamily::interference).orElse(null),
                v.ownerName(),
                v.ownerPhone(),
                v.fleet().map(Fleet::name).orElse(null),
                v.firstRegistered(),
                f.status(),
                f.status().words(),
                words.write(Standing.of(f, state.history().facts(vehicles.usage(v)), family), workshop.currency()),
                f.actBy().orElse(null),
                NextStep.of(f.status(), open.map(Job::stage)),
                open.map(Job::id).orElse(null),
                state.exposurePerWeekMinor().isPresent()
                        ? state.exposurePerWeekMinor().getAsLong()
                        : null,
                state.consequence()
                        .map(c -> new CostView(c.low(), c.likely(), c.high()))
                        .orElse(null),
                f.deciding().map(d -> window(f, d, v)).orElse(null),
                f.reasons().stream()
                        .map(r -> new ReasonView(r.topic().words(), words.write(r.statement(), workshop.currency())))
                        .toList(),
                f.items().stream().map(DossierController::item).toList(),
                readings(state),
                state.history().evidence().stream()
                        .sorted(Comparator.comparing((knollfield.app.vehicle.StoredEvidence e) -> e.found())
                                .reversed())
                        .map(e -> new EvidenceView(
                                e.id(),
                                e.kind(),
                                e.kind().words(),
                                e.found(),
                                e.note(),
                                e.endedOn().orElse(null),
                                e.endedWhy().orElse(null),
                                e.enteredBy()))
                        .toList(),
                conditions(v.conditions()),
                all.stream()
                        .map(j -> new JobRef(
                                j.id(),
                                j.stage(),
                                j.done().map(Job.Done::on).orElse(null),
                                j.done().map(Job.Done::km).orElse(null)))
                        .toList(),
                log.newest(id, LOG_LINES).stream()
                        .map(l -> new LogView(l.at(), l.by(), l.what(), l.before(), l.after()))
                        .toList());
    }

    private static List<ConditionView> conditions(Set<Condition> applies) {
        return Arrays.stream(Condition.values())
                .map(c -> new ConditionView(c, c.words(), applies.contains(c)))
                .toList();
    }

    private static WindowView window(VehicleForecast forecast, ItemForecast item, Vehicle v) {
        DueWindow w = DueWindow.of(forecast, item, v.firstRegistered());
        return new WindowView(
                item.item().name(),
                w.start().date(),
                w.start().km(),
                w.known(),
                item.severe(),
                w.limit().map(DossierController::limit).orElse(null),
                w.other().map(DossierController::limit).orElse(null),
                w.spanMonths(),
                w.spanKm(),
                w.track().stream().map(DossierController::point).toList(),
                w.rejected().stream()
                        .map(r -> new RejectedView(point(r.point()), r.reason().words()))
                        .toList(),
                w.fan().stream()
                        .map(b -> new BandView(b.date(), b.months(), b.lowKm(), b.medianKm(), b.highKm()))
                        .toList(),
                point(w.today()),
                w.crossing()
                        .map(c -> new CrossingView(
                                c.wall(), c.from().orElse(null), c.median(), c.to().orElse(null), c.corner()))
                        .orElse(null));
    }

    private static PointView point(DueWindow.Point p) {
        return new PointView(p.date(), p.months(), p.km(), p.odometerKm());
    }

    private static LimitView limit(Limit l) {
        return new LimitView(
                l.km().isPresent() ? l.km().getAsInt() : null,
                l.months().isPresent() ? l.months().getAsInt() : null);
    }

    private static ItemView item(ItemForecast i) {
        return new ItemView(
                i.item().code(),
                i.item().name(),
                i.status(),
                i.status().words(),
                i.inspection(),
                i.start().map(ClockStart::date).orElse(null),
                i.start().map(ClockStart::km).orElse(null),
                i.start().map(s -> s.grade().words()).orElse(null),
                i.distance().map(ItemForecast.DistanceClock::limitKm).orElse(null),
                i.distance().map(ItemForecast.DistanceClock::usedKm).orElse(null),
                i.age().map(ItemForecast.AgeClock::limitMonths).orElse(null),
                i.age().map(ItemForecast.AgeClock::usedMonths).orElse(null),
                i.binding(),
                i.actBy().orElse(null));
    }

    private static List<ReadingView> readings(VehicleState state) {
        Map<Long, RejectReason> rejected = state.forecast().readings().rejected().stream()
                .collect(Collectors.toMap(r -> r.reading().id(), Rejected::reason));
        return state.history().readings().stream()
                .sorted(Comparator.comparing(StoredReading::date)
                        .thenComparing(StoredReading::id)
                        .reversed())
                .map(r -> new ReadingView(
                        r.id(),
                        r.date(),
                        r.km(),
                        r.writtenValue(),
                        r.writtenUnit(),
                        r.source(),
                        r.source().words(),
                        r.markedWrong(),
                        Optional.ofNullable(rejected.get(r.id()))
                                .map(RejectReason::words)
                                .orElse(null),
                        r.enteredBy()))
                .toList();
    }
}
