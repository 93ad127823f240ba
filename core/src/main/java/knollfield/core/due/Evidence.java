package knollfield.core.due;

import java.time.LocalDate;
import java.util.Optional;

/**
 * Something found on a vehicle that has not ended yet.
 *
 * @param item code of the item it was found on; empty: what the kind of finding speaks of
 */
public record Evidence(EvidenceKind kind, LocalDate found, Confidence confidence, Optional<String> item) {

    /** How it is known, best first. A measurement outweighs looks. */
    public enum Confidence {
        MEASURED("measured"),
        SEEN("seen"),
        SAID("said"),
        /** A stand-in said it, for trying out; it stands on file and changes nothing. */
        SIMULATED("simulated");

        private final String words;

        Confidence(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Seen, on whatever the kind of finding speaks of. */
    public Evidence(EvidenceKind kind, LocalDate found) {
        this(kind, found, Confidence.SEEN, Optional.empty());
    }
}
