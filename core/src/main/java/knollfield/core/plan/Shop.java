package knollfield.core.plan;

import java.time.DayOfWeek;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.ToLongFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * What the workshop has to plan with.
 *
 * @param today day of the ruler from which waiting is counted
 * @param now first slot in which work may still begin
 */
public record Shop(
        Ruler ruler,
        int today,
        int now,
        List<Technician> technicians,
        List<Bay> bays,
        List<ToolSet> toolSets,
        List<Fleet> fleets,
        Prices prices) {

    public Shop {
        technicians = List.copyOf(technicians);
        bays = List.copyOf(bays);
        toolSets = List.copyOf(toolSets);
        fleets = List.copyOf(fleets);
        unique(technicians, Technician::id, "technician");
        unique(bays, Bay::id, "bay");
        unique(toolSets, ToolSet::code, "tool set");
        unique(fleets, Fleet::id, "fleet");
    }

    /**
     * A technician.
     *
     * @param skills codes of work this person may do
     * @param speedPercent 100 for the book's pace, 125 for a quarter more in the same time; above zero
     * @param daysOff days of the ruler without work: weekends, holidays, absences
     * @param slotsOff slots without work on days with some: before and after this person's hours
     */
    public record Technician(
            long id, String name, Set<String> skills, int speedPercent, Set<Integer> daysOff, Set<Integer> slotsOff) {
        public Technician {
            skills = Set.copyOf(skills);
            daysOff = Set.copyOf(daysOff);
            slotsOff = Set.copyOf(slotsOff);
            if (speedPercent <= 0) {
                throw new IllegalArgumentException("%s at %d %% never finishes".formatted(name, speedPercent));
            }
        }

        /** Somebody who works all half-hours of a working day. */
        public Technician(long id, String name, Set<String> skills, int speedPercent, Set<Integer> daysOff) {
            this(id, name, skills, speedPercent, daysOff, Set.of());
        }

        /** True where this person works in {@code slot} of {@code ruler}. */
        public boolean worksIn(int slot, Ruler ruler) {
            return !daysOff.contains(ruler.dayOf(slot)) && !slotsOff.contains(slot);
        }

        /** Half-hours this person needs for work of {@code slots} at the book's pace, rounded up. */
        public int slotsFor(int slots) {
            return (slots * 100 + speedPercent - 1) / speedPercent;
        }
    }

    /**
     * A bay.
     *
     * @param liftClass the heaviest class it takes
     * @param daysClosed days on which nothing may stand in it
     */
    public record Bay(long id, String name, int liftClass, Set<Integer> daysClosed) {
        public Bay {
            daysClosed = Set.copyOf(daysClosed);
        }
    }

    /**
     * Locking tools of an engine family.
     *
     * @param copies in the house, zero or more
     * @param out copies missing on a day: broken, lent
     */
    public record ToolSet(String code, String name, int copies, Map<Integer, Integer> out) {
        public ToolSet {
            out = Map.copyOf(out);
        }

        /** Copies that can be used on {@code day}. */
        public int copiesOn(int day) {
            return Math.max(0, copies - out.getOrDefault(day, 0));
        }
    }

    /** A fleet, and how many of its vehicles may be off the road on one day. */
    public record Fleet(long id, String name, int cap) {}

    /**
     * What a plan is weighed by, minor units.
     *
     * @param changeover of a tool set between two jobs of one technician
     * @param move of a job that people already know at another place
     * @param unplanned for a job without a place, beyond its waiting to the end of the ruler
     */
    public record Prices(long changeover, long move, long unplanned) {}

    /** Days on which the workshop is open and a vehicle that can come on {@code possible} cannot; none where any will do. */
    public Set<Integer> closedTo(Set<DayOfWeek> possible) {
        if (possible.isEmpty()) {
            return Set.of();
        }
        return IntStream.range(0, ruler.days())
                .filter(d -> technicians.stream().anyMatch(t -> !t.daysOff().contains(d)))
                .filter(d -> !possible.contains(ruler.date(d).getDayOfWeek()))
                .boxed()
                .collect(Collectors.toSet());
    }

    public Optional<Technician> technician(long id) {
        return technicians.stream().filter(t -> t.id() == id).findFirst();
    }

    public Optional<Bay> bay(long id) {
        return bays.stream().filter(b -> b.id() == id).findFirst();
    }

    public Optional<ToolSet> toolSet(String code) {
        return toolSets.stream().filter(t -> t.code().equals(code)).findFirst();
    }

    public Optional<Fleet> fleet(long id) {
        return fleets.stream().filter(f -> f.id() == id).findFirst();
    }

    private static <T> void unique(List<T> all, ToLongFunction<T> id, String what) {
        unique(all, (Function<T, Object>) id::applyAsLong, what);
    }

    private static <T> void unique(List<T> all, Function<T, Object> id, String what) {
        if (all.stream().map(id).collect(Collectors.toSet()).size() != all.size()) {
            throw new IllegalArgumentException("a %s is listed twice".formatted(what));
        }
    }
}
