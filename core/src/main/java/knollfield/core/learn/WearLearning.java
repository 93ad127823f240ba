package knollfield.core.learn;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import knollfield.core.risk.WearModel;

/**
 * What known lives say about wear (rules.md section 4): h₀ ~ Gamma(6, 6/0.0202027); β on a grid from 2.5 to 6 by 0.25 with
 * prior ∝ exp(−½(ln(β/4)/0.12)²). With n failures and b = 6/0.0202027 the weight of β is
 * prior · Π_fail g · (b + ΣΔG)^−(6+n), and h₀ given β is Gamma(6 + n, b + ΣΔG).
 *
 * @param lives how many it rests on, at least one
 * @param failures of them
 * @param hazardAtLimits h₀, cumulative hazard when both limits are reached
 * @param shape β
 */
public record WearLearning(int lives, int failures, Span hazardAtLimits, Span shape) {

    /** Weighs as much as so many failures seen. */
    private static final int PRIOR_FAILURES = 6;

    private static final double SHAPE_SPREAD = 0.12;
    private static final double[] SHAPES = grid();

    /**
     * A figure and how sure it is.
     *
     * @param mean weighted mean
     * @param low below it with a chance of 10 %
     * @param high above it with a chance of 10 %
     */
    public record Span(double mean, double low, double high) {
        private Span through(DoubleUnaryOperator growing) {
            return new Span(growing.applyAsDouble(mean), growing.applyAsDouble(low), growing.applyAsDouble(high));
        }
    }

    /** From all lives that are known; empty where there is none. */
    public static Optional<WearLearning> of(List<DriveLife> lives) {
        return of(lives, SHAPES);
    }

    /** The same where the shape is certain, above zero. */
    static Optional<WearLearning> atShape(List<DriveLife> lives, double shape) {
        return of(lives, new double[] {shape});
    }

    private static Optional<WearLearning> of(List<DriveLife> lives, double[] shapes) {
        if (lives.isEmpty()) {
            return Optional.empty();
        }
        WearModel assumed = WearModel.defaults();
        double prior = PRIOR_FAILURES / assumed.hazardAtLimits();
        int failures = (int) lives.stream().filter(DriveLife::failed).count();
        int events = PRIOR_FAILURES + failures;
        double[] total = new double[shapes.length];
        double[] logWeight = new double[shapes.length];
        for (int i = 0; i < shapes.length; i++) {
            double shape = shapes[i];
            double away = Math.log(shape / assumed.shape()) / SHAPE_SPREAD;
            total[i] = prior;
            logWeight[i] = -away * away / 2;
            for (DriveLife life : lives) {
                total[i] += life.wear(shape);
                if (life.failed()) {
                    // one that failed unused says nothing of the shape, and must not make every shape impossible
                    logWeight[i] += Math.log(Math.max(1e-12, life.used().wearPerYear(shape, life.perYear())));
                }
            }
            logWeight[i] -= events * Math.log(total[i]);
        }
        double[] weight = normalised(logWeight);
        double hazard = 0;
        double shape = 0;
        for (int i = 0; i < shapes.length; i++) {
            hazard += weight[i] * events / total[i];
            shape += weight[i] * shapes[i];
        }
        DoubleUnaryOperator below = h -> {
            double sum = 0;
            for (int i = 0; i < shapes.length; i++) {
                sum += weight[i] * Erlang.below(events, total[i] * h);
            }
            return sum;
        };
        return Optional.of(new WearLearning(
                lives.size(),
                failures,
                new Span(hazard, quantile(below, 0.1, hazard), quantile(below, 0.9, hazard)),
                new Span(shape, quantile(shapes, weight, 0.1), quantile(shapes, weight, 0.9))));
    }

    /** p₀ = 1 − exp(−h₀): share of drives failed when both limits are reached. */
    public Span shareFailedAtLimits() {
        return hazardAtLimits.through(h -> -Math.expm1(-h));
    }

    /** What to reckon with where the workshop accepts it. */
    public WearModel wear() {
        return new WearModel(shareFailedAtLimits().mean(), shape.mean());
    }

    private static double[] grid() {
        double[] shapes = new double[15];
        for (int i = 0; i < shapes.length; i++) {
            shapes[i] = 2.5 + 0.25 * i;
        }
        return shapes;
    }

    private static double[] normalised(double[] logWeight) {
        double most = Arrays.stream(logWeight).max().orElseThrow();
        double[] weight = Arrays.stream(logWeight).map(w -> Math.exp(w - most)).toArray();
        double sum = Arrays.stream(weight).sum();
        return Arrays.stream(weight).map(w -> w / sum).toArray();
    }

    private static double quantile(DoubleUnaryOperator below, double chance, double about) {
        double low = 0;
        double high = about;
        while (below.applyAsDouble(high) < chance) {
            high *= 2;
        }
        for (int i = 0; i < 100; i++) {
            double middle = (low + high) / 2;
            if (below.applyAsDouble(middle) < chance) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return (low + high) / 2;
    }

    private static double quantile(double[] shapes, double[] weight, double chance) {
        double sum = 0;
        for (int i = 0; i < shapes.length; i++) {
            sum += weight[i];
            if (sum >= chance) {
                return shapes[i];
            }
        }
        return shapes[shapes.length - 1];
    }
}
