package knollfield.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;

/** The best slots for one job now, and what each costs the rest (rules.md section 11). */
public final class Offers {

    /** Days looked at beyond the wanted number: what is cheapest by itself may cost the rest most. */
    private static final int FURTHER_DAYS = 8;

    private Offers() {}

    /**
     * A slot that is free as the board stands.
     *
     * @param end slot after the last one held
     * @param share what the job itself costs there
     * @param restMinor what jobs that still wait lose by it when each takes the best place that is left, minor units
     * @param later those that lose, the most first
     */
    public record Offer(Place place, int end, Board.Share share, long restMinor, List<Later> later) {
        public long total() {
            return share.total() + restMinor;
        }
    }

    /**
     * A waiting job that would start later.
     *
     * @param days later; empty where no place would be left for it
     */
    public record Later(long jobId, String name, OptionalInt days) {}

    /**
     * At most {@code count} offers on different days, the cheapest first.
     *
     * @param places the board as it stands; the job's own place on it is not in its way
     */
    public static List<Offer> best(PlanCase plan, Map<Long, Place> places, long jobId, int count) {
        Map<Long, Place> others = new HashMap<>(places);
        others.remove(jobId);
        PlanCase unpinned = plan.with(plan.job(jobId).with(new PlanJob.Pin.Free()));
        List<Long> waiting = plan.jobs().stream()
                .filter(j -> j.id() != jobId && j.pin() instanceof PlanJob.Pin.Free && !places.containsKey(j.id()))
                .map(PlanJob::id)
                .toList();
        Board board = Board.lay(unpinned, others);
        Map<Integer, Candidate> byDay = new LinkedHashMap<>();
        for (Place place : board.freePlaces(jobId)) {
            Candidate candidate = new Candidate(place, board.shareAt(jobId, place));
            byDay.merge(
                    plan.shop().ruler().dayOf(place.start()),
                    candidate,
                    (a, b) -> b.share.total() < a.share.total() ? b : a);
        }
        board.fill(waiting);
        Map<Long, Place> undisturbed = board.places();
        long without = board.cost().total();
        long leaving = unpinnedCost(unpinned, jobId);
        List<Offer> offers = new ArrayList<>();
        byDay.values().stream()
                .sorted(Comparator.comparing(c -> c.share.total()))
                .limit(count + FURTHER_DAYS)
                .forEach(c -> offers.add(offer(unpinned, others, jobId, waiting, c, undisturbed, without - leaving)));
        offers.sort(
                Comparator.comparing(Offer::total).thenComparing(o -> o.place().start()));
        return offers.stream().limit(count).toList();
    }

    private record Candidate(Place place, Board.Share share) {}

    /** What the case costs for the job alone while it has no place. */
    private static long unpinnedCost(PlanCase plan, long jobId) {
        PlanJob job = plan.job(jobId);
        Shop shop = plan.shop();
        return job.waiting(shop.today(), shop.ruler().days())
                + shop.prices().unplanned()
                + (job.known().isPresent() ? shop.prices().move() : 0);
    }

    private static Offer offer(
            PlanCase plan,
            Map<Long, Place> others,
            long jobId,
            List<Long> waiting,
            Candidate candidate,
            Map<Long, Place> undisturbed,
            long restWithout) {
        Board board = Board.lay(plan, others);
        board.place(jobId, candidate.place);
        int end = board.endAt(jobId, candidate.place).orElseThrow();
        board.fill(waiting);
        long rest = board.cost().total() - candidate.share.total() - restWithout;
        List<Later> later = new ArrayList<>();
        for (long other : waiting) {
            Optional<Place> then = board.placeOf(other);
            Place before = undisturbed.get(other);
            if (before == null) {
                continue;
            }
            int days = then.map(p -> plan.shop().ruler().dayOf(p.start())
                            - plan.shop().ruler().dayOf(before.start()))
                    .orElse(Integer.MAX_VALUE);
            if (days > 0) {
                later.add(new Later(
                        other, plan.job(other).name(), then.isPresent() ? OptionalInt.of(days) : OptionalInt.empty()));
            }
        }
        later.sort(Comparator.comparing((Later l) -> -l.days().orElse(Integer.MAX_VALUE)));
        // placing one by one may by luck end better with the job than without; it then costs the rest nothing
        return new Offer(candidate.place, end, candidate.share, Math.max(0, rest), later);
    }
}
