package knollfield.app.hours;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** When the workshop works; the manager's alone. */
@RestController
@RequestMapping("/api/setup/hours")
class HoursController {

    private final Hours hours;

    HoursController(Hours hours) {
        this.hours = hours;
    }

    /** @param days all seven, Monday first */
    record OpeningView(List<HoursView.DayHours> days, int version, String changedBy) {}

    /** @param days those not named are free */
    record OpeningChange(@Nullable List<HoursView.DayHours> days, int version) {}

    @GetMapping
    OpeningView get() {
        Hours.Opening opening = hours.opening();
        return new OpeningView(HoursView.of(opening.hours()), opening.version(), opening.changedBy());
    }

    @PutMapping
    OpeningView change(@RequestBody OpeningChange c) {
        hours.change(HoursView.read(c.days(), "/days"), c.version());
        return get();
    }
}
