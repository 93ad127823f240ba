package knollfield.core.due;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.clock.LimitClock;
import knollfield.core.due.ItemForecast.AgeClock;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.due.ItemForecast.DistanceClock;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Schedule;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.odometer.Projection;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.odometer.UsageRate;
import knollfield.core.units.Years;

/** Judges when the items of a vehicle are due (rules.md sections 1 to 3). Holds nothing; the day is an argument. */
public final class DueEngine {

    private DueEngine() {}

    /** Forecast as of {@code today} under the default assumptions of odometers. */
    public static VehicleForecast forecast(
            VehicleFacts vehicle, Optional<EngineFamily> family, Policy policy, LocalDate today) {
        return forecast(vehicle, family, policy, OdometerAssumptions.defaults(), today);
    }

    /** Forecast as of {@code today}; without a family every answer is {@link Status#NO_BOOK}. */
    public static VehicleForecast forecast(
            VehicleFacts vehicle,
            Optional<EngineFamily> family,
            Policy policy,
            OdometerAssumptions assumptions,
            LocalDate today) {
        ReadingChain chain = ReadingChain.of(vehicle.allReadings(), assumptions);
        return forecast(
                vehicle, family, policy, assumptions, today, chain, UsageRate.estimate(chain.kept(), vehicle.usage()));
    }

    /** What the forecast would be if the vehicle ran {@code kmPerYear}, zero or more, from its last kept reading on. */
    public static VehicleForecast atStatedUsage(
            VehicleFacts vehicle,
            Optional<EngineFamily> family,
            Policy policy,
            OdometerAssumptions assumptions,
            LocalDate today,
            double kmPerYear) {
        ReadingChain chain = ReadingChain.of(vehicle.allReadings(), assumptions);
        return forecast(
                vehicle, family, policy, assumptions, today, chain, UsageRate.stated(kmPerYear, vehicle.usage()));
    }

    private static VehicleForecast forecast(
            VehicleFacts vehicle,
            Optional<EngineFamily> family,
            Policy workshop,
            OdometerAssumptions assumptions,
            LocalDate today,
            ReadingChain chain,
            UsageRate rate) {
        Reading base = chain.last().orElseGet(vehicle::atFirstRegistration);
        Projection projection = new Projection(
                base.date(),
                base.km(),
                rate,
                vehicle.trips(),
                vehicle.special().state().standsFrom());
        double idle = vehicle.special().idleHoursPerYear() * assumptions.idleKmPerHour();
        if (family.isEmpty()) {
            return withoutBook(vehicle, workshop, chain, projection, idle, today);
        }
        Policy policy = workshop.inForce(vehicle);
        List<FindingEffect> findings = FindingEffect.of(vehicle.evidence(), family, vehicle.starts(), policy);
        Judge judge = new Judge(
                vehicle, family.get(), policy, chain, projection, projection.plusRate(idle), idle, findings, today);
        List<ItemForecast> items = new ArrayList<>(family.get().items().size());
        Optional<ItemForecast> drive = Optional.empty();
        for (Item item : family.get().items()) {
            ItemForecast judged = judge.judge(item);
            items.add(judged);
            if (item.kind().isTheDrive()) {
                drive = Optional.of(judged);
            }
        }
        ItemForecast deciding = drive.orElseThrow();
        Optional<LocalDate> actBy = deciding.actBy();
        for (ItemForecast i : items) {
            if (i == drive.get() || !callsForAction(i) || !(i.item().takesTheDrive() || judge.isFoundOn(i.item()))) {
                continue;
            }
            if (decidesBefore(i, deciding)) {
                deciding = i;
            }
            if (i.actBy().isPresent() && i.actBy().get().isBefore(actBy.orElse(LocalDate.MAX))) {
                actBy = i.actBy();
            }
        }
        List<Reason> reasons = new ArrayList<>(
                ReasonWriter.reasons(vehicle, family.get(), policy, deciding, projection, idle, findings, today));
        reasons.addAll(ReasonWriter.leftOut(chain, vehicle.starts().values()));
        return new VehicleForecast(
                today,
                deciding.status(),
                actBy,
                Optional.of(deciding),
                items,
                chain,
                projection,
                idle,
                findings,
                reasons);
    }

    /** A pump whose history nobody knows does not hide a belt that is documented: only the drive's own gap counts. */
    private static boolean callsForAction(ItemForecast item) {
        return item.status() != Status.UNKNOWN_HISTORY && item.status() != Status.NO_BOOK;
    }

    private static boolean decidesBefore(ItemForecast a, ItemForecast b) {
        int byStatus = a.status().compareTo(b.status());
        return byStatus != 0
                ? byStatus < 0
                : a.actBy().orElse(LocalDate.MAX).isBefore(b.actBy().orElse(LocalDate.MAX));
    }

    private static VehicleForecast withoutBook(
            VehicleFacts vehicle,
            Policy policy,
            ReadingChain chain,
            Projection projection,
            double idle,
            LocalDate today) {
        Status status = Status.NO_BOOK;
        Optional<LocalDate> actBy = Optional.empty();
        List<Reason> reasons = new ArrayList<>();
        List<FindingEffect> findings = FindingEffect.of(vehicle.evidence(), Optional.empty(), vehicle.starts(), policy);
        for (FindingEffect finding : findings) {
            Optional<Status> worse = status(finding);
            if (worse.isPresent()) {
                status = status.worse(worse.get());
                actBy = Optional.of(finding.evidence().found());
            }
            reasons.add(new Reason(Reason.Topic.EVIDENCE, finding.sentence()));
        }
        reasons.add(Reason.of(
                Reason.Topic.BOOK, "No engine family is on file for this vehicle, so no limit can be counted."));
        return new VehicleForecast(
                today, status, actBy, Optional.empty(), List.of(), chain, projection, idle, findings, reasons);
    }

    private static Optional<Status> status(FindingEffect finding) {
        return switch (finding.call()) {
            case STOP -> Optional.of(Status.STOP);
            case ACT_NOW -> Optional.of(Status.ACT_NOW);
            case ACT_SOON, ADD_THE_PART, NOT_THIS_ENGINE, INSPECTED, NOTED, SET_ASIDE, SIMULATED -> Optional.empty();
        };
    }

    /**
     * Judges one item after the other against the same vehicle.
     *
     * @param wear projection of odometer and idling together
     */
    private record Judge(
            VehicleFacts vehicle,
            EngineFamily family,
            Policy policy,
            ReadingChain chain,
            Projection projection,
            Projection wear,
            double idleKmPerYear,
            List<FindingEffect> findings,
            LocalDate today) {

        ItemForecast judge(Item item) {
            boolean inspection = item.kind().isInspected();
            if (item.schedule().isEmpty()) {
                return moved(new ItemForecast(
                        item,
                        Optional.ofNullable(vehicle.starts().get(item.code())),
                        Optional.empty(),
                        Optional.empty(),
                        false,
                        inspection,
                        Optional.empty(),
                        Optional.empty(),
                        Binding.NONE,
                        Optional.empty(),
                        Status.NO_BOOK));
            }
            Schedule schedule = item.schedule().get();
            boolean severe = schedule.severe().isPresent() && hardUse();
            Limit limit = policy.inForce(severe ? schedule.severe().orElseThrow() : schedule.normal());
            Optional<Limit> other = severe ? Optional.of(schedule.normal()) : schedule.severe();
            Optional<ClockStart> start = start(item, limit, inspection);
            return moved(
                    start.isPresent()
                            ? counted(item, start.get(), limit, other, severe, inspection)
                            : unknown(item, limit, other, severe, inspection));
        }

        private boolean hardUse() {
            for (Condition c : vehicle.conditions()) {
                if (c.appliesTo(family.drive())) {
                    return true;
                }
            }
            return false;
        }

        private Optional<ClockStart> start(Item item, Limit limit, boolean inspection) {
            Optional<ClockStart> known = Optional.ofNullable(vehicle.starts().get(item.code()))
                    .filter(s -> policy.statedCounts() || s.grade() != ClockStart.Grade.STATED);
            if (inspection) {
                Optional<ClockStart> inspected = lastGoodInspection();
                if (inspected.isPresent()
                        && known.filter(k -> k.date().isAfter(inspected.get().date()))
                                .isEmpty()) {
                    return inspected;
                }
            }
            if (known.isPresent()) {
                return known;
            }
            ClockStart registration = ClockStart.atFirstRegistration(vehicle.firstRegistered());
            // inside both limits since first registration, the history does not matter
            if (new LimitClock(registration, limit).isInside(usedKm(registration), today)
                    || policy.unknownRule() == Policy.UnknownRule.FROM_FIRST_REGISTRATION) {
                return Optional.of(registration);
            }
            return policy.unknownRule() == Policy.UnknownRule.FROM_DATE_CODE && item.kind() == ItemKind.TIMING_BELT
                    ? fromDateCode()
                    : Optional.empty();
        }

        /** An inspection clock begins again when the drive was looked at and found good. */
        private Optional<ClockStart> lastGoodInspection() {
            Optional<LocalDate> last = Optional.empty();
            for (Evidence e : vehicle.evidence()) {
                if (e.kind() == EvidenceKind.INSPECTED_GOOD
                        && e.item().isEmpty()
                        && !e.found().isBefore(last.orElse(LocalDate.MIN))) {
                    last = Optional.of(e.found());
                }
            }
            return last.map(day -> new ClockStart(day, kmOn(day), ClockStart.Grade.INSPECTED));
        }

        private int kmOn(LocalDate day) {
            Reading before = null;
            for (Reading r : chain.kept()) {
                if (!r.date().isBefore(day)) {
                    if (before == null || r.date().equals(day)) {
                        return r.km();
                    }
                    double share = (double) ChronoUnit.DAYS.between(before.date(), day)
                            / ChronoUnit.DAYS.between(before.date(), r.date());
                    return (int) Math.round(before.km() + share * (r.km() - before.km()));
                }
                before = r;
            }
            return (int) Math.round(projection.medianKm(day));
        }

        /** Age from the date read on the belt; distance at most what the class runs since then. */
        private Optional<ClockStart> fromDateCode() {
            return vehicle.special().dateCode().map(code -> {
                double byClass = vehicle.usage().meanKmPerYear() * Math.max(0, Years.between(code, today));
                return new ClockStart(
                        code,
                        (int) Math.max(0, Math.round(projection.medianKm(today) - byClass)),
                        ClockStart.Grade.DATE_CODE);
            });
        }

        private double usedKm(ClockStart start) {
            double idle = idleKmPerYear == 0
                    ? 0
                    : idleKmPerYear * Math.max(0, Years.between(start.date(), projection.running(today)));
            return Math.max(0, projection.medianKm(today) - start.km() + idle);
        }

        private ItemForecast unknown(
                Item item, Limit limit, Optional<Limit> other, boolean severe, boolean inspection) {
            return new ItemForecast(
                    item,
                    Optional.empty(),
                    Optional.of(limit),
                    other,
                    severe,
                    inspection,
                    Optional.empty(),
                    Optional.empty(),
                    Binding.NONE,
                    Optional.of(today),
                    Status.UNKNOWN_HISTORY);
        }

        private ItemForecast counted(
                Item item, ClockStart start, Limit limit, Optional<Limit> other, boolean severe, boolean inspection) {
            Optional<DistanceClock> distance = limit.km().isPresent()
                    ? Optional.of(distanceClock(start, limit.km().getAsInt()))
                    : Optional.empty();
            Optional<AgeClock> age = limit.ageEnd(start.date()).map(end -> ageClock(start, limit, end));
            LocalDate distanceDate = distance.flatMap(DistanceClock::median).orElse(LocalDate.MAX);
            LocalDate ageDate = age.map(AgeClock::date).orElse(LocalDate.MAX);
            Binding binding = distanceDate.equals(LocalDate.MAX) && ageDate.equals(LocalDate.MAX)
                    ? Binding.NONE
                    : distanceDate.isBefore(ageDate) ? Binding.DISTANCE : Binding.AGE;
            Optional<LocalDate> actBy = actBy(start, limit);
            LocalDate first = distanceDate.isBefore(ageDate) ? distanceDate : ageDate;
            Status status = first.isBefore(today) || passedBeforeFirstReading(start, limit)
                    ? Status.OVERDUE
                    : actBy.map(this::statusByActBy).orElse(Status.CLEAR);
            return new ItemForecast(
                    item,
                    Optional.of(start),
                    Optional.of(limit),
                    other,
                    severe,
                    inspection,
                    distance,
                    age,
                    binding,
                    actBy,
                    status);
        }

        /** The chain can only say "by the first reading at the latest", which may be today: it was before all the same. */
        private boolean passedBeforeFirstReading(ClockStart start, Limit limit) {
            return limit.km().isPresent()
                    && !chain.kept().isEmpty()
                    && chain.kept().get(0).km() > start.km() + limit.km().getAsInt();
        }

        private Status statusByActBy(LocalDate actBy) {
            if (!actBy.isAfter(today)) {
                return Status.ACT_NOW;
            }
            return actBy.isAfter(today.plusDays(policy.horizonDays())) ? Status.CLEAR : Status.COMING;
        }

        private DistanceClock distanceClock(ClockStart start, int limitKm) {
            double used = usedKm(start);
            return new DistanceClock(
                    limitKm,
                    used,
                    limitKm - used,
                    reached(start, limitKm, 0.1),
                    reached(start, limitKm, 0.5),
                    reached(start, limitKm, 0.9));
        }

        private AgeClock ageClock(ClockStart start, Limit limit, LocalDate end) {
            return new AgeClock(
                    limit.months().orElseThrow(),
                    ChronoUnit.MONTHS.between(start.date(), today),
                    ChronoUnit.MONTHS.between(today, end),
                    end);
        }

        /** The earliest of risk, share and age (rules.md section 2, "Act-by"). */
        private Optional<LocalDate> actBy(ClockStart start, Limit limit) {
            LocalDate first = LocalDate.MAX;
            double share = policy.share();
            double risk = policy.risk(family.interference());
            if (limit.km().isPresent()) {
                int km = limit.km().getAsInt();
                first = earlier(first, reached(start, km, risk));
                first = earlier(first, reached(start, share * km, 0.5));
                for (KnownTrip trip : vehicle.trips()) {
                    boolean ahead = trip.from().isAfter(today);
                    if (ahead && wear.chanceReached(onWear(start, km), trip.to()) > risk) {
                        first = earlier(first, Optional.of(trip.from().minusDays(1)));
                    }
                }
            }
            first = earlier(first, new LimitClock(start, limit).ageDay(share));
            return first.equals(LocalDate.MAX) ? Optional.empty() : Optional.of(first);
        }

        private static LocalDate earlier(LocalDate a, Optional<LocalDate> b) {
            return b.isPresent() && b.get().isBefore(a) ? b.get() : a;
        }

        private Optional<LocalDate> reached(ClockStart start, double km, double chance) {
            double onWear = onWear(start, km);
            Optional<LocalDate> day = onWear <= wear.baseKm()
                    ? chain.dateReached(start.km() + km, idleKmPerYear, start.date())
                    : wear.firstDayReached(onWear, chance);
            return day.map(d -> d.isBefore(start.date()) ? start.date() : d);
        }

        /** What the odometer part of {@link #wear} shows at {@code km} since {@code start}: less what has been idled. */
        private double onWear(ClockStart start, double km) {
            // negative where it starts after the last reading, from which on the projection has it idle
            double idled = idleKmPerYear == 0 ? 0 : idleKmPerYear * Years.between(start.date(), wear.baseDate());
            return start.km() + km - idled;
        }

        /** What findings and a known weakness do to an item. */
        private ItemForecast moved(ItemForecast f) {
            ItemForecast result = f;
            if (f.item().weakness().isPresent()
                    && !vehicle.special().betterParts().contains(f.item().code())) {
                result = worse(result, Status.ACT_NOW, today);
            }
            for (FindingEffect finding : findings) {
                Evidence e = finding.evidence();
                if (!names(e, f.item())) {
                    continue;
                }
                Optional<Status> effect = status(finding);
                if (effect.isPresent()) {
                    result = worse(result, effect.get(), e.found());
                } else if (finding.call() == FindingEffect.Call.ACT_SOON) {
                    LocalDate byAge = e.found().plusDays(policy.found().rattleDays());
                    LocalDate byKm = projection
                            .firstDayReached(
                                    projection.medianKm(e.found())
                                            + policy.found().rattleKm(),
                                    0.5)
                            .orElse(byAge);
                    LocalDate day = byKm.isBefore(byAge) ? byKm : byAge;
                    result = worse(result, statusByActBy(day), day);
                }
            }
            return result;
        }

        /** Evidence speaks about the drive as a whole unless it was found on another item. */
        private boolean names(Evidence e, Item item) {
            return e.item().isPresent()
                            && family.item(e.item().get())
                                    .filter(i -> !i.kind().isTheDrive())
                                    .isPresent()
                    ? e.item().get().equals(item.code()) || (item.kind().isTheDrive() && stopsOrCalls(e))
                    : item.kind().isTheDrive();
        }

        /** Something was found on it that moves a date. */
        boolean isFoundOn(Item item) {
            return findings.stream().anyMatch(f -> f.call().movesTheDate() && names(f.evidence(), item));
        }

        /** What is found on a tensioner or a pump that the belt turns calls for the whole job. */
        private boolean stopsOrCalls(Evidence e) {
            Set<ItemKind> carrying = Set.of(ItemKind.TENSIONER, ItemKind.IDLER, ItemKind.GUIDE, ItemKind.WATER_PUMP);
            return family.item(e.item().orElse(""))
                    .filter(i -> carrying.contains(i.kind()))
                    .isPresent();
        }

        private static ItemForecast worse(ItemForecast f, Status effect, LocalDate day) {
            return f.actedOnBy(f.actBy().filter(known -> known.isBefore(day)).orElse(day), effect);
        }
    }
}
