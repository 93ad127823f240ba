package knollfield.bench;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import knollfield.core.due.ClockStart;
import knollfield.core.due.Condition;
import knollfield.core.due.DueEngine;
import knollfield.core.due.Policy;
import knollfield.core.due.Policy.Timing;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Limit;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;

/**
 * A simulated island whose belts fail by a law the workshop does not know, seen through imperfect readings, run for ten
 * years under several ways of deciding. The same vehicles, distances, visits, misreadings, delays and weaknesses of belts
 * meet every way. What is assumed stands in docs/proving-ground.md.
 */
public final class ProvingGround {

    private static final LocalDate START = LocalDate.of(2016, 1, 1);
    private static final int MONTHS = 120;
    private static final int BELTS = 12;

    private static final long PLANNED = 640;
    private static final long FAILED_INTERFERENCE = 5_200;
    private static final long FAILED_OTHER = 1_210;

    /** Owners come this often in the month they are asked. */
    private static final double COMES = 0.85;

    private ProvingGround() {}

    /**
     * How belts really fail: H = −ln(1 − q)·(w·distance + (1 − w)·age)^shape × frailty, both as shares of the limits that
     * fit the real use. Not the law the product assumes, which takes the mean of two powers.
     */
    private record Law(String name, double q, double shape, double distanceWeight, double frailtySpread) {

        double hazard(double distance, double age) {
            double used = distanceWeight * distance + (1 - distanceWeight) * age;
            return -Math.log(1 - q) * Math.pow(used, shape);
        }
    }

    private record Kind(EngineFamily family, Limit normal, Limit severe, boolean interference) {

        static Kind of(Limit normal, Limit severe, boolean interference) {
            Interference value = interference ? Interference.YES : Interference.NO;
            return new Kind(BenchFamily.of(1, value, normal, severe), normal, severe, interference);
        }
    }

    private record Usage(UsageClass believed, double share) {}

    /** What the vehicle really does, and what the workshop gets to see of it. */
    private record Vehicle(
            Kind kind,
            UsageClass usage,
            boolean dust,
            boolean dustOnFile,
            LocalDate registered,
            boolean historyKnown,
            LocalDate renewed,
            double renewedKm,
            double[] odometer,
            List<List<Reading>> readings,
            boolean[] workshopVisit,
            double[] comes,
            double[] notices,
            double[] exponential,
            double[] frailty,
            boolean[] shows) {}

    /** Totals of a run. */
    private static final class Totals {
        int breakdownsInterference;
        int breakdownsOther;
        int planned;
        int early;
        double unused;

        void add(Totals o) {
            breakdownsInterference += o.breakdownsInterference;
            breakdownsOther += o.breakdownsOther;
            planned += o.planned;
            early += o.early;
            unused += o.unused;
        }

        long cost() {
            return PLANNED * planned + FAILED_INTERFERENCE * breakdownsInterference + FAILED_OTHER * breakdownsOther;
        }
    }

    private interface Decision {
        /** Whether the job is due by the end of the month, with all readings taken so far. */
        boolean due(Vehicle v, List<Reading> readings, Optional<ClockStart> start, LocalDate month);
    }

    /** @param args how many vehicles; left out: 5,000 */
    public static void main(String[] args) {
        int count = args.length > 0 ? Integer.parseInt(args[0]) : 5_000;
        List<Vehicle> vehicles = new ArrayList<>();
        Random random = new Random(2026);
        for (int i = 0; i < count; i++) {
            vehicles.add(vehicle(random));
        }
        List<Law> laws = List.of(
                new Law("near the assumption: 3 % at the limits, shape 3.5", 0.03, 3.5, 0.6, 0.4),
                new Law("weaker belts: 6 % at the limits, shape 2.5", 0.06, 2.5, 0.6, 0.6),
                new Law("stronger belts: 1 % at the limits, shape 5", 0.01, 5, 0.6, 0.4));
        Map<String, Decision> ways = new java.util.LinkedHashMap<>();
        ways.put("Knollfield, early (95 %)", engine(Policy.defaults()));
        ways.put("Knollfield, book", engine(Policy.defaults().with(new Timing.Book())));
        ways.put("book limit on the last reading", ProvingGround::spreadsheet);
        ways.put("wait for evidence", (v, readings, start, month) -> false);
        System.out.printf(
                "%,d vehicles, %d years; costs: planned %d, breakdown %d with interference, %d without%n",
                count, MONTHS / 12, PLANNED, FAILED_INTERFERENCE, FAILED_OTHER);
        for (Law law : laws) {
            System.out.printf("%n**%s**%n%n", law.name());
            System.out.println(
                    "| way | breakdowns, interference | breakdowns, other | planned jobs | of them early | life left unused | total cost | cost a vehicle and year |");
            System.out.println("| --- | ---: | ---: | ---: | ---: | ---: | ---: | ---: |");
            ways.forEach((name, way) -> {
                Totals t = IntStream.range(0, count)
                        .parallel()
                        .mapToObj(i -> live(vehicles.get(i), law, way))
                        .collect(Totals::new, Totals::add, Totals::add);
                System.out.printf(
                        "| %s | %,d | %,d | %,d | %.0f %% | %.1f %% | %,d | %.2f |%n",
                        name,
                        t.breakdownsInterference,
                        t.breakdownsOther,
                        t.planned,
                        100.0 * t.early / Math.max(1, t.planned),
                        100 * t.unused / Math.max(1, t.planned),
                        t.cost(),
                        (double) t.cost() / count / (MONTHS / 12.0));
            });
        }
    }

    private static Decision engine(Policy policy) {
        return (v, readings, start, month) -> {
            VehicleFacts facts = new VehicleFacts(
                    v.registered(),
                    false,
                    readings,
                    start.map(s -> Map.of("item0", s)).orElse(Map.of()),
                    v.dustOnFile() ? Set.of(Condition.DUST) : Set.of(),
                    List.of(),
                    v.usage(),
                    List.of());
            VehicleForecast f = DueEngine.forecast(facts, Optional.of(v.kind().family()), policy, month);
            return f.actBy().filter(d -> d.isBefore(month.plusMonths(1))).isPresent();
        };
    }

    /** What a list with two columns does: last number written against the limit, age against the limit. */
    private static boolean spreadsheet(Vehicle v, List<Reading> readings, Optional<ClockStart> start, LocalDate month) {
        Limit limit = v.dustOnFile() ? v.kind().severe() : v.kind().normal();
        int lastKm = readings.isEmpty() ? 0 : readings.get(readings.size() - 1).km();
        int startKm = start.map(ClockStart::km).orElse(0);
        LocalDate from = start.map(ClockStart::date).orElse(v.registered());
        return lastKm - startKm >= limit.km().orElseThrow()
                || !from.plusMonths(limit.months().orElseThrow()).isAfter(month);
    }

    private static Totals live(Vehicle v, Law law, Decision way) {
        Totals totals = new Totals();
        Limit real = v.dust() ? v.kind().severe() : v.kind().normal();
        Limit inForce = v.dustOnFile() ? v.kind().severe() : v.kind().normal();
        List<Reading> seen = new ArrayList<>(v.readings().get(0));
        LocalDate renewed = v.renewed();
        double renewedKm = v.renewedKm();
        Optional<ClockStart> known = v.historyKnown()
                ? Optional.of(new ClockStart(renewed, (int) Math.round(renewedKm), ClockStart.Grade.DOCUMENTED))
                : Optional.empty();
        int belt = 0;
        // belts that are in at the start have lasted so far
        double lasted = law.hazard(
                        (v.odometer()[0] - renewedKm) / real.km().orElseThrow(),
                        months(renewed, START) / real.months().orElseThrow())
                * Math.exp(law.frailtySpread() * v.frailty()[0]);
        for (int m = 1; m <= MONTHS; m++) {
            LocalDate day = START.plusMonths(m);
            double km = v.odometer()[m];
            seen.addAll(v.readings().get(m));
            double distance = (km - renewedKm) / real.km().orElseThrow();
            double age = months(renewed, day) / real.months().orElseThrow();
            int b = Math.min(belt, BELTS - 1);
            double hazard = law.hazard(distance, age) * Math.exp(law.frailtySpread() * v.frailty()[b]);
            double end = v.exponential()[b] + (belt == 0 ? lasted : 0);
            boolean failed = hazard >= end;
            boolean noticed =
                    !failed && v.shows()[b] && hazard >= 0.5 * end && v.workshopVisit()[m] && v.notices()[m] < 0.7;
            boolean renew = failed || noticed || (v.comes()[m] < COMES && way.due(v, seen, known, day));
            if (failed && v.kind().interference()) {
                totals.breakdownsInterference++;
            } else if (failed) {
                totals.breakdownsOther++;
            } else if (renew) {
                totals.planned++;
                double used = Math.max(
                        (km - renewedKm) / inForce.km().orElseThrow(),
                        months(renewed, day) / inForce.months().orElseThrow());
                totals.unused += Math.max(0, 1 - used);
                totals.early += used < 0.75 ? 1 : 0;
            }
            if (renew) {
                renewed = day;
                renewedKm = km;
                known = Optional.of(new ClockStart(day, (int) Math.round(km), ClockStart.Grade.DOCUMENTED));
                seen.add(new Reading(10_000L + m, day, (int) Math.round(km), ReadingSource.WORKSHOP));
                belt++;
            }
        }
        return totals;
    }

    private static double months(LocalDate from, LocalDate to) {
        return (to.toEpochDay() - from.toEpochDay()) / 365.25 * 12;
    }

    private static Vehicle vehicle(Random random) {
        Kind[] kinds = {
            Kind.of(Limit.of(120_000, 72), Limit.of(70_000, 60), true),
            Kind.of(Limit.of(90_000, 60), Limit.of(60_000, 48), true),
            Kind.of(Limit.of(180_000, 120), Limit.of(110_000, 84), true),
            Kind.of(Limit.of(150_000, 96), Limit.of(100_000, 72), false)
        };
        Usage[] usages = {
            new Usage(new UsageClass("PRIVATE", "private", 12_000, 5_000), 0.6),
            new Usage(new UsageClass("COURIER", "courier van", 32_000, 8_000), 0.8),
            new Usage(new UsageClass("TAXI", "taxi", 60_000, 12_000), 0.9),
            new Usage(new UsageClass("PLANT", "works vehicle", 8_000, 4_000), 1.0)
        };
        Kind kind = kinds[random.nextInt(kinds.length)];
        double dice = random.nextDouble();
        UsageClass usage = usages[0].believed();
        for (int i = usages.length - 1; i >= 0; i--) {
            usage = dice < usages[i].share() ? usages[i].believed() : usage;
        }
        // the island really drives a tenth more than the classes say
        double rate = Math.max(2_000, 1.1 * usage.meanKmPerYear() + usage.sdKmPerYear() * random.nextGaussian());
        boolean dust = random.nextDouble() < 0.15;
        boolean dustOnFile = dust && random.nextDouble() < 0.8;
        Limit real = dust ? kind.severe() : kind.normal();
        double ageYears = 9 * random.nextDouble();
        double lifeYears =
                Math.min(real.km().orElseThrow() / rate, real.months().orElseThrow() / 12.0);
        double sinceYears = Math.min(ageYears, lifeYears * random.nextDouble());
        LocalDate registered = START.minusDays(Math.round(365.25 * ageYears));
        LocalDate renewed = START.minusDays(Math.round(365.25 * sinceYears));

        double[] odometer = new double[MONTHS + 1];
        odometer[0] = rate * ageYears;
        double year = 0;
        for (int m = 1; m <= MONTHS; m++) {
            // years differ from one another, months more so
            year = m % 12 == 1 ? 0.5 * year + 0.12 * random.nextGaussian() : year;
            odometer[m] = odometer[m - 1] + rate / 12 * Math.exp(year + 0.25 * random.nextGaussian() - 0.04);
        }
        List<List<Reading>> readings = new ArrayList<>();
        boolean[] workshop = new boolean[MONTHS + 1];
        double next = 0;
        for (int m = 0; m <= MONTHS; m++) {
            List<Reading> now = new ArrayList<>();
            if (m >= next) {
                next = m + 1 + Math.exp(1.7 + 0.5 * random.nextGaussian());
                Reading reading = reading(m, odometer[m], random);
                workshop[m] = reading.source() == ReadingSource.WORKSHOP;
                now.add(reading);
            }
            readings.add(now);
        }
        double[] comes = random.doubles(MONTHS + 1L).toArray();
        double[] notices = random.doubles(MONTHS + 1L).toArray();
        double[] exponential = random.doubles(BELTS).map(u -> -Math.log(1 - u)).toArray();
        double[] frailty = IntStream.range(0, BELTS)
                .mapToDouble(i -> random.nextGaussian())
                .toArray();
        boolean[] shows = new boolean[BELTS];
        for (int i = 0; i < BELTS; i++) {
            shows[i] = random.nextDouble() < 0.3;
        }
        return new Vehicle(
                kind,
                usage,
                dust,
                dustOnFile,
                registered,
                random.nextDouble() >= 0.15,
                renewed,
                rate * (ageYears - sinceYears),
                odometer,
                readings,
                workshop,
                comes,
                notices,
                exponential,
                frailty,
                shows);
    }

    /** A third comes by phone, rounded and sometimes in miles or with two digits changed about. */
    private static Reading reading(int month, double truth, Random random) {
        LocalDate day = START.plusMonths(month);
        int km = (int) Math.round(truth);
        double dice = random.nextDouble();
        if (dice < 0.5) {
            return new Reading(month, day, km, ReadingSource.WORKSHOP);
        }
        if (dice < 0.7) {
            return new Reading(month, day, km, ReadingSource.CERTIFICATE);
        }
        double slip = random.nextDouble();
        int said = Math.round(km / 1_000f) * 1_000;
        if (slip < 0.03) {
            said = (int) (said / 1.609344);
        } else if (slip < 0.05) {
            said = swapped(said);
        }
        return new Reading(month, day, said, ReadingSource.CUSTOMER);
    }

    /** The first two digits changed about. */
    private static int swapped(int km) {
        String digits = Integer.toString(km);
        return digits.length() < 2
                ? km
                : Math.min(
                        Reading.MAX_KM,
                        Integer.parseInt("" + digits.charAt(1) + digits.charAt(0) + digits.substring(2)));
    }
}
