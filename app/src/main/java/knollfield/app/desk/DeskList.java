package knollfield.app.desk;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import knollfield.app.aftercare.Aftercare;
import knollfield.app.due.Forecasts;
import knollfield.app.due.Kept;
import knollfield.app.due.VehicleFilter;
import knollfield.app.due.VehicleState;
import knollfield.app.security.Person;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleService.View;
import knollfield.core.due.Status;
import knollfield.core.due.Urgency;
import knollfield.core.risk.DeskOrder;
import org.springframework.stereotype.Service;

/** Which vehicles need a decision today, in which order. */
@Service
class DeskList {

    private final Forecasts forecasts;
    private final WorkshopClock clock;
    private final Aftercare aftercare;
    private final Kept<Question, Chosen> kept = new Kept<>();

    DeskList(Forecasts forecasts, WorkshopClock clock, Aftercare aftercare) {
        this.forecasts = forecasts;
        this.clock = clock;
        this.aftercare = aftercare;
    }

    private record Question(
            View view,
            VehicleFilter filter,
            Set<Status> statuses,
            boolean aside,
            Only only,
            Order order,
            Map<Long, String> rechecks,
            Set<Long> inWork) {}

    /** In which order vehicles stand. */
    enum Order {
        /** By urgency, then by what a week of waiting may cost. */
        EXPOSURE,
        /** By urgency, then by what a week of waiting may cost for each hour of the job (W. E. Smith, 1956). */
        PER_HOUR,
        /** By urgency, then by act-by date. */
        ACT_BY,
        /** By status, then by what a week of waiting may cost. */
        STATUS
    }

    /** Of the list only some. */
    enum Only {
        ALL,
        CALLS,
        RECHECKS,
        /** Not due, but worth doing on a visit for other work. */
        WHILE_HERE
    }

    /**
     * A list and what surrounds it.
     *
     * @param listed every vehicle of the list, in order
     * @param listedCounts by status, over the list
     * @param order in which it stands
     * @param counts by status, over the vehicles the filter lets through and that are not set aside
     * @param aside set aside by their owners' wish
     * @param callBacks whose owner was promised a call for today
     * @param rechecks what is to be looked at today or was before, in words by vehicle
     * @param rechecksDue vehicles of the list that have one
     * @param whileHere not due, but worth doing on a visit for other work
     * @param planned all vehicles the person may see that are planned
     * @param next the next act-by date of clear vehicles, and how many share it
     */
    record Chosen(
            List<VehicleState> listed,
            Map<Status, Integer> listedCounts,
            Order order,
            Map<Status, Integer> counts,
            int aside,
            int callBacks,
            Map<Long, String> rechecks,
            int rechecksDue,
            int whileHere,
            int planned,
            Map<LocalDate, Integer> next) {}

    /**
     * @param statuses only these; empty: all but clear, and callbacks and rechecks whatever their status; with words to find, all
     * @param aside the vehicles that are set aside, in place of the others
     * @param inWork vehicles whose drive has a job of its own, so that no visit need be waited for
     */
    Chosen choose(
            Person person,
            VehicleFilter filter,
            Set<Status> statuses,
            boolean aside,
            Only only,
            Order order,
            Set<Long> inWork) {
        List<VehicleState> all = forecasts.worstFirst();
        Question question = new Question(
                View.of(person),
                filter,
                Set.copyOf(statuses),
                aside,
                only,
                order,
                aftercare.dueToday(),
                Set.copyOf(inWork));
        return kept.get(all, question, q -> choose(all, q));
    }

    private Chosen choose(List<VehicleState> all, Question q) {
        VehicleFilter.Test test = q.filter().on(clock.today());
        Set<Status> statuses = q.statuses();
        boolean everyStatus = statuses.isEmpty() && (!q.filter().q().isBlank() || q.aside());
        List<VehicleState> listed = new ArrayList<>();
        Map<Status, Integer> listedCounts = new EnumMap<>(Status.class);
        Map<Status, Integer> counts = new EnumMap<>(Status.class);
        TreeMap<LocalDate, Integer> next = new TreeMap<>();
        int asideCount = 0;
        int callBacks = 0;
        int rechecksDue = 0;
        int whileHere = 0;
        int planned = 0;
        for (VehicleState s : all) {
            if (!q.view().includes(s.vehicle())) {
                continue;
            }
            planned += s.vehicle().state().planned() ? 1 : 0;
            if (!test.matches(s)) {
                continue;
            }
            boolean isAside = s.aside().isPresent();
            asideCount += isAside ? 1 : 0;
            if (isAside != q.aside()) {
                continue;
            }
            Status status = s.forecast().status();
            counts.merge(status, 1, Integer::sum);
            callBacks += s.callBack() ? 1 : 0;
            boolean onAVisit = s.whileHere().isPresent()
                    && !q.inWork().contains(s.vehicle().id());
            whileHere += onAVisit ? 1 : 0;
            if (status == Status.CLEAR) {
                s.forecast().actBy().ifPresent(d -> next.merge(d, 1, Integer::sum));
            }
            boolean recheck = q.rechecks().containsKey(s.vehicle().id());
            rechecksDue += recheck ? 1 : 0;
            boolean asked = everyStatus
                    || (statuses.isEmpty()
                            ? status != Status.CLEAR || s.callBack() || recheck
                            : statuses.contains(status));
            boolean among = switch (q.only()) {
                case ALL -> asked;
                case CALLS -> s.callBack();
                case RECHECKS -> recheck;
                case WHILE_HERE -> onAVisit;
            };
            if (among) {
                listed.add(s);
                listedCounts.merge(status, 1, Integer::sum);
            }
        }
        if (q.order() != Order.EXPOSURE) {
            listed.sort(comparator(q.order()));
        }
        return new Chosen(
                Collections.unmodifiableList(listed),
                Collections.unmodifiableMap(listedCounts),
                q.order(),
                Collections.unmodifiableMap(counts),
                asideCount,
                callBacks,
                q.rechecks(),
                rechecksDue,
                whileHere,
                planned,
                next.isEmpty()
                        ? Map.of()
                        : Map.of(next.firstKey(), next.firstEntry().getValue()));
    }

    private static Comparator<VehicleState> comparator(Order order) {
        Comparator<VehicleState> first = switch (order) {
            case EXPOSURE -> Forecasts.WORST_FIRST;
            case STATUS -> Comparator.comparing(s -> s.forecast().status());
            case PER_HOUR -> DeskOrder.by(s -> s.exposurePerHour().orElse(0.0));
            case ACT_BY ->
                Comparator.comparing((VehicleState s) -> Urgency.of(s.forecast().status()))
                        .thenComparing(s -> s.forecast().actBy().orElse(LocalDate.MAX));
        };
        return first.thenComparing(Forecasts.WORST_FIRST);
    }
}
