package knollfield.core.engine;

import java.util.List;

/**
 * What is sold together.
 *
 * @param items codes of the items whose parts it holds
 * @param leavesOut what the job needs and the kit lacks, in words
 * @param priceMinor minor units, zero or more
 */
public record Kit(String number, String name, List<String> items, String leavesOut, long priceMinor) {
    public Kit {
        items = List.copyOf(items);
        if (priceMinor < 0) {
            throw new IllegalArgumentException("kit %s: price must be zero or more".formatted(number));
        }
    }
}
