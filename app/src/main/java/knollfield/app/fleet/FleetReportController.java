package knollfield.app.fleet;

import java.time.LocalDate;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import knollfield.app.documents.FleetReport;
import knollfield.app.documents.FleetReportPrinter;
import knollfield.app.due.VehicleState;
import knollfield.app.settings.Houses;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.fleet.Coming;
import knollfield.core.fleet.FleetMonths;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** A fleet's months on paper, for whoever may see the fleet. */
@RestController
class FleetReportController {

    private final FleetDoor door;
    private final FleetWords sentences;
    private final FleetReportPrinter printer;
    private final WorkshopSettings settings;
    private final Houses houses;
    private final Words words;
    private final WorkshopClock clock;

    FleetReportController(
            FleetDoor door,
            FleetWords sentences,
            FleetReportPrinter printer,
            WorkshopSettings settings,
            Houses houses,
            Words words,
            WorkshopClock clock) {
        this.door = door;
        this.sentences = sentences;
        this.printer = printer;
        this.settings = settings;
        this.houses = houses;
        this.words = words;
        this.clock = clock;
    }

    @GetMapping(path = "/api/fleets/{id}/report.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> report(@PathVariable long id) {
        FleetPlans.Plan p = door.plan(id);
        Workshop w = settings.get();
        FleetReport report = new FleetReport(
                id,
                w.name(),
                houses.get().letterhead(),
                p.fleet().name(),
                p.fleet().contactName(),
                clock.today(),
                sentences.of(p, clock.today(), w.currency(), w.rates(1, 0).taxShare()),
                p.months().months().stream()
                        .limit(FleetPlans.YEAR)
                        .map(m -> month(m, w.currency()))
                        .toList(),
                FleetDoor.inOrder(p).stream().map(c -> line(c, p, w.currency())).toList());
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        "inline; filename=\"fleet-%d-%s.pdf\"".formatted(id, clock.today()))
                .body(printer.print(report));
    }

    private FleetReport.Month month(FleetMonths.Month m, String currency) {
        FleetMonths.Sum s = m.sum();
        return new FleetReport.Month(
                words.month(m.month()),
                s.vehicles(),
                s.planned(),
                s.vehicles() == 0 ? "" : String.format(Locale.ROOT, "%.1f h", s.minutes() / 60.0),
                s.vehicles() == 0 ? "" : words.money(s.money().likely(), currency),
                "%d of %d%s".formatted(s.offRoadDays(), m.spare(), m.isOver() ? ", too many" : ""));
    }

    private FleetReport.Line line(Coming c, FleetPlans.Plan p, String currency) {
        VehicleState s = Objects.requireNonNull(p.states().get(c.vehicleId()));
        return new FleetReport.Line(
                s.vehicle().registration(),
                s.vehicle().makeModel(),
                s.forecast().statusWords(),
                day(s.forecast().actBy()),
                day(c.plannedOn()),
                words.money(c.money().likely(), currency));
    }

    private String day(Optional<LocalDate> day) {
        return day.map(words::day).orElse("");
    }
}
