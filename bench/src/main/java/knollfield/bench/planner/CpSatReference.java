package knollfield.bench.planner;

import com.google.ortools.Loader;
import com.google.ortools.sat.BoolVar;
import com.google.ortools.sat.CircuitConstraint;
import com.google.ortools.sat.CpModel;
import com.google.ortools.sat.CpSolver;
import com.google.ortools.sat.CpSolverStatus;
import com.google.ortools.sat.CumulativeConstraint;
import com.google.ortools.sat.IntVar;
import com.google.ortools.sat.IntervalVar;
import com.google.ortools.sat.LinearExpr;
import com.google.ortools.sat.LinearExprBuilder;
import com.google.ortools.sat.Literal;
import com.google.ortools.sat.TableConstraint;
import com.google.ortools.util.Domain;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import knollfield.core.plan.Place;

/**
 * The same problem for OR-Tools CP-SAT, an outside reference with a proven bound. A job and a technician have a table of the
 * starts that their days allow, with the end and the cost of each.
 */
public final class CpSatReference {

    private static final int PER_DAY = 16;

    private final Instance in;
    private final CpModel model = new CpModel();
    private final LinearExprBuilder cost = LinearExpr.newBuilder();
    private final List<Chosen> chosen = new ArrayList<>();
    private final Map<Integer, List<IntervalVar>> ofTech = new HashMap<>();
    private final Map<Integer, List<IntervalVar>> ofBay = new HashMap<>();
    private final Map<Integer, List<IntervalVar>> ofSet = new HashMap<>();
    private final Map<Integer, List<IntervalVar>> ofFleet = new HashMap<>();

    /** What the solver decides of one job. */
    private record Chosen(Instance.Job job, IntVar start, Map<Integer, BoolVar> techs, Map<Integer, BoolVar> bays) {}

    private CpSatReference(Instance in) {
        this.in = in;
    }

    /** @param args instance file, plan file, seconds */
    public static void main(String[] args) throws IOException {
        Loader.loadNativeLibraries();
        CpSatReference reference = new CpSatReference(Instance.read(Path.of(args[0])));
        reference.solve(Path.of(args[1]), Double.parseDouble(args[2]));
    }

    private void solve(Path planFile, double seconds) throws IOException {
        in.jobs().forEach(this::addJob);
        ofTech.values().forEach(model::addNoOverlap);
        ofBay.values().forEach(model::addNoOverlap);
        ofSet.forEach((family, all) -> capacity(all, in.families().get(family).kitCopies()));
        ofFleet.forEach((fleet, all) -> capacity(all, in.fleets().get(fleet).cap()));
        in.techs().forEach(t -> addChangeovers(t.id()));
        model.minimize(cost);
        hint();
        CpSolver solver = new CpSolver();
        solver.getParameters().setMaxTimeInSeconds(seconds).setNumWorkers(2);
        CpSolverStatus status = solver.solve(model);
        if (status != CpSolverStatus.OPTIMAL && status != CpSolverStatus.FEASIBLE) {
            System.out.printf(Locale.ROOT, "no plan found; bound %.0f%n", solver.bestObjectiveBound());
            return;
        }
        Map<Long, Place> places = new HashMap<>();
        for (Chosen c : chosen) {
            c.techs.forEach((tech, t) -> {
                if (solver.booleanValue(t)) {
                    c.bays.forEach((bay, b) -> {
                        if (solver.booleanValue(b)) {
                            places.put((long) c.job.id(), new Place(tech, bay, (int) solver.value(c.start)));
                        }
                    });
                }
            });
        }
        Instance.writePlan(planFile, places);
        System.out.printf(
                Locale.ROOT,
                "%s, cost %.0f, bound %.0f%n",
                status.toString().toLowerCase(Locale.ROOT),
                solver.objectiveValue(),
                solver.bestObjectiveBound());
    }

    /** Where the baseline's plan stands, so that the solver begins with one. */
    private void hint() {
        Map<Long, Place> greedy = Greedy.plan(in);
        for (Chosen c : chosen) {
            Place place = greedy.get((long) c.job.id());
            c.techs.forEach((t, here) -> model.addHint(here, place != null && place.technicianId() == t ? 1 : 0));
            c.bays.forEach((b, here) -> model.addHint(here, place != null && place.bayId() == b ? 1 : 0));
            if (place != null) {
                model.addHint(c.start, place.start());
            }
        }
    }

    private void capacity(List<IntervalVar> all, int most) {
        CumulativeConstraint constraint = model.addCumulative(most);
        all.forEach(i -> constraint.addDemand(i, 1));
    }

    private int end(Instance.Job job, Instance.Tech tech, int start) {
        int left = (job.durationSlots() * 100 + tech.speedPct() - 1) / tech.speedPct();
        int slot = start;
        while (left > 0 && slot < in.days() * PER_DAY) {
            left -= tech.daysOff().contains(slot / PER_DAY) ? 0 : 1;
            slot++;
        }
        return left > 0 ? -1 : slot;
    }

    private static long waiting(Instance.Job job, int day) {
        long sum = 0;
        for (int d = 0; d < day; d++) {
            sum += d < job.dueDay() ? job.dailyRisk() : 2L * job.dailyRisk();
        }
        return sum;
    }

    private List<long[]> starts(Instance.Job job, Instance.Tech tech) {
        List<long[]> rows = new ArrayList<>();
        for (int s = job.earliestDay() * PER_DAY; s < in.days() * PER_DAY; s++) {
            int e = tech.daysOff().contains(s / PER_DAY)
                            || (job.appointmentSlot() != null && job.appointmentSlot() != s)
                    ? -1
                    : end(job, tech, s);
            if (e < 0) {
                continue;
            }
            int first = s / PER_DAY;
            int last = (e - 1) / PER_DAY;
            if (job.blockedDays().stream().noneMatch(d -> first <= d && d <= last)) {
                rows.add(new long[] {
                    s, e, waiting(job, first) + (last - first + 1L) * job.offRoadPerDay(), first, last + 1
                });
            }
        }
        return rows;
    }

    private void addJob(Instance.Job job) {
        String name = "j" + job.id();
        int horizon = in.days() * PER_DAY;
        IntVar start = model.newIntVar(0, horizon, name + "s");
        IntVar end = model.newIntVar(0, horizon, name + "e");
        IntVar price = model.newIntVar(0, waiting(job, in.days()) + (long) in.days() * job.offRoadPerDay(), name + "c");
        IntVar firstDay = model.newIntVar(0, in.days(), name + "f");
        IntVar afterDay = model.newIntVar(0, in.days(), name + "l");
        Literal planned = model.newBoolVar(name + "p");
        Map<Integer, BoolVar> techs = new HashMap<>();
        for (Instance.Tech tech : in.techs()) {
            List<long[]> rows = tech.skills().containsAll(job.skills()) ? starts(job, tech) : List.of();
            if (rows.isEmpty()) {
                continue;
            }
            BoolVar here = model.newBoolVar(name + "t" + tech.id());
            TableConstraint table = model.addAllowedAssignments(new IntVar[] {start, end, price, firstDay, afterDay});
            rows.forEach(table::addTuple);
            table.onlyEnforceIf(here);
            IntVar size = model.newIntVarFromDomain(
                    Domain.fromValues(
                            rows.stream().mapToLong(r -> r[1] - r[0]).distinct().toArray()),
                    name + "z" + tech.id());
            ofTech.computeIfAbsent(tech.id(), t -> new ArrayList<>())
                    .add(model.newOptionalIntervalVar(start, size, end, here, name + "it" + tech.id()));
            techs.put(tech.id(), here);
        }
        model.addEquality(LinearExpr.sum(techs.values().toArray(Literal[]::new)), planned);
        Map<Integer, BoolVar> bays = new HashMap<>();
        IntVar length = model.newIntVar(0, horizon, name + "n");
        for (Instance.Bay bay : in.bays()) {
            if (bay.liftClass() >= job.liftClass()) {
                BoolVar here = model.newBoolVar(name + "b" + bay.id());
                ofBay.computeIfAbsent(bay.id(), b -> new ArrayList<>())
                        .add(model.newOptionalIntervalVar(start, length, end, here, name + "ib" + bay.id()));
                bays.put(bay.id(), here);
            }
        }
        model.addEquality(LinearExpr.sum(bays.values().toArray(Literal[]::new)), planned);
        ofSet.computeIfAbsent(job.family(), f -> new ArrayList<>())
                .add(model.newOptionalIntervalVar(start, length, end, planned, name + "is"));
        if (job.fleet() != null) {
            IntVar touched = model.newIntVar(0, in.days(), name + "d");
            ofFleet.computeIfAbsent(job.fleet(), f -> new ArrayList<>())
                    .add(model.newOptionalIntervalVar(firstDay, touched, afterDay, planned, name + "if"));
        }
        if (job.appointmentSlot() != null) {
            model.addEquality(planned, 1);
        }
        long left = waiting(job, in.days()) + in.unplannedPenalty();
        IntVar paid = model.newIntVar(0, left + (long) in.days() * job.offRoadPerDay(), name + "paid");
        model.addEquality(paid, price).onlyEnforceIf(planned);
        model.addEquality(paid, left).onlyEnforceIf(planned.not());
        cost.add(paid);
        chosen.add(new Chosen(job, start, techs, bays));
    }

    /** Who follows whom on one technician: a circuit through a depot; jobs of others loop on themselves. */
    private void addChangeovers(int tech) {
        List<Chosen> able =
                chosen.stream().filter(c -> c.techs.containsKey(tech)).toList();
        CircuitConstraint circuit = model.addCircuit();
        Literal idle = model.newBoolVar("idle" + tech);
        circuit.addArc(0, 0, idle);
        for (int i = 0; i < able.size(); i++) {
            Chosen a = able.get(i);
            circuit.addArc(i + 1, i + 1, a.techs.get(tech).not());
            model.addImplication(a.techs.get(tech), idle.not());
            circuit.addArc(0, i + 1, model.newBoolVar("first"));
            circuit.addArc(i + 1, 0, model.newBoolVar("last"));
            for (int k = 0; k < able.size(); k++) {
                if (i == k) {
                    continue;
                }
                Chosen b = able.get(k);
                Literal next = model.newBoolVar("next");
                circuit.addArc(i + 1, k + 1, next);
                model.addLessThan(a.start, b.start).onlyEnforceIf(next);
                if (a.job.family() != b.job.family()) {
                    cost.addTerm(next, in.changeoverCost());
                }
            }
        }
    }
}
