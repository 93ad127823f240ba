package knollfield.core.risk;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import knollfield.core.clock.LimitClock;
import knollfield.core.due.Evidence;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.Status;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.units.Years;

/**
 * What waiting may cost (rules.md section 4).
 *
 * @param chance that an item whose failure takes the drive with it fails between today and {@code until}, 0 to 1
 * @param atStakeMinor what a failure costs beyond the planned job, minor units, zero or more
 * @param amountMinor of waiting until then, in minor units and fractions of them
 * @param stopped it must not run: it costs its days off the road, and the chance that somebody starts it
 * @param parts the items it adds up from, the likeliest first
 */
public record Exposure(
        LocalDate until, double chance, long atStakeMinor, double amountMinor, boolean stopped, List<Part> parts) {

    /** Days over which the exposure rate is counted. */
    public static final int RATE_DAYS = 7;

    /**
     * One item's share.
     *
     * @param chance that it fails in the time, 0 to 1
     * @param hazardFactor by which findings multiply the growth of its hazard, 1 to 10
     */
    public record Part(Item item, double chance, int hazardFactor) {}

    /**
     * What is at stake.
     *
     * @param plannedJobMinor what the planned job costs, minor units
     * @param dayMinor a day without the vehicle, minor units
     */
    public record Stake(Consequence consequence, long plannedJobMinor, long dayMinor) {

        /** What a failure costs beyond the planned job, minor units, zero or more. */
        public long beyondTheJobMinor() {
            return Math.max(0, consequence.likely() - plannedJobMinor);
        }
    }

    public Exposure {
        parts = List.copyOf(parts);
    }

    /** Whole minor units. */
    public long minor() {
        return Math.round(amountMinor);
    }

    /**
     * Exposure of waiting from the forecast's today to {@code until}, not before it. Empty where the hazard of the drive is
     * not known ({@link DriveHazard#of}), unless it must not run: then what it costs is known.
     */
    public static Optional<Exposure> ofWaiting(
            VehicleForecast forecast,
            LocalDate firstRegistered,
            Collection<Evidence> evidence,
            WearModels wear,
            Stake stake,
            LocalDate until) {
        Optional<DriveHazard> hazard = DriveHazard.of(forecast, firstRegistered, evidence, wear);
        return forecast.status() == Status.STOP
                ? Optional.of(stopped(forecast, hazard, wear.also(), stake, until))
                : hazard.map(h -> {
                    double chance = h.chance(until);
                    long atStake = stake.beyondTheJobMinor();
                    return new Exposure(until, chance, atStake, chance * atStake, false, h.parts(until));
                });
    }

    /**
     * What waiting costs until each of {@code days} days from {@code first} on, and until the day after them, in minor units
     * and fractions of them; never less than the day before, zero where nothing is known of it.
     *
     * @param stranding s, what the workshop would pay beyond the bills so that nobody stands by the road, minor units
     */
    public static double[] byDay(
            VehicleForecast forecast,
            LocalDate firstRegistered,
            Collection<Evidence> evidence,
            WearModels wear,
            Stake stake,
            long stranding,
            LocalDate first,
            int days) {
        Optional<DriveHazard> hazard = DriveHazard.of(forecast, firstRegistered, evidence, wear);
        Consequence c = stake.consequence();
        Stake beyondBills = new Stake(
                new Consequence(c.low() + stranding, c.likely() + stranding, c.high() + stranding),
                stake.plannedJobMinor(),
                stake.dayMinor());
        double[] until = new double[days + 1];
        double most = 0;
        for (int d = 0; d <= days; d++) {
            LocalDate day = first.plusDays(d);
            if (day.isAfter(forecast.today())) {
                double amount = forecast.status() == Status.STOP
                        ? stoppedMinor(forecast, hazard, wear.also(), beyondBills, day)
                        : hazard.map(h -> h.chance(day)).orElse(0.0) * beyondBills.beyondTheJobMinor();
                most = Math.max(most, amount);
            }
            until[d] = most;
        }
        return until;
    }

    /** Its days off the road and the chance that somebody starts it; never less than the same vehicle running. */
    private static double stoppedMinor(
            VehicleForecast forecast,
            Optional<DriveHazard> hazard,
            RiskAssumptions assumed,
            Stake stake,
            LocalDate until) {
        double days = Math.max(0, ChronoUnit.DAYS.between(forecast.today(), until));
        long atStake = stake.beyondTheJobMinor();
        double standing = days * stake.dayMinor() + started(assumed, days) * atStake;
        double shortest = assumed.shortestDelayYears();
        double running = hazard.map(h -> Math.max(h.chance(until), h.chanceAtLeast(until, shortest)))
                .orElse(-Math.expm1(-days / Years.DAYS / shortest));
        return Math.max(standing, running * atStake);
    }

    private static double started(RiskAssumptions assumed, double days) {
        return 1 - Math.pow(1 - assumed.startedPerWeek(), days / RATE_DAYS);
    }

    private static Exposure stopped(
            VehicleForecast forecast,
            Optional<DriveHazard> hazard,
            RiskAssumptions assumed,
            Stake stake,
            LocalDate until) {
        double days = Math.max(0, ChronoUnit.DAYS.between(forecast.today(), until));
        return new Exposure(
                until,
                started(assumed, days),
                stake.beyondTheJobMinor(),
                stoppedMinor(forecast, hazard, assumed, stake, until),
                true,
                hazard.map(h -> h.parts(until)).orElse(List.of()));
    }

    /** Exposure of the next seven days; empty where it is not known. */
    public static Optional<Exposure> ofAWeek(
            VehicleForecast forecast,
            LocalDate firstRegistered,
            Collection<Evidence> evidence,
            WearModels wear,
            Stake stake) {
        return ofWaiting(
                forecast,
                firstRegistered,
                evidence,
                wear,
                stake,
                forecast.today().plusDays(RATE_DAYS));
    }

    /**
     * Exposure rate for each hour of work that would end it, minor units: the order that loses least when one pair of
     * hands works through a queue (W. E. Smith, "Various optimizers for single-stage production", Naval Research
     * Logistics Quarterly 3, 1956).
     *
     * @param minutes of the planned job; below one counts as one
     */
    public static double perHour(double rateMinor, int minutes) {
        return rateMinor * 60.0 / Math.max(1, minutes);
    }

    /** By which findings multiply the growth of an item's hazard, 1 to 10. */
    public static int hazardFactor(Item item, VehicleForecast forecast, Collection<Evidence> evidence) {
        if (evidence.isEmpty()) {
            return 1;
        }
        List<ItemForecast> limited = forecast.items().stream()
                .filter(i -> i.limit().isPresent() && !i.inspection())
                .toList();
        return DriveHazard.factor(item, limited, List.copyOf(evidence));
    }

    /** Cumulative hazard on {@code day} of an item that wears by {@code clock}, at the median odometer. */
    public static double cumulativeHazard(WearModel wear, LimitClock clock, VehicleForecast forecast, LocalDate day) {
        return wear.cumulativeHazard(clock.distanceUsed(forecast.usedKm(clock.start(), day)), clock.ageUsed(day));
    }

    /** Kinds of item whose wear can be set in Setup: those that carry the drive. */
    public static List<ItemKind> kinds() {
        return java.util.Arrays.stream(ItemKind.values())
                .filter(ItemKind::carriesTheDrive)
                .toList();
    }
}
