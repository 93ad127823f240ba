package knollfield.core.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;

/**
 * Whether a loop as drawn can be the one that the book describes: its length against its teeth, its wheels against each
 * other, its tensioner on the slack side.
 *
 * @param lengthMm along the pitch line over all wheels, mm
 * @param pitchMm of the crank sprocket: circumference of its pitch circle over its teeth, mm
 * @param wrong what does not fit, one sentence each; empty where all of it does
 */
public record LoopFit(double lengthMm, double pitchMm, List<String> wrong) {

    /** Sprockets whose pitch differs more than this from the crank's do not carry the same loop. */
    private static final double PITCH_TOLERANCE = 0.02;

    /** A drawing may be so far off, in teeth, as the tensioner takes up that much. */
    private static final double TEETH_TOLERANCE = 1.5;

    /** A wheel that the loop wraps less than this does nothing, degrees. */
    private static final double LEAST_WRAP_DEGREES = 3;

    /** A wheel on the back of a loop turns it back at most half a turn. */
    private static final double MOST_OUTSIDE_DEGREES = 180;

    /** A wheel inside a loop is wrapped no further than where two crossing runs would meet. */
    private static final double MOST_INSIDE_DEGREES = 270;

    public LoopFit {
        wrong = List.copyOf(wrong);
    }

    /** Teeth or links that the wheels as placed take. */
    public double teethNeeded() {
        return lengthMm / pitchMm;
    }

    /**
     * The fit of a loop. Its length is the sum of the free runs, each tangent to two wheels, and of the arcs between them:
     * two wheels that are passed the same way touch an open run of √(D² − (r₁ − r₂)²), two passed opposite ways a crossed
     * one of √(D² − (r₁ + r₂)²) (open and crossed belts; Shigley, <i>Mechanical Engineering Design</i>, section 17).
     */
    public static LoopFit of(BeltPath path) {
        List<Pulley> wheels = path.pulleys();
        Pulley crank = wheels.stream()
                .filter(p -> p.role() == Pulley.Role.CRANK)
                .findFirst()
                .orElseThrow();
        double pitch = pitch(crank);
        List<String> wrong = new ArrayList<>();
        overlaps(wheels, wrong);
        for (Pulley p : wheels) {
            if (p.teeth() > 0 && Math.abs(pitch(p) / pitch - 1) > PITCH_TOLERANCE) {
                wrong.add("%s: %d teeth at a radius of %s mm have a pitch of %s mm, the crank's is %s mm."
                        .formatted(p.name(), p.teeth(), figure(p.radiusMm()), figure(pitch(p)), figure(pitch)));
            }
        }
        OptionalDouble length = length(path, wrong);
        if (length.isEmpty()) {
            return new LoopFit(0, pitch, wrong);
        }
        double needed = length.getAsDouble() / pitch;
        if (Math.abs(needed - path.teeth()) > TEETH_TOLERANCE) {
            wrong.add("The wheels as placed take %s teeth or links of %s mm, the loop has %d."
                    .formatted(figure(needed), figure(pitch), path.teeth()));
        }
        tensioner(path, wrong);
        return new LoopFit(length.getAsDouble(), pitch, wrong);
    }

    private static double pitch(Pulley sprocket) {
        return 2 * Math.PI * sprocket.radiusMm() / sprocket.teeth();
    }

    private static String figure(double value) {
        return String.format(Locale.ROOT, "%.1f", value);
    }

    private static void overlaps(List<Pulley> wheels, List<String> wrong) {
        for (int i = 0; i < wheels.size(); i++) {
            for (int k = i + 1; k < wheels.size(); k++) {
                Pulley a = wheels.get(i);
                Pulley b = wheels.get(k);
                if (Math.hypot(b.x() - a.x(), b.y() - a.y()) < a.radiusMm() + b.radiusMm()) {
                    wrong.add("%s and %s stand in each other.".formatted(a.name(), b.name()));
                }
            }
        }
    }

    /** Empty where two wheels lie so that no run goes between them. */
    private static OptionalDouble length(BeltPath path, List<String> wrong) {
        List<Pulley> wheels = path.pulleys();
        int n = wheels.size();
        double[] heading = new double[n];
        double[] run = new double[n];
        for (int i = 0; i < n; i++) {
            Pulley a = wheels.get(i);
            Pulley b = wheels.get((i + 1) % n);
            double d = Math.hypot(b.x() - a.x(), b.y() - a.y());
            double across = signed(path, a) - signed(path, b);
            if (d <= Math.abs(across)) {
                wrong.add("No run goes from %s to %s: they lie in each other.".formatted(a.name(), b.name()));
                return OptionalDouble.empty();
            }
            heading[i] = Math.atan2(b.y() - a.y(), b.x() - a.x()) - Math.asin(across / d);
            run[i] = Math.sqrt(d * d - across * across);
        }
        double length = 0;
        for (int i = 0; i < n; i++) {
            Pulley p = wheels.get(i);
            double turned = heading[i] - heading[(i + n - 1) % n];
            double wrap = modulo(signed(path, p) > 0 ? -turned : turned);
            double degrees = Math.toDegrees(wrap);
            // a wheel that stands clear of the loop is gone round the wrong way
            if (degrees < LEAST_WRAP_DEGREES || degrees > (p.outside() ? MOST_OUTSIDE_DEGREES : MOST_INSIDE_DEGREES)) {
                wrong.add("The loop does not touch %s where it stands.".formatted(p.name()));
            }
            length += run[i] + wrap * p.radiusMm();
        }
        return OptionalDouble.of(length);
    }

    /** Radius, above zero where the loop passes the wheel clockwise. */
    private static double signed(BeltPath path, Pulley p) {
        return (path.clockwise() != p.outside() ? 1 : -1) * p.radiusMm();
    }

    private static double modulo(double angle) {
        double turn = 2 * Math.PI;
        return ((angle % turn) + turn) % turn;
    }

    private static void tensioner(BeltPath path, List<String> wrong) {
        List<TimingGeometry.Run> runs = TimingGeometry.runs(path);
        path.pulleys().stream()
                .filter(p -> p.role() == Pulley.Role.TENSIONER)
                .filter(p -> runs.stream()
                        .filter(r -> r.from().equals(p.code()) || r.to().equals(p.code()))
                        .anyMatch(r -> r.pull() == TimingGeometry.Pull.TIGHT))
                .forEach(p -> wrong.add(
                        "%s sits in a run that the crank pulls; it belongs where the loop comes off the crank."
                                .formatted(p.name())));
    }
}
