package knollfield.core.bundle;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What goes into a job.
 *
 * @param lines items first, in the book's order, then what follows from the joints opened
 * @param labour union of the items that are in
 */
public record Bundle(List<BundleLine> lines, Labour labour) {

    public Bundle {
        lines = List.copyOf(lines);
    }

    /** Codes of the items that are renewed. */
    public Set<String> items() {
        return lines.stream()
                .filter(l -> l.included() && l.kind() == BundleLine.Kind.ITEM)
                .map(BundleLine::code)
                .collect(Collectors.toUnmodifiableSet());
    }

    /** Price of all parts that are in, minor units. */
    public long partsMinor() {
        return lines.stream()
                .filter(BundleLine::included)
                .mapToLong(BundleLine::partsMinor)
                .sum();
    }

    /** Labour at {@code ratePerHourMinor}, minor units, half a unit rounded up. */
    public long labourMinor(long ratePerHourMinor) {
        return Sixtieths.toMinor(Sixtieths.ofLabour(labour.minutes(), ratePerHourMinor));
    }
}
