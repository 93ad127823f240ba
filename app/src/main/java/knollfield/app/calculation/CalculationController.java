package knollfield.app.calculation;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.ExampleObject;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import knollfield.app.engine.EngineBook;
import knollfield.app.problem.Checks;
import knollfield.app.settings.Timings;
import knollfield.app.shared.Words;
import knollfield.core.due.ClockStart;
import knollfield.core.due.Condition;
import knollfield.core.due.DueEngine;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.Policy;
import knollfield.core.due.Status;
import knollfield.core.due.UseState;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Limit;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.odometer.Projection;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import knollfield.core.odometer.UsageRate;
import knollfield.core.risk.EconomicInterval;
import knollfield.core.risk.FreshSet;
import knollfield.core.risk.WearModel;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The same core the screens use, for anyone who brings the figures. */
@RestController
@RequestMapping("/api/calculations")
class CalculationController {

    private static final String CURRENCY = "EUR";
    private static final double MOST_KM_PER_YEAR = 1_000_000;
    private static final long MOST_MINOR = 1_000_000_000_000L;

    private final EngineBook book;
    private final Words words;

    CalculationController(EngineBook book, Words words) {
        this.book = book;
        this.words = words;
    }

    /**
     * @param km distance shown, whole kilometres
     * @param unit what it was written in; kilometres where nothing is said
     */
    record ReadingIn(
            LocalDate date,
            int km,
            ReadingSource source,
            @Nullable DistanceUnit unit) {}

    record ClassIn(double meanKmPerYear, double spreadKmPerYear) {}

    record StartIn(LocalDate date, int km, ClockStart.Grade grade) {}

    record EvidenceIn(
            EvidenceKind kind,
            LocalDate found,
            Evidence.@Nullable Confidence confidence,
            @Nullable String item) {}

    record TripIn(LocalDate from, LocalDate to, int extraKm) {}

    record PolicyIn(
            Timings.Kind timing,
            @Nullable Double share,
            @Nullable Integer fixedKm,
            @Nullable Integer fixedMonths,
            double riskInterference,
            double riskOther,
            int horizonDays,
            Policy.UnknownRule unknownRule,
            boolean statedCounts) {}

    record ChainIn(
            List<ReadingIn> readings,
            ClassIn usageClass,
            @Nullable LocalDate on) {}

    record RejectedOut(ReadingIn reading, String reason) {}

    /**
     * @param onKm even chance on the day asked for, km; null without a day
     * @param lowKm one chance in ten that it is less
     * @param highKm one chance in ten that it is more
     */
    record ChainOut(
            List<ReadingIn> kept,
            List<RejectedOut> rejected,
            double kmPerYear,
            double spreadKmPerYear,
            @Nullable Double onKm,
            @Nullable Double lowKm,
            @Nullable Double highKm) {}

    /**
     * @param engine the engine's items and limits; or, in its place,
     * @param family code of an engine family on file
     * @param starts by item code
     */
    record ForecastIn(
            LocalDate today,
            @Nullable RequestedEngine engine,
            @Nullable String family,
            LocalDate firstRegistered,
            boolean cameWithReading,
            List<ReadingIn> readings,
            Map<String, StartIn> starts,
            Set<Condition> conditions,
            List<EvidenceIn> evidence,
            ClassIn usageClass,
            List<TripIn> trips,
            @Nullable Double idleHoursPerYear,
            @Nullable LocalDate laidUpSince,
            @Nullable PolicyIn policy) {}

    /** Dates null: none within 60 years. */
    record ItemOut(
            String code,
            String name,
            Status status,
            ItemForecast.Binding binding,
            @Nullable Double usedKm,
            @Nullable Double leftKm,
            @Nullable LocalDate distanceEarly,
            @Nullable LocalDate distanceMedian,
            @Nullable LocalDate distanceLate,
            @Nullable LocalDate ageDate,
            @Nullable LocalDate actBy) {}

    record ForecastOut(
            Status status, @Nullable LocalDate actBy, double kmPerYear, List<ItemOut> items, List<String> reasons) {}

    /**
     * @param distanceNow share of the distance limit used, 1 = at the limit; null without one
     * @param hazardFactor by which findings multiply the growth of hazard, 1 to 10
     */
    record RiskIn(
            double shareFailedAtLimits,
            double shape,
            @Nullable Double distanceNow,
            @Nullable Double ageNow,
            @Nullable Double distanceThen,
            @Nullable Double ageThen,
            int hazardFactor,
            long failureMinor,
            long plannedMinor) {}

    record RiskOut(double chance, long exposureMinor) {}

    record EconomicIn(
            double shareFailedAtLimits,
            double shape,
            RequestedEngine.LimitIn limit,
            double kmPerYear,
            long plannedMinor,
            long failureMinor) {}

    record EconomicOut(
            EconomicInterval.Verdict verdict,
            String words,
            @Nullable Double years,
            @Nullable Double km,
            @Nullable Double shareOfBook,
            @Nullable Double perYearMinor,
            @Nullable Double perYearAtBookMinor) {}

    @Operation(
            summary = "Which readings tell one story, and what usage they show",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            content =
                                    @Content(examples = @ExampleObject(name = "miles among kilometres", value = """
                                    {
                                      "readings": [
                                        {"date": "2024-05-01", "km": 60000, "source": "WORKSHOP"},
                                        {"date": "2025-05-01", "km": 49700, "source": "CUSTOMER"},
                                        {"date": "2026-05-01", "km": 100000, "source": "WORKSHOP"}
                                      ],
                                      "usageClass": {"meanKmPerYear": 20000, "spreadKmPerYear": 6000},
                                      "on": "2027-05-01"
                                    }"""))))
    @PostMapping("/readings-chain")
    ChainOut chain(@RequestBody ChainIn in) {
        Checks checks = new Checks();
        readings(in.readings(), checks);
        usage(in.usageClass(), checks);
        checks.orThrow();
        List<Reading> readings = core(in.readings());
        ReadingChain chain = ReadingChain.of(readings);
        UsageRate rate = UsageRate.estimate(chain.kept(), core(in.usageClass()));
        Optional<Projection> projection = chain.last().map(r -> new Projection(r.date(), r.km(), rate, List.of()));
        LocalDate on = in.on();
        return new ChainOut(
                chain.kept().stream().map(CalculationController::view).toList(),
                chain.rejected().stream()
                        .map(r -> new RejectedOut(view(r.reading()), r.reason().words()))
                        .toList(),
                rate.kmPerYear(),
                Math.sqrt(rate.variance()),
                on == null ? null : shown(chain, projection, on, 0.5),
                on == null ? null : shown(chain, projection, on, 0.1),
                on == null ? null : shown(chain, projection, on, 0.9));
    }

    /** Up to the last reading the chain tells, after it the projection. */
    private static @Nullable Double shown(
            ReadingChain chain, Optional<Projection> projection, LocalDate on, double share) {
        OptionalDouble told = chain.interpolatedKm(on);
        return told.isPresent()
                ? Double.valueOf(told.getAsDouble())
                : projection.map(p -> p.quantileKm(on, share)).orElse(null);
    }

    @Operation(
            summary = "When the timing drive is due, and why",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            content = @Content(examples = @ExampleObject(name = "a belt in dust", value = """
                                    {
                                      "today": "2026-11-25",
                                      "engine": {
                                        "drive": "BELT", "interference": "YES",
                                        "items": [{
                                          "code": "belt", "name": "Timing belt", "kind": "TIMING_BELT",
                                          "normal": {"km": 120000, "months": 72}, "severe": {"km": 70000, "months": 60}
                                        }]
                                      },
                                      "firstRegistered": "2018-11-25",
                                      "cameWithReading": false,
                                      "readings": [
                                        {"date": "2025-11-25", "km": 118000, "source": "WORKSHOP"},
                                        {"date": "2026-11-20", "km": 138000, "source": "WORKSHOP"}
                                      ],
                                      "starts": {"belt": {"date": "2022-05-25", "km": 40000, "grade": "DOCUMENTED"}},
                                      "conditions": ["DUST"],
                                      "evidence": [],
                                      "usageClass": {"meanKmPerYear": 20000, "spreadKmPerYear": 6000},
                                      "trips": []
                                    }"""))))
    @PostMapping("/forecast")
    ForecastOut forecast(@RequestBody ForecastIn in) {
        Checks checks = new Checks();
        Optional<EngineFamily> family = family(in, checks);
        readings(in.readings(), checks);
        usage(in.usageClass(), checks);
        checks.that(
                !in.firstRegistered().isAfter(in.today()), "/firstRegistered", "It cannot be registered after today.");
        for (int i = 0; i < in.readings().size(); i++) {
            checks.that(
                    !in.readings().get(i).date().isAfter(in.today()),
                    "/readings/" + i + "/date",
                    "A reading cannot be later than today.");
        }
        in.starts()
                .forEach((item, s) -> checks.that(
                                s.km() >= 0 && s.km() <= Reading.MAX_KM,
                                "/starts/" + item + "/km",
                                "An odometer shows 0 to 5,000,000 km.")
                        .that(
                                !s.date().isAfter(in.today()),
                                "/starts/" + item + "/date",
                                "A renewal cannot be later than today."));
        for (int i = 0; i < in.trips().size(); i++) {
            TripIn t = in.trips().get(i);
            checks.that(!t.to().isBefore(t.from()), "/trips/" + i + "/to", "The trip ends before it starts.");
            checks.that(t.extraKm() > 0, "/trips/" + i + "/extraKm", "Must be above zero.");
        }
        double idle = in.idleHoursPerYear() == null ? 0 : in.idleHoursPerYear();
        checks.that(idle >= 0 && idle <= 8_784, "/idleHoursPerYear", "Must be 0 to 8,784.");
        Optional<PolicyIn> asked = Optional.ofNullable(in.policy());
        asked.ifPresent(p -> check(p, checks));
        checks.orThrow();
        Map<String, ClockStart> starts = new HashMap<>();
        in.starts().forEach((item, s) -> starts.put(item, new ClockStart(s.date(), s.km(), s.grade())));
        List<Reading> readings = core(in.readings());
        starts.values().forEach(s -> s.reading().ifPresent(readings::add));
        VehicleFacts facts = new VehicleFacts(
                in.firstRegistered(),
                in.cameWithReading(),
                readings,
                starts,
                in.conditions(),
                in.evidence().stream()
                        .map(e -> new Evidence(
                                e.kind(),
                                e.found(),
                                Optional.ofNullable(e.confidence()).orElse(Evidence.Confidence.SEEN),
                                Optional.ofNullable(e.item())))
                        .toList(),
                core(in.usageClass()),
                in.trips().stream()
                        .map(t -> new KnownTrip(t.from(), t.to(), t.extraKm()))
                        .toList(),
                new VehicleFacts.Special(
                        Optional.ofNullable(in.laidUpSince())
                                .map(UseState::laidUp)
                                .orElseGet(UseState::inUse),
                        idle,
                        Optional.empty(),
                        Optional.empty(),
                        Set.of()));
        Policy policy = asked.map(CalculationController::core).orElseGet(Policy::defaults);
        VehicleForecast f = DueEngine.forecast(facts, family, policy, OdometerAssumptions.defaults(), in.today());
        return new ForecastOut(
                f.status(),
                f.actBy().orElse(null),
                f.projection().rate().kmPerYear(),
                f.items().stream().map(CalculationController::item).toList(),
                f.reasons().stream()
                        .map(r -> words.write(r.statement(), CURRENCY))
                        .toList());
    }

    @Operation(
            summary = "Chance of failure between two states of use, and what it may cost",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            content = @Content(examples = @ExampleObject(name = "at the limit", value = """
                                    {
                                      "shareFailedAtLimits": 0.02, "shape": 4,
                                      "distanceNow": 1.00, "ageNow": 0.98, "distanceThen": 1.10, "ageThen": 1.05,
                                      "hazardFactor": 1, "failureMinor": 520000, "plannedMinor": 64000
                                    }"""))))
    @PostMapping("/risk")
    RiskOut risk(@RequestBody RiskIn in) {
        Checks checks = wear(in.shareFailedAtLimits(), in.shape());
        share(in.distanceNow(), in.distanceThen(), "/distanceThen", checks);
        share(in.ageNow(), in.ageThen(), "/ageThen", checks);
        checks.that(
                        in.distanceNow() != null || in.ageNow() != null,
                        "/distanceNow",
                        "Without a limit the chance is not known.")
                .that(in.hazardFactor() >= 1 && in.hazardFactor() <= 10, "/hazardFactor", "Must be 1 to 10.")
                .that(in.failureMinor() >= 0, "/failureMinor", "Must be zero or more.")
                .that(in.plannedMinor() >= 0, "/plannedMinor", "Must be zero or more.")
                .orThrow();
        WearModel wear = new WearModel(in.shareFailedAtLimits(), in.shape());
        double now = wear.cumulativeHazard(optional(in.distanceNow()), optional(in.ageNow()));
        double then = wear.cumulativeHazard(optional(in.distanceThen()), optional(in.ageThen()));
        double chance = WearModel.chanceBetween(now, then, in.hazardFactor());
        return new RiskOut(chance, Math.round(chance * Math.max(0, in.failureMinor() - in.plannedMinor())));
    }

    @Operation(
            summary = "The renewal interval that costs least, beside the book limit",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            content = @Content(examples = @ExampleObject(name = "a belt", value = """
                                    {
                                      "shareFailedAtLimits": 0.02, "shape": 4,
                                      "limit": {"km": 120000, "months": 72}, "kmPerYear": 20000,
                                      "plannedMinor": 64000, "failureMinor": 520000
                                    }"""))))
    @PostMapping("/economic-interval")
    EconomicOut economic(@RequestBody EconomicIn in) {
        Integer km = in.limit().km();
        Integer months = in.limit().months();
        wear(in.shareFailedAtLimits(), in.shape())
                .that(km != null || months != null, "/limit", "A limit needs a distance, an age, or both.")
                .that(km == null || km > 0, "/limit/km", "Must be above zero.")
                .that(months == null || months > 0, "/limit/months", "Must be above zero.")
                .that(
                        in.kmPerYear() >= 0 && in.kmPerYear() <= MOST_KM_PER_YEAR,
                        "/kmPerYear",
                        "Must be 0 to 1,000,000 km a year.")
                .that(
                        in.plannedMinor() > 0 && in.plannedMinor() <= MOST_MINOR,
                        "/plannedMinor",
                        "Must be above zero and at most 1,000,000,000,000.")
                .that(
                        in.failureMinor() > 0 && in.failureMinor() <= MOST_MINOR,
                        "/failureMinor",
                        "Must be above zero and at most 1,000,000,000,000.")
                .orThrow();
        FreshSet set = FreshSet.at(in.kmPerYear())
                .with(
                        new WearModel(in.shareFailedAtLimits(), in.shape()),
                        1,
                        new Limit(Timings.optional(km), Timings.optional(months)));
        EconomicInterval e = EconomicInterval.of(set, in.plannedMinor(), in.failureMinor());
        return new EconomicOut(
                e.verdict(),
                e.verdict().words(),
                e.years().orElse(null),
                e.km().orElse(null),
                e.shareOfBook().orElse(null),
                e.perYearMinor().orElse(null),
                e.perYearAtBookMinor().orElse(null));
    }

    private Optional<EngineFamily> family(ForecastIn in, Checks checks) {
        RequestedEngine engine = in.engine();
        String code = in.family();
        checks.that((engine == null) != (code == null), "/engine", "Give the engine, or the code of a family on file.");
        if (engine != null) {
            return engine.family("/engine", checks);
        }
        Optional<EngineFamily> found =
                Optional.ofNullable(code).flatMap(book::find).map(f -> f.family());
        checks.that(
                code == null || found.isPresent(), "/family", "No engine family \"%s\" is on file.".formatted(code));
        return found;
    }

    private static void readings(List<ReadingIn> readings, Checks checks) {
        for (int i = 0; i < readings.size(); i++) {
            int km = readings.get(i).km();
            checks.that(
                    km >= 0 && km <= Reading.MAX_KM, "/readings/" + i + "/km", "An odometer shows 0 to 5,000,000 km.");
        }
    }

    private static void usage(ClassIn usage, Checks checks) {
        checks.that(
                        usage.meanKmPerYear() >= 0 && usage.meanKmPerYear() <= MOST_KM_PER_YEAR,
                        "/usageClass/meanKmPerYear",
                        "Must be 0 to 1,000,000 km a year.")
                .that(
                        usage.spreadKmPerYear() > 0 && usage.spreadKmPerYear() <= MOST_KM_PER_YEAR,
                        "/usageClass/spreadKmPerYear",
                        "Must be above zero and at most 1,000,000 km a year.");
    }

    private static Checks wear(double share, double shape) {
        return new Checks()
                .that(share > 0 && share < 1, "/shareFailedAtLimits", "Must lie between 0 and 1.")
                .that(shape > 0 && shape <= 20, "/shape", "Must be above zero and at most 20.");
    }

    private static void share(@Nullable Double now, @Nullable Double then, String pointer, Checks checks) {
        checks.that((now == null) == (then == null), pointer, "Both states are needed, or neither.")
                .that(now == null || then == null || (now >= 0 && then >= now), pointer, "Use only grows.")
                .that(
                        then == null || then <= 100,
                        pointer,
                        "A share of the limit used is at most 100 times the limit.");
    }

    private static void check(PolicyIn p, Checks checks) {
        Timings.check(
                        checks,
                        p.timing(),
                        p.share() == null ? 1 : p.share(),
                        p.fixedKm(),
                        p.fixedMonths(),
                        new Timings.Pointers("/policy/share", "/policy/fixedKm", "/policy/fixedMonths"))
                .that(
                        p.timing() != Timings.Kind.CAREFUL,
                        "/policy/timing",
                        "The cheapest day needs a vehicle on file with its costs; ask for the book, or for a share of it.")
                .that(
                        p.riskInterference() > 0 && p.riskInterference() < 1,
                        "/policy/riskInterference",
                        "Must lie between 0 and 1.")
                .that(p.riskOther() > 0 && p.riskOther() < 1, "/policy/riskOther", "Must lie between 0 and 1.")
                .that(p.horizonDays() >= 1, "/policy/horizonDays", "Must be a day or more.");
    }

    private static Policy core(PolicyIn p) {
        return new Policy(
                Timings.of(p.timing(), p.share() == null ? 1 : p.share(), p.fixedKm(), p.fixedMonths()),
                p.riskInterference(),
                p.riskOther(),
                p.horizonDays(),
                p.unknownRule(),
                p.statedCounts(),
                Policy.Found.defaults());
    }

    private static List<Reading> core(List<ReadingIn> readings) {
        List<Reading> list = new ArrayList<>();
        for (ReadingIn r : readings) {
            DistanceUnit unit = r.unit();
            list.add(
                    new Reading(list.size() + 1L, r.date(), r.km(), r.source(), unit == null ? DistanceUnit.KM : unit));
        }
        return list;
    }

    private static UsageClass core(ClassIn usage) {
        return new UsageClass("REQUEST", "as given", usage.meanKmPerYear(), usage.spreadKmPerYear());
    }

    private static ReadingIn view(Reading r) {
        return new ReadingIn(r.date(), r.km(), r.source(), r.unit());
    }

    private static OptionalDouble optional(@Nullable Double value) {
        return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
    }

    private static ItemOut item(ItemForecast i) {
        return new ItemOut(
                i.item().code(),
                i.item().name(),
                i.status(),
                i.binding(),
                i.distance().map(ItemForecast.DistanceClock::usedKm).orElse(null),
                i.distance().map(ItemForecast.DistanceClock::leftKm).orElse(null),
                i.distance().flatMap(ItemForecast.DistanceClock::early).orElse(null),
                i.distance().flatMap(ItemForecast.DistanceClock::median).orElse(null),
                i.distance().flatMap(ItemForecast.DistanceClock::late).orElse(null),
                i.age().map(ItemForecast.AgeClock::date).orElse(null),
                i.actBy().orElse(null));
    }
}
