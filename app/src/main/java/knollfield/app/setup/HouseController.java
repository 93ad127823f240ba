package knollfield.app.setup;

import java.time.ZoneId;
import java.util.List;
import java.util.Objects;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.House;
import knollfield.app.settings.Houses;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Style;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Who the workshop is and how it writes figures; the manager's alone. */
@RestController
@RequestMapping("/api/setup/house")
class HouseController {

    private final Houses houses;
    private final WorkshopSettings settings;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    HouseController(Houses houses, WorkshopSettings settings, CurrentPerson current, WorkshopClock clock) {
        this.houses = houses;
        this.settings = settings;
        this.current = current;
        this.clock = clock;
    }

    /**
     * @param currency ISO 4217
     * @param outsideAddress where people outside reach this server; empty: they do not
     * @param zone a region of the time zone database; empty: as the computer has it
     * @param zones all there are
     */
    record HouseView(
            String name,
            String currency,
            String address,
            String phone,
            String email,
            String taxNumber,
            String outsideAddress,
            String zone,
            DistanceUnit unit,
            Style.NumberStyle numbers,
            List<String> zones,
            int version,
            String changedBy) {}

    record HouseChange(
            @Nullable String name,
            @Nullable String currency,
            @Nullable String address,
            @Nullable String phone,
            @Nullable String email,
            @Nullable String taxNumber,
            @Nullable String outsideAddress,
            @Nullable String zone,
            @Nullable DistanceUnit unit,
            Style.@Nullable NumberStyle numbers,
            int version) {}

    @GetMapping
    HouseView get() {
        House h = houses.get();
        return new HouseView(
                settings.get().name(),
                settings.get().currency(),
                h.address(),
                h.phone(),
                h.email(),
                h.taxNumber(),
                h.outsideAddress(),
                h.zone(),
                h.unit(),
                h.numbers(),
                ZoneId.getAvailableZoneIds().stream()
                        .filter(z -> z.contains("/") && !z.startsWith("Etc/") && !z.startsWith("SystemV/"))
                        .sorted()
                        .toList(),
                h.version(),
                h.changedBy());
    }

    @PutMapping
    HouseView change(@RequestBody HouseChange c) {
        houses.change(
                text(c.name()),
                text(c.currency()),
                new House(
                        text(c.address()),
                        text(c.phone()),
                        text(c.email()),
                        text(c.taxNumber()),
                        text(c.outsideAddress()).replaceAll("/+$", ""),
                        text(c.zone()),
                        Objects.requireNonNullElse(c.unit(), DistanceUnit.KM),
                        Objects.requireNonNullElse(c.numbers(), Style.NumberStyle.COMMA_POINT),
                        c.version(),
                        current.get().name()),
                clock.instant());
        return get();
    }

    private static String text(@Nullable String value) {
        return Objects.requireNonNullElse(value, "").strip();
    }
}
