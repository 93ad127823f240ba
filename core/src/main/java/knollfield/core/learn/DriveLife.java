package knollfield.core.learn;

import java.time.LocalDate;
import java.util.List;
import knollfield.core.clock.ClockStart;

/**
 * One belt or chain from the day it was first seen to the day it was last.
 *
 * @param start where its clocks began
 * @param enters the day from which a failure would have been seen
 * @param leaves after {@code enters}
 * @param years what it used of its limits, calendar year by calendar year, oldest first, at least one
 * @param perYear what it used in a year at its end
 */
public record DriveLife(
        ClockStart start, LocalDate enters, LocalDate leaves, End end, List<Year> years, LimitsUsed perYear) {

    /** How a life ends. All but a failure say only that it had lasted so long. */
    public enum End {
        FAILED,
        RENEWED,
        /** Something was found on it: what happens then is not wear alone. */
        FOUND,
        /** Counted from first registration, and past a limit nobody knows whether it is still the first. */
        NO_LONGER_KNOWN,
        LAST_READING
    }

    /** A calendar year of it, or the part of one. */
    public record Year(int year, LimitsUsed from, LimitsUsed to) {
        double wear(double shape) {
            return Math.max(0, to.wear(shape) - from.wear(shape));
        }
    }

    public DriveLife {
        years = List.copyOf(years);
        if (!leaves.isAfter(enters) || years.isEmpty()) {
            throw new IllegalArgumentException("a life from %s to %s".formatted(enters, leaves));
        }
    }

    public boolean failed() {
        return end == End.FAILED;
    }

    /** ΔG over the whole of it. */
    double wear(double shape) {
        return years.stream().mapToDouble(y -> y.wear(shape)).sum();
    }

    LimitsUsed used() {
        return years.get(years.size() - 1).to();
    }
}
