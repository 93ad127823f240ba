package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import knollfield.core.engine.build.Joint.BoltOrder;

/** The order in which the bolts of a ring or row are tightened. */
final class BoltPattern {

    private BoltPattern() {}

    /** How a pattern is gone over, such as "round from bolt 3, anticlockwise"; crosswise where the book does not say. */
    static String words(Optional<BoltOrder> by) {
        return by.map(o -> switch (o.way()) {
                            case CROSSWISE -> "crosswise";
                            case ROUND -> "round";
                            case OUTWARDS -> "outwards";
                        }
                        + " from bolt %d, %s".formatted(o.start(), o.clockwise() ? "clockwise" : "anticlockwise"))
                .orElse("crosswise");
    }

    /** Bolts numbered 1 to {@code bolts} clockwise around the pattern, in the order of the book. */
    static List<Integer> of(int bolts, BoltOrder by) {
        List<Integer> fromFirst = switch (by.way()) {
            case CROSSWISE -> crosswise(bolts);
            case ROUND -> IntStream.rangeClosed(1, bolts).boxed().toList();
            case OUTWARDS -> outwards(bolts);
        };
        return fromFirst.stream()
                .map(n -> Math.floorMod(by.start() - 1 + (by.clockwise() ? n - 1 : 1 - n), bolts) + 1)
                .toList();
    }

    /** Bolt 1, its neighbours, then theirs. */
    private static List<Integer> outwards(int bolts) {
        List<Integer> order = new ArrayList<>();
        for (int away = 0; order.size() < bolts; away++) {
            order.add(away + 1);
            int other = bolts - away + 1;
            if (away > 0 && order.size() < bolts && other != away + 1) {
                order.add(other);
            }
        }
        return order;
    }

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
