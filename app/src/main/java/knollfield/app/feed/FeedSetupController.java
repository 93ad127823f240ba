package knollfield.app.feed;

import java.time.Instant;
import java.util.List;
import java.util.Objects;
import knollfield.app.shared.WorkshopClock;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Feeds: made and ended by a manager; what is silent is told to the desk. */
@RestController
class FeedSetupController {

    private final Feeds feeds;
    private final DropFolder drops;
    private final WorkshopClock clock;

    FeedSetupController(Feeds feeds, DropFolder drops, WorkshopClock clock) {
        this.feeds = feeds;
        this.drops = drops;
        this.clock = clock;
    }

    record RefusedReading(Instant at, String vehicle, String what, String why) {}

    /**
     * @param folder files dropped there are read
     * @param silentSince when it was last heard, where that is too long ago
     * @param refused newest first
     */
    record ReadingFeedView(
            long id,
            String fleetName,
            String name,
            int silentDays,
            boolean standIn,
            String folder,
            Instant madeAt,
            String madeBy,
            @Nullable Instant lastHeard,
            @Nullable Instant silentSince,
            List<RefusedReading> refused) {}

    /** @param key of a feed just made, which is shown this once; else null */
    record ReadingFeeds(@Nullable String key, List<ReadingFeedView> feeds) {}

    record ReadingFeedIn(
            @Nullable Long fleetId,
            @Nullable String name,
            int silentDays,
            @Nullable Boolean standIn) {}

    record SilentFeed(long fleetId, String fleetName, String name, Instant since) {}

    @GetMapping("/api/setup/reading-feeds")
    ReadingFeeds get() {
        return view(null);
    }

    @PostMapping("/api/setup/reading-feeds")
    ReadingFeeds make(@RequestBody ReadingFeedIn in) {
        return view(feeds.make(
                Objects.requireNonNullElse(in.fleetId(), 0L),
                Objects.requireNonNullElse(in.name(), ""),
                in.silentDays(),
                Boolean.TRUE.equals(in.standIn())));
    }

    @DeleteMapping("/api/setup/reading-feeds/{id}")
    ReadingFeeds end(@PathVariable long id) {
        feeds.end(id);
        return view(null);
    }

    /** Feeds that have been silent for too long. */
    @GetMapping("/api/silent-feeds")
    List<SilentFeed> silent() {
        return feeds.silent().stream()
                .map(f -> new SilentFeed(
                        f.fleetId(),
                        feeds.fleetName(f),
                        f.name(),
                        f.silentSince(clock.instant()).orElseThrow()))
                .toList();
    }

    private ReadingFeeds view(@Nullable String key) {
        return new ReadingFeeds(
                key,
                feeds.all().stream()
                        .map(f -> new ReadingFeedView(
                                f.id(),
                                feeds.fleetName(f),
                                f.name(),
                                f.silentDays(),
                                f.standIn(),
                                drops.of(f).toString(),
                                f.madeAt(),
                                f.madeBy(),
                                f.lastHeard().orElse(null),
                                f.silentSince(clock.instant()).orElse(null),
                                feeds.refused(f.id()).stream()
                                        .map(r -> new RefusedReading(r.at(), r.vehicle(), r.what(), r.why()))
                                        .toList()))
                        .toList());
    }
}
