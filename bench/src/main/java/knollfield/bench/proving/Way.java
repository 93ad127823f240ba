package knollfield.bench.proving;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.bench.proving.Island.Sort;
import knollfield.bench.proving.Island.Vehicle;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.Condition;
import knollfield.core.due.DueEngine;
import knollfield.core.due.Policy;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.odometer.UsageRate;
import knollfield.core.risk.DriveHazard;
import knollfield.core.risk.MarginalRule;
import knollfield.core.risk.WearModel;
import knollfield.core.risk.WearModels;

/** A way of deciding when a vehicle's drive is renewed. */
interface Way {

    /** What it knows when it decides. */
    record Seen(List<Reading> readings, Optional<ClockStart> start, LocalDate month, boolean visit) {}

    /** Decides about one vehicle, month after month. */
    interface Judge {
        /**
         * @param news something has been read or renewed since it was last asked
         */
        boolean renews(Seen seen, boolean news);
    }

    Judge of(Vehicle vehicle);

    /** Nothing is planned; what is noticed is done. */
    static Way nothing() {
        return v -> (seen, news) -> false;
    }

    // --- lists

    /** How far a list looks. */
    enum Look {
        /** At the last number written. */
        LAST,
        /** At the last number that fits the others. */
        FILTERED,
        /** At where the vehicle's own use has brought it since. */
        PROJECTED
    }

    /** A list with two columns: distance and age since the renewal against {@code share} of the limits. */
    static Way list(Look look, double share) {
        return v -> (seen, news) -> {
            if (v.kind().sort() == Sort.CHAIN) {
                return false;
            }
            Limit limit = v.inForce();
            LocalDate from = seen.start().map(ClockStart::date).orElse(v.registered());
            int startKm = seen.start().map(ClockStart::km).orElse(0);
            long days = Math.round(
                    share * (from.plusMonths(limit.months().orElseThrow()).toEpochDay() - from.toEpochDay()));
            return km(look, v, seen) - startKm >= share * limit.km().orElseThrow()
                    || !from.plusDays(days).isAfter(seen.month());
        };
    }

    /** The list at the whole of the limits, and at a visit for other work from {@code share} of them on. */
    static Way listAtVisits(Look look, double share) {
        return v -> {
            Judge due = list(look, 1).of(v);
            Judge soon = list(look, share).of(v);
            return (seen, news) -> due.renews(seen, news) || (seen.visit() && soon.renews(seen, news));
        };
    }

    private static double km(Look look, Vehicle v, Seen seen) {
        List<Reading> readings = seen.readings();
        if (readings.isEmpty()) {
            return 0;
        }
        if (look == Look.LAST) {
            return readings.get(readings.size() - 1).km();
        }
        ReadingChain chain = ReadingChain.of(readings);
        Reading last = chain.last().orElseThrow();
        if (look == Look.FILTERED) {
            return last.km();
        }
        double rate = UsageRate.estimate(chain.kept(), v.usage()).kmPerYear();
        return last.km() + rate * (seen.month().toEpochDay() - last.date().toEpochDay()) / 365.25;
    }

    // --- the product

    /** By the product's day under a policy that needs no costs. */
    static Way product(Policy policy) {
        return v -> new Product(v, policy, Optional.empty(), 2);
    }

    /** The same, and at a visit for other work from {@code share} of a limit on. */
    static Way withVisits(Policy policy, double share) {
        return v -> new Product(v, policy, Optional.empty(), share);
    }

    /**
     * On the cheapest day.
     *
     * @param stranding what one is worth beyond its bills
     * @param visits whether what is worth doing on a visit is done on it
     */
    static Way careful(long stranding, boolean visits) {
        Policy policy = Policy.defaults().with(new Policy.Timing.Careful());
        return v -> new Product(v, policy, Optional.of(stranding), visits ? 1 : 2);
    }

    /** The product's own judgement, asked anew whenever there is news; without news nothing of it moves. */
    final class Product implements Judge {

        private static final WearModels WEAR = WearModels.all(WearModel.defaults());
        private static final Set<String> RENEWED = Set.of("item0");

        private final Vehicle vehicle;
        private final Policy policy;
        private final Optional<Long> stranding;
        private final double visitShare;
        private Optional<LocalDate> actBy = Optional.empty();
        private Optional<VehicleForecast> forecast = Optional.empty();

        Product(Vehicle vehicle, Policy policy, Optional<Long> stranding, double visitShare) {
            this.vehicle = vehicle;
            this.policy = policy;
            this.stranding = stranding;
            this.visitShare = visitShare;
        }

        @Override
        public boolean renews(Seen seen, boolean news) {
            if (vehicle.kind().sort() == Sort.CHAIN) {
                return false;
            }
            if (news || forecast.isEmpty()) {
                VehicleFacts facts = facts(seen);
                VehicleForecast f = DueEngine.forecast(
                        facts,
                        Optional.of(vehicle.kind().family()),
                        policy,
                        OdometerAssumptions.defaults(),
                        seen.month());
                forecast = Optional.of(f);
                actBy = f.actBy();
                if (stranding.isPresent() && ahead(seen)) {
                    actBy = Optional.of(rule(seen, actBy.get()).actBy());
                }
            }
            return actBy.filter(d -> d.isBefore(seen.month().plusMonths(1))).isPresent()
                    || (seen.visit() && visitShare <= 1 && ahead(seen) && worthDoing(seen));
        }

        private boolean ahead(Seen seen) {
            return actBy.filter(d -> d.isAfter(seen.month())).isPresent()
                    && seen.start().isPresent();
        }

        private boolean worthDoing(Seen seen) {
            if (stranding.isPresent()) {
                LocalDate book = forecast.orElseThrow().actBy().orElseThrow();
                return rule(seen, book).isWorthDoingWhileHere(seen.month(), Costs.VISIT);
            }
            Limit limit = vehicle.inForce();
            ClockStart start = seen.start().orElseThrow();
            double distance = forecast.orElseThrow().usedKm(start, seen.month())
                    / limit.km().orElseThrow();
            double age = (seen.month().toEpochDay() - start.date().toEpochDay())
                    / 365.25
                    * 12
                    / limit.months().orElseThrow();
            return Math.max(distance, age) >= visitShare;
        }

        private MarginalRule rule(Seen seen, LocalDate book) {
            VehicleForecast f = forecast.orElseThrow().today().equals(seen.month())
                    ? forecast.orElseThrow()
                    : DueEngine.forecast(
                            facts(seen),
                            Optional.of(vehicle.kind().family()),
                            policy,
                            OdometerAssumptions.defaults(),
                            seen.month());
            DriveHazard hazard =
                    DriveHazard.of(f, vehicle.registered(), List.of(), WEAR).orElseThrow();
            return MarginalRule.of(
                    hazard,
                    RENEWED,
                    new MarginalRule.Costs(
                            Costs.PLANNED, Costs.failure(vehicle.kind().interference()), stranding.orElseThrow()),
                    seen.month(),
                    book);
        }

        private VehicleFacts facts(Seen seen) {
            return new VehicleFacts(
                    vehicle.registered(),
                    false,
                    seen.readings(),
                    seen.start().map(s -> Map.of("item0", s)).orElse(Map.of()),
                    vehicle.dustOnFile() ? Set.of(Condition.DUST) : Set.of(),
                    List.of(),
                    vehicle.usage(),
                    List.of());
        }
    }
}
