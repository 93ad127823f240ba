package knollfield.app.feed;

import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Asks the units of feeds that do not send by themselves. */
@Component
public class TelematicsRun {

    private static final long HOUR = 3_600_000;

    private final Feeds feeds;
    private final Telematics telematics;

    TelematicsRun(Feeds feeds, Telematics telematics) {
        this.feeds = feeds;
        this.telematics = telematics;
    }

    /** Takes what they say; of one day the first counts, so that a second time changes nothing. */
    @Scheduled(fixedDelay = HOUR, initialDelay = HOUR)
    public void run() {
        feeds.all().stream().filter(Feed::standIn).forEach(f -> feeds.receive(f, telematics.read(f)));
    }
}
