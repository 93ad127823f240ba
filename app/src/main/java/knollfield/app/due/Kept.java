package knollfield.app.due;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Answers kept for as long as no vehicle changes, so that twenty people who look at one list do not each walk through
 * every vehicle.
 *
 * @param <K> the question, with everything the answer depends on besides the vehicles
 * @param <V> the answer, which nobody changes
 */
public final class Kept<K, V> {

    private static final int MOST = 200;

    private volatile @Nullable Held<K, V> held;

    private record Held<K, V>(List<VehicleState> vehicles, Map<K, V> answers) {}

    /**
     * The answer to {@code question} about {@code vehicles}, worked out where it is not known yet.
     *
     * @param vehicles from {@link Forecasts#worstFirst()}, a new list after every change
     */
    public V get(List<VehicleState> vehicles, K question, Function<K, V> answer) {
        Held<K, V> now = held;
        boolean known =
                now != null && now.vehicles() == vehicles && now.answers().containsKey(question);
        if (now == null
                || now.vehicles() != vehicles
                || (!known && now.answers().size() >= MOST)) {
            now = new Held<>(vehicles, new ConcurrentHashMap<>());
            held = now;
        }
        return now.answers().computeIfAbsent(question, answer);
    }
}
