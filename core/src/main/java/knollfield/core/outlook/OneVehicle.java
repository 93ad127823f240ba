package knollfield.core.outlook;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.DueEngine;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.Policy;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.odometer.Reading;
import knollfield.core.risk.AgeReplacement;
import knollfield.core.risk.FreshSet;
import knollfield.core.units.Years;

/**
 * One vehicle, whose drive is renewed over and over as a policy has it: at its own use, its own limits and with readings
 * as old as its last one is now.
 *
 * @param fresh the set its job renews, new
 * @param renewed codes of the items the job renews
 * @param plannedMinor the planned job, above zero
 * @param failureMinor a failure by its bills
 * @param minutes labour of the job
 */
public record OneVehicle(
        VehicleFacts facts,
        EngineFamily family,
        VehicleForecast forecast,
        OdometerAssumptions odometer,
        FreshSet fresh,
        Set<String> renewed,
        long plannedMinor,
        long failureMinor,
        int minutes) {

    /** The limit lies so far ahead when the age is reckoned at which one would act, years. */
    private static final double AHEAD_YEARS = 0.5;

    /**
     * A policy, with what it weighs by.
     *
     * @param strandingMinor counts under <i>careful</i> alone
     * @param visitMinor counts under <i>careful</i> alone
     * @param visitsPerYear of a vehicle for other work, zero or more
     */
    public record Setting(Policy policy, long strandingMinor, long visitMinor, double visitsPerYear) {

        /** True where a visit for other work may serve. */
        boolean usesVisits(VehicleFacts vehicle) {
            return policy.inForce(vehicle).timing() instanceof Policy.Timing.Careful && visitsPerYear > 0;
        }
    }

    /**
     * When it would be acted on.
     *
     * @param years age of the drive then
     * @param pastTheBook chance that a limit of the book has been passed by then, 0 to 1
     */
    record ActedOn(double years, double pastTheBook) {}

    /** A year under {@code setting}; empty where the drive has no limits to wear by, or it stands still. */
    public Optional<Outlook> under(Setting setting) {
        double book = fresh.yearsToFirstLimit();
        if (Double.isInfinite(book) || plannedMinor <= 0) {
            return Optional.empty();
        }
        ActedOn acted = actedOn(setting.policy(), book);
        boolean careful = setting.policy().inForce(facts).timing() instanceof Policy.Timing.Careful;
        double age = acted.years();
        double visitFrom = age;
        if (careful && fresh.wearsOut()) {
            double failure = (double) failureMinor + setting.strandingMinor();
            Optional<AgeReplacement> best =
                    AgeReplacement.optimum(fresh, plannedMinor, failure, FreshSet.WORTH_HAVING_LIMITS * book);
            if (best.isPresent()) {
                age = Math.min(age, best.get().age());
                visitFrom = setting.usesVisits(facts)
                        ? visitFrom(best.get().costPerUnit(), failure - plannedMinor, age, setting.visitMinor())
                        : age;
            }
        }
        Renewing r = Renewing.of(fresh, age, visitFrom, visitFrom < age ? setting.visitsPerYear() : 0);
        double past = age < acted.years() ? 0 : acted.pastTheBook();
        return Optional.of(new Outlook(
                r.failures(),
                r.planned() + r.atVisits(),
                r.atVisits(),
                past * r.planned(),
                plannedMinor * (r.planned() + r.atVisits())
                        - setting.visitMinor() * r.atVisits()
                        + failureMinor * r.failures(),
                minutes / 60.0 * r.jobs()));
    }

    /**
     * The age from which waiting until {@code age} saves no more than a visit does: W of the marginal rule, which only falls
     * as the drive ages.
     */
    private double visitFrom(double perYear, double beyondTheJob, double age, long visitMinor) {
        double low = 0;
        double high = age;
        for (int i = 0; i < 60; i++) {
            double middle = (low + high) / 2;
            double saved = perYear * (age - middle) - beyondTheJob * (fresh.cumulative(age) - fresh.cumulative(middle));
            if (saved > visitMinor) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return high;
    }

    /** By the same judgement as any other day: a drive fitted so long ago that its first limit is half a year ahead. */
    ActedOn actedOn(Policy policy, double bookYears) {
        LocalDate today = forecast.today();
        double agoYears = Math.max(0, bookYears - AHEAD_YEARS);
        LocalDate fitted = today.minusDays(Math.round(agoYears * Years.DAYS));
        double kmThen = forecast.projection().medianKm(today)
                - forecast.projection().rate().kmPerYear() * Years.between(fitted, today);
        int shift = (int) Math.ceil(Math.max(0, -kmThen));
        int startKm = (int) Math.round(kmThen) + shift;
        Map<String, ClockStart> starts = new HashMap<>();
        renewed.forEach(i -> starts.put(i, new ClockStart(fitted, Math.max(0, startKm), ClockStart.Grade.ORIGINAL)));
        VehicleFacts asFitted = fitted(starts, shift);
        LocalDate acts = today.plusDays(Math.round((bookYears - agoYears) * Years.DAYS));
        for (ItemForecast i : judged(asFitted, policy)) {
            if (i.actBy().isPresent() && i.actBy().get().isBefore(acts)) {
                acts = i.actBy().get();
            }
        }
        double past = 0;
        // against the book's limits, whatever the workshop's own are
        Policy book = policy.with(new Policy.Timing.Book());
        VehicleForecast then = DueEngine.forecast(asFitted, Optional.of(family), book, odometer, today);
        for (ItemForecast i : renewedOf(then)) {
            if (i.limit().isPresent()) {
                past = Math.max(past, chancePast(then, i, acts));
            }
        }
        double years = Years.between(fitted, acts);
        return new ActedOn(Math.max(1 / Years.DAYS, years), past);
    }

    private List<ItemForecast> judged(VehicleFacts asFitted, Policy policy) {
        return renewedOf(DueEngine.forecast(asFitted, Optional.of(family), policy, odometer, forecast.today()));
    }

    private List<ItemForecast> renewedOf(VehicleForecast then) {
        return then.items().stream()
                .filter(i -> renewed.contains(i.item().code())
                        && i.item().takesTheDrive()
                        && i.start().isPresent()
                        && !i.inspection())
                .toList();
    }

    private static double chancePast(VehicleForecast then, ItemForecast item, LocalDate day) {
        ClockStart start = item.start().orElseThrow();
        Limit limit = item.limit().orElseThrow();
        if (limit.ageEnd(start.date()).filter(day::isAfter).isPresent()) {
            return 1;
        }
        return limit.km().isEmpty()
                ? 0
                : then.projection()
                        .plusRate(then.idleKmPerYear())
                        .chanceReached(
                                start.km()
                                        + limit.km().getAsInt()
                                        - then.idleKmPerYear()
                                                * Years.between(
                                                        start.date(),
                                                        then.projection().baseDate()),
                                day);
    }

    /** This vehicle with nothing found and no journey ahead, all its readings {@code shift} km higher. */
    private VehicleFacts fitted(Map<String, ClockStart> starts, int shift) {
        List<Reading> readings = new ArrayList<>();
        for (Reading r : forecast.readings().kept()) {
            readings.add(new Reading(r.id(), r.date(), Math.min(Reading.MAX_KM, r.km() + shift), r.source(), r.unit()));
        }
        return new VehicleFacts(
                facts.firstRegistered(),
                true,
                readings,
                starts,
                facts.conditions(),
                List.of(),
                facts.usage(),
                List.of(),
                new VehicleFacts.Special(
                        facts.special().state(),
                        facts.special().idleHoursPerYear(),
                        facts.special().own(),
                        Optional.empty(),
                        renewed));
    }
}
