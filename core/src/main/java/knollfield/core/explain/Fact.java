package knollfield.core.explain;

import java.time.LocalDate;
import java.util.Locale;

/** A figure inside a statement; the screen writes it in its own unit and form. */
public sealed interface Fact {
    /** A distance, km. */
    record Km(double km) implements Fact {}

    /** A day. */
    record Day(LocalDate date) implements Fact {}

    /** Calendar months. */
    record Months(long months) implements Fact {}

    /** Working time, minutes. */
    record Minutes(int minutes) implements Fact {}

    /** Money in minor units of the workshop's currency. */
    record Money(long minor) implements Fact {}

    /** A plain whole number. */
    record Count(long count) implements Fact {}

    /** A share, 1 = 100 %. */
    record Share(double share) implements Fact {}

    /** Words of the trade. */
    record Words(String words) implements Fact {

        /** A name that stands inside a sentence, so without its capital. */
        public static Words midSentence(String name) {
            return new Words(name.isEmpty() ? name : name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1));
        }

        /** Words that begin a sentence. */
        public static Words atStart(String words) {
            return new Words(
                    words.isEmpty() ? words : words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1));
        }
    }
}
