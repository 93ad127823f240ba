package knollfield.bench.proving;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import knollfield.bench.proving.Island.Vehicle;

/** Prints the frontiers, the pair of ways that are the product's old and new default, and draws the picture. */
public final class ProvingGround {

    private static final long SEED = 2026;

    private ProvingGround() {}

    /**
     * @param args vehicles of the frontiers (1,000), vehicles of the pair (5,000), seeds (20), picture (none)
     */
    public static void main(String[] args) throws IOException {
        Locale.setDefault(Locale.ROOT);
        int frontier = args.length > 0 ? Integer.parseInt(args[0]) : 1_000;
        int pair = args.length > 1 ? Integer.parseInt(args[1]) : 5_000;
        int seeds = args.length > 2 ? Integer.parseInt(args[2]) : 20;
        frontiers(frontier, seeds, args.length > 3 ? Path.of(args[3]) : null);
        pair(pair, seeds);
    }

    private static void frontiers(int count, int seeds, Path picture) throws IOException {
        Map<String, List<Frontiers.Setting>> lines = Frontiers.all();
        // one point of the last line would flatten all others
        Set<String> drawn = new java.util.LinkedHashSet<>(lines.keySet());
        drawn.remove("wait for evidence");
        Picture sheet = new Picture();
        for (Law law : Law.all()) {
            System.out.printf("%n**%s** (%,d vehicles, mean of %d seeds)%n%n", law.name(), count, seeds);
            System.out.println(
                    "| way | at | breakdowns | with interference | of chains | jobs | at visits | past the book | below 75 % | life unused | money |");
            System.out.println("| --- | --- | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |");
            Map<String, List<Picture.Point>> points = new LinkedHashMap<>();
            List<List<Vehicle>> islands = islands(count, seeds);
            lines.forEach((line, settings) -> {
                for (Frontiers.Setting s : settings) {
                    Outcome o = Outcome.NONE;
                    for (List<Vehicle> island : islands) {
                        o = o.plus(TenYears.of(island, law, s.way()));
                    }
                    print(line, s.name(), o, seeds);
                    if (drawn.contains(line)) {
                        points.computeIfAbsent(line, l -> new ArrayList<>())
                                .add(new Picture.Point((double) o.cost() / seeds, (double) o.breakdowns() / seeds));
                    }
                }
            });
            sheet.panel(law.name(), points);
        }
        if (picture != null) {
            Files.writeString(picture, sheet.svg(drawn));
        }
    }

    private static List<List<Vehicle>> islands(int count, int seeds) {
        List<List<Vehicle>> islands = new ArrayList<>();
        for (int i = 0; i < seeds; i++) {
            islands.add(Island.of(count, SEED + i));
        }
        return islands;
    }

    private static void print(String line, String at, Outcome o, int seeds) {
        double jobs = Math.max(1, o.jobs());
        System.out.printf(
                "| %s | %s | %.1f | %.1f | %.1f | %,.0f | %.0f %% | %.0f %% | %.0f %% | %.1f %% | %,.0f |%n",
                line,
                at,
                (double) o.breakdowns() / seeds,
                (double) o.interference() / seeds,
                (double) o.ofChains() / seeds,
                (double) o.jobs() / seeds,
                100 * o.atVisits() / jobs,
                100 * o.pastBook() / jobs,
                100 * o.early() / jobs,
                100 * o.unused() / jobs,
                (double) o.cost() / seeds);
    }

    /** A difference and its standard error over the seeds. */
    record Difference(double mean, double error) {
        static Difference of(List<Double> differences) {
            int n = differences.size();
            double mean = differences.stream().mapToDouble(d -> d).average().orElseThrow();
            double squares = differences.stream()
                    .mapToDouble(d -> (d - mean) * (d - mean))
                    .sum();
            return new Difference(mean, n < 2 ? Double.NaN : Math.sqrt(squares / (n - 1) / n));
        }

        /** True where it is below zero by more than two standard errors. */
        boolean isClearlyLess() {
            return mean + 2 * error < 0;
        }
    }

    private static void pair(int count, int seeds) {
        System.out.printf(
                "%n**careful with visits less early at 95 %%** (%,d vehicles, %d paired seeds)%n%n", count, seeds);
        System.out.println(
                "| law | breakdowns | standard error | money, thousands | standard error | both clearly less |");
        System.out.println("| --- | ---: | ---: | ---: | ---: | --- |");
        for (Law law : Law.all()) {
            List<Double> breakdowns = new ArrayList<>();
            List<Double> money = new ArrayList<>();
            for (int i = 0; i < seeds; i++) {
                List<Vehicle> island = Island.of(count, SEED + i);
                Outcome early = TenYears.of(island, law, Frontiers.early());
                Outcome careful = TenYears.of(island, law, Frontiers.careful());
                breakdowns.add((double) careful.breakdowns() - early.breakdowns());
                money.add((careful.cost() - early.cost()) / 1_000.0);
            }
            Difference b = Difference.of(breakdowns);
            Difference m = Difference.of(money);
            System.out.printf(
                    "| %s | %.1f | %.1f | %.0f | %.0f | %s |%n",
                    law.name(),
                    b.mean(),
                    b.error(),
                    m.mean(),
                    m.error(),
                    b.isClearlyLess() && m.isClearlyLess() ? "yes" : "no");
        }
    }
}
