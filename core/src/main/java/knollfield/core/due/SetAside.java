package knollfield.core.due;

import java.time.LocalDate;
import java.util.Collection;
import java.util.Optional;

/**
 * Whether a vehicle waits outside today's list although its status stands (rules.md section 2): its owner has declined,
 * or asked to be asked again later. Anything found since brings it back.
 *
 * @param until the day it comes back
 */
public record SetAside(Why why, LocalDate until) {

    /** Why it waits. */
    public enum Why {
        DECLINED("declined"),
        ASK_AGAIN("ask again");

        private final String words;

        Why(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A wish of the owner.
     *
     * @param said the day it was said
     * @param until the day it ends
     */
    public record Wish(Why why, LocalDate said, LocalDate until) {}

    /** The wish that holds longest on {@code today}; empty where none does, or something was found after it. */
    public static Optional<SetAside> of(Collection<Wish> wishes, Collection<Evidence> evidence, LocalDate today) {
        Optional<Wish> longest = Optional.empty();
        for (Wish wish : wishes) {
            boolean overtaken = evidence.stream()
                    .anyMatch(e -> e.kind().effect() != EvidenceKind.Effect.NONE
                            && e.found().isAfter(wish.said()));
            if (wish.until().isAfter(today)
                    && !overtaken
                    && longest.filter(l -> !l.until().isBefore(wish.until())).isEmpty()) {
                longest = Optional.of(wish);
            }
        }
        return longest.map(w -> new SetAside(w.why(), w.until()));
    }

    /** Whether a call was promised for today or an earlier day, and nothing has been said since. */
    public static boolean callBack(Collection<Wish> wishes, LocalDate today) {
        return wishes.stream()
                .filter(w -> w.why() == Why.ASK_AGAIN)
                .reduce((a, b) -> b.said().isBefore(a.said()) ? a : b)
                .filter(w -> !w.until().isAfter(today))
                .isPresent();
    }
}
