package knollfield.app.desk;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.due.Forecasts;
import knollfield.app.due.MoveView;
import knollfield.app.due.VehicleFilter;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.Person;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.Status;
import knollfield.core.due.Urgency;
import org.springframework.stereotype.Component;

/** The Desk put together, as whoever asks may see it. */
@Component
class DeskPage {

    private static final int MAX_PAGE = 200;
    private static final int MOVES = 100;

    private final DeskList list;
    private final DeskRows rows;
    private final Forecasts forecasts;
    private final Jobs jobs;
    private final VehicleService vehicles;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    DeskPage(
            DeskList list,
            DeskRows rows,
            Forecasts forecasts,
            Jobs jobs,
            VehicleService vehicles,
            CurrentPerson current,
            WorkshopClock clock) {
        this.list = list;
        this.rows = rows;
        this.forecasts = forecasts;
        this.jobs = jobs;
        this.vehicles = vehicles;
        this.current = current;
        this.clock = clock;
    }

    /**
     * What is asked of the Desk.
     *
     * @param status only these; none: all but clear
     * @param aside only the vehicles that are set aside
     */
    record Asked(VehicleFilter filter, Set<Status> status, boolean aside, DeskList.Only only, DeskList.Order order) {}

    /** @param limit rows at most, of which a page has {@value #MAX_PAGE} at most */
    DeskView view(Asked asked, int offset, int limit) {
        Map<Long, Job> open = openJobs();
        DeskList.Chosen chosen = choose(asked, open);
        Optional<Map.Entry<LocalDate, Integer>> next =
                chosen.next().entrySet().stream().findFirst();
        return new DeskView(
                clock.today(),
                chosen.planned(),
                chosen.counts().entrySet().stream()
                        .filter(c -> Urgency.of(c.getKey()).isToBeDecided())
                        .mapToInt(Map.Entry::getValue)
                        .sum(),
                chosen.listed().size(),
                offset,
                chosen.aside(),
                chosen.callBacks(),
                chosen.rechecksDue(),
                chosen.whileHere(),
                Arrays.stream(Status.values())
                        .map(s ->
                                new DeskView.Group(s, s.words(), chosen.counts().getOrDefault(s, 0)))
                        .toList(),
                DeskView.sections(chosen),
                chosen.listed().stream()
                        .skip(Math.max(0, offset))
                        .limit(Math.min(Math.max(0, limit), MAX_PAGE))
                        .map(s -> rows.row(s, open, chosen.rechecks()))
                        .toList(),
                next.map(Map.Entry::getKey).orElse(null),
                next.map(Map.Entry::getValue).orElse(0),
                forecasts
                        .moves()
                        .map(m -> new DeskView.MovedView(
                                m.at(), m.why().words(), visible(m.list()).size()))
                        .filter(m -> m.count() > 0)
                        .orElse(null),
                unjudged(),
                forecasts.oldSince().orElse(null));
    }

    /** Every row of the list, in its order. */
    List<DeskRow> rows(Asked asked) {
        Map<Long, Job> open = openJobs();
        DeskList.Chosen chosen = choose(asked, open);
        return chosen.listed().stream()
                .map(s -> rows.row(s, open, chosen.rechecks()))
                .toList();
    }

    /** The vehicles that the last turn of the day, or a changed assumption, moved; worst first, at most a hundred. */
    List<MoveView> moves() {
        return forecasts.moves().map(m -> visible(m.list())).orElse(List.of()).stream()
                .limit(MOVES)
                .map(MoveView::of)
                .toList();
    }

    private List<DeskView.UnjudgedRow> unjudged() {
        Person person = current.get();
        return forecasts.all().stream()
                .filter(v -> v.unjudged().isPresent() && vehicles.maySee(person, v.vehicle()))
                .map(v -> new DeskView.UnjudgedRow(
                        v.vehicle().id(),
                        v.vehicle().registration(),
                        v.unjudged().orElseThrow().words()))
                .sorted(Comparator.comparing(DeskView.UnjudgedRow::registration))
                .toList();
    }

    private DeskList.Chosen choose(Asked asked, Map<Long, Job> open) {
        Set<Long> inWork =
                open.values().stream().filter(Job::renews).map(Job::vehicleId).collect(Collectors.toSet());
        return list.choose(
                current.get(), asked.filter(), asked.status(), asked.aside(), asked.only(), asked.order(), inWork);
    }

    private List<Forecasts.Move> visible(List<Forecasts.Move> moves) {
        Person person = current.get();
        return moves.stream()
                .filter(m -> m.after().vehicle().state().planned())
                .filter(m -> vehicles.maySee(person, m.after().vehicle()))
                .toList();
    }

    private Map<Long, Job> openJobs() {
        return jobs.current(0).stream()
                .filter(j -> j.stage().isOpen())
                .collect(Collectors.toMap(Job::vehicleId, Function.identity(), (a, b) -> a));
    }
}
