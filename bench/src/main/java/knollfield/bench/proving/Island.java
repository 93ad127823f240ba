package knollfield.bench.proving;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import knollfield.bench.BenchFamily;
import knollfield.core.clock.Limit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;

/** The vehicles, what they really do, and what the workshop gets to see of it. */
final class Island {

    static final LocalDate START = LocalDate.of(2016, 1, 1);
    static final int MONTHS = 120;
    static final int DRIVES = 12;

    private Island() {}

    enum Sort {
        BELT,
        /** A belt that runs in the engine's oil: on the wrong oil it wears four times as fast, and more often shows it. */
        BELT_IN_OIL,
        /** No interval in the book: whoever plans by limits never plans it. */
        CHAIN
    }

    /**
     * An engine.
     *
     * @param normal what the book says; of a chain what it really lasts, which nobody knows
     */
    record Kind(Sort sort, EngineFamily family, Limit normal, Limit severe, boolean interference) {

        static Kind of(Sort sort, Limit normal, Limit severe, boolean interference) {
            Interference value = interference ? Interference.YES : Interference.NO;
            return new Kind(sort, BenchFamily.of(1, value, normal, severe), normal, severe, interference);
        }
    }

    /**
     * A vehicle.
     *
     * @param wrongOil wears a belt in oil four times as fast
     * @param odometer by month, km
     * @param readings taken in each month
     * @param visit it is in the workshop in that month for other work
     * @param comes dice for each month: whether the owner comes when asked
     * @param notices dice for each month: whether what shows is noticed on a visit
     * @param exponential life of each of its drives
     * @param frailty normal deviate of each
     * @param shows whether each shows something before it fails
     */
    record Vehicle(
            Kind kind,
            UsageClass usage,
            boolean dust,
            boolean dustOnFile,
            boolean wrongOil,
            LocalDate registered,
            boolean historyKnown,
            LocalDate renewed,
            double renewedKm,
            double[] odometer,
            List<List<Reading>> readings,
            boolean[] visit,
            double[] comes,
            double[] notices,
            double[] exponential,
            double[] frailty,
            boolean[] shows) {

        /** Limits that fit the real use. */
        Limit real() {
            return dust ? kind.severe() : kind.normal();
        }

        /** Limits by what the file knows. */
        Limit inForce() {
            return dustOnFile ? kind.severe() : kind.normal();
        }
    }

    private record Usage(UsageClass believed, double upTo) {}

    private static final Kind[] KINDS = {
        Kind.of(Sort.BELT, Limit.of(120_000, 72), Limit.of(70_000, 60), true),
        Kind.of(Sort.BELT, Limit.of(90_000, 60), Limit.of(60_000, 48), true),
        Kind.of(Sort.BELT, Limit.of(180_000, 120), Limit.of(110_000, 84), true),
        Kind.of(Sort.BELT, Limit.of(150_000, 96), Limit.of(100_000, 72), false),
        Kind.of(Sort.BELT_IN_OIL, Limit.of(150_000, 120), Limit.of(100_000, 84), true),
        Kind.of(Sort.CHAIN, Limit.of(320_000, 216), Limit.of(220_000, 168), true)
    };

    private static final Usage[] USAGES = {
        new Usage(new UsageClass("PRIVATE", "private", 12_000, 5_000), 0.6),
        new Usage(new UsageClass("COURIER", "courier van", 32_000, 8_000), 0.8),
        new Usage(new UsageClass("TAXI", "taxi", 60_000, 12_000), 0.9),
        new Usage(new UsageClass("PLANT", "works vehicle", 8_000, 4_000), 1.0)
    };

    /** The same vehicles for the same seed. */
    static List<Vehicle> of(int count, long seed) {
        Random random = new Random(seed);
        List<Vehicle> vehicles = new ArrayList<>(count);
        for (int i = 0; i < count; i++) {
            vehicles.add(vehicle(random));
        }
        return vehicles;
    }

    private static Vehicle vehicle(Random random) {
        // belts of the four kinds 80 %, in oil 10 %, chains 10 %
        int dice10 = random.nextInt(10);
        Kind kind = KINDS[dice10 < 8 ? dice10 % 4 : dice10 - 4];
        double dice = random.nextDouble();
        UsageClass usage = USAGES[0].believed();
        for (int i = USAGES.length - 1; i >= 0; i--) {
            usage = dice < USAGES[i].upTo() ? USAGES[i].believed() : usage;
        }
        // the island really drives a tenth more than the classes say
        double rate = Math.max(2_000, 1.1 * usage.meanKmPerYear() + usage.sdKmPerYear() * random.nextGaussian());
        boolean dust = random.nextDouble() < 0.15;
        boolean dustOnFile = dust && random.nextDouble() < 0.8;
        boolean wrongOil = random.nextDouble() < 0.1 && kind.sort() == Sort.BELT_IN_OIL;
        Limit real = dust ? kind.severe() : kind.normal();
        double ageYears = 9 * random.nextDouble();
        double lifeYears =
                Math.min(real.km().orElseThrow() / rate, real.months().orElseThrow() / 12.0);
        double sinceYears = kind.sort() == Sort.CHAIN ? ageYears : Math.min(ageYears, lifeYears * random.nextDouble());

        double[] odometer = new double[MONTHS + 1];
        odometer[0] = rate * ageYears;
        double year = 0;
        for (int m = 1; m <= MONTHS; m++) {
            // years differ from one another, months more so
            year = m % 12 == 1 ? 0.5 * year + 0.12 * random.nextGaussian() : year;
            odometer[m] = odometer[m - 1] + rate / 12 * Math.exp(year + 0.25 * random.nextGaussian() - 0.04);
        }
        List<List<Reading>> readings = new ArrayList<>();
        boolean[] visit = new boolean[MONTHS + 1];
        double next = 0;
        for (int m = 0; m <= MONTHS; m++) {
            List<Reading> now = new ArrayList<>();
            if (m >= next) {
                next = m + 1 + Math.exp(1.7 + 0.5 * random.nextGaussian());
                Reading reading = reading(m, odometer[m], random);
                visit[m] = reading.source() == ReadingSource.WORKSHOP;
                now.add(reading);
            }
            readings.add(now);
        }
        double[] comes = random.doubles(MONTHS + 1L).toArray();
        double[] notices = random.doubles(MONTHS + 1L).toArray();
        double[] exponential = random.doubles(DRIVES).map(u -> -Math.log(1 - u)).toArray();
        double[] frailty = IntStream.range(0, DRIVES)
                .mapToDouble(i -> random.nextGaussian())
                .toArray();
        double showing = switch (kind.sort()) {
            case BELT -> 0.3;
            case BELT_IN_OIL -> 0.6;
            case CHAIN -> 0.7;
        };
        boolean[] shows = new boolean[DRIVES];
        for (int i = 0; i < DRIVES; i++) {
            shows[i] = random.nextDouble() < showing;
        }
        return new Vehicle(
                kind,
                usage,
                dust,
                dustOnFile,
                wrongOil,
                START.minusDays(Math.round(365.25 * ageYears)),
                random.nextDouble() >= 0.15,
                START.minusDays(Math.round(365.25 * sinceYears)),
                rate * (ageYears - sinceYears),
                odometer,
                readings,
                visit,
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
