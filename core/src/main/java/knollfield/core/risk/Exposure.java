package knollfield.core.risk;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import knollfield.core.due.ClockStart;
import knollfield.core.due.Evidence;
import knollfield.core.due.FindingEffect;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Limit;

/**
 * What waiting may cost (rules.md section 4).
 *
 * @param chance that an item whose failure takes the drive with it fails between today and {@code until}, 0 to 1
 * @param atStakeMinor what a failure costs beyond the planned job, minor units, zero or more
 * @param parts the items it adds up from, the likeliest first
 */
public record Exposure(LocalDate until, double chance, long atStakeMinor, List<Part> parts) {

    /** Days over which the exposure rate is counted. */
    public static final int RATE_DAYS = 7;

    /** Hazard factors of several findings multiply, at most to this. */
    private static final int MAX_HAZARD_FACTOR = 10;

    /**
     * One item's share.
     *
     * @param chance that it fails in the time, 0 to 1
     * @param hazardFactor by which findings multiply the growth of its hazard, 1 to 10
     */
    public record Part(Item item, double chance, int hazardFactor) {}

    public Exposure {
        parts = List.copyOf(parts);
    }

    /** Minor units. */
    public long minor() {
        return Math.round(chance * atStakeMinor);
    }

    /**
     * Exposure of waiting from the forecast's today to {@code until}. Empty where no item that carries the drive has
     * limits, or where the drive itself is a chain without a renewal interval: then it is not known.
     *
     * <p>An item whose renewal nobody knows is taken to be as old as the vehicle. What has been found multiplies the
     * growth of hazard of the items it was found on, from today on; of the drive where those have no limits.
     */
    public static Optional<Exposure> ofWaiting(
            VehicleForecast forecast,
            LocalDate firstRegistered,
            Collection<Evidence> evidence,
            WearModels wear,
            Consequence consequence,
            long plannedJobMinor,
            LocalDate until) {
        List<ItemForecast> carrying = new ArrayList<>(forecast.items().size());
        for (ItemForecast item : forecast.items()) {
            if (item.item().kind().carriesTheDrive() && item.limit().isPresent() && !item.inspection()) {
                carrying.add(item);
            }
        }
        // a pump's limits say nothing of a chain that has none
        if (carrying.stream().noneMatch(c -> c.item().kind().isTheDrive())) {
            return Optional.empty();
        }
        double hazard = 0;
        List<Part> parts = new ArrayList<>(carrying.size());
        for (ItemForecast item : carrying) {
            ClockStart start = item.start().orElseGet(() -> ClockStart.atFirstRegistration(firstRegistered));
            int factor = evidence.isEmpty() ? 1 : factor(item.item(), carrying, evidence);
            WearModel model = wear.of(item.item().kind());
            double then = cumulativeHazard(model, start, item.limit().get(), forecast, forecast.today());
            double later = cumulativeHazard(model, start, item.limit().get(), forecast, until);
            double grown = factor * Math.max(0, later - then);
            hazard += grown;
            parts.add(new Part(item.item(), -Math.expm1(-grown), factor));
        }
        parts.sort(Comparator.comparingDouble((Part p) -> -p.chance()));
        long atStake = Math.max(0, consequence.likely() - plannedJobMinor);
        return Optional.of(new Exposure(until, -Math.expm1(-hazard), atStake, parts));
    }

    /** Exposure of the next seven days, minor units; empty where it is not known. */
    public static OptionalLong rate(
            VehicleForecast forecast,
            LocalDate firstRegistered,
            Collection<Evidence> evidence,
            WearModels wear,
            Consequence consequence,
            long plannedJobMinor) {
        Optional<Exposure> week = ofWaiting(
                forecast,
                firstRegistered,
                evidence,
                wear,
                consequence,
                plannedJobMinor,
                forecast.today().plusDays(RATE_DAYS));
        return week.isPresent() ? OptionalLong.of(week.get().minor()) : OptionalLong.empty();
    }

    /**
     * Exposure rate for each hour of work that would end it, minor units: the order that loses least when one pair of
     * hands works through a queue (W. E. Smith, "Various optimizers for single-stage production", Naval Research
     * Logistics Quarterly 3, 1956).
     *
     * @param minutes of the planned job; below one counts as one
     */
    public static double perHour(long rateMinor, int minutes) {
        return rateMinor * 60.0 / Math.max(1, minutes);
    }

    /** By which findings multiply the growth of an item's hazard, 1 to 10. */
    public static int hazardFactor(Item item, VehicleForecast forecast, Collection<Evidence> evidence) {
        List<ItemForecast> limited = forecast.items().stream()
                .filter(i -> i.limit().isPresent() && !i.inspection())
                .toList();
        return evidence.isEmpty() ? 1 : factor(item, limited, evidence);
    }

    private static int factor(Item item, List<ItemForecast> carrying, Collection<Evidence> evidence) {
        List<Evidence> open = List.copyOf(evidence);
        int factor = 1;
        for (Evidence e : evidence) {
            if (e.kind().hazardFactor() > 1 && !FindingEffect.isSetAside(e, open) && wears(e, item, carrying)) {
                factor *= e.kind().hazardFactor();
            }
        }
        return Math.min(MAX_HAZARD_FACTOR, factor);
    }

    private static boolean wears(Evidence e, Item item, List<ItemForecast> carrying) {
        if (e.item().isPresent()
                && carrying.stream()
                        .anyMatch(c -> c.item().code().equals(e.item().get()))) {
            return item.code().equals(e.item().get());
        }
        boolean named = !e.kind().wears().isEmpty()
                && carrying.stream()
                        .anyMatch(c -> e.kind().wears().contains(c.item().kind()));
        return named ? e.kind().wears().contains(item.kind()) : item.kind().isTheDrive();
    }

    /** Cumulative hazard on {@code day} of an item whose clocks began at {@code start}, at the median odometer. */
    public static double cumulativeHazard(
            WearModel wear, ClockStart start, Limit limit, VehicleForecast forecast, LocalDate day) {
        OptionalDouble distance = limit.km().isPresent()
                ? OptionalDouble.of(forecast.usedKm(start, day) / limit.km().getAsInt())
                : OptionalDouble.empty();
        OptionalDouble age = OptionalDouble.empty();
        if (limit.months().isPresent()) {
            LocalDate end = start.date().plusMonths(limit.months().getAsInt());
            double span = ChronoUnit.DAYS.between(start.date(), end);
            age = OptionalDouble.of(Math.max(0, ChronoUnit.DAYS.between(start.date(), day)) / span);
        }
        return wear.cumulativeHazard(distance, age);
    }

    /** Kinds of item whose wear can be set in Setup: those that carry the drive. */
    public static List<ItemKind> kinds() {
        return java.util.Arrays.stream(ItemKind.values())
                .filter(ItemKind::carriesTheDrive)
                .toList();
    }
}
