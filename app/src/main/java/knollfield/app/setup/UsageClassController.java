package knollfield.app.setup;

import java.util.List;
import java.util.Objects;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.UsageClasses;
import knollfield.app.shared.WorkshopClock;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What vehicles are used for; the manager's alone. */
@RestController
@RequestMapping("/api/setup/usage-classes")
class UsageClassController {

    private final UsageClasses classes;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    UsageClassController(UsageClasses classes, CurrentPerson current, WorkshopClock clock) {
        this.classes = classes;
        this.current = current;
        this.clock = clock;
    }

    /** Distances in km a year. */
    record NewClass(@Nullable String name, double meanKm, double sdKm) {}

    /** Distances in km a year. */
    record ClassChange(@Nullable String name, double meanKm, double sdKm, int version) {}

    @GetMapping
    List<UsageClasses.Listed> all() {
        return classes.all();
    }

    @PostMapping
    List<UsageClasses.Listed> add(@RequestBody NewClass c) {
        classes.add(
                Objects.requireNonNullElse(c.name(), ""),
                c.meanKm(),
                c.sdKm(),
                current.get().name(),
                clock.instant());
        return classes.all();
    }

    @PutMapping("/{code}")
    List<UsageClasses.Listed> change(@PathVariable String code, @RequestBody ClassChange c) {
        classes.change(
                code,
                Objects.requireNonNullElse(c.name(), ""),
                c.meanKm(),
                c.sdKm(),
                c.version(),
                current.get().name(),
                clock.instant());
        return classes.all();
    }

    @DeleteMapping("/{code}")
    List<UsageClasses.Listed> giveUp(@PathVariable String code, @RequestParam int version) {
        classes.giveUp(code, version, current.get().name(), clock.instant());
        return classes.all();
    }
}
