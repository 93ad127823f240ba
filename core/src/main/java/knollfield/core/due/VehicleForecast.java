package knollfield.core.due;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import knollfield.core.clock.ClockStart;
import knollfield.core.odometer.Projection;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.units.Years;

/**
 * When a vehicle's timing drive is due, and why.
 *
 * @param status the worst of the items whose failure takes the drive with it, and of what was found; an unknown history
 *     counts for the belt or chain itself only
 * @param actBy earliest over its items
 * @param deciding the item that decides, or the drive where none calls for anything; empty without a book
 * @param projection of the odometer, without idling
 * @param idleKmPerYear distance that a year's idling is as hard as, km
 * @param findings what is open on it and what each does, oldest first
 * @param reasons in the order one would say them
 */
public record VehicleForecast(
        LocalDate today,
        Status status,
        Optional<LocalDate> actBy,
        Optional<ItemForecast> deciding,
        List<ItemForecast> items,
        ReadingChain readings,
        Projection projection,
        double idleKmPerYear,
        List<FindingEffect> findings,
        List<Reason> reasons) {

    public VehicleForecast {
        items = List.copyOf(items);
        findings = List.copyOf(findings);
        reasons = List.copyOf(reasons);
    }

    /** This forecast acted on by an earlier day than its own, and why; a day of today or before calls for action now. */
    public VehicleForecast actedOnBy(LocalDate earlier, int horizonDays, Reason why) {
        Status then = !earlier.isAfter(today)
                ? Status.ACT_NOW
                : earlier.isAfter(today.plusDays(horizonDays)) ? Status.CLEAR : Status.COMING;
        Optional<ItemForecast> decides = deciding.map(d -> d.actedOnBy(earlier, then));
        return new VehicleForecast(
                        today,
                        status.worse(then),
                        Optional.of(earlier),
                        decides,
                        items.stream()
                                .map(i -> deciding.filter(i::equals).isPresent() ? i.actedOnBy(earlier, then) : i)
                                .toList(),
                        readings,
                        projection,
                        idleKmPerYear,
                        findings,
                        reasons)
                .because(why);
    }

    /** This forecast with one more reason. */
    public VehicleForecast because(Reason why) {
        return new VehicleForecast(
                today,
                status,
                actBy,
                deciding,
                items,
                readings,
                projection,
                idleKmPerYear,
                findings,
                Stream.concat(reasons.stream(), Stream.of(why)).toList());
    }

    public Optional<ItemForecast> item(String code) {
        for (ItemForecast i : items) {
            if (i.item().code().equals(code)) {
                return Optional.of(i);
            }
        }
        return Optional.empty();
    }

    /**
     * Tensioners, idlers and driven pumps nobody knows the history of beside a belt or chain that is known: they change no
     * status, but the owner may be asked.
     */
    public List<ItemForecast> unknownBeside() {
        return status == Status.UNKNOWN_HISTORY || status == Status.NO_BOOK
                ? List.of()
                : items.stream()
                        .filter(i -> i.status() == Status.UNKNOWN_HISTORY
                                && i.item().takesTheDrive()
                                && !i.item().kind().isTheDrive())
                        .toList();
    }

    /** Median distance of an item since {@code start} on {@code date}, idling included; km, zero or more. */
    public double usedKm(ClockStart start, LocalDate date) {
        return Math.max(0, projection.medianKm(date) - start.km() + idleKm(start, date));
    }

    /** Idling since {@code start} as km. */
    double idleKm(ClockStart start, LocalDate date) {
        return idleKmPerYear == 0
                ? 0
                : idleKmPerYear * Math.max(0, Years.between(start.date(), projection.running(date)));
    }

    /** The book knows the engine and has no interval for its drive: nobody need be asked. */
    public boolean noInterval() {
        return status == Status.NO_BOOK && deciding.isPresent();
    }

    /** The status as it is called on this vehicle. */
    public String statusWords() {
        return noInterval() ? "No interval in the book" : status.words();
    }
}
