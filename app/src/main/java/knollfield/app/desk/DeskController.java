package knollfield.app.desk;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.app.due.MoveView;
import knollfield.app.due.VehicleQuery;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.Person;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.Status;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The Desk's list. */
@RestController
@RequestMapping("/api")
class DeskController {

    private final DeskPage page;
    private final VehicleService vehicles;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final WorkshopSettings settings;

    DeskController(
            DeskPage page,
            VehicleService vehicles,
            CurrentPerson current,
            WorkshopClock clock,
            WorkshopSettings settings) {
        this.page = page;
        this.vehicles = vehicles;
        this.current = current;
        this.clock = clock;
        this.settings = settings;
    }

    record FleetView(long id, String name) {}

    /**
     * What needs a decision, worst first.
     *
     * @param status only these; none given: all but clear
     * @param aside only the vehicles that are set aside
     * @param only those with a call promised for today, with a recheck due, or worth doing on a visit
     */
    @GetMapping("/desk")
    DeskView desk(
            @ParameterObject VehicleQuery query,
            @RequestParam(required = false) @Nullable Set<Status> status,
            @RequestParam(required = false, defaultValue = "false") boolean aside,
            @RequestParam(required = false, defaultValue = "ALL") DeskList.Only only,
            @RequestParam(required = false, defaultValue = "EXPOSURE") DeskList.Order order,
            @RequestParam(required = false, defaultValue = "0") int offset,
            @RequestParam(required = false, defaultValue = "100") int limit) {
        return page.view(asked(query, status, aside, only, order), offset, limit);
    }

    /** The whole list as CSV (RFC 4180), in the order shown. */
    @GetMapping(value = "/desk/list.csv", produces = "text/csv")
    ResponseEntity<String> csv(
            @ParameterObject VehicleQuery query,
            @RequestParam(required = false) @Nullable Set<Status> status,
            @RequestParam(required = false, defaultValue = "false") boolean aside,
            @RequestParam(required = false, defaultValue = "ALL") DeskList.Only only,
            @RequestParam(required = false, defaultValue = "EXPOSURE") DeskList.Order order) {
        String text = DeskCsv.write(
                page.rows(asked(query, status, aside, only, order)),
                settings.get().currency());
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        "attachment; filename=\"desk-%s.csv\"".formatted(clock.today()))
                .body(text);
    }

    private static DeskPage.Asked asked(
            VehicleQuery query, @Nullable Set<Status> status, boolean aside, DeskList.Only only, DeskList.Order order) {
        return new DeskPage.Asked(query.filter(), Optional.ofNullable(status).orElse(Set.of()), aside, only, order);
    }

    /** The vehicles that the last turn of the day, or a changed assumption, moved; worst first, at most a hundred. */
    @GetMapping("/desk/moves")
    List<MoveView> moves() {
        return page.moves();
    }

    @GetMapping("/desk/fleets")
    List<FleetView> fleets() {
        Person person = current.get();
        return vehicles.fleets().stream()
                .filter(f -> person.fleetId().isEmpty() || person.fleetId().get() == f.id())
                .map(f -> new FleetView(f.id(), f.name()))
                .toList();
    }
}
