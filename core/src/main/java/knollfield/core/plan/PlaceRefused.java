package knollfield.core.plan;

import java.util.List;
import java.util.stream.Collectors;

/** A place that breaks hard rules; {@link #broken()} says which. */
public final class PlaceRefused extends RuntimeException {

    private static final long serialVersionUID = 1;

    private final transient List<Broken> broken;

    PlaceRefused(List<Broken> broken) {
        super(broken.stream().map(Broken::words).collect(Collectors.joining(" ")));
        this.broken = List.copyOf(broken);
    }

    public List<Broken> broken() {
        return broken;
    }
}
