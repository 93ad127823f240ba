package knollfield.core.fleet;

import java.time.LocalDate;
import java.time.YearMonth;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;

/**
 * A fleet's coming months. Each vehicle stands once: in the month of its job, else of its act-by day, which is this month where
 * it has passed; beyond the last month; or without a day, where nothing calls for it.
 *
 * @param months from this month on, one after the other
 * @param beyond vehicles whose day lies after the last month, soonest first
 * @param without vehicles without a day
 */
public record FleetMonths(List<Month> months, List<Coming> beyond, List<Coming> without) {

    public FleetMonths {
        months = List.copyOf(months);
        beyond = List.copyOf(beyond);
        without = List.copyOf(without);
    }

    /**
     * A month.
     *
     * @param comes vehicles whose day lies in it, soonest first
     * @param reachedEarly vehicles with a chance of 10 % at least that a limit in the book lies behind them at its end, were
     *     nothing done; all that were so before too
     * @param reachedMedian the same for 50 %
     * @param reachedLate the same for 90 %
     * @param spare vehicle-days that the fleet can spare while the workshop works, from today on
     */
    public record Month(
            YearMonth month, List<Coming> comes, int reachedEarly, int reachedMedian, int reachedLate, int spare) {

        public Month {
            comes = List.copyOf(comes);
        }

        public Sum sum() {
            return Sum.of(comes);
        }

        /** True where more vehicle-days fall into it than the fleet can spare. */
        public boolean isOver() {
            return sum().offRoadDays() > spare;
        }
    }

    /**
     * What jobs come to.
     *
     * @param planned of the vehicles those whose job has a place on the board
     */
    public record Sum(int vehicles, int planned, long minutes, Coming.Money money, int offRoadDays) {

        static Sum of(List<Coming> all) {
            return new Sum(
                    all.size(),
                    (int) all.stream().filter(c -> c.plannedOn().isPresent()).count(),
                    all.stream().mapToLong(Coming::minutes).sum(),
                    all.stream().map(Coming::money).reduce(Coming.Money.NONE, Coming.Money::plus),
                    all.stream().mapToInt(Coming::offRoadDays).sum());
        }
    }

    /**
     * Lays {@code vehicles} out over months.
     *
     * @param months how many, one or more
     * @param cap vehicles of the fleet that may be off the road on one day
     * @param works days on which the workshop works and the fleet can be there
     */
    public static FleetMonths of(
            List<Coming> vehicles, LocalDate today, int months, int cap, Predicate<LocalDate> works) {
        YearMonth first = YearMonth.from(today);
        List<List<Coming>> comes = new ArrayList<>();
        for (int m = 0; m < months; m++) {
            comes.add(new ArrayList<>());
        }
        List<Coming> beyond = new ArrayList<>();
        List<Coming> without = new ArrayList<>();
        Comparator<Coming> soonest = Comparator.comparing(
                        (Coming c) -> c.day(today).orElse(LocalDate.MAX))
                .thenComparing(Coming::vehicleId);
        for (Coming c : vehicles.stream().sorted(soonest).toList()) {
            Optional<LocalDate> day = c.day(today);
            if (day.isEmpty()) {
                without.add(c);
                continue;
            }
            long month = first.until(YearMonth.from(day.get()), ChronoUnit.MONTHS);
            (month < months ? comes.get((int) month) : beyond).add(c);
        }
        List<Month> laid = new ArrayList<>();
        for (int m = 0; m < months; m++) {
            YearMonth month = first.plusMonths(m);
            LocalDate end = month.atEndOfMonth();
            LocalDate from = m == 0 ? today : month.atDay(1);
            int days = (int) from.datesUntil(end.plusDays(1)).filter(works).count();
            laid.add(new Month(
                    month,
                    comes.get(m),
                    reached(vehicles, Coming::early, end),
                    reached(vehicles, Coming::median, end),
                    reached(vehicles, Coming::late, end),
                    days * cap));
        }
        return new FleetMonths(laid, beyond, without);
    }

    private static int reached(List<Coming> vehicles, Function<Coming, Optional<LocalDate>> date, LocalDate end) {
        return (int) vehicles.stream()
                .filter(c -> date.apply(c).filter(d -> !d.isAfter(end)).isPresent())
                .count();
    }

    /** What the first {@code count} months come to. */
    public Sum first(int count) {
        return Sum.of(
                months.stream().limit(count).flatMap(m -> m.comes().stream()).toList());
    }
}
