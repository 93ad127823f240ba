package knollfield.app.fleet;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.OptionalInt;
import knollfield.app.fleet.FleetPlaceViews.FleetPage;
import knollfield.app.fleet.FleetPlaceViews.FleetRow;
import knollfield.app.fleet.FleetPlaceViews.LevelAccepted;
import knollfield.app.fleet.FleetPlaceViews.LevelMonth;
import knollfield.app.fleet.FleetPlaceViews.LevelView;
import knollfield.app.problem.NotFound;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleService;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The place Fleets: each fleet by month. A fleet's contact sees the own one alone. */
@RestController
@RequestMapping("/api/fleets")
class FleetPlaceController {

    private final FleetPlans plans;
    private final FleetLevels levels;
    private final FleetWords sentences;
    private final FleetPages pages;
    private final VehicleService vehicles;
    private final FleetDoor door;
    private final WorkshopSettings settings;
    private final WorkshopClock clock;

    FleetPlaceController(
            FleetPlans plans,
            FleetLevels levels,
            FleetWords sentences,
            FleetPages pages,
            VehicleService vehicles,
            FleetDoor door,
            WorkshopSettings settings,
            WorkshopClock clock) {
        this.plans = plans;
        this.levels = levels;
        this.sentences = sentences;
        this.pages = pages;
        this.vehicles = vehicles;
        this.door = door;
        this.settings = settings;
        this.clock = clock;
    }

    @GetMapping
    List<FleetRow> all() {
        return door.seen().stream().map(plans::of).map(pages::row).toList();
    }

    @GetMapping("/{id}")
    FleetPage page(@PathVariable long id) {
        return pages.page(door.plan(id));
    }

    /** The vehicles of {@link #page} as CSV (RFC 4180), a line each. */
    @GetMapping(value = "/{id}/months.csv", produces = "text/csv")
    ResponseEntity<String> csv(@PathVariable long id) {
        FleetPlans.Plan p = door.plan(id);
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        "attachment; filename=\"fleet-%d-%s.csv\"".formatted(id, clock.today()))
                .body(FleetCsv.write(
                        FleetDoor.inOrder(p).stream()
                                .map(c -> pages.vehicle(c, p))
                                .toList(),
                        settings.get().currencyDigits()));
    }

    /**
     * Which vehicles to bring forward so that no month passes what the fleet can spare, nor {@code hours} of the workshop.
     *
     * @param hours a month that the fleet may take; none: not counted
     */
    @GetMapping("/{id}/level")
    LevelView level(@PathVariable long id, @RequestParam(required = false) @Nullable Integer hours) {
        FleetPlans.Plan p = door.plan(id);
        FleetLevels.Level level = levels.of(p, hours == null ? OptionalInt.empty() : OptionalInt.of(hours));
        return new LevelView(
                sentences.ofLevel(level, settings.get().currency()),
                level.moves().stream().map(m -> FleetPlaceViews.move(m, p)).toList(),
                level.loads().stream()
                        .map(l -> new LevelMonth(
                                l.month().atDay(1),
                                l.spare(),
                                l.daysLeft(),
                                l.daysLevel(),
                                l.minutesLeft(),
                                l.minutesLevel()))
                        .toList(),
                hours,
                level.result().costMinor(),
                level.result().leastMinor(),
                level.result().isBest());
    }

    /** Brings vehicles forward; the fleet as it stands then. */
    @PostMapping("/{id}/level")
    FleetPage bringForward(@PathVariable long id, @RequestBody LevelAccepted accepted) {
        levels.bringForward(door.plan(id), accepted.moves());
        return page(id);
    }

    /** Leaves a vehicle in its own month again; the fleet as it stands then. */
    @DeleteMapping("/{id}/level/{vehicle}")
    FleetPage leave(@PathVariable long id, @PathVariable long vehicle) {
        if (!door.plan(id).states().containsKey(vehicle)) {
            throw new NotFound("The fleet has no such vehicle.");
        }
        vehicles.leaveInItsMonth(vehicle);
        return page(id);
    }
}
