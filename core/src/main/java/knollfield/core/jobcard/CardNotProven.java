package knollfield.core.jobcard;

import java.util.List;
import knollfield.core.engine.work.Breach;

/** No card is handed out: the book contradicts itself, or the card it gives breaks a law on a dry run. */
public final class CardNotProven extends RuntimeException {

    private static final long serialVersionUID = 1L;

    private final transient List<Breach> breaches;

    CardNotProven(List<Breach> breaches) {
        super("The book does not give a card that can be worked: "
                + breaches.get(0).words()
                + breaches.get(0).at().map(o -> " (at " + o.code() + ")").orElse("")
                + ".");
        this.breaches = List.copyOf(breaches);
    }

    /** What breaks, each with its law and its place in the book; one or more. */
    public List<Breach> breaches() {
        return breaches;
    }
}
