package knollfield.bench.planner;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Locale;
import java.util.Map;
import knollfield.core.plan.PlanCase;
import knollfield.core.plan.PlanSearch;

/** Plans an instance with the product's planner and writes the plan file. */
public final class PlanInstance {

    private PlanInstance() {}

    /**
     * @param args instance file, plan file, seed, and either seconds such as {@code 10s} or steps of each chain such as
     *     {@code 50000}
     */
    public static void main(String[] args) throws IOException {
        if (args.length != 4) {
            throw new IllegalArgumentException("usage: INSTANCE.json PLAN.json SEED SECONDSs|STEPS");
        }
        PlanCase plan = Instance.read(Path.of(args[0])).toCase();
        PlanSearch.Budget budget = args[3].endsWith("s")
                ? new PlanSearch.Budget.Time(Duration.ofMillis(Math.round(
                        1000 * Double.parseDouble(args[3].substring(0, args[3].length() - 1)))))
                : new PlanSearch.Budget.Steps(Long.parseLong(args[3]));
        long began = System.nanoTime();
        PlanSearch.Result result = PlanSearch.run(plan, Map.of(), Long.parseLong(args[2]), budget);
        Instance.writePlan(Path.of(args[1]), result.places());
        System.out.printf(
                Locale.ROOT,
                "cost %d, unplanned %d, %d steps in %.1f s%n",
                result.cost().total(),
                result.cost().unplannedJobs(),
                result.steps(),
                (System.nanoTime() - began) / 1e9);
    }
}
