package knollfield.core.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Judges a plan half-hour by half-hour and day by day; shares nothing with the board. */
final class Referee {

    private Referee() {}

    record Verdict(List<String> broken, long cost) {}

    static Verdict judge(PlanCase plan, Map<Long, Place> places) {
        Shop shop = plan.shop();
        int days = shop.ruler().days();
        List<String> broken = new ArrayList<>();
        long cost = 0;
        Set<String> taken = new HashSet<>();
        Map<String, Integer> sets = new HashMap<>();
        Map<String, Integer> fleets = new HashMap<>();
        int per = shop.ruler().perDay();
        Map<Long, List<PlanJob>> order = new HashMap<>();
        for (PlanJob job : plan.jobs()) {
            Place at = places.get(job.id());
            boolean moved = job.known().isPresent() && !job.known().get().equals(at);
            cost += moved ? shop.prices().move() : 0;
            if (at == null) {
                cost += waiting(job, shop.today(), days) + shop.prices().unplanned();
                if (job.pin() instanceof PlanJob.Pin.AtStart) {
                    broken.add(job.name() + " is promised and has no place");
                }
                continue;
            }
            Shop.Technician t = shop.technician(at.technicianId()).orElseThrow();
            Shop.Bay b = shop.bay(at.bayId()).orElseThrow();
            if (!t.skills().containsAll(job.skills()) || b.liftClass() < job.liftClass()) {
                broken.add(job.name() + " skill or bay");
            }
            if (at.start() < shop.now() || at.start() < job.earliest()) {
                broken.add(job.name() + " too soon");
            }
            if (job.pin() instanceof PlanJob.Pin.AtStart s && s.slot() != at.start()) {
                broken.add(job.name() + " not when promised");
            }
            if (t.daysOff().contains(at.start() / per) || t.slotsOff().contains(at.start())) {
                broken.add(job.name() + " starts on a day off");
            }
            int left = (int) Math.ceil(job.slots() * 100.0 / t.speedPercent());
            int slot = at.start();
            while (left > 0 && slot < days * per) {
                if (!t.daysOff().contains(slot / per) && !t.slotsOff().contains(slot)) {
                    left--;
                    if (!taken.add("t" + t.id() + "@" + slot)) {
                        broken.add(t.name() + " twice at " + slot);
                    }
                }
                if (!taken.add("b" + b.id() + "@" + slot) || b.daysClosed().contains(slot / per)) {
                    broken.add(b.name() + " not free at " + slot);
                }
                int out = sets.merge(job.toolSet() + "@" + slot, 1, Integer::sum);
                if (out > shop.toolSet(job.toolSet()).orElseThrow().copiesOn(slot / per)) {
                    broken.add("tool set " + job.toolSet() + " at " + slot);
                }
                slot++;
            }
            if (left > 0) {
                broken.add(job.name() + " is not done in time");
            }
            for (int d = at.start() / per; d <= (slot - 1) / per; d++) {
                cost += job.offRoadPerDay();
                if (job.blockedDays().contains(d)) {
                    broken.add(job.name() + " is away on " + d);
                }
                if (job.fleetId().isPresent()) {
                    int off = fleets.merge(job.fleetId().getAsLong() + "@" + d, 1, Integer::sum);
                    if (off
                            > shop.fleet(job.fleetId().getAsLong())
                                    .orElseThrow()
                                    .cap()) {
                        broken.add("fleet over its cap on " + d);
                    }
                }
            }
            cost += waiting(job, shop.today(), at.start() / per);
            order.computeIfAbsent(t.id(), x -> new ArrayList<>()).add(job);
        }
        for (List<PlanJob> jobs : order.values()) {
            jobs.sort((x, y) -> Integer.compare(
                    places.get(x.id()).start(), places.get(y.id()).start()));
            for (int i = 1; i < jobs.size(); i++) {
                cost += jobs.get(i).toolSet().equals(jobs.get(i - 1).toolSet())
                        ? 0
                        : shop.prices().changeover();
            }
        }
        return new Verdict(broken, cost);
    }

    private static long waiting(PlanJob job, int from, int to) {
        WaitingCost.Doubling waits = (WaitingCost.Doubling) job.waits();
        long cost = 0;
        for (int d = from; d < to; d++) {
            cost += waits.perDay() * (d < waits.actBy() ? 1 : 2);
        }
        return cost;
    }
}
