package knollfield.app.feed;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Problem;
import knollfield.app.security.Throttle;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Where feeds send readings, with their key in the header {@code Authorization: Bearer KEY}. */
@RestController
@RequestMapping("/api/readings")
class FeedController {

    private static final String BEARER = "Bearer ";

    private final Feeds feeds;
    private final Throttle throttle;

    FeedController(Feeds feeds, Throttle throttle) {
        this.feeds = feeds;
        this.throttle = throttle;
    }

    /**
     * @param vehicle registration or VIN
     * @param at a day, or a moment with or without its offset from UTC; null: now
     * @param unit km or mi; null: km
     */
    record PushedReading(
            @Nullable String vehicle,
            @Nullable String at,
            @Nullable Object value,
            @Nullable String unit) {}

    record PushedReadings(@Nullable List<PushedReading> readings) {}

    /** Takes readings; what does not fit is refused line by line, and the others are taken. */
    @PostMapping(consumes = MediaType.APPLICATION_JSON_VALUE)
    ResponseEntity<?> push(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, defaultValue = "") String authorization,
            @RequestBody PushedReadings body,
            HttpServletRequest request) {
        Optional<Feed> feed = authorization.startsWith(BEARER)
                ? feeds.byKey(authorization.substring(BEARER.length()).strip())
                : Optional.empty();
        if (feed.isEmpty()) {
            Duration wait = throttle.ask("feed " + request.getRemoteAddr());
            return wait.isZero()
                    ? problem(401, "no-key", "No key", "The key is not known, or no longer in force.")
                    : problem(429, "too-often", "Too often", "Too many wrong keys; wait a minute.");
        }
        List<PushedReading> readings = Objects.requireNonNullElse(body.readings(), List.of());
        new Checks()
                .that(!readings.isEmpty(), "/readings", "There is no reading.")
                .orThrow();
        return ResponseEntity.ok(feeds.receive(
                feed.get(),
                readings.stream()
                        .map(r -> new Feed.Line(
                                Objects.requireNonNullElse(r.vehicle(), ""),
                                Objects.requireNonNullElse(r.at(), ""),
                                r.value() == null ? "" : r.value().toString(),
                                Objects.requireNonNullElse(r.unit(), "")))
                        .toList()));
    }

    private static ResponseEntity<Problem> problem(int status, String type, String title, String detail) {
        return ResponseEntity.status(status)
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(Problem.of(type, title, status, detail));
    }
}
