package knollfield.app.fleet;

import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import knollfield.app.due.VehicleState;
import knollfield.core.due.BroughtForward;
import knollfield.core.due.Status;
import knollfield.core.fleet.FleetMonths;
import org.jspecify.annotations.Nullable;

/** A fleet, as its page shows it. */
final class FleetPlaceViews {

    private FleetPlaceViews() {}

    /**
     * What jobs come to, money in minor units before tax.
     *
     * @param planned of the vehicles those whose job has a place on the board
     */
    record SumView(
            int vehicles, int planned, long minutes, long lowMinor, long likelyMinor, long highMinor, int offRoadDays) {

        static SumView of(FleetMonths.Sum s) {
            return new SumView(
                    s.vehicles(),
                    s.planned(),
                    s.minutes(),
                    s.money().low(),
                    s.money().likely(),
                    s.money().high(),
                    s.offRoadDays());
        }
    }

    /**
     * @param month its first day
     * @param reachedEarly vehicles with a limit behind them at its end with a chance of 10 % at least, were nothing done
     * @param spare vehicle-days that can be spared in it
     * @param over more vehicle-days fall into it than can be spared
     */
    record FleetMonthView(
            LocalDate month,
            SumView sum,
            int reachedEarly,
            int reachedMedian,
            int reachedLate,
            int spare,
            boolean over,
            List<Long> vehicleIds) {}

    /**
     * @param day the day it counts on; null where nothing calls for it
     * @param dueNow waits today already
     * @param forwardFrom the act-by day before it was brought forward to level the months; null where it was not
     */
    record FleetVehicleView(
            long vehicleId,
            String registration,
            String makeModel,
            Status status,
            String statusWords,
            @Nullable LocalDate actBy,
            @Nullable LocalDate early,
            @Nullable LocalDate median,
            @Nullable LocalDate late,
            @Nullable LocalDate day,
            boolean dueNow,
            @Nullable LocalDate forwardFrom,
            @Nullable LocalDate plannedOn,
            int minutes,
            long lowMinor,
            long likelyMinor,
            long highMinor,
            int offRoadDays) {}

    /** @param year the next twelve months */
    record FleetRow(long id, String name, int vehicles, int offRoadCap, SumView year, int dueNow, int monthsOver) {}

    /**
     * @param words the picture in words
     * @param vehicles every vehicle in use, soonest first; those without a day last
     * @param taxShare of the money before tax
     */
    record FleetPage(
            long id,
            String name,
            String contactName,
            String phone,
            int offRoadCap,
            double taxShare,
            List<String> words,
            SumView year,
            int doneThisMonth,
            List<FleetMonthView> months,
            List<FleetVehicleView> vehicles,
            int beyond,
            int without) {}

    /**
     * @param costMinor what bringing it forward gives away, before tax
     * @param from first day of the month it stands in
     * @param to first day of the month to bring it forward to
     */
    record LevelMove(
            long vehicleId,
            String registration,
            String makeModel,
            Status status,
            String statusWords,
            LocalDate from,
            LocalDate to,
            int minutes,
            int offRoadDays,
            long costMinor) {}

    /** @param spare vehicle-days the fleet can spare in the month */
    record LevelMonth(LocalDate month, int spare, int daysLeft, int daysLevel, long minutesLeft, long minutesLevel) {}

    /**
     * @param words what it comes to
     * @param hours of the workshop a month that were counted; null where none were
     * @param costMinor of all moves
     * @param leastMinor no plan with as little above the room is known to cost less than this
     * @param best no plan is better
     */
    record LevelView(
            List<String> words,
            List<LevelMove> moves,
            List<LevelMonth> months,
            @Nullable Integer hours,
            long costMinor,
            long leastMinor,
            boolean best) {}

    record LevelAccepted(List<FleetLevels.Accepted> moves) {}

    static LevelMove move(FleetLevels.Move m, FleetPlans.Plan p) {
        VehicleState s = Objects.requireNonNull(p.states().get(m.coming().vehicleId()));
        return new LevelMove(
                s.vehicle().id(),
                s.vehicle().registration(),
                s.vehicle().makeModel(),
                s.forecast().status(),
                s.forecast().statusWords(),
                m.from().atDay(1),
                m.to().atDay(1),
                m.coming().minutes(),
                m.coming().offRoadDays(),
                m.costMinor());
    }

    /** While it holds: once renewed, a vehicle stands where its clocks have it. */
    static Optional<LocalDate> forwardFrom(VehicleState s) {
        return s.history()
                .forward()
                .filter(f -> s.forecast().actBy().equals(Optional.of(f.month().atEndOfMonth())))
                .map(BroughtForward::from);
    }
}
