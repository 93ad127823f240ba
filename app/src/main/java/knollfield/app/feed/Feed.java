package knollfield.app.feed;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/**
 * A source of odometer readings for one fleet.
 *
 * @param silentDays it is said to be silent when it was not heard for so many days
 * @param standIn its readings are made up
 * @param lastHeard when something came last, whether or not it was taken
 */
record Feed(
        long id,
        long fleetId,
        String name,
        int silentDays,
        boolean standIn,
        Instant madeAt,
        String madeBy,
        Optional<Instant> lastHeard) {

    /** Since when it has been silent for too long; empty while it is not. */
    Optional<Instant> silentSince(Instant now) {
        Instant last = lastHeard.orElse(madeAt);
        return Duration.between(last, now).compareTo(Duration.ofDays(silentDays)) > 0
                ? Optional.of(last)
                : Optional.empty();
    }

    /**
     * One reading as it came.
     *
     * @param vehicle registration or VIN
     * @param at a day, a moment with its offset from UTC, or a moment of the workshop's own clock; empty: now
     * @param value as it was written
     * @param unit as it was written; empty: kilometres
     */
    record Line(String vehicle, String at, String value, String unit) {}

    /** A line that was not taken, and why. */
    record Refused(Instant at, String vehicle, String what, String why) {}

    /**
     * What became of what came.
     *
     * @param taken readings recorded
     * @param known on file already, or a second one of its vehicle's day
     */
    record Received(int taken, int known, java.util.List<Refusal> refused) {}

    /** @param line counted from zero */
    record Refusal(int line, String vehicle, String why) {}
}
