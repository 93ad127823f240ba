package knollfield.app.board;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import knollfield.app.away.Absence;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.job.Bay;
import knollfield.app.job.Cards;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
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
import knollfield.core.plan.Place;
import knollfield.core.plan.PlanCost;
import knollfield.core.plan.PlanJob;
import knollfield.core.plan.Ruler;
import knollfield.core.plan.Shop;
import knollfield.core.plan.WorkCalendar;
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

    BoardViews(
            BoardCases cases,
            Boards boards,
            Jobs jobs,
            Cards cards,
            People people,
            VehicleService vehicles,
            EngineBook book,
            Stores stores) {
        this.cases = cases;
        this.boards = boards;
        this.jobs = jobs;
        this.cards = cards;
        this.people = people;
        this.vehicles = vehicles;
        this.book = book;
        this.stores = stores;
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

    /** Half-hours from the first day shown, the end one not included. */
    record Span(int from, int to, String why) {}

    record TechnicianTrack(long id, String name, String skills, List<Span> away) {}

    record BayTrack(long id, String name, String note, List<Span> closed) {}

    /** @param number of the copy, 1 for the first */
    record ToolSetTrack(String code, String name, int number, int copies, List<Span> out) {}

    /**
     * A job with a place.
     *
     * @param start half-hour from the first day shown; below zero where it began before
     * @param end the half-hour after its last
     * @param holds parts of it in which nobody works: nights have no half-hours, days off do
     * @param workedTo half-hour up to which it is worked; null where it has not begun
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
            List<Span> holds,
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
            List<TechnicianTrack> technicians,
            List<BayTrack> bays,
            List<ToolSetTrack> toolSets,
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
        int shift = ruler.day(from) * Ruler.SLOTS_PER_DAY;
        List<LocalDate> days = from.datesUntil(from.plusDays(count)).toList();
        List<BlockView> blocks = new ArrayList<>();
        Map<Long, Integer> copies = copies(gathered, board);
        for (PlanJob job : gathered.plan().jobs()) {
            Optional<Place> place = board.placeOf(job.id())
                    .or(() -> Optional.ofNullable(gathered.places().get(job.id())));
            place.ifPresent(p -> {
                BlockView block = block(gathered, board, job, p, shift, copies.getOrDefault(job.id(), 1));
                if (block.end > 0 && block.start < count * Ruler.SLOTS_PER_DAY) {
                    blocks.add(block);
                }
            });
        }
        done(from, count).forEach(blocks::add);
        return new BoardView(
                from,
                today,
                ruler.date(ruler.days() - 1),
                IntStream.range(0, Ruler.SLOTS_PER_DAY)
                        .mapToObj(WorkCalendar::startOf)
                        .toList(),
                shop.now() - shift,
                days.stream().map(d -> day(gathered, board, d)).toList(),
                technicians(gathered, from, count),
                shop.bays().stream()
                        .map(b -> new BayTrack(
                                b.id(),
                                b.name(),
                                jobs.bays().stream()
                                        .filter(x -> x.id() == b.id())
                                        .map(Bay::note)
                                        .findFirst()
                                        .orElse(""),
                                spans(
                                        from,
                                        count,
                                        gathered.absences().stream()
                                                .filter(a -> a.bayId().equals(Optional.of(b.id())))
                                                .toList())))
                        .toList(),
                toolSets(gathered, blocks, from, count),
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
            case FERRY -> "No ferry";
            case TECHNICIAN ->
                people.technicians().stream()
                        .filter(p -> a.technicianId().equals(Optional.of(p.id())))
                        .map(p -> p.name() + " is away")
                        .findFirst()
                        .orElse("A technician is away");
            case BAY ->
                jobs.bays().stream()
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
                known ? freeMinutes(board, d) : 0,
                known ? helperMinutes(gathered, board, d) : 0,
                known ? full(gathered, board, d) : List.of());
    }

    private static int freeMinutes(Board board, int day) {
        Shop shop = board.plan().shop();
        int free = 0;
        for (Shop.Technician t : shop.technicians()) {
            if (t.daysOff().contains(day)) {
                continue;
            }
            int from = Math.max(day * Ruler.SLOTS_PER_DAY, shop.now());
            int to = (day + 1) * Ruler.SLOTS_PER_DAY;
            int open = Math.max(0, to - from);
            for (Map.Entry<Long, Place> e : board.places().entrySet()) {
                if (e.getValue().technicianId() == t.id()) {
                    int end = board.endAt(e.getKey(), e.getValue())
                            .orElse(e.getValue().start());
                    open -= Math.max(
                            0, Math.min(end, to) - Math.max(e.getValue().start(), from));
                }
            }
            free += 30 * Math.max(0, open);
        }
        return free;
    }

    private static int helperMinutes(BoardCases.Gathered gathered, Board board, int day) {
        return board.places().entrySet().stream()
                .filter(e -> Ruler.dayOf(e.getValue().start()) == day)
                .mapToInt(e -> gathered.plan().job(e.getKey()).helperMinutes())
                .sum();
    }

    private static List<FullFleet> full(BoardCases.Gathered gathered, Board board, int day) {
        Map<Long, Integer> off = new HashMap<>();
        board.places().forEach((id, place) -> {
            PlanJob job = gathered.plan().job(id);
            int end = board.endAt(id, place).orElse(place.start() + 1);
            if (job.fleetId().isPresent() && Ruler.dayOf(place.start()) <= day && day <= Ruler.dayOf(end - 1)) {
                off.merge(job.fleetId().getAsLong(), 1, Integer::sum);
            }
        });
        return gathered.plan().shop().fleets().stream()
                .filter(f -> off.getOrDefault(f.id(), 0) >= f.cap() && off.containsKey(f.id()))
                .map(f -> new FullFleet(f.name(), off.getOrDefault(f.id(), 0), f.cap()))
                .toList();
    }

    private List<TechnicianTrack> technicians(BoardCases.Gathered gathered, LocalDate from, int count) {
        return people.technicians().stream()
                .map(p -> {
                    List<Span> away = new ArrayList<>();
                    for (int d = 0; d < count; d++) {
                        LocalDate day = from.plusDays(d);
                        Optional<Absence> absence = gathered.absences().stream()
                                .filter(a -> a.technicianId().equals(Optional.of(p.id())) && a.covers(day))
                                .findFirst();
                        boolean works = !p.workingDays().isEmpty() && new WorkCalendar(p.workingDays()).worksOn(day);
                        if (absence.isPresent() || !works) {
                            String why = absence.map(a -> a.why().isEmpty() ? "away" : a.why())
                                    .orElse("does not work");
                            add(away, d, why);
                        }
                    }
                    return new TechnicianTrack(
                            p.id(),
                            p.name(),
                            p.skills().stream().sorted().map(s -> s.words()).collect(Collectors.joining(", ")),
                            away);
                })
                .toList();
    }

    /** Adds a day to the spans, joined with the day before where the reason is the same. */
    private static void add(List<Span> spans, int day, String why) {
        int from = day * Ruler.SLOTS_PER_DAY;
        int to = from + Ruler.SLOTS_PER_DAY;
        Span last = spans.isEmpty() ? null : spans.get(spans.size() - 1);
        if (last != null && last.to == from && last.why.equals(why)) {
            spans.set(spans.size() - 1, new Span(last.from, to, why));
        } else {
            spans.add(new Span(from, to, why));
        }
    }

    private static List<Span> spans(LocalDate from, int count, List<Absence> absences) {
        List<Span> spans = new ArrayList<>();
        for (int d = 0; d < count; d++) {
            LocalDate day = from.plusDays(d);
            int here = d;
            absences.stream()
                    .filter(a -> a.covers(day))
                    .findFirst()
                    .ifPresent(a -> add(spans, here, a.why().isEmpty() ? "closed" : a.why()));
        }
        return spans;
    }

    /** Which copy of its tool set each placed job has: the lowest that is free when it starts. */
    private static Map<Long, Integer> copies(BoardCases.Gathered gathered, Board board) {
        Map<Long, Integer> copies = new HashMap<>();
        List<Map.Entry<Long, Place>> inOrder = board.places().entrySet().stream()
                .sorted(Comparator.comparing(
                        (Map.Entry<Long, Place> e) -> e.getValue().start()))
                .toList();
        Map<String, List<Integer>> freeAt = new HashMap<>();
        for (Map.Entry<Long, Place> e : inOrder) {
            List<Integer> ends =
                    freeAt.computeIfAbsent(gathered.plan().job(e.getKey()).toolSet(), s -> new ArrayList<>());
            int copy = 0;
            while (copy < ends.size() && ends.get(copy) > e.getValue().start()) {
                copy++;
            }
            int end = board.endAt(e.getKey(), e.getValue()).orElse(e.getValue().start() + 1);
            if (copy == ends.size()) {
                ends.add(end);
            } else {
                ends.set(copy, end);
            }
            copies.put(e.getKey(), copy + 1);
        }
        return copies;
    }

    private List<ToolSetTrack> toolSets(
            BoardCases.Gathered gathered, List<BlockView> blocks, LocalDate from, int count) {
        Map<String, Integer> used = new HashMap<>();
        blocks.forEach(b -> used.merge(b.toolSet, b.copy, Math::max));
        return gathered.plan().shop().toolSets().stream()
                .filter(s -> used.containsKey(s.code()))
                .flatMap(s -> IntStream.rangeClosed(
                                1, Math.max(used.getOrDefault(s.code(), 1), Math.min(2, s.copies())))
                        .mapToObj(n -> new ToolSetTrack(
                                s.code(),
                                s.name(),
                                n,
                                s.copies(),
                                n == s.copies()
                                        ? spans(
                                                from,
                                                count,
                                                gathered.absences().stream()
                                                        .filter(a ->
                                                                a.familyCode().equals(Optional.of(s.code())))
                                                        .toList())
                                        : List.of())))
                .toList();
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
        List<Span> holds = new ArrayList<>();
        shop.technician(place.technicianId()).ifPresent(t -> {
            for (int d = Ruler.dayOf(place.start()); d <= Ruler.dayOf(end - 1); d++) {
                if (t.daysOff().contains(d)) {
                    add(holds, d - shift / Ruler.SLOTS_PER_DAY, "nobody works on it");
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
                planned.toolSet(),
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
                clash(board, planned, place, work));
    }

    /** What a job collides with where it stands, and what will not be there when it is to start. */
    private static List<String> clash(Board board, PlanJob planned, Place place, Work work) {
        if (board.clashes().containsKey(planned.id())) {
            return board.clashes().getOrDefault(planned.id(), List.of()).stream()
                    .map(Broken::words)
                    .toList();
        }
        Broken.Rule told = work == Work.UNDER_WAY ? Broken.Rule.DAY_OFF : Broken.Rule.NOT_THERE_YET;
        return board.broken(planned.id(), place).stream()
                .filter(b -> b.rule() == told)
                .map(Broken::words)
                .toList();
    }

    /** How far along its span a job at the bench has come, by the steps of its card. */
    private int worked(Job job, int start, int end) {
        double share = cards.state(job).share();
        return start + (int) Math.round(share * (end - start));
    }

    /** Jobs that are done and stood in the days shown. */
    private List<BlockView> done(LocalDate from, int count) {
        Ruler shown = new Ruler(from, count);
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
