package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.List;

/** The order in which the bolts of a ring or row are tightened. */
final class BoltPattern {

    private BoltPattern() {}

    /**
     * Bolts numbered 1 to {@code bolts} around the pattern, in crosswise order: each next one lies as far as can be from
     * those before it. Common practice, no source.
     */
    static List<Integer> crosswise(int bolts) {
        List<Integer> order = new ArrayList<>();
        order.add(1);
        while (order.size() < bolts) {
            int best = 0;
            int farthest = -1;
            for (int bolt = 1; bolt <= bolts; bolt++) {
                if (order.contains(bolt)) {
                    continue;
                }
                int last = apart(bolt, order.get(order.size() - 1), bolts);
                int nearest = bolts;
                for (int placed : order) {
                    nearest = Math.min(nearest, apart(bolt, placed, bolts));
                }
                int far = nearest * bolts + last;
                if (far > farthest) {
                    farthest = far;
                    best = bolt;
                }
            }
            order.add(best);
        }
        return order;
    }

    private static int apart(int a, int b, int bolts) {
        int between = Math.abs(a - b);
        return Math.min(between, bolts - between);
    }
}
