package knollfield.core.bundle;

/** What a part's life costs (rules.md section 5). */
public final class Grade {

    private Grade() {}

    /** Make of a part. */
    public enum Kind {
        ORIGINAL("original"),
        EQUAL("of equal grade"),
        PLAIN("plain");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * Cost for each 10,000 km: (price + its share of labour) / expected life in 10,000 km.
     *
     * @param priceMinor minor units, zero or more
     * @param labourMinor its share of labour, minor units, zero or more
     * @param expectedKm life, km, above zero
     * @return minor units, not rounded
     */
    public static double costPer10000Km(long priceMinor, long labourMinor, int expectedKm) {
        if (priceMinor < 0 || labourMinor < 0 || expectedKm <= 0) {
            throw new IllegalArgumentException(
                    "price (%d) and labour (%d) must be zero or more, the expected life (%d km) above zero"
                            .formatted(priceMinor, labourMinor, expectedKm));
        }
        return (priceMinor + labourMinor) / (expectedKm / 10_000.0);
    }
}
