package knollfield.core.outlook;

import java.util.Collection;

/**
 * A year of a policy, once every drive has been renewed under it; sums of single vehicles.
 *
 * @param breakdowns expected
 * @param jobs planned ones, at visits too
 * @param atVisits those of them that are done while the vehicle is in the workshop anyway
 * @param pastTheBook those of them that are done past a limit of the book
 * @param costMinor of planned jobs and failures, by their bills, minor units
 * @param hours of labour
 */
public record Outlook(
        double breakdowns, double jobs, double atVisits, double pastTheBook, double costMinor, double hours) {

    public static final Outlook NONE = new Outlook(0, 0, 0, 0, 0, 0);

    public static Outlook sum(Collection<Outlook> all) {
        return all.stream().reduce(NONE, Outlook::plus);
    }

    Outlook plus(Outlook o) {
        return new Outlook(
                breakdowns + o.breakdowns,
                jobs + o.jobs,
                atVisits + o.atVisits,
                pastTheBook + o.pastTheBook,
                costMinor + o.costMinor,
                hours + o.hours);
    }

    /** This outlook of a sample, for {@code factor} times as many vehicles. */
    public Outlook times(double factor) {
        return new Outlook(
                breakdowns * factor,
                jobs * factor,
                atVisits * factor,
                pastTheBook * factor,
                costMinor * factor,
                hours * factor);
    }
}
