package knollfield.core.due;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import knollfield.core.due.ItemForecast.AgeClock;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.due.ItemForecast.DistanceClock;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Limit;
import knollfield.core.engine.Schedule;
import knollfield.core.odometer.Projection;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.odometer.UsageRate;

/** Judges when the items of a vehicle are due (rules.md sections 1 to 3). Holds nothing; the day is an argument. */
public final class DueEngine {

    private DueEngine() {}

    /** Forecast as of {@code today}; without a family every answer is {@link Status#NO_BOOK}. */
    public static VehicleForecast forecast(
            VehicleFacts vehicle, Optional<EngineFamily> family, Policy policy, LocalDate today) {
        ReadingChain chain = ReadingChain.of(vehicle.allReadings());
        UsageRate rate = UsageRate.estimate(chain.kept(), vehicle.usage());
        Reading base = chain.last().orElseGet(vehicle::atFirstRegistration);
        Projection projection = new Projection(base.date(), base.km(), rate, vehicle.trips());
        if (family.isEmpty()) {
            return withoutBook(vehicle, chain, projection, today);
        }
        Judge judge = new Judge(vehicle, family.get(), policy, chain, projection, today);
        List<ItemForecast> items =
                family.get().items().stream().map(judge::judge).toList();
        ItemForecast drive = items.stream()
                .filter(i -> i.item().kind().isTheDrive())
                .findFirst()
                .orElseThrow();
        ItemForecast deciding = items.stream()
                .filter(i -> i == drive || callsForAction(i))
                .min(Comparator.comparing(ItemForecast::status)
                        .thenComparing(i -> i.actBy().orElse(LocalDate.MAX))
                        .thenComparing(i -> i == drive ? 0 : 1))
                .orElse(drive);
        Optional<LocalDate> actBy = items.stream()
                .filter(i -> i == drive || callsForAction(i))
                .flatMap(i -> i.actBy().stream())
                .min(Comparator.naturalOrder());
        return new VehicleForecast(
                today,
                deciding.status(),
                actBy,
                Optional.of(deciding),
                items,
                chain,
                projection,
                ReasonWriter.reasons(vehicle, family.get(), policy, deciding, projection, today));
    }

    /** A pump whose history nobody knows does not hide a belt that is documented: only the drive's own gap counts. */
    private static boolean callsForAction(ItemForecast item) {
        return item.status() != Status.UNKNOWN_HISTORY && item.status() != Status.NO_BOOK;
    }

    private static VehicleForecast withoutBook(
            VehicleFacts vehicle, ReadingChain chain, Projection projection, LocalDate today) {
        Status status = Status.NO_BOOK;
        Optional<LocalDate> actBy = Optional.empty();
        List<Reason> reasons = new ArrayList<>();
        for (Evidence e : vehicle.evidence()) {
            Optional<Status> worse = effectOf(e, Optional.empty());
            if (worse.isPresent()) {
                status = status.worse(worse.get());
                actBy = Optional.of(e.found());
                reasons.add(ReasonWriter.evidence(e));
            }
        }
        reasons.add(Reason.of(
                Reason.Topic.BOOK, "No engine family is on file for this vehicle, so no limit can be counted."));
        return new VehicleForecast(today, status, actBy, Optional.empty(), List.of(), chain, projection, reasons);
    }

    private static Optional<Status> effectOf(Evidence evidence, Optional<Drive> drive) {
        return switch (evidence.kind().effect()) {
            case STOP -> Optional.of(Status.STOP);
            case ACT_NOW -> Optional.of(Status.ACT_NOW);
            case ACT_NOW_ON_CHAIN -> drive.filter(d -> d == Drive.CHAIN).map(d -> Status.ACT_NOW);
            case WITHIN_30_DAYS, NONE -> Optional.empty();
        };
    }

    /** Judges one item after the other against the same vehicle. */
    private record Judge(
            VehicleFacts vehicle,
            EngineFamily family,
            Policy policy,
            ReadingChain chain,
            Projection projection,
            LocalDate today) {

        /** Chain rattle: act within this many days or km (rules.md section 3). */
        private static final int RATTLE_DAYS = 30;

        private static final int RATTLE_KM = 1_000;

        ItemForecast judge(Item item) {
            boolean inspection = item.kind() == ItemKind.TIMING_CHAIN || item.kind() == ItemKind.GUIDE;
            if (item.schedule().isEmpty()) {
                return withEvidence(new ItemForecast(
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
            boolean severe =
                    !vehicle.conditions().isEmpty() && schedule.severe().isPresent();
            Limit limit = policy.inForce(severe ? schedule.severe().orElseThrow() : schedule.normal());
            Optional<Limit> other = severe ? Optional.of(schedule.normal()) : schedule.severe();
            Optional<ClockStart> known = Optional.ofNullable(vehicle.starts().get(item.code()));
            Optional<ClockStart> start = known.or(() -> countedFromRegistration(limit));
            ItemForecast forecast = start.isPresent()
                    ? counted(item, start.get(), limit, other, severe, inspection)
                    : unknown(item, limit, other, severe, inspection);
            return withEvidence(forecast);
        }

        /** Inside both limits since first registration, the history does not matter; else the policy may say so. */
        private Optional<ClockStart> countedFromRegistration(Limit limit) {
            ClockStart registration = new ClockStart(vehicle.firstRegistered(), 0, ClockStart.Grade.FIRST_REGISTRATION);
            boolean insideKm = limit.km().isEmpty()
                    || projection.medianKm(today) < limit.km().getAsInt();
            boolean insideAge = limit.months().isEmpty()
                    || today.isBefore(
                            vehicle.firstRegistered().plusMonths(limit.months().getAsInt()));
            boolean byPolicy = policy.unknownRule() == Policy.UnknownRule.FROM_FIRST_REGISTRATION;
            return (insideKm && insideAge) || byPolicy ? Optional.of(registration) : Optional.empty();
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
            Optional<AgeClock> age = limit.months().isPresent()
                    ? Optional.of(ageClock(start, limit.months().getAsInt()))
                    : Optional.empty();
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
            double used = Math.max(0, kmToday() - start.km());
            double at = (double) start.km() + limitKm;
            return new DistanceClock(
                    limitKm, used, limitKm - used, reached(at, 0.1), reached(at, 0.5), reached(at, 0.9));
        }

        private double kmToday() {
            return projection.medianKm(today);
        }

        private AgeClock ageClock(ClockStart start, int months) {
            LocalDate date = start.date().plusMonths(months);
            return new AgeClock(
                    months,
                    ChronoUnit.MONTHS.between(start.date(), today),
                    ChronoUnit.MONTHS.between(today, date),
                    date);
        }

        /** The earliest of risk, share and age (rules.md section 2, "Act-by"). */
        private Optional<LocalDate> actBy(ClockStart start, Limit limit) {
            List<LocalDate> days = new ArrayList<>();
            double share = policy.share();
            double risk = policy.risk(family.interference());
            if (limit.km().isPresent()) {
                int km = limit.km().getAsInt();
                reached((double) start.km() + km, risk).ifPresent(days::add);
                reached(start.km() + share * km, 0.5).ifPresent(days::add);
                for (KnownTrip trip : vehicle.trips()) {
                    boolean ahead = trip.from().isAfter(today);
                    if (ahead && projection.chanceReached((double) start.km() + km, trip.to()) > risk) {
                        days.add(trip.from().minusDays(1));
                    }
                }
            }
            if (limit.months().isPresent()) {
                long span = ChronoUnit.DAYS.between(
                        start.date(), start.date().plusMonths(limit.months().getAsInt()));
                days.add(start.date().plusDays(Math.round(share * span)));
            }
            return days.stream().min(Comparator.naturalOrder());
        }

        private Optional<LocalDate> reached(double km, double chance) {
            return km <= projection.baseKm() ? chain.dateReached(km) : projection.firstDayReached(km, chance);
        }

        /** Evidence speaks about the drive as a whole, so it moves the belt or chain item. */
        private ItemForecast withEvidence(ItemForecast f) {
            if (!f.item().kind().isTheDrive()) {
                return f;
            }
            ItemForecast result = f;
            for (Evidence e : vehicle.evidence()) {
                Optional<Status> effect = effectOf(e, Optional.of(family.drive()));
                if (effect.isPresent()) {
                    result = moved(result, effect.get(), e.found());
                } else if (e.kind().effect() == EvidenceKind.Effect.WITHIN_30_DAYS) {
                    LocalDate byAge = e.found().plusDays(RATTLE_DAYS);
                    LocalDate byKm = projection
                            .firstDayReached(projection.medianKm(e.found()) + RATTLE_KM, 0.5)
                            .orElse(byAge);
                    LocalDate day = byKm.isBefore(byAge) ? byKm : byAge;
                    result = moved(result, statusByActBy(day), day);
                }
            }
            return result;
        }

        private static ItemForecast moved(ItemForecast f, Status effect, LocalDate day) {
            LocalDate actBy = f.actBy().filter(known -> known.isBefore(day)).orElse(day);
            return new ItemForecast(
                    f.item(),
                    f.start(),
                    f.limit(),
                    f.other(),
                    f.severe(),
                    f.inspection(),
                    f.distance(),
                    f.age(),
                    f.binding(),
                    Optional.of(actBy),
                    f.status().worse(effect));
        }
    }
}
