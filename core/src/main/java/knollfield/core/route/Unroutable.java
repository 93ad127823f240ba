package knollfield.core.route;

import java.util.List;
import java.util.stream.Collectors;

/** The book contradicts itself: no order keeps all its arrows. */
public final class Unroutable extends RuntimeException {

    private static final long serialVersionUID = 1L;

    private final transient List<Arrow> circle;

    Unroutable(List<Arrow> circle) {
        super("The book contradicts itself: "
                + circle.stream()
                        .map(a -> "%s before %s (%s)".formatted(a.first(), a.then(), a.words()))
                        .collect(Collectors.joining(", ")));
        this.circle = List.copyOf(circle);
    }

    /** The arrows that run in a circle; each names its place in the book. */
    public List<Arrow> circle() {
        return circle;
    }
}
