package knollfield.app.standins;

import java.time.DayOfWeek;
import java.time.LocalTime;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What is connected, and when deliveries come; the manager's alone. */
@RestController
@RequestMapping("/api/setup/outside")
class OutsideController {

    private final Outside outside;

    OutsideController(Outside outside) {
        this.outside = outside;
    }

    /** True where a stand-in answers; false where nothing is connected. */
    record OutsideView(
            boolean faultCodes,
            boolean beltMeter,
            boolean parts,
            String deliveryName,
            Set<DayOfWeek> deliveryDays,
            @Nullable LocalTime cutOff,
            int version) {}

    record OutsideChange(
            boolean faultCodes,
            boolean beltMeter,
            boolean parts,
            @Nullable String deliveryName,
            @Nullable Set<DayOfWeek> deliveryDays,
            @Nullable LocalTime cutOff,
            int version) {}

    @GetMapping
    OutsideView get() {
        Outside.State s = outside.get();
        return new OutsideView(
                s.faultCodes(),
                s.beltMeter(),
                s.parts(),
                s.deliveryName(),
                s.deliveryDays(),
                s.cutOff().orElse(null),
                s.version());
    }

    @PutMapping
    OutsideView change(@RequestBody OutsideChange c) {
        outside.change(new Outside.State(
                c.faultCodes(),
                c.beltMeter(),
                c.parts(),
                Objects.requireNonNullElse(c.deliveryName(), ""),
                Objects.requireNonNullElse(c.deliveryDays(), Set.of()),
                Optional.ofNullable(c.cutOff()),
                c.version()));
        return get();
    }
}
