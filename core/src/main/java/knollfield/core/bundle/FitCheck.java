package knollfield.core.bundle;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;

/** Whether a new part takes the place of the old one (rules.md section 5, "Fit check"). */
public final class FitCheck {

    private FitCheck() {}

    /** Dimensions are compared to this many millimetres; planning assumption. */
    public static final double TOLERANCE_MM = 0.2;

    /**
     * What can be counted or measured of a part; empty where it has none or nobody knows.
     *
     * @param teeth teeth or links
     * @param side such as {@code left}
     */
    public record Data(
            OptionalInt teeth,
            OptionalDouble widthMm,
            OptionalDouble lengthMm,
            OptionalDouble thicknessMm,
            Optional<String> side) {

        public static Data unknown() {
            return new Data(
                    OptionalInt.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    Optional.empty());
        }
    }

    /** Such as "145 teeth or links, 25.4 mm wide". */
    public static String words(Data d) {
        List<String> all = new ArrayList<>();
        d.teeth().ifPresent(t -> all.add(t + " teeth or links"));
        d.widthMm().ifPresent(v -> all.add(String.format(Locale.ROOT, "%.1f mm wide", v)));
        d.lengthMm().ifPresent(v -> all.add(String.format(Locale.ROOT, "%.1f mm long", v)));
        d.thicknessMm().ifPresent(v -> all.add(String.format(Locale.ROOT, "%.1f mm thick", v)));
        d.side().ifPresent(all::add);
        return String.join(", ", all);
    }

    /** @param words such as {@code 146 teeth, the book has 145} */
    public record Mismatch(String what, String words) {}

    /** What differs between the book's part and the one in hand; what either does not say is not compared. */
    public static List<Mismatch> compare(Data book, Data hand) {
        List<Mismatch> found = new ArrayList<>();
        if (book.teeth().isPresent()
                && hand.teeth().isPresent()
                && book.teeth().getAsInt() != hand.teeth().getAsInt()) {
            found.add(new Mismatch(
                    "teeth",
                    "%d teeth or links, the book has %d"
                            .formatted(hand.teeth().getAsInt(), book.teeth().getAsInt())));
        }
        dimension("width", book.widthMm(), hand.widthMm(), found);
        dimension("length", book.lengthMm(), hand.lengthMm(), found);
        dimension("thickness", book.thicknessMm(), hand.thicknessMm(), found);
        if (book.side().isPresent()
                && hand.side().isPresent()
                && !book.side().get().equalsIgnoreCase(hand.side().get())) {
            found.add(new Mismatch(
                    "side",
                    "for the %s, the book has %s"
                            .formatted(hand.side().get(), book.side().get())));
        }
        return found;
    }

    private static void dimension(String what, OptionalDouble book, OptionalDouble hand, List<Mismatch> found) {
        if (book.isPresent()
                && hand.isPresent()
                && Math.abs(book.getAsDouble() - hand.getAsDouble()) > TOLERANCE_MM + 1e-9) {
            found.add(new Mismatch(
                    what,
                    String.format(
                            Locale.ROOT,
                            "%s %.1f mm, the book has %.1f mm",
                            what,
                            hand.getAsDouble(),
                            book.getAsDouble())));
        }
    }
}
