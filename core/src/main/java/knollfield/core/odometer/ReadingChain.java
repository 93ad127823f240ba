package knollfield.core.odometer;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import knollfield.core.units.DistanceUnit;

/**
 * The readings that tell one consistent story, and those that do not, each with its reason.
 *
 * <p>Kept is the chain of greatest total trust that never runs backwards and never exceeds {@value #MAX_KM_PER_DAY} km
 * × max(1, days between); of equal chains the one whose readings are later (rules.md section 1).
 *
 * @param kept in date order, possibly empty
 * @param rejected in date order
 */
public record ReadingChain(List<Reading> kept, List<Rejected> rejected) {

    /** Planning assumption: no vehicle of the workshop goes further in a day. */
    public static final int MAX_KM_PER_DAY = 1_500;

    /** A reading outside the kept chain and why. */
    public record Rejected(Reading reading, RejectReason reason) {}

    private static final Comparator<Reading> ORDER =
            Comparator.comparing(Reading::date).thenComparingInt(Reading::km).thenComparingLong(Reading::id);

    public ReadingChain {
        kept = List.copyOf(kept);
        rejected = List.copyOf(rejected);
    }

    /** Sorts {@code readings}, given in any order, into a kept chain and rejected ones. */
    public static ReadingChain of(List<Reading> readings) {
        List<Reading> sorted = readings.stream().sorted(ORDER).toList();
        int n = sorted.size();
        int[] best = new int[n];
        int[] previous = new int[n];
        int end = -1;
        for (int i = 0; i < n; i++) {
            previous[i] = -1;
            for (int j = 0; j < i; j++) {
                // ">=": of equal chains the one through the later reading is kept
                if (follows(sorted.get(j), sorted.get(i)) && best[j] > 0 && best[j] >= best[i]) {
                    best[i] = best[j];
                    previous[i] = j;
                }
            }
            best[i] += sorted.get(i).source().trust();
            if (end < 0 || best[i] >= best[end]) {
                end = i;
            }
        }
        boolean[] isKept = new boolean[n];
        List<Reading> kept = new ArrayList<>();
        for (int i = end; i >= 0; i = previous[i]) {
            isKept[i] = true;
            kept.add(sorted.get(i));
        }
        Collections.reverse(kept);
        List<Rejected> rejected = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            if (!isKept[i]) {
                rejected.add(new Rejected(sorted.get(i), reasonAgainst(kept, sorted.get(i))));
            }
        }
        return new ReadingChain(kept, rejected);
    }

    /** The latest kept reading. */
    public Optional<Reading> last() {
        return kept.isEmpty() ? Optional.empty() : Optional.of(kept.get(kept.size() - 1));
    }

    /**
     * Why a reading of {@code km} on {@code date} would not fit this chain; empty where it fits.
     */
    public Optional<RejectReason> objectionTo(Reading reading) {
        return fits(kept, reading) ? Optional.empty() : Optional.of(reasonAgainst(kept, reading));
    }

    /**
     * The day on which the kept chain, interpolated in a straight line, first shows {@code km}; empty where no kept
     * reading reaches it. A distance below the first reading was reached on that reading's day at the latest, which is
     * what is returned.
     */
    public Optional<LocalDate> dateReached(double km) {
        Reading before = null;
        for (Reading r : kept) {
            if (r.km() >= km) {
                if (before == null || r.km() == before.km()) {
                    return Optional.of(r.date());
                }
                double share = (km - before.km()) / (r.km() - before.km());
                long days = ChronoUnit.DAYS.between(before.date(), r.date());
                return Optional.of(before.date().plusDays((long) Math.ceil(share * days - 1e-9)));
            }
            before = r;
        }
        return Optional.empty();
    }

    private static boolean follows(Reading earlier, Reading later) {
        long days = Math.max(1, ChronoUnit.DAYS.between(earlier.date(), later.date()));
        return later.km() >= earlier.km() && later.km() - earlier.km() <= MAX_KM_PER_DAY * days;
    }

    private static boolean fits(List<Reading> kept, Reading reading) {
        return kept.stream().allMatch(k -> ORDER.compare(k, reading) <= 0 ? follows(k, reading) : follows(reading, k));
    }

    private static RejectReason reasonAgainst(List<Reading> kept, Reading reading) {
        if (fitsBetweenNeighbours(kept, reading, DistanceUnit.MILES.toKm(reading.km()))) {
            return RejectReason.MILES_AS_KM;
        }
        if (fitsBetweenNeighbours(kept, reading, DistanceUnit.MILES.fromKm(reading.km()))) {
            return RejectReason.KM_AS_MILES;
        }
        boolean belowEarlier = kept.stream().anyMatch(k -> !k.date().isAfter(reading.date()) && k.km() > reading.km());
        boolean aboveLater = kept.stream().anyMatch(k -> !k.date().isBefore(reading.date()) && k.km() < reading.km());
        boolean backwards = belowEarlier || (aboveLater && !tooFastAfter(kept, reading));
        return backwards ? RejectReason.RUNS_BACKWARDS : RejectReason.IMPOSSIBLE_RATE;
    }

    private static boolean tooFastAfter(List<Reading> kept, Reading reading) {
        return kept.stream().filter(k -> !k.date().isAfter(reading.date())).anyMatch(k -> !follows(k, reading));
    }

    /** A unit slip is only suspected where readings stand on both sides, or the corrected value goes on plausibly. */
    private static boolean fitsBetweenNeighbours(List<Reading> kept, Reading reading, double correctedKm) {
        if (kept.isEmpty() || correctedKm > Reading.MAX_KM) {
            return false;
        }
        Reading corrected = new Reading(reading.id(), reading.date(), (int) Math.round(correctedKm), reading.source());
        if (!fits(kept, corrected)) {
            return false;
        }
        // halfway between first and last, so that a huge gap does not make every number plausible
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
