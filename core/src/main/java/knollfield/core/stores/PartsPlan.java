package knollfield.core.stores;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** Shares out what is in the house and on order among jobs, and says when each has its parts. */
public final class PartsPlan {

    private PartsPlan() {}

    /**
     * One part for one job.
     *
     * @param start when the job is to start; empty for one without a place
     * @param rank jobs without a place are served in this order, the smallest first
     */
    public record Need(long jobId, String part, Optional<LocalDateTime> start, double rank) {}

    /** Pieces on order, and the day they were promised for. */
    public record OnOrder(String part, int pieces, LocalDate arrives) {}

    /** Where a part comes from. */
    public sealed interface Supply {

        /** In the store and kept for the job. */
        record InHouse() implements Supply {}

        /** On order. */
        record Ordered(LocalDate arrives) implements Supply {}

        /**
         * Not ordered yet.
         *
         * @param here when it would come if ordered today; empty where no delivery is in sight
         * @param orderBy last day to order for the job's start; empty where it has none, or it is too late
         */
        record ToOrder(Optional<LocalDate> here, Optional<LocalDate> orderBy) implements Supply {}

        /** Not in the catalogue, so nobody can say. */
        record NotListed() implements Supply {}

        /** The day from which it can be used, where that is later than today; empty where it is here or not known. */
        default Optional<LocalDate> day() {
            if (this instanceof Ordered o) {
                return Optional.of(o.arrives());
            }
            return this instanceof ToOrder t ? t.here() : Optional.empty();
        }
    }

    /** A need and what serves it. */
    public record Served(Need need, Supply supply) {

        /** True where the job is to start before the part can be used. */
        public boolean late() {
            return need.start()
                    .flatMap(s -> supply.day().map(d -> d.isAfter(Deliveries.lastInTimeFor(s))))
                    .orElse(false);
        }
    }

    /**
     * Serves jobs in the order they start, then those without a place by rank.
     *
     * @param stock pieces in the store by part
     * @param daysToSend days from order to dispatch by part; parts not in it are not in the catalogue
     */
    public static List<Served> share(
            Collection<Need> needs,
            Map<String, Integer> stock,
            Collection<OnOrder> orders,
            Map<String, Integer> daysToSend,
            Deliveries deliveries,
            LocalDate today) {
        Map<String, Integer> left = new HashMap<>(stock);
        Map<String, List<LocalDate>> coming = new HashMap<>();
        orders.stream().sorted(Comparator.comparing(OnOrder::arrives)).forEach(o -> {
            for (int i = 0; i < o.pieces(); i++) {
                deliveries
                        .expected(o.arrives(), today)
                        .ifPresent(d -> coming.computeIfAbsent(o.part(), p -> new ArrayList<>())
                                .add(d));
            }
        });
        List<Served> served = new ArrayList<>();
        needs.stream()
                .sorted(Comparator.comparing((Need n) -> n.start().orElse(LocalDateTime.MAX))
                        .thenComparing(Need::rank)
                        .thenComparing(Need::jobId)
                        .thenComparing(Need::part))
                .forEach(n -> served.add(new Served(n, supply(n, left, coming, daysToSend, deliveries, today))));
        return served;
    }

    private static Supply supply(
            Need need,
            Map<String, Integer> left,
            Map<String, List<LocalDate>> coming,
            Map<String, Integer> daysToSend,
            Deliveries deliveries,
            LocalDate today) {
        if (left.getOrDefault(need.part(), 0) > 0) {
            left.merge(need.part(), -1, Integer::sum);
            return new Supply.InHouse();
        }
        List<LocalDate> ordered = coming.getOrDefault(need.part(), List.of());
        if (!ordered.isEmpty()) {
            return new Supply.Ordered(ordered.remove(0));
        }
        Integer days = daysToSend.get(need.part());
        if (days == null) {
            return new Supply.NotListed();
        }
        return new Supply.ToOrder(
                deliveries.firstAfter(today.plusDays(days)),
                need.start().flatMap(s -> deliveries.orderBy(today, days, Deliveries.lastInTimeFor(s))));
    }

    /** True where nothing has to be waited for; what nobody lists keeps nothing waiting. */
    public static boolean ready(Collection<Served> ofJob) {
        return ofJob.stream()
                .allMatch(s -> s.supply() instanceof Supply.InHouse || s.supply() instanceof Supply.NotListed);
    }

    /**
     * A part that neither stock nor orders cover.
     *
     * @param pieces missing
     * @param orderBy the earliest last day to order of its jobs; empty where none has a place, or it is too late
     * @param late a job is to start before it can be here
     * @param jobs that need it, in the order they are served
     */
    public record Shortage(String part, int pieces, Optional<LocalDate> orderBy, boolean late, List<Long> jobs) {}

    /** What is to be ordered: what is too late first, then by the day to order it by, then what has no job with a place. */
    public static List<Shortage> shortages(Collection<Served> served) {
        Map<String, List<Served>> missing = new TreeMap<>();
        served.stream()
                .filter(s -> s.supply() instanceof Supply.ToOrder)
                .forEach(s -> missing.computeIfAbsent(s.need().part(), p -> new ArrayList<>())
                        .add(s));
        List<Shortage> shorts = new ArrayList<>();
        missing.forEach((part, needs) -> shorts.add(new Shortage(
                part,
                needs.size(),
                needs.stream()
                        .flatMap(s -> ((Supply.ToOrder) s.supply()).orderBy().stream())
                        .min(Comparator.naturalOrder()),
                needs.stream().anyMatch(Served::late),
                needs.stream().map(s -> s.need().jobId()).distinct().toList())));
        shorts.sort(Comparator.comparing((Shortage s) -> !s.late())
                .thenComparing(s -> s.orderBy().orElse(LocalDate.MAX))
                .thenComparing(Shortage::part));
        return shorts;
    }
}
