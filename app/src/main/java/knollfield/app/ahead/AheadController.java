package knollfield.app.ahead;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import knollfield.app.ahead.Crowd.Mark;
import knollfield.app.ahead.Crowd.Scene;
import knollfield.app.due.VehicleQuery;
import knollfield.app.problem.Checks;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.due.Status;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
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

    /**
     * Marks as columns of one length, so that many stay small. Shares are in thousandths of the limits.
     *
     * @param age share of the age limit on the day
     * @param distance share of the distance limit on the day
     * @param ageToday the same today
     * @param distanceToday the same today
     * @param interference 1 yes, 0 no, 2 unconfirmed
     * @param crossing 0 no limit by the day, 1 crosses on the way, 2 past a limit today already
     * @param wall the limit reached first: 0 distance, 1 age, 2 none
     */
    record MarksView(
            List<Long> vehicleId,
            List<String> registration,
            List<Integer> age,
            List<Integer> distance,
            List<Integer> ageToday,
            List<Integer> distanceToday,
            List<Integer> interference,
            List<Integer> crossing,
            List<Integer> wall) {}

    /**
     * How many vehicles stand where, for a crowd too large to mark.
     *
     * @param cells cells along each side
     * @param reach share of the limits at the far side of the last cell
     * @param counts row by row from the corner, distance rising by row, age within a row
     */
    record DensityView(int cells, double reach, int[] counts) {}

    record NextView(LocalDate date, int vehicles) {}

    /**
     * @param vehicles in the window
     * @param without vehicles that have no limit or no known start and so no place in it
     * @param past past a limit today already
     * @param atDistance cross their distance limit by the day
     * @param atAge cross their age limit by the day
     * @param minutes labour of the jobs of those that cross
     * @param moneyMinor their price
     * @param density null where every vehicle is marked
     * @param words the picture in words
     */
    record AheadView(
            LocalDate today,
            LocalDate date,
            int vehicles,
            int without,
            int past,
            int atDistance,
            int atAge,
            long minutes,
            long moneyMinor,
            MarksView marks,
            @Nullable DensityView density,
            @Nullable NextView next,
            List<String> words) {}

    record CrossRow(
            long vehicleId,
            String registration,
            String ownerName,
            @Nullable String fleet,
            String makeModel,
            Status status,
            String statusWords,
            Binding wall,
            @Nullable LocalDate crosses,
            @Nullable LocalDate actBy,
            int minutes,
            long moneyMinor,
            @Nullable Long exposurePerWeekMinor) {}

    record CrossList(int total, int offset, long minutes, long moneyMinor, List<CrossRow> rows) {}

    /** @param date the day everything is moved to; left out: in 90 days */
    @GetMapping
    AheadView ahead(@ParameterObject VehicleQuery query, @RequestParam(required = false) @Nullable LocalDate date) {
        Scene scene = scene(query, date);
        List<Mark> crossers = scene.crossers();
        boolean crowded = scene.size() > MOST_MARKS;
        long minutes = minutes(crossers);
        long money = money(crossers);
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
                marks(crowded ? crossers.stream().limit(MOST_MARKS).toList() : scene.marks(), scene),
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
        List<Mark> chosen = chosen(scene(query, date), ageFrom, ageTo, distanceFrom, distanceTo);
        return new CrossList(
                chosen.size(),
                offset,
                minutes(chosen),
                money(chosen),
                chosen.stream()
                        .skip(Math.max(0, offset))
                        .limit(Math.min(Math.max(0, limit), MAX_PAGE))
                        .map(AheadController::row)
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
                chosen(scene, ageFrom, ageTo, distanceFrom, distanceTo).stream()
                        .map(AheadController::row)
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

    private static List<Mark> chosen(
            Scene scene,
            @Nullable Double ageFrom,
            @Nullable Double ageTo,
            @Nullable Double distanceFrom,
            @Nullable Double distanceTo) {
        if (ageFrom == null && ageTo == null && distanceFrom == null && distanceTo == null) {
            return scene.crossers();
        }
        if (ageFrom == null || ageTo == null || distanceFrom == null || distanceTo == null) {
            throw new InvalidInput("/ageFrom", "A part of the window needs all four of its sides.");
        }
        return scene.inside(ageFrom, ageTo, distanceFrom, distanceTo);
    }

    private static long minutes(List<Mark> marks) {
        return marks.stream().mapToLong(m -> m.state().plannedMinutes()).sum();
    }

    private static long money(List<Mark> marks) {
        return marks.stream().mapToLong(m -> m.state().plannedMinor()).sum();
    }

    private static CrossRow row(Mark mark) {
        Vehicle v = mark.state().vehicle();
        return new CrossRow(
                v.id(),
                v.registration(),
                v.ownerName(),
                v.fleet().map(Fleet::name).orElse(null),
                v.makeModel(),
                mark.state().forecast().status(),
                mark.state().forecast().statusWords(),
                mark.then().wall(),
                mark.then().crosses().orElse(null),
                mark.state().forecast().actBy().orElse(null),
                mark.state().plannedMinutes(),
                mark.state().plannedMinor(),
                mark.state().exposurePerWeekMinor().isPresent()
                        ? mark.state().exposurePerWeekMinor().getAsLong()
                        : null);
    }

    private static MarksView marks(List<Mark> marks, Scene scene) {
        MarksView view = new MarksView(
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()));
        for (Mark m : marks) {
            view.vehicleId().add(m.state().vehicle().id());
            view.registration().add(m.state().vehicle().registration());
            view.age().add(thousandths(m.then().age()));
            view.distance().add(thousandths(m.then().distance()));
            view.ageToday().add(thousandths(m.now().age()));
            view.distanceToday().add(thousandths(m.now().distance()));
            Interference interference =
                    m.state().family().map(EngineFamily::interference).orElse(Interference.UNKNOWN);
            view.interference().add(interference == Interference.YES ? 1 : interference == Interference.NO ? 0 : 2);
            view.crossing().add(scene.crossing(m));
            view.wall().add(wall(m.then().wall()));
        }
        return view;
    }

    private static int wall(Binding wall) {
        return switch (wall) {
            case DISTANCE -> 0;
            case AGE -> 1;
            case NONE -> 2;
        };
    }

    private static int thousandths(double share) {
        return (int) Math.round(1_000 * share);
    }
}
