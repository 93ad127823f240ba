package knollfield.core.due;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.ItemForecast.AgeClock;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.due.ItemForecast.DistanceClock;
import knollfield.core.due.Reason.Topic;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Schedule;
import knollfield.core.explain.Fact.Count;
import knollfield.core.explain.Fact.Day;
import knollfield.core.explain.Fact.Km;
import knollfield.core.explain.Fact.Months;
import knollfield.core.explain.Fact.Share;
import knollfield.core.explain.Fact.Words;
import knollfield.core.odometer.Projection;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.odometer.UsageRate;

/** Says in sentences what {@link DueEngine} computed. It computes nothing of its own but what it says. */
final class ReasonWriter {

    private ReasonWriter() {}

    static List<Reason> reasons(
            VehicleFacts vehicle,
            EngineFamily family,
            Policy policy,
            ItemForecast item,
            Projection projection,
            double idleKmPerYear,
            List<FindingEffect> findings,
            LocalDate today) {
        List<Reason> out = new ArrayList<>(10);
        for (FindingEffect finding : findings) {
            out.add(new Reason(Topic.EVIDENCE, finding.sentence()));
        }
        weakness(vehicle, family).ifPresent(out::add);
        state(vehicle).ifPresent(out::add);
        decides(item).ifPresent(out::add);
        item.distance().ifPresent(d -> out.add(distance(item, d)));
        item.age().ifPresent(a -> out.add(age(item, a)));
        history(vehicle, item, today).ifPresent(out::add);
        item.limit().ifPresent(l -> out.add(schedule(vehicle, family.drive(), item)));
        item.distance().flatMap(d -> otherSchedule(item, d)).ifPresent(out::add);
        if (item.distance().isPresent()) {
            out.add(usage(projection.rate(), projection));
            if (idleKmPerYear > 0) {
                out.add(Reason.of(
                        Topic.USAGE,
                        "{0} hours of idling a year count as {1} more.",
                        new Count(Math.round(vehicle.special().idleHoursPerYear())),
                        new Km(idleKmPerYear)));
            }
        }
        for (KnownTrip t : vehicle.trips()) {
            if (t.from().isAfter(today)) {
                boolean moves = item.actBy()
                        .filter(d -> d.equals(t.from().minusDays(1)))
                        .isPresent();
                out.add(Reason.of(
                        Topic.TRIP,
                        moves
                                ? "{0} extra from {1} to {2}: too likely to pass the limit on the way, so act before it starts."
                                : "{0} extra from {1} to {2}.",
                        new Km(t.extraKm()),
                        new Day(t.from()),
                        new Day(t.to())));
            }
        }
        vehicle.special()
                .own()
                .ifPresent(own -> out.add(Reason.of(
                        Topic.POLICY, "This vehicle has a timing of its own: {0}.", new Words(own.reason()))));
        policy(family, policy, item).ifPresent(out::add);
        if (family.drive() == Drive.BELT_IN_OIL) {
            out.add(
                    Reason.of(
                            Topic.BOOK,
                            "A belt in oil: its limits hold while oil grade and interval are kept; gauge its width, look into the strainer, read the oil pressure."));
        }
        ageWithoutLimit(item, today).ifPresent(out::add);
        if (item.limit().isEmpty()) {
            out.add(Reason.of(
                    Topic.BOOK,
                    "The book of {0} has no interval for its {1}; evidence and inspection make it due.",
                    new Words(family.name()),
                    Words.midSentence(item.item().name())));
        }
        return out;
    }

    /** Rubber ages whether the book says by when or not. */
    private static Optional<Reason> ageWithoutLimit(ItemForecast item, LocalDate today) {
        return item.item().kind() == ItemKind.TIMING_BELT
                        && item.limit().filter(l -> l.months().isEmpty()).isPresent()
                ? item.start()
                        .map(s -> Reason.of(
                                Topic.AGE,
                                "The book has no age limit for the {0}; it is {1} old, and rubber ages: look at it by its age too.",
                                Words.midSentence(item.item().name()),
                                new Months(ChronoUnit.MONTHS.between(s.date(), today))))
                : Optional.empty();
    }

    private static Optional<Reason> weakness(VehicleFacts vehicle, EngineFamily family) {
        return family.items().stream()
                .filter(i -> i.weakness().isPresent()
                        && !vehicle.special().betterParts().contains(i.code()))
                .findFirst()
                .map(i -> Reason.of(
                        Topic.WEAKNESS,
                        "Known weakness of the {0}: {1}; due until it has been renewed with the better part.",
                        Words.midSentence(i.name()),
                        new Words(i.weakness().orElse(""))));
    }

    private static Optional<Reason> state(VehicleFacts vehicle) {
        UseState state = vehicle.special().state();
        return state.since()
                .map(since -> Reason.of(
                        Topic.STATE,
                        state.kind() == UseState.Kind.LAID_UP
                                ? "Laid up since {0}: age runs on, distance does not."
                                : "{1} on {0}.",
                        new Day(since),
                        Words.atStart(state.kind().words())));
    }

    private static Optional<Reason> decides(ItemForecast item) {
        if (item.binding() == Binding.AGE) {
            return item.age()
                    .map(a -> Reason.of(
                            Topic.DECIDES,
                            "Age decides for the {0}: its limit is {1}.",
                            Words.midSentence(item.item().name()),
                            new Day(a.date())));
        }
        if (item.binding() == Binding.DISTANCE) {
            return item.distance().flatMap(d -> d.median().map(median -> spread(item, d, median)));
        }
        return Optional.empty();
    }

    private static Reason spread(ItemForecast item, DistanceClock d, LocalDate median) {
        if (d.leftKm() <= 0) {
            return Reason.of(
                    Topic.DECIDES,
                    "Distance decides for the {0}: its limit was passed about {1}.",
                    Words.midSentence(item.item().name()),
                    new Day(median));
        }
        if (d.late().isEmpty()) {
            return Reason.of(
                    Topic.DECIDES,
                    "Distance decides for the {0}: even chance by {1}; no date is nearly certain within 60 years.",
                    Words.midSentence(item.item().name()),
                    new Day(median));
        }
        return Reason.of(
                Topic.DECIDES,
                "Distance decides for the {0}: even chance by {1}, one in ten by {2}, nine in ten by {3}.",
                Words.midSentence(item.item().name()),
                new Day(median),
                new Day(d.early().orElse(median)),
                new Day(d.late().orElse(median)));
    }

    private static Reason distance(ItemForecast item, DistanceClock d) {
        return d.leftKm() >= 0
                ? Reason.of(
                        Topic.DISTANCE,
                        "{0} of {1} used, {2} left.",
                        new Km(d.usedKm()),
                        new Km(d.limitKm()),
                        new Km(d.leftKm()))
                : Reason.of(
                        Topic.DISTANCE,
                        "{0} of {1} used, {2} over.",
                        new Km(d.usedKm()),
                        new Km(d.limitKm()),
                        new Km(-d.leftKm()));
    }

    private static Reason age(ItemForecast item, AgeClock a) {
        return a.leftMonths() >= 0
                ? Reason.of(
                        Topic.AGE,
                        "{0} of {1} used, {2} left, until {3}.",
                        new Months(a.usedMonths()),
                        new Months(a.limitMonths()),
                        new Months(a.leftMonths()),
                        new Day(a.date()))
                : Reason.of(
                        Topic.AGE,
                        "{0} of {1} used, over since {2}.",
                        new Months(a.usedMonths()),
                        new Months(a.limitMonths()),
                        new Day(a.date()));
    }

    private static Optional<Reason> history(VehicleFacts vehicle, ItemForecast item, LocalDate today) {
        if (item.start().isEmpty()) {
            return Optional.of(Reason.of(
                    Topic.HISTORY,
                    "No renewal of the {0} is on record, and first registration ({1}) does not settle it: ask the owner.",
                    Words.midSentence(item.item().name()),
                    new Day(vehicle.firstRegistered())));
        }
        return item.start()
                .map(s -> Reason.of(
                        Topic.HISTORY,
                        switch (s.grade()) {
                            case FIRST_REGISTRATION, ORIGINAL -> "Counted from first registration, {0}; {2}.";
                            case DATE_CODE -> "No renewal on record; {2}, {0}, at most {1} then.";
                            case INSPECTED -> "Last inspected and found good {0} at {1}.";
                            case DOCUMENTED, STATED -> "Last renewed {0} at {1}, {2}.";
                        },
                        new Day(s.date()),
                        new Km(s.km()),
                        new Words(s.grade().words())));
    }

    private static Reason schedule(VehicleFacts vehicle, Drive drive, ItemForecast item) {
        String origin = item.item().schedule().map(Schedule::origin).orElse("");
        if (item.severe()) {
            String why = vehicle.conditions().stream()
                    .filter(c -> c.appliesTo(drive))
                    .sorted()
                    .map(Condition::words)
                    .collect(Collectors.joining(", "));
            return Reason.of(Topic.SCHEDULE, "Severe, because of {0}; from {1}.", new Words(why), new Words(origin));
        }
        return vehicle.conditions().isEmpty()
                ? Reason.of(Topic.SCHEDULE, "Normal; from {0}.", new Words(origin))
                : Reason.of(
                        Topic.SCHEDULE,
                        "Hard use is noted, but the book has no severe limits for this item; from {0}.",
                        new Words(origin));
    }

    private static Optional<Reason> otherSchedule(ItemForecast item, DistanceClock d) {
        if (item.severe() || item.other().isEmpty() || item.other().get().km().isEmpty()) {
            return Optional.empty();
        }
        int severeKm = item.other().get().km().getAsInt();
        double left = severeKm - d.usedKm();
        return Optional.of(
                left >= 0
                        ? Reason.of(
                                Topic.SCHEDULE,
                                "Under hard use the limit would be {0}, {1} left.",
                                new Km(severeKm),
                                new Km(left))
                        : Reason.of(
                                Topic.SCHEDULE,
                                "Under hard use the limit would be {0}: over by {1}.",
                                new Km(severeKm),
                                new Km(-left)));
    }

    private static Reason usage(UsageRate rate, Projection projection) {
        return rate.observed()
                .map(o -> Reason.of(
                        Topic.USAGE,
                        "{0} a year; its readings show {1}, the last on {3}; spans between them: {2}.",
                        new Km(rate.kmPerYear()),
                        new Km(o.kmPerYear()),
                        new Count(o.segments()),
                        new Day(projection.baseDate())))
                .orElseGet(() -> Reason.of(
                        Topic.USAGE,
                        "{0} a year, from its class alone: it has no two readings to compare.",
                        new Km(rate.kmPerYear())));
    }

    /** Odometers stated with the renewals in force that do not fit the readings, each once. */
    static List<Reason> leftOut(ReadingChain chain, Collection<ClockStart> starts) {
        return chain.rejected().stream()
                .filter(r -> starts.stream().anyMatch(s -> s.reading().equals(Optional.of(r.reading()))))
                .map(r -> Reason.of(
                        Topic.USAGE,
                        "The odometer stated with the renewal of {0}, {1}, tells nothing of its use: {2}.",
                        new Day(r.reading().date()),
                        new Km(r.reading().km()),
                        new Words(r.reason().words())))
                .distinct()
                .toList();
    }

    private static Optional<Reason> policy(EngineFamily family, Policy policy, ItemForecast item) {
        if (item.distance().isEmpty() && item.age().isEmpty()) {
            return Optional.empty();
        }
        String engine = switch (family.interference()) {
            case YES -> "an interference engine";
            case UNKNOWN -> "an engine whose interference is unconfirmed";
            case NO -> "an engine that does not interfere";
        };
        if (policy.timing() instanceof Policy.Timing.Careful) {
            return item.actBy()
                    .map(day -> Reason.of(
                            Topic.DECIDES,
                            "By the book {0}: at its limit, or at a chance of {1} of passing it on {2}.",
                            new Day(day),
                            new Share(policy.risk(family.interference())),
                            new Words(engine)));
        }
        return item.actBy()
                .map(day -> Reason.of(
                        Topic.DECIDES,
                        "Act by {0}: the workshop acts at {1} of each limit, or at a chance of {2} of passing it on {3}.",
                        new Day(day),
                        new Share(policy.share()),
                        new Share(policy.risk(family.interference())),
                        new Words(engine)));
    }
}
