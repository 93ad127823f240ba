package knollfield.app.fleet;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import knollfield.app.away.Absence;
import knollfield.app.away.Absences;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.hours.Hours;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Fleet;
import knollfield.core.estimate.EstimateRates;
import knollfield.core.fleet.Coming;
import knollfield.core.fleet.FleetMonths;
import knollfield.core.plan.WorkHours;
import org.springframework.stereotype.Service;

/** Lays a fleet's vehicles out over the coming months, each as its dossier has it. */
@Service
public class FleetPlans {

    static final int MONTHS = 24;
    static final int YEAR = 12;

    private final Forecasts forecasts;
    private final Jobs jobs;
    private final Hours hours;
    private final Absences absences;
    private final WorkshopSettings settings;
    private final WorkshopClock clock;

    FleetPlans(
            Forecasts forecasts,
            Jobs jobs,
            Hours hours,
            Absences absences,
            WorkshopSettings settings,
            WorkshopClock clock) {
        this.forecasts = forecasts;
        this.jobs = jobs;
        this.hours = hours;
        this.absences = absences;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * A fleet and its months.
     *
     * @param states how its vehicles stand, by number; those that are sold or scrapped are left out
     * @param doneThisMonth jobs signed since the first of the month
     */
    record Plan(Fleet fleet, FleetMonths months, Map<Long, VehicleState> states, int doneThisMonth) {}

    Plan of(Fleet fleet) {
        LocalDate today = clock.today();
        WorkHours opening = hours.opening().hours();
        Map<Long, VehicleState> states = forecasts.all().stream()
                .filter(s ->
                        s.vehicle().fleet().filter(f -> f.id() == fleet.id()).isPresent())
                .filter(s -> s.vehicle().state().planned())
                .collect(Collectors.toMap(s -> s.vehicle().id(), Function.identity()));
        List<Coming> coming = coming(states);
        int done = (int) jobs.current(today.getDayOfMonth() - 1).stream()
                .filter(j -> states.containsKey(j.vehicleId()) && !j.scope().isInspection())
                .filter(j -> j.done()
                        .filter(d -> !d.on().isBefore(today.withDayOfMonth(1)))
                        .isPresent())
                .count();
        return new Plan(
                fleet, FleetMonths.of(coming, today, MONTHS, fleet.offRoadCap(), works(fleet, opening)), states, done);
    }

    /** The vehicles of the whole workshop over its coming months; no cap is counted. */
    public FleetMonths ofAll(int months) {
        Map<Long, VehicleState> states = forecasts.all().stream()
                .filter(s -> s.vehicle().state().planned())
                .collect(Collectors.toMap(s -> s.vehicle().id(), Function.identity()));
        return FleetMonths.of(coming(states), clock.today(), months, 0, d -> true);
    }

    private List<Coming> coming(Map<Long, VehicleState> states) {
        EstimateRates rates = settings.get().rates(1, 0);
        WorkHours opening = hours.opening().hours();
        Map<Long, LocalDate> planned = jobs.open().stream()
                .filter(j -> states.containsKey(j.vehicleId()) && !j.scope().isInspection())
                .filter(j -> j.booking().isPresent())
                .collect(Collectors.toMap(
                        Job::vehicleId,
                        j -> j.booking().orElseThrow().start().toLocalDate(),
                        (a, b) -> a.isBefore(b) ? a : b));
        return states.values().stream()
                .map(s -> Coming.of(
                        s.vehicle().id(),
                        s.forecast(),
                        s.plannedMinutes(),
                        Coming.Money.of(s.plannedMinor(), s.plannedMinutes(), rates),
                        opening.longestDayMinutes(),
                        Optional.ofNullable(planned.get(s.vehicle().id()))))
                .toList();
    }

    /** Days on which the workshop is open and the fleet can be there. */
    private Predicate<LocalDate> works(Fleet fleet, WorkHours opening) {
        LocalDate today = clock.today();
        List<Absence> closed = absences.endingFrom(today).stream()
                .filter(a -> a.kind() == Absence.Kind.WORKSHOP)
                .toList();
        return day -> opening.workOn(day.getDayOfWeek())
                && (fleet.days().isEmpty() || fleet.days().contains(day.getDayOfWeek()))
                && closed.stream().noneMatch(a -> a.covers(day));
    }
}
