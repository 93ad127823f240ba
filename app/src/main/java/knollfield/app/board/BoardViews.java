package knollfield.app.board;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import knollfield.app.away.Absence;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.hours.Hours;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.job.card.Cards;
import knollfield.app.security.People;
import knollfield.app.stores.Stores;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.JobStage;
import knollfield.core.due.Status;
import knollfield.core.engine.Interference;
import knollfield.core.plan.Board;
import knollfield.core.plan.Broken;
import knollfield.core.plan.DaySums;
import knollfield.core.plan.Place;
import knollfield.core.plan.PlanCost;
import knollfield.core.plan.PlanJob;
import knollfield.core.plan.Ruler;
import knollfield.core.plan.Shop;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The board as the screen draws it: every place in half-hours from the first day shown. */
@Component
class BoardViews {

    private final BoardCases cases;
    private final Boards boards;
    private final Jobs jobs;
    private final Cards cards;
    private final People people;
    private final VehicleService vehicles;
    private final EngineBook book;
    private final Stores stores;
    private final TrackViews tracks;
    private final Hours hours;

    BoardViews(
            BoardCases cases,
            Boards boards,
            Jobs jobs,
            Cards cards,
            People people,
            VehicleService vehicles,
            EngineBook book,
            Stores stores,
            TrackViews tracks,
            Hours hours) {
        this.cases = cases;
        this.boards = boards;
        this.jobs = jobs;
        this.cards = cards;
        this.people = people;
        this.vehicles = vehicles;
        this.book = book;
        this.stores = stores;
        this.tracks = tracks;
        this.hours = hours;
    }

    /** How work on the board is drawn. */
    enum Work {
        PLANNED,
        PROMISED,
        LATE,
        UNDER_WAY,
        DONE
    }

    /** A fleet that has no room left on a day. */
    record FullFleet(String fleet, int off, int cap) {}

    /**
     * @param freeMinutes of all technicians together, of work not given to a job
     * @param helperMinutes second pairs of hands that jobs of the day call for at their start
     */
    record DayView(
            LocalDate date,
            boolean closed,
            @Nullable String closedWhy,
            boolean ferry,
            boolean ferryCancelled,
            int freeMinutes,
            int helperMinutes,
            List<FullFleet> full) {}

    /**
     * A job with a place.
     *
     * @param start half-hour from the first day shown; below zero where it began before
     * @param end the half-hour after its last
     * @param holds parts of it in which nobody works: nights have no half-hours, days off do
     * @param workedTo half-hour up to which it is worked; null where it has not begun
     * @param toolSet code; empty where it needs none
     * @param copy of its tool set
     * @param clash what it collides with; empty where nothing
     */
    record BlockView(
            long jobId,
            int version,
            long vehicleId,
            String registration,
            String makeModel,
            String ownerName,
            @Nullable String fleet,
            Interference interference,
            Work work,
            long technicianId,
            long bayId,
            String toolSet,
            int copy,
            int start,
            int end,
            List<TrackViews.Span> holds,
            @Nullable Integer workedTo,
            int minutes,
            int helperMinutes,
            LocalDateTime startsAt,
            LocalDateTime endsAt,
            @Nullable String earliestWhy,
            @Nullable LocalDateTime earliest,
            List<String> clash) {}

    /**
     * A job that waits.
     *
     * @param missed it had a place, and nobody came or began
     * @param noShows how often its vehicle did not come
     */
    record WaitingView(
            long jobId,
            int version,
            long vehicleId,
            String registration,
            String makeModel,
            String ownerName,
            @Nullable String fleet,
            Interference interference,
            Status status,
            @Nullable LocalDate actBy,
            @Nullable Long daysOver,
            int minutes,
            long exposurePerWeekMinor,
            LocalDateTime earliest,
            @Nullable String earliestWhy,
            boolean missed,
            int noShows) {}

    /** Money in minor units. */
    record PlanCostView(
            long totalMinor,
            long exposureMinor,
            long unplannedMinor,
            long offRoadMinor,
            long changeoverMinor,
            long moveMinor,
            int unplannedJobs,
            int offRoadDays,
            int movedJobs) {

        static PlanCostView of(PlanCost c) {
            return new PlanCostView(
                    c.total(),
                    c.exposure(),
                    c.unplanned(),
                    c.offRoad(),
                    c.changeovers(),
                    c.moves(),
                    c.unplannedJobs(),
                    c.offRoadDays(),
                    c.movedJobs());
        }
    }

    record UndoView(String what) {}

    record AbsenceView(
            long id, Absence.Kind kind, String what, LocalDate from, LocalDate to, String why, String enteredBy) {}

    record FleetRule(long id, String name, int cap, Set<DayOfWeek> days, int version) {}

    /**
     * @param times when each half-hour of a day begins
     * @param now half-hour from the first day shown in which work may still begin
     * @param last last day that can be planned
     */
    record BoardView(
            LocalDate from,
            LocalDate today,
            LocalDate last,
            List<LocalTime> times,
            int now,
            List<DayView> days,
            List<TrackViews.TechnicianTrack> technicians,
            List<TrackViews.BayTrack> bays,
            List<TrackViews.ToolSetTrack> toolSets,
            List<BlockView> blocks,
            List<WaitingView> waiting,
            PlanCostView cost,
            @Nullable UndoView undo,
            List<AbsenceView> absences,
            List<FleetRule> fleets) {}

    /** {@code count} days of the board from {@code from}. */
    BoardView view(LocalDate from, int count) {
        BoardCases.Gathered gathered = cases.now();
        Board board = Board.lay(gathered.plan(), gathered.places());
        Ruler ruler = gathered.ruler();
        Shop shop = gathered.plan().shop();
        LocalDate today = ruler.date(shop.today());
        int shift = ruler.day(from) * ruler.perDay();
        List<LocalDate> days = from.datesUntil(from.plusDays(count)).toList();
        List<BlockView> blocks = new ArrayList<>();
        Map<Long, Integer> copies = DaySums.copies(board);
        for (PlanJob job : gathered.plan().jobs()) {
            Optional<Place> place = board.placeOf(job.id())
                    .or(() -> Optional.ofNullable(gathered.places().get(job.id())));
            place.ifPresent(p -> {
                BlockView block = block(gathered, board, job, p, shift, copies.getOrDefault(job.id(), 1));
                if (block.end > 0 && block.start < count * ruler.perDay()) {
                    blocks.add(block);
                }
            });
        }
        done(from, count).forEach(blocks::add);
        return new BoardView(
                from,
                today,
                ruler.date(ruler.days() - 1),
                ruler.times(),
                shop.now() - shift,
                days.stream().map(d -> day(gathered, board, d)).toList(),
                tracks.technicians(gathered, from, count),
                tracks.bays(gathered, from, count),
                TrackViews.toolSets(gathered, blocks, from, count),
                blocks,
                waiting(gathered, board),
                PlanCostView.of(board.cost()),
                boards.lastChange().map(c -> new UndoView(c.what())).orElse(null),
                gathered.absences().stream()
                        .filter(a -> !a.to().isBefore(today))
                        .map(this::absence)
                        .toList(),
                vehicles.fleets().stream()
                        .map(f -> new FleetRule(f.id(), f.name(), f.offRoadCap(), new TreeSet<>(f.days()), f.version()))
                        .toList());
    }

    AbsenceView absence(Absence a) {
        String what = switch (a.kind()) {
            case WORKSHOP -> "The workshop is closed";
            case FERRY -> "No delivery";
            case TECHNICIAN ->
                people.technicians().stream()
                        .filter(p -> a.technicianId().equals(Optional.of(p.id())))
                        .map(p -> p.name() + " is away")
                        .findFirst()
                        .orElse("A technician is away");
            case BAY ->
                jobs.everyBay().stream()
                        .filter(b -> a.bayId().equals(Optional.of(b.id())))
                        .map(b -> b.name() + " is closed")
                        .findFirst()
                        .orElse("A bay is closed");
            case TOOL_SET ->
                "A tool set for %s is out"
                        .formatted(a.familyCode().map(this::familyName).orElse(""));
        };
        return new AbsenceView(a.id(), a.kind(), what, a.from(), a.to(), a.why(), a.enteredBy());
    }

    private String familyName(String code) {
        return book.find(code).map(f -> f.family().name()).orElse(code);
    }

    private DayView day(BoardCases.Gathered gathered, Board board, LocalDate date) {
        Ruler ruler = gathered.ruler();
        Shop shop = gathered.plan().shop();
        int d = ruler.day(date);
        boolean known = d >= 0 && d < ruler.days();
        DaySums sums = known ? DaySums.of(board, d) : new DaySums(0, 0, List.of());
        boolean closed =
                known && shop.technicians().stream().allMatch(t -> t.daysOff().contains(d));
        Optional<Absence> holiday = gathered.absences().stream()
                .filter(a -> a.kind() == Absence.Kind.WORKSHOP && a.covers(date))
                .findFirst();
        boolean ferry = stores.usuallyDelivers(date);
        boolean cancelled =
                gathered.absences().stream().anyMatch(a -> a.kind() == Absence.Kind.FERRY && a.covers(date));
        return new DayView(
                date,
                closed,
                holiday.map(Absence::why).filter(w -> !w.isEmpty()).orElse(null),
                ferry,
                ferry && cancelled,
                sums.freeMinutes(),
                sums.helperMinutes(),
                sums.full().stream()
                        .map(f -> new FullFleet(
                                f.fleet().name(), f.off(), f.fleet().cap()))
                        .toList());
    }

    private BlockView block(
            BoardCases.Gathered gathered, Board board, PlanJob planned, Place place, int shift, int copy) {
        Job job = gathered.job(planned.id());
        VehicleState state = jobs.state(job);
        Vehicle v = state.vehicle();
        Ruler ruler = gathered.ruler();
        int end = board.endAt(planned.id(), place).orElse(place.start() + planned.slots());
        Shop shop = gathered.plan().shop();
        Work work = job.stage() == JobStage.UNDER_WAY
                ? Work.UNDER_WAY
                : place.start() < shop.now()
                        ? Work.LATE
                        : job.booking().map(Job.Booking::promised).orElse(false) ? Work.PROMISED : Work.PLANNED;
        List<TrackViews.Span> holds = new ArrayList<>();
        shop.technician(place.technicianId()).ifPresent(t -> {
            for (int s = place.start(); s < end; s++) {
                if (!t.worksIn(s, ruler)) {
                    TrackViews.add(holds, s - shift, s - shift + 1, "nobody works on it");
                }
            }
        });
        return new BlockView(
                job.id(),
                job.version(),
                v.id(),
                v.registration(),
                v.makeModel(),
                v.ownerName(),
                v.fleet().map(Fleet::name).orElse(null),
                jobs.family(job).interference(),
                work,
                place.technicianId(),
                place.bayId(),
                planned.toolSet().equals(BoardCases.NO_TOOLS) ? "" : planned.toolSet(),
                copy,
                place.start() - shift,
                end - shift,
                holds,
                work == Work.UNDER_WAY ? worked(job, place.start(), end) - shift : null,
                planned.slots() * 30,
                planned.helperMinutes(),
                ruler.startOf(place.start()),
                ruler.endOf(end),
                planned.earliestWhy().isEmpty() ? null : planned.earliestWhy(),
                planned.earliestWhy().isEmpty() ? null : ruler.startOf(Math.min(planned.earliest(), ruler.slots() - 1)),
                board.clashes().getOrDefault(planned.id(), List.of()).stream()
                        .map(Broken::words)
                        .toList());
    }

    /** How far along its span a job at the bench has come, by the steps of its card. */
    private int worked(Job job, int start, int end) {
        double share = cards.state(job).share();
        return start + (int) Math.round(share * (end - start));
    }

    /** Jobs that are done and stood in the days shown. */
    private List<BlockView> done(LocalDate from, int count) {
        Ruler shown = new Ruler(from, count, hours.times());
        return jobs.booked(from.atStartOfDay(), from.plusDays(count).atStartOfDay()).stream()
                .filter(j -> j.stage() == JobStage.DONE)
                .flatMap(j -> j.booking().stream().map(b -> {
                    Vehicle v = jobs.state(j).vehicle();
                    int start = shown.slotFrom(b.start());
                    int end = Math.max(start + 1, shown.slotFrom(b.end()));
                    return new BlockView(
                            j.id(),
                            j.version(),
                            v.id(),
                            v.registration(),
                            v.makeModel(),
                            v.ownerName(),
                            v.fleet().map(Fleet::name).orElse(null),
                            jobs.family(j).interference(),
                            Work.DONE,
                            b.technicianId(),
                            b.bayId(),
                            j.familyCode(),
                            1,
                            start,
                            Math.min(end, shown.slots()),
                            List.of(),
                            null,
                            (end - start) * 30,
                            0,
                            b.start(),
                            b.end(),
                            null,
                            null,
                            List.of());
                }))
                .toList();
    }

    private List<WaitingView> waiting(BoardCases.Gathered gathered, Board board) {
        Ruler ruler = gathered.ruler();
        LocalDate today = ruler.date(gathered.plan().shop().today());
        return gathered.plan().jobs().stream()
                .filter(j ->
                        board.placeOf(j.id()).isEmpty() && !gathered.places().containsKey(j.id()))
                .map(j -> {
                    Job job = gathered.job(j.id());
                    VehicleState state = jobs.state(job);
                    Vehicle v = state.vehicle();
                    LocalDate actBy = state.forecast().actBy().orElse(null);
                    return new WaitingView(
                            job.id(),
                            job.version(),
                            v.id(),
                            v.registration(),
                            v.makeModel(),
                            v.ownerName(),
                            v.fleet().map(Fleet::name).orElse(null),
                            jobs.family(job).interference(),
                            state.forecast().status(),
                            actBy,
                            actBy != null && actBy.isBefore(today) ? ChronoUnit.DAYS.between(actBy, today) : null,
                            j.slots() * 30,
                            state.exposurePerWeekMinor().orElse(0),
                            ruler.startOf(Math.min(j.earliest(), ruler.slots() - 1)),
                            j.earliestWhy().isEmpty() ? null : j.earliestWhy(),
                            gathered.missed().contains(j.id()),
                            boards.noShows(j.id()).size());
                })
                .sorted(Comparator.comparing(
                                (WaitingView w) -> Optional.ofNullable(w.actBy).orElse(LocalDate.MAX))
                        .thenComparing(w -> -w.exposurePerWeekMinor)
                        .thenComparing(WaitingView::jobId))
                .toList();
    }

    /** A place in words: day and time, technician, bay. */
    PlaceView place(BoardCases.Gathered gathered, Place place, long jobId, Board board) {
        return place(
                gathered.plan().shop(),
                place,
                gathered.ruler()
                        .endOf(board.endAt(jobId, place)
                                .orElse(place.start()
                                        + gathered.plan().job(jobId).slots())));
    }

    static PlaceView place(Shop shop, Place place, LocalDateTime end) {
        return new PlaceView(
                place.technicianId(),
                shop.technician(place.technicianId()).map(Shop.Technician::name).orElse(""),
                place.bayId(),
                shop.bay(place.bayId()).map(Shop.Bay::name).orElse(""),
                shop.ruler().startOf(place.start()),
                end);
    }

    record PlaceView(
            long technicianId, String technician, long bayId, String bay, LocalDateTime start, LocalDateTime end) {}
}
