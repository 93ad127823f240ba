package knollfield.core.bundle;

/**
 * Money in sixtieths of a minor unit: minutes at an hourly rate in minor units are whole numbers of them, so sums that mix
 * labour and parts stay exact.
 */
public final class Sixtieths {

    private static final long IN_ONE = 60;

    private Sixtieths() {}

    /** A price in minor units. */
    public static long ofMinor(long minor) {
        return IN_ONE * minor;
    }

    /** {@code minutes} at a rate in minor units an hour. */
    public static long ofLabour(int minutes, long ratePerHourMinor) {
        return minutes * ratePerHourMinor;
    }

    /** Minor units, half a unit rounded up. */
    public static long toMinor(long sixtieths) {
        return Math.floorDiv(sixtieths + IN_ONE / 2, IN_ONE);
    }
}
