package knollfield.bench;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.DueEngine;
import knollfield.core.due.Policy;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** One forecast of a vehicle with eight readings and eight items; the baseline counts the two clocks and no more. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Fork(1)
@Warmup(iterations = 2, time = 1)
@Measurement(iterations = 3, time = 2)
public class ForecastBenchmark {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final int ITEMS = 8;

    private final EngineFamily family =
            BenchFamily.of(ITEMS, Interference.YES, Limit.of(120_000, 72), Limit.of(70_000, 60));
    private final VehicleFacts vehicle = vehicle();
    private final Policy policy = Policy.defaults();

    @Benchmark
    public VehicleForecast forecast() {
        return DueEngine.forecast(vehicle, Optional.of(family), policy, TODAY);
    }

    /** What a spreadsheet does: last reading against the limit, age against the limit. */
    @Benchmark
    public long twoClocks() {
        long left = Long.MAX_VALUE;
        Reading last = vehicle.readings().get(vehicle.readings().size() - 1);
        for (Item item : family.items()) {
            ClockStart start = vehicle.starts().get(item.code());
            Limit limit = item.schedule().orElseThrow().normal();
            long km = limit.km().orElseThrow() - (last.km() - start.km());
            long days = start.date().plusMonths(limit.months().orElseThrow()).toEpochDay() - TODAY.toEpochDay();
            left = Math.min(left, Math.min(km / 55, days));
        }
        return left;
    }

    private static VehicleFacts vehicle() {
        List<Reading> readings = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            readings.add(
                    new Reading(i + 1, TODAY.minusDays(182L * (7 - i)), 60_000 + 10_000 * i, ReadingSource.WORKSHOP));
        }
        ClockStart start = new ClockStart(TODAY.minusMonths(54), 40_000, ClockStart.Grade.DOCUMENTED);
        Map<String, ClockStart> starts = new java.util.HashMap<>();
        for (int i = 0; i < ITEMS; i++) {
            starts.put("item" + i, start);
        }
        return new VehicleFacts(
                TODAY.minusYears(8),
                true,
                readings,
                starts,
                Set.of(),
                List.of(),
                new UsageClass("T", "test", 20_000, 5_000),
                List.of());
    }
}
