package knollfield.app.feed;

import java.util.List;
import java.util.Optional;
import java.util.Random;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Fleet;
import org.springframework.stereotype.Component;

/**
 * Units that make their figures up: what each vehicle's use lets expect, a little more, with now and
 * then a unit that says nothing.
 */
@Component
class SimulatedTelematics implements Telematics {

    private static final int ONE_SILENT_IN = 12;
    private static final int SPREAD_KM = 15;

    private final Forecasts forecasts;
    private final WorkshopClock clock;

    SimulatedTelematics(Forecasts forecasts, WorkshopClock clock) {
        this.forecasts = forecasts;
        this.clock = clock;
    }

    @Override
    public List<Feed.Line> read(Feed feed) {
        return forecasts.all().stream()
                .filter(s -> s.vehicle().fleet().map(Fleet::id).equals(Optional.of(feed.fleetId())))
                .filter(s -> s.vehicle().state().planned())
                .flatMap(s -> line(s).stream())
                .toList();
    }

    private Optional<Feed.Line> line(VehicleState s) {
        Random random = new Random(s.vehicle().id() * 31 + clock.today().toEpochDay());
        if (random.nextInt(ONE_SILENT_IN) == 0) {
            return Optional.empty();
        }
        double expected = s.forecast().projection().medianKm(clock.today())
                - s.history().offsetOn(clock.today())
                + random.nextInt(SPREAD_KM);
        return Optional.of(new Feed.Line(
                s.vehicle().registration(),
                clock.instant().toString(),
                Long.toString(Math.max(0, Math.round(expected))),
                "km"));
    }
}
