package knollfield.core.calculator;

import java.util.Locale;

/** Tightening angles as they are seen on a hexagon. */
public final class TurnedAngle {

    /** One flat of a hexagon, degrees. */
    public static final int FLAT = 60;

    private TurnedAngle() {}

    /** How many flats {@code degrees} are: 60° is one, 90° one and a half. */
    public static double flats(double degrees) {
        if (!(degrees > 0) || Double.isInfinite(degrees)) {
            throw new IllegalArgumentException("an angle is above zero, not " + degrees);
        }
        return degrees / FLAT;
    }

    /** The angle as a mark on the socket shows it, such as {@code a quarter turn, 1.5 flats}. */
    public static String words(double degrees) {
        double flats = flats(degrees);
        String count = flats == Math.rint(flats)
                ? String.format(Locale.ROOT, "%.0f %s", flats, flats == 1 ? "flat" : "flats")
                : "%s flats".formatted(strip(flats));
        double turn = degrees / 360;
        String part = turn == 0.25
                ? "a quarter turn, "
                : turn == 0.5
                        ? "half a turn, "
                        : turn == 0.75 ? "three quarters of a turn, " : turn == 1 ? "a whole turn, " : "";
        return part + count;
    }

    private static String strip(double value) {
        return new java.math.BigDecimal(value)
                .setScale(2, java.math.RoundingMode.HALF_UP)
                .stripTrailingZeros()
                .toPlainString();
    }
}
