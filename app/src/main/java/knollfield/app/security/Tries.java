package knollfield.app.security;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import knollfield.app.problem.TooMany;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import org.springframework.util.backoff.BackOffExecution;
import org.springframework.util.backoff.ExponentialBackOff;

/**
 * Wrong sign-ins and codes, and how long to wait after them: the first few cost nothing, then each wrong one doubles the
 * wait. Counted by name and place together, so that who guesses from elsewhere does not lock the owner of the name out; and,
 * more patiently, by name alone and by place alone.
 */
@Component
class Tries {

    private static final int MOST_KEYS = 50_000;
    private static final Duration FORGOTTEN_AFTER = Duration.ofHours(1);

    /** @param free wrong tries that cost nothing */
    private record Patience(int free, Duration longest) {}

    private static final Patience BOTH = new Patience(4, Duration.ofMinutes(15));
    private static final Patience NAME = new Patience(40, Duration.ofMinutes(1));
    private static final Patience PLACE = new Patience(20, Duration.ofMinutes(5));

    private final Cache<String, Wrong> wrong = Caffeine.newBuilder()
            .maximumSize(MOST_KEYS)
            .expireAfterAccess(FORGOTTEN_AFTER)
            .build();
    private final InstantSource clock;

    @Autowired
    Tries() {
        this(InstantSource.system());
    }

    Tries(InstantSource clock) {
        this.clock = clock;
    }

    private static final class Wrong {
        private final int free;
        private final BackOffExecution waits;
        private int count;
        private Instant notBefore = Instant.EPOCH;

        Wrong(Patience patience) {
            this.free = patience.free();
            ExponentialBackOff doubling = new ExponentialBackOff(1000, 2);
            doubling.setMaxInterval(patience.longest().toMillis());
            this.waits = doubling.start();
        }

        synchronized void another(Instant now) {
            count++;
            if (count > free) {
                notBefore = now.plusMillis(waits.nextBackOff());
            }
        }

        synchronized Duration left(Instant now) {
            return now.isBefore(notBefore) ? Duration.between(now, notBefore) : Duration.ZERO;
        }
    }

    private Duration left(String name, String place) {
        Instant now = clock.instant();
        Duration longest = Duration.ZERO;
        for (String key : new String[] {both(name, place), name(name), place(place)}) {
            Wrong known = wrong.getIfPresent(key);
            if (known != null && known.left(now).compareTo(longest) > 0) {
                longest = known.left(now);
            }
        }
        return longest;
    }

    /**
     * Lets a try go on where there is nothing to wait for.
     *
     * @throws TooMany otherwise
     */
    void ask(String name, String place) {
        Duration wait = left(name, place);
        if (!wait.isZero()) {
            throw new TooMany("That was wrong too often.", wait);
        }
    }

    /** Counts a wrong try. */
    void wrong(String name, String place) {
        Instant now = clock.instant();
        wrong.get(both(name, place), k -> new Wrong(BOTH)).another(now);
        wrong.get(name(name), k -> new Wrong(NAME)).another(now);
        wrong.get(place(place), k -> new Wrong(PLACE)).another(now);
    }

    /** Forgets the wrong tries of this name from this place. */
    void right(String name, String place) {
        wrong.invalidate(both(name, place));
    }

    private static String both(String name, String place) {
        return "both " + name + " " + place;
    }

    private static String name(String name) {
        return "name " + name;
    }

    private static String place(String place) {
        return "place " + place;
    }
}
