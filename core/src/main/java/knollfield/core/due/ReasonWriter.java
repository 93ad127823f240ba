package knollfield.core.due;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import knollfield.core.due.ItemForecast.AgeClock;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.due.ItemForecast.DistanceClock;
import knollfield.core.due.Reason.Topic;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Limit;
import knollfield.core.engine.Schedule;
import knollfield.core.explain.Fact.Count;
import knollfield.core.explain.Fact.Day;
import knollfield.core.explain.Fact.Km;
import knollfield.core.explain.Fact.Months;
import knollfield.core.explain.Fact.Share;
import knollfield.core.explain.Fact.Words;
import knollfield.core.odometer.Projection;
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
            LocalDate today) {
        List<Reason> out = new ArrayList<>();
        vehicle.evidence().stream()
                .filter(e -> e.kind().effect() != EvidenceKind.Effect.NONE)
                .forEach(e -> out.add(evidence(e)));
        decides(item).ifPresent(out::add);
        item.distance().ifPresent(d -> out.add(distance(item, d)));
        item.age().ifPresent(a -> out.add(age(item, a)));
        history(vehicle, item, today).ifPresent(out::add);
        item.limit().ifPresent(l -> out.add(schedule(vehicle, item, l)));
        item.distance().flatMap(d -> otherSchedule(item, d)).ifPresent(out::add);
        if (item.distance().isPresent()) {
            out.add(usage(projection.rate(), projection));
        }
        vehicle.trips().stream()
                .filter(t -> t.from().isAfter(today))
                .forEach(t -> out.add(Reason.of(
                        Topic.TRIP,
                        "{0} extra from {1} to {2}.",
                        new Km(t.extraKm()),
                        new Day(t.from()),
                        new Day(t.to()))));
        policy(family, policy, item).ifPresent(out::add);
        if (item.limit().isEmpty()) {
            out.add(Reason.of(
                    Topic.BOOK,
                    "The book of {0} has no interval for its {1}; evidence and inspection make it due.",
                    new Words(family.name()),
                    Words.midSentence(item.item().name())));
        }
        return out;
    }

    static Reason evidence(Evidence e) {
        String effect = switch (e.kind().effect()) {
            case STOP -> "do not run the engine";
            case ACT_NOW, ACT_NOW_ON_CHAIN -> "act now";
            case WITHIN_30_DAYS -> "act within 30 days or 1,000 km";
            case NONE -> "no effect on the date";
        };
        return Reason.of(
                Topic.EVIDENCE,
                "{0}, found {1}: {2}.",
                Words.atStart(e.kind().words()),
                new Day(e.found()),
                new Words(effect));
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
                        s.grade() == ClockStart.Grade.FIRST_REGISTRATION || s.grade() == ClockStart.Grade.ORIGINAL
                                ? "Counted from first registration, {0}; {2}."
                                : "Last renewed {0} at {1}, {2}.",
                        new Day(s.date()),
                        new Km(s.km()),
                        new Words(s.grade().words())));
    }

    private static Reason schedule(VehicleFacts vehicle, ItemForecast item, Limit limit) {
        String origin = item.item().schedule().map(Schedule::origin).orElse("");
        if (item.severe()) {
            String why =
                    vehicle.conditions().stream().sorted().map(Condition::words).collect(Collectors.joining(", "));
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
                        "{0} a year; its readings show {1} over {2} spans, the last on {3}.",
                        new Km(rate.kmPerYear()),
                        new Km(o.kmPerYear()),
                        new Count(o.segments()),
                        new Day(projection.baseDate())))
                .orElseGet(() -> Reason.of(
                        Topic.USAGE,
                        "{0} a year, from its class alone: it has no two readings to compare.",
                        new Km(rate.kmPerYear())));
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
