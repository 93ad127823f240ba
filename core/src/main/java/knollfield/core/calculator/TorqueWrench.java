package knollfield.core.calculator;

import knollfield.core.units.Torque;

/**
 * A torque wrench.
 *
 * @param lengthMm from the middle of the grip to the square, above zero, mm
 */
public record TorqueWrench(Torque most, double lengthMm) {

    /** A wrench is trusted from this share of its range on. Common practice, no source. */
    public static final double LEAST_SHARE = 0.20;

    public TorqueWrench {
        if (!(most.newtonMetres() > 0) || !(lengthMm > 0)) {
            throw new IllegalArgumentException("a wrench needs a range and a length above zero");
        }
    }

    /** How a torque lies in the wrench's range. */
    public enum Fit {
        TOO_SMALL("below a fifth of its range: take a smaller wrench"),
        GOOD("in its range"),
        TOO_GREAT("above its range: take a larger wrench");

        private final String words;

        Fit(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Whether {@code torque} lies in 20 to 100 % of the range, ends included. */
    public Fit fit(Torque torque) {
        if (torque.newtonMetres() > most.newtonMetres() * (1 + 1e-9)) {
            return Fit.TOO_GREAT;
        }
        return torque.newtonMetres() < most.newtonMetres() * LEAST_SHARE * (1 - 1e-9) ? Fit.TOO_SMALL : Fit.GOOD;
    }

    /**
     * What to set with a crowfoot in line with the wrench: T · L/(L + E). At a right angle to the wrench the extension
     * does not count.
     *
     * @param extensionMm E, from the square to the middle of the fastener, mm; below zero where the crowfoot is turned back
     *     towards the grip, and then shorter than the wrench
     */
    public Torque settingWithCrowfoot(Torque wanted, double extensionMm) {
        if (!(extensionMm > -lengthMm) || Double.isInfinite(extensionMm)) {
            throw new IllegalArgumentException("an extension turned back is shorter than the wrench (%s mm), not %s"
                    .formatted(lengthMm, extensionMm));
        }
        return new Torque(wanted.newtonMetres() * lengthMm / (lengthMm + extensionMm));
    }
}
