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
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import knollfield.app.aftercare.Aftercare;
import knollfield.app.due.Forecasts;
import knollfield.app.due.Unjudged;
import knollfield.app.due.VehicleState;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.log.VehicleLog;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.Timings;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.vehicle.CallNote;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.OdometerReplacement;
import knollfield.app.vehicle.Renewal;
import knollfield.app.vehicle.StandingDecline;
import knollfield.app.vehicle.StoredEvidence;
import knollfield.app.vehicle.StoredReading;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.ClockStart;
import knollfield.core.due.Condition;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.FindingEffect;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.JobStage;
import knollfield.core.due.NextStep;
import knollfield.core.due.Standing;
import knollfield.core.due.Status;
import knollfield.core.due.UseState;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.odometer.ClassLearning;
import knollfield.core.odometer.ReadingChain.Rejected;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.RejectReason;
import knollfield.core.odometer.UsageClass;
import knollfield.core.odometer.UsageRate;
import knollfield.core.risk.DriveHazard;
import knollfield.core.risk.EconomicInterval;
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
    private final Jobs jobs;
    private final VehicleLog log;
    private final Aftercare aftercare;
    private final WorkshopSettings settings;
    private final Words words;
    private final CurrentPerson current;

    DossierController(
            Forecasts forecasts,
            VehicleService vehicles,
            Jobs jobs,
            VehicleLog log,
            Aftercare aftercare,
            WorkshopSettings settings,
            Words words,
            CurrentPerson current) {
        this.current = current;
        this.forecasts = forecasts;
        this.vehicles = vehicles;
        this.jobs = jobs;
        this.log = log;
        this.aftercare = aftercare;
        this.settings = settings;
        this.words = words;
    }

    record ReasonView(String topic, String text) {}

    record ItemView(
            String code,
            String name,
            boolean takesTheDrive,
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

    /** @param replacement what a new odometer lacks, where this reading was the first it showed; km */
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
            @Nullable Integer replacement,
            String enteredBy) {}

    /** @param effect what it does to the due date; null for one that has ended */
    record EvidenceView(
            long id,
            EvidenceKind kind,
            String words,
            String advice,
            @Nullable String effect,
            LocalDate found,
            String confidence,
            @Nullable String item,
            String source,
            String note,
            @Nullable LocalDate endedOn,
            @Nullable String endedWhy,
            String enteredBy) {}

    /** @param jobId the job that did it; null for one done elsewhere or earlier */
    record RenewalView(
            String item,
            LocalDate date,
            int km,
            String grade,
            String part,
            String proof,
            @Nullable Long jobId,
            String enteredBy) {}

    record TripView(long id, LocalDate from, LocalDate to, int extraKm) {}

    record CallView(
            long id,
            LocalDate spokenOn,
            String spokeWith,
            String note,
            @Nullable LocalDate askAgainOn,
            String enteredBy) {}

    record DeclineView(
            long id,
            LocalDate declinedOn,
            String declinedBy,
            String told,
            LocalDate until,
            @Nullable LocalDate withdrawnOn,
            String enteredBy) {}

    record StateView(
            UseState.Kind kind, String words, @Nullable LocalDate since) {}

    /** A timing of the vehicle's own. */
    record OwnTimingView(
            Timings.Kind kind,
            @Nullable Double share,
            @Nullable Integer km,
            @Nullable Integer months,
            String reason) {}

    /**
     * @param spreadKmPerYear standard deviation of what is believed of the rate
     * @param observedKmPerYear what its own readings show
     * @param learned the class's mean and spread were learned from the workshop's vehicles
     */
    record UsageView(
            double kmPerYear,
            double spreadKmPerYear,
            @Nullable Double observedKmPerYear,
            String usageClass,
            double classKmPerYear,
            double classSpreadKmPerYear,
            boolean learned,
            int learnedFrom) {}

    /**
     * The renewal interval of the drive that costs least, beside the book's.
     *
     * @param words whether there is one, and why not
     */
    record EconomicView(
            String words,
            @Nullable Double years,
            @Nullable Double km,
            @Nullable Double shareOfBook,
            @Nullable Long perYearMinor,
            @Nullable Long perYearAtBookMinor) {}

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
            @Nullable Long ownerId,
            String ownerName,
            String ownerPhone,
            @Nullable String fleet,
            @Nullable String fleetContact,
            LocalDate firstRegistered,
            StateView state,
            @Nullable OwnTimingView ownTiming,
            int idleHoursPerYear,
            @Nullable LocalDate beltDateCode,
            boolean callBack,
            @Nullable String aside,
            @Nullable String unjudged,
            Status status,
            String statusWords,
            String sentence,
            @Nullable LocalDate actBy,
            NextStep nextStep,
            @Nullable Long openJobId,
            @Nullable Long exposurePerWeekMinor,
            @Nullable CostView ifItGoes,
            UsageView usage,
            @Nullable EconomicView economic,
            @Nullable WindowView window,
            List<ReasonView> reasons,
            List<ItemView> items,
            List<ReadingView> readings,
            List<EvidenceView> evidence,
            List<ConditionView> conditions,
            List<RenewalView> renewals,
            List<TripView> trips,
            List<CallView> calls,
            List<DeclineView> declines,
            List<JobRef> jobs,
            List<LogView> log) {}

    @GetMapping
    DossierView get(@PathVariable long id) {
        Vehicle v = vehicles.get(id);
        VehicleState state = forecasts.find(id).orElseThrow(() -> new NotFound("There is no vehicle " + id + "."));
        VehicleForecast f = state.forecast();
        Workshop workshop = settings.get();
        Optional<EngineFamily> family = state.family();
        List<Job> all = jobs.ofVehicle(id);
        // what the house notes for itself is not for outside
        boolean outside = current.get().isOutside();
        UnaryOperator<String> names = current.names();
        Optional<Job> open = all.stream().filter(j -> j.stage().isOpen()).findFirst();
        return new DossierView(
                v.id(),
                v.version(),
                v.registration(),
                v.vin().orElse(null),
                v.makeModel(),
                family.map(EngineFamily::name).orElse(null),
                family.map(EngineFamily::interference).orElse(null),
                v.ownerId().orElse(null),
                v.ownerName(),
                v.ownerPhone(),
                v.fleet().map(Fleet::name).orElse(null),
                v.fleet().map(x -> x.contactName() + ", " + x.phone()).orElse(null),
                v.firstRegistered(),
                new StateView(
                        v.state().kind(),
                        v.state().kind().words(),
                        v.state().since().orElse(null)),
                v.own()
                        .map(o -> new OwnTimingView(
                                Timings.kindOf(o.timing()),
                                Timings.share(o.timing()),
                                Timings.km(o.timing()),
                                Timings.months(o.timing()),
                                o.reason()))
                        .orElse(null),
                v.idleHoursPerYear(),
                v.beltDateCode().orElse(null),
                state.callBack(),
                state.aside()
                        .map(a -> "%s until %s".formatted(a.why().words(), words.day(a.until())))
                        .orElse(null),
                state.unjudged().map(Unjudged.Part::words).orElse(null),
                f.status(),
                f.statusWords(),
                words.write(Standing.of(f, family), workshop.currency()),
                f.actBy().orElse(null),
                NextStep.of(
                        f,
                        open.map(Job::stage),
                        state.callBack(),
                        aftercare.dueToday().containsKey(id),
                        open.filter(Job::awaitsOwner).isPresent()),
                open.map(Job::id).orElse(null),
                state.exposurePerWeekMinor().isPresent()
                        ? state.exposurePerWeekMinor().getAsLong()
                        : null,
                state.consequence()
                        .map(c -> new CostView(c.low(), c.likely(), c.high()))
                        .orElse(null),
                usage(state),
                economic(state, workshop).orElse(null),
                f.deciding().map(d -> WindowView.of(f, d, state.history())).orElse(null),
                f.reasons().stream()
                        .map(r -> new ReasonView(r.topic().words(), words.write(r.statement(), workshop.currency())))
                        .toList(),
                f.items().stream().map(DossierController::item).toList(),
                readings(state, names),
                evidence(state, outside, names),
                conditions(v.conditions(), state.family()),
                renewals(state, names),
                state.history().trips().stream()
                        .filter(t -> t.cancelledOn().isEmpty() && t.trip().to().isAfter(f.today()))
                        .map(t -> new TripView(
                                t.id(), t.trip().from(), t.trip().to(), t.trip().extraKm()))
                        .toList(),
                state.history().calls().stream()
                        .filter(c -> !outside)
                        .sorted(Comparator.comparing(CallNote::id).reversed())
                        .map(c -> new CallView(
                                c.id(),
                                c.spokenOn(),
                                c.spokeWith(),
                                c.note(),
                                c.askAgainOn().orElse(null),
                                c.enteredBy()))
                        .toList(),
                state.history().declines().stream()
                        .sorted(Comparator.comparing(StandingDecline::id).reversed())
                        .map(d -> new DeclineView(
                                d.id(),
                                d.declinedOn(),
                                names.apply(d.declinedBy()),
                                d.told(),
                                d.until(),
                                d.withdrawnOn().orElse(null),
                                names.apply(d.enteredBy())))
                        .toList(),
                all.stream()
                        .map(j -> new JobRef(
                                j.id(),
                                j.stage(),
                                j.done().map(Job.Done::on).orElse(null),
                                j.done().map(Job.Done::km).orElse(null)))
                        .toList(),
                log.newest(id, outside ? 0 : LOG_LINES).stream()
                        .map(l -> new LogView(l.at(), l.by(), l.what(), l.before(), l.after()))
                        .toList());
    }

    private static List<ConditionView> conditions(Set<Condition> applies, Optional<EngineFamily> family) {
        return Arrays.stream(Condition.values())
                .filter(c -> family.map(f -> c.appliesTo(f.drive())).orElse(true))
                .map(c -> new ConditionView(c, c.words(), applies.contains(c)))
                .toList();
    }

    private static List<RenewalView> renewals(VehicleState state, UnaryOperator<String> names) {
        return state.history().renewals().stream()
                .sorted(Comparator.comparing(Renewal::date).reversed().thenComparing(Renewal::itemCode))
                .map(r -> new RenewalView(
                        state.family()
                                .flatMap(f -> f.item(r.itemCode()))
                                .map(Item::name)
                                .orElse(r.itemCode()),
                        r.date(),
                        r.km(),
                        r.grade().words(),
                        r.part(),
                        r.proof(),
                        r.jobId().orElse(null),
                        names.apply(r.enteredBy())))
                .toList();
    }

    private static List<EvidenceView> evidence(VehicleState state, boolean outside, UnaryOperator<String> names) {
        return state.history().evidence().stream()
                .sorted(Comparator.comparing((StoredEvidence e) -> e.evidence().found())
                        .thenComparing(StoredEvidence::id)
                        .reversed())
                .map(e -> new EvidenceView(
                        e.id(),
                        e.evidence().kind(),
                        e.evidence().kind().words(),
                        e.evidence().kind().advice(),
                        effect(e, state),
                        e.evidence().found(),
                        e.evidence().confidence().words(),
                        e.evidence()
                                .item()
                                .flatMap(code -> state.family().flatMap(f -> f.item(code)))
                                .map(i -> i.name())
                                .orElse(null),
                        e.source(),
                        outside ? "" : e.note(),
                        e.endedOn().orElse(null),
                        outside ? null : e.endedWhy().orElse(null),
                        names.apply(e.enteredBy())))
                .toList();
    }

    /** What an open finding does to the due date; empty for one that has ended. */
    private static @Nullable String effect(StoredEvidence stored, VehicleState state) {
        if (stored.endedOn().isPresent()) {
            return null;
        }
        return state.forecast().findings().stream()
                .filter(f -> f.evidence().equals(stored.evidence()))
                .map(FindingEffect::call)
                .findFirst()
                // the forecast does not look at what a stand-in says
                .orElse(FindingEffect.Call.SIMULATED)
                .words();
    }

    private UsageView usage(VehicleState state) {
        UsageRate rate = state.forecast().projection().rate();
        UsageClass usage = state.facts().usage();
        Optional<ClassLearning> learning =
                Optional.ofNullable(forecasts.classes().get(usage.code()));
        return new UsageView(
                rate.kmPerYear(),
                Math.sqrt(rate.variance()),
                rate.observed().map(UsageRate.Observed::kmPerYear).orElse(null),
                usage.name(),
                usage.meanKmPerYear(),
                usage.sdKmPerYear(),
                learning.map(ClassLearning::learned).orElse(false),
                learning.map(ClassLearning::vehicles).orElse(0));
    }

    private static Optional<EconomicView> economic(VehicleState state, Workshop workshop) {
        VehicleForecast f = state.forecast();
        boolean hasInterval = f.items().stream()
                .anyMatch(i -> i.item().kind().isTheDrive() && i.limit().isPresent() && !i.inspection());
        if (!hasInterval || state.consequence().isEmpty() || state.plannedMinor() <= 0) {
            return Optional.empty();
        }
        EconomicInterval e = EconomicInterval.of(
                DriveHazard.of(f, state.facts().firstRegistered(), List.of(), workshop.wearModels())
                        .orElseThrow()
                        .fresh(state.renewed()),
                state.plannedMinor(),
                state.consequence().get().likely());
        return Optional.of(new EconomicView(
                e.verdict().words(),
                e.years().orElse(null),
                e.km().orElse(null),
                e.shareOfBook().orElse(null),
                e.perYearMinor().map(Math::round).orElse(null),
                e.perYearAtBookMinor().map(Math::round).orElse(null)));
    }

    private static ItemView item(ItemForecast i) {
        return new ItemView(
                i.item().code(),
                i.item().name(),
                i.item().takesTheDrive(),
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

    private static List<ReadingView> readings(VehicleState state, UnaryOperator<String> names) {
        Map<Long, RejectReason> rejected = state.forecast().readings().rejected().stream()
                .filter(r -> r.reading().id() != 0)
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
                        state.history().replacements().stream()
                                .filter(x -> x.readingId() == r.id())
                                .map(OdometerReplacement::offsetKm)
                                .findFirst()
                                .orElse(null),
                        names.apply(r.enteredBy())))
                .toList();
    }
}
