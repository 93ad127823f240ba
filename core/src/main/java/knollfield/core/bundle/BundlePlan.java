package knollfield.core.bundle;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.core.explain.Statement;

/**
 * What goes into a job, what each line costs now and if it is left, and what each school would do.
 *
 * @param bundle the job as it stands, with the person's decisions
 * @param lines of the items, in the book's order
 * @param schools what each would do without decisions, in the order of {@link School}
 * @param nextOpening the day up to which leaving is counted
 * @param whyThen what makes it that day
 * @param laterOn when the items left that fall due before then are planned together; empty where there are none
 */
public record BundlePlan(
        Bundle bundle,
        List<Line> lines,
        List<OfSchool> schools,
        LocalDate nextOpening,
        Statement whyThen,
        Optional<LocalDate> laterOn) {

    public BundlePlan {
        lines = List.copyOf(lines);
        schools = List.copyOf(schools);
    }

    /**
     * The money of a line, minor units.
     *
     * @param nowMinor what it adds to the job, or would add
     * @param laterMinor what leaving it is expected to cost until the next opening
     * @param priced false where nobody can say what leaving it costs; {@code laterMinor} is zero then
     * @param reusable required, but may be left with a reason and an inspection
     * @param limitOn the day its own limit is reached; empty where it has none within 60 years
     * @param reason in one sentence with figures
     */
    public record Line(
            BundleLine line,
            long nowMinor,
            long laterMinor,
            boolean priced,
            boolean reusable,
            Optional<Decision> decision,
            Optional<LocalDate> limitOn,
            Statement reason) {

        /** What doing it now saves; below zero where leaving it is cheaper. */
        public long savingMinor() {
            return laterMinor - nowMinor;
        }
    }

    /**
     * What one school would do.
     *
     * @param partsMinor parts of the job
     * @param minutes labour of the job
     * @param nowMinor parts and labour
     * @param laterMinor what is expected to follow until the next opening from what it leaves
     */
    public record OfSchool(
            School school, Set<String> items, long partsMinor, int minutes, long nowMinor, long laterMinor) {

        public OfSchool {
            items = Set.copyOf(items);
        }

        public long totalMinor() {
            return nowMinor + laterMinor;
        }
    }

    /** Lines by item code. */
    public Map<String, Line> byCode() {
        return lines.stream()
                .collect(java.util.stream.Collectors.toMap(l -> l.line().code(), l -> l));
    }
}
