package knollfield.core.engine;

import java.util.ArrayList;
import java.util.List;

/** Places the wheels of a loop so that the drawing takes the teeth the loop has. */
public final class LoopLayout {

    /** How far a wheel on the back presses the loop in, mm. */
    private static final double PRESSED_MM = 9;

    private static final double NEAREST = 0.3;
    private static final double FURTHEST = 6;
    private static final int HALVINGS = 60;

    private LoopLayout() {}

    /**
     * The same wheels in the same order: sprockets higher or lower over the crank by one share, or where that does not do,
     * nearer or further by it, and smooth wheels against the run they stand in. Where no share gives the teeth, the loop as it was.
     */
    public static BeltPath fitted(BeltPath path) {
        BeltPath upward = fitted(path, false);
        BeltPath fitted = LoopFit.of(upward).wrong().isEmpty() ? upward : fitted(path, true);
        return LoopFit.of(fitted).wrong().isEmpty() ? rounded(fitted) : path;
    }

    private static BeltPath fitted(BeltPath path, boolean sideways) {
        double low = NEAREST;
        double high = FURTHEST;
        for (int i = 0; i < HALVINGS; i++) {
            double middle = (low + high) / 2;
            if (LoopFit.of(placed(path, middle, sideways ? middle : 1)).teethNeeded() < path.teeth()) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return placed(path, high, sideways ? high : 1);
    }

    private static BeltPath with(BeltPath path, List<Pulley> wheels) {
        return new BeltPath(path.teeth(), path.clockwise(), path.intermediate(), wheels);
    }

    /** To a tenth of a millimetre, as somebody would type it. */
    private static BeltPath rounded(BeltPath path) {
        return with(
                path,
                path.pulleys().stream()
                        .map(p -> at(p, Math.round(10 * p.x()) / 10.0, Math.round(10 * p.y()) / 10.0))
                        .toList());
    }

    private static Pulley at(Pulley p, double x, double y) {
        return new Pulley(p.code(), p.name(), p.role(), x, y, p.teeth(), p.radiusMm(), p.outside(), p.marked());
    }

    private static BeltPath placed(BeltPath path, double up, double aside) {
        List<Pulley> wheels = new ArrayList<>();
        List<Pulley> all = path.pulleys();
        int n = all.size();
        for (int i = 0; i < n; i++) {
            Pulley p = all.get(i);
            if (p.teeth() > 0) {
                wheels.add(at(p, aside * p.x(), up * p.y()));
                continue;
            }
            int back = 1;
            while (all.get((i + n - back) % n).teeth() == 0) {
                back++;
            }
            int on = 1;
            while (all.get((i + on) % n).teeth() == 0) {
                on++;
            }
            Pulley from = all.get((i + n - back) % n);
            Pulley to = all.get((i + on) % n);
            wheels.add(against(
                    path,
                    p,
                    at(from, aside * from.x(), up * from.y()),
                    at(to, aside * to.x(), up * to.y()),
                    back / (double) (back + on)));
        }
        return with(path, wheels);
    }

    /** A smooth wheel at a share of the run from one sprocket to the next, pressing it in. */
    private static Pulley against(BeltPath path, Pulley p, Pulley from, Pulley to, double share) {
        double side = path.clockwise() ? 1 : -1;
        double dx = to.x() - from.x();
        double dy = to.y() - from.y();
        double d = Math.hypot(dx, dy);
        double across = side * (from.radiusMm() - to.radiusMm());
        double heading = Math.atan2(dy, dx) - Math.asin(Math.max(-1, Math.min(1, across / d)));
        // to the left of a clockwise loop lies its outside
        double nx = -side * Math.sin(heading);
        double ny = side * Math.cos(heading);
        double startX = from.x() + from.radiusMm() * nx;
        double startY = from.y() + from.radiusMm() * ny;
        double run = Math.sqrt(Math.max(0, d * d - across * across));
        double off = (p.outside() ? 1 : -1) * p.radiusMm() + (p.outside() ? -PRESSED_MM : PRESSED_MM);
        return at(
                p,
                startX + share * run * Math.cos(heading) + off * nx,
                startY + share * run * Math.sin(heading) + off * ny);
    }
}
