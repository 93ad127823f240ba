package knollfield.app.board;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import knollfield.app.away.Absences;
import knollfield.app.board.BoardJobViews.AskedView;
import knollfield.app.board.BoardJobViews.BoardJobView;
import knollfield.app.board.BoardJobViews.BookingRequest;
import knollfield.app.board.BoardJobViews.FleetRuleIn;
import knollfield.app.board.BoardJobViews.NoShowIn;
import knollfield.app.board.BoardJobViews.PlaceIn;
import knollfield.app.board.BoardJobViews.PromiseIn;
import knollfield.app.board.BoardJobViews.SlotOfferView;
import knollfield.app.board.BoardJobViews.UndoneView;
import knollfield.app.board.BoardJobViews.WishesIn;
import knollfield.app.job.Job;
import knollfield.app.problem.InvalidInput;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Fleets;
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

    private final Boards boards;
    private final BoardViews views;
    private final BoardJobs one;
    private final Absences absences;
    private final Fleets fleets;
    private final WorkshopClock clock;

    BoardController(
            Boards boards, BoardViews views, BoardJobs one, Absences absences, Fleets fleets, WorkshopClock clock) {
        this.boards = boards;
        this.views = views;
        this.one = one;
        this.absences = absences;
        this.fleets = fleets;
        this.clock = clock;
    }

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
        return one.asked(boards.ask(id, new Boards.Wanted(technicianId.orElse(null), bayId.orElse(null), day, time)));
    }

    @GetMapping("/board/jobs/{id}")
    BoardJobView job(@PathVariable long id) {
        return one.job(id);
    }

    /** The five best slots now. */
    @GetMapping("/board/jobs/{id}/offers")
    List<SlotOfferView> offers(@PathVariable long id) {
        return one.offers(id);
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
