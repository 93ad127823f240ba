package knollfield.app.settings;

import java.util.OptionalInt;
import knollfield.app.problem.Checks;
import knollfield.core.clock.Limit;
import knollfield.core.due.Policy.Timing;
import org.jspecify.annotations.Nullable;

/** How a policy's timing stands in a row: its kind, a share, a distance and an age. */
public final class Timings {

    private Timings() {}

    /** The kinds of timing by their names on the wire and in the database. */
    public enum Kind {
        BOOK,
        EARLY,
        FIXED,
        CAREFUL
    }

    public static String kind(Timing timing) {
        return kindOf(timing).name();
    }

    public static Kind kindOf(Timing timing) {
        if (timing instanceof Timing.Book) {
            return Kind.BOOK;
        }
        if (timing instanceof Timing.Careful) {
            return Kind.CAREFUL;
        }
        return timing instanceof Timing.Early ? Kind.EARLY : Kind.FIXED;
    }

    public static @Nullable Double share(Timing timing) {
        return timing instanceof Timing.Early early ? early.share() : null;
    }

    public static @Nullable Integer km(Timing timing) {
        return timing instanceof Timing.Fixed f && f.limit().km().isPresent()
                ? f.limit().km().getAsInt()
                : null;
    }

    public static @Nullable Integer months(Timing timing) {
        return timing instanceof Timing.Fixed f && f.limit().months().isPresent()
                ? f.limit().months().getAsInt()
                : null;
    }

    /** The timing of these figures; those that do not belong to the kind are not looked at. */
    public static Timing of(Kind kind, double share, @Nullable Integer km, @Nullable Integer months) {
        return switch (kind) {
            case BOOK -> new Timing.Book();
            case CAREFUL -> new Timing.Careful();
            case EARLY -> new Timing.Early(share);
            case FIXED -> new Timing.Fixed(new Limit(optional(km), optional(months)));
        };
    }

    /** Where the figures of a timing stand in a request. */
    public record Pointers(String share, String km, String months) {}

    /** Notes in {@code checks} what is wrong with the figures of a timing of this kind. */
    public static Checks check(
            Checks checks, Kind kind, double share, @Nullable Integer km, @Nullable Integer months, Pointers at) {
        return checks.that(
                        kind != Kind.EARLY || (share > 0 && share <= 1),
                        at.share(),
                        "The share must be above 0 % and at most 100 %.")
                .that(
                        kind != Kind.FIXED || km != null || months != null,
                        at.km(),
                        "A fixed limit needs a distance, an age, or both.")
                .that(km == null || km > 0, at.km(), "The distance must be above zero.")
                .that(months == null || months > 0, at.months(), "The age must be above zero.");
    }

    public static OptionalInt optional(@Nullable Integer value) {
        return value == null ? OptionalInt.empty() : OptionalInt.of(value);
    }
}
