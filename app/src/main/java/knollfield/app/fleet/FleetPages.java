package knollfield.app.fleet;

import java.util.Objects;
import knollfield.app.due.VehicleState;
import knollfield.app.fleet.FleetPlaceViews.FleetMonthView;
import knollfield.app.fleet.FleetPlaceViews.FleetPage;
import knollfield.app.fleet.FleetPlaceViews.FleetRow;
import knollfield.app.fleet.FleetPlaceViews.FleetVehicleView;
import knollfield.app.fleet.FleetPlaceViews.SumView;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.fleet.Coming;
import knollfield.core.fleet.FleetMonths;
import org.springframework.stereotype.Component;

/** A fleet’s page, put together. */
@Component
class FleetPages {

    private final FleetWords sentences;
    private final WorkshopSettings settings;
    private final WorkshopClock clock;

    FleetPages(FleetWords sentences, WorkshopSettings settings, WorkshopClock clock) {
        this.sentences = sentences;
        this.settings = settings;
        this.clock = clock;
    }

    FleetRow row(FleetPlans.Plan p) {
        return new FleetRow(
                p.fleet().id(),
                p.fleet().name(),
                p.states().size(),
                p.fleet().offRoadCap(),
                SumView.of(p.months().first(FleetPlans.YEAR)),
                dueNow(p),
                (int) p.months().months().stream()
                        .filter(FleetMonths.Month::isOver)
                        .count());
    }

    /** A fleet with its months and its vehicles. */
    FleetPage page(FleetPlans.Plan p) {
        Workshop workshop = settings.get();
        double tax = workshop.rates(1, 0).taxShare();
        return new FleetPage(
                p.fleet().id(),
                p.fleet().name(),
                p.fleet().contactName(),
                p.fleet().phone(),
                p.fleet().offRoadCap(),
                tax,
                sentences.of(p, clock.today(), workshop.currency(), tax),
                SumView.of(p.months().first(FleetPlans.YEAR)),
                p.doneThisMonth(),
                p.months().months().stream()
                        .map(m -> new FleetMonthView(
                                m.month().atDay(1),
                                SumView.of(m.sum()),
                                m.reachedEarly(),
                                m.reachedMedian(),
                                m.reachedLate(),
                                m.spare(),
                                m.isOver(),
                                m.comes().stream().map(Coming::vehicleId).toList()))
                        .toList(),
                FleetDoor.inOrder(p).stream().map(c -> vehicle(c, p)).toList(),
                p.months().beyond().size(),
                p.months().without().size());
    }

    private int dueNow(FleetPlans.Plan p) {
        return (int) FleetDoor.inOrder(p).stream()
                .filter(c -> c.isDueNow(clock.today()))
                .count();
    }

    FleetVehicleView vehicle(Coming c, FleetPlans.Plan p) {
        VehicleState s = Objects.requireNonNull(p.states().get(c.vehicleId()));
        return new FleetVehicleView(
                c.vehicleId(),
                s.vehicle().registration(),
                s.vehicle().makeModel(),
                c.status(),
                s.forecast().statusWords(),
                c.actBy().orElse(null),
                c.early().orElse(null),
                c.median().orElse(null),
                c.late().orElse(null),
                c.day(clock.today()).orElse(null),
                c.isDueNow(clock.today()),
                FleetPlaceViews.forwardFrom(s).orElse(null),
                c.plannedOn().orElse(null),
                c.minutes(),
                c.money().low(),
                c.money().likely(),
                c.money().high(),
                c.offRoadDays());
    }
}
