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
import knollfield.app.due.VehicleState;
import knollfield.app.settings.Timings;
import knollfield.app.settings.Workshop;
import knollfield.app.vehicle.OdometerReplacement;
import knollfield.app.vehicle.Renewal;
import knollfield.app.vehicle.StoredEvidence;
import knollfield.app.vehicle.StoredReading;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.Condition;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.FindingEffect;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.JobStage;
import knollfield.core.due.NextStep;
import knollfield.core.due.Status;
import knollfield.core.due.UseState;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.odometer.ReadingChain.Rejected;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.RejectReason;
import knollfield.core.risk.DriveHazard;
import knollfield.core.risk.EconomicInterval;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;

/** A vehicle, as its dossier shows it. */
final class DossierViews {

    private DossierViews() {}

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

    static List<ConditionView> conditions(Set<Condition> applies, Optional<EngineFamily> family) {
        return Arrays.stream(Condition.values())
                .filter(c -> family.map(f -> c.appliesTo(f.drive())).orElse(true))
                .map(c -> new ConditionView(c, c.words(), applies.contains(c)))
                .toList();
    }

    static List<RenewalView> renewals(VehicleState state, UnaryOperator<String> names) {
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

    static List<EvidenceView> evidence(VehicleState state, boolean outside, UnaryOperator<String> names) {
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
    static @Nullable String effect(StoredEvidence stored, VehicleState state) {
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

    static Optional<EconomicView> economic(VehicleState state, Workshop workshop) {
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

    static ItemView item(ItemForecast i) {
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

    static List<ReadingView> readings(VehicleState state, UnaryOperator<String> names) {
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
