package knollfield.core.outlook;

import knollfield.core.risk.AgeReplacement.Wear;

/**
 * Renewing one drive over and over: at a planned age, at a failure before it, or at a visit for other work shortly before
 * it. By the renewal reward theorem (S. M. Ross, Stochastic Processes, section 3.6) what happens in a year is what happens
 * in a cycle over its mean length.
 *
 * @param failures a year
 * @param planned jobs a year that are done at the planned age
 * @param atVisits jobs a year that are done while the vehicle is in the workshop anyway
 */
public record Renewing(double failures, double planned, double atVisits) {

    /** Panels of Simpson's rule on either side of the age from which a visit serves. */
    private static final int PANELS = 32;

    /**
     * What wears as {@code wear} does.
     *
     * @param age planned, years, above zero
     * @param visitFrom age from which a visit serves, years, zero to {@code age}
     * @param visitsPerYear for other work, zero or more, at any time alike
     */
    public static Renewing of(Wear wear, double age, double visitFrom, double visitsPerYear) {
        if (!(age > 0) || !(visitFrom >= 0 && visitFrom <= age) || !(visitsPerYear >= 0)) {
            throw new IllegalArgumentException(
                    "renewing at %s years, at visits from %s, %s a year".formatted(age, visitFrom, visitsPerYear));
        }
        double before = life(wear, 0, visitFrom, visitFrom, visitsPerYear);
        double after = life(wear, visitFrom, age, visitFrom, visitsPerYear);
        double length = before + after;
        double planned = lasts(wear, age, visitFrom, visitsPerYear);
        double visited = visitsPerYear * after;
        return new Renewing(Math.max(0, 1 - planned - visited) / length, planned / length, visited / length);
    }

    /** Chance that neither a failure nor a visit has renewed it at {@code age}. */
    private static double lasts(Wear wear, double age, double visitFrom, double visitsPerYear) {
        return Math.exp(-wear.cumulative(age) - visitsPerYear * Math.max(0, age - visitFrom));
    }

    private static double life(Wear wear, double from, double to, double visitFrom, double visitsPerYear) {
        double step = (to - from) / (2 * PANELS);
        if (step <= 0) {
            return 0;
        }
        double sum = lasts(wear, from, visitFrom, visitsPerYear) + lasts(wear, to, visitFrom, visitsPerYear);
        for (int i = 1; i < 2 * PANELS; i++) {
            sum += (i % 2 == 0 ? 2 : 4) * lasts(wear, from + i * step, visitFrom, visitsPerYear);
        }
        return sum * step / 3;
    }

    /** Renewals of any kind a year. */
    public double jobs() {
        return failures + planned + atVisits;
    }
}
