package knollfield.app.job;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The bays of the workshop; the manager's alone. */
@RestController
@RequestMapping("/api/setup/bays")
class BayController {

    private final Bays bays;

    BayController(Bays bays) {
        this.bays = bays;
    }

    /** @param liftClass 1 light, 2 heavy */
    record NewBay(
            @Nullable String name,
            @Nullable String note,
            int liftClass,
            @Nullable Integer posts,
            @Nullable Integer carriesKg) {}

    /** @param active false gives the bay up */
    record BayChange(
            @Nullable String name,
            @Nullable String note,
            int liftClass,
            @Nullable Integer posts,
            @Nullable Integer carriesKg,
            boolean active,
            int version) {}

    @GetMapping
    List<Bay> all() {
        return bays.all();
    }

    @PostMapping
    List<Bay> add(@RequestBody NewBay b) {
        bays.add(new Bay(0, text(b.name()), text(b.note()), b.liftClass(), b.posts(), b.carriesKg(), true, 1));
        return bays.all();
    }

    @PutMapping("/{id}")
    List<Bay> change(@PathVariable long id, @RequestBody BayChange b) {
        bays.change(new Bay(
                id, text(b.name()), text(b.note()), b.liftClass(), b.posts(), b.carriesKg(), b.active(), b.version()));
        return bays.all();
    }

    private static String text(@Nullable String value) {
        return Objects.requireNonNullElse(value, "");
    }
}
