package knollfield.app.board;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import knollfield.app.away.Absence;
import knollfield.app.away.Absences;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.problem.InvalidInput;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Fleets;
import knollfield.core.plan.Board;
import knollfield.core.plan.Broken;
import knollfield.core.plan.Why;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The board: reading it, placing, promising, offers, absences. */
@RestController
@RequestMapping("/api")
class BoardController {

    private static final int MOST_DAYS = 42;
    private static final int OFFERS = 5;

    private final Boards boards;
    private final BoardCases cases;
    private final BoardViews views;
    private final Jobs jobs;
    private final Visits visits;
    private final Absences absences;
    private final Fleets fleets;
    private final WorkshopSettings settings;
    private final WorkshopClock clock;
    private final Words words;

    BoardController(
            Boards boards,
            BoardCases cases,
            BoardViews views,
            Jobs jobs,
            Visits visits,
            Absences absences,
            Fleets fleets,
            WorkshopSettings settings,
            WorkshopClock clock,
            Words words) {
        this.boards = boards;
        this.cases = cases;
        this.views = views;
        this.jobs = jobs;
        this.visits = visits;
        this.absences = absences;
        this.fleets = fleets;
        this.settings = settings;
        this.clock = clock;
        this.words = words;
    }

    /** @param technicianId and bayId null for whoever can and whichever is free */
    record PlaceIn(
            @Nullable Long technicianId,
            @Nullable Long bayId,
            LocalDate day,
            LocalTime time,
            boolean promised,
            int version) {

        Boards.Wanted wanted() {
            return new Boards.Wanted(technicianId, bayId, day, time);
        }
    }

    record BookingRequest(long technicianId, long bayId, LocalDate day, LocalTime time, int version) {}

    record PromiseIn(boolean promised, int version) {}

    record NoShowIn(String note, int version) {}

    record WishesIn(@Nullable LocalDate notBefore, Set<DayOfWeek> days, int version) {}

    record AbsenceIn(
            Absence.Kind kind,
            @Nullable Long technicianId,
            @Nullable Long bayId,
            @Nullable String familyCode,
            LocalDate from,
            LocalDate to,
            @Nullable String why) {

        /** Checked, and entered nowhere yet. */
        Absence checked(Absences absences) {
            return absences.of(
                    kind,
                    technicianId,
                    bayId,
                    familyCode,
                    from,
                    to,
                    Optional.ofNullable(why).orElse(""));
        }
    }

    record FleetRuleIn(int cap, Set<DayOfWeek> days, int version) {}

    record BrokenView(Broken.Rule rule, String words) {}

    /** @param place null where work could not even end there */
    record AskedView(BoardViews.@Nullable PlaceView place, List<BrokenView> broken) {}

    record NoShowView(LocalDateTime start, String note, String enteredBy) {}

    /**
     * A job as the board knows it.
     *
     * @param why sentences: why it stands where it stands, or why it stands nowhere
     */
    record BoardJobView(
            long jobId,
            int version,
            String registration,
            BoardViews.@Nullable PlaceView place,
            boolean promised,
            @Nullable LocalDate notBefore,
            Set<DayOfWeek> days,
            List<NoShowView> noShows,
            List<String> why,
            List<WhileHereView> whileHere) {}

    /** A vehicle that is not due but worth doing on a visit, and what brings the visit about. */
    record WhileHereView(long vehicleId, String registration, String occasion) {}

    record LaterView(
            long jobId, String registration, @Nullable Integer days) {}

    /** Money in minor units; {@code restMinor} is what jobs that still wait lose by it. */
    record SlotOfferView(
            BoardViews.PlaceView place,
            long waitingMinor,
            long offRoadMinor,
            long changeoverMinor,
            long restMinor,
            long totalMinor,
            List<LaterView> later) {}

    /** The board from {@code from}, the present day where it is left out. */
    @GetMapping("/board")
    BoardViews.BoardView board(@RequestParam Optional<LocalDate> from, @RequestParam(defaultValue = "14") int days) {
        if (days < 1 || days > MOST_DAYS) {
            throw new InvalidInput("/days", "The board shows 1 to 42 days.");
        }
        return views.view(from.orElse(clock.today()), days);
    }

    @GetMapping(value = "/board/list.csv", produces = "text/csv")
    String csv(@RequestParam Optional<LocalDate> from, @RequestParam(defaultValue = "14") int days) {
        return BoardCsv.write(board(from, days));
    }

    /** What a place would break; changes nothing. */
    @GetMapping("/board/jobs/{id}/ask")
    AskedView ask(
            @PathVariable long id,
            @RequestParam Optional<Long> technicianId,
            @RequestParam Optional<Long> bayId,
            @RequestParam LocalDate day,
            @RequestParam LocalTime time) {
        Boards.Answer answer =
                boards.ask(id, new Boards.Wanted(technicianId.orElse(null), bayId.orElse(null), day, time));
        return new AskedView(
                answer.booking()
                        .map(b -> BoardViews.place(answer.shop(), answer.place(), b.end()))
                        .orElse(null),
                answer.broken().stream()
                        .map(b -> new BrokenView(b.rule(), b.words()))
                        .toList());
    }

    @GetMapping("/board/jobs/{id}")
    BoardJobView job(@PathVariable long id) {
        BoardCases.Gathered gathered = cases.now();
        Job job = jobs.get(id);
        Board board = Board.lay(gathered.plan(), gathered.places());
        boolean known = gathered.plan().jobs().stream().anyMatch(j -> j.id() == id);
        String currency = settings.get().currency();
        List<String> why = !known
                ? List.of()
                : (board.placeOf(id).isPresent() ? Why.here(board, id) : Why.notPlanned(board, id))
                        .stream().map(s -> words.write(s, currency)).toList();
        return new BoardJobView(
                id,
                job.version(),
                jobs.state(job).vehicle().registration(),
                known
                        ? board.placeOf(id)
                                .map(p -> views.place(gathered, p, id, board))
                                .orElse(null)
                        : null,
                job.booking().map(Job.Booking::promised).orElse(false),
                job.wishes().notBefore().orElse(null),
                new TreeSet<>(job.wishes().days()),
                boards.noShows(id).stream()
                        .map(n -> new NoShowView(n.start(), n.note(), n.enteredBy()))
                        .toList(),
                why,
                visits.worthDoingWith(job, OFFERS).stream()
                        .map(v -> new WhileHereView(
                                v.state().vehicle().id(),
                                v.state().vehicle().registration(),
                                v.occasion().words()))
                        .toList());
    }

    /** The five best slots now. */
    @GetMapping("/board/jobs/{id}/offers")
    List<SlotOfferView> offers(@PathVariable long id) {
        BoardCases.Gathered gathered = cases.now();
        jobs.get(id);
        Board board = Board.lay(gathered.plan(), Map.of());
        return Boards.offers(gathered, id, OFFERS).stream()
                .map(o -> new SlotOfferView(
                        views.place(gathered, o.place(), id, board),
                        o.share().waiting(),
                        o.share().offRoad(),
                        o.share().changeovers(),
                        o.restMinor(),
                        o.total(),
                        o.later().stream()
                                .map(l -> new LaterView(
                                        l.jobId(),
                                        l.name(),
                                        l.days().isPresent() ? l.days().getAsInt() : null))
                                .toList()))
                .toList();
    }

    @PutMapping("/board/jobs/{id}/place")
    BoardJobView place(@PathVariable long id, @RequestBody PlaceIn in) {
        boards.place(id, in.wanted(), in.promised(), in.version());
        return job(id);
    }

    /** Promises a slot. */
    @PutMapping("/jobs/{id}/booking")
    BoardJobView book(@PathVariable long id, @RequestBody BookingRequest b) {
        boards.place(id, new Boards.Wanted(b.technicianId(), b.bayId(), b.day(), b.time()), true, b.version());
        return job(id);
    }

    @DeleteMapping("/jobs/{id}/booking")
    BoardJobView takeOff(@PathVariable long id, @RequestParam int version) {
        boards.takeOff(id, version);
        return job(id);
    }

    @PutMapping("/board/jobs/{id}/promise")
    BoardJobView promise(@PathVariable long id, @RequestBody PromiseIn in) {
        boards.promise(id, in.promised(), in.version());
        return job(id);
    }

    @PostMapping("/board/jobs/{id}/no-show")
    BoardJobView noShow(@PathVariable long id, @RequestBody NoShowIn in) {
        boards.noShow(id, in.note(), in.version());
        return job(id);
    }

    @PutMapping("/board/jobs/{id}/wishes")
    BoardJobView wishes(@PathVariable long id, @RequestBody WishesIn in) {
        boards.wish(id, new Job.Wishes(Optional.ofNullable(in.notBefore()), in.days()), in.version());
        return job(id);
    }

    record UndoneView(boolean more) {}

    /** Takes the asker's own last change back. */
    @PostMapping("/board/undo")
    UndoneView undo() {
        boards.undo();
        return new UndoneView(boards.lastChange().isPresent());
    }

    @DeleteMapping("/board/absences/{id}")
    void withdraw(@PathVariable long id) {
        absences.withdraw(id);
    }

    @PutMapping("/board/fleets/{id}")
    void fleet(@PathVariable long id, @RequestBody FleetRuleIn in) {
        fleets.lends(id, in.cap(), in.days(), in.version());
    }
}
