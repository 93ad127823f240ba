package knollfield.bench;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.Condition;
import knollfield.core.due.DueEngine;
import knollfield.core.due.Policy;
import knollfield.core.due.Status;
import knollfield.core.due.VehicleFacts;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;

/**
 * How long it takes to judge a whole island anew: vehicles with eight readings and eight items each, all different.
 * Prints the median of several rounds in milliseconds as its last line; bench/recompute.sh sets it against a spreadsheet.
 */
public final class Recompute {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final int READINGS = 8;
    private static final int ITEMS = 8;
    private static final int WARM = 4;
    private static final int ROUNDS = 7;

    private Recompute() {}

    /** @param args how many vehicles; left out: 100,000 */
    public static void main(String[] args) {
        int count = args.length > 0 ? Integer.parseInt(args[0]) : 100_000;
        EngineFamily family = BenchFamily.of(ITEMS, Interference.YES, Limit.of(120_000, 72), Limit.of(70_000, 60));
        Policy policy = Policy.defaults();
        Random random = new Random(7);
        List<VehicleFacts> vehicles = new ArrayList<>(count);
        for (int i = 0; i < count; i++) {
            vehicles.add(vehicle(random));
        }
        double[] rounds = new double[ROUNDS];
        long overdue = 0;
        for (int round = -WARM; round < ROUNDS; round++) {
            long begin = System.nanoTime();
            overdue = IntStream.range(0, count)
                    .parallel()
                    .filter(i -> DueEngine.forecast(vehicles.get(i), Optional.of(family), policy, TODAY)
                                    .status()
                            == Status.OVERDUE)
                    .count();
            if (round >= 0) {
                rounds[round] = (System.nanoTime() - begin) / 1e6;
            }
        }
        Arrays.sort(rounds);
        System.out.printf(
                "%,d vehicles, %d readings and %d items each, %d processors: median %.0f ms, from %.0f to %.0f ms; %,d overdue%n",
                count,
                READINGS,
                ITEMS,
                Runtime.getRuntime().availableProcessors(),
                rounds[ROUNDS / 2],
                rounds[0],
                rounds[ROUNDS - 1],
                overdue);
        System.out.printf("%.3f%n", rounds[ROUNDS / 2]);
    }

    private static VehicleFacts vehicle(Random random) {
        double rate = Math.max(3_000, 20_000 + 7_000 * random.nextGaussian());
        List<Reading> readings = new ArrayList<>();
        for (int i = 0; i < READINGS; i++) {
            int daysAgo = 30 + 182 * (READINGS - 1 - i);
            int km = (int) Math.max(0, Math.round(160_000 - rate * daysAgo / 365.25));
            // one in ten was written in miles
            boolean miles = random.nextInt(10) == 0;
            readings.add(new Reading(
                    i + 1L,
                    TODAY.minusDays(daysAgo),
                    miles ? (int) (km / 1.609344) : km,
                    miles ? ReadingSource.CUSTOMER : ReadingSource.WORKSHOP));
        }
        Map<String, ClockStart> starts = new HashMap<>();
        for (int i = 0; i < ITEMS; i++) {
            int months = 6 + random.nextInt(70);
            starts.put(
                    "item" + i,
                    new ClockStart(
                            TODAY.minusMonths(months),
                            Math.max(0, (int) (160_000 - rate * months / 12)),
                            ClockStart.Grade.DOCUMENTED));
        }
        return new VehicleFacts(
                TODAY.minusYears(9),
                true,
                readings,
                starts,
                random.nextInt(6) == 0 ? Set.of(Condition.DUST) : Set.of(),
                List.of(),
                new UsageClass("T", "test", 20_000, 6_000),
                List.of());
    }
}
