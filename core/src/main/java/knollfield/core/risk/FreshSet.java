package knollfield.core.risk;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import knollfield.core.engine.Limit;

/**
 * A set of parts renewed together on a vehicle of steady use: the sum of their hazards by years since (rules.md section 4).
 */
public final class FreshSet implements AgeReplacement.Wear {

    /** Beyond so many times the limits an optimum is none worth having. */
    public static final int WORTH_HAVING_LIMITS = 3;

    /**
     * What wears alike.
     *
     * @param share of the drive's failures
     * @param distance fraction of the distance limit used in a year; empty without one
     * @param age fraction of the age limit used in a year; empty without one
     */
    private record Term(double share, WearModel wear, OptionalDouble distance, OptionalDouble age) {

        double cumulative(double years) {
            return share * wear.cumulativeHazard(times(distance, years), times(age, years));
        }

        /** Of a power of the years, so many times the whole over them. */
        double rate(double years) {
            return years == 0 ? 0 : wear.shape() * cumulative(years) / years;
        }

        private static OptionalDouble times(OptionalDouble perYear, double years) {
            return perYear.isPresent() ? OptionalDouble.of(perYear.getAsDouble() * years) : perYear;
        }

        boolean wearsAs(Term other) {
            return wear.equals(other.wear) && distance.equals(other.distance) && age.equals(other.age);
        }
    }

    private final double kmPerYear;
    private final List<Term> terms;

    private FreshSet(double kmPerYear, List<Term> terms) {
        this.kmPerYear = kmPerYear;
        this.terms = List.copyOf(terms);
    }

    /**
     * Nothing yet, on a vehicle that runs {@code kmPerYear}, zero or more.
     */
    public static FreshSet at(double kmPerYear) {
        if (!(kmPerYear >= 0)) {
            throw new IllegalArgumentException("use must be zero km a year or more, not " + kmPerYear);
        }
        return new FreshSet(kmPerYear, List.of());
    }

    /**
     * This set and a part with such a limit.
     *
     * @param share of the drive's failures, 0 to 1
     */
    public FreshSet with(WearModel wear, double share, Limit limit) {
        Term term = new Term(share, wear, limit.distanceUsed(kmPerYear), limit.agePerYear());
        List<Term> all = new ArrayList<>(terms.size() + 1);
        boolean joined = false;
        for (Term t : terms) {
            boolean same = !joined && t.wearsAs(term);
            all.add(same ? new Term(t.share() + share, wear, t.distance(), t.age()) : t);
            joined |= same;
        }
        if (!joined) {
            all.add(term);
        }
        return new FreshSet(kmPerYear, all);
    }

    @Override
    public double cumulative(double years) {
        double sum = 0;
        for (Term t : terms) {
            sum += t.cumulative(years);
        }
        return sum;
    }

    @Override
    public double rate(double years) {
        double sum = 0;
        for (Term t : terms) {
            sum += t.rate(years);
        }
        return sum;
    }

    public double kmPerYear() {
        return kmPerYear;
    }

    /** Years until the first of the limits is reached; infinite where none ever is. */
    public double yearsToFirstLimit() {
        double most = 0;
        for (Term t : terms) {
            most = Math.max(most, Math.max(t.distance().orElse(0), t.age().orElse(0)));
        }
        return 1 / most;
    }

    /** True where every part grows likelier to fail with age. */
    public boolean wearsOut() {
        return terms.stream().allMatch(t -> t.wear().shape() > 1);
    }
}
