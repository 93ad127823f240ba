package knollfield.bench.proving;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import knollfield.bench.proving.Island.Sort;
import knollfield.bench.proving.Island.Vehicle;
import knollfield.core.clock.ClockStart;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;

/** Lets ten years pass over a vehicle. */
final class TenYears {

    /** Owners come this often in the month they are asked. */
    private static final double COMES = 0.85;

    private static final double NOTICED = 0.7;
    private static final double SHOWS_FROM = 0.5;
    private static final double WRONG_OIL = 4;

    private TenYears() {}

    /** Of all of them, under one way of deciding. */
    static Outcome of(List<Vehicle> vehicles, Law law, Way way) {
        return vehicles.parallelStream().map(v -> of(v, law, way)).reduce(Outcome.NONE, Outcome::plus);
    }

    private static Outcome of(Vehicle v, Law law, Way way) {
        Way.Judge judge = way.of(v);
        List<Reading> seen = new ArrayList<>(v.readings().get(0));
        LocalDate renewed = v.renewed();
        double renewedKm = v.renewedKm();
        Optional<ClockStart> known = v.historyKnown() ? Optional.of(start(renewed, renewedKm)) : Optional.empty();
        Outcome sum = Outcome.NONE;
        int drive = 0;
        boolean news = true;
        // drives that are in at the start have lasted so far
        double lasted = hazard(v, law, 0, v.odometer()[0] - renewedKm, months(renewed, Island.START));
        for (int m = 1; m <= Island.MONTHS; m++) {
            LocalDate day = Island.START.plusMonths(m);
            double km = v.odometer()[m];
            news |= !v.readings().get(m).isEmpty();
            seen.addAll(v.readings().get(m));
            double hazard = hazard(v, law, drive, km - renewedKm, months(renewed, day));
            double end = v.exponential()[drive] + (drive == 0 ? lasted : 0);
            boolean failed = hazard >= end;
            boolean noticed = !failed
                    && v.shows()[drive]
                    && hazard >= SHOWS_FROM * end
                    && v.visit()[m]
                    && v.notices()[m] < NOTICED;
            boolean renew = failed || noticed;
            if (!renew && v.comes()[m] < COMES) {
                renew = judge.renews(new Way.Seen(seen, known, day, v.visit()[m]), news);
                news = false;
            }
            if (!renew) {
                continue;
            }
            sum = sum.plus(failed ? failure(v) : job(v, km - renewedKm, months(renewed, day), v.visit()[m]));
            renewed = day;
            renewedKm = km;
            known = Optional.of(start(day, km));
            seen.add(new Reading(10_000L + m, day, (int) Math.round(km), ReadingSource.WORKSHOP));
            drive = Math.min(drive + 1, Island.DRIVES - 1);
            news = true;
        }
        return sum;
    }

    private static double hazard(Vehicle v, Law law, int drive, double km, double months) {
        return law.hazard(
                        km / v.real().km().orElseThrow(),
                        months / v.real().months().orElseThrow())
                * Math.exp(law.frailtySpread() * v.frailty()[drive])
                * (v.wrongOil() ? WRONG_OIL : 1);
    }

    private static Outcome failure(Vehicle v) {
        boolean interference = v.kind().interference();
        return new Outcome(
                interference ? 1 : 0,
                interference ? 0 : 1,
                v.kind().sort() == Sort.CHAIN ? 1 : 0,
                0,
                0,
                0,
                0,
                0,
                Costs.failure(interference));
    }

    private static Outcome job(Vehicle v, double km, double months, boolean visit) {
        double used = Math.max(
                km / v.inForce().km().orElseThrow(),
                months / v.inForce().months().orElseThrow());
        boolean byTheBook = v.kind().sort() != Sort.CHAIN;
        return new Outcome(
                0,
                0,
                0,
                1,
                visit ? 1 : 0,
                byTheBook && used > 1 ? 1 : 0,
                byTheBook && used < 0.75 ? 1 : 0,
                byTheBook ? Math.max(0, 1 - used) : 0,
                Costs.PLANNED - (visit ? Costs.VISIT : 0));
    }

    private static ClockStart start(LocalDate day, double km) {
        return new ClockStart(day, (int) Math.round(km), ClockStart.Grade.DOCUMENTED);
    }

    private static double months(LocalDate from, LocalDate to) {
        return (to.toEpochDay() - from.toEpochDay()) / 365.25 * 12;
    }
}
