package knollfield.core.calculator;

import java.util.OptionalDouble;

/**
 * What is in the system after part of it was renewed.
 *
 * @param keptLitres what stayed in, zero or more
 * @param keptShare share of concentrate in it, 0 to 1
 * @param newLitres what goes in, zero or more
 * @param newShare share of concentrate in that, 0 to 1
 */
public record CoolantMix(double keptLitres, double keptShare, double newLitres, double newShare) {

    public CoolantMix {
        if (!(keptLitres >= 0) || !(newLitres >= 0) || keptLitres > 1_000 || newLitres > 1_000) {
            throw new IllegalArgumentException("volumes are 0 to 1,000 litres");
        }
        if (!(keptShare >= 0 && keptShare <= 1) || !(newShare >= 0 && newShare <= 1)) {
            throw new IllegalArgumentException("shares of concentrate are 0 to 1");
        }
    }

    /** c_end = (V_kept·c_old + V_new·c_new)/(V_kept + V_new); empty without any volume. */
    public OptionalDouble share() {
        double volume = keptLitres + newLitres;
        return volume == 0
                ? OptionalDouble.empty()
                : OptionalDouble.of((keptLitres * keptShare + newLitres * newShare) / volume);
    }

    /**
     * Litres of pure concentrate among {@code newLitres}, the rest water, that bring the whole to {@code wanted}; may be
     * more than there is room for, or less than none.
     */
    public OptionalDouble concentrateFor(double wanted) {
        return newLitres == 0
                ? OptionalDouble.empty()
                : OptionalDouble.of(wanted * (keptLitres + newLitres) - keptLitres * keptShare);
    }
}
