package knollfield.core.reminder;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Who is reminded on a day: one letter an owner, with every vehicle that is due for one; nobody twice within a week, whatever
 * the number of vehicles.
 */
public final class Reminders {

    private static final int A_WEEK = 7;

    private Reminders() {}

    /**
     * A vehicle as it stands.
     *
     * @param owner empty where none is on file
     * @param mayWrite the owner may be written to
     * @param actBy empty where nothing calls for anything
     * @param obstacle what keeps it from being written about today whatever the rule says; empty where nothing does
     * @param sent days on which its owner was written to about it since its drive was last renewed, in any order
     */
    public record Vehicle(
            long id,
            Optional<Long> owner,
            boolean mayWrite,
            Optional<LocalDate> actBy,
            Optional<NotNow> obstacle,
            List<LocalDate> sent) {

        public Vehicle {
            sent = List.copyOf(sent);
        }
    }

    /** @param nth the first, second, … reminder for this renewal */
    public record Line(long vehicle, LocalDate actBy, int nth) {}

    /** @param lines soonest act-by first */
    public record Letter(long owner, List<Line> lines) {}

    /** @param notNow vehicles that are not written about, and why */
    public record Plan(List<Letter> letters, Map<Long, NotNow> notNow) {}

    /**
     * What goes out today.
     *
     * @param written the day each owner was last reminded of anything
     */
    public static Plan of(
            ReminderRule rule, LocalDate today, Collection<Vehicle> vehicles, Map<Long, LocalDate> written) {
        Map<Long, NotNow> notNow = new LinkedHashMap<>();
        Map<Long, List<Line>> lines = new LinkedHashMap<>();
        for (Vehicle v : vehicles) {
            Optional<NotNow> why = why(rule, today, v, written);
            if (why.isPresent()) {
                notNow.put(v.id(), why.get());
            } else {
                lines.computeIfAbsent(v.owner().orElseThrow(), o -> new ArrayList<>())
                        .add(new Line(v.id(), v.actBy().orElseThrow(), v.sent().size() + 1));
            }
        }
        List<Letter> letters = lines.entrySet().stream()
                .map(e -> new Letter(
                        e.getKey(),
                        e.getValue().stream()
                                .sorted(Comparator.comparing(Line::actBy).thenComparing(Line::vehicle))
                                .toList()))
                .sorted(Comparator.comparing((Letter l) -> l.lines().get(0).actBy())
                        .thenComparing(Letter::owner))
                .toList();
        return new Plan(letters, notNow);
    }

    private static Optional<NotNow> why(ReminderRule rule, LocalDate today, Vehicle v, Map<Long, LocalDate> written) {
        if (v.actBy().isEmpty()) {
            return Optional.of(NotNow.NOTHING_DUE);
        }
        if (v.obstacle().isPresent()) {
            return v.obstacle();
        }
        if (today.isBefore(rule.from(v.actBy().get()))) {
            return Optional.of(NotNow.NOT_YET);
        }
        if (v.owner().isEmpty()) {
            return Optional.of(NotNow.NO_OWNER);
        }
        if (!v.mayWrite()) {
            return Optional.of(NotNow.NOT_WANTED);
        }
        if (v.sent().size() >= rule.most()) {
            return Optional.of(NotNow.ENOUGH);
        }
        boolean lately = v.sent().stream().anyMatch(d -> today.isBefore(rule.again(d)));
        if (lately) {
            return Optional.of(NotNow.LATELY);
        }
        LocalDate last = written.get(v.owner().get());
        return last != null && today.isBefore(last.plusDays(A_WEEK))
                ? Optional.of(NotNow.OWNER_LATELY)
                : Optional.empty();
    }
}
