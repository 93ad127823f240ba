package knollfield.app.month;

import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.completion.Timeliness;
import knollfield.core.completion.WorkDone;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** What was done on a fleet, year by year. */
@RestController
class FleetPastController {

    private static final int YEARS = 5;

    private final MonthBooks books;
    private final VehicleService vehicles;
    private final CurrentPerson current;

    FleetPastController(MonthBooks books, VehicleService vehicles, CurrentPerson current) {
        this.books = books;
        this.vehicles = vehicles;
        this.current = current;
    }

    /**
     * A year; money in minor units before tax.
     *
     * @param renewals of belts and chains that had a day to keep
     * @param inTime of these by their act-by day
     * @param inTimeShare of the renewals, 0 to 1; null without any
     * @param pastLimit of these only past a limit in the book
     * @param takenMinutes of the jobs whose hours are on file
     * @param takenMinor of the same
     * @param counted jobs whose hours are on file
     * @param slipped registrations of those past a limit
     */
    record FleetYear(
            int year,
            int jobs,
            int renewals,
            int inTime,
            @Nullable Double inTimeShare,
            int pastLimit,
            int counted,
            int takenMinutes,
            long takenMinor,
            List<String> slipped) {}

    /** The newest year first; years without a job are left out. */
    @GetMapping("/api/fleets/{id}/past")
    List<FleetYear> past(@PathVariable long id) {
        VehicleService.View view = VehicleService.View.of(current.get());
        boolean seen = vehicles.fleets().stream().anyMatch(f -> f.id() == id && view.includes(f));
        if (!seen) {
            throw new NotFound("There is no fleet %d, or it is not yours to see.".formatted(id));
        }
        TreeMap<Integer, List<MonthBooks.Signed>> years = books.past(id, YEARS).stream()
                .collect(Collectors.groupingBy(s -> s.on().getYear(), TreeMap::new, Collectors.toList()));
        return years.descendingMap().entrySet().stream()
                .map(e -> year(e.getKey(), e.getValue()))
                .toList();
    }

    private static FleetYear year(int year, List<MonthBooks.Signed> jobs) {
        WorkDone.Sums sums = MonthBooks.sums(jobs);
        return new FleetYear(
                year,
                sums.jobs(),
                sums.renewals(),
                sums.of(Timeliness.BEFORE_ACT_BY),
                sums.inTimeShare().orElse(null),
                sums.of(Timeliness.AFTER_LIMIT),
                sums.counted(),
                sums.takenMinutes(),
                sums.takenMinor(),
                jobs.stream()
                        .filter(s -> s.work().timeliness().equals(Optional.of(Timeliness.AFTER_LIMIT)))
                        .map(s -> s.state().vehicle().registration())
                        .toList());
    }
}
