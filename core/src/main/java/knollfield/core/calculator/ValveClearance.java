package knollfield.core.calculator;

import knollfield.core.engine.Handling.Clearance;

/**
 * A measured valve clearance set against its limits.
 *
 * @param offByMm over the upper limit where positive, under the lower one where negative, else zero; mm
 */
public record ValveClearance(double measuredMm, Clearance limits, double offByMm) {

    public static ValveClearance of(double measuredMm, Clearance limits) {
        if (!(measuredMm >= 0) || measuredMm > 5) {
            throw new IllegalArgumentException("a clearance is 0 to 5 mm, not " + measuredMm);
        }
        double off =
                measuredMm > limits.highMm() ? measuredMm - limits.highMm() : Math.min(measuredMm - limits.lowMm(), 0);
        return new ValveClearance(measuredMm, limits, Math.abs(off) < 1e-9 ? 0 : off);
    }

    public boolean good() {
        return offByMm == 0;
    }

    /**
     * Thickness of the shim that brings the clearance to the middle of its limits: the present one, thicker by what the
     * clearance is too wide. Common practice, no source.
     */
    public double shimFor(double presentShimMm) {
        return presentShimMm + measuredMm - (limits.lowMm() + limits.highMm()) / 2;
    }
}
