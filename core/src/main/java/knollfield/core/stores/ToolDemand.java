package knollfield.core.stores;

import java.time.LocalDate;
import java.util.Collection;
import java.util.Optional;

/**
 * Who wants a tool set soon.
 *
 * @param waiting jobs without a place that are due soon
 * @param taken jobs that have it some time soon
 * @param usable copies that can be worked with
 */
public record ToolDemand(int waiting, int taken, int usable) {

    /** Days that count as soon (planning assumption). */
    public static final int SOON_DAYS = 14;

    /**
     * One job that needs the set.
     *
     * @param start day it starts on; empty for one without a place
     */
    public record Wanting(Optional<LocalDate> start, Optional<LocalDate> actBy) {}

    public static ToolDemand of(Collection<Wanting> jobs, int usable, LocalDate today) {
        LocalDate until = today.plusDays(SOON_DAYS);
        int waiting = (int) jobs.stream()
                .filter(j -> j.start().isEmpty()
                        && j.actBy().filter(d -> !d.isAfter(until)).isPresent())
                .count();
        int taken = (int) jobs.stream()
                .filter(j -> j.start().filter(d -> !d.isAfter(until)).isPresent())
                .count();
        return new ToolDemand(waiting, taken, usable);
    }

    /** True where a due job waits while others have every copy at some time. */
    public boolean clash() {
        return waiting > 0 && taken >= usable;
    }
}
