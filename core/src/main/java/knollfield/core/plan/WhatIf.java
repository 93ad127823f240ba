package knollfield.core.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.IntStream;

/** What moves, and what it costs, if something fails: a technician, a bay, a tool set, a ferry (rules.md section 11). */
public final class WhatIf {

    private WhatIf() {}

    /**
     * @param struck jobs that cannot stay where they are, and the rules that say so
     * @param changes what would have to move
     * @param promisesBroken promised jobs that could not even start when promised
     * @param places of all jobs then
     * @param onLift jobs that have begun and whose technician is away before they end
     */
    public record Answer(
            PlanCost before,
            PlanCost after,
            Map<Long, List<Broken>> struck,
            List<PlanChange> changes,
            Set<Long> promisesBroken,
            Map<Long, Place> places,
            List<OnLift> onLift) {}

    /**
     * A job that has begun: its vehicle stays on its lift, so somebody takes it over there or it waits.
     *
     * @param slotsLeft half-hours of its work that are left
     * @param takers technicians who know the work and are free for it from now on, in the shop's order
     */
    public record OnLift(long jobId, int slotsLeft, List<Long> takers) {}

    /**
     * The calmest way out found: jobs that are not struck stay, unless a struck one finds no place without moving them. A
     * struck promise keeps its start where another technician or bay can keep it.
     *
     * @param now the case as it is
     * @param then the same jobs where the worse has happened
     * @param steps of the search for each attempt
     */
    public static Answer of(PlanCase now, Map<Long, Place> places, PlanCase then, long seed, long steps) {
        Board before = Board.lay(now, places);
        Board after = Board.lay(then, places);
        Map<Long, List<Broken>> struck = struck(before, after, places);
        // what waits goes on waiting: the question is what would have to move
        PlanCase standing = new PlanCase(
                then.shop(),
                then.jobs().stream().filter(j -> places.containsKey(j.id())).toList());
        PlanCase calm = changed(standing, j -> pinned(j, places, struck.keySet(), true));
        Map<Long, Place> found = search(calm, places, seed, steps);
        if (!found.keySet().containsAll(wanted(struck.keySet(), places))) {
            PlanCase freer = changed(standing, j -> pinned(j, places, struck.keySet(), false));
            found = search(freer, places, seed, steps);
        }
        Set<Long> broken = new TreeSet<>();
        for (long id : struck.keySet()) {
            PlanJob job = then.job(id);
            Place there = found.get(id);
            if (job.pin() instanceof PlanJob.Pin.AtPlace at
                    && (there == null || there.start() != at.place().start())) {
                broken.add(id);
            }
        }
        if (!broken.isEmpty() && !found.keySet().containsAll(wanted(broken, places))) {
            PlanCase given = changed(
                    standing,
                    j -> broken.contains(j.id())
                            ? j.with(new PlanJob.Pin.Free())
                            : pinned(j, places, struck.keySet(), false));
            found = search(given, found, seed, steps);
        }
        PlanCase judged = changed(then, j -> struck.containsKey(j.id()) ? j.with(new PlanJob.Pin.Free()) : j);
        return new Answer(
                before.cost(),
                Board.lay(judged, found).cost(),
                Map.copyOf(struck),
                PlanChange.between(judged, places, found),
                broken,
                Map.copyOf(found),
                onLift(before, now, then, places));
    }

    /** What stood and stands no longer, with the rules that are broken only now. */
    private static Map<Long, List<Broken>> struck(Board before, Board after, Map<Long, Place> places) {
        Map<Long, List<Broken>> struck = new HashMap<>();
        after.clashes().forEach((id, broken) -> {
            Place place = places.get(id);
            boolean begun = place != null
                    && hasBegun(after.plan().job(id), place, after.plan().shop());
            // a vehicle on the lift stays there; handing it over is no question of the board
            if (place == null || begun) {
                return;
            }
            List<String> already =
                    before.broken(id, place).stream().map(Broken::words).toList();
            List<Broken> fresh =
                    broken.stream().filter(b -> !already.contains(b.words())).toList();
            if (!fresh.isEmpty()) {
                struck.put(id, fresh);
            }
        });
        return struck;
    }

    private static boolean hasBegun(PlanJob job, Place place, Shop shop) {
        return job.pin() instanceof PlanJob.Pin.AtPlace at && (at.begun() || place.start() < shop.now());
    }

    private static List<OnLift> onLift(Board before, PlanCase now, PlanCase then, Map<Long, Place> places) {
        Ruler ruler = now.shop().ruler();
        int from = now.shop().now();
        List<OnLift> onLift = new ArrayList<>();
        for (PlanJob job : now.jobs()) {
            Place place = places.get(job.id());
            if (place == null || !hasBegun(job, place, now.shop())) {
                continue;
            }
            int end = Math.min(Math.max(before.endAt(job.id(), place).orElse(0), from + 1), ruler.slots());
            Shop.Technician here = now.shop().technician(place.technicianId()).orElseThrow();
            Shop.Technician away = then.shop().technician(place.technicianId()).orElse(here);
            List<Integer> left = IntStream.range(Math.max(from, place.start()), end)
                    .filter(s -> here.worksIn(s, ruler))
                    .boxed()
                    .toList();
            if (left.stream().anyMatch(s -> !away.worksIn(s, ruler))) {
                onLift.add(new OnLift(job.id(), left.size(), takers(job.left(left.size()), place, end, then, places)));
            }
        }
        return List.copyOf(onLift);
    }

    /** Begun at the taker's next half-hour, which must come before it would have ended. */
    private static List<Long> takers(PlanJob rest, Place place, int end, PlanCase then, Map<Long, Place> places) {
        Map<Long, Place> others = new HashMap<>(places);
        others.remove(rest.id());
        Board board = Board.lay(then.with(rest), others);
        Ruler ruler = then.shop().ruler();
        return then.shop().technicians().stream()
                .filter(t -> t.id() != place.technicianId())
                .filter(t -> IntStream.range(then.shop().now(), end)
                        .filter(s -> t.worksIn(s, ruler))
                        .mapToObj(s -> new Place(t.id(), place.bayId(), s))
                        .findFirst()
                        .filter(p -> board.broken(rest.id(), p).isEmpty())
                        .isPresent())
                .map(Shop.Technician::id)
                .toList();
    }

    private static Set<Long> wanted(Set<Long> ids, Map<Long, Place> places) {
        Set<Long> wanted = new HashSet<>(ids);
        wanted.retainAll(places.keySet());
        return wanted;
    }

    private static PlanJob pinned(PlanJob job, Map<Long, Place> places, Set<Long> struck, boolean othersStay) {
        if (struck.contains(job.id())) {
            return job.pin() instanceof PlanJob.Pin.AtPlace at
                    ? job.with(new PlanJob.Pin.AtStart(at.place().start()))
                    : job;
        }
        Place place = places.get(job.id());
        return othersStay && place != null ? job.with(new PlanJob.Pin.AtPlace(place)) : job;
    }

    private static PlanCase changed(PlanCase plan, Function<PlanJob, PlanJob> change) {
        return new PlanCase(plan.shop(), plan.jobs().stream().map(change).toList());
    }

    private static Map<Long, Place> search(PlanCase plan, Map<Long, Place> from, long seed, long steps) {
        return PlanSearch.run(plan, from, seed, new PlanSearch.Budget.Steps(steps))
                .places();
    }
}
