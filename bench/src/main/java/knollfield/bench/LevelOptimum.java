package knollfield.bench;

import com.google.ortools.Loader;
import com.google.ortools.sat.CpModel;
import com.google.ortools.sat.CpSolver;
import com.google.ortools.sat.CpSolverStatus;
import com.google.ortools.sat.IntVar;
import com.google.ortools.sat.LinearExpr;
import com.google.ortools.sat.LinearExprBuilder;
import com.google.ortools.sat.Literal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.stream.IntStream;
import knollfield.core.fleet.Levelling;

/** Fleets of sixty made level, beside CP-SAT on the same question. */
public final class LevelOptimum {

    private static final int FLEETS = Integer.getInteger("fleets", 20);
    private static final int VEHICLES = 60;
    private static final int MONTHS = 24;
    private static final int DAY = 480;
    private static final double SECONDS = Double.parseDouble(System.getProperty("seconds", "20"));

    private LevelOptimum() {}

    /** @param args none */
    public static void main(String[] args) {
        Loader.loadNativeLibraries();
        int proven = 0;
        double worst = 0;
        double ours = 0;
        double theirs = 0;
        for (int seed = 1; seed <= FLEETS; seed++) {
            Random random = new Random(seed);
            List<Levelling.Vehicle> vehicles = vehicles(random);
            List<Levelling.Room> room = room(random, vehicles);
            long start = System.nanoTime();
            Levelling levelled = Levelling.of(vehicles, room, DAY);
            double seconds = (System.nanoTime() - start) / 1e9;
            ours += seconds;
            start = System.nanoTime();
            Solved solved = solve(vehicles, room);
            double outside = (System.nanoTime() - start) / 1e9;
            theirs += outside;
            boolean same = levelled.over().minutes() == solved.over();
            double gap = same && solved.cost() > 0 ? 100.0 * (levelled.costMinor() - solved.cost()) / solved.cost() : 0;
            double said = levelled.costMinor() > 0
                    ? 100.0 * (levelled.costMinor() - levelled.leastMinor()) / levelled.costMinor()
                    : 0;
            worst = Math.max(worst, gap);
            proven += levelled.isBest() ? 1 : 0;
            System.out.printf(
                    Locale.ROOT,
                    "fleet %2d: over %5d min (outside %5d), cost %6d (outside %6d, %s): gap %.2f %%, said at most %.2f %%;"
                            + " %.2f s, outside %.2f s%n",
                    seed,
                    levelled.over().minutes(),
                    solved.over(),
                    levelled.costMinor(),
                    solved.cost(),
                    solved.optimal() ? "best" : "not proven",
                    gap,
                    said,
                    seconds,
                    outside);
        }
        System.out.printf(
                Locale.ROOT,
                "worked out to the end %d of %d, worst gap %.2f %%, time to the outside solver's %.2f%n",
                proven,
                FLEETS,
                worst,
                ours / theirs);
    }

    private static List<Levelling.Vehicle> vehicles(Random random) {
        List<Levelling.Vehicle> list = new ArrayList<>();
        int bought = 6 + random.nextInt(12);
        for (int i = 0; i < VEHICLES; i++) {
            int month =
                    random.nextInt(3) > 0 ? Math.min(MONTHS - 1, bought + random.nextInt(4)) : random.nextInt(MONTHS);
            long perMonth = 200 + random.nextInt(3_000);
            int bend = 1 + random.nextInt(3);
            List<Long> early = IntStream.range(0, month)
                    .mapToObj(m -> Math.round(perMonth * Math.pow(month - m, 1 + 0.2 * bend)))
                    .toList();
            boolean fast = month == 0 || random.nextInt(10) == 0;
            list.add(new Levelling.Vehicle(
                    month, 1 + random.nextInt(2), 180 + random.nextInt(500), fast ? List.of() : early));
        }
        return list;
    }

    /** A fifth more than the mean in days and in work: tight where most fall together. */
    private static List<Levelling.Room> room(Random random, List<Levelling.Vehicle> vehicles) {
        int days = vehicles.stream().mapToInt(Levelling.Vehicle::offRoadDays).sum() * 13 / 10 / MONTHS + 1;
        long minutes = vehicles.stream().mapToLong(Levelling.Vehicle::minutes).sum() * 13 / 10 / MONTHS;
        return IntStream.range(0, MONTHS)
                .mapToObj(m -> new Levelling.Room(days + random.nextInt(3), minutes + random.nextInt(600)))
                .toList();
    }

    private record Solved(long over, long cost, boolean optimal) {}

    private static Solved solve(List<Levelling.Vehicle> vehicles, List<Levelling.Room> room) {
        Model least = new Model(vehicles, room);
        least.model.minimize(least.over.build());
        CpSolver solver = solver();
        CpSolverStatus first = solver.solve(least.model);
        long over = Math.round(solver.objectiveValue());
        Model cheapest = new Model(vehicles, room);
        cheapest.model.addLessOrEqual(cheapest.over.build(), over);
        cheapest.model.minimize(cheapest.cost.build());
        CpSolver second = solver();
        CpSolverStatus then = second.solve(cheapest.model);
        return new Solved(
                over,
                Math.round(second.objectiveValue()),
                first == CpSolverStatus.OPTIMAL && then == CpSolverStatus.OPTIMAL);
    }

    private static CpSolver solver() {
        CpSolver solver = new CpSolver();
        solver.getParameters().setMaxTimeInSeconds(SECONDS);
        solver.getParameters().setNumWorkers(2);
        return solver;
    }

    /** The same question in the solver's words. */
    private static final class Model {
        final CpModel model = new CpModel();
        final LinearExprBuilder over = LinearExpr.newBuilder();
        final LinearExprBuilder cost = LinearExpr.newBuilder();

        Model(List<Levelling.Vehicle> vehicles, List<Levelling.Room> room) {
            List<LinearExprBuilder> days = new ArrayList<>();
            List<LinearExprBuilder> minutes = new ArrayList<>();
            room.forEach(r -> {
                days.add(LinearExpr.newBuilder());
                minutes.add(LinearExpr.newBuilder());
            });
            for (Levelling.Vehicle v : vehicles) {
                List<Literal> one = new ArrayList<>();
                for (int m = v.earlyMinor().isEmpty() ? v.month() : 0; m <= v.month(); m++) {
                    Literal here = model.newBoolVar("");
                    one.add(here);
                    days.get(m).addTerm(here, v.offRoadDays());
                    minutes.get(m).addTerm(here, v.minutes());
                    if (m < v.month()) {
                        cost.addTerm(here, v.earlyMinor().get(m));
                    }
                }
                model.addExactlyOne(one);
            }
            for (int m = 0; m < room.size(); m++) {
                IntVar tooManyDays = model.newIntVar(0, 1_000, "");
                IntVar tooMuchWork = model.newIntVar(0, 100_000, "");
                model.addLessOrEqual(
                        days.get(m).addTerm(tooManyDays, -1).build(),
                        room.get(m).vehicleDays());
                model.addLessOrEqual(
                        minutes.get(m).addTerm(tooMuchWork, -1).build(),
                        room.get(m).minutes());
                over.addTerm(tooManyDays, DAY);
                over.addTerm(tooMuchWork, 1);
            }
        }
    }
}
