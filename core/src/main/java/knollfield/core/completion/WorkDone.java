package knollfield.core.completion;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;

/**
 * A signed job, as it is counted.
 *
 * @param timeliness of the drive's renewal; empty for work that renews no belt or chain
 * @param bookMinutes labour by the book
 * @param spent what it took; empty where nobody has said so
 * @param estimatedMinor what its newest estimate said, minor units before tax; empty where none was made
 */
public record WorkDone(
        Optional<Timeliness> timeliness, int bookMinutes, Optional<Spent> spent, OptionalLong estimatedMinor) {

    /** @param costMinor labour at the rate and parts, minor units before tax */
    public record Spent(int minutes, long costMinor) {}

    /** Both an estimate and what it took are on file. */
    public boolean isComparable() {
        return spent.isPresent() && estimatedMinor.isPresent();
    }

    /**
     * What jobs come to.
     *
     * @param counted jobs whose time is on file
     * @param bookMinutes of these
     * @param takenMinutes of these
     * @param takenMinor of these, minor units before tax
     * @param compared jobs that have an estimate too
     * @param estimatedMinor of these
     * @param comparedMinor what these took
     */
    public record Sums(
            int jobs,
            List<Timeliness> timeliness,
            int counted,
            int bookMinutes,
            int takenMinutes,
            long takenMinor,
            int compared,
            long estimatedMinor,
            long comparedMinor) {

        public Sums {
            timeliness = List.copyOf(timeliness);
        }

        /** Renewals that came out so. */
        public int of(Timeliness which) {
            return (int) timeliness.stream().filter(t -> t == which).count();
        }

        /** Renewals that had a day to keep. */
        public int renewals() {
            return (int) timeliness.stream().filter(Timeliness::counts).count();
        }

        /** Share of these that kept it, 0 to 1; empty without any. */
        public Optional<Double> inTimeShare() {
            return renewals() == 0 ? Optional.empty() : Optional.of((double) of(Timeliness.BEFORE_ACT_BY) / renewals());
        }

        /** Time taken to that of the book; empty where one of them is not known. */
        public Optional<Double> takenToBook() {
            return bookMinutes == 0 ? Optional.empty() : Optional.of((double) takenMinutes / bookMinutes);
        }
    }

    public static Sums sums(Collection<WorkDone> jobs) {
        List<WorkDone> counted =
                jobs.stream().filter(j -> j.spent().isPresent()).toList();
        List<WorkDone> compared = jobs.stream().filter(WorkDone::isComparable).toList();
        return new Sums(
                jobs.size(),
                jobs.stream().flatMap(j -> j.timeliness().stream()).toList(),
                counted.size(),
                counted.stream().mapToInt(WorkDone::bookMinutes).sum(),
                counted.stream()
                        .mapToInt(j -> j.spent().orElseThrow().minutes())
                        .sum(),
                costs(counted),
                compared.size(),
                compared.stream()
                        .mapToLong(j -> j.estimatedMinor().orElseThrow())
                        .sum(),
                costs(compared));
    }

    private static long costs(List<WorkDone> jobs) {
        return jobs.stream().mapToLong(j -> j.spent().orElseThrow().costMinor()).sum();
    }
}
