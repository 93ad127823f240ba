package knollfield.app.ahead;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import knollfield.app.ahead.AheadViews.AheadView;
import knollfield.app.ahead.AheadViews.CrossList;
import knollfield.app.ahead.AheadViews.DensityView;
import knollfield.app.ahead.AheadViews.NextView;
import knollfield.app.ahead.Crowd.Mark;
import knollfield.app.ahead.Crowd.Scene;
import knollfield.app.due.VehicleQuery;
import knollfield.app.problem.Checks;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.due.ItemForecast.Binding;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Ahead: every vehicle in one due window, on any day to come. */
@RestController
@RequestMapping("/api/ahead")
class AheadController {

    /** With more vehicles in view the crowd is drawn as density and only those that cross keep a mark. */
    private static final int MOST_MARKS = 5_000;

    /** Cells of the density grid along each side; the window reaches to {@link #WINDOW} of the limits. */
    private static final int CELLS = 50;

    private static final double WINDOW = 1.25;
    private static final int MAX_PAGE = 200;
    private static final int MAX_YEARS = 15;

    private final Crowd crowd;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final WorkshopSettings settings;
    private final Words words;

    AheadController(Crowd crowd, CurrentPerson current, WorkshopClock clock, WorkshopSettings settings, Words words) {
        this.crowd = crowd;
        this.current = current;
        this.clock = clock;
        this.settings = settings;
        this.words = words;
    }

    /** @param date the day everything is moved to; left out: in 90 days */
    @GetMapping
    AheadView ahead(@ParameterObject VehicleQuery query, @RequestParam(required = false) @Nullable LocalDate date) {
        Scene scene = scene(query, date);
        List<Mark> crossers = scene.crossers();
        boolean crowded = scene.size() > MOST_MARKS;
        long minutes = AheadViews.minutes(crossers);
        long money = AheadViews.money(crossers);
        return new AheadView(
                scene.today(),
                scene.date(),
                scene.size(),
                scene.without(),
                scene.past(),
                (int) Crowd.countAt(crossers, Binding.DISTANCE),
                (int) Crowd.countAt(crossers, Binding.AGE),
                minutes,
                money,
                AheadViews.marks(crowded ? crossers.stream().limit(MOST_MARKS).toList() : scene.marks(), scene),
                crowded ? new DensityView(CELLS, WINDOW, scene.density(CELLS, WINDOW)) : null,
                scene.next().map(n -> new NextView(n.date(), n.vehicles())).orElse(null),
                AheadWords.describe(scene, minutes, money, settings.get().currency(), words));
    }

    /**
     * Those that cross by the day, in the order in which they do; with a part of the window given, those inside it.
     *
     * @param ageFrom share of the age limit where the part begins; with it the other three
     */
    @GetMapping("/vehicles")
    CrossList list(
            @ParameterObject VehicleQuery query,
            @RequestParam(required = false) @Nullable LocalDate date,
            @RequestParam(required = false) @Nullable Double ageFrom,
            @RequestParam(required = false) @Nullable Double ageTo,
            @RequestParam(required = false) @Nullable Double distanceFrom,
            @RequestParam(required = false) @Nullable Double distanceTo,
            @RequestParam(required = false, defaultValue = "0") int offset,
            @RequestParam(required = false, defaultValue = "100") int limit) {
        List<Mark> chosen = AheadViews.chosen(scene(query, date), ageFrom, ageTo, distanceFrom, distanceTo);
        return new CrossList(
                chosen.size(),
                offset,
                AheadViews.minutes(chosen),
                AheadViews.money(chosen),
                chosen.stream()
                        .skip(Math.max(0, offset))
                        .limit(Math.min(Math.max(0, limit), MAX_PAGE))
                        .map(AheadViews::row)
                        .toList());
    }

    /** The same list as CSV (RFC 4180). */
    @GetMapping(value = "/vehicles.csv", produces = "text/csv")
    ResponseEntity<String> csv(
            @ParameterObject VehicleQuery query,
            @RequestParam(required = false) @Nullable LocalDate date,
            @RequestParam(required = false) @Nullable Double ageFrom,
            @RequestParam(required = false) @Nullable Double ageTo,
            @RequestParam(required = false) @Nullable Double distanceFrom,
            @RequestParam(required = false) @Nullable Double distanceTo) {
        Scene scene = scene(query, date);
        String text = AheadWords.csv(
                AheadViews.chosen(scene, ageFrom, ageTo, distanceFrom, distanceTo).stream()
                        .map(AheadViews::row)
                        .toList(),
                settings.get().currency());
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", java.nio.charset.StandardCharsets.UTF_8))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        "attachment; filename=\"ahead-%s.csv\"".formatted(scene.date()))
                .body(text);
    }

    private Scene scene(VehicleQuery query, @Nullable LocalDate asked) {
        LocalDate today = clock.today();
        LocalDate date = Optional.ofNullable(asked).orElse(today.plusDays(90));
        new Checks()
                .that(!date.isBefore(today), "/date", "Ahead begins today.")
                .that(
                        ChronoUnit.YEARS.between(today, date) < MAX_YEARS,
                        "/date",
                        "At most %d years ahead.".formatted(MAX_YEARS))
                .orThrow();
        return crowd.on(date, current.get(), query.filter());
    }
}
