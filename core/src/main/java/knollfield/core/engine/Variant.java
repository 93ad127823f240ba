package knollfield.core.engine;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A point in which engines of one family differ; it is settled for each vehicle before parts are ordered.
 *
 * @param name what differs, such as {@code Crank bolt}
 * @param howToTell how to see which one a vehicle has
 * @param choices two or more
 */
public record Variant(String code, String name, String howToTell, List<Choice> choices) {

    /**
     * One of the possibilities.
     *
     * @param torques figures that differ, by joint code
     * @param parts parts that differ, by item code
     */
    public record Choice(String code, String name, Map<String, TorqueSpec> torques, Map<String, Part> parts) {
        public Choice {
            torques = Map.copyOf(torques);
            parts = Map.copyOf(parts);
        }
    }

    public Variant {
        choices = List.copyOf(choices);
        if (choices.size() < 2) {
            throw new IllegalArgumentException(
                    "variant %s needs at least two choices, not %d".formatted(name, choices.size()));
        }
    }

    public Optional<Choice> choice(String choiceCode) {
        return choices.stream().filter(c -> c.code().equals(choiceCode)).findFirst();
    }
}
