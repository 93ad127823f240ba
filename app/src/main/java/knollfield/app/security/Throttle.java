package knollfield.app.security;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.github.bucket4j.Bucket;
import io.github.bucket4j.ConsumptionProbe;
import java.time.Duration;
import org.springframework.stereotype.Component;

/** Lets each place on the network try only so often, so that nobody tries private addresses or keys one after the other. */
@Component
public class Throttle {

    private static final int A_MINUTE = 30;
    private static final int MOST_PLACES = 10_000;

    private final Cache<String, Bucket> buckets = Caffeine.newBuilder()
            .maximumSize(MOST_PLACES)
            .expireAfterAccess(Duration.ofMinutes(10))
            .build();

    /**
     * Counts one request.
     *
     * @param place a network address
     * @return zero where it may go on; else how long to wait
     */
    public Duration ask(String place) {
        Bucket bucket = buckets.get(
                place,
                p -> Bucket.builder()
                        .addLimit(l -> l.capacity(A_MINUTE).refillGreedy(A_MINUTE, Duration.ofMinutes(1)))
                        .build());
        ConsumptionProbe probe = bucket.tryConsumeAndReturnRemaining(1);
        return probe.isConsumed() ? Duration.ZERO : Duration.ofNanos(probe.getNanosToWaitForRefill());
    }
}
