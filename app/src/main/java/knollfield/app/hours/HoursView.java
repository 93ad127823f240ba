package knollfield.app.hours;

import java.time.DayOfWeek;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.core.plan.WorkHours;
import org.jspecify.annotations.Nullable;

/** A day's hours as a screen shows and sends them. */
public final class HoursView {

    private HoursView() {}

    /** Both ends on a full or a half hour. */
    public record SpanView(
            @Nullable LocalTime from, @Nullable LocalTime to) {}

    /** @param spans empty on a free day */
    public record DayHours(DayOfWeek day, List<SpanView> spans) {}

    /** The seven days. */
    public static List<DayHours> of(WorkHours hours) {
        return Arrays.stream(DayOfWeek.values())
                .map(d -> new DayHours(
                        d,
                        hours.byDay().getOrDefault(d, List.of()).stream()
                                .map(s -> new SpanView(s.from(), s.to()))
                                .toList()))
                .toList();
    }

    /**
     * The hours a screen sent.
     *
     * @param pointer of the list in the request
     * @throws InvalidInput naming each span that is none
     */
    public static WorkHours read(@Nullable List<DayHours> days, String pointer) {
        List<FieldProblem> problems = new ArrayList<>();
        Map<DayOfWeek, List<WorkHours.Span>> byDay = new EnumMap<>(DayOfWeek.class);
        List<DayHours> all = Objects.requireNonNullElse(days, List.of());
        for (int d = 0; d < all.size(); d++) {
            List<WorkHours.Span> spans = new ArrayList<>();
            for (int s = 0; s < all.get(d).spans().size(); s++) {
                String at = "%s/%d/spans/%d".formatted(pointer, d, s);
                SpanView span = all.get(d).spans().get(s);
                try {
                    WorkHours.Span read =
                            new WorkHours.Span(Objects.requireNonNull(span.from()), Objects.requireNonNull(span.to()));
                    if (spans.stream()
                            .anyMatch(o ->
                                    o.from().isBefore(read.to()) && read.from().isBefore(o.to()))) {
                        problems.add(new FieldProblem(at, "Overlaps the hours beside it."));
                    } else {
                        spans.add(read);
                    }
                } catch (NullPointerException | IllegalArgumentException e) {
                    problems.add(new FieldProblem(
                            at, "From and to, both on a full or a half hour, the end after the start."));
                }
            }
            byDay.put(all.get(d).day(), spans);
        }
        if (!problems.isEmpty()) {
            throw new InvalidInput(problems);
        }
        return new WorkHours(byDay);
    }
}
