package knollfield.core.jobcard;

import knollfield.core.engine.TorqueSpec;
import knollfield.core.units.Torque;
import knollfield.core.units.TorqueUnit;

/** Torques as people read them. */
public final class TorqueWords {

    private static final double POUND_INCHES_BELOW_NM = 20;

    private TorqueWords() {}

    /** Such as 130 N·m + 90°. */
    public static String of(TorqueSpec spec) {
        return newtonMetres(spec.torque()) + angle(spec);
    }

    /** Such as 130 N·m (96 lb·ft) + 90°. */
    public static String inBothUnits(TorqueSpec spec) {
        return inBothUnits(spec.torque()) + angle(spec);
    }

    /** Newton metres with pound-feet, or pound-inches where it is little. */
    static String inBothUnits(Torque torque) {
        TorqueUnit other =
                torque.newtonMetres() < POUND_INCHES_BELOW_NM ? TorqueUnit.POUND_INCH : TorqueUnit.POUND_FOOT;
        return "%s (%s %s)".formatted(newtonMetres(torque), Math.round(torque.in(other)), other.symbol());
    }

    private static String newtonMetres(Torque torque) {
        return CardSteps.number(torque.newtonMetres()) + " N·m";
    }

    private static String angle(TorqueSpec spec) {
        return spec.angleDegrees().isPresent()
                ? " + %d°".formatted(spec.angleDegrees().getAsInt())
                : "";
    }
}
