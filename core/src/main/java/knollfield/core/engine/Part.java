package knollfield.core.engine;

/**
 * A part as the book names it.
 *
 * @param quantity pieces, one or more
 * @param priceMinor price of one piece in minor units of the workshop's currency, zero or more
 */
public record Part(String number, String name, int quantity, long priceMinor) {

    public Part {
        if (quantity < 1 || priceMinor < 0) {
            throw new IllegalArgumentException("part %s: quantity %d must be at least 1 and price %d zero or more"
                    .formatted(number, quantity, priceMinor));
        }
    }

    /** Price of all pieces, minor units. */
    public long totalMinor() {
        return quantity * priceMinor;
    }
}
