package knollfield.core.units;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;

/** Spans between dates as years of 365.25 days, the year all rates are stated in (rules.md, opening). */
public final class Years {

    /** Days in a year of the rules. */
    public static final double DAYS = 365.25;

    private Years() {}

    /** Years from {@code from} to {@code to}; negative when {@code to} is the earlier one. */
    public static double between(LocalDate from, LocalDate to) {
        return ChronoUnit.DAYS.between(from, to) / DAYS;
    }

    /** The first day that lies at least {@code years} after {@code from}. */
    public static LocalDate firstDayAfter(LocalDate from, double years) {
        // a billionth of a day: a whole number of days computed in floating point must not become the day after
        return from.plusDays((long) Math.ceil(years * DAYS - 1e-9));
    }
}
