package knollfield.app.fleet;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import knollfield.app.due.VehicleState;
import knollfield.app.hours.Hours;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.BroughtForward;
import knollfield.core.fleet.Coming;
import knollfield.core.fleet.FleetMonths;
import knollfield.core.fleet.Levelling;
import knollfield.core.risk.EarlyRenewal;
import knollfield.core.risk.Exposure;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Makes a fleet's months level, and brings forward what was accepted of it. */
@Service
class FleetLevels {

    private static final int MOST_HOURS = 10_000;

    private final Hours hours;
    private final WorkshopSettings settings;
    private final WorkshopClock clock;
    private final VehicleService vehicles;

    FleetLevels(Hours hours, WorkshopSettings settings, WorkshopClock clock, VehicleService vehicles) {
        this.hours = hours;
        this.settings = settings;
        this.clock = clock;
        this.vehicles = vehicles;
    }

    /**
     * A vehicle that is better done sooner.
     *
     * @param from first of the month it stands in
     * @param to first of the month to bring it forward to
     * @param costMinor what that gives away, minor units
     */
    record Move(Coming coming, YearMonth from, YearMonth to, long costMinor) {}

    /**
     * A fleet's months, left and level.
     *
     * @param moves what to bring forward, soonest first
     * @param loads what falls into each month, left and level
     * @param left what lies above the room where nothing is brought forward
     */
    record Level(List<Move> moves, List<Load> loads, Levelling.Over left, Levelling result) {}

    /** @param spare vehicle-days the fleet can spare */
    record Load(YearMonth month, int spare, int daysLeft, int daysLevel, long minutesLeft, long minutesLevel) {}

    /**
     * @param hoursAMonth of the workshop that the fleet may take; empty where that is not counted
     * @throws knollfield.app.problem.InvalidInput for hours that cannot be
     */
    Level of(FleetPlans.Plan plan, OptionalInt hoursAMonth) {
        new Checks()
                .that(
                        hoursAMonth.isEmpty() || (hoursAMonth.getAsInt() > 0 && hoursAMonth.getAsInt() <= MOST_HOURS),
                        "/hours",
                        "Hours a month are above zero and at most 10,000.")
                .orThrow();
        List<FleetMonths.Month> months = plan.months().months();
        List<Coming> all = new ArrayList<>();
        List<Levelling.Vehicle> movable = new ArrayList<>();
        for (int m = 0; m < months.size(); m++) {
            for (Coming c : months.get(m).comes()) {
                all.add(c);
                movable.add(new Levelling.Vehicle(m, c.offRoadDays(), c.minutes(), early(plan, c, m)));
            }
        }
        List<Levelling.Room> room = months.stream()
                .map(m -> new Levelling.Room(
                        m.spare(), hoursAMonth.isPresent() ? hoursAMonth.getAsInt() * 60L : Long.MAX_VALUE))
                .toList();
        int perDay = hours.opening().hours().longestDayMinutes();
        Levelling result = Levelling.of(movable, room, perDay);
        List<Move> moves = new ArrayList<>();
        for (int i = 0; i < all.size(); i++) {
            int from = movable.get(i).month();
            int to = result.month().get(i);
            if (to < from) {
                moves.add(new Move(
                        all.get(i),
                        months.get(from).month(),
                        months.get(to).month(),
                        movable.get(i).earlyMinor().get(to)));
            }
        }
        List<Load> loads = IntStream.range(0, months.size())
                .mapToObj(m -> load(months.get(m), m, movable, result))
                .toList();
        return new Level(moves, loads, Levelling.left(movable, room, perDay), result);
    }

    private static Load load(FleetMonths.Month month, int m, List<Levelling.Vehicle> vehicles, Levelling result) {
        int days = 0;
        long minutes = 0;
        for (int i = 0; i < vehicles.size(); i++) {
            if (result.month().get(i) == m) {
                days += vehicles.get(i).offRoadDays();
                minutes += vehicles.get(i).minutes();
            }
        }
        FleetMonths.Sum left = month.sum();
        return new Load(month.month(), month.spare(), left.offRoadDays(), days, left.minutes(), minutes);
    }

    /** What bringing it forward to the end of each month before its own gives away; empty where it stands fast. */
    private List<Long> early(FleetPlans.Plan plan, Coming c, int month) {
        VehicleState s = Objects.requireNonNull(plan.states().get(c.vehicleId()));
        if (!c.canMove() || s.consequence().isEmpty()) {
            return List.of();
        }
        Workshop workshop = settings.get();
        Optional<EarlyRenewal> early = EarlyRenewal.of(
                s.forecast(),
                s.facts().firstRegistered(),
                s.facts().evidence(),
                workshop.wearModels(),
                new Exposure.Stake(
                        s.consequence().get(),
                        s.plannedMinor(),
                        workshop.costs().dayOffRoadMinor()),
                workshop.careful().strandingMinor(),
                s.renewed());
        List<FleetMonths.Month> months = plan.months().months();
        return early.map(e -> IntStream.range(0, month)
                        .mapToObj(m ->
                                (long) Math.ceil(e.minor(months.get(m).month().atEndOfMonth())))
                        .toList())
                .orElse(List.of());
    }

    /**
     * What somebody accepts of it.
     *
     * @param from first of the month the vehicle was seen in
     * @param to first of the month to bring it forward to
     */
    record Accepted(long vehicleId, LocalDate from, LocalDate to) {}

    /**
     * Brings vehicles forward.
     *
     * @throws knollfield.app.problem.InvalidInput for a vehicle or month that cannot be
     * @throws Conflict where one of them no longer stands where it was seen; nothing is then changed
     */
    @Transactional
    public void bringForward(FleetPlans.Plan plan, List<Accepted> moves) {
        new Checks()
                .that(!moves.isEmpty(), "/moves", "Choose at least one vehicle.")
                .orThrow();
        YearMonth first = YearMonth.from(clock.today());
        for (int i = 0; i < moves.size(); i++) {
            Accepted a = moves.get(i);
            Optional<VehicleState> state = Optional.ofNullable(plan.states().get(a.vehicleId()));
            YearMonth to = YearMonth.from(a.to());
            new Checks()
                    .that(
                            state.isPresent(),
                            "/moves/%d/vehicleId".formatted(i),
                            "The fleet has no such vehicle any more.")
                    .that(
                            !to.isBefore(first) && to.isBefore(YearMonth.from(a.from())),
                            "/moves/%d/to".formatted(i),
                            "A job is brought forward to this month at the soonest, and to a month before its own.")
                    .orThrow();
            Optional<LocalDate> actBy = coming(plan, a.vehicleId())
                    .filter(Coming::canMove)
                    .flatMap(Coming::actBy)
                    .filter(d -> YearMonth.from(d).equals(YearMonth.from(a.from())));
            if (actBy.isEmpty()) {
                throw new Conflict("%s no longer stands where it was seen. Nothing was changed; look once more."
                        .formatted(state.orElseThrow().vehicle().registration()));
            }
            LocalDate from = state.orElseThrow().history().forward().stream()
                    .map(BroughtForward::from)
                    .filter(d -> d.isAfter(actBy.get()))
                    .findFirst()
                    .orElse(actBy.get());
            vehicles.bringForward(a.vehicleId(), to, from);
        }
    }

    private static Optional<Coming> coming(FleetPlans.Plan plan, long vehicle) {
        return plan.months().months().stream()
                .flatMap(m -> m.comes().stream())
                .filter(c -> c.vehicleId() == vehicle)
                .findFirst();
    }
}
