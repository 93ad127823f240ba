package knollfield.core.odometer;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import knollfield.core.units.Years;

/**
 * A vehicle's yearly distance as it is believed after its readings.
 *
 * @param kmPerYear posterior mean, zero or more
 * @param variance posterior variance, (km/yr)²
 * @param scatterKmPerRootYear σ_w of the vehicle's class, km·yr^−½
 * @param observed the rate its own readings show; empty where fewer than two were kept, so that the class alone speaks
 */
public record UsageRate(double kmPerYear, double variance, double scatterKmPerRootYear, Optional<Observed> observed) {

    /**
     * Rate seen between kept readings.
     *
     * @param kmPerYear r̂, weighted towards recent segments
     * @param variance Var(r̂), (km/yr)²
     * @param segments how many spans between readings it rests on, at least one
     */
    public record Observed(double kmPerYear, double variance, int segments) {}

    private static final double LN2 = Math.log(2);

    public UsageRate {
        if (!(kmPerYear >= 0) || !(variance >= 0)) {
            throw new IllegalArgumentException(
                    "usage rate (%s km/yr, variance %s) must not be negative".formatted(kmPerYear, variance));
        }
    }

    /**
     * Posterior of the rate r ~ N(m, v), the precision-weighted mean of the class prior and r̂, truncated at zero
     * (rules.md section 1). Segments i with rate rᵢ over Δtᵢ years weigh wᵢ = Δtᵢ·2^(−ageᵢ), ageᵢ from the segment's
     * middle to the last kept reading; r̂ = Σwᵢrᵢ/Σwᵢ, Var(r̂) = σ_w²·Σ(wᵢ²/Δtᵢ)/(Σwᵢ)².
     */
    public static UsageRate estimate(List<Reading> kept, UsageClass usage) {
        double sigma = usage.scatterKmPerRootYear();
        double priorVariance = usage.sdKmPerYear() * usage.sdKmPerYear();
        Optional<Observed> observed = observe(kept, sigma);
        if (observed.isEmpty()) {
            return truncatedAtZero(usage.meanKmPerYear(), priorVariance, sigma, observed);
        }
        Observed seen = observed.get();
        if (seen.variance() == 0) {
            return new UsageRate(Math.max(0, seen.kmPerYear()), 0, sigma, observed);
        }
        double precision = 1 / priorVariance + 1 / seen.variance();
        double mean = (usage.meanKmPerYear() / priorVariance + seen.kmPerYear() / seen.variance()) / precision;
        return truncatedAtZero(mean, 1 / precision, sigma, observed);
    }

    /**
     * The rate that kept readings show; empty where no two of them lie on different days.
     *
     * @param kept in date order
     * @param sigma σ_w, km·yr^−½
     */
    static Optional<Observed> observe(List<Reading> kept, double sigma) {
        if (kept.size() < 2) {
            return Optional.empty();
        }
        LocalDate last = kept.get(kept.size() - 1).date();
        double sumW = 0;
        double sumWr = 0;
        double sumW2OverT = 0;
        int segments = 0;
        for (int i = 1; i < kept.size(); i++) {
            Reading from = kept.get(i - 1);
            Reading to = kept.get(i);
            double t = Years.between(from.date(), to.date());
            if (t <= 0) {
                continue; // two readings of one day say nothing about a rate
            }
            double age = Years.between(to.date(), last) + t / 2;
            double w = t * Math.exp(-LN2 * age);
            sumW += w;
            sumWr += w * (to.km() - from.km()) / t;
            sumW2OverT += w * w / t;
            segments++;
        }
        if (segments == 0) {
            return Optional.empty();
        }
        return Optional.of(new Observed(sumWr / sumW, sigma * sigma * sumW2OverT / (sumW * sumW), segments));
    }

    /** A rate that somebody states, so without doubt about it; one year's distance still scatters. */
    public static UsageRate stated(double kmPerYear, UsageClass usage) {
        return new UsageRate(kmPerYear, 0, usage.scatterKmPerRootYear(), Optional.empty());
    }

    /** This rate with {@code kmPerYear}, zero or more, on top. */
    public UsageRate plus(double kmPerYear) {
        return kmPerYear == 0
                ? this
                : new UsageRate(this.kmPerYear + kmPerYear, variance, scatterKmPerRootYear, observed);
    }

    /** Moments of N(m, v) truncated below at zero (Johnson, Kotz, Balakrishnan 1994, section 13.10.1). */
    private static UsageRate truncatedAtZero(double m, double v, double sigma, Optional<Observed> observed) {
        double s = Math.sqrt(v);
        double alpha = -m / s;
        double above = Normal.cdf(-alpha);
        if (above < 1e-12) {
            // all belief lies below zero: a vehicle that stands still
            return new UsageRate(0, 0, sigma, observed);
        }
        double delta = Normal.density(alpha) / above;
        return new UsageRate(m + s * delta, Math.max(0, v * (1 - delta * (delta - alpha))), sigma, observed);
    }
}
