package knollfield.core.engine;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;

/** What follows from teeth, links and throws (rules.md section 7). */
public final class TimingGeometry {

    private TimingGeometry() {}

    /** Angle of one tooth out, degrees of that sprocket: 360/Z. */
    public static double toothDegrees(int teeth) {
        if (teeth < 1) {
            throw new IllegalArgumentException("a sprocket needs teeth, not %d".formatted(teeth));
        }
        return 360.0 / teeth;
    }

    /**
     * Smallest whole number of crank turns after which every mark is back: the least common multiple of the
     * denominators of all {@code perCrankTurn}, each in lowest terms.
     *
     * @param perCrankTurn turns of each marked sprocket, and of each loop, for one crank turn
     */
    public static long markReturn(Collection<Ratio> perCrankTurn) {
        BigInteger k = BigInteger.ONE;
        for (Ratio r : perCrankTurn) {
            BigInteger d = BigInteger.valueOf(r.denominator());
            k = k.multiply(d.divide(k.gcd(d)));
        }
        return k.longValueExact();
    }

    /**
     * Piston travel below top dead centre, in the unit of {@code throwLength}: x = r(1 − cos θ) + l − √(l² − r² sin² θ)
     * (slider–crank; J. B. Heywood, <i>Internal Combustion Engine Fundamentals</i>).
     *
     * @param throwLength r, half the stroke, above zero
     * @param rod l, rod length between centres, above {@code throwLength}
     * @param degrees θ after top dead centre
     */
    public static double pistonTravel(double throwLength, double rod, double degrees) {
        if (!(throwLength > 0) || !(rod > throwLength)) {
            throw new IllegalArgumentException("the crank throw (%s) must be above zero and shorter than the rod (%s)"
                    .formatted(throwLength, rod));
        }
        double sin = throwLength * Math.sin(Math.toRadians(degrees));
        return throwLength * (1 - Math.cos(Math.toRadians(degrees))) + rod - Math.sqrt(rod * rod - sin * sin);
    }

    /** A stretch of the loop between two wheels. */
    public enum Pull {
        /** Pulled by the crank: no spare tooth may hide here. */
        TIGHT,
        /** Comes off the crank: the slack belongs here, at the tensioner. */
        SLACK
    }

    /**
     * A free run between two neighbouring wheels, in running direction.
     *
     * @param from code of the wheel it leaves
     * @param to code of the wheel it reaches
     */
    public record Run(String from, String to, Pull pull) {}

    /**
     * Runs in running order from the crank. The crank pulls the loop towards itself, so the runs that arrive at it are
     * tight, back to the first driven sprocket behind it; those from the crank on to that sprocket are slack.
     */
    public static List<Run> runs(BeltPath path) {
        List<Pulley> order = fromCrank(path);
        int firstDriven = 1;
        while (firstDriven < order.size() && !isDriven(order.get(firstDriven))) {
            firstDriven++;
        }
        List<Run> runs = new ArrayList<>();
        for (int i = 0; i < order.size(); i++) {
            Pulley from = order.get(i);
            Pulley to = order.get((i + 1) % order.size());
            runs.add(new Run(from.code(), to.code(), i < firstDriven ? Pull.SLACK : Pull.TIGHT));
        }
        return runs;
    }

    /** Names of the stretches between neighbouring toothed wheels, in running order from the crank. */
    public static List<String> toothedRuns(BeltPath path) {
        List<Pulley> toothed =
                fromCrank(path).stream().filter(p -> p.teeth() > 0).toList();
        List<String> runs = new ArrayList<>();
        for (int i = 0; i < toothed.size(); i++) {
            runs.add("%s to %s"
                    .formatted(
                            toothed.get(i).name(),
                            toothed.get((i + 1) % toothed.size()).name().toLowerCase(java.util.Locale.ROOT)));
        }
        return runs;
    }

    /**
     * Wheels in the order in which the loop is laid on: the crank first, then against the running direction over the
     * tight runs, so that all slack ends at the tensioner, which comes last.
     */
    public static List<Pulley> layingOn(BeltPath path) {
        List<Pulley> order = fromCrank(path);
        List<Pulley> laid = new ArrayList<>();
        laid.add(order.get(0));
        for (int i = order.size() - 1; i > 0; i--) {
            laid.add(order.get(i));
        }
        laid.sort((a, b) -> Boolean.compare(a.role() == Pulley.Role.TENSIONER, b.role() == Pulley.Role.TENSIONER));
        return laid;
    }

    private static boolean isDriven(Pulley p) {
        return p.teeth() > 0 && p.role() != Pulley.Role.IDLER && p.role() != Pulley.Role.TENSIONER;
    }

    private static List<Pulley> fromCrank(BeltPath path) {
        int crank = 0;
        while (path.pulleys().get(crank).role() != Pulley.Role.CRANK) {
            crank++;
        }
        List<Pulley> order = new ArrayList<>();
        for (int i = 0; i < path.pulleys().size(); i++) {
            order.add(path.pulleys().get((crank + i) % path.pulleys().size()));
        }
        return order;
    }
}
