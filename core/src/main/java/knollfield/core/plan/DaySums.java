package knollfield.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * What a day of the board comes to.
 *
 * @param freeMinutes of technicians who work that day, from now on, that no job takes
 * @param helperMinutes for which jobs that start that day need a second pair of hands
 * @param full fleets that can spare no further vehicle that day
 */
public record DaySums(int freeMinutes, int helperMinutes, List<FullFleet> full) {

    private static final int MINUTES_PER_SLOT = 30;

    /** A fleet, and its vehicles off the road on the day. */
    public record FullFleet(Shop.Fleet fleet, int off) {}

    public DaySums {
        full = List.copyOf(full);
    }

    /** @param day of the board's ruler */
    public static DaySums of(Board board, int day) {
        Shop shop = board.plan().shop();
        int from = Math.max(day * shop.ruler().perDay(), shop.now());
        int to = (day + 1) * shop.ruler().perDay();
        Map<Long, Integer> free = new HashMap<>();
        shop.technicians().stream()
                .filter(t -> !t.daysOff().contains(day))
                .forEach(t -> free.put(t.id(), (int) IntStream.range(from, to)
                        .filter(s -> t.worksIn(s, shop.ruler()))
                        .count()));
        Map<Long, Integer> off = new HashMap<>();
        int helpers = 0;
        for (Map.Entry<Long, Place> e : board.places().entrySet()) {
            PlanJob job = board.plan().job(e.getKey());
            int start = e.getValue().start();
            int end = board.endAt(e.getKey(), e.getValue()).orElseThrow();
            shop.technician(e.getValue().technicianId()).ifPresent(t -> {
                int taken = (int) IntStream.range(Math.max(start, from), Math.min(end, to))
                        .filter(s -> t.worksIn(s, shop.ruler()))
                        .count();
                free.computeIfPresent(t.id(), (id, left) -> left - taken);
            });
            helpers += shop.ruler().dayOf(start) == day ? job.helperMinutes() : 0;
            if (job.fleetId().isPresent()
                    && shop.ruler().dayOf(start) <= day
                    && day <= shop.ruler().dayOf(end - 1)) {
                off.merge(job.fleetId().getAsLong(), 1, Integer::sum);
            }
        }
        return new DaySums(
                MINUTES_PER_SLOT
                        * free.values().stream().mapToInt(Integer::intValue).sum(),
                helpers,
                shop.fleets().stream()
                        .filter(f -> off.containsKey(f.id()) && off.getOrDefault(f.id(), 0) >= f.cap())
                        .map(f -> new FullFleet(f, off.getOrDefault(f.id(), 0)))
                        .toList());
    }

    /** Which copy of its tool set each placed job has, 1 for the first: the lowest that is free when it starts. */
    public static Map<Long, Integer> copies(Board board) {
        Map<Long, Integer> copies = new HashMap<>();
        Map<String, List<Integer>> freeAt = new HashMap<>();
        board.places().entrySet().stream()
                .sorted(Comparator.comparing(
                                (Map.Entry<Long, Place> e) -> e.getValue().start())
                        .thenComparing(Map.Entry::getKey))
                .forEach(e -> {
                    List<Integer> ends =
                            freeAt.computeIfAbsent(board.plan().job(e.getKey()).toolSet(), s -> new ArrayList<>());
                    int copy = 0;
                    while (copy < ends.size() && ends.get(copy) > e.getValue().start()) {
                        copy++;
                    }
                    if (copy == ends.size()) {
                        ends.add(0);
                    }
                    ends.set(copy, board.endAt(e.getKey(), e.getValue()).orElseThrow());
                    copies.put(e.getKey(), copy + 1);
                });
        return copies;
    }
}
