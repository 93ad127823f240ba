package knollfield.core.completion;

import java.time.LocalDate;
import java.util.Collection;
import java.util.Optional;

/** What became of an owner's no. */
public enum Became {
    STANDS("stands"),
    WITHDRAWN("withdrawn"),
    DONE("done since"),
    BROKE_DOWN("broke down since");

    private final String words;

    Became(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /**
     * What came first after it: the work, or the breakdown that it was to prevent.
     *
     * @param said the day of the no
     * @param renewed days on which what it was about was renewed
     * @param broken days on which the vehicle's drive broke down
     * @param withdrawn the owner has thought again
     */
    public static Became of(
            LocalDate said, Collection<LocalDate> renewed, Collection<LocalDate> broken, boolean withdrawn) {
        Optional<LocalDate> done = first(renewed, said);
        Optional<LocalDate> broke = first(broken, said);
        if (broke.isPresent() && (done.isEmpty() || !done.get().isBefore(broke.get()))) {
            return BROKE_DOWN;
        }
        if (done.isPresent()) {
            return DONE;
        }
        return withdrawn ? WITHDRAWN : STANDS;
    }

    private static Optional<LocalDate> first(Collection<LocalDate> days, LocalDate from) {
        return days.stream().filter(d -> !d.isBefore(from)).min(LocalDate::compareTo);
    }
}
