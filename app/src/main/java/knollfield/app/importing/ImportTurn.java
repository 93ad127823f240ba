package knollfield.app.importing;

import java.time.Duration;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Supplier;
import knollfield.app.problem.TooMany;
import org.springframework.stereotype.Component;

/** Lists are taken one after the other. */
@Component
class ImportTurn {

    private static final Duration PATIENCE = Duration.ofMinutes(1);
    private final ReentrantLock turn = new ReentrantLock(true);

    /** One list after the other: each is judged by what those before it brought. */
    <T> T inTurn(Supplier<T> deed) {
        try {
            if (!turn.tryLock(PATIENCE.toSeconds(), TimeUnit.SECONDS)) {
                throw new TooMany("Other lists are being taken in.", PATIENCE);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new TooMany("Other lists are being taken in.", PATIENCE);
        }
        try {
            return deed.get();
        } finally {
            turn.unlock();
        }
    }
}
