package knollfield.core.risk;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import java.util.Set;
import knollfield.core.units.Years;

/**
 * The cheapest day to renew, never past the book's (rules.md section 4, marginal rule): waiting saves the cost a day of a
 * fresh set, g*, and costs what the chance of a stranding grows by,
 * W(d) = g*·(d − today) − (c_f + s − c_p)·[H(d) − H(today)]; the day on which W is greatest.
 *
 * @param actBy from today to the book's act-by, both included
 * @param perDayMinor g*, what a fresh set costs a day at its best age, minor units; empty where the rule does not apply and
 *     the book's day stands
 * @param gainMinor W(actBy), what waiting until then saves against renewing today, minor units, zero or more
 */
public record MarginalRule(LocalDate actBy, Optional<Double> perDayMinor, double gainMinor) {

    /**
     * What is weighed, minor units.
     *
     * @param planned c_p, the planned job, above zero
     * @param failure c_f, a failure by its bills
     * @param stranding s, what the workshop would pay beyond the bills so that nobody stands by the road, zero or more
     */
    public record Costs(long planned, long failure, long stranding) {

        /** What a failure costs beyond the planned job, the stranding included. */
        double beyondTheJob() {
            return (double) failure + stranding - planned;
        }
    }

    /**
     * For a vehicle that stands as {@code hazard} says.
     *
     * @param renewed codes of the items the job renews
     * @param today the day from which waiting is weighed
     * @param book the book's act-by, not before {@code today}
     */
    public static MarginalRule of(
            DriveHazard hazard, Set<String> renewed, Costs costs, LocalDate today, LocalDate book) {
        FreshSet fresh = hazard.fresh(renewed);
        double limit = fresh.yearsToFirstLimit();
        Optional<AgeReplacement> best = costs.beyondTheJob() <= 0 || !fresh.wearsOut() || Double.isInfinite(limit)
                ? Optional.empty()
                : AgeReplacement.optimum(
                        fresh,
                        costs.planned(),
                        (double) costs.failure() + costs.stranding(),
                        FreshSet.WORTH_HAVING_LIMITS * limit);
        if (best.isEmpty()) {
            return new MarginalRule(book, Optional.empty(), 0);
        }
        Waiting waiting =
                new Waiting(hazard.wear(renewed), best.get().costPerUnit() / Years.DAYS, costs.beyondTheJob(), today);
        long last = ChronoUnit.DAYS.between(today, book);
        long day = hazard.onlyGrows() ? firstNotWorthIt(waiting, last) : greatest(waiting, last);
        return new MarginalRule(today.plusDays(day), Optional.of(waiting.perDay()), Math.max(0, waiting.gain(day)));
    }

    /** True where renewing it on this visit loses no more than the visit saves, and it is not due today. */
    public boolean isWorthDoingWhileHere(LocalDate today, long visitMinor) {
        return actBy.isAfter(today) && perDayMinor.isPresent() && gainMinor <= visitMinor;
    }

    private record Waiting(DriveHazard.Wear wear, double perDay, double beyondTheJob, LocalDate today) {

        double gain(long days) {
            return perDay * days - beyondTheJob * wear.until(today.plusDays(days));
        }
    }

    /** With a hazard that only grows: the first day of which the next saves nothing more. */
    private static long firstNotWorthIt(Waiting waiting, long last) {
        long low = 0;
        long high = last;
        while (low < high) {
            long middle = (low + high) / 2;
            if (waiting.gain(middle + 1) - waiting.gain(middle) <= 0) {
                high = middle;
            } else {
                low = middle + 1;
            }
        }
        return low;
    }

    private static long greatest(Waiting waiting, long last) {
        long best = 0;
        double most = waiting.gain(0);
        for (long d = 1; d <= last; d++) {
            double gain = waiting.gain(d);
            if (gain > most) {
                most = gain;
                best = d;
            }
        }
        return best;
    }
}
