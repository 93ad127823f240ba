package knollfield.core.engine.work;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * A law broken.
 *
 * @param laws one or more, the nearest first
 * @param at the operation that breaks it; empty where it shows at the end
 * @param thing code of the thing of the book it is about
 * @param words what is wrong, in one sentence
 */
public record Breach(List<Law> laws, Optional<Operation> at, String thing, String words) {
    public Breach {
        laws = List.copyOf(laws);
    }

    @Override
    public String toString() {
        return "%s at %s: %s"
                .formatted(
                        laws.stream().map(l -> String.valueOf(l.number())).collect(Collectors.joining("/")),
                        at.map(Operation::code).orElse("the end"),
                        words);
    }
}
