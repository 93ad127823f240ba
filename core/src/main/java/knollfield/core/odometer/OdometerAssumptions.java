package knollfield.core.odometer;

import java.util.EnumMap;
import java.util.Map;

/**
 * What is assumed of odometers in general (rules.md section 1); all of it planning assumptions.
 *
 * @param trust weight of each source, 1 or more; a source that is not named has its default
 * @param maxKmPerDay no vehicle goes further in a day, above zero
 * @param yearlyScatter share of the class mean by which one year's distance scatters about a vehicle's own rate, above 0
 * @param idleKmPerHour distance an hour of idling is as hard as, zero or more
 */
public record OdometerAssumptions(
        Map<ReadingSource, Integer> trust, int maxKmPerDay, double yearlyScatter, double idleKmPerHour) {

    private static final OdometerAssumptions DEFAULTS = new OdometerAssumptions(Map.of(), 1_500, 0.20, 50);

    public OdometerAssumptions {
        trust = Map.copyOf(trust);
        if (trust.values().stream().anyMatch(w -> w < 1)) {
            throw new IllegalArgumentException("a trust weight must be 1 or more: " + trust);
        }
        if (maxKmPerDay <= 0 || !(yearlyScatter > 0) || !(idleKmPerHour >= 0)) {
            throw new IllegalArgumentException(
                    "km a day (%d) and scatter (%s) must be above zero, km for an hour idling (%s) zero or more"
                            .formatted(maxKmPerDay, yearlyScatter, idleKmPerHour));
        }
    }

    /** Planning assumptions: 1,500 km a day, 20 % scatter, 50 km for an hour of idling, trust as the sources say. */
    public static OdometerAssumptions defaults() {
        return DEFAULTS;
    }

    public int trust(ReadingSource source) {
        return trust.getOrDefault(source, source.trust());
    }

    /** These with another weight for {@code source}. */
    public OdometerAssumptions withTrust(ReadingSource source, int weight) {
        Map<ReadingSource, Integer> changed = new EnumMap<>(ReadingSource.class);
        changed.putAll(trust);
        changed.put(source, weight);
        return new OdometerAssumptions(changed, maxKmPerDay, yearlyScatter, idleKmPerHour);
    }
}
