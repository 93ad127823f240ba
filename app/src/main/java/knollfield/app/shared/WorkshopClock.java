package knollfield.app.shared;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/** The one clock of the application. {@code knollfield.today} pins the day; the time of day goes on. */
@Component
public class WorkshopClock {

    private final Clock clock;
    private final Style style;

    WorkshopClock(@Value("${knollfield.today:#{null}}") @Nullable LocalDate pinned, Style style) {
        this.style = style;
        ZoneId zone = ZoneId.systemDefault();
        Clock system = Clock.system(zone);
        if (pinned == null) {
            clock = system;
        } else {
            Instant then = pinned.atTime(LocalTime.now(zone)).atZone(zone).toInstant();
            clock = Clock.offset(system, Duration.between(system.instant(), then));
        }
    }

    public LocalDate today() {
        return LocalDate.now(clock.withZone(zone()));
    }

    public LocalDateTime now() {
        return LocalDateTime.now(clock.withZone(zone()));
    }

    /** Of the workshop's days and times of day. */
    public ZoneId zone() {
        return style.get().zone();
    }

    public Instant instant() {
        return clock.instant();
    }
}
