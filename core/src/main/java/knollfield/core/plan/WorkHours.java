package knollfield.core.plan;

import java.time.DayOfWeek;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.format.DateTimeParseException;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.stream.Collectors;

/**
 * When work is done, by day of the week; what lies between two spans of a day is a break.
 *
 * @param byDay spans in the order of time, none overlapping another; a day that is not named is free
 */
public record WorkHours(Map<DayOfWeek, List<Span>> byDay) {

    /** Minutes of one step of the board's ruler. */
    public static final int STEP_MINUTES = 30;

    /** Nobody works. */
    public static final WorkHours NONE = new WorkHours(Map.of());

    /** Work without a break; both ends on a full or a half hour, the end after the start. */
    public record Span(LocalTime from, LocalTime to) {
        public Span {
            if (!from.isBefore(to) || !onStep(from) || !onStep(to)) {
                throw new IllegalArgumentException(
                        "%s to %s is no span of half-hours within a day".formatted(from, to));
            }
        }

        private static boolean onStep(LocalTime t) {
            return t.getMinute() % STEP_MINUTES == 0 && t.getSecond() == 0 && t.getNano() == 0;
        }
    }

    /** @throws IllegalArgumentException where two spans of a day overlap */
    public WorkHours {
        Map<DayOfWeek, List<Span>> days = new EnumMap<>(DayOfWeek.class);
        byDay.forEach((day, spans) -> {
            List<Span> sorted =
                    spans.stream().sorted(Comparator.comparing(Span::from)).toList();
            for (int i = 1; i < sorted.size(); i++) {
                if (sorted.get(i).from().isBefore(sorted.get(i - 1).to())) {
                    throw new IllegalArgumentException("two spans of %s overlap".formatted(day));
                }
            }
            if (!sorted.isEmpty()) {
                days.put(day, sorted);
            }
        });
        byDay = Map.copyOf(days);
    }

    /** Monday to Friday, 08:00 to 12:00 and 13:00 to 17:00 (planning assumption). */
    public static WorkHours usual() {
        List<Span> day = List.of(
                new Span(LocalTime.of(8, 0), LocalTime.of(12, 0)), new Span(LocalTime.of(13, 0), LocalTime.of(17, 0)));
        return new WorkHours(
                EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY).stream().collect(Collectors.toMap(d -> d, d -> day)));
    }

    /** These hours on {@code days} only. */
    public WorkHours on(Set<DayOfWeek> days) {
        return new WorkHours(byDay.entrySet().stream()
                .filter(e -> days.contains(e.getKey()))
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue)));
    }

    /** True where somebody works on that day. */
    public boolean workOn(DayOfWeek day) {
        return byDay.containsKey(day);
    }

    /** True where the half-hour that begins at {@code start} is worked. */
    public boolean workAt(DayOfWeek day, LocalTime start) {
        return byDay.getOrDefault(day, List.of()).stream()
                .anyMatch(s -> !start.isBefore(s.from()) && start.isBefore(s.to()));
    }

    /**
     * True where a job of {@code minutes} that stands from {@code from} until {@code to} in these hours stands there in
     * {@code next} too: it may begin then, and is not done later. A job that had fewer half-hours than it takes already needs
     * no more of them than it had.
     */
    public boolean areKeptBy(WorkHours next, LocalDateTime from, LocalDateTime to, int minutes) {
        int needed = Math.min(worked(from, to), (minutes + STEP_MINUTES - 1) / STEP_MINUTES);
        return !workAt(from.getDayOfWeek(), from.toLocalTime())
                || (next.workAt(from.getDayOfWeek(), from.toLocalTime()) && next.worked(from, to) >= needed);
    }

    /** Half-hours worked from {@code from} until {@code to}. */
    private int worked(LocalDateTime from, LocalDateTime to) {
        int worked = 0;
        for (LocalDateTime t = from; t.isBefore(to); t = t.plusMinutes(STEP_MINUTES)) {
            worked += workAt(t.getDayOfWeek(), t.toLocalTime()) ? 1 : 0;
        }
        return worked;
    }

    /** Minutes worked on the longest day of the week; 0 where there is none. */
    public int longestDayMinutes() {
        return byDay.values().stream()
                .mapToInt(spans -> spans.stream()
                        .mapToInt(s -> (s.to().toSecondOfDay() - s.from().toSecondOfDay()) / 60)
                        .sum())
                .max()
                .orElse(0);
    }

    /** The starts of all half-hours that are worked on one day of the week or another. */
    public SortedSet<LocalTime> halfHours() {
        SortedSet<LocalTime> starts = new TreeSet<>();
        byDay.values().stream().flatMap(List::stream).forEach(s -> {
            for (LocalTime t = s.from(); t.isBefore(s.to()); t = t.plusMinutes(STEP_MINUTES)) {
                starts.add(t);
            }
        });
        return starts;
    }

    /** One line a computer reads again, such as {@code MONDAY 08:00-12:00 13:00-17:00;SATURDAY 09:00-12:00}. */
    public String write() {
        return byDay.entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .map(e -> e.getKey()
                        + e.getValue().stream()
                                .map(s -> " " + s.from() + "-" + s.to())
                                .collect(Collectors.joining()))
                .collect(Collectors.joining(";"));
    }

    /** @throws IllegalArgumentException for anything {@link #write()} does not write */
    public static WorkHours read(String line) {
        Map<DayOfWeek, List<Span>> days = new EnumMap<>(DayOfWeek.class);
        for (String day : line.split(";")) {
            if (day.isBlank()) {
                continue;
            }
            String[] words = day.strip().split(" ");
            days.put(
                    DayOfWeek.valueOf(words[0]),
                    Arrays.stream(words).skip(1).map(WorkHours::span).toList());
        }
        return new WorkHours(days);
    }

    private static Span span(String word) {
        String[] ends = word.split("-");
        try {
            return new Span(LocalTime.parse(ends[0]), LocalTime.parse(ends[1]));
        } catch (DateTimeParseException | ArrayIndexOutOfBoundsException e) {
            throw new IllegalArgumentException("\"%s\" is no span of time".formatted(word), e);
        }
    }
}
