package knollfield.core.plan;

import java.time.LocalDate;
import java.util.Collection;
import java.util.Comparator;
import java.util.Optional;
import knollfield.core.stores.Deliveries;
import knollfield.core.stores.PartsPlan;

/**
 * From when a job can start: not before its parts, its owner's answer and its vehicle are there (rules.md section 11).
 *
 * @param slot of the ruler; may lie beyond its end
 * @param why what it waits for until then; empty where it waits for nothing
 */
public record Earliest(int slot, String why) {

    /**
     * The latest of what it waits for.
     *
     * @param now first slot in which work may begin
     * @param parts of the job
     * @param answer day by which the owner is expected to agree; empty where he has, or was not asked
     * @param notBefore day before which the owner does not bring it
     */
    public static Earliest of(
            Ruler ruler,
            int now,
            Collection<PartsPlan.Served> parts,
            Optional<LocalDate> answer,
            Optional<LocalDate> notBefore) {
        Earliest earliest = new Earliest(now, "");
        Optional<PartsPlan.Served> last = parts.stream()
                .filter(s -> s.supply().day().isPresent())
                .max(Comparator.comparing(s -> s.supply().day().orElseThrow()));
        if (last.isPresent()) {
            boolean ordered = last.get().supply() instanceof PartsPlan.Supply.Ordered;
            earliest = earliest.later(
                    ruler.slotFrom(last.get().supply().day().orElseThrow().atTime(Deliveries.UNPACKED)),
                    "part %s is %s with the delivery of that day"
                            .formatted(
                                    last.get().need().part(),
                                    ordered ? "ordered and comes" : "not ordered yet; ordered today it comes"));
        }
        if (answer.isPresent()) {
            earliest = earliest.later(
                    ruler.slotFrom(answer.get().atStartOfDay()), "the owner has not agreed to the estimate yet");
        }
        if (notBefore.isPresent()) {
            earliest =
                    earliest.later(ruler.slotFrom(notBefore.get().atStartOfDay()), "the owner does not want it sooner");
        }
        return earliest;
    }

    private Earliest later(int other, String reason) {
        return other > slot ? new Earliest(other, reason) : this;
    }
}
