package knollfield.app.settings;

/**
 * One planning assumption that Setup shows and lets a manager change.
 *
 * @param name stable key, such as {@code odometer.maxKmPerDay}
 * @param group heading under which it stands
 * @param words what it is
 * @param unit of {@code usual}, such as km a day; may be empty
 * @param usual value where nobody has changed it
 * @param min smallest value taken
 * @param max largest value taken
 * @param whole only whole numbers
 */
public record Assumption(
        String name, String group, String words, String unit, double usual, double min, double max, boolean whole) {}
