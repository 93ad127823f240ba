package knollfield.app.settings;

/**
 * One planning assumption that Setup shows and lets a manager change.
 *
 * @param name stable key, such as {@code odometer.maxKmPerDay}
 * @param group heading under which it stands
 * @param words what it is
 * @param unit of {@code usual}, {@code min} and {@code max}
 * @param usual value where nobody has changed it
 * @param min smallest value taken
 * @param max largest value taken
 * @param whole only whole numbers
 */
public record Assumption(
        String name, String group, String words, Unit unit, double usual, double min, double max, boolean whole) {

    /** In what an assumption is counted, and how that is written. */
    public sealed interface Unit {

        /** A unit by its name, such as km a day; empty for a bare number. */
        record Named(String words) implements Unit {}

        /** A share, 0 to 1, written in per cent of what {@code of} names; empty where that is plain. */
        record Share(String of) implements Unit {}

        /** Whole units of the workshop's currency, not minor ones. */
        record Money() implements Unit {}
    }

    /** What one is counted in on paper and screen, with the workshop's {@code currency} by ISO 4217. */
    public String unitWords(String currency) {
        if (unit instanceof Unit.Share share) {
            return share.of().isEmpty() ? "%" : "% of " + share.of();
        }
        return unit instanceof Unit.Named named ? named.words() : currency;
    }

    /** True where it is kept as a share and written in per cent. */
    public boolean isShare() {
        return unit instanceof Unit.Share;
    }

    /** An amount of it as people read it, without its unit. */
    String figure(double amount) {
        return WorkshopWords.number(isShare() ? 100 * amount : amount);
    }

    /** The same with its unit. */
    String written(double amount, String currency) {
        String words = unitWords(currency);
        return figure(amount) + (words.isEmpty() ? "" : " " + words);
    }
}
