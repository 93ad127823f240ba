package knollfield.app.away;

import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Days on which the workshop is closed; the manager's alone. */
@RestController
@RequestMapping("/api/setup/closed-days")
class ClosedDaysController {

    private final ClosedDays closed;
    private final Absences absences;

    ClosedDaysController(ClosedDays closed, Absences absences) {
        this.closed = closed;
        this.absences = absences;
    }

    /** @param to missing: that one day */
    record ClosedIn(
            LocalDate from,
            @Nullable LocalDate to,
            @Nullable String why) {}

    record ClosedList(List<ClosedIn> days) {}

    /** @param text of a calendar file, RFC 5545 */
    record CalendarFile(@Nullable String text) {}

    @GetMapping
    List<ClosedDays.Closed> all() {
        return closed.all();
    }

    /** What a calendar file says; changes nothing. */
    @PostMapping("/read")
    List<ClosedDays.Closed> read(@RequestBody CalendarFile file) {
        return closed.read(Objects.requireNonNullElse(file.text(), ""));
    }

    @PostMapping
    List<ClosedDays.Closed> add(@RequestBody ClosedList list) {
        closed.add(list.days().stream()
                .map(d -> new ClosedDays.Closed(
                        0,
                        d.from(),
                        Objects.requireNonNullElse(d.to(), d.from()),
                        Objects.requireNonNullElse(d.why(), ""),
                        false))
                .toList());
        return closed.all();
    }

    @DeleteMapping("/{id}")
    List<ClosedDays.Closed> remove(@PathVariable long id) {
        absences.withdraw(id);
        return closed.all();
    }
}
