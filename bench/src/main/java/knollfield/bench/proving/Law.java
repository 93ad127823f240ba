package knollfield.bench.proving;

import java.util.List;

/**
 * How drives really fail: H = −ln(1 − q)·(w·distance + (1 − w)·age)^shape × frailty, both as shares of the limits that fit
 * the real use. Not the law the product assumes, which takes the mean of two powers and knows no frailty.
 *
 * @param q share failed at the limits without frailty, 0 to 1
 * @param frailtySpread standard deviation of the logarithm of a drive's own factor
 */
record Law(String name, double q, double shape, double distanceWeight, double frailtySpread) {

    static List<Law> all() {
        return List.of(
                new Law("near the assumption: 3 % at the limits, shape 3.5", 0.03, 3.5, 0.6, 0.4),
                new Law("weaker: 6 % at the limits, shape 2.5", 0.06, 2.5, 0.6, 0.6),
                new Law("stronger: 1 % at the limits, shape 5", 0.01, 5, 0.6, 0.4));
    }

    double hazard(double distance, double age) {
        double used = distanceWeight * distance + (1 - distanceWeight) * age;
        return -Math.log(1 - q) * Math.pow(used, shape);
    }
}
