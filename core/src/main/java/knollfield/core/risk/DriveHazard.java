package knollfield.core.risk;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.clock.LimitClock;
import knollfield.core.due.DelayTime;
import knollfield.core.due.Evidence;
import knollfield.core.due.FindingEffect;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.units.Years;

/**
 * Hazard of one vehicle's timing drive, the sum over the items whose failure takes it with them (rules.md section 4).
 *
 * <p>An item whose history nobody knows may be the original or may have been renewed: what a running engine tells decides
 * between the two (Bayes' rule), jointly for all of them. What was found adds a delay time to the wear.
 */
public final class DriveHazard {

    /** Hazard factors of several findings multiply, at most to this. */
    private static final int MAX_FACTOR = 10;

    /** What shares in the failures of drives. */
    private enum Sort {
        DRIVE,
        TENSIONER,
        IDLER,
        PUMP;

        static Sort of(ItemKind kind) {
            return switch (kind) {
                case TIMING_BELT, TIMING_CHAIN -> DRIVE;
                case TENSIONER -> TENSIONER;
                case IDLER, GUIDE -> IDLER;
                case WATER_PUMP -> PUMP;
                default -> throw new IllegalArgumentException(kind + " does not take the drive with it");
            };
        }

        double share(RiskAssumptions assumed) {
            return switch (this) {
                case DRIVE -> assumed.driveShare();
                case TENSIONER -> assumed.tensionerShare();
                case IDLER -> assumed.idlerShare();
                case PUMP -> assumed.pumpShare();
            };
        }
    }

    /**
     * One item.
     *
     * @param clock from where it began, or from first registration where nobody knows, against its own limit or that of the
     *     belt; empty where the drive itself has none
     * @param known somebody knows where it began
     * @param share of the drive's failures, 0 to 1
     * @param factor by which findings multiply the growth of its hazard, 1 to 10
     * @param delayYears the shortest mean delay of what was found on it; empty without one
     * @param soFar cumulative hazard today, as the original part where nobody knows; zero without a limit
     */
    private record Life(
            Item item,
            Optional<LimitClock> clock,
            boolean known,
            WearModel wear,
            double share,
            int factor,
            OptionalDouble delayYears,
            double soFar) {

        boolean isUnknown() {
            return !known && clock.isPresent();
        }
    }

    /**
     * Items of unknown history together.
     *
     * @param original chance that they are the original ones
     * @param renewedYears twice the earlier limit at this vehicle's use, years: the time over which a renewal is spread
     */
    private record Unknown(double original, double renewedYears) {}

    private final VehicleForecast forecast;
    private final List<Life> lives;
    private final Optional<Unknown> unknown;
    private final double kmPerYear;

    private DriveHazard(VehicleForecast forecast, List<Life> lives, double stillOriginal) {
        this.forecast = forecast;
        this.lives = List.copyOf(lives);
        this.kmPerYear = forecast.projection().rate().kmPerYear() + forecast.idleKmPerYear();
        this.unknown = lives.stream().anyMatch(Life::isUnknown) ? Optional.of(weigh(stillOriginal)) : Optional.empty();
    }

    /**
     * Of a vehicle's forecast. Empty where the drive has no limit to wear by and nothing was found that tells of a delay:
     * then it is not known.
     */
    public static Optional<DriveHazard> of(
            VehicleForecast forecast, LocalDate firstRegistered, Collection<Evidence> evidence, WearModels wear) {
        List<ItemForecast> taking = new ArrayList<>(forecast.items().size());
        Optional<Limit> drive = Optional.empty();
        for (ItemForecast i : forecast.items()) {
            if (i.item().takesTheDrive()) {
                taking.add(i);
                if (i.item().kind().isTheDrive() && !i.inspection() && drive.isEmpty()) {
                    drive = i.limit();
                }
            }
        }
        List<Evidence> open = List.copyOf(evidence);
        Shares shares = new Shares(wear.also());
        taking.forEach(i -> shares.add(i.item()));
        List<Life> lives = new ArrayList<>(taking.size());
        boolean delayed = false;
        ClockStart registration = ClockStart.atFirstRegistration(firstRegistered);
        for (ItemForecast i : taking) {
            OptionalDouble delay = delay(i.item(), taking, open, wear.also());
            delayed |= delay.isPresent();
            Optional<ClockStart> start = start(i, drive, forecast, firstRegistered);
            // a pump's limits say nothing of a chain that has none
            Optional<LimitClock> clock = (drive.isEmpty()
                                    || i.inspection()
                                    || i.limit().isEmpty()
                            ? drive
                            : i.limit())
                    .map(l -> new LimitClock(start.orElse(registration), l));
            WearModel model = wear.of(i.item().kind());
            lives.add(new Life(
                    i.item(),
                    clock,
                    start.isPresent(),
                    model,
                    shares.of(i.item()),
                    factor(i.item(), taking, open),
                    delay,
                    clock.map(c -> Exposure.cumulativeHazard(model, c, forecast, forecast.today()))
                            .orElse(0.0)));
        }
        return drive.isEmpty() && !delayed
                ? Optional.empty()
                : Optional.of(new DriveHazard(forecast, lives, wear.also().stillOriginal()));
    }

    /**
     * Share of a drive's failures that are those of {@code item}, among all {@code items} of its engine; 0 to 1, zero where
     * it does not take the drive with it.
     */
    public static double share(Item item, Collection<Item> items, RiskAssumptions assumed) {
        if (!item.takesTheDrive()) {
            return 0;
        }
        Shares shares = new Shares(assumed);
        items.stream().filter(Item::takesTheDrive).forEach(shares::add);
        return shares.of(item);
    }

    /** How the failures of a drive are split; what a family has not got goes to the others in proportion. */
    private static final class Shares {
        private final RiskAssumptions assumed;
        private final Map<Sort, Integer> several = new EnumMap<>(Sort.class);
        private double all;

        Shares(RiskAssumptions assumed) {
            this.assumed = assumed;
        }

        void add(Item item) {
            Sort sort = Sort.of(item.kind());
            all += several.containsKey(sort) ? 0 : sort.share(assumed);
            several.merge(sort, 1, Integer::sum);
        }

        double of(Item item) {
            Sort sort = Sort.of(item.kind());
            return sort.share(assumed) / several.getOrDefault(sort, 1) / all;
        }
    }

    /** A part without limits of its own counts from first registration where that lies inside those of the belt. */
    private static Optional<ClockStart> start(
            ItemForecast item, Optional<Limit> drive, VehicleForecast forecast, LocalDate firstRegistered) {
        if (item.start().isPresent() || (item.limit().isPresent() && !item.inspection()) || drive.isEmpty()) {
            return item.start();
        }
        ClockStart registration = ClockStart.atFirstRegistration(firstRegistered);
        boolean inside = new LimitClock(registration, drive.get())
                .isInside(forecast.usedKm(registration, forecast.today()), forecast.today());
        return inside ? Optional.of(registration) : Optional.empty();
    }

    /** Chance that the items nobody knows of are the original ones, 0 to 1; empty where all are known. */
    public OptionalDouble stillOriginal() {
        return unknown.isPresent() ? OptionalDouble.of(unknown.get().original()) : OptionalDouble.empty();
    }

    /** Chance that the drive fails between the forecast's today and {@code until}, 0 to 1. */
    public double chance(LocalDate until) {
        return chance(lives, until);
    }

    private double chance(List<Life> of, LocalDate until) {
        double delayed = 0;
        for (Life life : of) {
            if (life.delayYears().isPresent()) {
                delayed += yearsInUse(until) / life.delayYears().getAsDouble();
            }
        }
        return 1 - outlasts(of, until) * Math.exp(-delayed);
    }

    /** Wear of some of its items, findings' factors and trips included, delays not. */
    interface Wear {
        /** Cumulative hazard from today to {@code day}. */
        double until(LocalDate day);
    }

    /** Wear of those of its items that {@code renewed} names. */
    Wear wear(Set<String> renewed) {
        List<Life> of = new ArrayList<>(lives.size());
        for (Life life : lives) {
            if (renewed.contains(life.item().code())) {
                of.add(life);
            }
        }
        return day -> -Math.log(outlasts(of, day));
    }

    /**
     * Cumulative hazard of wear from today to {@code day} over those of its items that {@code renewed} names, findings'
     * factors and trips included, delays not.
     */
    public double wear(Set<String> renewed, LocalDate day) {
        return wear(renewed).until(day);
    }

    /** True where a day later never wears less than the day before: nothing unknown, and no journey to come. */
    boolean onlyGrows() {
        return unknown.isEmpty() && forecast.projection().trips().isEmpty();
    }

    /** The same where whatever was found would hold on average no longer than {@code delayYears}, above zero. */
    double chanceAtLeast(LocalDate until, double delayYears) {
        return 1 - outlasts(lives, until) * Math.exp(-yearsInUse(until) / delayYears);
    }

    /** Those of its items that {@code renewed} names, as if renewed today, at this vehicle's use; no evidence, no trips. */
    public FreshSet fresh(Set<String> renewed) {
        FreshSet set = FreshSet.at(kmPerYear);
        for (Life life : lives) {
            if (renewed.contains(life.item().code()) && life.clock().isPresent()) {
                set = set.with(life.wear(), life.share(), life.clock().get().limit());
            }
        }
        return set;
    }

    /** Chance of each item by itself, the likeliest first. */
    List<Exposure.Part> parts(LocalDate until) {
        List<Exposure.Part> parts = new ArrayList<>(lives.size());
        for (Life life : lives) {
            parts.add(new Exposure.Part(life.item(), chance(List.of(life), until), life.factor()));
        }
        parts.sort(Comparator.comparingDouble((Exposure.Part p) -> -p.chance()));
        return parts;
    }

    /** Chance that wear alone lets none of them fail until {@code until}, 0 to 1. */
    private double outlasts(List<Life> of, LocalDate until) {
        double grown = 0;
        double asOriginal = 0;
        double asRenewed = 0;
        double years = Math.max(0, Years.between(forecast.today(), until));
        for (Life life : of) {
            if (life.clock().isEmpty()) {
                continue;
            }
            LimitClock clock = life.clock().get();
            double weight = life.factor() * life.share();
            if (life.known()) {
                grown += weight * growth(life, clock, until);
            } else {
                double span = unknown.orElseThrow().renewedYears();
                double renewed = FreshSet.at(kmPerYear)
                        .with(life.wear(), weight, clock.limit())
                        .cumulative(span);
                asOriginal += weight * growth(life, clock, until);
                asRenewed += years * renewed / span;
            }
        }
        double original = unknown.map(Unknown::original).orElse(0.0);
        return Math.exp(-grown) * (original * Math.exp(-asOriginal) + (1 - original) * Math.exp(-asRenewed));
    }

    private double growth(Life life, LimitClock clock, LocalDate until) {
        return Math.max(0, Exposure.cumulativeHazard(life.wear(), clock, forecast, until) - life.soFar());
    }

    /** Years of use, not of standing, from today to {@code until}. */
    private double yearsInUse(LocalDate until) {
        return Math.max(
                0,
                Years.between(
                        forecast.projection().running(forecast.today()),
                        forecast.projection().running(until)));
    }

    private Unknown weigh(double stillOriginal) {
        double lived = 0;
        double used = 0;
        double interval = Double.POSITIVE_INFINITY;
        LocalDate today = forecast.today();
        for (Life life : lives) {
            if (!life.isUnknown()) {
                continue;
            }
            LimitClock clock = life.clock().orElseThrow();
            Limit limit = clock.limit();
            lived += life.share() * life.soFar();
            used = Math.max(used, clock.used(forecast.usedKm(clock.start(), today), today));
            double perYear = Math.max(
                    limit.distanceUsed(kmPerYear).orElse(0), limit.agePerYear().orElse(0));
            interval = Math.min(interval, 1 / perYear);
        }
        double prior = Math.pow(stillOriginal, Math.max(0, used - 1));
        double alive = prior * Math.exp(-lived);
        double together = alive + 1 - prior;
        // a vehicle that does not move and has no age limit would be renewed never
        double span = Double.isInfinite(interval) ? 2 * 60 : 2 * interval;
        return new Unknown(together > 0 ? alive / together : 0, span);
    }

    /** By which findings multiply the growth of an item's hazard, 1 to 10. */
    static int factor(Item item, List<ItemForecast> taking, List<Evidence> open) {
        int factor = 1;
        for (Evidence e : open) {
            if (e.kind().hazardFactor() > 1 && !FindingEffect.isSetAside(e, open) && wears(e, item, taking)) {
                factor *= e.kind().hazardFactor();
            }
        }
        return Math.min(MAX_FACTOR, factor);
    }

    /**
     * Mean years until a finding of this item lets go, the shortest where there are several. What was found is one defect: where
     * it may sit in any of several items, each takes its part of the chance, so that together they fail as one.
     */
    private static OptionalDouble delay(
            Item item, List<ItemForecast> taking, List<Evidence> open, RiskAssumptions assumed) {
        OptionalDouble shortest = OptionalDouble.empty();
        for (Evidence e : open) {
            Optional<DelayTime> delay = e.kind().delay();
            if (delay.isPresent() && !FindingEffect.isSetAside(e, open) && wears(e, item, taking)) {
                long mayBe =
                        taking.stream().filter(c -> wears(e, c.item(), taking)).count();
                double years = assumed.years(delay.get()) * mayBe;
                shortest = OptionalDouble.of(Math.min(years, shortest.orElse(Double.POSITIVE_INFINITY)));
            }
        }
        return shortest;
    }

    /** What was found on an item wears it; else the kinds it speaks of; else belt or chain. */
    private static boolean wears(Evidence e, Item item, List<ItemForecast> taking) {
        if (e.item().isPresent()
                && taking.stream().anyMatch(c -> c.item().code().equals(e.item().get()))) {
            return item.code().equals(e.item().get());
        }
        boolean named = !e.kind().wears().isEmpty()
                && taking.stream()
                        .anyMatch(c -> e.kind().wears().contains(c.item().kind()));
        return named ? e.kind().wears().contains(item.kind()) : item.kind().isTheDrive();
    }
}
