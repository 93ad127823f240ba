package knollfield.app.desk;

import java.time.LocalDate;
import java.util.List;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.core.clock.Limit;
import knollfield.core.due.DueWindow;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.VehicleForecast;
import org.jspecify.annotations.Nullable;

/** A due window as the screens draw it: ages in months and distances in km since the item's start. */
record WindowView(
        String item,
        LocalDate start,
        int startKm,
        boolean known,
        boolean severe,
        @Nullable LimitView limit,
        @Nullable LimitView other,
        double spanMonths,
        double spanKm,
        List<PointView> track,
        List<RejectedView> rejected,
        List<BandView> fan,
        PointView today,
        @Nullable CrossingView crossing) {

    record LimitView(@Nullable Integer km, @Nullable Integer months) {}

    record PointView(LocalDate date, double months, double km, double odometerKm) {}

    record RejectedView(PointView point, String reason) {}

    record BandView(LocalDate date, double months, double lowKm, double medianKm, double highKm) {}

    record CrossingView(
            ItemForecast.Binding wall,
            @Nullable LocalDate from,
            LocalDate median,
            @Nullable LocalDate to,
            boolean corner) {}

    /** The window of {@code item} as {@code forecast} sees it. */
    static WindowView of(VehicleForecast forecast, ItemForecast item, VehicleHistory history) {
        DueWindow w = DueWindow.of(forecast, item, history.vehicle().firstRegistered());
        return new WindowView(
                item.item().name(),
                w.start().date(),
                w.start().km(),
                w.known(),
                item.severe(),
                w.limit().map(WindowView::limit).orElse(null),
                w.other().map(WindowView::limit).orElse(null),
                w.spanMonths(),
                w.spanKm(),
                w.track().stream().map(p -> point(p, history)).toList(),
                w.rejected().stream()
                        .map(r -> new RejectedView(
                                point(r.point(), history), r.reason().words()))
                        .toList(),
                w.fan().stream()
                        .map(b -> new BandView(b.date(), b.months(), b.lowKm(), b.medianKm(), b.highKm()))
                        .toList(),
                point(w.today(), history),
                w.crossing()
                        .map(c -> new CrossingView(
                                c.wall(), c.from().orElse(null), c.median(), c.to().orElse(null), c.corner()))
                        .orElse(null));
    }

    /** The odometer as it is shown, which after a replacement is less than the distance since new. */
    private static PointView point(DueWindow.Point p, VehicleHistory history) {
        return new PointView(p.date(), p.months(), p.km(), p.odometerKm() - history.offsetOn(p.date()));
    }

    private static LimitView limit(Limit l) {
        return new LimitView(
                l.km().isPresent() ? l.km().getAsInt() : null,
                l.months().isPresent() ? l.months().getAsInt() : null);
    }
}
