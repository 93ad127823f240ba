package knollfield.app.board;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import knollfield.app.away.Absence;
import knollfield.app.hours.Hours;
import knollfield.app.job.Jobs;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.core.plan.Ruler;
import org.springframework.stereotype.Component;

/** The board's tracks without their jobs: who and what there is, and when it is not. */
@Component
class TrackViews {

    private final People people;
    private final Jobs jobs;
    private final Hours hours;

    TrackViews(People people, Jobs jobs, Hours hours) {
        this.people = people;
        this.jobs = jobs;
        this.hours = hours;
    }

    /** Half-hours from the first day shown, the end one not included. */
    record Span(int from, int to, String why) {}

    record TechnicianTrack(long id, String name, String skills, List<Span> away) {}

    record BayTrack(long id, String name, String note, List<Span> closed) {}

    /** @param number of the copy, 1 for the first */
    record ToolSetTrack(String code, String name, int number, int copies, List<Span> out) {}

    List<TechnicianTrack> technicians(BoardCases.Gathered gathered, LocalDate from, int count) {
        Ruler shown = new Ruler(from, count, gathered.ruler().times());
        return people.technicians().stream()
                .map(p -> new TechnicianTrack(
                        p.id(),
                        p.name(),
                        p.skills().stream().sorted().map(s -> s.words()).collect(Collectors.joining(", ")),
                        away(p, gathered, shown)))
                .toList();
    }

    /** Whole days run together; hours before and after work stay with their day. */
    private List<Span> away(Person p, BoardCases.Gathered gathered, Ruler shown) {
        Set<Integer> off = shown.slotsOff(hours.of(p));
        List<Span> away = new ArrayList<>();
        for (int d = 0; d < shown.days(); d++) {
            LocalDate day = shown.date(d);
            int first = d * shown.perDay();
            int end = first + shown.perDay();
            Optional<Absence> absence = gathered.absences().stream()
                    .filter(a -> a.technicianId().equals(Optional.of(p.id())) && a.covers(day))
                    .findFirst();
            if (absence.isPresent() || IntStream.range(first, end).allMatch(off::contains)) {
                String why =
                        absence.map(a -> a.why().isEmpty() ? "away" : a.why()).orElse("does not work");
                boolean wholeBefore = away.isEmpty() || away.get(away.size() - 1).from % shown.perDay() == 0;
                if (wholeBefore) {
                    add(away, first, end, why);
                } else {
                    away.add(new Span(first, end, why));
                }
                continue;
            }
            List<Span> hoursOff = new ArrayList<>();
            IntStream.range(first, end).filter(off::contains).forEach(s -> add(hoursOff, s, s + 1, "does not work"));
            away.addAll(hoursOff);
        }
        return away;
    }

    List<BayTrack> bays(BoardCases.Gathered gathered, LocalDate from, int count) {
        return jobs.bays().stream()
                .map(b -> new BayTrack(
                        b.id(),
                        b.name(),
                        b.note(),
                        spans(
                                new Ruler(from, count, gathered.ruler().times()),
                                gathered.absences().stream()
                                        .filter(a -> a.bayId().equals(Optional.of(b.id())))
                                        .toList())))
                .toList();
    }

    /** Adds a span to the spans, joined with the one before where the reason is the same. */
    static void add(List<Span> spans, int from, int to, String why) {
        Span last = spans.isEmpty() ? null : spans.get(spans.size() - 1);
        if (last != null && last.to == from && last.why.equals(why)) {
            spans.set(spans.size() - 1, new Span(last.from, to, why));
        } else {
            spans.add(new Span(from, to, why));
        }
    }

    private static List<Span> spans(Ruler shown, List<Absence> absences) {
        List<Span> spans = new ArrayList<>();
        for (int d = 0; d < shown.days(); d++) {
            LocalDate day = shown.date(d);
            int at = d * shown.perDay();
            absences.stream()
                    .filter(a -> a.covers(day))
                    .findFirst()
                    .ifPresent(a -> add(spans, at, at + shown.perDay(), a.why().isEmpty() ? "closed" : a.why()));
        }
        return spans;
    }

    static List<ToolSetTrack> toolSets(
            BoardCases.Gathered gathered, List<BoardViews.BlockView> blocks, LocalDate from, int count) {
        Map<String, Integer> used = new HashMap<>();
        blocks.forEach(b -> used.merge(b.toolSet(), b.copy(), Math::max));
        return gathered.plan().shop().toolSets().stream()
                .filter(s -> used.containsKey(s.code()) && !s.code().equals(BoardCases.NO_TOOLS))
                .flatMap(s -> IntStream.rangeClosed(
                                1, Math.max(used.getOrDefault(s.code(), 1), Math.min(2, s.copies())))
                        .mapToObj(n -> new ToolSetTrack(
                                s.code(),
                                s.name(),
                                n,
                                s.copies(),
                                n == s.copies()
                                        ? spans(
                                                new Ruler(
                                                        from,
                                                        count,
                                                        gathered.ruler().times()),
                                                gathered.absences().stream()
                                                        .filter(a ->
                                                                a.familyCode().equals(Optional.of(s.code())))
                                                        .toList())
                                        : List.of())))
                .toList();
    }
}
