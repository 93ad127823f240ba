package knollfield.core.learn;

/** Chances of a gamma distribution of whole shape, and of the Poisson distribution that goes with it. */
final class Erlang {

    /** Beyond it a count of events says no more than "too many". */
    private static final double MOST = 1e6;

    /** A chance, against that of the likeliest count, that changes no quantile. */
    private static final double NOTHING = 1e-18;

    private Erlang() {}

    /** Chance that the sum of {@code events} waits of mean one is at most {@code x}: 1 − e^−x·Σ_{k<events} x^k/k!. */
    static double below(int events, double x) {
        return x <= 0 ? 0 : Math.max(0, 1 - atMost(events - 1, x));
    }

    /** Chance of at most {@code count} events where {@code mean} are expected, above zero. */
    private static double atMost(int count, double mean) {
        double logTerm = -mean;
        double sum = Math.exp(logTerm);
        for (int k = 1; k <= count; k++) {
            logTerm += Math.log(mean / k);
            sum += Math.exp(logTerm);
        }
        return Math.min(1, sum);
    }

    /** The smallest count of events that is not exceeded with {@code chance}, where {@code mean} are expected. */
    static int quantile(double mean, double chance) {
        if (!(mean > 0)) {
            return 0;
        }
        double expected = Math.min(mean, MOST);
        // against the likeliest count, as far down and up as any chance is left: some standard deviations, not all
        // counts
        int first = (int) expected;
        double lowest = 1;
        double total = 1;
        while (first > 0 && lowest > NOTHING) {
            lowest *= first / expected;
            total += lowest;
            first--;
        }
        double highest = 1;
        for (int k = (int) expected + 1; highest > NOTHING; k++) {
            highest *= expected / k;
            total += highest;
        }
        int count = first;
        double weight = lowest;
        double sum = lowest;
        while (sum < chance * total) {
            count++;
            weight *= expected / count;
            sum += weight;
        }
        return count;
    }
}
