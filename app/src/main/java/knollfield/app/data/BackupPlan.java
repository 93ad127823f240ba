package knollfield.app.data;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.Optional;

/**
 * When the data are backed up by themselves.
 *
 * @param hour of the day, 0 to 23
 * @param keep how many of them stay
 * @param folder where they go; empty: beside the data
 * @param passphrase encrypts them; empty: they are not
 * @param tried when it was tried last, or the plan began
 * @param failure why that went wrong; empty where it did not
 */
record BackupPlan(
        boolean enabled,
        int hour,
        int keep,
        String folder,
        Optional<String> passphrase,
        Instant tried,
        Optional<String> failure,
        int version) {

    /** Whether the hour has come, or went by while nothing ran. */
    boolean due(Instant now, ZoneId zone) {
        ZonedDateTime here = now.atZone(zone);
        ZonedDateTime last = here.withHour(hour).withMinute(0).withSecond(0).withNano(0);
        if (last.isAfter(here)) {
            last = last.minusDays(1);
        }
        return enabled && tried.isBefore(last.toInstant());
    }
}
