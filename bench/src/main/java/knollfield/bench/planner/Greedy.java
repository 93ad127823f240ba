package knollfield.bench.planner;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import knollfield.core.plan.Place;

/** The baseline: earliest due first, each at the first place that fits; appointments before all. Shares nothing with core. */
public final class Greedy {

    private static final int PER_DAY = 16;

    private final Instance in;
    private final Set<String> taken = new HashSet<>();
    private final Map<String, Integer> counts = new HashMap<>();
    private final Map<Long, Place> places = new HashMap<>();

    private Greedy(Instance in) {
        this.in = in;
    }

    /** @param args instance file, plan file */
    public static void main(String[] args) throws IOException {
        Instance.writePlan(Path.of(args[1]), plan(Instance.read(Path.of(args[0]))));
    }

    static Map<Long, Place> plan(Instance in) {
        Greedy greedy = new Greedy(in);
        in.jobs().stream()
                .sorted(Comparator.comparing((Instance.Job j) -> j.appointmentSlot() == null)
                        .thenComparing(Instance.Job::dueDay)
                        .thenComparing(Instance.Job::id))
                .forEach(greedy::place);
        return greedy.places;
    }

    private void place(Instance.Job job) {
        int first = job.appointmentSlot() != null ? job.appointmentSlot() : job.earliestDay() * PER_DAY;
        int last = job.appointmentSlot() != null ? first : in.days() * PER_DAY - 1;
        for (int start = first; start <= last; start++) {
            for (Instance.Tech tech : in.techs()) {
                int end = end(job, tech, start);
                if (end < 0 || !free(job, "t" + tech.id(), start, end, tech)) {
                    continue;
                }
                for (Instance.Bay bay : in.bays()) {
                    if (bay.liftClass() >= job.liftClass() && free(job, "b" + bay.id(), start, end, null)) {
                        hold(job, tech, bay, start, end);
                        return;
                    }
                }
            }
        }
    }

    private int end(Instance.Job job, Instance.Tech tech, int start) {
        if (!tech.skills().containsAll(job.skills()) || tech.daysOff().contains(start / PER_DAY)) {
            return -1;
        }
        int left = (job.durationSlots() * 100 + tech.speedPct() - 1) / tech.speedPct();
        int slot = start;
        while (left > 0) {
            if (slot >= in.days() * PER_DAY) {
                return -1;
            }
            left -= tech.daysOff().contains(slot / PER_DAY) ? 0 : 1;
            slot++;
        }
        return slot;
    }

    /** True where the resource is free; with a technician, also tool set, fleet and the vehicle's own days. */
    private boolean free(Instance.Job job, String resource, int start, int end, Instance.Tech tech) {
        for (int s = start; s < end; s++) {
            if (taken.contains(resource + "@" + s)) {
                return false;
            }
            if (tech != null
                    && counts.getOrDefault("f" + job.family() + "@" + s, 0)
                            >= in.families().get(job.family()).kitCopies()) {
                return false;
            }
        }
        if (tech == null) {
            return true;
        }
        List<Integer> blocked = job.blockedDays();
        for (int d = start / PER_DAY; d <= (end - 1) / PER_DAY; d++) {
            boolean full = job.fleet() != null
                    && counts.getOrDefault("d" + job.fleet() + "@" + d, 0)
                            >= in.fleets().get(job.fleet()).cap();
            if (full || blocked.contains(d)) {
                return false;
            }
        }
        return true;
    }

    private void hold(Instance.Job job, Instance.Tech tech, Instance.Bay bay, int start, int end) {
        for (int s = start; s < end; s++) {
            taken.add("t" + tech.id() + "@" + s);
            taken.add("b" + bay.id() + "@" + s);
            counts.merge("f" + job.family() + "@" + s, 1, Integer::sum);
        }
        if (job.fleet() != null) {
            for (int d = start / PER_DAY; d <= (end - 1) / PER_DAY; d++) {
                counts.merge("d" + job.fleet() + "@" + d, 1, Integer::sum);
            }
        }
        places.put((long) job.id(), new Place(tech.id(), bay.id(), start));
    }
}
