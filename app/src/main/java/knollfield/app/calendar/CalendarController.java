package knollfield.app.calendar;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Calendar files and feeds. */
@RestController
@RequestMapping("/api")
class CalendarController {

    private static final String CALENDAR = "text/calendar;charset=UTF-8";

    private final Calendars calendars;

    CalendarController(Calendars calendars) {
        this.calendars = calendars;
    }

    record FeedView(long id, String shows, String madeBy, Instant madeAt) {}

    /** @param fleetId null for the whole board */
    record FeedIn(@Nullable Long fleetId) {}

    /** @param path private; shown this once */
    record NewFeedView(String path, List<FeedView> feeds) {}

    @GetMapping(value = "/board/calendar.ics", produces = CALENDAR)
    ResponseEntity<String> file(@RequestParam Optional<Long> fleetId) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"knollfield.ics\"")
                .body(calendars.file(fleetId));
    }

    /** A fleet's promises, for whoever may see the fleet. */
    @GetMapping(value = "/fleets/{id}/calendar.ics", produces = CALENDAR)
    ResponseEntity<String> fleetFile(@PathVariable long id) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"fleet-%d.ics\"".formatted(id))
                .body(calendars.ofFleet(id));
    }

    /** The calendar behind a private address; whoever has the address may read it. */
    @GetMapping(value = "/feeds/{token}", produces = CALENDAR)
    ResponseEntity<String> feed(@PathVariable String token) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CACHE_CONTROL, "private, max-age=300")
                .body(calendars.feed(token));
    }

    @GetMapping("/board/feeds")
    List<FeedView> feeds() {
        return calendars.feeds().stream()
                .map(t -> new FeedView(
                        t.feed().id(), t.shows(), t.feed().madeBy(), t.feed().madeAt()))
                .toList();
    }

    @PostMapping("/board/feeds")
    NewFeedView make(@RequestBody FeedIn in) {
        String token = calendars.makeFeed(Optional.ofNullable(in.fleetId()));
        return new NewFeedView("/api/feeds/" + token, feeds());
    }

    @DeleteMapping("/board/feeds/{id}")
    List<FeedView> revoke(@PathVariable long id) {
        calendars.revoke(id);
        return feeds();
    }
}
