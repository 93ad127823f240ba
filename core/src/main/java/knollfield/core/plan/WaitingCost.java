package knollfield.core.plan;

/** What a job's waiting costs, day by day of the ruler, in minor units and fractions of them (rules.md section 11). */
public sealed interface WaitingCost {

    /** Cost of waiting from day {@code from} to day {@code to}; zero where {@code to} is not later. */
    double between(int from, int to);

    /** Day of the ruler by which to have acted; may lie outside it. */
    int actBy();

    /** Cost of the one day {@code day}. */
    default double perDay(int day) {
        return between(day, day + 1);
    }

    /**
     * So much a day, and twice as much from a day on: T(d) = r·d + r·max(0, d − due).
     *
     * @param perDay zero or more
     */
    record Doubling(long perDay, int actBy) implements WaitingCost {
        public Doubling {
            if (perDay < 0) {
                throw new IllegalArgumentException("waiting costs zero a day or more, not " + perDay);
            }
        }

        @Override
        public double between(int from, int to) {
            if (to <= from) {
                return 0;
            }
            long doubled = Math.max(0L, (long) to - Math.max(from, actBy));
            return (double) perDay * ((long) to - from + doubled);
        }
    }

    /** By the calendar: growing hazard, journeys and findings included. */
    final class Calendar implements WaitingCost {

        private final double[] until;
        private final int actBy;

        /**
         * @param until cost of waiting until each day of the ruler and until its end, never less than the day before; the last
         *     one stands for all days after it
         */
        public Calendar(double[] until, int actBy) {
            if (until.length == 0) {
                throw new IllegalArgumentException("a ruler has a day");
            }
            for (int d = 0; d < until.length; d++) {
                if (!(until[d] >= (d == 0 ? 0 : until[d - 1])) || Double.isInfinite(until[d])) {
                    throw new IllegalArgumentException(
                            "waiting until day %d costs %s: it grows from zero".formatted(d, until[d]));
                }
            }
            this.until = until.clone();
            this.actBy = actBy;
        }

        @Override
        public double between(int from, int to) {
            return to <= from ? 0 : at(to) - at(from);
        }

        @Override
        public int actBy() {
            return actBy;
        }

        private double at(int day) {
            return until[Math.max(0, Math.min(day, until.length - 1))];
        }
    }
}
