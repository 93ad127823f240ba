package knollfield.core.odometer;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
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
 * max(1, days between); of equal chains the one whose rejects fit as another unit, then the one whose readings are later
 * (rules.md section 1). What is repeated, the same value on the same day, counts once. Between miles and kilometres a whole mile less is not backwards; the kept chain then stays level.
 *
 * @param kept in date order, possibly empty
 * @param rejected in date order
 * @param maxKmPerDay the limit the chain was built with
 */
public record ReadingChain(List<Reading> kept, List<Rejected> rejected, int maxKmPerDay) {

    /** A reading outside the kept chain and why. */
    public record Rejected(Reading reading, RejectReason reason) {}

    /** Of more chains that weigh the same the rest is not looked at. */
    private static final int MOST_TIES = 16;

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
        int max = assumptions.maxKmPerDay();
        Weighed weighed = Weighed.of(sorted, assumptions);
        List<List<Reading>> heaviest = heaviest(weighed, max);
        List<Reading> chosen = heaviest.get(0);
        int slips = -1;
        for (List<Reading> chain : heaviest) {
            int of = heaviest.size() == 1 ? 0 : slipsOfTheUnit(chain, weighed.readings(), max);
            if (of > slips) {
                slips = of;
                chosen = chain;
            }
        }
        List<Reading> kept = new ArrayList<>(sorted.size());
        List<Rejected> rejected = new ArrayList<>();
        int next = 0;
        int km = 0;
        Reading last = null;
        for (Reading r : sorted) {
            if (next < chosen.size() && r.repeats(chosen.get(next))) {
                next++;
            } else if (last == null || !r.repeats(last)) {
                rejected.add(new Rejected(r, reasonAgainst(chosen, r, max)));
                continue;
            }
            last = r;
            km = Math.max(km, r.km());
            kept.add(r.atLeast(km));
        }
        return new ReadingChain(kept, rejected, max);
    }

    /**
     * Each reading once, with what it weighs: repeated on one day as the heaviest of them.
     *
     * @param readings in date order
     */
    private record Weighed(List<Reading> readings, List<Integer> weights) {

        static Weighed of(List<Reading> sorted, OdometerAssumptions assumptions) {
            List<Reading> once = new ArrayList<>(sorted.size());
            List<Integer> weights = new ArrayList<>(sorted.size());
            for (Reading r : sorted) {
                int weight = assumptions.trust(r.source());
                int last = once.size() - 1;
                if (last >= 0 && once.get(last).repeats(r)) {
                    weights.set(last, Math.max(weight, weights.get(last)));
                } else {
                    once.add(r);
                    weights.add(weight);
                }
            }
            return new Weighed(once, weights);
        }
    }

    /** The chains of greatest trust, those with later readings first; at most {@value #MOST_TIES}, at least one. */
    private static List<List<Reading>> heaviest(Weighed weighed, int max) {
        List<Reading> readings = weighed.readings();
        int n = readings.size();
        if (n == 0) {
            return List.of(List.of());
        }
        int[] best = new int[n];
        int greatest = 0;
        for (int i = 0; i < n; i++) {
            int before = 0;
            for (int j = 0; j < i; j++) {
                if (best[j] > before && follows(readings.get(j), readings.get(i), max)) {
                    before = best[j];
                }
            }
            best[i] = before + weighed.weights().get(i);
            greatest = Math.max(greatest, best[i]);
        }
        return chains(weighed, best, greatest, max);
    }

    /** Walks back from every end of greatest weight; by hand and not by recursion, since a feed may bring many thousands. */
    private static List<List<Reading>> chains(Weighed weighed, int[] best, int greatest, int max) {
        List<Reading> readings = weighed.readings();
        int n = readings.size();
        List<List<Reading>> chains = new ArrayList<>();
        int[] at = new int[n];
        int[] tried = new int[n];
        for (int end = n - 1; end >= 0 && chains.size() < MOST_TIES; end--) {
            if (best[end] != greatest) {
                continue;
            }
            int depth = 0;
            at[0] = end;
            tried[0] = end;
            while (depth >= 0 && chains.size() < MOST_TIES) {
                int here = at[depth];
                int before = best[here] - weighed.weights().get(here);
                if (before == 0) {
                    chains.add(backwards(readings, at, depth));
                    depth--;
                    continue;
                }
                int j = tried[depth] - 1;
                while (j >= 0 && !(best[j] == before && follows(readings.get(j), readings.get(here), max))) {
                    j--;
                }
                tried[depth] = j;
                depth += j < 0 ? -1 : 1;
                if (j >= 0) {
                    at[depth] = j;
                    tried[depth] = j;
                }
            }
        }
        return chains;
    }

    private static List<Reading> backwards(List<Reading> readings, int[] at, int depth) {
        List<Reading> chain = new ArrayList<>(depth + 1);
        for (int d = depth; d >= 0; d--) {
            chain.add(readings.get(at[d]));
        }
        return chain;
    }

    /** How many readings outside {@code chain} would fit it in the other unit. */
    private static int slipsOfTheUnit(List<Reading> chain, List<Reading> readings, int max) {
        int slips = 0;
        int next = 0;
        for (Reading r : readings) {
            if (next < chain.size() && r.equals(chain.get(next))) {
                next++;
            } else if (slipOfTheUnit(chain, r, max).isPresent()) {
                slips++;
            }
        }
        return slips;
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
        LocalDate before = null;
        double kmBefore = 0;
        for (Reading r : kept) {
            if (idleKmPerYear > 0 && before != null && before.isBefore(from) && from.isBefore(r.date())) {
                // idling begins between two readings
                kmBefore = interpolatedKm(from).orElse(kmBefore);
                before = from;
            }
            double here =
                    r.km() + (idleKmPerYear == 0 ? 0 : idleKmPerYear * Math.max(0, Years.between(from, r.date())));
            if (here >= km) {
                if (before == null || here == kmBefore || kmBefore >= km) {
                    return Optional.of(before == null || here == kmBefore ? r.date() : before);
                }
                double share = (km - kmBefore) / (here - kmBefore);
                long days = ChronoUnit.DAYS.between(before, r.date());
                return Optional.of(before.plusDays((long) Math.ceil(share * days - 1e-9)));
            }
            before = r.date();
            kmBefore = here;
        }
        return Optional.empty();
    }

    private static boolean follows(Reading earlier, Reading later, int maxKmPerDay) {
        double km = later.shownKm() - earlier.shownKm();
        // odometers truncate: a whole mile may hide up to as much
        double hidden = later.unit() == earlier.unit() ? 0 : DistanceUnit.MILES.toKm(1);
        if (km < -hidden) {
            return false;
        }
        long days = Math.max(1, later.date().toEpochDay() - earlier.date().toEpochDay());
        return km <= (double) maxKmPerDay * days;
    }

    private static boolean fits(List<Reading> kept, Reading reading, int max) {
        return kept.stream()
                .allMatch(k -> ORDER.compare(k, reading) <= 0 ? follows(k, reading, max) : follows(reading, k, max));
    }

    private static Optional<RejectReason> slipOfTheUnit(List<Reading> kept, Reading reading, int max) {
        if (fitsBetweenNeighbours(kept, reading, DistanceUnit.MILES.toKm(reading.km()), max)) {
            return Optional.of(RejectReason.MILES_AS_KM);
        }
        return fitsBetweenNeighbours(kept, reading, DistanceUnit.MILES.fromKm(reading.km()), max)
                ? Optional.of(RejectReason.KM_AS_MILES)
                : Optional.empty();
    }

    private static RejectReason reasonAgainst(List<Reading> kept, Reading reading, int max) {
        Optional<RejectReason> slip = slipOfTheUnit(kept, reading, max);
        if (slip.isPresent()) {
            return slip.get();
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
