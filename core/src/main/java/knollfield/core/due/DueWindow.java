package knollfield.core.due;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.ItemForecast.AgeClock;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.due.ItemForecast.DistanceClock;
import knollfield.core.odometer.Projection;
import knollfield.core.odometer.ReadingChain.Rejected;
import knollfield.core.odometer.RejectReason;
import knollfield.core.units.Years;

/**
 * The due window of one item: age since the renewal across, distance since then up (product.md, "Dossier").
 *
 * @param start where both axes begin
 * @param known false where no renewal is known and the picture begins at first registration
 * @param limit the rectangle in force
 * @param other the rectangle of the other schedule
 * @param spanMonths width of the picture, months: 125 % of the widest limit
 * @param spanKm height of the picture, km: 125 % of the widest limit
 * @param track kept readings since the start, the start itself first
 * @param fan projection from the last kept reading to the right edge
 * @param crossing where the fan meets the limit; empty where it never does within the picture's limits
 */
public record DueWindow(
        ClockStart start,
        boolean known,
        Optional<Limit> limit,
        Optional<Limit> other,
        double spanMonths,
        double spanKm,
        List<Point> track,
        List<RejectedPoint> rejected,
        List<Band> fan,
        Point today,
        Optional<Crossing> crossing) {

    /** The picture reaches this far beyond the limits. */
    private static final double BEYOND = 1.25;

    private static final int FAN_STEPS = 24;
    private static final double MONTH_DAYS = Years.DAYS / 12;

    /** A reading in the picture: months and km since the start. */
    public record Point(LocalDate date, double months, double km, double odometerKm) {}

    /** A reading that did not fit. */
    public record RejectedPoint(Point point, RejectReason reason) {}

    /** The projection on a day: 10, 50 and 90 % of the distance since the start, km. */
    public record Band(LocalDate date, double months, double lowKm, double medianKm, double highKm) {}

    /**
     * Where the fan meets the limit.
     *
     * @param corner true where part of the fan leaves through the age wall
     */
    public record Crossing(
            Binding wall, Optional<LocalDate> from, LocalDate median, Optional<LocalDate> to, boolean corner) {}

    public DueWindow {
        track = List.copyOf(track);
        rejected = List.copyOf(rejected);
        fan = List.copyOf(fan);
    }

    /** The picture of {@code item} as {@code forecast} sees it. */
    public static DueWindow of(VehicleForecast forecast, ItemForecast item, LocalDate firstRegistered) {
        ClockStart start =
                item.start().orElseGet(() -> new ClockStart(firstRegistered, 0, ClockStart.Grade.FIRST_REGISTRATION));
        Projection projection = forecast.projection();
        LocalDate today = forecast.today();
        Scale scale = new Scale(start, forecast);
        double spanMonths = BEYOND * widestMonths(item, scale.months(today));
        double usedKm = forecast.usedKm(start, today);
        double spanKm = BEYOND * widestKm(item, usedKm);

        List<Point> track = new ArrayList<>();
        track.add(new Point(start.date(), 0, 0, start.km()));
        forecast.readings().kept().stream()
                .filter(r -> r.date().isAfter(start.date()))
                .map(r -> scale.point(r.date(), r.km()))
                .forEach(track::add);
        List<RejectedPoint> rejected = new ArrayList<>();
        for (Rejected r : forecast.readings().rejected()) {
            if (!r.reading().date().isBefore(start.date())) {
                rejected.add(new RejectedPoint(
                        scale.point(r.reading().date(), r.reading().km()), r.reason()));
            }
        }
        return new DueWindow(
                start,
                item.start().isPresent() && start.grade() != ClockStart.Grade.FIRST_REGISTRATION,
                item.limit(),
                item.other(),
                spanMonths,
                spanKm,
                track,
                rejected,
                fan(projection, scale, spanMonths),
                scale.point(today, projection.medianKm(today)),
                crossing(item));
    }

    private static List<Band> fan(Projection projection, Scale scale, double spanMonths) {
        List<Band> fan = new ArrayList<>();
        LocalDate from = projection.baseDate();
        long days = Math.round(spanMonths * MONTH_DAYS) - ChronoUnit.DAYS.between(scale.start.date(), from);
        for (int i = 0; i <= FAN_STEPS && days > 0; i++) {
            LocalDate day = from.plusDays(days * i / FAN_STEPS);
            fan.add(new Band(
                    day,
                    scale.months(day),
                    scale.sinceStart(day, projection.quantileKm(day, 0.1)),
                    scale.sinceStart(day, projection.medianKm(day)),
                    scale.sinceStart(day, projection.quantileKm(day, 0.9))));
        }
        return fan;
    }

    private static Optional<Crossing> crossing(ItemForecast item) {
        Optional<LocalDate> ageDate = item.age().map(AgeClock::date);
        if (item.binding() == Binding.AGE) {
            boolean corner = item.distance()
                    .flatMap(DistanceClock::early)
                    .filter(d -> d.isBefore(ageDate.orElse(LocalDate.MAX)))
                    .isPresent();
            return ageDate.map(d -> new Crossing(
                    Binding.AGE,
                    item.distance().flatMap(DistanceClock::early).filter(e -> e.isBefore(d)),
                    d,
                    Optional.of(d),
                    corner));
        }
        if (item.binding() != Binding.DISTANCE) {
            return Optional.empty();
        }
        DistanceClock distance = item.distance().orElseThrow();
        LocalDate wall = ageDate.orElse(LocalDate.MAX);
        boolean corner = ageDate.isPresent()
                && distance.late().filter(d -> !d.isAfter(wall)).isEmpty();
        return distance.median()
                .map(m -> new Crossing(
                        Binding.DISTANCE, distance.early(), m, corner ? ageDate : distance.late(), corner));
    }

    private static double widestMonths(ItemForecast item, double usedMonths) {
        int months = Math.max(months(item.limit()), months(item.other()));
        // without an age limit the picture runs two years past today
        return months > 0 ? Math.max(months, usedMonths * 0.9) : usedMonths + 24;
    }

    private static double widestKm(ItemForecast item, double usedKm) {
        int km = Math.max(km(item.limit()), km(item.other()));
        return km > 0 ? Math.max(km, usedKm * 0.9) : Math.max(10_000, usedKm * 1.5);
    }

    private static int months(Optional<Limit> limit) {
        return limit.map(Limit::months).orElse(OptionalInt.empty()).orElse(0);
    }

    private static int km(Optional<Limit> limit) {
        return limit.map(Limit::km).orElse(OptionalInt.empty()).orElse(0);
    }

    private record Scale(ClockStart start, VehicleForecast forecast) {
        double months(LocalDate date) {
            return ChronoUnit.DAYS.between(start.date(), date) / MONTH_DAYS;
        }

        double sinceStart(LocalDate date, double odometerKm) {
            return odometerKm - start.km() + forecast.idleKm(start, date);
        }

        Point point(LocalDate date, double odometerKm) {
            return new Point(date, months(date), sinceStart(date, odometerKm), odometerKm);
        }
    }
}
