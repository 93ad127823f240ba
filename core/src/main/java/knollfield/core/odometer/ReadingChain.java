package knollfield.core.odometer;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import knollfield.core.units.DistanceUnit;
import knollfield.core.units.Years;

/**
 * The readings that tell one consistent story, and those that do not, each with its reason.
 *
 * <p>Kept is the chain of greatest total trust that never runs backwards and never exceeds the assumed km a day ×
 * max(1, days between); of equal chains the one whose readings are later (rules.md section 1). What is repeated, the same
 * value on the same day, counts once.
 *
 * @param kept in date order, possibly empty
 * @param rejected in date order
 * @param maxKmPerDay the limit the chain was built with
 */
public record ReadingChain(List<Reading> kept, List<Rejected> rejected, int maxKmPerDay) {

    /** A reading outside the kept chain and why. */
    public record Rejected(Reading reading, RejectReason reason) {}

    private static final Comparator<Reading> ORDER =
            Comparator.comparing(Reading::date).thenComparingInt(Reading::km).thenComparingLong(Reading::id);

    public ReadingChain {
        kept = List.copyOf(kept);
        rejected = List.copyOf(rejected);
    }

    /** Sorts {@code readings}, given in any order, under the default assumptions. */
    public static ReadingChain of(List<Reading> readings) {
        return of(readings, OdometerAssumptions.defaults());
    }

    /** Sorts {@code readings}, given in any order, into a kept chain and rejected ones. */
    public static ReadingChain of(List<Reading> readings, OdometerAssumptions assumptions) {
        List<Reading> sorted = readings;
        if (!isSorted(readings)) {
            sorted = new ArrayList<>(readings);
            sorted.sort(ORDER);
        }
        int n = sorted.size();
        int max = assumptions.maxKmPerDay();
        int[] weights = weights(sorted, assumptions);
        int[] best = new int[n];
        int[] previous = new int[n];
        int end = -1;
        for (int i = 0; i < n; i++) {
            previous[i] = -1;
            for (int j = 0; j < i; j++) {
                // ">=": of equal chains the one through the later reading is kept
                if (best[j] >= best[i] && follows(sorted.get(j), sorted.get(i), max)) {
                    best[i] = best[j];
                    previous[i] = j;
                }
            }
            best[i] += weights[i];
            if (end < 0 || best[i] >= best[end]) {
                end = i;
            }
        }
        boolean[] isKept = new boolean[n];
        List<Reading> kept = new ArrayList<>(n);
        for (int i = end; i >= 0; i = previous[i]) {
            isKept[i] = true;
            kept.add(sorted.get(i));
        }
        Collections.reverse(kept);
        if (kept.size() == n) {
            return new ReadingChain(kept, List.of(), max);
        }
        List<Rejected> rejected = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            if (!isKept[i]) {
                rejected.add(new Rejected(sorted.get(i), reasonAgainst(kept, sorted.get(i), max)));
            }
        }
        return new ReadingChain(kept, rejected, max);
    }

    /** What each weighs; readings of one day and value weigh once, as the heaviest of them. */
    private static int[] weights(List<Reading> sorted, OdometerAssumptions assumptions) {
        int[] weights = new int[sorted.size()];
        for (int i = 0; i < weights.length; i++) {
            int weight = assumptions.trust(sorted.get(i).source());
            boolean repeats = i > 0
                    && sorted.get(i - 1).date().equals(sorted.get(i).date())
                    && sorted.get(i - 1).km() == sorted.get(i).km();
            int heaviest = repeats ? Math.max(weight, weights[i - 1]) : weight;
            if (repeats) {
                weights[i - 1] = 0;
            }
            weights[i] = heaviest;
        }
        return weights;
    }

    private static boolean isSorted(List<Reading> readings) {
        for (int i = 1; i < readings.size(); i++) {
            if (ORDER.compare(readings.get(i - 1), readings.get(i)) > 0) {
                return false;
            }
        }
        return true;
    }

    /** The latest kept reading. */
    public Optional<Reading> last() {
        return kept.isEmpty() ? Optional.empty() : Optional.of(kept.get(kept.size() - 1));
    }

    /**
     * What the kept chain shows on {@code date}, in a straight line between readings; before the first one as the first one.
     * Empty after the last kept reading, or where there is none.
     */
    public OptionalDouble interpolatedKm(LocalDate date) {
        if (kept.isEmpty() || date.isAfter(kept.get(kept.size() - 1).date())) {
            return OptionalDouble.empty();
        }
        Optional<Double> km = expectedKm(kept, date);
        return km.isPresent() ? OptionalDouble.of(km.get()) : OptionalDouble.empty();
    }

    /** Years between the first and the last kept reading; zero with fewer than two. */
    public double spanYears() {
        return kept.size() < 2
                ? 0
                : Years.between(kept.get(0).date(), kept.get(kept.size() - 1).date());
    }

    /** Why {@code reading} would not fit this chain; empty where it fits. */
    public Optional<RejectReason> objectionTo(Reading reading) {
        return fits(kept, reading, maxKmPerDay)
                ? Optional.empty()
                : Optional.of(reasonAgainst(kept, reading, maxKmPerDay));
    }

    /**
     * The distance an odometer fitted in place of another one lacks: what the kept chain, carried on at its own rate,
     * would show on that day, less what the new one shows; km, rounded. Empty where there is no earlier kept reading or
     * the new odometer does not show less.
     */
    public OptionalInt offsetOfReplacement(LocalDate date, int shownKm) {
        List<Reading> before =
                kept.stream().filter(r -> !r.date().isAfter(date)).toList();
        if (before.isEmpty()) {
            return OptionalInt.empty();
        }
        Reading last = before.get(before.size() - 1);
        double expected = expectedKm(before, date).orElse((double) last.km());
        int offset = (int) Math.round(Math.max(expected, last.km()) - shownKm);
        return offset > 0 ? OptionalInt.of(offset) : OptionalInt.empty();
    }

    /**
     * The day on which the kept chain, interpolated in a straight line, first shows {@code km}; empty where no kept
     * reading reaches it. A distance below the first reading was reached on that reading's day at the latest, which is
     * what is returned.
     */
    public Optional<LocalDate> dateReached(double km) {
        return dateReached(km, 0, LocalDate.EPOCH);
    }

    /**
     * The same for a distance that also grows by {@code idleKmPerYear} from {@code from} on.
     *
     * @param km odometer and idling together
     */
    public Optional<LocalDate> dateReached(double km, double idleKmPerYear, LocalDate from) {
        Reading before = null;
        double kmBefore = 0;
        for (Reading r : kept) {
            double here =
                    r.km() + (idleKmPerYear == 0 ? 0 : idleKmPerYear * Math.max(0, Years.between(from, r.date())));
            if (here >= km) {
                if (before == null || here == kmBefore) {
                    return Optional.of(r.date());
                }
                double share = (km - kmBefore) / (here - kmBefore);
                long days = ChronoUnit.DAYS.between(before.date(), r.date());
                return Optional.of(before.date().plusDays((long) Math.ceil(share * days - 1e-9)));
            }
            before = r;
            kmBefore = here;
        }
        return Optional.empty();
    }

    private static boolean follows(Reading earlier, Reading later, int maxKmPerDay) {
        int km = later.km() - earlier.km();
        if (km < 0) {
            return false;
        }
        long days = Math.max(1, later.date().toEpochDay() - earlier.date().toEpochDay());
        return km <= maxKmPerDay * days;
    }

    private static boolean fits(List<Reading> kept, Reading reading, int max) {
        return kept.stream()
                .allMatch(k -> ORDER.compare(k, reading) <= 0 ? follows(k, reading, max) : follows(reading, k, max));
    }

    private static RejectReason reasonAgainst(List<Reading> kept, Reading reading, int max) {
        if (fitsBetweenNeighbours(kept, reading, DistanceUnit.MILES.toKm(reading.km()), max)) {
            return RejectReason.MILES_AS_KM;
        }
        if (fitsBetweenNeighbours(kept, reading, DistanceUnit.MILES.fromKm(reading.km()), max)) {
            return RejectReason.KM_AS_MILES;
        }
        boolean belowEarlier = kept.stream().anyMatch(k -> !k.date().isAfter(reading.date()) && k.km() > reading.km());
        boolean aboveLater = kept.stream().anyMatch(k -> !k.date().isBefore(reading.date()) && k.km() < reading.km());
        boolean tooFastAfter =
                kept.stream().filter(k -> !k.date().isAfter(reading.date())).anyMatch(k -> !follows(k, reading, max));
        boolean backwards = belowEarlier || (aboveLater && !tooFastAfter);
        return backwards ? RejectReason.RUNS_BACKWARDS : RejectReason.IMPOSSIBLE_RATE;
    }

    /** A unit slip is only suspected where readings stand on both sides, or the corrected value goes on plausibly. */
    private static boolean fitsBetweenNeighbours(List<Reading> kept, Reading reading, double correctedKm, int max) {
        if (kept.isEmpty() || correctedKm > Reading.MAX_KM) {
            return false;
        }
        Reading corrected = new Reading(reading.id(), reading.date(), (int) Math.round(correctedKm), reading.source());
        if (!fits(kept, corrected, max)) {
            return false;
        }
        // near the straight line, so that a huge gap does not make every number plausible
        return expectedKm(kept, reading.date())
                .map(expected -> Math.abs(corrected.km() - expected) <= 0.15 * Math.max(expected, 1))
                .orElse(false);
    }

    private static Optional<Double> expectedKm(List<Reading> kept, LocalDate date) {
        Reading first = kept.get(0);
        Reading last = kept.get(kept.size() - 1);
        long span = ChronoUnit.DAYS.between(first.date(), last.date());
        if (span == 0) {
            return Optional.of((double) last.km());
        }
        if (date.isAfter(last.date())) {
            double rate = (last.km() - first.km()) / (double) span;
            return Optional.of(last.km() + rate * ChronoUnit.DAYS.between(last.date(), date));
        }
        Reading before = first;
        for (Reading r : kept) {
            if (!r.date().isBefore(date)) {
                long gap = ChronoUnit.DAYS.between(before.date(), r.date());
                double share = gap == 0 ? 1 : (double) ChronoUnit.DAYS.between(before.date(), date) / gap;
                return Optional.of(before.km() + share * (r.km() - before.km()));
            }
            before = r;
        }
        return Optional.empty();
    }
}
