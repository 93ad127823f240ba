package knollfield.app.board;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import knollfield.app.away.Absence;
import knollfield.app.job.Jobs;
import knollfield.app.security.People;
import knollfield.core.plan.Ruler;
import knollfield.core.plan.WorkCalendar;
import org.springframework.stereotype.Component;

/** The board's tracks without their jobs: who and what there is, and when it is not. */
@Component
class TrackViews {

    private final People people;
    private final Jobs jobs;

    TrackViews(People people, Jobs jobs) {
        this.people = people;
        this.jobs = jobs;
    }

    /** Half-hours from the first day shown, the end one not included. */
    record Span(int from, int to, String why) {}

    record TechnicianTrack(long id, String name, String skills, List<Span> away) {}

    record BayTrack(long id, String name, String note, List<Span> closed) {}

    /** @param number of the copy, 1 for the first */
    record ToolSetTrack(String code, String name, int number, int copies, List<Span> out) {}

    List<TechnicianTrack> technicians(BoardCases.Gathered gathered, LocalDate from, int count) {
        return people.technicians().stream()
                .map(p -> {
                    List<Span> away = new ArrayList<>();
                    for (int d = 0; d < count; d++) {
                        LocalDate day = from.plusDays(d);
                        Optional<Absence> absence = gathered.absences().stream()
                                .filter(a -> a.technicianId().equals(Optional.of(p.id())) && a.covers(day))
                                .findFirst();
                        boolean works = !p.workingDays().isEmpty() && new WorkCalendar(p.workingDays()).worksOn(day);
                        if (absence.isPresent() || !works) {
                            String why = absence.map(a -> a.why().isEmpty() ? "away" : a.why())
                                    .orElse("does not work");
                            add(away, d, why);
                        }
                    }
                    return new TechnicianTrack(
                            p.id(),
                            p.name(),
                            p.skills().stream().sorted().map(s -> s.words()).collect(Collectors.joining(", ")),
                            away);
                })
                .toList();
    }

    List<BayTrack> bays(BoardCases.Gathered gathered, LocalDate from, int count) {
        return jobs.bays().stream()
                .map(b -> new BayTrack(
                        b.id(),
                        b.name(),
                        b.note(),
                        spans(
                                from,
                                count,
                                gathered.absences().stream()
                                        .filter(a -> a.bayId().equals(Optional.of(b.id())))
                                        .toList())))
                .toList();
    }

    /** Adds a day to the spans, joined with the day before where the reason is the same. */
    static void add(List<Span> spans, int day, String why) {
        int from = day * Ruler.SLOTS_PER_DAY;
        int to = from + Ruler.SLOTS_PER_DAY;
        Span last = spans.isEmpty() ? null : spans.get(spans.size() - 1);
        if (last != null && last.to == from && last.why.equals(why)) {
            spans.set(spans.size() - 1, new Span(last.from, to, why));
        } else {
            spans.add(new Span(from, to, why));
        }
    }

    private static List<Span> spans(LocalDate from, int count, List<Absence> absences) {
        List<Span> spans = new ArrayList<>();
        for (int d = 0; d < count; d++) {
            LocalDate day = from.plusDays(d);
            int here = d;
            absences.stream()
                    .filter(a -> a.covers(day))
                    .findFirst()
                    .ifPresent(a -> add(spans, here, a.why().isEmpty() ? "closed" : a.why()));
        }
        return spans;
    }

    static List<ToolSetTrack> toolSets(
            BoardCases.Gathered gathered, List<BoardViews.BlockView> blocks, LocalDate from, int count) {
        Map<String, Integer> used = new HashMap<>();
        blocks.forEach(b -> used.merge(b.toolSet(), b.copy(), Math::max));
        return gathered.plan().shop().toolSets().stream()
                .filter(s -> used.containsKey(s.code()))
                .flatMap(s -> IntStream.rangeClosed(
                                1, Math.max(used.getOrDefault(s.code(), 1), Math.min(2, s.copies())))
                        .mapToObj(n -> new ToolSetTrack(
                                s.code(),
                                s.name(),
                                n,
                                s.copies(),
                                n == s.copies()
                                        ? spans(
                                                from,
                                                count,
                                                gathered.absences().stream()
                                                        .filter(a ->
                                                                a.familyCode().equals(Optional.of(s.code())))
                                                        .toList())
                                        : List.of())))
                .toList();
    }
}
