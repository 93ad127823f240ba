package knollfield.core.due;

import java.time.LocalDate;
import java.util.Optional;

/**
 * Whether a vehicle runs (rules.md section 2, "Vehicle state").
 *
 * @param since the day it began; empty for {@link Kind#IN_USE} only
 */
public record UseState(Kind kind, Optional<LocalDate> since) {

    /** Laid up: age runs, distance does not. Sold, scrapped, entered by mistake: no longer the workshop's to plan. */
    public enum Kind {
        IN_USE("in use"),
        LAID_UP("laid up"),
        SOLD("sold"),
        SCRAPPED("scrapped"),
        /** It should never have been on file; what was written about it stays. */
        MISTAKE("entered by mistake");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public UseState {
        if ((kind == Kind.IN_USE) == since.isPresent()) {
            throw new IllegalArgumentException("%s needs %s".formatted(kind, kind == Kind.IN_USE ? "no day" : "a day"));
        }
    }

    public static UseState inUse() {
        return new UseState(Kind.IN_USE, Optional.empty());
    }

    public static UseState laidUp(LocalDate since) {
        return new UseState(Kind.LAID_UP, Optional.of(since));
    }

    /** The day from which no distance is added. */
    public Optional<LocalDate> standsFrom() {
        return kind == Kind.LAID_UP ? since : Optional.empty();
    }

    /** False where nobody waits for a decision any more. */
    public boolean planned() {
        return kind == Kind.IN_USE || kind == Kind.LAID_UP;
    }
}
