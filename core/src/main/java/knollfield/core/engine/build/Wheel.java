package knollfield.core.engine.build;

import java.util.Optional;

/**
 * A wheel on a shaft.
 *
 * @param shaft code of the shaft it sits on
 * @param floatDegrees how far a floating wheel turns on its shaft while its joint is slack; 0: not on file, or another
 *     wheel
 * @param joint code of the joint that makes it fast; empty where none does
 */
public record Wheel(String code, String name, String shaft, Fit fit, int floatDegrees, Optional<String> joint) {

    /** How a wheel sits on its shaft. */
    public enum Fit {
        /** By a key or a dowel: it cannot turn on its shaft. */
        KEYED,
        /** In slots: it turns by some degrees until its joint is tight. */
        FLOATING,
        /** By friction alone: it turns freely until its joint is tight. */
        FRICTION
    }

    public Wheel {
        if (fit == Fit.FLOATING ? floatDegrees < 0 || floatDegrees > 90 : floatDegrees != 0) {
            throw new IllegalArgumentException(
                    "wheel %s: only a floating wheel floats, by 0 to 90 degrees, not %d".formatted(code, floatDegrees));
        }
    }

    /** The same where nothing is known of how far it floats. */
    Wheel unmeasured() {
        return new Wheel(code, name, shaft, fit, 0, joint);
    }
}
