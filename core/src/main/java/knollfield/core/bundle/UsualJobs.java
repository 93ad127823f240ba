package knollfield.core.bundle;

import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import knollfield.core.bundle.BundleRules.Scope;
import knollfield.core.bundle.BundleRules.Verdict;
import knollfield.core.engine.EngineFamily;

/**
 * The usual job of each of many vehicles: what the rules alone put into it, with its time and its parts (rules.md section 5).
 * Vehicles of one engine and equipment mostly need the same job, which is then put together once. For use by several threads.
 */
public final class UsualJobs {

    /**
     * What a usual job comes to.
     *
     * @param items codes of the items that are renewed
     * @param minutes of one technician
     * @param partsMinor price of all parts, minor units
     */
    public record Usual(Set<String> items, int minutes, long partsMinor) {

        private Usual(Bundle bundle) {
            this(bundle.items(), bundle.labour().minutes(), bundle.partsMinor());
        }

        /** Labour and parts at {@code ratePerHourMinor}, minor units, half a unit of labour rounded up. */
        public long plannedMinor(long ratePerHourMinor) {
            return partsMinor + Sixtieths.toMinor(Sixtieths.ofLabour(minutes, ratePerHourMinor));
        }
    }

    /** The book is compared as an object: a changed one is another. */
    private record Key(EngineFamily family, Set<String> equipment, Set<String> required) {
        @Override
        public boolean equals(Object other) {
            return other instanceof Key k
                    && k.family == family
                    && k.required.equals(required)
                    && k.equipment.equals(equipment);
        }

        @Override
        public int hashCode() {
            return 31 * (31 * System.identityHashCode(family) + equipment.hashCode()) + required.hashCode();
        }
    }

    private final Map<Key, Usual> known = new ConcurrentHashMap<>();

    /** The usual job of {@code vehicle}: as {@link BundleRules#bundle} has it with nothing chosen. */
    public Usual of(EngineFamily family, BundleRules.Vehicle vehicle) {
        Scope scope = Scope.whole(family);
        Map<String, Verdict> verdicts = BundleRules.verdicts(family, vehicle, scope);
        Set<String> in = BundleRules.in(verdicts, Set.of());
        return known.computeIfAbsent(
                new Key(family, vehicle.equipment(), Set.copyOf(in)),
                k -> new Usual(BundleRules.assemble(family, vehicle, scope, verdicts, in)));
    }
}
