package knollfield.app.calculation;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import knollfield.app.calculation.CalculationViews.ForecastIn;
import knollfield.app.calculation.CalculationViews.PolicyIn;
import knollfield.app.calculation.CalculationViews.RejectedOut;
import knollfield.app.calculation.CalculationViews.TripIn;
import knollfield.app.problem.Checks;
import knollfield.app.settings.Timings;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.Condition;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.Policy;
import knollfield.core.due.Status;
import knollfield.core.due.UseState;
import knollfield.core.due.VehicleFacts;
import knollfield.core.odometer.Projection;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import knollfield.core.risk.EconomicInterval;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;

/** The calculators of the desk: what is asked and what is answered. */
final class CalculationViews {

    private static final double MOST_KM_PER_YEAR = 1_000_000;
    private static final long MOST_MINOR = 1_000_000_000_000L;

    private CalculationViews() {}

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
            @Nullable PolicyIn policy) {

        /** Notes what is wrong in {@code checks}, naming the field. */
        void check(Checks checks) {
            CalculationViews.readings(readings(), checks);
            CalculationViews.usage(usageClass(), checks);
            checks.that(
                    !firstRegistered().isAfter(today()), "/firstRegistered", "It cannot be registered after today.");
            for (int i = 0; i < readings().size(); i++) {
                checks.that(
                        !readings().get(i).date().isAfter(today()),
                        "/readings/" + i + "/date",
                        "A reading cannot be later than today.");
            }
            starts().forEach((item, s) -> checks.that(
                            s.km() >= 0 && s.km() <= Reading.MAX_KM,
                            "/starts/" + item + "/km",
                            "An odometer shows 0 to 5,000,000 km.")
                    .that(
                            !s.date().isAfter(today()),
                            "/starts/" + item + "/date",
                            "A renewal cannot be later than today."));
            for (int i = 0; i < trips().size(); i++) {
                TripIn t = trips().get(i);
                checks.that(!t.to().isBefore(t.from()), "/trips/" + i + "/to", "The trip ends before it starts.");
                checks.that(t.extraKm() > 0, "/trips/" + i + "/extraKm", "Must be above zero.");
            }
            double idle = idleHoursPerYear() == null ? 0 : idleHoursPerYear();
            checks.that(idle >= 0 && idle <= 8_784, "/idleHoursPerYear", "Must be 0 to 8,784.");
            Optional.ofNullable(policy()).ifPresent(p -> CalculationViews.check(p, checks));
        }
    }

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
            long plannedMinor) {

        /** @throws knollfield.app.problem.InvalidInput naming the field */
        void check() {
            Checks checks = wear(shareFailedAtLimits(), shape());
            share(distanceNow(), distanceThen(), "/distanceThen", checks);
            share(ageNow(), ageThen(), "/ageThen", checks);
            checks.that(
                            distanceNow() != null || ageNow() != null,
                            "/distanceNow",
                            "Without a limit the chance is not known.")
                    .that(hazardFactor() >= 1 && hazardFactor() <= 10, "/hazardFactor", "Must be 1 to 10.")
                    .that(failureMinor() >= 0, "/failureMinor", "Must be zero or more.")
                    .that(plannedMinor() >= 0, "/plannedMinor", "Must be zero or more.")
                    .orThrow();
        }
    }

    record RiskOut(double chance, long exposureMinor) {}

    record EconomicIn(
            double shareFailedAtLimits,
            double shape,
            RequestedEngine.LimitIn limit,
            double kmPerYear,
            long plannedMinor,
            long failureMinor) {

        /** @throws knollfield.app.problem.InvalidInput naming the field */
        void check() {
            Integer km = limit().km();
            Integer months = limit().months();
            wear(shareFailedAtLimits(), shape())
                    .that(km != null || months != null, "/limit", "A limit needs a distance, an age, or both.")
                    .that(km == null || km > 0, "/limit/km", "Must be above zero.")
                    .that(months == null || months > 0, "/limit/months", "Must be above zero.")
                    .that(
                            kmPerYear() >= 0 && kmPerYear() <= MOST_KM_PER_YEAR,
                            "/kmPerYear",
                            "Must be 0 to 1,000,000 km a year.")
                    .that(
                            plannedMinor() > 0 && plannedMinor() <= MOST_MINOR,
                            "/plannedMinor",
                            "Must be above zero and at most 1,000,000,000,000.")
                    .that(
                            failureMinor() > 0 && failureMinor() <= MOST_MINOR,
                            "/failureMinor",
                            "Must be above zero and at most 1,000,000,000,000.")
                    .orThrow();
        }
    }

    record EconomicOut(
            EconomicInterval.Verdict verdict,
            String words,
            @Nullable Double years,
            @Nullable Double km,
            @Nullable Double shareOfBook,
            @Nullable Double perYearMinor,
            @Nullable Double perYearAtBookMinor) {}

    /** Up to the last reading the chain tells, after it the projection. */
    static @Nullable Double shown(ReadingChain chain, Optional<Projection> projection, LocalDate on, double share) {
        OptionalDouble told = chain.interpolatedKm(on);
        return told.isPresent()
                ? Double.valueOf(told.getAsDouble())
                : projection.map(p -> p.quantileKm(on, share)).orElse(null);
    }

    static void readings(List<ReadingIn> readings, Checks checks) {
        for (int i = 0; i < readings.size(); i++) {
            int km = readings.get(i).km();
            checks.that(
                    km >= 0 && km <= Reading.MAX_KM, "/readings/" + i + "/km", "An odometer shows 0 to 5,000,000 km.");
        }
    }

    static void usage(ClassIn usage, Checks checks) {
        checks.that(
                        usage.meanKmPerYear() >= 0 && usage.meanKmPerYear() <= MOST_KM_PER_YEAR,
                        "/usageClass/meanKmPerYear",
                        "Must be 0 to 1,000,000 km a year.")
                .that(
                        usage.spreadKmPerYear() > 0 && usage.spreadKmPerYear() <= MOST_KM_PER_YEAR,
                        "/usageClass/spreadKmPerYear",
                        "Must be above zero and at most 1,000,000 km a year.");
    }

    static Checks wear(double share, double shape) {
        return new Checks()
                .that(share > 0 && share < 1, "/shareFailedAtLimits", "Must lie between 0 and 1.")
                .that(shape > 0 && shape <= 20, "/shape", "Must be above zero and at most 20.");
    }

    static void share(@Nullable Double now, @Nullable Double then, String pointer, Checks checks) {
        checks.that((now == null) == (then == null), pointer, "Both states are needed, or neither.")
                .that(now == null || then == null || (now >= 0 && then >= now), pointer, "Use only grows.")
                .that(
                        then == null || then <= 100,
                        pointer,
                        "A share of the limit used is at most 100 times the limit.");
    }

    static void check(PolicyIn p, Checks checks) {
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

    static Policy core(PolicyIn p) {
        return new Policy(
                Timings.of(p.timing(), p.share() == null ? 1 : p.share(), p.fixedKm(), p.fixedMonths()),
                p.riskInterference(),
                p.riskOther(),
                p.horizonDays(),
                p.unknownRule(),
                p.statedCounts(),
                Policy.Found.defaults());
    }

    static List<Reading> core(List<ReadingIn> readings) {
        List<Reading> list = new ArrayList<>();
        for (ReadingIn r : readings) {
            DistanceUnit unit = r.unit();
            list.add(
                    new Reading(list.size() + 1L, r.date(), r.km(), r.source(), unit == null ? DistanceUnit.KM : unit));
        }
        return list;
    }

    static UsageClass core(ClassIn usage) {
        return new UsageClass("REQUEST", "as given", usage.meanKmPerYear(), usage.spreadKmPerYear());
    }

    static ReadingIn view(Reading r) {
        return new ReadingIn(r.date(), r.km(), r.source(), r.unit());
    }

    static OptionalDouble optional(@Nullable Double value) {
        return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
    }

    static ItemOut item(ItemForecast i) {
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

    /** The vehicle that is asked about. */
    static VehicleFacts facts(ForecastIn in) {
        double idle = in.idleHoursPerYear() == null ? 0 : in.idleHoursPerYear();
        Map<String, ClockStart> starts = new HashMap<>();
        in.starts().forEach((item, s) -> starts.put(item, new ClockStart(s.date(), s.km(), s.grade())));
        List<Reading> readings = core(in.readings());
        starts.values().forEach(s -> s.reading().ifPresent(readings::add));
        return new VehicleFacts(
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
    }
}
