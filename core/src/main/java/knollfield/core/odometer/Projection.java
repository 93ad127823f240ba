package knollfield.core.odometer;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import knollfield.core.units.Years;

/**
 * Where the odometer will stand: t years past the last kept reading it is normal with mean x + r̄·t + known trips and
 * variance t²·Var(r̄) + σ_w²·t (rules.md section 1).
 *
 * @param baseDate date of the last kept reading
 * @param baseKm distance shown then
 * @param trips journeys known to come, in any order
 * @param standsFrom the vehicle is laid up from this day on: no distance is added after it
 */
public record Projection(
        LocalDate baseDate, double baseKm, UsageRate rate, List<KnownTrip> trips, Optional<LocalDate> standsFrom) {

    /** Beyond this many years a quantile is answered with "none". */
    public static final int HORIZON_YEARS = 60;

    /**
     * A journey beside the usual running.
     *
     * @param from first day
     * @param to last day, not before {@code from}
     * @param extraKm more than zero
     */
    public record KnownTrip(LocalDate from, LocalDate to, int extraKm) {
        public KnownTrip {
            if (to.isBefore(from)) {
                throw new IllegalArgumentException("a trip ends (%s) before it starts (%s)".formatted(to, from));
            }
            if (extraKm <= 0) {
                throw new IllegalArgumentException("a trip needs a distance above zero, not %d km".formatted(extraKm));
            }
        }
    }

    public Projection {
        trips = List.copyOf(trips);
    }

    /** The projection of a vehicle in use. */
    public Projection(LocalDate baseDate, double baseKm, UsageRate rate, List<KnownTrip> trips) {
        this(baseDate, baseKm, rate, trips, Optional.empty());
    }

    /** This projection with {@code kmPerYear}, zero or more, added to its rate. */
    public Projection plusRate(double kmPerYear) {
        return kmPerYear == 0 ? this : new Projection(baseDate, baseKm, rate.plus(kmPerYear), trips, standsFrom);
    }

    /** {@code date}, or the day on which distance stops where that is earlier. */
    public LocalDate running(LocalDate date) {
        return standsFrom.isPresent() && standsFrom.get().isBefore(date) ? standsFrom.get() : date;
    }

    private double yearsRunning(LocalDate date) {
        return Math.max(0, Years.between(baseDate, running(date)));
    }

    /** Median distance shown on {@code date}, km; before the base date the base itself. */
    public double medianKm(LocalDate date) {
        double t = yearsRunning(date);
        return baseKm + rate.kmPerYear() * t + (trips.isEmpty() ? 0 : tripKm(running(date)));
    }

    /** Distance that is passed with chance 1 − {@code p} on {@code date}, km. */
    public double quantileKm(LocalDate date, double p) {
        double t = yearsRunning(date);
        double spread = Math.sqrt(varianceAt(t));
        return medianKm(date) + (spread == 0 ? 0 : Normal.quantile(p) * spread);
    }

    /** Chance, 0 to 1, that at least {@code km} is shown on {@code date}. */
    public double chanceReached(double km, LocalDate date) {
        double t = yearsRunning(date);
        double spread = Math.sqrt(varianceAt(t));
        double ahead = medianKm(date) - km;
        if (spread == 0) {
            return ahead >= 0 ? 1 : 0;
        }
        return Normal.cdf(ahead / spread);
    }

    /**
     * First day on which at least {@code km} is shown with chance {@code p} or more; empty when there is none within
     * {@value #HORIZON_YEARS} years.
     *
     * @param km above {@link #baseKm}; a distance already reached is asked of the reading chain instead
     * @param p between 0 and 1
     */
    public Optional<LocalDate> firstDayReached(double km, double p) {
        if (km <= baseKm) {
            return Optional.of(baseDate);
        }
        if (trips.isEmpty()) {
            double t = yearsUntil(km - baseKm, p);
            if (t > HORIZON_YEARS) {
                return Optional.empty();
            }
            LocalDate day = Years.firstDayAfter(baseDate, t);
            return standsFrom.isPresent() && day.isAfter(standsFrom.get()) ? Optional.empty() : Optional.of(day);
        }
        // (mean − L)/spread grows with every day, trips or not, so the first day is found by halving
        long low = 0;
        long high = (long) Math.floor(HORIZON_YEARS * Years.DAYS);
        if (chanceReached(km, baseDate.plusDays(high)) < p) {
            return Optional.empty();
        }
        while (high - low > 1) {
            long middle = (low + high) / 2;
            if (chanceReached(km, baseDate.plusDays(middle)) >= p) {
                high = middle;
            } else {
                low = middle;
            }
        }
        return Optional.of(baseDate.plusDays(high));
    }

    /**
     * t with (r·t − D)/√(t²V + σ²t) = z_p: squared, (r² − z²V)·t² − (2rD + z²σ²)·t + D² = 0, whose smaller root belongs
     * to z &lt; 0 and whose larger one to z &gt; 0; taken in the form that does not cancel.
     */
    private double yearsUntil(double distance, double p) {
        double r = rate.kmPerYear();
        double z = p == 0.5 ? 0 : Normal.quantile(p);
        double zz = z * z;
        double sigma2 = rate.scatterKmPerRootYear() * rate.scatterKmPerRootYear();
        double a = r * r - zz * rate.variance();
        double b = 2 * r * distance + zz * sigma2;
        double c = distance * distance;
        double discriminant = Math.max(0, b * b - 4 * a * c);
        double q = (b + Math.sqrt(discriminant)) / 2;
        if (z <= 0) {
            return q == 0 ? Double.POSITIVE_INFINITY : c / q;
        }
        return a <= 0 ? Double.POSITIVE_INFINITY : q / a;
    }

    private double varianceAt(double t) {
        double sigma = rate.scatterKmPerRootYear();
        return t * t * rate.variance() + sigma * sigma * t;
    }

    private double tripKm(LocalDate date) {
        double km = 0;
        for (KnownTrip trip : trips) {
            LocalDate end = trip.to().plusDays(1);
            double days = Years.between(trip.from(), end);
            double done = Years.between(trip.from(), date);
            double before = Math.max(0, Years.between(trip.from(), baseDate));
            double share = Math.min(Math.max(done, 0), days) - Math.min(before, days);
            km += Math.max(0, share) / days * trip.extraKm();
        }
        return km;
    }
}
